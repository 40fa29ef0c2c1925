//! The cut list as CSV, units in the headings.

use steelk_core::cutlist::CutLine;
use steelk_core::quantity::decimal;

use crate::WriteError;

/// Column headings.
pub const HEADINGS: [&str; 13] = [
    "mark",
    "title",
    "quantity",
    "material",
    "thickness mm",
    "blank width mm",
    "blank height mm",
    "net area mm2",
    "cut length mm",
    "pierces",
    "bends",
    "mass each kg",
    "mass total kg",
];

/// The lines as a CSV file.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write(lines: &[CutLine]) -> Result<Vec<u8>, WriteError> {
    let mut file = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    file.write_record(HEADINGS).map_err(fault)?;
    for line in lines {
        file.write_record([
            guard(&line.mark),
            guard(&line.title),
            line.quantity.to_string(),
            guard(&line.material),
            decimal(line.thickness, 4),
            decimal(line.blank_width, 3),
            decimal(line.blank_height, 3),
            decimal(line.net_area, 2),
            decimal(line.cut_length, 2),
            line.pierces.to_string(),
            line.bends.to_string(),
            decimal(line.mass_each, 4),
            decimal(line.mass_total, 4),
        ])
        .map_err(fault)?;
    }
    file.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}

/// A text that a spreadsheet would run as a formula gets an apostrophe before it.
pub(crate) fn guard(text: &str) -> String {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) { format!("'{text}") } else { text.to_string() }
}
