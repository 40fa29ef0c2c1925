//! A blank that is its own mirror image but for a hole or two: one side may have been forgotten.

use std::collections::HashSet;

use crate::plane::Point;
use crate::sheet::{Hole, Part};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "one_side",
    title: "Holes on one side of a blank that is alike on both",
    source: "common practice: what people forget",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// Of more holes than this nobody forgets one.
const MOST_HOLES: usize = 400;
/// So many may stand alone, and each wants three that do not: else the blank is simply another on each side.
const MOST_ALONE: usize = 4;
const PAIRED_TO_ONE: usize = 3;
/// Places nearer than this are one, mm: half of what a shop drills to.
const SAME: f64 = 0.05;

/// A number that is the same for places that are one; the shift keeps the even figures of drawings off the edge of a step.
fn step(value: f64) -> i64 {
    (value / SAME + 0.25).floor() as i64
}

fn spot(at: Point) -> (i64, i64) {
    (step(at.x), step(at.y))
}

/// What a hole is, apart from where.
fn kind(hole: &Hole) -> (i64, i64, i64, &str) {
    let (size, area) = (hole.extents, hole.outline.area());
    (step(size.width()), step(size.height()), step(area), hole.work.words.as_str())
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    context.blanks.iter().flat_map(|part| check_one(part)).collect()
}

fn check_one(part: &Part) -> Vec<Breach> {
    let (flat, region) = (&part.flat, &part.blank.region);
    let holes: Vec<&Hole> = flat.holes.iter().collect();
    if holes.len() > MOST_HOLES || holes.len() < PAIRED_TO_ONE {
        return Vec::new();
    }
    let centre = region.extents().centre();
    let told = [("left and right", true), ("front and back", false)].map(|(words, across)| {
        // Told from the middle, so that both sides round alike.
        let own = |at: Point| Point::new(at.x - centre.x, at.y - centre.y);
        let twin = |at: Point| if across { Point::new(-at.x, at.y) } else { Point::new(at.x, -at.y) };
        let edges: HashSet<_> = region
            .outer
            .segments()
            .map(|(one, _)| (spot(own(one.start)), spot(own(one.end)), step(one.bulge)))
            .collect();
        // Mirrored and walked the other way an arc bulges as before.
        let alike = region
            .outer
            .segments()
            .all(|(one, _)| edges.contains(&(spot(twin(own(one.end))), spot(twin(own(one.start))), step(one.bulge))));
        if !alike {
            return None;
        }
        let known: HashSet<_> = holes.iter().map(|hole| (spot(own(hole.centre)), kind(hole))).collect();
        let has_twin = |hole: &&&Hole| known.contains(&(spot(twin(own(hole.centre))), kind(hole)));
        let paired = holes.iter().filter(has_twin).filter(|hole| {
            let place = own(hole.centre);
            spot(place) != spot(twin(place))
        });
        let (paired, alone) =
            (paired.count(), holes.iter().filter(|hole| !has_twin(hole)).copied().collect::<Vec<_>>());
        (!alone.is_empty() && alone.len() <= MOST_ALONE && paired >= PAIRED_TO_ONE * alone.len())
            .then_some((words, alone))
    });
    // One that is alike both ways but for the same holes is told once.
    let Some((words, alone)) = told.into_iter().flatten().min_by_key(|(_, alone)| alone.len()) else {
        return Vec::new();
    };
    let names: Vec<String> = alone.iter().map(|hole| hole.name.clone()).collect();
    vec![Breach {
        rule: RULE.key.into(),
        said: None,
        accepted: None,
        level: Level::Hint,
        message: format!("the blank is alike {words} but for {}", names.join(", ")),
        way_out:
            "If it was meant on both sides, mirror it; if it is there to tell the sides apart, nothing has to be done."
                .into(),
        operations: alone.iter().map(|hole| hole.operation.clone()).collect(),
        why: RULE.why("every hole has its mirror image", format!("{} of {} holes have none", alone.len(), holes.len())),
        features: names,
    }]
}
