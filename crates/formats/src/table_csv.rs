//! A neutral table as CSV, units in its headings; every row tells of which piece and revision it is, so that lists which are
//! laid together stay told apart.

use steelk_core::table::{Cell, Table};

use crate::WriteError;
use crate::output::Heading;

/// Columns that every list ends with.
pub const OF: [&str; 5] = ["piece", "revision", "by", "date", "release"];

/// The cells of those columns.
pub fn of_cells(head: &Heading) -> [String; 5] {
    let stamp = &head.stamp;
    let known = |text: &Option<String>| text.as_deref().map(guard).unwrap_or_default();
    [guard(&head.mark), known(&stamp.revision), known(&stamp.by), known(&stamp.date), known(&head.note)]
}

/// The cells of a row as they are written.
pub fn cells(row: &[Cell]) -> Vec<String> {
    row.iter()
        .map(|cell| match cell {
            Cell::Text(text) => guard(text),
            other => other.text(),
        })
        .collect()
}

/// The table as a CSV file.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write(table: &Table, head: &Heading) -> Result<Vec<u8>, WriteError> {
    let mut headings: Vec<String> = table.headings().iter().map(|one| guard(one)).collect();
    headings.extend(OF.map(String::from));
    let of = of_cells(head);
    records(&headings, table.rows.iter().map(|row| cells(row).into_iter().chain(of.iter().cloned()).collect()))
}

/// Headings and rows as a CSV file.
///
/// # Errors
/// As [`write`](write()).
pub fn records(headings: &[String], rows: impl Iterator<Item = Vec<String>>) -> Result<Vec<u8>, WriteError> {
    let mut file = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    file.write_record(headings).map_err(fault)?;
    for row in rows {
        file.write_record(row).map_err(fault)?;
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

/// A text that a spreadsheet would run as a formula gets an apostrophe before it: be there blanks before its sign, which some
/// take off, and be the sign a full-width one, which some take for the plain one.
pub(crate) fn guard(text: &str) -> String {
    let signs = ['=', '+', '-', '@', '\u{ff1d}', '\u{ff0b}', '\u{ff0d}', '\u{ff20}'];
    let first = text.trim_start_matches(|sign: char| sign.is_whitespace() || sign.is_control() || sign == '\u{feff}');
    let bad = first.starts_with(signs) || text.starts_with(['\t', '\r']);
    if bad { format!("'{text}") } else { text.to_string() }
}

#[cfg(test)]
mod tests {
    use super::guard;

    #[test]
    fn no_text_is_run_as_a_formula() {
        for bad in ["=1+1", "  =1", "\t@x", "\u{ff1d}1", "\u{a0}+1", "\u{feff}=1", "-2", "\rtext"] {
            assert_eq!(guard(bad), format!("'{bad}"));
        }
        for good in ["WB-02", "a=b", " plate", ""] {
            assert_eq!(guard(good), good);
        }
    }
}
