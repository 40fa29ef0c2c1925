//! A radius tighter than the material stands cracks on the outside of the bend.

use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::BendMake;

use super::super::rule::{Breach, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "inside_radius",
    title: "Inside radius against the material's least",
    source: "common practice, per material in data/materials.toml; the mill's sheet decides",
    broken: WhenBroken::Told,
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let thickness = context.part.flat.thickness;
    let least = context.material.least_radius(thickness);
    let mut found = Vec::new();
    for bend in &context.part.flat.bends {
        // A hem is pressed past any radius, and a roll has none to speak of: their own rules tell of them.
        if bend.make != BendMake::Brake {
            continue;
        }
        let radius = context.part.flat.strip_of(bend).radius;
        if radius < least - MODELLING_TOLERANCE {
            found.push(Breach {
                rule: RULE.key.into(),
                message: format!(
                    "{}: inside radius {} is tighter than {} for {} at {}",
                    bend.name,
                    context.show(radius),
                    context.show(least),
                    context.material.name,
                    context.show(thickness)
                ),
                way_out: format!("Use a radius of {} or more, or a softer temper.", context.show(least)),
                operations: vec![bend.name.clone()],
                features: vec![bend.name.clone()],
                why: RULE.why(
                    "R >= multiple x T",
                    format!(
                        "{} < {} x {}",
                        context.show(radius),
                        crate::quantity::decimal(least / thickness, 3),
                        context.show(thickness)
                    ),
                ),
            });
        }
    }
    found
}
