//! Shapes by their legs, one after the other.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

/// A chain of legs.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Run {
    /// The legs in order, the first from the origin along x unless it says otherwise.
    pub legs: Vec<RunLeg>,
    /// A straight leg from the last end to the first start closes it, under the name `close`.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub close: bool,
    /// Left open: a profile seen from its end, its metal along the legs. `close` means nothing then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub open: Option<OpenRun>,
}

/// The metal of an open run. Its edges are named after the legs on the right of the way, `NAME-left` on the left of it,
/// and `start` and `end`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenRun {
    /// How thick it is: `T`, or any length.
    pub thickness: Expr,
    /// Where the metal lies as one walks along the legs.
    #[serde(default)]
    pub side: RunSide,
}

/// Where the metal of an open run lies.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RunSide {
    /// To the left: the legs are the right-hand face.
    #[default]
    Left,
    /// To the right: the legs are the left-hand face.
    Right,
    /// Half to each side: the legs are the middle.
    Middle,
}

/// One leg of a run.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RunLeg {
    /// Straight.
    Line(RunLine),
    /// Round, touching the leg before it.
    Arc(RunArc),
    /// Round, through a point.
    ArcThrough(RunArcThrough),
}

/// A straight leg.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RunLine {
    /// How long.
    pub length: Expr,
    /// Direction from x, counter-clockwise; goes on straight where neither this nor a turn is given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub direction: Option<Expr>,
    /// Turn from the leg before it: left is positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// Name of its edge; `leg-1`, `leg-2` and so on where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}

/// A round leg by radius and sweep.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RunArc {
    /// Radius of the edge.
    pub radius: Expr,
    /// How far it turns: left is positive.
    pub sweep: Expr,
    /// A turn before it begins; it touches the leg before it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// Name of its edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}

/// A round leg through a point; both places are from the leg's start.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct RunArcThrough {
    pub through_x: Expr,
    pub through_y: Expr,
    pub x: Expr,
    pub y: Expr,
    /// Name of its edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}
