//! Operations made again.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, OperationName, PanelName};

/// Flanges, hems and cuts made again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainAction {
    /// The operations, in order. What each makes is called `THIS.operation`.
    pub of: Vec<OperationName>,
    /// How.
    pub how: AgainHow,
}

/// How work is made again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AgainHow {
    /// Across a centre line of a panel as it was laid down.
    Mirror(AgainMirror),
    /// Moved along the blank.
    Shift(AgainShift),
}

/// A mirror in the flat.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainMirror {
    /// The panel whose centre line it is.
    pub panel: PanelName,
    /// To the other side along the blank's x, or along its y.
    #[serde(default)]
    pub along: AgainAlong,
}

/// Directions of the blank.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum AgainAlong {
    #[default]
    X,
    Y,
}

/// Moved along the blank.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainShift {
    /// How many in all, the first included.
    pub count: Expr,
    /// From each to the next along the blank's x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<Expr>,
    /// From each to the next along the blank's y; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<Expr>,
}
