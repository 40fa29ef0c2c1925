//! The files of a frame, for downloads and for the command line.

use std::time::{Duration, Instant};

use actix_web::http::StatusCode;
use steelk_core::drawing::{RowPicture, Sheet, table_sheets, wrap_drawing, wrap_sheet};
use steelk_core::frame::{Wrap, faces, frame_solids, piece_picture, wrap_template};
use steelk_core::nest::{BarResult, nest};
use steelk_core::piece::{BarGroup, FrameOutcome, Outcome, Piece};
use steelk_core::quantity::decimal;
use steelk_core::release::{Ready, ready};
use steelk_core::table::{bar_table, cut_table, weld_table};
use steelk_cutter::saw::{Drill, SawWanted};
use steelk_formats::nc1::{Heading, Nc1Fault};

use crate::problem::Problem;

fn not_yet(detail: impl Into<String>) -> Problem {
    Problem::new(StatusCode::CONFLICT, "Nothing to cut yet", detail)
}

/// The frame of a piece; refused while an operation is bad or members share space: a shop would cut what is left.
///
/// # Errors
/// [`Problem`] in words.
pub fn whole_frame<'a>(piece: &Piece, outcome: &'a Outcome) -> Result<&'a FrameOutcome, Problem> {
    match ready(piece, outcome)? {
        Ready::Frame(frame) => Ok(frame),
        Ready::Sheet(_) => Err(not_yet(format!("{} is no frame, so it has no list of members", piece.mark))),
    }
}

/// Solves the bars of each group within a time.
///
/// # Errors
/// [`Problem`] where a group cannot be cut from its bars.
pub fn solved_bars(frame: &FrameOutcome, quantity: u32, seconds: f64) -> Result<Vec<(BarGroup, BarResult)>, Problem> {
    frame
        .bars
        .iter()
        .map(|group| {
            let group = for_all(group, quantity);
            let end = Instant::now() + Duration::from_secs_f64(seconds);
            let result = nest(&group.problem, &mut |_| Instant::now() < end)
                .map_err(|fault| not_yet(format!("{}: {}. {}", group.section, fault.message, fault.way_out)))?;
            Ok((group, result))
        })
        .collect()
}

/// A group for as many frames as are made.
pub fn for_all(group: &BarGroup, quantity: u32) -> BarGroup {
    let mut group = group.clone();
    for piece in &mut group.problem.pieces {
        // Beyond what there can be it is refused as too many, and not taken for few.
        piece.quantity = piece.quantity.saturating_mul(quantity as usize);
    }
    group
}

fn text(fault: steelk_formats::WriteError) -> Problem {
    fault.into()
}

/// How long bars are searched when a file is asked for, seconds a section.
pub const SEARCH: f64 = 1.5;

/// The cut list as CSV.
///
/// # Errors
/// As [`whole_frame`].
pub fn cut_list_csv(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    steelk_formats::table_csv::write(&cut_table(piece, whole_frame(piece, outcome)?)).map_err(text)
}

/// Cut list, bars and welds as one workbook.
///
/// # Errors
/// As [`whole_frame`].
pub fn cut_list_xlsx(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let frame = whole_frame(piece, outcome)?;
    let bars = solved_bars(frame, piece.quantity, SEARCH)?;
    let (list, bars, welds) = (cut_table(piece, frame), bar_table(piece, &bars), weld_table(piece, frame));
    steelk_formats::table_xlsx::write(&[("Cut list", &list), ("Bars", &bars), ("Welds", &welds)]).map_err(text)
}

/// Cut list with pictures, bars and welds as PDF.
///
/// # Errors
/// As [`whole_frame`].
pub fn cut_list_pdf(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let frame = whole_frame(piece, outcome)?;
    let bars = solved_bars(frame, piece.quantity, SEARCH)?;
    let made = &frame.made;
    let pictures: Vec<RowPicture> = made
        .list
        .lines
        .iter()
        .enumerate()
        .map(|(index, _)| {
            if let Some(at) = made.list.line_of.iter().position(|own| *own == index) {
                return piece_picture(&made.frame.members[at]).outline;
            }
            let plate = made.list.line_of_plate.iter().position(|own| *own == index).map(|at| &made.frame.plates[at]);
            plate.map(|plate| plate.part.blank.region.outer.flatten(0.5)).unwrap_or_default()
        })
        .collect();
    let cautions: Vec<String> = outcome.cautions.clone();
    let mut sheets: Vec<Sheet> = table_sheets(
        &cut_table(piece, frame),
        &[
            ("mark", 23.0),
            ("quantity", 15.0),
            ("section", 26.0),
            ("material", 16.0),
            ("length mm", 18.0),
            ("short point mm", 24.0),
            ("start", 24.0),
            ("finish", 24.0),
            ("work", 38.0),
            ("mass total kg", 23.0),
        ],
        &pictures,
        &cautions,
    );
    sheets.extend(table_sheets(
        &bar_table(piece, &bars),
        &[
            ("bar", 12.0),
            ("section", 34.0),
            ("material", 24.0),
            ("stock mm", 22.0),
            ("marks in order", 150.0),
            ("offcut mm", 22.0),
        ],
        &[],
        &[],
    ));
    sheets.extend(table_sheets(
        &weld_table(piece, frame),
        &[
            ("weld", 14.0),
            ("joint", 34.0),
            ("marks", 60.0),
            ("length mm", 22.0),
            ("leg mm", 16.0),
            ("symbol", 70.0),
            ("deposit kg", 22.0),
            ("time min", 20.0),
        ],
        &[],
        &[],
    ));
    Ok(steelk_formats::pdf::write(&sheets, &format!("{} {}, cut list", piece.mark, piece.title)))
}

/// The cutting plan as CSV.
///
/// # Errors
/// As [`whole_frame`] and [`solved_bars`].
pub fn bars_csv(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let frame = whole_frame(piece, outcome)?;
    let bars = solved_bars(frame, piece.quantity, SEARCH)?;
    steelk_formats::table_csv::write(&bar_table(piece, &bars)).map_err(text)
}

/// Welds as CSV.
///
/// # Errors
/// As [`whole_frame`].
pub fn welds_csv(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    steelk_formats::table_csv::write(&weld_table(piece, whole_frame(piece, outcome)?)).map_err(text)
}

/// The frame as a mesh.
///
/// # Errors
/// As [`whole_frame`].
pub fn frame_glb(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    whole_frame(piece, outcome)?;
    Ok(steelk_formats::glb::write(&outcome.mesh, &piece.mark))
}

/// NC1 text of every mark that is a straight member, but for round ones with more than plane ends; the others are told.
///
/// # Errors
/// As [`whole_frame`].
pub fn nc1_files(piece: &Piece, outcome: &Outcome) -> Result<Vec<(String, Result<String, Nc1Fault>)>, Problem> {
    let frame = whole_frame(piece, outcome)?;
    let made = &frame.made;
    Ok(made
        .list
        .lines
        .iter()
        .enumerate()
        .filter_map(|(index, line)| {
            let at = made.list.line_of.iter().position(|own| *own == index)?;
            let heading = Heading {
                order: &piece.mark,
                drawing: &piece.title,
                mark: &line.mark,
                quantity: line.quantity * piece.quantity as usize,
            };
            Some((line.mark.clone(), steelk_formats::nc1::write(&made.frame.members[at], &heading)))
        })
        .collect())
}

/// Every member and plate as a solid (STEP AP214).
///
/// # Errors
/// As [`whole_frame`]; a plate that has no solid.
pub fn frame_step(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let frame = whole_frame(piece, outcome)?;
    let (solids, missing) = frame_solids(&frame.made);
    if let Some(fault) = missing.first() {
        return Err(Problem::new(
            StatusCode::CONFLICT,
            "No solid",
            format!("{} has no STEP file: {fault}", piece.mark),
        ));
    }
    Ok(steelk_formats::step::write_all(&solids, &piece.mark, "welded frame, millimetres").into_bytes())
}

/// Wrap templates of a mark, with which end each is of.
fn wraps(piece: &Piece, outcome: &Outcome, mark: &str) -> Result<Vec<(String, Wrap)>, Problem> {
    let made = &whole_frame(piece, outcome)?.made;
    let Some(index) = made.list.lines.iter().position(|line| line.mark == mark) else { return Ok(Vec::new()) };
    let Some(at) = made.list.line_of.iter().position(|own| *own == index) else { return Ok(Vec::new()) };
    let member = &made.frame.members[at];
    Ok([(false, "start"), (true, "finish")]
        .into_iter()
        .filter_map(|(finish, word)| {
            let words = format!("{} {mark}, {word}, {}", piece.mark, member.section.name);
            Some((words, wrap_template(member, finish)?))
        })
        .collect())
}

/// Wrap templates of a mark as PDF at 1:1, a sheet an end; `None` where it has none.
///
/// # Errors
/// As [`whole_frame`].
pub fn wrap_pdf(piece: &Piece, outcome: &Outcome, mark: &str) -> Result<Option<Vec<u8>>, Problem> {
    let sheets: Vec<Sheet> = wraps(piece, outcome, mark)?.iter().map(|(words, wrap)| wrap_sheet(wrap, words)).collect();
    Ok((!sheets.is_empty())
        .then(|| steelk_formats::pdf::write(&sheets, &format!("{} {mark}, wrap templates 1:1", piece.mark))))
}

/// Wrap templates of a mark as DXF, one above the other; `None` where it has none.
///
/// # Errors
/// As [`whole_frame`]; the library's words.
pub fn wrap_dxf(piece: &Piece, outcome: &Outcome, mark: &str) -> Result<Option<Vec<u8>>, Problem> {
    let all = wraps(piece, outcome, mark)?;
    let mut drawing = steelk_core::drawing::Drawing::default();
    let mut down = 0.0;
    for (_, wrap) in &all {
        let own = wrap_drawing(wrap);
        let around = own.extents();
        for (layer, stroke) in own.strokes {
            if let steelk_core::drawing::Stroke::Segment(mut one) = stroke {
                one.start.y -= down;
                one.end.y -= down;
                drawing.strokes.push((layer, steelk_core::drawing::Stroke::Segment(one)));
            }
        }
        down += around.height() + 20.0;
    }
    if all.is_empty() {
        return Ok(None);
    }
    Ok(Some(steelk_formats::dxf_file::write(&drawing)?))
}

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

/// Runs every mark's file on the simulated line and measures what comes off against the cut list.
///
/// # Errors
/// As [`whole_frame`].
pub fn saw_runs(piece: &Piece, outcome: &Outcome) -> Result<Vec<SawView>, Problem> {
    let made = &whole_frame(piece, outcome)?.made;
    Ok(nc1_files(piece, outcome)?
        .into_iter()
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
pub fn saw_wanted(made: &steelk_core::frame::FrameMade, mark: &str) -> SawWanted {
    let Some(index) = made.list.lines.iter().position(|line| line.mark == mark) else { return SawWanted::default() };
    let length = made.list.lines[index].length;
    let Some(at) = made.list.line_of.iter().position(|own| *own == index) else {
        return SawWanted { length, ..SawWanted::default() };
    };
    let member = &made.frame.members[at];
    if !member.is_straight() {
        return SawWanted { length, ..SawWanted::default() };
    }
    let member = member.as_drawn();
    let holes = member.bores.iter().flat_map(|bore| member.face_holes(bore));
    SawWanted {
        length,
        angles: [member.saw_angle(false), member.saw_angle(true)],
        coped: [0, 1].map(|at| !member.ends[at].cutouts.is_empty()),
        holes: holes
            .map(|hole| Drill { face: hole.letter, along: hole.along, up: hole.up, diameter: hole.diameter })
            .collect(),
        faces: faces(&member).iter().map(|face| (face.letter, face.area(&member))).collect(),
    }
}
