//! Ready frames and copies.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, LineName};
use crate::work::measure::Axis;

use super::FramePlace;

/// A ready frame with its numbers.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadyAction {
    /// Which.
    pub kind: ReadyKind,
    /// Where its first corner or its middle lies.
    #[serde(default)]
    pub at: FramePlace,
    /// How a flat one lies.
    #[serde(default, skip_serializing_if = "Lies::is_flat")]
    pub lies: Lies,
    /// Its sizes by name.
    pub sizes: BTreeMap<String, Expr>,
    /// The section that its lines get at once; bare centre lines where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub section: Option<String>,
    /// What its sizes are measured to. To the outside needs a section.
    #[serde(default, skip_serializing_if = "SizesTo::is_lines")]
    pub sizes_to: SizesTo,
    /// How its members meet, where it has a section.
    #[serde(default, skip_serializing_if = "ReadyJoints::is_ring")]
    pub joints: ReadyJoints,
}

/// What the sizes of a ready frame are measured to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SizesTo {
    /// Its centre lines.
    #[default]
    Lines,
    /// The outsides of its members; a rail's height to its underside.
    Outside,
}

impl SizesTo {
    fn is_lines(&self) -> bool {
        *self == SizesTo::Lines
    }
}

/// How the members of a ready frame meet.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReadyJoints {
    /// Rings mitred, legs and posts under and between them, rails between the legs.
    #[default]
    MitredRing,
    /// Legs and posts run through, rings and rails between them; a ring alone is butted.
    LegsThrough,
    /// Left to other steps.
    Open,
}

impl ReadyJoints {
    fn is_ring(&self) -> bool {
        *self == ReadyJoints::MitredRing
    }
}

/// Ready frames.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReadyKind {
    /// Four lines: `width`, `depth`.
    Rectangle,
    /// Twelve lines: `width`, `depth`, `height`.
    Box,
    /// A top on four legs: `width`, `depth`, `height`; `rail` is the height of rails between the legs.
    Table,
    /// A beam on two pairs of spread legs: `length`, `spread`, `height`; `rail` is the height of the cross rails.
    Trestle,
    /// Two legs to a peak with a cross bar: `width`, `height`, `bar`.
    AFrame,
    /// Two level chords: `length`, `height`, `bays`.
    FlatTruss,
    /// Two slopes over a level tie: `span`, `rise`, `bays` on each side.
    PitchedTruss,
    /// Two rails with rungs: `length`, `width`, `rungs`, `first`.
    Ladder,
    /// Two stair stringers with treads: `rise`, `going`, `width`, `steps`.
    Stair,
}

/// How a flat frame lies.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Lies {
    /// On the floor: x and y.
    #[default]
    Flat,
    /// Standing across: x and z.
    Across,
    /// Standing lengthwise: y and z.
    Lengthwise,
}

impl Lies {
    fn is_flat(&self) -> bool {
        *self == Lies::Flat
    }
}

/// Skeleton, members and plates made again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CopyAction {
    /// The operations whose lines are made again; all lines so far where empty.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub of: Vec<LineName>,
    /// How.
    pub how: CopyHow,
}

/// How lines are made again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CopyHow {
    /// Mirrored about a plane square to an axis; lines that cross it straight become one.
    Mirror(MirrorPlane),
    /// Again at a spacing.
    Shift(ShiftCopies),
    /// Turned about an axis through a place.
    Turn(TurnCopies),
}

/// A plane square to an axis.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MirrorPlane {
    /// The axis that it stands square to.
    pub axis: Axis,
    /// Where on the axis; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Expr>,
}

/// Copies at a spacing.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ShiftCopies {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<Expr>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<Expr>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<Expr>,
    /// How many more.
    pub count: Expr,
}

/// Copies about an axis.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnCopies {
    /// Direction of the axis.
    pub axis: Axis,
    /// A place on it.
    #[serde(default)]
    pub about: FramePlace,
    /// Angle from one to the next.
    pub angle: Expr,
    /// How many more.
    pub count: Expr,
}
