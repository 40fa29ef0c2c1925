//! The hole table as CSV: one line a hole.

use steelk_core::quantity::decimal;
use steelk_core::table::HoleRow;
use steelk_core::work::sheet::{Face, Make};

use crate::WriteError;
use crate::cutlist_csv::guard;

/// The holes as the bytes of a CSV file, places in mm from the datum corner.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write(rows: &[HoleRow]) -> Result<Vec<u8>, WriteError> {
    let mut csv = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    csv.write_record(["balloon", "hole", "x mm", "y mm", "size", "work", "face", "cutter", "of this kind"])
        .map_err(fault)?;
    for row in rows {
        let face = match row.face {
            Face::Top => "top",
            Face::Bottom => "bottom",
        };
        let make = match row.make {
            Make::Cut => "cuts",
            Make::Mark => "marks",
            Make::Leave => "leaves",
            Make::Punch => "leaves to the punch",
        };
        csv.write_record([
            guard(&row.balloon),
            guard(&row.name),
            decimal(row.x, 3),
            decimal(row.y, 3),
            guard(&row.size),
            guard(&row.work),
            face.to_string(),
            make.to_string(),
            row.count.to_string(),
        ])
        .map_err(fault)?;
    }
    csv.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}
