//! A tight bend along the grain cracks.

use crate::quantity::tolerance::{NO_TURN, ROUNDING};
use crate::sheet::BendMake;
use crate::stock::Grain;

use super::super::rule::{Breach, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "grain",
    title: "Grain along a tight bend",
    source: "common practice: across the grain near the least radius; along it at least twice the radius",
    broken: WhenBroken::Told,
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let Some(grain) = context.grain else { return Vec::new() };
    let flat = &context.part.flat;
    let least = context.material.least_radius(flat.thickness);
    let mut found = Vec::new();
    for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
        let strip = flat.strip_of(bend);
        let off = match grain {
            Grain::AlongX => strip.along.y.atan2(strip.along.x),
            Grain::AlongY => strip.along.x.atan2(strip.along.y),
        };
        // From 0 (along the grain) to 90 deg (across it).
        let off = off.sin().abs().asin().to_degrees();
        if off > 45.0 - NO_TURN || strip.radius >= 2.0 * least - ROUNDING {
            continue;
        }
        found.push(Breach {
            rule: RULE.key.into(),
            message: format!(
                "{} runs {} deg off the grain with an inside radius of {}; along the grain {} is needed",
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
