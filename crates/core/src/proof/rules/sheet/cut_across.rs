//! A cut across a bend that ends in the bend, or just past it, tears there.

use crate::plane::common_area;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_AREA};
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "cut_across",
    title: "Cut across a bend too near its tangents",
    source: "common practice: a cut that crosses a bend clears both tangent lines by T",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let mut found = Vec::new();
    // A roll bends so little at each place that nothing tears: perforated shells are rolled every day.
    for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
        let strip = flat.strip_of(bend);
        let band = crate::sheet::partition::strip_outline(strip);
        for hole in flat.holes.iter().filter(|hole| hole.work.through) {
            if !hole.extents.is_near(&band.extents(), 0.0) || common_area(&hole.outline, &band) < NO_AREA {
                continue;
            }
            let (low, high) = hole
                .outline
                .flatten(0.01)
                .iter()
                .map(|&point| strip.local(point).1)
                .fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), v| (low.min(v), high.max(v)));
            // Past the first tangent line, and past the second.
            let clear = (-low).min(high - strip.width);
            if clear >= thickness - MODELLING_TOLERANCE {
                continue;
            }
            let ends = if clear < 0.0 { "inside the bend" } else { "too near its tangent line" };
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{} crosses the bend {} and ends {ends}: {} past it, {} needed",
                    hole.name,
                    bend.name,
                    context.show(clear),
                    context.show(thickness)
                ),
                way_out: "Let the cut run further past the bend, keep it clear of the bend, or cut it after bending."
                    .into(),
                operations: vec![hole.operation.clone(), bend.name.clone()],
                features: vec![hole.name.clone(), bend.name.clone()],
                why: RULE.why(
                    "past each tangent line >= T",
                    format!("{} < {}", context.show(clear), context.show(thickness)),
                ),
            });
        }
    }
    found
}
