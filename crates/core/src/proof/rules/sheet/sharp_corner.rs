//! Two bends that meet in a sharp inner corner crack it in thicker sheet.

use crate::plane::{Outline, Point};
use crate::quantity::tolerance::{NO_TURN, ROUNDING, TRACED};
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "sharp_corner",
    title: "Sharp inner corner where two bends meet",
    source: "common practice: a relief at the corner in sheet above 2 mm",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Thinner sheet bends round a tear, mm.
const THIN: f64 = 2.0;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    if flat.thickness <= THIN + ROUNDING {
        return Vec::new();
    }
    let ends: Vec<(usize, Point)> = flat
        .bends
        .iter()
        .enumerate()
        .flat_map(|(at, bend)| {
            let strip = flat.strip_of(bend);
            [(at, strip.place(0.0, 0.0)), (at, strip.place(strip.length, 0.0))]
        })
        .collect();
    let mut found = Vec::new();
    for (place, (one, point)) in ends.iter().enumerate() {
        for (two, other) in &ends[place + 1..] {
            let (a, b) = (&flat.bends[*one], &flat.bends[*two]);
            let lines = [a, b].iter().all(|bend| bend.make == BendMake::Line);
            if one == two || lines || a.parent != b.parent || a.parent.is_none() || point.distance(*other) > TRACED {
                continue;
            }
            let along = flat.strip_of(a).along.cross(flat.strip_of(b).along);
            // A relief has taken the corner away: no edge of the blank comes to it any more.
            let comes = |outline: &Outline| outline.edges.iter().any(|edge| edge.start.distance(*point) < TRACED);
            let sharp = context.part.blank.region.outlines().any(comes);
            if along.abs() < NO_TURN || !sharp {
                continue;
            }
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{} and {} meet in a sharp corner with no relief, in sheet of {}",
                    a.name,
                    b.name,
                    context.show(flat.thickness)
                ),
                way_out: "Give the corner a round or square relief.".into(),
                operations: vec![b.name.clone(), a.name.clone()],
                features: vec![a.name.clone(), b.name.clone()],
                why: RULE.why(
                    format!("a relief at the corner where T > {}", context.show(THIN)),
                    format!("T = {}", context.show(flat.thickness)),
                ),
            });
        }
    }
    found
}
