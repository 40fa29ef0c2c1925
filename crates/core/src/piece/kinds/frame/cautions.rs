//! Cautions to print with a frame.

use crate::frame::weld_cautions;
use crate::piece::made::FrameOutcome;
use crate::piece::resolved::Resolved;
use crate::quantity::Amount;
use crate::stock::ONE_PERSON;

/// What can hurt whoever makes, lifts or carries it.
pub(super) fn cautions(outcome: &FrameOutcome, resolved: &Resolved) -> Vec<String> {
    let mut all = Vec::new();
    let Some(whole) = outcome.made.list.sums.first().filter(|sum| sum.pieces > 0) else { return all };
    all.push("Saw ends and burrs are sharp: gloves, and deburr what hands will touch.".into());
    if whole.mass > ONE_PERSON {
        let unit = resolved.names.show;
        let place = |value: f64| unit.bare(Amount::Length, value, 0);
        let at = whole.centre_of_gravity;
        all.push(format!(
            "{}: two people or a lift; the centre of gravity is at x {}, y {}, z {} {}.",
            unit.says(Amount::Mass, whole.mass, 1),
            place(at.x),
            place(at.y),
            place(at.z),
            unit.sign()
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
