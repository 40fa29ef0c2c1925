//! Notches on an edge, tabs and the slots that take them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Notch a straight edge: for welding, for air, for a neighbour.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotchAction {
    /// The edge.
    pub edge: String,
    /// Its shape.
    pub shape: NotchShape,
    /// From the edge's start to the middle of the first notch; the edge's middle where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
    /// How many; 1 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<String>,
    /// Centre to centre.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing: Option<String>,
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
    Round(String),
}

/// A notch's sizes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotchSizes {
    /// Along the edge.
    pub width: String,
    /// Into the panel.
    pub depth: String,
}

/// Tabs standing out of a straight edge, each the edge `OPERATION.1`, `OPERATION.2` and so on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TabAction {
    /// The edge.
    pub edge: String,
    /// Along the edge.
    pub width: String,
    /// Out of it.
    pub height: String,
    /// From the edge's start to the middle of the first; spread evenly where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
    /// How many; 1 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<String>,
    /// Centre to centre.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing: Option<String>,
}

/// Slots that tabs go through, where they stand in the folded part.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SlotsAction {
    /// The operation that made the tabs.
    pub tabs: String,
    /// The panel that they go through.
    pub panel: String,
    /// Left free all round each tab.
    pub clearance: String,
}
