//! Cautions to print with a frame.

use crate::frame::weld_cautions;
use crate::piece::made::FrameOutcome;
use crate::piece::resolved::Resolved;
use crate::stock::ONE_PERSON;

/// What can hurt whoever makes, lifts or carries it.
pub(super) fn cautions(outcome: &FrameOutcome, resolved: &Resolved) -> Vec<String> {
    let mut all = Vec::new();
    let Some(whole) = outcome.made.list.sums.first().filter(|sum| sum.pieces > 0) else { return all };
    all.push("Saw ends and burrs are sharp: gloves, and deburr what hands will touch.".into());
    if whole.mass > ONE_PERSON {
        let show = |value: f64, places: usize| crate::quantity::decimal(value, places);
        let at = whole.centre_of_gravity;
        all.push(format!(
            "{} kg: two people or a lift; the centre of gravity is at x {}, y {}, z {} mm.",
            show(whole.mass, 1),
            show(at.x, 0),
            show(at.y, 0),
            show(at.z, 0)
        ));
    }
    all.extend(weld_cautions(&outcome.made));
    if outcome.made.frame.plates.iter().any(|plate| plate.lug.is_some()) {
        all.push(format!("Lifting lugs: the figures are {}.", crate::frame::REVIEW));
    }
    all.extend(resolved.material.and_then(|material| material.caution.clone()));
    all.push(
        "Follow local codes; a licensed engineer decides on anything that lifts, guards or carries people.".into(),
    );
    all
}
