//! A row of holes that ends so far from the far edge that one more would go in.

use crate::quantity::tolerance::MODELLING_TOLERANCE;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::rows::rows;

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

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let mut found = Vec::new();
    for row in rows(flat) {
        let (near, far) = (row.ends[0].min(row.ends[1]), row.ends[0].max(row.ends[1]));
        let more = ((far - near + MODELLING_TOLERANCE) / row.pitch).floor();
        if more < 1.0 {
            continue;
        }
        let end = if row.ends[0] > row.ends[1] { row.first } else { row.last };
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Hint,
            message: format!(
                "{} ends {} from one edge of {} and {} from the other: {more} more would go in at {}",
                row.operation,
                context.show(near),
                flat.nodes[row.panel].name,
                context.show(far),
                context.show(row.pitch)
            ),
            way_out: "If the row was meant to go on, make it longer or set it in the middle.".into(),
            operations: vec![row.operation.to_string()],
            features: vec![end.name.clone()],
            why: RULE.why(
                "far end - near end < pitch",
                format!("{} - {} >= {}", context.show(far), context.show(near), context.show(row.pitch)),
            ),
        });
    }
    found
}
