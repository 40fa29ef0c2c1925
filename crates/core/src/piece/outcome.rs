//! What a piece comes to.

use serde::Serialize;
use utoipa::ToSchema;

use crate::audit::Audit;
use crate::finding::{Finding, Why};
use crate::frame::{FrameMade, MemberClash, PlateClash, Weld};
use crate::nest::BarProblem;
use crate::proof::{Breach, CallOutProof, RuleOutcome};
use crate::quantity::LengthUnit;
use crate::sheet::{Figures, Part};
use crate::space::Mesh;
use crate::work::sheet::Direction;

use super::{OperationState, Resolved};

/// What to evaluate.
#[derive(Clone, Copy, Debug)]
pub struct Options {
    /// How many operations from the top; `None` for all.
    pub upto: Option<usize>,
    /// How far the mesh is folded, 0 flat to 1 done.
    pub fold: f64,
    /// The unit that is printed; the piece's own for `None`.
    pub show: Option<LengthUnit>,
}

impl Default for Options {
    fn default() -> Self {
        Options { upto: None, fold: 1.0, show: None }
    }
}

/// How far a chord of the mesh may stray from its arc, mm: a twentieth of what the eye sees at full size.
pub(super) const MESH_TOLERANCE: f64 = 0.05;

/// A bend with its figures and its working.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BendReport {
    /// Its mark on the blank: `B1`.
    pub mark: String,
    /// What it is made with, in words.
    pub tooling: String,
    /// How its allowance was found, in a few words.
    pub source: String,
    /// Name.
    pub name: String,
    /// Bend angle, radians.
    pub angle: f64,
    /// Up or down.
    pub direction: Direction,
    /// Inside radius, mm.
    pub radius: f64,
    /// Length along the bend line, mm.
    pub length: f64,
    /// Bend allowance, mm.
    pub allowance: f64,
    /// What is deducted from the two outside legs, mm.
    pub deduction: f64,
    /// K-factor that the allowance amounts to.
    pub k_factor: f64,
    /// The working of the allowance.
    pub why: Why,
}

/// Everything that follows from a piece.
pub struct Outcome {
    /// Text to numbers.
    pub resolved: Resolved,
    /// The part; `None` when nothing could be built.
    pub part: Option<Part>,
    /// The mesh at the fold asked for.
    pub mesh: Mesh,
    /// Figures of the part.
    pub figures: Option<Figures>,
    /// Bends.
    pub bends: Vec<BendReport>,
    /// Call-outs measured back.
    pub callouts: Vec<CallOutProof>,
    /// How each rule stands.
    pub rules: Vec<RuleOutcome>,
    /// Where rules are broken.
    pub breaches: Vec<Breach>,
    /// Errors, warnings and hints.
    pub findings: Vec<Finding>,
    /// What became of each operation.
    pub states: Vec<OperationState>,
    /// Cautions to print with the part.
    pub cautions: Vec<String>,
    /// Figures found twice, by ways that share no code.
    pub audit: Audit,
    /// What a frame has; `None` for a plate or sheet part.
    pub frame: Option<super::FrameOutcome>,
}

/// Everything of a frame.
#[derive(Clone, Debug, Default)]
pub struct FrameOutcome {
    /// The frame with its cut list.
    pub made: FrameMade,
    /// Members that share space.
    pub clashes: Vec<MemberClash>,
    /// Plates that run into members or other plates.
    pub plate_clashes: Vec<PlateClash>,
    /// Welds.
    pub welds: Vec<Weld>,
    /// What is to be cut from bars, by section and material.
    pub bars: Vec<BarGroup>,
    /// What the saw's angle is set to, radians.
    pub saw_step: f64,
    /// Pieces further apart than this are not welded, mm.
    pub weld_gap: f64,
}

/// Pieces of one section and material.
#[derive(Clone, Debug, PartialEq)]
pub struct BarGroup {
    /// Section.
    pub section: String,
    /// Material.
    pub material: String,
    /// Mass of a metre, kg/m.
    pub mass_per_metre: f64,
    /// What is to be cut from what.
    pub problem: BarProblem,
}
