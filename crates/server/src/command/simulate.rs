//! `steelk simulate`: a program through the simulated cutter, held against the piece that it should leave.

use std::path::Path;
use std::process::ExitCode;

use steelk_core::piece::{Made, Outcome, Piece, blanks_of};
use steelk_core::quantity::{LengthUnit, decimal};
use steelk_core::release::ready;
use steelk_core::stock::{Cutter, Workshop};
use steelk_formats::output::Stamp;
use steelk_formats::program::{program, words};

use super::read_piece;
use super::say::say;
use crate::api::download::{as_blank, as_variant};
use crate::audited::audited;
use crate::cutting_answer::time_text;
use crate::saw_line::saw_wanted;
use crate::simulated::simulate;

pub(super) fn run(
    file: &Path,
    against: &Path,
    (variant, blank): (Option<&str>, Option<&str>),
    cutters: &[Cutter],
) -> ExitCode {
    let stop = |fault: String| {
        eprintln!("steelk: {fault}");
        ExitCode::from(2)
    };
    let own = read_piece(against).and_then(|piece| as_variant(piece, variant).map_err(|problem| problem.detail));
    let piece = match own {
        Ok(piece) => piece,
        Err(fault) => return stop(fault),
    };
    let text = match std::fs::read(file) {
        Ok(text) => text,
        Err(fault) => return stop(format!("{} cannot be read: {fault}", file.display())),
    };
    let outcome = audited(&piece, Workshop { cutters, ..Workshop::default() });
    if file.extension().is_some_and(|end| end.eq_ignore_ascii_case("nc1")) {
        return saw_line(file, &text, &piece, &outcome);
    }
    let blanks = outcome.sheets().map(|sheets| blanks_of(&piece, sheets)).unwrap_or_default();
    let (piece, outcome) = match as_blank(&piece, &outcome, &blanks, blank) {
        Ok(own) => own.unwrap_or((piece, outcome)),
        Err(problem) => return stop(problem.detail),
    };
    // The piece's own program says where its zero lies and on which machine it runs; its paths are not looked at.
    let program = match program(&piece, &outcome, cutters, &Stamp::default(), LengthUnit::Mm) {
        Ok(program) => program,
        Err(findings) => return stop(format!("{}: {}", against.display(), words(&findings))),
    };
    let (run, found) = match simulate(&program, &text) {
        Ok(found) => found,
        Err(fault) => {
            say!("wrong  the cutter stops: {}: {fault}", file.display());
            return ExitCode::from(1);
        }
    };
    say!("{} on {}, kerf {} mm", file.display(), program.settings.cutter.name, program.settings.row.kerf);
    say!("{:<24} {:>24} {:>12}", "contour", "measured", "off by");
    for one in found.contours.iter().take(60) {
        let size = match one.diameter {
            Some(diameter) => format!("diameter {} mm", decimal(diameter, 3)),
            None => format!("{} x {} mm", decimal(one.size[0], 3), decimal(one.size[1], 3)),
        };
        say!("{:<24} {:>24} {:>9} mm", one.name, size, decimal(one.worst, 4));
    }
    if found.contours.len() > 60 {
        say!("and {} more contours", found.contours.len() - 60);
    }
    say!("{} cuts, {} marks, {}", run.labels.len(), run.marks.len(), time_text(found.seconds));
    for fault in &found.faults {
        let place = fault.line.map(|line| format!(" (line {line})")).unwrap_or_default();
        say!("wrong  {}{place}", fault.message);
    }
    if found.more > 0 {
        say!("wrong  and {} more", found.more);
    }
    if found.holds {
        say!("holds  no edge further off than {} mm", decimal(found.worst, 4));
        return ExitCode::SUCCESS;
    }
    ExitCode::from(1)
}

/// A machine file of a frame on the simulated saw and drill line, held against the cut list's line of its mark.
fn saw_line(file: &Path, text: &[u8], piece: &Piece, outcome: &Outcome) -> ExitCode {
    let frame = match ready(piece, outcome) {
        Ok(Made::Frame(frame)) => frame,
        Ok(_) => {
            eprintln!("steelk: {} is no frame, so it has no list of members", piece.mark);
            return ExitCode::from(2);
        }
        Err(withheld) => {
            eprintln!("steelk: {withheld}");
            return ExitCode::from(2);
        }
    };
    let job = match steelk_cutter::saw::read(&String::from_utf8_lossy(text)) {
        Ok(job) => job,
        Err(fault) => {
            say!("wrong  the saw stops: {}: {fault}", file.display());
            return ExitCode::from(1);
        }
    };
    if !frame.made.list.lines.iter().any(|line| line.mark == job.mark) {
        say!("wrong  the cut list of {} has no mark {}", piece.mark, job.mark);
        return ExitCode::from(1);
    }
    let sawn = steelk_cutter::saw::run(&job, &saw_wanted(&frame.made, &job.mark));
    say!(
        "{} {} x {}: {} mm, {} and {} deg, {} walls drilled, {} min",
        job.mark,
        job.quantity,
        job.section,
        decimal(sawn.length, 2),
        decimal(sawn.angles[0].to_degrees(), 3),
        decimal(sawn.angles[1].to_degrees(), 3),
        sawn.holes,
        decimal(sawn.minutes, 1)
    );
    for fault in &sawn.faults {
        say!("wrong  {fault}");
    }
    if sawn.faults.is_empty() {
        say!("good   as the cut list wants it");
        ExitCode::SUCCESS
    } else {
        ExitCode::from(1)
    }
}
