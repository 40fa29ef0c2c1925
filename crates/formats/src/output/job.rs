//! The list of a whole job.

use steelk_core::cutlist::cut_lines;
use steelk_core::piece::{Made, Outcome, Piece};
use steelk_core::release::ready;

use crate::cutlist_csv::{JobCutLine, JobPiece};

use super::name::{FileSettings, Named};
use super::order::Stamp;
use super::{Heading, Output};

/// What one piece brings to its job's list: one that is withheld stands in it with the reason, since a list that left it out in
/// silence would be short of steel.
pub fn job_piece(piece: &Piece, outcome: &Outcome, stamp: &Stamp) -> JobPiece {
    let mut all = JobPiece { head: Heading::new(piece, outcome, stamp), unit: piece.unit, lines: Vec::new() };
    if let Err(withheld) = ready(piece, outcome) {
        all.lines.push(JobCutLine::Missing(withheld.detail));
        return all;
    }
    match &outcome.made {
        Some(Made::Sheet(_)) => all.lines.extend(cut_lines(piece, outcome).into_iter().map(JobCutLine::Piece)),
        Some(Made::Frame(frame)) => {
            let lines = frame.made.list.lines.iter();
            all.lines.extend(lines.map(|line| JobCutLine::Frame(piece.count(), Box::new(line.clone()))));
        }
        None => {}
    }
    all
}

/// The name of a job's file by the shop's pattern; the job's number stands for the mark.
pub fn job_file_name(output: &Output, number: &str, settings: &FileSettings) -> String {
    let (stem, end) = output.key.rsplit_once('.').unwrap_or((output.key, "txt"));
    settings.names.name(&Named { mark: number.into(), file: stem.into(), ..Named::default() }, end)
}
