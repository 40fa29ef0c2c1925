//! Holes in members.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, MemberName};

use super::MemberFace;

/// Holes through the walls of members: bolts, drains, vents.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BoreAction {
    /// Members.
    pub of: Vec<MemberName>,
    /// The face that it goes in through.
    pub face: MemberFace,
    /// Its diameter.
    pub diameter: Expr,
    /// From the long point of the start; from that of the finish where negative.
    pub at: Expr,
    /// Off the middle of the face, up or to the right of the section; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<Expr>,
    /// How many; one where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Expr>,
    /// From one to the next.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing: Option<Expr>,
    /// Through one wall only.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub one_wall: bool,
    /// What it is for.
    #[serde(default)]
    pub purpose: Purpose,
}

/// What a hole is for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Purpose {
    /// A bolt or anything else.
    #[default]
    Bolt,
    /// Lets water out.
    Drain,
    /// Lets air and zinc through.
    Vent,
}
