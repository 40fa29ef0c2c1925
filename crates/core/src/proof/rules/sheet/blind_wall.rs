//! A blind hole too near the other face shows through it, or breaks out.

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use crate::quantity::tolerance::MODELLING_TOLERANCE;

pub(super) const RULE: SheetRule = SheetRule {
    key: "blind_wall",
    title: "Wall behind a blind hole",
    source: "common practice: at least 1.5 mm of wall behind the drill's point",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let wanted = 1.5;
    let mut found = Vec::new();
    // Holes of one operation are alike: the first of each speaks for all.
    let mut seen: Vec<&str> = Vec::new();
    for hole in flat.holes.iter().filter(|hole| !hole.work.through) {
        let wall = thickness - hole.work.bottom;
        if wall >= wanted - MODELLING_TOLERANCE || seen.contains(&hole.operation.as_str()) {
            continue;
        }
        seen.push(&hole.operation);
        let message = if wall < 0.0 {
            format!("{}: the drill's point breaks out of the back by {}", hole.name, context.show(-wall))
        } else {
            format!("{} leaves a wall of {}; {} needed", hole.name, context.show(wall), context.show(wanted))
        };
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Broken,
            message,
            way_out: "Drill shallower, with a flatter point, or through.".into(),
            operations: vec![hole.operation.clone()],
            features: vec![hole.name.clone()],
            why: RULE.why(
                "thickness - depth - point >= 1.5 mm",
                format!("{} - {} = {}", context.show(thickness), context.show(hole.work.bottom), context.show(wall)),
            ),
        });
    }
    found
}
