//! A row of holes whose two ends differ by so little that they may have been meant alike.

use crate::quantity::tolerance::MODELLING_TOLERANCE;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::rows::rows;

pub(super) const RULE: SheetRule = SheetRule {
    key: "uneven_row",
    title: "A row of holes as far from both edges",
    source: "common practice: what people forget; ends that differ by less than a quarter of the pitch were mostly meant alike",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// Of the pitch: ends that differ by more are another on purpose.
const MEANT_ALIKE: f64 = 0.25;
/// What a shop drills to, mm: ends that differ by less are alike.
const SAME: f64 = 0.1;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let mut found = Vec::new();
    for row in rows(flat) {
        let [start, end] = row.ends;
        let apart = (start - end).abs();
        if apart <= SAME || apart >= MEANT_ALIKE * row.pitch - MODELLING_TOLERANCE {
            continue;
        }
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Hint,
            message: format!(
                "{} stands {} from one edge of {} and {} from the other",
                row.operation,
                context.show(start),
                flat.nodes[row.panel].name,
                context.show(end)
            ),
            way_out: format!("If they were meant alike, they are {} each.", context.show((start + end) / 2.0)),
            operations: vec![row.operation.to_string()],
            features: vec![row.first.name.clone(), row.last.name.clone()],
            why: RULE.why(
                "the ends are alike, or differ by a quarter of the pitch and more",
                format!("{} apart, pitch {}", context.show(apart), context.show(row.pitch)),
            ),
        });
    }
    found
}
