//! Blind holes from opposite faces that meet, or leave too little between them.

use crate::plane::outline_distance;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::sheet::Hole;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "opposite_holes",
    title: "Holes from opposite faces",
    source: "common practice: at least 1.5 mm of metal between blind holes from both faces",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Metal wanted between them, mm.
const WANTED: f64 = 1.5;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let blind: Vec<&Hole> = flat.holes.iter().filter(|hole| !hole.work.through).collect();
    let mut found: Vec<Breach> = Vec::new();
    for (at, one) in blind.iter().enumerate() {
        for two in &blind[at + 1..] {
            let near =
                one.panel == two.panel && one.work.face != two.work.face && one.extents.is_near(&two.extents, WANTED);
            if !near || found.iter().any(|known| known.operations == [two.operation.clone(), one.operation.clone()]) {
                continue;
            }
            // Side by side the metal between them is what lies across; one over the other what lies in the depth.
            let over = one.outline.contains(two.centre)
                || two.outline.contains(one.centre)
                || outline_distance(&one.outline, &two.outline) < ROUNDING;
            let across = if over { 0.0 } else { outline_distance(&one.outline, &two.outline) };
            let deep = flat.thickness - one.work.bottom - two.work.bottom;
            // Where they pass each other in the depth only what lies across counts.
            let wall = if deep < 0.0 { if over { deep } else { across } } else { deep.hypot(across) };
            if wall >= WANTED - MODELLING_TOLERANCE {
                continue;
            }
            let message = if wall < 0.0 {
                format!("{} meets {} from the other face: they overlap by {}", two.name, one.name, context.show(-wall))
            } else {
                let (wall, wanted) = (context.show(wall), context.show(WANTED));
                format!("{} leaves {wall} to {} from the other face; {wanted} needed", two.name, one.name)
            };
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message,
                way_out: "Drill one of them shallower, move it, or drill one through.".into(),
                operations: vec![two.operation.clone(), one.operation.clone()],
                features: vec![two.name.clone(), one.name.clone()],
                why: RULE.why(
                    "thickness - depth of one - depth of the other >= 1.5 mm",
                    format!(
                        "{} - {} - {} = {}",
                        context.show(flat.thickness),
                        context.show(one.work.bottom),
                        context.show(two.work.bottom),
                        context.show(deep)
                    ),
                ),
            });
        }
    }
    found
}
