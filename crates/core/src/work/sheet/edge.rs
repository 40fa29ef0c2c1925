//! Notches on an edge, tabs and the slots that take them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{EdgeName, Expr, OperationName, PanelName};

/// Notch a straight edge: for welding, for air, for a neighbour.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotchAction {
    /// The edge.
    pub edge: EdgeName,
    /// Its shape.
    pub shape: NotchShape,
    /// From the edge's start to the middle of the first notch; the edge's middle where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Expr>,
    /// How many; 1 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Expr>,
    /// Centre to centre.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing: Option<Expr>,
}

/// Shapes of a notch.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NotchShape {
    /// A rectangle.
    Square(NotchSizes),
    /// A triangle, its tip inside.
    Vee(NotchSizes),
    /// Half a circle of this radius.
    Round(Expr),
}

/// A notch's sizes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotchSizes {
    /// Along the edge.
    pub width: Expr,
    /// Into the panel.
    pub depth: Expr,
    /// Radius of its inner corners; sharp where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<Expr>,
}

/// Tabs standing out of a straight edge, each the edge `OPERATION.1`, `OPERATION.2` and so on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TabAction {
    /// The edge.
    pub edge: EdgeName,
    /// Along the edge.
    pub width: Expr,
    /// Out of it.
    pub height: Expr,
    /// From the edge's start to the middle of the first; spread evenly where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Expr>,
    /// How many; 1 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Expr>,
    /// Centre to centre.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing: Option<Expr>,
}

/// Slots that tabs go through, where they stand in the folded part.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SlotsAction {
    /// The operation that made the tabs.
    pub tabs: OperationName,
    /// The panel that they go through.
    pub panel: PanelName,
    /// Left free all round each tab.
    pub clearance: Expr,
}
