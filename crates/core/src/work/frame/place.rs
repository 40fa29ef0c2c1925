//! Places of a frame, and lines from them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, LineName, NodeName};

/// A place: coordinates, or offsets from a node.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct FramePlace {
    /// The node that it is reckoned from; the origin where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from: Option<NodeName>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<Expr>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<Expr>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<Expr>,
}

/// One node.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NodeAction {
    /// At a place.
    At(FramePlace),
    /// On a line, at a distance from its start.
    On(OnLine),
    /// Where two lines meet, each given by two nodes and as long as needed.
    Meet(Meet),
}

/// A place on a line.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnLine {
    /// The line.
    pub line: LineName,
    /// Distance from its start; from its end where negative.
    pub distance: Expr,
}

/// Two lines by their nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Meet {
    /// Two nodes of the first line.
    pub one: [NodeName; 2],
    /// Two nodes of the second.
    pub two: [NodeName; 2],
}

/// Centre lines end to end.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PathAction {
    /// Where the first begins.
    pub start: FramePlace,
    /// The lines.
    pub legs: Vec<PathLeg>,
    /// Whether a straight line goes back to the start.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub close: bool,
}

/// One line of a path.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PathLeg {
    /// Straight by so much along each axis.
    By(ByLeg),
    /// Straight to a place.
    To(ToLeg),
    /// An arc to a place.
    Arc(ArcLeg),
}

impl PathLeg {
    /// The name of its line after the operation's, where it has one.
    pub fn name(&self) -> Option<&str> {
        match self {
            PathLeg::By(leg) => leg.name.as_deref(),
            PathLeg::To(leg) => leg.name.as_deref(),
            PathLeg::Arc(leg) => leg.name.as_deref(),
        }
    }
}

/// Straight by so much.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ByLeg {
    /// Name of the line after the operation's; its number where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<Expr>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<Expr>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<Expr>,
}

/// Straight to a place.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToLeg {
    /// Name of the line.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Where it ends.
    pub place: FramePlace,
}

/// An arc.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ArcLeg {
    /// Name of the line.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Where it ends.
    pub place: FramePlace,
    /// How it runs there.
    pub how: ArcHow,
}

/// How an arc runs between its ends.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ArcHow {
    /// Past a place.
    Through(FramePlace),
    /// With a radius, bulging toward a direction: the shorter arc.
    Radius(ArcRadius),
}

/// An arc's radius and side.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ArcRadius {
    /// Radius of the centre line.
    pub radius: Expr,
    /// The way it bulges.
    pub toward: Way,
}

/// A direction along an axis.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Way {
    Right,
    Left,
    Away,
    Toward,
    Up,
    Down,
}

/// Nodes that part a line evenly or at distances from its start.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DivideAction {
    /// The line.
    pub line: LineName,
    /// Into how many equal parts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub into: Option<Expr>,
    /// Distances from its start.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub at: Vec<Expr>,
}

/// A tangent arc between the two lines that meet in a node.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RoundAction {
    /// The node.
    pub node: NodeName,
    /// Radius of the centre line.
    pub radius: Expr,
}

/// Centre lines brought in from a file: `x y z, x y z` a line, `x y z, x y z, x y z` an arc from the first past the
/// second to the third.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LinesAction {
    /// Unit of the numbers.
    pub unit: crate::quantity::LengthUnit,
    /// The lines.
    pub lines: Vec<String>,
    /// Where they came from.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
}
