//! A bend along a line drawn on a panel.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{EdgeName, Expr, PanelName};

use super::{Direction, Method};

/// Bend a panel along a line drawn on it. The part that moves becomes the panel called by the operation; edges wholly
/// on it keep their names, of edges that the line crosses the far part is called `OPERATION.edge`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CreaseAction {
    /// The panel.
    pub panel: PanelName,
    /// The edge that the line is drawn from.
    pub edge: EdgeName,
    /// From the edge to the line, at the middle of the edge.
    pub distance: Expr,
    /// How the line is turned from the edge's own direction, left positive; along it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// Which part moves.
    #[serde(default)]
    pub moves: CreaseSide,
    /// How far the sheet is turned from flat.
    pub angle: Expr,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Where the bend sits relative to the line.
    #[serde(default)]
    pub position: CreasePosition,
    /// Inside radius; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// How its blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// Which part of a creased panel moves.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CreaseSide {
    /// The part toward the edge that the line is drawn from.
    #[default]
    Near,
    /// The part beyond the line.
    Far,
}

/// Where a bend sits relative to the line that it is drawn along.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CreasePosition {
    /// The line is the middle of the bend's flat.
    #[default]
    Centred,
    /// The moved part's outside face stands on the line.
    MaterialInside,
    /// The moved part's inside face stands on the line.
    MaterialOutside,
}
