//! A row of holes along an edge, in its middle, with room for one more at each end: the end holes may have been forgotten.

use crate::quantity::tolerance::MODELLING_TOLERANCE;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::rows::rows;

pub(super) const RULE: SheetRule = SheetRule {
    key: "row_without_ends",
    title: "A row along an edge has its end holes",
    source: "common practice: what people forget; the last hole stands about as far from its end as the row from its edge",
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
        // A row that is not along an edge is nearer to none than to its next hole.
        if row.beside > row.pitch || (row.ends[0] - row.ends[1]).abs() > row.pitch {
            continue;
        }
        let near = row.ends[0].min(row.ends[1]);
        if near - row.pitch < row.beside - MODELLING_TOLERANCE {
            continue;
        }
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Hint,
            message: format!(
                "{} leaves {} at each end of {}: one more would go in there at {}",
                row.operation,
                context.show(near),
                flat.nodes[row.panel].name,
                context.show(row.pitch)
            ),
            way_out: "If the end holes were forgotten, make the row two longer; else leave it.".into(),
            operations: vec![row.operation.to_string()],
            features: vec![row.first.name.clone(), row.last.name.clone()],
            why: RULE.why(
                "end - pitch < from the row to its edge",
                format!("{} - {} >= {}", context.show(near), context.show(row.pitch), context.show(row.beside)),
            ),
        });
    }
    found
}
