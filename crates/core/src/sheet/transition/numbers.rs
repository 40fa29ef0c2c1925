//! A transition in numbers.

use crate::finding::Finding;
use crate::plane::Point;
use crate::sheet::numbers::MethodNumbers;
use crate::sheet::shape::Laid;
use crate::work::sheet::{Diagonal, SeamAs, SurfaceFace, TabHeld, TransitionCorners, TransitionJoint, TransitionSaid};

/// A transition in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct TransitionNumbers {
    /// By elevations the rear profile is the lower outline and the front one the upper: the whole is then turned on its back.
    pub said: TransitionSaid,
    /// The lower outline and where its middle is taken.
    pub lower: (Laid, Point),
    pub upper: (Laid, Point),
    /// Whether a point stands for the upper outline.
    pub apex: bool,
    pub height: f64,
    /// How the middles of the lower and the upper outline are shifted, mm.
    pub shifts: [(f64, f64); 2],
    pub turn: f64,
    /// About the line along x, about the line along y.
    pub tilt: (f64, f64),
    /// Of the upper outline's corners; empty where it is plane by its tilt.
    pub heights: Vec<f64>,
    pub not_plane: bool,
    /// Planes that the walls are cut off by, at the lower and at the upper end.
    pub rims: [Option<RimPlane>; 2],
    /// Corners by the edges that begin there: of the lower, of the upper outline.
    pub ways: Vec<[String; 2]>,
    /// Lengths of collars at the lower and at the upper end.
    pub collars: [Option<f64>; 2],
    /// Whether the lower and the upper outline's own face is a panel.
    pub closed: [bool; 2],
    pub flanges: Vec<RimFlangeNumbers>,
    pub tabs: Vec<EdgeTabNumbers>,
    /// What is worth knowing of how the outlines were found.
    pub notes: Vec<Finding>,
    pub sizes: SurfaceFace,
    pub other_side: Vec<String>,
    pub corners: TransitionCorners,
    /// Pairs of panels with what becomes of the edge between them, and which of the two owns the corner (0 or 1).
    pub edges: Vec<EdgeNumbers>,
    pub without: Vec<String>,
    /// Flats a quarter of a round.
    pub lines: usize,
    pub crease: Diagonal,
    pub gap: f64,
    pub seam: SeamAs,
    pub radius: f64,
    /// Whether the inside radius is the transition's own.
    pub radius_told: bool,
    pub method: MethodNumbers,
}

/// A plane that walls are cut off by: from the outline's own plane at its middle toward the other end, mm, and tilts, radians.
#[derive(Clone, Copy, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct RimPlane {
    pub height: f64,
    pub tilt: (f64, f64),
}

/// An edge between two panels that says its own.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct EdgeNumbers {
    pub between: [String; 2],
    pub joint: TransitionJoint,
    /// Which of the two goes through where they are apart.
    pub owner: Option<usize>,
}

/// Flanges along a rim: mm, less than zero inward.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct RimFlangeNumbers {
    pub end: usize,
    /// The panel that is left out, where the opening is its place instead of an end.
    pub opening: Option<String>,
    pub along: Vec<String>,
    pub width: f64,
    pub lies: FlangeLies,
    pub full: bool,
}

/// Tabs along edges: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct EdgeTabNumbers {
    /// The panel that has it and what is beside it at the edge.
    pub along: Vec<[String; 2]>,
    pub width: f64,
    pub clip: f64,
    /// Toward the inside; `None` where it lies on what is beside it.
    pub angle: Option<f64>,
    pub held: TabHeld,
}

/// The plane that a rim flange lies in.
#[derive(Clone, Debug, PartialEq)]
pub enum FlangeLies {
    /// The rim's own.
    InRim,
    /// Turned from its wall by this bend angle, radians.
    Bent(f64),
    /// Parallel to this panel.
    Parallel(String),
}
