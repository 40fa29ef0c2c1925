//! A cut program as plain RS-274 text: absolute, millimetres or inches, arcs by centre offsets, the cutter's own macros.

use std::fmt::Write as _;

use steelk_core::patience;
use steelk_core::piece::{Count, FIRST_OFF};
use steelk_core::plane::{Point, Segment};
use steelk_core::quantity::tolerance::ROUNDING;
use steelk_core::quantity::{Amount, LengthUnit, decimal};
use steelk_core::toolpath::{CutPath, Plan, Settings};

use crate::output::Stamp;

/// What the header says of the piece.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct ProgramOf {
    pub mark: String,
    pub title: String,
    /// Which revision, where it is known.
    pub stamp: Stamp,
    pub material: String,
    /// Thickness, mm.
    pub thickness: f64,
    /// The note that applies: that the piece is not released.
    pub note: Option<String>,
    /// How many of it.
    pub count: Count,
    /// The unit of the program.
    pub unit: LengthUnit,
}

/// A number of the program: a tenth of a micrometre, or a hundred-thousandth of an inch.
fn number(millimetres: f64, unit: LengthUnit) -> String {
    decimal(millimetres / unit.millimetres(), if unit == LengthUnit::Mm { 4 } else { 5 })
}

/// The program's text, one move a line, ending in a line break.
pub fn write(plan: &Plan, settings: &Settings, of: &ProgramOf) -> String {
    let (cutter, row) = (&settings.cutter, &settings.row);
    let mut out = String::from("%\n");
    let mut note = |words: String| {
        // Writing to a String cannot fail.
        let _ = writeln!(out, "({})", comment(&words));
    };
    of.note.iter().cloned().for_each(&mut note);
    note(format!("PIECE {} {}", of.mark, of.title));
    let known = [("REVISION", &of.stamp.revision), ("BY", &of.stamp.by), ("DATE", &of.stamp.date)];
    known.iter().filter_map(|(word, own)| Some(format!("{word} {}", own.as_ref()?))).for_each(&mut note);
    note(of.count.words());
    if of.count.first_off {
        note(FIRST_OFF.into());
    }
    note(format!("MATERIAL {}", of.material));
    let unit = of.unit;
    let size = |value: f64, places: usize| unit.says(Amount::Length, value, places);
    note(format!("THICKNESS {}", size(of.thickness, 3)));
    note(format!("CUTTER {}", cutter.name));
    if !row.quality.is_empty() {
        note(format!("QUALITY {}", row.quality));
    }
    if row.made_up {
        note("FIGURES OF THIS ROW ARE A MADE-UP EXAMPLE: MEASURE YOUR OWN BEFORE YOU CUT".into());
    }
    note(format!("KERF {}", size(row.kerf, 4)));
    note(format!(
        "STOCK {} X {}, ZERO AT ITS LOWER LEFT CORNER",
        unit.bare(Amount::Length, plan.stock.0, 3),
        size(plan.stock.1, 3)
    ));
    if let Some((count, width)) = settings.tabs {
        note(format!("TABS {count} OF {}", size(width, 3)));
    }
    for one in [&cutter.on, &cutter.off, &cutter.mark] {
        note(format!("MACRO {} IS {}", one.code, one.name));
    }
    note("CHECK THE STOCK, THE CLAMPS AND THE PATH BEFORE YOU START".into());
    note(format!("UNITS {}", if unit == LengthUnit::Mm { "MILLIMETRES" } else { "INCHES" }));
    for caution in cutter.process.cautions() {
        note(format!("CAUTION {caution}"));
    }
    let words = if unit == LengthUnit::Mm { "G21" } else { "G20" };
    let _ = writeln!(out, "{words} G17 G90 G94 G40");
    let (on, off) =
        (format!("{} ({})", cutter.on.code, cutter.on.name), format!("{} ({})", cutter.off.code, cutter.off.name));
    for mark in &plan.marks {
        let _ = writeln!(out, "(MARK {})", comment(&mark.name));
        let _ = writeln!(out, "G0 {}", place(mark.place, unit));
        let _ = writeln!(out, "{} ({})", cutter.mark.code, cutter.mark.name);
    }
    for path in &plan.paths {
        patience::check();
        cut(&mut out, path, (&on, &off), row.pierce, row.speed, unit);
    }
    out.push_str("G0 X0 Y0\nM30\n%\n");
    out
}

fn cut(out: &mut String, path: &CutPath, (on, off): (&str, &str), pierce: f64, speed: f64, unit: LengthUnit) {
    let _ = writeln!(out, "(CUT {})", comment(&path.name));
    let _ = writeln!(out, "G0 {}", place(path.start(), unit));
    let _ = writeln!(out, "{on}");
    if pierce > 0.0 {
        let _ = writeln!(out, "G4 P{}", decimal(pierce, 3));
    }
    let mut feed = format!(" F{}", unit.bare(Amount::Speed, speed, 1));
    let mut here = place(path.start(), unit);
    for segment in path.segments() {
        // A bulge beyond a half circle would leave the centre to chance on some controls.
        let parts = if segment.sweep().abs() > std::f64::consts::PI + ROUNDING { 2 } else { 1 };
        for part in 0..parts {
            let one = if parts == 1 {
                *segment
            } else {
                segment.part(f64::from(part) / f64::from(parts), f64::from(part + 1) / f64::from(parts))
            };
            // What ends where the machine stands is no move: written as an arc it would be a whole turn.
            let there = place(one.end, unit);
            if there == here {
                continue;
            }
            let _ = writeln!(out, "{}{feed}", motion(&one, unit));
            feed.clear();
            here = there;
        }
    }
    let _ = writeln!(out, "{off}");
}

/// A shorter arc, mm, is written straight: with its ends rounded to the program's decimals they may lie one behind the other, which a
/// control takes for a whole turn. About half a kerf of 0.1 mm it lies 1e-5 mm off its chord.
const LEAST_ARC: f64 = 2e-3;

fn motion(one: &Segment, unit: LengthUnit) -> String {
    if one.is_line() || one.length() < LEAST_ARC {
        return format!("G1 {}", place(one.end, unit));
    }
    let centre = one.centre() - one.start;
    let code = if one.bulge > 0.0 { "G3" } else { "G2" };
    format!("{code} {} I{} J{}", place(one.end, unit), number(centre.x, unit), number(centre.y, unit))
}

fn place(point: Point, unit: LengthUnit) -> String {
    format!("X{} Y{}", number(point.x, unit), number(point.y, unit))
}

/// Words that are safe within brackets: one line of ASCII, no brackets.
fn comment(words: &str) -> String {
    words
        .chars()
        .map(
            |c| if c.is_ascii() && !c.is_ascii_control() && !"();%".contains(c) { c.to_ascii_uppercase() } else { '-' },
        )
        .take(200)
        .collect()
}
