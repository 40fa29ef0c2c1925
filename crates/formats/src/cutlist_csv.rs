//! The cut list as CSV, units in the headings.

use steelk_core::cutlist::CutLine;
use steelk_core::frame::{FrameLine, LineKind};
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
        file.write_record(fields(line)).map_err(fault)?;
    }
    file.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}

fn fields(line: &CutLine) -> [String; 13] {
    [
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
    ]
}

/// A line of a job's cut list.
pub enum JobCutLine {
    /// A plate or sheet piece.
    Piece(CutLine),
    /// A line of a frame's list: the frame's mark, how many frames are made, the line.
    Frame(String, u32, Box<FrameLine>),
    /// A piece that could not be read: its mark, and why.
    Unread(String, String),
}

/// Column headings of a job's list: those of a piece's, then what a frame's members have besides.
pub fn job_headings() -> Vec<&'static str> {
    HEADINGS.into_iter().chain(["section", "length mm", "start cut", "finish cut", "work"]).collect()
}

/// A job's lines as a CSV file; what a line does not have is empty.
///
/// # Errors
/// As [`write`](write()).
pub fn write_job(lines: &[JobCutLine]) -> Result<Vec<u8>, WriteError> {
    let mut file = csv::Writer::from_writer(Vec::new());
    let fault = |fault: csv::Error| WriteError::Csv(fault.to_string());
    file.write_record(job_headings()).map_err(fault)?;
    for line in lines {
        let mut record = match line {
            JobCutLine::Piece(line) => fields(line).to_vec(),
            JobCutLine::Frame(frame, count, line) => framed(frame, *count, line),
            JobCutLine::Unread(mark, why) => vec![guard(mark), guard(&format!("NOT IN THIS LIST: {why}"))],
        };
        record.resize(job_headings().len(), String::new());
        file.write_record(record).map_err(fault)?;
    }
    file.into_inner().map_err(|fault| WriteError::Csv(fault.to_string()))
}

fn framed(frame: &str, count: u32, line: &FrameLine) -> Vec<String> {
    let is_member = line.kind == LineKind::Member;
    let only = |of_plate: bool, text: String| if of_plate == is_member { String::new() } else { text };
    let end = |at: usize| line.ends.get(at).map_or_else(String::new, |end| guard(&end.text));
    vec![
        guard(&format!("{frame} {}", line.mark)),
        guard(&format!("{} of {frame}", line.kind.word())),
        (line.quantity * count as usize).to_string(),
        guard(&line.material),
        only(true, line.section.trim_start_matches("PL ").to_string()),
        only(true, decimal(line.length, 3)),
        only(true, decimal(line.short_length, 3)),
        String::new(),
        String::new(),
        String::new(),
        String::new(),
        decimal(line.mass_each, 4),
        decimal(line.mass_total * f64::from(count), 4),
        guard(&line.section),
        only(false, decimal(line.length, 3)),
        end(0),
        end(1),
        guard(&line.work),
    ]
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
