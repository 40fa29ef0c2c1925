//! Operations as people write them: every value is text with its unit, read later against the call-outs.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One step of the work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Operation {
    /// Stable name: the panel or hole it makes is called by it. Small letters, digits, `-` and `_`.
    pub name: String,
    /// Rested: kept in the list but left out of the build.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub rested: bool,
    /// What is done.
    #[serde(rename = "do")]
    pub action: Action,
}

/// The verbs of sheet work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Action {
    /// Lay down the base panel.
    LayDown(LayDown),
    /// Bend a flange along an edge.
    Bend(BendAction),
    /// Drill round holes.
    Drill(DrillAction),
    /// Cut rectangular holes.
    Cut(CutAction),
}

/// Lay down the panel that stays put.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LayDown {
    /// Its shape.
    pub shape: BaseShape,
}

/// Shapes of a base panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BaseShape {
    /// A rectangle with edges `front`, `right`, `back`, `left`; x runs along the front.
    Rectangle(Rectangle),
}

/// A rectangle's sizes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rectangle {
    /// Along the front, a length.
    pub width: String,
    /// From front to back, a length.
    pub depth: String,
}

/// Bend a flange along a straight edge.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendAction {
    /// The edge, such as `base.back`.
    pub edge: String,
    /// How far the sheet is turned from flat: above 0 and below 180 deg.
    pub angle: String,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Leg length.
    pub leg: String,
    /// What the leg is measured to.
    #[serde(default)]
    pub leg_to: LegTo,
    /// Where the bend sits relative to the edge.
    #[serde(default)]
    pub position: BendPosition,
    /// Inside radius; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<String>,
    /// How far the flange stands in from an end of the edge, by the name of the side (`left`, `right`, ...).
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_in: BTreeMap<String, String>,
    /// Relief where the bend's end meets material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<Relief>,
    /// How the blank is computed for this bend; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
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
    pub width: Option<String>,
    /// How far it goes past the bend's tangent line; R + T where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<String>,
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

/// How a bend's flat length is found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Method {
    /// Neutral axis at this fraction of the thickness from the inside face, from 0 to 0.5 (up to 1 is read).
    KFactor(String),
    /// Flat length of the bend itself. For a piece: of a 90 deg bend at the piece's radius.
    Allowance(String),
    /// What is taken off the sum of the two outside legs. For a piece: of a 90 deg bend at the piece's radius.
    Deduction(String),
    /// DIN 6935's correction for cold-bent flat steel.
    Din6935,
}

/// Drill round holes in a panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrillAction {
    /// The panel.
    pub panel: String,
    /// Diameter.
    pub diameter: String,
    /// Where.
    #[serde(default)]
    pub place: Place,
    /// Several off: each entry repeats all before it, so two entries make a grid.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub repeat: Vec<Repeat>,
}

/// Cut rectangular holes in a panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutAction {
    /// The panel.
    pub panel: String,
    /// Along the first edge it is placed from (along the blank's x where placed by the centre).
    pub width: String,
    /// Square to the width.
    pub height: String,
    /// Corner radius; sharp where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<String>,
    /// Where.
    #[serde(default)]
    pub place: Place,
    /// Several off; see [`DrillAction::repeat`].
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub repeat: Vec<Repeat>,
}

/// Where a hole's centre goes: from no edge (the panel's centre), one edge (and on the centre line square to it) or two.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// Distances from edges or from a bend's mould lines.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub from: Vec<FromEdge>,
}

/// A distance from a line, into the panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromEdge {
    /// An edge of the panel (`base.left`), or a line of a bend on it (`upright.mould-outside`, `upright.mould-inside`,
    /// `upright.tangent`).
    pub edge: String,
    /// Distance, a length.
    pub distance: String,
}

/// Several off at a spacing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Repeat {
    /// How many in all.
    pub count: String,
    /// Centre to centre.
    pub spacing: String,
    /// The edge that the row runs along; where left out, along the edge that the hole is placed from (first entry) or
    /// square to it (second entry).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<String>,
}
