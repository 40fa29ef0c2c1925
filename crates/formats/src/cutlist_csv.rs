//! The cut list of a whole job as CSV, units in the headings: each row with the piece and the revision that it is of.

use steelk_core::cutlist::CutLine;
use steelk_core::frame::{FrameLine, LineKind};
use steelk_core::piece::Count;
use steelk_core::quantity::{Amount, LengthUnit};
use steelk_core::table::{Cell, Table, cut_list_table, cut_row, first_off_cell, spares_cell};

use crate::WriteError;
use crate::output::Heading;
use crate::table_csv::{OF, cells, guard, of_cells, records};

/// A line of a job's cut list.
pub enum JobCutLine {
    /// A plate or sheet piece.
    Piece(CutLine),
    /// A line of a frame's list: how many frames are made, the line.
    Frame(Count, Box<FrameLine>),
    /// What could not be read or is withheld: why.
    Missing(String),
}

/// What one piece brings to its job's list.
pub struct JobPiece {
    /// Of which piece and revision.
    pub head: Heading,
    /// The unit that it is drawn in.
    pub unit: LengthUnit,
    /// Its lines.
    pub lines: Vec<JobCutLine>,
}

/// The columns of a job's list: those of a piece's, then what a frame's members have besides.
fn columns(unit: LengthUnit) -> Table {
    cut_list_table(unit).columns(&["section"]).measures(&["length"], Amount::Length).columns(&[
        "start cut",
        "finish cut",
        "work",
    ])
}

/// Column headings of a job's list.
pub fn job_headings(unit: LengthUnit) -> Vec<String> {
    columns(unit).headings().into_iter().chain(OF.map(String::from)).collect()
}

/// A job's list is in inches where every piece of it is: one list has one unit.
pub fn unit_of(pieces: &[JobPiece]) -> LengthUnit {
    let all = !pieces.is_empty() && pieces.iter().all(|piece| piece.unit == LengthUnit::In);
    if all { LengthUnit::In } else { LengthUnit::Mm }
}

/// A job's lines as a CSV file; what a line does not have is empty.
///
/// # Errors
/// [`WriteError::Csv`] with the library's words.
pub fn write_job(pieces: &[JobPiece]) -> Result<Vec<u8>, WriteError> {
    let unit = unit_of(pieces);
    let wide = columns(unit).columns.len();
    let rows = pieces.iter().flat_map(|piece| {
        let of = of_cells(&piece.head);
        piece.lines.iter().map(move |line| {
            let mut record = match line {
                JobCutLine::Piece(line) => cells(&cut_row(line, unit)),
                JobCutLine::Frame(count, line) => cells(&framed(&piece.head.mark, *count, line, unit)),
                JobCutLine::Missing(why) => vec![guard(&piece.head.mark), guard(&format!("NOT IN THIS LIST: {why}"))],
            };
            record.resize(wide, String::new());
            record.extend(of.iter().cloned());
            record
        })
    });
    records(&job_headings(unit), rows)
}

fn framed(frame: &str, count: Count, line: &FrameLine, unit: LengthUnit) -> Vec<Cell> {
    let is_member = line.kind == LineKind::Member;
    let length = |of_plate: bool, value: f64| {
        if of_plate == is_member { Cell::Empty } else { Cell::of(unit, Amount::Length, value, 3) }
    };
    let end = |at: usize| line.ends.get(at).map_or(Cell::Empty, |end| Cell::Text(end.text.clone()));
    vec![
        Cell::Text(format!("{frame} {}", line.mark)),
        Cell::Text(format!("{} of {frame}", line.kind.word())),
        Cell::count(line.quantity.saturating_mul(count.needed as usize)),
        spares_cell(line.quantity.saturating_mul(count.spares as usize)),
        first_off_cell(count.first_off),
        Cell::Text(line.material.clone()),
        line.thickness.map_or(Cell::Empty, |thick| Cell::of(unit, Amount::Length, thick, 4)),
        length(true, line.length),
        length(true, line.short_length),
        Cell::Empty,
        Cell::Empty,
        Cell::Empty,
        Cell::Empty,
        Cell::of(unit, Amount::Mass, line.mass_each, 4),
        Cell::of(unit, Amount::Mass, line.mass_total * f64::from(count.needed), 4),
        Cell::Text(line.section.clone()),
        length(false, line.length),
        end(0),
        end(1),
        Cell::Text(line.work.clone()),
    ]
}
