//! Profiles seen from their end, and rolls.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;
use crate::work::shape::RunLeg;

use super::{Direction, Method};

/// Lay down a profile seen from its end, over a width. Its panels are called `OPERATION.leg`, its bends after the panel
/// farther from the one that stays.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ProfileAction {
    /// The legs in order. A sharp corner takes the bend radius, an arc becomes a bend of its own radius.
    pub legs: Vec<RunLeg>,
    /// What lengths and radii are measured to.
    #[serde(default)]
    pub sizes: ProfileSizes,
    /// How long the piece is, along its bends.
    pub width: Expr,
    /// Where the width lies.
    #[serde(default)]
    pub width_from: WidthFrom,
    /// The straight leg that stays put; the longest where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stays: Option<String>,
    /// Inside radius of its corners; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// How its blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// What a profile's lengths and radii are measured to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProfileSizes {
    /// To the outside of each bend (to its outermost tangent above 90 deg).
    #[default]
    Outside,
    /// To the inside of each bend (to its innermost tangent above 90 deg).
    Inside,
    /// Along the middle of the metal.
    Middle,
    /// The legs are one face: the metal lies to the left of the way along them.
    MetalLeft,
    /// The legs are one face: the metal lies to the right of the way along them.
    MetalRight,
}

/// Where a width lies.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WidthFrom {
    /// To one side of the origin.
    #[default]
    Side,
    /// Half to each side of it.
    Centre,
}

/// Roll an arc, with or without straight leads, or a whole tube. The arc is the bend `OPERATION`, its leads the panels
/// `OPERATION.lead-in` and `OPERATION.lead-out`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RollAction {
    /// Radius of the arc.
    pub radius: Expr,
    /// What the radius, the arc and the chord are measured to.
    #[serde(default)]
    pub to: RollFace,
    /// How far it is rolled.
    pub span: RollSpan,
    /// Straight before the arc.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_in: Option<Expr>,
    /// Straight after the arc.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_out: Option<Expr>,
    /// How long the piece is, along the roll's axis.
    pub width: Expr,
    /// Where the width lies.
    #[serde(default)]
    pub width_from: WidthFrom,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// How its blank is computed; by the middle of the metal (K 0.5) where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// What a rolled arc is measured to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum RollFace {
    #[default]
    Inside,
    Middle,
    Outside,
}

/// How far an arc is rolled.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RollSpan {
    /// By its angle.
    Angle(Expr),
    /// By the length of its arc, on the face that the radius is measured to.
    Arc(Expr),
    /// By its chord, on the face that the radius is measured to; up to half a turn.
    Chord(Expr),
    /// A whole tube, with this gap at its seam on the inside; 0 closes it.
    Tube(Expr),
}
