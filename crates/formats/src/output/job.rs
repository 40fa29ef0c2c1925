//! The list of a whole job.

use steelk_core::cutlist::cut_line;
use steelk_core::piece::{Made, Outcome, Piece};
use steelk_core::release::ready;

use crate::cutlist_csv::JobCutLine;

use super::Output;
use super::name::{FileSettings, Named};

/// The lines of one piece in its job's list: one that is withheld stands in it with the reason, since a list that left it out in
/// silence would be short of steel.
pub fn job_lines(piece: &Piece, outcome: &Outcome) -> Vec<JobCutLine> {
    if let Err(withheld) = ready(piece, outcome) {
        return vec![JobCutLine::Unread(piece.mark.clone(), withheld.detail)];
    }
    match &outcome.made {
        Some(Made::Sheet(_)) => cut_line(piece, outcome).map(JobCutLine::Piece).into_iter().collect(),
        Some(Made::Frame(frame)) => {
            let lines = frame.made.list.lines.iter();
            lines.map(|line| JobCutLine::Frame(piece.mark.clone(), piece.quantity, Box::new(line.clone()))).collect()
        }
        None => Vec::new(),
    }
}

/// The name of a job's file by the shop's pattern; the job's number stands for the mark.
pub fn job_file_name(output: &Output, number: &str, settings: &FileSettings) -> String {
    let (stem, end) = output.key.rsplit_once('.').unwrap_or((output.key, "txt"));
    settings.names.name(&Named { mark: number.into(), file: stem.into(), ..Named::default() }, end)
}
