//! A frame's machine files on the simulated saw and drill line.

use steelk_core::frame::{FrameMade, faces};
use steelk_core::piece::{Made, Outcome, Piece};
use steelk_core::quantity::decimal;
use steelk_core::release::{Withheld, ready};
use steelk_core::work::frame::OneEnd;
use steelk_cutter::saw::{Drill, SawWanted};
use steelk_formats::nc1::of_mark;

/// A mark's machine file run on the simulated saw and drill line.
#[derive(Clone, Debug, serde::Serialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub struct SawView {
    pub mark: String,
    /// Whether the piece came off as the list wants it.
    pub good: bool,
    /// Whether there is a machine file at all.
    pub has_file: bool,
    /// What came off, or why there is none, in words.
    pub words: String,
    /// Minutes on the line for one.
    pub minutes: f64,
}

/// Runs every mark's file on the simulated line and measures what comes off against the cut list; nothing for a piece that is no
/// frame.
///
/// # Errors
/// [`Withheld`] as [`ready`].
pub fn saw_runs(piece: &Piece, outcome: &Outcome) -> Result<Vec<SawView>, Withheld> {
    let Made::Frame(frame) = ready(piece, outcome)? else { return Ok(Vec::new()) };
    let made = &frame.made;
    let marks = made.list.lines.iter().map(|line| &line.mark);
    Ok(marks
        .filter_map(|mark| Some((mark.clone(), of_mark(piece, made, mark, &[])?)))
        .map(|(mark, text)| {
            let bare = |words: String, has_file: bool| SawView {
                mark: mark.clone(),
                good: false,
                has_file,
                words,
                minutes: 0.0,
            };
            let text = match text {
                Ok(text) => text,
                Err(fault) => return bare(fault.to_string(), false),
            };
            let job = match steelk_cutter::saw::read(&text) {
                Ok(job) => job,
                Err(fault) => return bare(format!("the saw stops: {fault}"), true),
            };
            let sawn = steelk_cutter::saw::run(&job, &saw_wanted(made, &mark));
            let words = if sawn.faults.is_empty() {
                format!(
                    "{} mm, {} and {} deg, {} walls drilled: as listed",
                    decimal(sawn.length, 2),
                    decimal(sawn.angles[0].to_degrees(), 2),
                    decimal(sawn.angles[1].to_degrees(), 2),
                    sawn.holes
                )
            } else {
                sawn.faults.join("; ")
            };
            SawView { mark: mark.clone(), good: sawn.faults.is_empty(), has_file: true, words, minutes: sawn.minutes }
        })
        .collect())
}

/// What the cut list wants of a mark: of the first piece of its line, with its section as drawn.
pub fn saw_wanted(made: &FrameMade, mark: &str) -> SawWanted {
    let Some(index) = made.list.lines.iter().position(|line| line.mark == mark) else { return SawWanted::default() };
    let length = made.list.lines[index].length;
    let Some(member) = made.member_of_line(index).filter(|member| member.is_straight()) else {
        return SawWanted { length, ..SawWanted::default() };
    };
    let member = member.as_drawn();
    let holes = member.bores.iter().flat_map(|bore| member.face_holes(bore));
    SawWanted {
        length,
        angles: OneEnd::BOTH.map(|which| member.saw_angle(which)),
        coped: [0, 1].map(|at| !member.ends[at].cutouts.is_empty()),
        holes: holes
            .map(|hole| Drill { face: hole.letter, along: hole.along, up: hole.up, diameter: hole.diameter })
            .collect(),
        faces: faces(&member).iter().map(|face| (face.letter, face.area(&member))).collect(),
    }
}
