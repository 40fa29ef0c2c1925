//! A tight bend along the grain cracks.

use crate::quantity::tolerance::ROUNDING;
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::inside_radius::BY_PRACTICE;

pub(super) const RULE: SheetRule = SheetRule {
    key: "grain",
    title: "Grain along a tight bend",
    source: "common practice: across the grain near the least radius; along it at least twice the radius",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let Some(grain) = context.grain else { return Vec::new() };
    let flat = &context.part.flat;
    // Where the standard's table is the rule, it has a column for bends along the grain.
    if flat.thickness > BY_PRACTICE + ROUNDING && context.material.cold_flanging(flat.thickness).is_some() {
        return Vec::new();
    }
    let least = context.material.least_radius(flat.thickness);
    let mut found = Vec::new();
    for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
        let strip = flat.strip_of(bend);
        let off = grain.off(strip.along);
        if !grain.runs_along(strip.along) || strip.radius >= 2.0 * least - ROUNDING {
            continue;
        }
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Broken,
            message: format!(
                "{} runs {} deg from the grain with an inside radius of {}; along the grain {} is needed",
                bend.name,
                crate::quantity::decimal(off, 1),
                context.show(strip.radius),
                context.show(2.0 * least)
            ),
            way_out: "Turn the blank on the sheet so that the bend crosses the grain, or make the radius larger."
                .into(),
            operations: vec![bend.name.clone()],
            features: vec![bend.name.clone()],
            why: RULE.why(
                "R >= 2 x least radius where the bend lies within 45 deg of the grain",
                format!("grain {}, {} < 2 x {}", grain.words(), context.show(strip.radius), context.show(least)),
            ),
        });
    }
    found
}
