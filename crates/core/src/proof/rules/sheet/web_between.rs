//! A web too thin between two openings burns away, or bends when the part is handled.

use std::collections::BTreeMap;

use crate::patience;
use crate::plane::{Box2, Outline, Point, outline_distance};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::{Hole, TagKind};

use super::super::rule::{About, BY_HOLE, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::metal::{Formula, wanted};

pub(super) const RULE: SheetRule = SheetRule {
    key: "web_between",
    title: "Metal between two openings",
    source: "common practice: as much as a hole leaves to an edge; the shop's, as shipped 1T up to 6 mm (2T punched), above it T/2 and 6 mm at least",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: BY_HOLE,
    settings: &["asks.edge"],
    check,
};

/// The thinnest web between the holes of two operations, and how many are too thin.
struct Thin<'a> {
    web: f64,
    wanted: f64,
    formula: Formula,
    between: [&'a Hole; 2],
    count: usize,
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let part = context.part;
    // As they are closed in the blank: a window across a bend is one.
    let open: Vec<(&Outline, &Hole)> = part
        .blank
        .region
        .holes
        .iter()
        .filter_map(|outline| match part.flat.tags[outline.edges.first()?.tag as usize].kind {
            TagKind::Hole(at) => Some((outline, part.flat.holes.get(at)?)),
            _ => None,
        })
        .collect();
    let asked: Vec<(f64, Formula)> = open.iter().map(|(_, hole)| wanted(hole, context)).collect();
    let furthest = asked.iter().map(|one| one.0).fold(0.0, f64::max);
    // Swept along the longer side: a perforation has tens of thousands.
    let size = part.blank.extents();
    let along = |at: Point| if size.width() >= size.height() { at.x } else { at.y };
    let mut turns: Vec<usize> = (0..open.len()).collect();
    turns.sort_by(|&one, &two| along(open[one].1.extents.low).total_cmp(&along(open[two].1.extents.low)));
    // Side by side in that order: a hole is held against a hundred others, most of them far off.
    let boxes: Vec<Box2> = turns.iter().map(|&at| open[at].1.extents).collect();
    let mut thin: BTreeMap<[&str; 2], Thin<'_>> = BTreeMap::new();
    for (turn, &at) in turns.iter().enumerate() {
        patience::check();
        let (outline, hole) = open[at];
        let far = along(hole.extents.high) + furthest;
        for later in turn + 1..turns.len() {
            if along(boxes[later].low) > far {
                break;
            }
            if !boxes[later].is_near(&boxes[turn], furthest) {
                continue;
            }
            let other = turns[later];
            let (second, neighbour) = open[other];
            let (wanted, formula) = if asked[other].0 > asked[at].0 { asked[other] } else { asked[at] };
            if !boxes[later].is_near(&boxes[turn], wanted) {
                continue;
            }
            let web = outline_distance(outline, second);
            if web >= wanted - MODELLING_TOLERANCE {
                continue;
            }
            let mut pair = [hole.operation.as_str(), neighbour.operation.as_str()];
            pair.sort_unstable();
            let between = if at < other { [hole, neighbour] } else { [neighbour, hole] };
            let found = Thin { web, wanted, formula, between, count: 1 };
            match thin.get_mut(&pair) {
                // Of equally thin ones the first made.
                Some(known) if known.web <= web + MODELLING_TOLERANCE => known.count += 1,
                Some(known) => *known = Thin { count: known.count + 1, ..found },
                None => drop(thin.insert(pair, found)),
            }
        }
    }
    thin.into_values()
        .map(|Thin { web, wanted, formula, between: [one, two], count }| Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Broken,
            message: format!(
                "{} between {} and {}; {} needed{}",
                context.show(web),
                one.name,
                two.name,
                context.show(wanted),
                match count {
                    1 => String::new(),
                    count => format!(", and so in {} places more", count - 1),
                }
            ),
            way_out: "Set them further apart, make them smaller, or make one opening of them.".into(),
            operations: vec![two.operation.clone(), one.operation.clone()],
            features: vec![one.name.clone(), two.name.clone()],
            why: RULE.why(formula.words(context.unit), format!("{} < {}", context.show(web), context.show(wanted))),
        })
        .collect()
}
