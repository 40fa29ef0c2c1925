//! A cut program with everything that it came from.

use steelk_core::finding::Finding;
use steelk_core::piece::{Made, Outcome, Piece, blanks_of};
use steelk_core::quantity::LengthUnit;
use steelk_core::release::{ready, rule_stamp};
use steelk_core::sheet::Part;
use steelk_core::stock::{Cutter, Material};
use steelk_core::toolpath::{Plan, Profile, Settings, plan, profile, settings};

use crate::gcode::{self, ProgramOf};
use crate::output::Stamp;

/// A cut program with everything that it came from.
pub struct Program {
    /// Numbers of how it is cut.
    pub settings: Settings,
    /// What of the part is cut, marked, left.
    pub profile: Profile,
    /// Paths in order.
    pub plan: Plan,
    /// The program's text.
    pub text: String,
}

/// A piece is not ready for a program: why, with what has to be done.
pub type NotReady = Vec<Finding>;

/// The part, the material and the thickness of a piece whose blank is whole.
fn whole<'a>(piece: &Piece, outcome: &'a Outcome) -> Result<(&'a Part, &'static Material, f64), NotReady> {
    let no = |words: String, way_out: &str| vec![Finding::error(words, way_out)];
    let part = match ready(piece, outcome).map_err(|withheld| no(withheld.detail, ""))? {
        Made::Sheet(sheets) => sheets.only().map(|blank| &blank.part).ok_or_else(|| {
            let marks: Vec<String> = blanks_of(piece, sheets).into_iter().map(|one| one.mark).collect();
            let count = sheets.blanks().len();
            no(format!("{} comes to {count} blanks", piece.mark), &format!("Ask for one of {}.", marks.join(", ")))
        })?,
        _ => return Err(no(format!("{} is a {}: it has no blank", piece.mark, piece.kind.row().word), "")),
    };
    match (outcome.resolved.material, outcome.resolved.thickness) {
        (Some(material), Some(thickness)) => Ok((part, material, thickness)),
        _ => Err(no("the material or the thickness is not known".into(), "Say both in the first sentence.")),
    }
}

/// Numbers of how a piece is cut.
///
/// # Errors
/// [`NotReady`]: nothing whole to cut, no cutter for it, or values that cannot be read.
pub fn settings_of(piece: &Piece, outcome: &Outcome, cutters: &[Cutter]) -> Result<Settings, NotReady> {
    let (_, material, thickness) = whole(piece, outcome)?;
    let cutting = piece.cutting.clone().unwrap_or_default();
    settings(&cutting, cutters, material, thickness, &outcome.resolved.names.full_size())
}

/// Plans and writes the program of a piece, in millimetres (G21) or inches (G20).
///
/// # Errors
/// [`NotReady`] as [`settings_of`], or when the cutter cannot cut it.
pub fn program(
    piece: &Piece,
    outcome: &Outcome,
    cutters: &[Cutter],
    stamp: &Stamp,
    unit: LengthUnit,
) -> Result<Program, NotReady> {
    let settings = settings_of(piece, outcome, cutters)?;
    let (part, ..) = whole(piece, outcome)?;
    let profile = profile(part);
    let plan = plan(&profile, &settings, outcome.resolved.names.show)?;
    let of = ProgramOf {
        mark: piece.mark.clone(),
        title: piece.title.clone(),
        stamp: stamp.clone(),
        material: piece.stock.material.clone(),
        thickness: part.flat.thickness,
        note: rule_stamp(outcome),
        count: piece.count(),
        unit,
    };
    let text = gcode::write(&plan, &settings, &of);
    Ok(Program { settings, profile, plan, text })
}

/// Findings as one sentence for a refusal.
pub fn words(findings: &[Finding]) -> String {
    let errors: Vec<String> = findings
        .iter()
        .filter(|one| one.severity == steelk_core::finding::Severity::Error)
        .map(|one| format!("{}. {}", one.message.trim_end_matches('.'), one.way_out).trim().to_string())
        .collect();
    errors.join(" ")
}
