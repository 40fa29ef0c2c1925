//! Presses the forms of one operation.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flat::Flat;
use crate::sheet::hole::{self, HoleWork, LaidHole, NewHole};

use super::metal::rings;
use super::{Form, FormNumbers, Pressed};

/// Presses forms into their panels; none is pressed when one of them does not fit.
///
/// # Errors
/// As of holes: a panel or a line that is not there, forms that run off their panel or into something; sheet that is too thick for the form.
pub(in crate::sheet) fn press(
    flat: &mut Flat,
    name: &str,
    given: &FormNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let mut notes = Vec::new();
    hole::on_each_panel(&given.places, |own, number| {
        let panel = flat.find_panel(&own.panel)?;
        let (places, found) = hole::laid_on(flat, name, own, unit, number)?;
        notes.extend(found);
        let forms = places.into_iter().map(|place| given.form(name, panel, place)).collect();
        put(flat, panel, forms, unit)
    })?;
    Ok(notes)
}

impl FormNumbers {
    fn form(&self, operation: &str, panel: usize, place: LaidHole) -> Form {
        let LaidHole { hole, ways: [x, y] } = place;
        Form {
            name: hole.name,
            operation: operation.to_string(),
            panel,
            centre: hole.centre,
            extents: hole.outline.extents(),
            outline: hole.outline,
            ways: [x, if self.toward { -y } else { y }],
            up: self.up,
            shape: self.shape.clone(),
            pilot: None,
        }
    }
}

/// Puts forms into a panel.
///
/// # Errors
/// As [`press`].
pub(in crate::sheet) fn put(flat: &mut Flat, panel: usize, forms: Vec<Form>, unit: LengthUnit) -> Result<(), Finding> {
    for form in &forms {
        check_sheet(form, flat.thickness, unit)?;
    }
    let footprints: Vec<NewHole> = forms.iter().map(|form| footprint(form, form.outline.clone())).collect();
    hole::check(flat, panel, &footprints, unit)?;
    for mut form in forms {
        if let Pressed::Extruded { pilot, .. } = form.shape {
            let mut first = footprint(&form, Outline::circle(form.centre, pilot / 2.0, 0));
            first.work.words = format!("pilot of an extruded hole, {}", length_text(pilot, unit));
            let operation = form.operation.clone();
            hole::put(flat, panel, &operation, vec![first], unit)?;
            form.pilot = flat.holes.last().map(|hole| hole.tag);
        }
        Arc::make_mut(&mut flat.forms).push(form);
    }
    Ok(())
}

fn footprint(form: &Form, outline: Outline) -> NewHole {
    NewHole { name: form.name.clone(), outline, centre: form.centre, work: HoleWork::plain(), copy: None }
}

/// Refuses what cannot be pressed out of a sheet of this thickness, mm.
fn check_sheet(form: &Form, thickness: f64, unit: LengthUnit) -> Result<(), Finding> {
    let show = |value: f64| length_text(value, unit);
    match &form.shape {
        Pressed::Raised { word, height, side } => {
            rings(&form.outline, thickness, *height, *side).map(|_| ()).map_err(|why| {
                Finding::error(
                    format!("a {word} {} high in a sheet of {}: {why}", show(*height), show(thickness)),
                    "Make it larger or lower, or its sides steeper.",
                )
                .at_field("shape")
            })
        }
        Pressed::Louvre { length, width, height, side } => {
            let roof = (height / width).atan();
            let under = height + thickness - thickness / roof.cos();
            if under <= thickness + MODELLING_TOLERANCE {
                return Err(Finding::error(
                    format!(
                        "a louvre {} high in a sheet of {} does not open: its hollow is {} high, under its own edge",
                        show(*height),
                        show(thickness),
                        show(under.max(0.0))
                    ),
                    "Make it higher: twice the thickness at least is usual.",
                )
                .at_field("shape.louvre.height"));
            }
            let least = 2.0 * (height / side.tan() + thickness / side.sin());
            if *length <= least {
                return Err(Finding::error(
                    format!(
                        "a louvre {} long has no room between its ends: more than {} has",
                        show(*length),
                        show(least)
                    ),
                    "Make it longer or lower, or its ends steeper.",
                )
                .at_field("shape.louvre.length"));
            }
            Ok(())
        }
        Pressed::KnockOut { height } if *height >= thickness - MODELLING_TOLERANCE => Err(Finding::error(
            format!("a knock-out pushed {} out of a sheet of {} falls out", show(*height), show(thickness)),
            "Push it less than the sheet is thick; half of it is usual.",
        )
        .at_field("shape.knock_out.height")),
        Pressed::KnockOut { .. } | Pressed::Extruded { .. } => Ok(()),
    }
}
