//! Flanges: which edge, how far, how long, how their ends and corners are treated.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{EdgeName, Expr, FeatureName, PanelName};

use super::Method;

/// Bend a flange along a straight edge, or one along each of several.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendAction {
    /// The edge, such as `base.back`.
    pub edge: EdgeName,
    /// Further edges that are bent alike in the same operation; the flanges are then called `OPERATION.edge`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<EdgeName>,
    /// Edges whose flange has an angle or a leg of its own.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub own: BTreeMap<EdgeName, OwnFlange>,
    /// How the corners between flanges of this operation are made.
    #[serde(default, skip_serializing_if = "Corners::is_open")]
    pub corners: Corners,
    /// How far the sheet is turned from flat: above 0 and to 180 deg. Empty where `stands` says it.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub angle: Expr,
    /// What the angle is.
    #[serde(default, skip_serializing_if = "AngleIs::is_bend")]
    pub angle_is: AngleIs,
    /// The angle by another panel instead of a number.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stands: Option<Stands>,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Leg length. Empty where `up_to` says it.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub leg: Expr,
    /// What the leg is measured to.
    #[serde(default)]
    pub leg_to: LegTo,
    /// The leg as far as something of the folded part, instead of a number.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up_to: Option<UpTo>,
    /// Where the bend sits relative to the edge.
    #[serde(default)]
    pub position: BendPosition,
    /// Inside radius; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// How far the flange stands in from an end of the edge, by the name of the side (`left`, `right`, ...).
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_in: BTreeMap<String, Expr>,
    /// Relief where the bend's end meets material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<Relief>,
    /// How the blank is computed for this bend; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// What one flange of several has of its own.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnFlange {
    /// Its angle, as the operation's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
    /// Its leg, as the operation's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub leg: Option<Expr>,
}

/// What a bend's angle is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AngleIs {
    /// How far the sheet is turned from flat.
    #[default]
    Bend,
    /// Between the two panels: 180 deg less the bend angle.
    Included,
}

impl AngleIs {
    fn is_bend(&self) -> bool {
        *self == AngleIs::Bend
    }
}

/// A flange's angle by another panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// Parallel to this panel.
    Parallel(PanelName),
    /// Square to this panel.
    Square(PanelName),
}

/// A leg as far as something of the folded part.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UpTo {
    /// A face (`lid.bottom`), an edge (`wall.end`) or a corner (`wall.end/left`).
    pub feature: FeatureName,
    /// Left free before it; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
}

/// How the corners between flanges of one operation are made.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Corners {
    /// Each flange ends where its neighbour's bend begins.
    Open(OpenCorner),
    /// Ends square to the bend, brought up to the plane between the two.
    Closed(CornerGap),
    /// The flange named earlier runs over the end of the other.
    Overlapped(CornerGap),
    /// Cut along the plane that bisects the two.
    Mitred(CornerGap),
}

impl Default for Corners {
    fn default() -> Self {
        Corners::Open(OpenCorner::default())
    }
}

impl Corners {
    fn is_open(&self) -> bool {
        *self == Corners::default()
    }
}

/// An open corner.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenCorner {
    /// Relief where the two bends meet; a plain tear where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<CornerRelief>,
}

/// A corner with a gap.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CornerGap {
    /// Between the two flanges, to weld.
    pub gap: Expr,
    /// Relief where the two bends meet; a plain tear where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<CornerRelief>,
}

/// Relief where two bends meet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CornerRelief {
    /// A square of this side about the place where the tangent lines cross.
    Square(Expr),
    /// A circle of this diameter about it.
    Round(Expr),
}

/// Which way a flange goes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Direction {
    #[default]
    Up,
    Down,
}

impl Direction {
    /// The word for it.
    pub fn word(self) -> &'static str {
        match self {
            Direction::Up => "up",
            Direction::Down => "down",
        }
    }
}

/// What a leg is measured to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LegTo {
    /// The neighbour's outside face; above 90 deg the outermost tangent of the bend (setback R + T).
    #[default]
    Outside,
    /// The neighbour's inside face; above 90 deg the innermost tangent (setback R).
    Inside,
    /// The outside mould line at every angle (setback (R + T) tan(A/2)).
    Mould,
    /// The bend's tangent line: the straight length itself.
    Tangent,
}

/// Where a bend sits relative to the edge it is laid along.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BendPosition {
    /// The flange's outside face stands on the edge: the overall size stays.
    #[default]
    MaterialInside,
    /// The flange's inside face stands on the edge.
    MaterialOutside,
    /// The bend begins at the edge: the panel keeps its whole flat.
    BendOutside,
}

/// Relief cut at a bend's end.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Relief {
    /// Its shape.
    #[serde(default)]
    pub shape: ReliefShape,
    /// Its width; T (1 mm at least) where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Expr>,
    /// How far it goes past the bend's tangent line; R + T where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Expr>,
}

/// Shapes of relief.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReliefShape {
    /// Square bottom.
    #[default]
    Rectangular,
    /// Round bottom.
    Obround,
}
