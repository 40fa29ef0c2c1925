//! A place along a line.

use crate::finding::Finding;
use crate::frame::skeleton::CentreLine;
use crate::quantity::tolerance::ROUNDING;
use crate::space::Point3;

/// So far along a line; from its end where negative, mm.
///
/// # Errors
/// A distance that is not on the line.
pub(super) fn on_line(line: &CentreLine, distance: f64) -> Result<Point3, Finding> {
    let from_start = if distance < 0.0 { line.length() + distance } else { distance };
    if !(-ROUNDING..=line.length() + ROUNDING).contains(&from_start) {
        return Err(Finding::error(
            format!("{distance:.3} mm is beyond the end of {}, which is {:.3} mm long", line.name, line.length()),
            "Take a distance on the line.",
        ));
    }
    Ok(line.at(from_start))
}
