//! Two outlines at a height, joined by flat panels: hoppers, hoods, square-to-rounds.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;
use crate::work::shape::BaseShape;

use super::{Method, SeamAs};

/// Join two outlines by flat panels. Each panel is called `OPERATION.EDGE` by the edge of the lower outline that it stands on, or by
/// `up-` and the edge of the upper one where it stands on none; its own edges are `lower`, `upper` and `to-NEIGHBOUR`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionAction {
    /// The lower outline, on the plane z = 0, its middle at the origin.
    pub lower: BaseShape,
    /// The upper outline.
    pub upper: BaseShape,
    /// From the lower plane to the middle of the upper outline.
    pub height: Expr,
    /// How far the middle of the upper outline lies from over that of the lower one, along x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub offset_x: Option<Expr>,
    /// The same along y.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub offset_y: Option<Expr>,
    /// How the upper outline is turned about its middle, left positive seen from above.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// How it is tilted about the line along x through its middle: its back rises.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_x: Option<Expr>,
    /// How it is tilted about the line along y through its middle: its left rises.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_y: Option<Expr>,
    /// Which face of the sheets the outlines are of.
    #[serde(default)]
    pub sizes: SurfaceFace,
    /// Panels whose sheet lies on the other side of the surface: end plates outside, sides inside.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub other_side: Vec<String>,
    /// What becomes of the edges between panels, but for those that say their own.
    #[serde(default)]
    pub corners: TransitionCorners,
    /// Edges that say their own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub edges: Vec<TransitionEdge>,
    /// Panels that are left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub without: Vec<String>,
    /// How many flats a quarter of a round is made of; 4 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lines: Option<Expr>,
    /// Which diagonal a side that is not plane is creased along.
    #[serde(default)]
    pub crease: Diagonal,
    /// Between sheets at seams and rips; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
    /// How seams lie together and are welded.
    #[serde(default, skip_serializing_if = "SeamAs::is_usual")]
    pub seam: SeamAs,
    /// Inside radius of the bends; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// How the blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// Which face of the sheets lies on the surface between the outlines.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SurfaceFace {
    /// Outside sizes: the sheets lie within.
    #[default]
    Outside,
    /// Inside sizes: the sheets lie about it.
    Inside,
}

/// What becomes of the edges between panels.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TransitionCorners {
    /// All are bent but the last, which is a seam.
    #[default]
    Bent,
    /// All are seams: a sheet a panel.
    Seams,
}

/// An edge between two panels that says its own.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionEdge {
    /// The two panels, by their own names: `front/right`.
    pub between: String,
    /// What becomes of it.
    pub joint: TransitionJoint,
}

/// What becomes of an edge between two panels.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TransitionJoint {
    /// Bent.
    #[default]
    Bend,
    /// Cut apart and not joined.
    Rip,
    /// Cut apart and welded.
    Seam,
}

/// Which diagonal a side that is not plane is creased along.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Diagonal {
    /// The shorter.
    #[default]
    Shorter,
    /// From the lower left corner to the upper right one, seen from outside.
    Rising,
    /// From the upper left corner to the lower right one.
    Falling,
}
