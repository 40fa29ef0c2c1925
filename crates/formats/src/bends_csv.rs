//! The bend table as CSV: one line a bend.

use steelk_core::brake::BendRow;
use steelk_core::quantity::decimal;

use crate::WriteError;
use crate::cutlist_csv::guard;

/// The bends as the bytes of a CSV file, lengths in mm, angles in degrees.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write(rows: &[BendRow]) -> Result<Vec<u8>, WriteError> {
    let mut csv = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    csv.write_record([
        "mark",
        "bend",
        "angle deg",
        "direction",
        "inside radius mm",
        "length mm",
        "tooling",
        "allowance mm",
        "deduction mm",
        "source",
    ])
    .map_err(fault)?;
    for row in rows {
        csv.write_record([
            row.mark.clone(),
            guard(&row.name),
            decimal(row.angle, 3),
            row.direction.word().to_string(),
            decimal(row.radius, 3),
            decimal(row.length, 3),
            guard(&row.tooling),
            decimal(row.allowance, 3),
            decimal(row.deduction, 3),
            guard(&row.source),
        ])
        .map_err(fault)?;
    }
    csv.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}
