//! What a kind's pipeline hands back.

use crate::audit::Audit;
use crate::finding::Finding;
use crate::piece::made::Made;
use crate::piece::resolved::Resolved;
use crate::piece::{Options, Piece};
use crate::proof::{Breach, RuleOutcome};
use crate::quantity::LengthUnit;
use crate::space::Mesh;

/// How far a chord of the mesh may stray from its arc, mm: a twentieth of what the eye sees at full size.
pub(in crate::piece) const MESH_TOLERANCE: f64 = 0.05;

/// What a kind's pipeline is given.
pub(in crate::piece) struct Asked<'a> {
    /// The document.
    pub piece: &'a Piece,
    /// In numbers; bad operations are marked in it.
    pub resolved: &'a mut Resolved,
    /// What to evaluate.
    pub options: Options<'a>,
    /// The unit that is printed.
    pub show: LengthUnit,
}

impl Asked<'_> {
    /// The unit that acceptances are held against, where it is not the one that is printed.
    pub fn own_unit(&self) -> Option<LengthUnit> {
        (self.show != self.piece.unit).then_some(self.piece.unit)
    }
}

/// What is said in the piece's own unit, beside what is said in another: the same rules of the same part, in the same order.
pub(in crate::piece) fn said_so(breaches: &mut [Breach], own: Vec<Breach>) {
    for (breach, own) in breaches.iter_mut().zip(own) {
        breach.said = Some(own.message);
    }
}

/// What was made of a piece, before its call-outs are held against it.
#[derive(Default)]
pub(in crate::piece) struct Shaped {
    /// The geometry; `None` when nothing could be built.
    pub made: Option<Made>,
    /// The mesh at the fold asked for.
    pub mesh: Mesh,
    /// How each rule stands.
    pub rules: Vec<RuleOutcome>,
    /// Where rules are broken.
    pub breaches: Vec<Breach>,
    /// What is wrong, after what reading found.
    pub findings: Vec<Finding>,
    /// Cautions to print with the part.
    pub cautions: Vec<String>,
    /// Figures found twice.
    pub audit: Audit,
}
