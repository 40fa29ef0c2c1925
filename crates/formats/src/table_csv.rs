//! A neutral table as CSV, units in its headings.

use steelk_core::table::Table;

use crate::WriteError;
use crate::cutlist_csv::guard;

/// The table as a CSV file.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write(table: &Table) -> Result<Vec<u8>, WriteError> {
    let mut file = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    file.write_record(table.headings.iter().map(|one| guard(one))).map_err(fault)?;
    for row in &table.rows {
        file.write_record(row.iter().map(|cell| match cell {
            steelk_core::table::Cell::Text(text) => guard(text),
            other => other.text(),
        }))
        .map_err(fault)?;
    }
    file.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}

/// Reads a file written here back: headings, then rows of text.
///
/// # Errors
/// [`WriteError::Csv`]: no CSV, rows of other widths.
pub fn read(bytes: &[u8]) -> Result<(Vec<String>, Vec<Vec<String>>), WriteError> {
    let mut file = csv::Reader::from_reader(bytes);
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    let headings = file.headers().map_err(fault)?.iter().map(str::to_string).collect();
    let rows = file
        .records()
        .map(|row| row.map(|row| row.iter().map(str::to_string).collect()).map_err(fault))
        .collect::<Result<_, _>>()?;
    Ok((headings, rows))
}
