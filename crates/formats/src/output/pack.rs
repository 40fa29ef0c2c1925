//! Everything at once: the printed pack (flats and lists as one PDF) of a piece or a job, and files in one ZIP.

use std::io::Write as _;

use steelk_core::drawing::{Sheet, table_sheets};
use steelk_core::piece::{Count, MadeFrom};
use steelk_core::quantity::LengthUnit;
use steelk_core::table::{Cell, Table, bend_table, hole_rows, hole_table};

use crate::WriteError;

use super::Of;
use super::frame::list_pages;
use super::heading::Heading;
use super::order::{NoFile, Order};
use super::sheet::flat_page;

/// The most rows of a table in a pack: a perforation's thousands of holes are for the CSV.
const MOST_ROWS: usize = 200;
/// Bends that the flat sheet's own table holds.
const BENDS_ON_FLAT: usize = 24;

/// Columns of the printed hole table with their widths, mm.
const HOLES: [(&str, f64); 8] = [
    ("balloon", 18.0),
    ("hole", 46.0),
    ("x", 26.0),
    ("y", 26.0),
    ("size", 48.0),
    ("work", 60.0),
    ("face", 18.0),
    ("cutter", 30.0),
];
/// Columns of the printed bend table.
const BENDS: [(&str, f64); 8] = [
    ("mark", 14.0),
    ("bend", 44.0),
    ("angle deg", 20.0),
    ("direction", 20.0),
    ("inside radius", 28.0),
    ("length", 26.0),
    ("tooling", 50.0),
    ("source", 70.0),
];

/// The pages of a piece: the flat sheet with its tables, or a frame's lists with the flats of its plates.
///
/// # Errors
/// [`NoFile`].
pub fn pages(order: &Order<'_>) -> Result<Vec<Sheet>, NoFile> {
    if order.made_from() == MadeFrom::Sections {
        let mut all = list_pages(order)?;
        for plate in order.plates() {
            all.extend(pages(&order.of_plate(&plate.mark)?)?);
        }
        return Ok(all);
    }
    let blanks = order.marks(Of::Blank);
    if blanks.len() > 1 {
        let mut all = Vec::new();
        for mark in blanks {
            all.extend(pages(&order.of_blank(&mark)?)?);
        }
        return Ok(all);
    }
    if let [mark] = blanks.as_slice()
        && !mark.is_empty()
    {
        return pages(&order.of_blank(mark)?);
    }
    let mut all = vec![flat_page(order)?];
    let (part, unit) = (order.part()?, order.piece.unit);
    let head = order.heading().one_line();
    let mark = &order.piece.mark;
    let named = |mut table: Table, what: &str| {
        table.title = format!("{mark}: {what}");
        let rest = table.rows.len().saturating_sub(MOST_ROWS);
        if rest > 0 {
            table.rows.truncate(MOST_ROWS);
            table.notes.push(format!("and {rest} more in the CSV"));
        }
        table
    };
    let column = |fault: steelk_core::drawing::NoColumn| NoFile::refused("No list", fault.to_string());
    let bends = steelk_core::brake::bend_rows(part, order.outcome.resolved.die, unit);
    if bends.len() > BENDS_ON_FLAT {
        all.extend(table_sheets(&named(bend_table(&bends, unit), "bends"), &BENDS, &[], &[], &head).map_err(column)?);
    }
    let holes = hole_rows(part, order.choices.corner, unit);
    if !holes.is_empty() {
        let table = named(hole_table(&holes, unit), "holes, from the lower left corner of the blank");
        all.extend(table_sheets(&table, &HOLES, &[], &[], &head).map_err(column)?);
    }
    Ok(all)
}

/// The printed pack of a piece.
pub(super) fn pack(order: &Order<'_>) -> Result<Vec<u8>, NoFile> {
    Ok(crate::pdf::write(&pages(order)?, &format!("Pack. {}", order.heading().one_line())))
}

/// A piece in the pack of its job.
pub struct Packed {
    /// Of which piece and revision.
    pub head: Heading,
    /// How many are made; `None` where it cannot be read.
    pub count: Option<Count>,
    /// Material.
    pub material: String,
    /// Its pages, or why there are none.
    pub pages: Result<Vec<Sheet>, String>,
}

/// Columns of the first sheet of a job's pack.
const CONTENTS: [(&str, f64); 6] =
    [("mark", 30.0), ("what it is", 60.0), ("qty", 34.0), ("material", 30.0), ("revision", 60.0), ("state", 60.0)];

/// The printed pack of a job: what is in it, and what is not and why; then every piece's pages.
///
/// # Errors
/// [`NoFile`].
pub fn job_pack(number: &str, title: &str, pieces: Vec<Packed>) -> Result<Vec<u8>, NoFile> {
    let name = format!("{number} {title}").trim().to_string();
    let sheets = |first: usize| {
        let column = |fault: steelk_core::drawing::NoColumn| NoFile::refused("No list", fault.to_string());
        table_sheets(&contents(&name, &pieces, first), &CONTENTS, &[], &[], &name).map_err(column)
    };
    // How many pages the contents take does not hang on what stands in them.
    let before = sheets(0)?.len();
    let mut all = sheets(before + 1)?;
    all.extend(pieces.into_iter().flat_map(|piece| piece.pages.unwrap_or_default()));
    Ok(crate::pdf::write(&all, &format!("Pack of {name}")))
}

/// What is in a pack and on which pages, the first of them being page `first`; and what is not in it, and why.
fn contents(name: &str, pieces: &[Packed], first: usize) -> Table {
    let mut table = Table::new(format!("{name}: printed pack"), LengthUnit::Mm).columns(&[
        "mark",
        "what it is",
        "qty",
        "material",
        "revision",
        "state",
    ]);
    let mut next = first;
    for piece in pieces {
        let state = match &piece.pages {
            Err(why) => format!("NOT IN THIS PACK: {why}"),
            Ok(pages) => {
                let (from, until) = (next, next + pages.len().saturating_sub(1));
                next += pages.len();
                let place = if from == until { format!("page {from}") } else { format!("pages {from} to {until}") };
                piece.head.note.as_ref().map_or_else(|| place.clone(), |note| format!("{note}; {place}"))
            }
        };
        table.rows.push(vec![
            Cell::Text(piece.head.mark.clone()),
            Cell::Text(piece.head.title.clone()),
            piece.count.map_or(Cell::Empty, |count| Cell::Text(count.words())),
            Cell::Text(piece.material.clone()),
            piece.head.stamp.words().map_or(Cell::Empty, Cell::Text),
            Cell::Text(state),
        ]);
    }
    table
}

/// Files in one archive, each by its name; the same files are the same archive: no clock is in it.
///
/// # Errors
/// [`WriteError::Zip`] with the library's words.
pub fn zip_of(files: &[(String, Vec<u8>)]) -> Result<Vec<u8>, WriteError> {
    let fault = |fault: &dyn std::fmt::Display| WriteError::Zip(fault.to_string());
    let mut archive = zip::ZipWriter::new(std::io::Cursor::new(Vec::new()));
    let options = zip::write::SimpleFileOptions::default()
        .compression_method(zip::CompressionMethod::Deflated)
        .last_modified_time(zip::DateTime::default());
    for (name, bytes) in files {
        archive.start_file(name.as_str(), options).map_err(|error| fault(&error))?;
        archive.write_all(bytes).map_err(|error| fault(&error))?;
    }
    Ok(archive.finish().map_err(|error| fault(&error))?.into_inner())
}
