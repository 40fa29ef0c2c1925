//! An angle of a hole: of a drill's point, of a countersink.

use crate::quantity::tolerance::ROUNDING;
use crate::quantity::{Dimension, Expr, angle_text};
use crate::sheet::reader::Reader;

/// Reads an angle between two bounds, degrees; another where nothing is typed. Radians.
pub(super) fn angle(
    reader: &mut Reader<'_>,
    field: &str,
    text: &Option<Expr>,
    usual: f64,
    wanted: &str,
    (least, most): (f64, f64),
) -> Option<f64> {
    let Some(text) = text else { return Some(usual.to_radians()) };
    let value = reader.value(field, text, Dimension::ANGLE, wanted)?;
    if value.to_degrees() < least - ROUNDING || value.to_degrees() > most + ROUNDING {
        reader.refuse(
            field,
            format!("{wanted} of {} cannot be ground: {least} to {most} deg can", angle_text(value)),
            "Check the angle.",
        );
        return None;
    }
    Some(value)
}
