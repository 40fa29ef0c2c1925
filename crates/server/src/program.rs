//! From an evaluated piece to its cut program, and what the simulated cutter makes of it.

use steelk_core::finding::Finding;
use steelk_core::piece::{Outcome, Piece};
use steelk_core::stock::{Cutter, Material};
use steelk_core::toolpath::{Plan, Profile, Settings, plan, profile, settings};
use steelk_cutter::{Inspection, Machine, Run, RunError, Wanted, inspect, run};
use steelk_formats::gcode::{self, ProgramOf};

use crate::api::download::whole_blank;

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

/// Material and thickness of an outcome whose blank is whole.
fn stock_of(piece: &Piece, outcome: &Outcome) -> Result<(&'static Material, f64), NotReady> {
    whole_blank(piece, outcome).map_err(|problem| vec![Finding::error(problem.detail, "")])?;
    match (outcome.resolved.material, outcome.resolved.thickness) {
        (Some(material), Some(thickness)) => Ok((material, thickness)),
        _ => Err(vec![Finding::error("the material or the thickness is not known", "Say both in the first sentence.")]),
    }
}

/// Numbers of how a piece is cut.
///
/// # Errors
/// [`NotReady`]: nothing whole to cut, no cutter for it, or values that cannot be read.
pub fn settings_of(piece: &Piece, outcome: &Outcome, cutters: &[Cutter]) -> Result<Settings, NotReady> {
    let (material, thickness) = stock_of(piece, outcome)?;
    let cutting = piece.cutting.clone().unwrap_or_default();
    settings(&cutting, cutters, material, thickness, &outcome.resolved.names)
}

/// Plans and writes the program of a piece. `revision` is what its header says.
///
/// # Errors
/// [`NotReady`] as [`settings_of`], or when the cutter cannot cut it.
pub fn program(piece: &Piece, outcome: &Outcome, cutters: &[Cutter], revision: &str) -> Result<Program, NotReady> {
    let settings = settings_of(piece, outcome, cutters)?;
    let part = outcome.part().ok_or_else(|| vec![Finding::error("there is no part yet", "Lay a base down.")])?;
    let profile = profile(part);
    let plan = plan(&profile, &settings, outcome.resolved.names.show)?;
    let of = ProgramOf {
        mark: piece.mark.clone(),
        title: piece.title.clone(),
        revision: revision.into(),
        material: piece.stock.material.clone(),
        thickness: part.flat.thickness,
    };
    let text = gcode::write(&plan, &settings, &of);
    Ok(Program { settings, profile, plan, text })
}

impl Program {
    /// The part that it should leave.
    pub fn wanted(&self) -> Wanted {
        Wanted::of(&self.profile, &self.plan, &self.settings)
    }

    /// The machine that it is for.
    pub fn machine(&self) -> Machine {
        Machine::of(&self.settings.cutter, &self.settings.row)
    }

    /// Runs a text (its own, or one from a file) on its machine and measures what is left.
    ///
    /// # Errors
    /// [`RunError`] with the line at which the machine would stop.
    pub fn simulate(&self, text: &[u8]) -> Result<(Run, Inspection), RunError> {
        let run = run(text, &self.machine())?;
        let inspection = inspect(&run, &self.wanted());
        Ok((run, inspection))
    }
}
