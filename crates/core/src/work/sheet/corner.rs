//! Corners of a panel.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, PanelName};

/// Round, clip or notch corners of a panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CornerAction {
    /// The panel.
    pub panel: PanelName,
    /// The corners, each by its two edges: `front/right`; every corner between free edges where left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub at: Vec<String>,
    /// What is done to each.
    pub shape: CornerShape,
}

/// What is done to a corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CornerShape {
    /// An arc of this radius that touches both edges.
    Round(Expr),
    /// A straight cut.
    Chamfer(Chamfer),
    /// A rectangle cut out.
    Notch(Notch),
    /// The edge between two corners made a half circle: `at` names the edge once.
    FullRound,
}

/// A straight cut across a corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chamfer {
    /// What it takes off the first edge.
    pub leg: Expr,
    /// What it takes off the second; as much as off the first where neither this nor an angle is given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub other: Option<Expr>,
    /// Its angle to the first edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
}

/// A rectangle cut out of a square corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Notch {
    /// Along the first edge.
    pub width: Expr,
    /// Along the second edge.
    pub depth: Expr,
    /// Radius of its inner corner; sharp where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<Expr>,
}
