//! A thread that the sheet is too thin for strips when its screw is drawn up.

use crate::patience;
use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::stock::Family;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "thread_holds",
    title: "Thread long enough to hold",
    source: "common practice: three full threads at the very least; for the screw's whole strength 1 d of thread in steel, 1.5 d in aluminium",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken, Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// Fewer full threads strip.
const FEWEST: f64 = 3.0;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let share = if context.material.family == Family::Aluminium { 1.5 } else { 1.0 };
    let mut found: Vec<Breach> = Vec::new();
    for hole in context.part.flat.holes.iter() {
        patience::check();
        let Some((thread, length)) = hole.work.thread else { continue };
        let (least, whole) = (FEWEST * thread.pitch, share * thread.major);
        let (level, wanted, formula) = if length < least - MODELLING_TOLERANCE {
            (Level::Broken, least, "thread >= 3 pitches".to_string())
        } else if length < whole - MODELLING_TOLERANCE {
            (Level::Hint, whole, format!("thread >= {share} d"))
        } else {
            continue;
        };
        let message = format!(
            "{} has {} of {} thread, {} turns; {} {}",
            hole.name,
            context.show(length),
            thread.name,
            decimal(length / thread.pitch, 1),
            context.show(wanted),
            if level == Level::Broken { "needed" } else { "for the screw's whole strength" }
        );
        // What is the same for many is a hint once.
        if level == Level::Hint
            && let Some(known) = found.iter_mut().find(|one| one.level == level && one.operations[0] == hole.operation)
        {
            known.features.push(hole.name.clone());
            continue;
        }
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level,
            message,
            way_out: "Take a finer or a smaller thread, a thicker sheet, or a nut that is pressed or welded on.".into(),
            operations: vec![hole.operation.clone()],
            features: vec![hole.name.clone()],
            why: RULE.why(formula, format!("{} < {}", context.show(length), context.show(wanted))),
        });
    }
    found
}
