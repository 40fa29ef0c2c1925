//! DSTV NC1 (the German steel association's open format for structural pieces, 7th edition): one straight member with end
//! cuts and holes. Written as published: header ST, outlines AK, holes BO, end EN. From memory of the published description.
//!
//! Coordinates of a face: x along the piece from the long point of its start, y up the face. Faces are those of
//! [`steelk_core::frame::Face`]: `v` the front (the web's back, a beam's web), `o` the top, `u` the bottom, `h` the back.

use std::fmt::Write;
use steelk_core::work::frame::OneEnd;

use steelk_core::frame::{End, EndCutWords, FrameMade, Member, end_words, faces};
use steelk_core::piece::Piece;
use steelk_core::quantity::LengthUnit;
use steelk_core::section::Form;

/// What the header says beside the member.
pub struct Heading<'a> {
    /// Order.
    pub order: &'a str,
    /// Drawing.
    pub drawing: &'a str,
    /// Piece mark.
    pub mark: &'a str,
    /// How many.
    pub quantity: usize,
    /// Remarks at its head: of which revision it is, and the note that applies.
    pub remarks: &'a [String],
}

/// Why a member has no NC1 file.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum Nc1Fault {
    /// It is bent.
    #[error("{0} is bent, and NC1 here is for straight members")]
    Bent(String),
    /// A round end that is no single plane: the published faces are flat.
    #[error(
        "an end of round {0} is coped, pointed or slotted, and the faces of NC1 are flat; its wrap template has the cut"
    )]
    Round(String),
    /// An end of several planes whose long point lies on no face that is told.
    #[error(
        "the {1} of {0} is cut by more than one plane and its long point, {2:.2} mm beyond its outlines, lies on none of \
         the faces that NC1 tells; saw it by the cut list"
    )]
    Point(String, &'static str, f64),
    /// The ends of a face cross.
    #[error("nothing is left of face {1} of {0}: its ends cross there")]
    Nothing(String, char),
}

/// A text as one line of the file: printable ASCII, so that nothing in a name breaks into lines of its own.
fn field(text: &str) -> String {
    let plain: String = text
        .chars()
        .map(|c| {
            if c.is_control() {
                ' '
            } else if c.is_ascii() {
                c
            } else {
                '?'
            }
        })
        .take(80)
        .collect();
    let plain = plain.trim();
    // Two stars begin a remark.
    if plain.is_empty() { "-".into() } else { plain.trim_start_matches('*').to_string() }
}

/// The profile's letter.
fn profile(form: Form) -> &'static str {
    match form {
        Form::Beam => "I",
        Form::Channel => "U",
        Form::Angle => "L",
        Form::Flat | Form::Square | Form::Timber => "B",
        Form::RoundHollow => "RO",
        Form::Round => "RU",
        Form::SquareHollow | Form::RectangularHollow => "M",
        Form::Own => "SO",
    }
}

/// Signed angles from square in the header: of the web (seen from the front) and of the flange (seen from above), degrees.
fn angles(end: &EndCutWords) -> (f64, f64) {
    (end.tilt.to_degrees(), end.mitre.to_degrees())
}

/// How near the outlines must come to the long point of an end that they alone tell, mm: the last decimal of the file.
const TOLD: f64 = 0.01;

/// A member as NC1 text. A mirrored one is told turned end for end, so that its section lies as the drawn one.
///
/// # Errors
/// [`Nc1Fault`].
pub fn write(member: &Member, heading: &Heading<'_>) -> Result<String, Nc1Fault> {
    if !member.is_straight() {
        return Err(Nc1Fault::Bent(member.name.clone()));
    }
    let drawn = member.as_drawn();
    let member = drawn.as_ref();
    let is_plane = |end: &End| end.planes.len() == 1 && end.copes.is_empty();
    if member.section.is_round() && (member.has_cutouts() || !member.ends.iter().all(is_plane)) {
        return Err(Nc1Fault::Round(member.name.clone()));
    }
    let section = &member.section;
    let around = member.region.extents();
    let (height, width) = (around.height(), around.width());
    let mut text = String::new();
    let mut line = |value: String| {
        let _ = writeln!(text, "  {}", field(&value));
    };
    line(heading.order.into());
    line(heading.drawing.into());
    line("1".into());
    line(heading.mark.into());
    line(member.material.name.clone());
    line(heading.quantity.to_string());
    line(section.name.clone());
    line(profile(section.form).into());
    // Overall length, then the length to be sawn.
    line(format!("{:.2},{:.2}", member.length(), member.length()));
    for value in [height, width, section.flange, section.web, section.radius] {
        line(format!("{value:.2}"));
    }
    line(format!("{:.3}", section.mass_per_metre(member.material.density)));
    line(format!("{:.3}", section.paint_perimeter() / 1000.0));
    // An end of several planes or with a cope has no saw angle: its outlines say it.
    let of = |which: OneEnd| {
        let end = &member.ends[which.at()];
        if is_plane(end) { angles(&end_words(member, which, 0.0, LengthUnit::Mm)) } else { (0.0, 0.0) }
    };
    let [(web_start, flange_start), (web_finish, flange_finish)] = OneEnd::BOTH.map(of);
    for value in [web_start, web_finish, flange_start, flange_finish] {
        line(format!("{value:.3}"));
    }
    for _ in 0..4 {
        line("-".into());
    }
    let mut reach = (f64::INFINITY, f64::NEG_INFINITY);
    let remarks: String = heading.remarks.iter().map(|one| format!("** {}\n", field(one))).collect();
    let mut file = format!("ST\n** written by Steelk\n{remarks}{FACES}{text}");
    for face in faces(member) {
        let contour = face.contour(member).ok_or_else(|| Nc1Fault::Nothing(member.name.clone(), face.letter))?;
        file.push_str("AK\n");
        for (at, place) in contour.iter().chain(contour.first()).enumerate() {
            reach = (reach.0.min(place.x), reach.1.max(place.x));
            let name = if at == 0 { face.letter } else { ' ' };
            let _ = writeln!(file, "  {name} {:.2}u {:.2} 0.00 0.00 0.00 0.00 0.00", place.x, place.y);
        }
    }
    // Without a saw angle the outlines are what is cut, and a long point that is on none of them would be cut away.
    for (end, short) in [(OneEnd::Start, reach.0), (OneEnd::Finish, member.length() - reach.1)] {
        if !is_plane(&member.ends[end.at()]) && short > TOLD {
            return Err(Nc1Fault::Point(member.name.clone(), end.word(), short));
        }
    }
    if !member.bores.is_empty() {
        file.push_str("BO\n");
        for hole in member.bores.iter().flat_map(|bore| member.face_holes(bore)) {
            let _ = writeln!(file, "  {} {:.2}u {:.2} {:.2}", hole.letter, hole.along, hole.up, hole.diameter);
        }
    }
    file.push_str("EN\n");
    Ok(file)
}

/// The first member of a line of a frame's cut list, with how many of it are cut for all frames; `None` where no line of members
/// has the mark.
pub fn member_of<'a>(piece: &Piece, made: &'a FrameMade, mark: &str) -> Option<(&'a Member, usize)> {
    let list = &made.list;
    let index = list.lines.iter().position(|line| line.mark == mark)?;
    Some((made.member_of_line(index)?, list.lines[index].quantity.saturating_mul(piece.count().cut() as usize)))
}

/// The file of a mark of a frame's members, or why it has none; `None` where no line of members has the mark.
pub fn of_mark(piece: &Piece, made: &FrameMade, mark: &str, remarks: &[String]) -> Option<Result<String, Nc1Fault>> {
    let (member, quantity) = member_of(piece, made, mark)?;
    Some(write(member, &Heading { order: &piece.mark, drawing: &piece.title, mark, quantity, remarks }))
}

/// Said in every file, since readers differ.
const FACES: &str = "\
** v is the face seen with the start at the left and up upward, h the one behind it, o the top, u the bottom
** y: up from the lower edge on v and h, across from the edge of v on o and u
** angles from square: web positive where the top is the shorter, flange where the side away from v is
";
