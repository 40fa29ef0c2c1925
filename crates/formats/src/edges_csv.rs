//! The edge table as CSV: one line an edge.

use steelk_core::quantity::decimal;
use steelk_core::table::EdgeRow;

use crate::WriteError;
use crate::cutlist_csv::guard;

/// The edges as the bytes of a CSV file, lengths in mm.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write(rows: &[EdgeRow]) -> Result<Vec<u8>, WriteError> {
    let mut csv = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    csv.write_record(["edge", "stretches", "length mm", "radius mm"]).map_err(fault)?;
    for row in rows {
        let radius = row.radius.map(|radius| decimal(radius, 3)).unwrap_or_default();
        csv.write_record([guard(&row.name), row.stretches.to_string(), decimal(row.length, 3), radius])
            .map_err(fault)?;
    }
    csv.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}
