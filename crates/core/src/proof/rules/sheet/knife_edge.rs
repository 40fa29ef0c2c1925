//! A countersink nearly as deep as the sheet leaves a knife edge, which cuts hands and lets the head through.

use crate::quantity::tolerance::MODELLING_TOLERANCE;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "knife_edge",
    title: "Metal left under a countersink",
    source: "common practice: a countersink leaves at least a fifth of the sheet straight",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Of the thickness.
const LEFT: f64 = 0.2;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let wanted = LEFT * flat.thickness;
    let mut found = Vec::new();
    for hole in flat.holes.iter().filter(|hole| hole.work.through) {
        // A cone from the face down is a countersink.
        let cone = hole.work.profile.first().filter(|one| one.near > one.far);
        let Some(deep) = cone.map(|one| one.to) else { continue };
        let left = flat.thickness - deep;
        if left < wanted - MODELLING_TOLERANCE {
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{} is countersunk {} deep and leaves {} of {}; {} needed",
                    hole.name,
                    context.show(deep),
                    context.show(left),
                    context.show(flat.thickness),
                    context.show(wanted)
                ),
                way_out: "Take a smaller screw, a thicker sheet, or a raised washer under the head.".into(),
                operations: vec![hole.operation.clone()],
                features: vec![hole.name.clone()],
                why: RULE.why("T - depth >= T/5", format!("{} < {}", context.show(left), context.show(wanted))),
            });
        }
    }
    found
}
