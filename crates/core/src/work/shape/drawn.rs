//! An outline by its corners and what the drawing says of them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

use super::Underlay;

/// A rough shape and the drawing's numbers on it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Drawn {
    /// The corners in order; each begins an edge that runs to the next corner.
    pub corners: Vec<DrawnCorner>,
    /// Circles: holes, or helpers.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub circles: Vec<DrawnCircle>,
    /// Straight helper lines, for symmetry and centre lines.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub guides: Vec<DrawnGuide>,
    /// What the drawing says, in its order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub says: Vec<Saying>,
    /// The picture that it is traced from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub underlay: Option<Underlay>,
}

/// A corner of a rough shape. Its place is where it was clicked: only a start for the solver, never a dimension.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnCorner {
    /// Its name: `p1`.
    pub name: String,
    /// Rough place across.
    pub x: f64,
    /// Rough place up.
    pub y: f64,
    /// Name of the edge that begins here: `e1`.
    pub edge: String,
    /// Of a round edge: the rough tangent of a quarter of its sweep, positive to the left. Its centre is named after
    /// the edge: `e1.centre`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bulge: Option<f64>,
}

/// A circle of a rough shape; its centre is named after it: `c1.centre`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnCircle {
    /// Its name: `c1`.
    pub name: String,
    /// Rough place of its centre across.
    pub x: f64,
    /// Rough place of its centre up.
    pub y: f64,
    /// Rough radius.
    pub radius: f64,
    /// Whether it is cut; a helper otherwise.
    #[serde(default)]
    pub cut: bool,
}

/// A helper line; its ends are named after it: `g1.start`, `g1.end`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct DrawnGuide {
    pub name: String,
    pub x1: f64,
    pub y1: f64,
    pub x2: f64,
    pub y2: f64,
}

/// One thing that the drawing says of a rough shape. `of` names points (`p1`), edges (`e1`), circles (`c1`), guides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Saying {
    /// What is said.
    pub what: SayingKind,
    /// What it is said of.
    pub of: Vec<String>,
    /// Its number, for those that carry one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub value: Option<Expr>,
}

/// What can be said.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SayingKind {
    /// Length of an edge, or distance between two points, or from a point to an edge, or between circles' centres.
    Length,
    /// Distance along x between two points, or of an edge.
    Across,
    /// Distance along y between two points, or of an edge.
    Up,
    /// Angle between two edges.
    Angle,
    /// Radius of a round edge or circle.
    Radius,
    /// Diameter of a circle or round edge.
    Diameter,
    /// Between two circles, edge to edge.
    Gap,
    /// Two edges of one length, or two circles of one radius.
    Equal,
    /// Two edges side by side.
    Parallel,
    /// Two edges square to each other.
    Square,
    /// An edge along x.
    Level,
    /// An edge along y.
    Upright,
    /// An edge and a circle, or two circles, touching.
    Tangent,
    /// Two circles about one centre.
    Concentric,
    /// Two edges on one line.
    Collinear,
    /// A point on an edge's line.
    On,
    /// A point in the middle of an edge.
    Middle,
    /// Two points mirrored in an edge or guide.
    Symmetric,
}
