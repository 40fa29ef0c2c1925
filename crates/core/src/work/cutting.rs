//! How the piece is cut.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

/// How a piece is cut; every field may be left out.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Cutting {
    /// Name of a cutter in the shop's table; the first that reaches the thickness where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutter: Option<String>,
    /// Quality, by the name that rows of the cutter give it; its usual one where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quality: Option<String>,
    /// Shape of leads.
    #[serde(default, skip_serializing_if = "LeadShape::is_arc")]
    pub lead: LeadShape,
    /// Length of lead-ins, as far as the waste allows; by kerf and thickness where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_in: Option<Expr>,
    /// Length of lead-outs; half the lead-in where left out, 0 for none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_out: Option<Expr>,
    /// Tabs that hold the part in the sheet; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tabs: Option<Tabs>,
    /// What becomes of round holes below the cutter's least hole.
    #[serde(default, skip_serializing_if = "SmallHoles::is_drill")]
    pub small_holes: SmallHoles,
    /// Stock left around the blank; room for the leads where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub margin: Option<Expr>,
}

/// Shape of a lead.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LeadShape {
    /// A quarter circle that runs into the contour.
    #[default]
    Arc,
    /// A straight line square to the contour.
    Line,
}

impl LeadShape {
    fn is_arc(&self) -> bool {
        *self == LeadShape::Arc
    }
}

/// Tabs on the outside.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tabs {
    /// How many.
    pub count: Expr,
    /// Width of the metal left, a length.
    pub width: Expr,
}

/// What becomes of round holes below the cutter's least hole; others are always refused.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SmallHoles {
    /// Marked, and left to the drill press.
    #[default]
    Drill,
    /// The program is refused.
    Refuse,
}

impl SmallHoles {
    fn is_drill(&self) -> bool {
        *self == SmallHoles::Drill
    }
}
