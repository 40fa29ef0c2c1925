//! Cautions to print with a plate or a sheet part.

use crate::piece::resolved::Resolved;
use crate::sheet::Sheets;
use crate::stock::ONE_PERSON;

/// What can hurt whoever makes, lifts or carries it.
pub(super) fn cautions(resolved: &Resolved, sheets: &Sheets) -> Vec<String> {
    let mut cautions = Vec::new();
    let Some(figures) = sheets.only().map(|blank| &blank.figures) else { return cautions };
    cautions.push("Cut edges and burrs are sharp: gloves, and deburr what hands will touch.".into());
    if figures.bends > 0 {
        cautions.push("Keep hands clear of the brake's closing tools; long legs whip as they come up.".into());
    }
    if figures.mass > ONE_PERSON {
        cautions.push(format!(
            "{} kg: two people or a lift; the centre of gravity is at x {}, y {}, z {} mm.",
            crate::quantity::decimal(figures.mass, 1),
            crate::quantity::decimal(figures.centre_of_gravity.x, 0),
            crate::quantity::decimal(figures.centre_of_gravity.y, 0),
            crate::quantity::decimal(figures.centre_of_gravity.z, 0)
        ));
    }
    cautions.extend(resolved.material.and_then(|material| material.caution.clone()));
    cautions.push(
        "Follow local codes; a licensed engineer decides on anything that lifts, guards or carries people.".into(),
    );
    cautions
}
