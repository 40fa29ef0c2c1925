//! Two panels cannot be cut from the same place of the sheet.

use crate::plane::{common_area, common_outlines};
use crate::quantity::tolerance::MODELLING_TOLERANCE;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "flat_overlap",
    title: "Panels overlapping in the flat",
    source: "geometry: one place of the sheet gives one place of the part",
    about: About::Folding,
    broken: WhenBroken::Withholds,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Less than this is rounding along a shared line, mm2.
const LEAST: f64 = 1.0e-3;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let boxes: Vec<_> = flat.nodes.iter().map(|node| node.region.extents()).collect();
    let mut found: Vec<Breach> = Vec::new();
    for (at, one) in flat.nodes.iter().enumerate() {
        for (other, two) in flat.nodes.iter().enumerate().skip(at + 1) {
            if !boxes[at].is_near(&boxes[other], -MODELLING_TOLERANCE) {
                continue;
            }
            let area = common_area(&one.region.outer, &two.region.outer);
            if area < LEAST {
                continue;
            }
            let operations = vec![two.name.clone(), one.name.clone()];
            // A flange and its strip are one to the designer: say it once.
            if found.iter().any(|known| known.operations == operations) {
                continue;
            }
            let place = common_outlines(&one.region.outer, &two.region.outer)
                .first()
                .map(|outline| outline.extents().centre())
                .unwrap_or_default();
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{} and {} overlap in the flat by {} near x {}, y {}",
                    one.name,
                    two.name,
                    context.unit.says(crate::quantity::Amount::Area, area, 2),
                    context.show(place.x),
                    context.show(place.y)
                ),
                way_out: "Set one of them in, shorten its leg, or make it a part of its own.".into(),
                features: vec![one.name.clone(), two.name.clone()],
                operations,
                why: RULE.why(
                    "shared area = 0",
                    format!("shared area = {}", context.unit.says(crate::quantity::Amount::Area, area, 3)),
                ),
            });
        }
    }
    found
}
