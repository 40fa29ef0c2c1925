//! A row of holes that ends so far from the far edge that one more would go in.

use std::collections::BTreeMap;

use crate::plane::Vector;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_TURN};
use crate::sheet::Hole;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "short_row",
    title: "A row of holes goes on to the far edge",
    source: "common practice: what people forget",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// Fewer are no row.
const FEWEST: usize = 3;

/// The one step of holes that stand in one line at even steps; `None` where they do not.
fn pitch(holes: &[&Hole]) -> Option<Vector> {
    let step = holes[1].centre - holes[0].centre;
    let even = holes.windows(2).all(|two| ((two[1].centre - two[0].centre) - step).length() < MODELLING_TOLERANCE);
    (even && step.length() > MODELLING_TOLERANCE).then_some(step)
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let mut rows: BTreeMap<(&str, usize), Vec<&Hole>> = BTreeMap::new();
    for hole in flat.holes.iter() {
        rows.entry((hole.operation.as_str(), hole.panel)).or_default().push(hole);
    }
    let mut found = Vec::new();
    for ((operation, panel), holes) in rows.into_iter().filter(|(_, holes)| holes.len() >= FEWEST) {
        let Some(step) = pitch(&holes) else { continue };
        let (first, last) = (holes[0], holes[holes.len() - 1]);
        let around = flat.nodes[panel].laid;
        // Along an edge of an upright panel; a row aslant has no far edge to speak of.
        let (behind, ahead) = if step.y.abs() < NO_TURN * step.length() {
            let (low, high) = (first.centre.x.min(last.centre.x), first.centre.x.max(last.centre.x));
            (low - around.low.x, around.high.x - high)
        } else if step.x.abs() < NO_TURN * step.length() {
            let (low, high) = (first.centre.y.min(last.centre.y), first.centre.y.max(last.centre.y));
            (low - around.low.y, around.high.y - high)
        } else {
            continue;
        };
        let (near, far) = (behind.min(ahead), behind.max(ahead));
        let more = ((far - near + MODELLING_TOLERANCE) / step.length()).floor();
        if more < 1.0 {
            continue;
        }
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Hint,
            message: format!(
                "{operation} ends {} from one edge of {} and {} from the other: {more} more would go in at {}",
                context.show(near),
                flat.nodes[panel].name,
                context.show(far),
                context.show(step.length())
            ),
            way_out: "If the row was meant to go on, make it longer or set it in the middle.".into(),
            operations: vec![operation.to_string()],
            features: vec![last.name.clone()],
            why: RULE.why(
                "far end - near end < pitch",
                format!("{} - {} >= {}", context.show(far), context.show(near), context.show(step.length())),
            ),
        });
    }
    found
}
