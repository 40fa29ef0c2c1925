//! An end cut in its own way.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, MemberName};
use crate::work::measure::Axis;

use super::{MemberFace, WhichEnd};

/// An end of members that is cut in its own way.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EndAction {
    /// Members, by name or pattern.
    pub of: Vec<MemberName>,
    /// Which end.
    #[serde(default)]
    pub at: WhichEnd,
    /// How.
    pub how: EndHow,
}

/// How an end is cut.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EndHow {
    /// Shortened to other members: to their near face, or coped on round ones. It never grows.
    Trim(TrimTo),
    /// Made longer or shorter to a member's face.
    Extend(TrimTo),
    /// Fitted into the outline of other members: a channel into a channel.
    Cope(CopeTo),
    /// Cut by a plane square to an axis.
    Plane(PlaneCut),
    /// Square, so much beyond the node (or before it, where negative).
    Square(Beyond),
    /// At an angle from square, and tilted where it is compound.
    Angle(AngleCut),
    /// Closed with a plate.
    Cap(CapPlate),
}

/// What an end is cut to.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrimTo {
    /// Members; every one of them cuts.
    pub to: Vec<MemberName>,
    /// Room left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
    /// Goes on to their far face instead of the near one.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub far: bool,
    /// Keeps what lies beyond them and takes away the rest of the member, up to its other end.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub beyond: bool,
}

/// What an end is fitted into.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CopeTo {
    /// Members.
    pub to: Vec<MemberName>,
    /// Room left all along the outline.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
}

/// A plane square to an axis that cuts an end.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaneCut {
    /// The axis.
    pub axis: Axis,
    /// Where on it; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Expr>,
    /// Keeps what lies beyond it and takes away the rest of the member, up to its other end.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub beyond: bool,
    /// Makes the end longer too, where the plane lies beyond it; it takes the place of other cuts of the end. Without it a
    /// plane only shortens, and several planes make a point.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub grows: bool,
}

/// So much beyond the node.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Beyond {
    /// A length; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<Expr>,
}

/// A free angle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AngleCut {
    /// From square, turned about the section's up.
    pub angle: Expr,
    /// From square, turned about the section's across; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt: Option<Expr>,
}

/// An end cap.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CapPlate {
    /// Its thickness.
    pub thickness: Expr,
    /// Inside the tube with a clearance all round; over its end where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inset: Option<Expr>,
}

/// A notch that takes one side of a section off over a length, or a slot for a plate.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotchEndAction {
    /// Members.
    pub of: Vec<MemberName>,
    /// Which end.
    #[serde(default)]
    pub at: WhichEnd,
    /// The face that it is taken from: all metal from there to `depth` goes.
    pub face: MemberFace,
    /// How deep from that face; right through where left out, which only a slot may.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Expr>,
    /// How far along from the end.
    pub length: Expr,
    /// A slot of this width instead of a notch over the whole face.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Expr>,
    /// The middle of the slot off the middle of the face, up or to the right.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<Expr>,
}
