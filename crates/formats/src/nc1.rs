//! DSTV NC1 (the German steel association's open format for structural pieces, 7th edition): one straight member with end
//! cuts and holes. Written as published: header ST, outlines AK, holes BO, end EN. From memory of the published description.
//!
//! Coordinates of a face: x along the piece from its start, y from the lower edge of the face. Faces: `v` the front (web),
//! `o` the top, `u` the bottom, `h` the back.

use std::fmt::Write;

use steelk_core::frame::{Bore, EndCutWords, Member, end_words};
use steelk_core::plane::Vector;
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
}

/// Why a member has no NC1 file.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum Nc1Fault {
    /// It is bent.
    #[error("{0} is bent, and NC1 here is for straight members")]
    Bent(String),
    /// An end that is no single plane.
    #[error(
        "an end of {0} is coped, pointed or notched, and NC1 here has plane cuts only; the wrap template or the drawing has it"
    )]
    End(String),
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

/// A member as NC1 text.
///
/// # Errors
/// [`Nc1Fault`].
pub fn write(member: &Member, heading: &Heading<'_>) -> Result<String, Nc1Fault> {
    if !member.is_straight() {
        return Err(Nc1Fault::Bent(member.name.clone()));
    }
    if member.ends.iter().any(|end| !end.copes.is_empty() || !end.notches.is_empty() || end.planes.len() != 1) {
        return Err(Nc1Fault::End(member.name.clone()));
    }
    let section = &member.section;
    let around = member.region.extents();
    let (height, width) = (around.height(), around.width());
    let (start, finish) = (end_words(member, false, 0.0), end_words(member, true, 0.0));
    let mut text = String::new();
    let mut line = |value: String| {
        let _ = writeln!(text, "  {value}");
    };
    line(heading.order.replace('\n', " "));
    line(heading.drawing.replace('\n', " "));
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
    let ((web_start, flange_start), (web_finish, flange_finish)) = (angles(&start), angles(&finish));
    for value in [web_start, web_finish, flange_start, flange_finish] {
        line(format!("{value:.3}"));
    }
    for _ in 0..4 {
        line("-".into());
    }
    let mut file = format!("ST\n** written by Steelk\n{text}");
    // The front face as cut: its four corners.
    let face = |v: f64, finish: bool| {
        let front = around.high.x;
        let at = steelk_core::plane::Point::new(front, v);
        let begin = member.reach(false).0;
        if finish { member.lines[0].length() + member.finishes(at) - begin } else { member.begins(at) - begin }
    };
    file.push_str("AK\n");
    let (low, high) = (around.low.y, around.high.y);
    let corners =
        [(face(low, false), 0.0), (face(low, true), 0.0), (face(high, true), height), (face(high, false), height)];
    for (at, (x, y)) in corners.iter().chain(corners.first()).enumerate() {
        let name = if at == 0 { "v" } else { " " };
        let _ = writeln!(file, "  {name} {x:.2}u {y:.2} 0.00 0.00 0.00 0.00 0.00");
    }
    if !member.bores.is_empty() {
        file.push_str("BO\n");
        for bore in &member.bores {
            for (face, x, y) in places(member, bore) {
                let _ = writeln!(file, "  {face} {x:.2}u {y:.2} {:.2}", bore.diameter);
            }
        }
    }
    file.push_str("EN\n");
    Ok(file)
}

/// The faces that a hole opens in with its place there: both where it goes through.
fn places(member: &Member, bore: &Bore) -> Vec<(char, f64, f64)> {
    let around = member.region.extents();
    let x = bore.along - member.reach(false).0;
    // Off the middle, to the right as one looks along the hole.
    let side = bore.into.right() * bore.off;
    let of = |out: Vector| -> (char, f64, f64) {
        if out.x > 0.5 {
            ('v', x, around.height() / 2.0 + side.y)
        } else if out.x < -0.5 {
            ('h', x, around.height() / 2.0 + side.y)
        } else if out.y > 0.5 {
            ('o', x, around.width() / 2.0 + side.x)
        } else {
            ('u', x, around.width() / 2.0 + side.x)
        }
    };
    let mut all = vec![of(-bore.into)];
    if !bore.one_wall {
        all.push(of(bore.into));
    }
    all
}
