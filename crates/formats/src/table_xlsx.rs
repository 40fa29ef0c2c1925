//! Neutral tables as an XLSX workbook, a sheet each: numbers are numbers, nothing is a formula.

use rust_xlsxwriter::{DocProperties, ExcelDateTime, Format, Workbook};
use steelk_core::table::{Cell, Table};

use crate::WriteError;
use crate::output::Heading;
use crate::table_csv::{OF, of_cells};

/// Characters that a printed heading takes.
const MOST_OVER: usize = 240;

/// The tables as the bytes of a workbook, a sheet each by its name; before them a sheet that says what they are of, and the same over each when it is
/// printed.
///
/// # Errors
/// [`WriteError::Xlsx`] with the library's words.
pub fn write(tables: &[(&str, &Table)], head: &Heading) -> Result<Vec<u8>, WriteError> {
    let fault = |fault: rust_xlsxwriter::XlsxError| WriteError::Xlsx(fault.to_string());
    let mut book = Workbook::new();
    // The format asks for the day it was made, and the library takes it from the clock: the same tables are the same bytes.
    let no_day = ExcelDateTime::from_ymd(2000, 1, 1).map_err(fault)?;
    book.set_properties(&DocProperties::new().set_creation_datetime(&no_day).set_title(head.one_line()));
    let bold = Format::new().set_bold();
    let first = book.add_worksheet();
    first.set_name("Piece").map_err(fault)?;
    for (line, (name, cell)) in OF.iter().zip(of_cells(head)).enumerate() {
        first.write_string_with_format(line as u32, 0, *name, &bold).map_err(fault)?;
        first.write_string(line as u32, 1, cell).map_err(fault)?;
    }
    first.write_string_with_format(OF.len() as u32, 0, "title", &bold).map_err(fault)?;
    first.write_string(OF.len() as u32, 1, &head.title).map_err(fault)?;
    first.autofit();
    // An ampersand begins a code in a printed heading.
    let over = format!("&L{}", head.one_line().replace('&', "&&").chars().take(MOST_OVER).collect::<String>());
    for (name, table) in tables {
        let sheet = book.add_worksheet();
        sheet.set_name(*name).map_err(fault)?;
        sheet.set_header(&over);
        for (column, heading) in table.headings().iter().enumerate() {
            sheet.write_string_with_format(0, column as u16, heading, &bold).map_err(fault)?;
        }
        sheet.set_freeze_panes(1, 0).map_err(fault)?;
        for (line, row) in table.rows.iter().enumerate() {
            let line = line as u32 + 1;
            for (column, cell) in row.iter().enumerate() {
                match cell {
                    Cell::Text(text) => sheet.write_string(line, column as u16, text).map_err(fault)?,
                    Cell::Number(value, places) => {
                        let shown = if *places == 0 { "0".to_string() } else { format!("0.{}", "0".repeat(*places)) };
                        let format = Format::new().set_num_format(&shown);
                        sheet.write_number_with_format(line, column as u16, *value, &format).map_err(fault)?
                    }
                    Cell::Empty => continue,
                };
            }
        }
        for (line, note) in table.notes.iter().enumerate() {
            sheet.write_string(table.rows.len() as u32 + 2 + line as u32, 0, note).map_err(fault)?;
        }
        sheet.autofit();
    }
    book.save_to_buffer().map_err(fault)
}
