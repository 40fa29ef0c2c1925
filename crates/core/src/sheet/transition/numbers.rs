//! A transition in numbers.

use crate::sheet::numbers::MethodNumbers;
use crate::sheet::shape::Laid;
use crate::work::sheet::{Diagonal, SeamAs, SurfaceFace, TransitionCorners, TransitionJoint};

/// A transition in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct TransitionNumbers {
    pub lower: Laid,
    pub upper: Laid,
    pub height: f64,
    pub offset: (f64, f64),
    pub turn: f64,
    /// About the line along x, about the line along y.
    pub tilt: (f64, f64),
    pub sizes: SurfaceFace,
    pub other_side: Vec<String>,
    pub corners: TransitionCorners,
    /// Pairs of panels with what becomes of the edge between them.
    pub edges: Vec<([String; 2], TransitionJoint)>,
    pub without: Vec<String>,
    /// Flats a quarter of a round.
    pub lines: usize,
    pub crease: Diagonal,
    pub gap: f64,
    pub seam: SeamAs,
    pub radius: f64,
    pub method: MethodNumbers,
}
