//! Cautions to print with a plate or a sheet part.

use crate::piece::resolved::Resolved;
use crate::quantity::Amount;
use crate::sheet::Sheets;
use crate::stock::ONE_PERSON;

/// What can hurt whoever makes, lifts or carries it.
pub(super) fn cautions(resolved: &Resolved, sheets: &Sheets) -> Vec<String> {
    let mut cautions = Vec::new();
    let figures = sheets.whole();
    cautions.push("Cut edges and burrs are sharp: gloves, and deburr what hands will touch.".into());
    if figures.bends > 0 {
        cautions.push("Keep hands clear of the brake's closing tools; long legs whip as they come up.".into());
    }
    if figures.mass > ONE_PERSON {
        let unit = resolved.names.show;
        let place = |value: f64| unit.bare(Amount::Length, value, 0);
        cautions.push(format!(
            "{}: two people or a lift; the centre of gravity is at x {}, y {}, z {} {}.",
            unit.says(Amount::Mass, figures.mass, 1),
            place(figures.centre_of_gravity.x),
            place(figures.centre_of_gravity.y),
            place(figures.centre_of_gravity.z),
            unit.sign()
        ));
    }
    cautions.extend(resolved.material.and_then(|material| material.caution.clone()));
    cautions.push(
        "Follow local codes; a licensed engineer decides on anything that lifts, guards or carries people.".into(),
    );
    cautions
}
