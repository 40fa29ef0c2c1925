//! A countersink, counterbore or keyhole typed by its numbers that takes no screw that is sold.

use std::collections::BTreeSet;

use crate::plane::Outline;
use crate::quantity::angle_text;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_TURN};
use crate::sheet::Hole;
use crate::stock::{Head, Screw, stock};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "fits_no_screw",
    title: "Heads of holes that take a listed screw",
    source: "data/screws.csv: ISO 4762, ISO 10642, ISO 7380-1, ISO 4017, ISO 7089, ASME B18.3, ASME B18.21.1; clearance of ISO 273 and ASME B18.2.8 (from memory)",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// How far off its table's clearance a hole may be and still be meant for that screw, mm.
const NEAR: f64 = 0.2;
/// A countersink's angle is a screw's within this, degrees.
const SAME_ANGLE: f64 = 2.0;
/// Of a flat head's theoretical diameter: heads that are ground flat, and those sunk deep.
const SUNK: (f64, f64) = (0.88, 1.2);
/// What a head needs all round, mm, and how much wider its seat may be.
const ROUND: f64 = 0.15;
const WIDEST: f64 = 1.6;

/// What is typed, mm and radians.
enum Typed {
    Sunk { drill: f64, head: f64, angle: f64 },
    Bored { drill: f64, bore: f64 },
    Keyhole { head: f64, slot: f64 },
}

/// Whether a hole of this diameter lets the screw through with what it is given to spare.
fn passes(screw: &Screw, hole: f64) -> bool {
    let clearance = stock().clearance(&screw.size);
    clearance.is_some_and(|one| (one.fine - NEAR..=one.coarse + NEAR).contains(&hole))
}

fn fits(typed: &Typed, screw: &Screw) -> bool {
    match *typed {
        Typed::Sunk { drill, head, angle } => {
            let of_head = head / screw.diameter;
            let same = screw.angle.is_some_and(|own| (angle.to_degrees() - own).abs() <= SAME_ANGLE);
            screw.head == Head::Flat && same && (SUNK.0..=SUNK.1).contains(&of_head) && passes(screw, drill)
        }
        Typed::Bored { drill, bore } => {
            let room = screw.diameter + 2.0 * ROUND..=WIDEST * screw.diameter;
            screw.head != Head::Flat && room.contains(&bore) && passes(screw, drill)
        }
        Typed::Keyhole { head, slot } => {
            let room = screw.diameter + 2.0 * ROUND..=WIDEST * screw.diameter;
            screw.head != Head::Flat && room.contains(&head) && screw.diameter > slot && passes(screw, slot)
        }
    }
}

/// What a keyhole's outline comes to: two lines, half a round of the slot, and the head's round.
fn keyhole(outline: &Outline) -> Option<Typed> {
    let (mut lines, mut rounds) = (0, Vec::new());
    for (side, _) in outline.segments() {
        if side.is_line() {
            lines += 1;
        } else {
            rounds.push((side.radius(), side.sweep().abs()));
        }
    }
    let half = |sweep: f64| (sweep - std::f64::consts::PI).abs() < NO_TURN;
    let slot = rounds.iter().filter(|(_, sweep)| half(*sweep)).map(|one| one.0).reduce(f64::min)?;
    let heads: Vec<f64> = rounds.iter().map(|one| one.0).filter(|one| *one > slot + MODELLING_TOLERANCE).collect();
    let head = *heads.first()?;
    let alike = heads.iter().all(|one| (one - head).abs() < MODELLING_TOLERANCE);
    let whole = lines == 2 && alike && heads.len() + 1 == rounds.len();
    whole.then_some(Typed::Keyhole { head: 2.0 * head, slot: 2.0 * slot })
}

fn typed(hole: &Hole) -> Option<Typed> {
    let Some((_, radius)) = hole.outline.as_circle() else { return keyhole(&hole.outline) };
    let drill = 2.0 * radius;
    // A screw goes through its head's hole: one that is tapped takes none there.
    if hole.work.thread.is_some() {
        return None;
    }
    let head = hole.work.profile.first().filter(|one| 2.0 * one.near > drill)?;
    let (deep, top, under) = (head.to, head.near, head.far);
    Some(if top > under {
        Typed::Sunk { drill, head: 2.0 * top, angle: 2.0 * ((top - under) / deep).atan() }
    } else {
        Typed::Bored { drill, bore: 2.0 * top }
    })
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let mut told = BTreeSet::new();
    let mut found = Vec::new();
    let show = |value: f64| context.show(value);
    for hole in context.part.flat.holes.iter() {
        // Of one operation they are alike.
        if told.contains(hole.operation.as_str()) {
            continue;
        }
        told.insert(hole.operation.as_str());
        let Some(typed) = typed(hole) else { continue };
        if stock().screws.iter().any(|screw| fits(&typed, screw)) {
            continue;
        }
        let (what, working) = match typed {
            Typed::Sunk { drill, head, angle } => (
                format!("a countersink of {} to {} on a hole of {}", angle_text(angle), show(head), show(drill)),
                format!(
                    "no flat head of {} to {} whose screw goes through {}",
                    angle_text(angle),
                    show(head),
                    show(drill)
                ),
            ),
            Typed::Bored { drill, bore } => (
                format!("a counterbore of {} on a hole of {}", show(bore), show(drill)),
                format!("no head or washer that sits in {} whose screw goes through {}", show(bore), show(drill)),
            ),
            Typed::Keyhole { head, slot } => (
                format!("a keyhole of {} with a slot of {}", show(head), show(slot)),
                format!("no head or washer that goes through {} and holds on {}", show(head), show(slot)),
            ),
        };
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level: Level::Hint,
            message: format!("{} has {what}: no listed screw fits it", hole.name),
            way_out: "Say the screw that it is for, such as M5, or check the numbers.".into(),
            operations: vec![hole.operation.clone()],
            features: vec![hole.name.clone()],
            why: RULE.why("a listed head fits, and its screw goes through", working),
        });
    }
    found
}
