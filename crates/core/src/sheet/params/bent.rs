//! Bent work as people write it: profiles, rolled arcs, hems, joggles, creases, notches, tabs, and work made again.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::sheet::shape::RunLeg;

use super::{BendPosition, Direction, Method, Relief};

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
    pub width: String,
    /// Where the width lies.
    #[serde(default)]
    pub width_from: WidthFrom,
    /// The straight leg that stays put; the longest where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stays: Option<String>,
    /// Inside radius of its corners; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<String>,
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
    pub radius: String,
    /// What the radius, the arc and the chord are measured to.
    #[serde(default)]
    pub to: RollFace,
    /// How far it is rolled.
    pub span: RollSpan,
    /// Straight before the arc.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_in: Option<String>,
    /// Straight after the arc.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_out: Option<String>,
    /// How long the piece is, along the roll's axis.
    pub width: String,
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
    Angle(String),
    /// By the length of its arc, on the face that the radius is measured to.
    Arc(String),
    /// By its chord, on the face that the radius is measured to; up to half a turn.
    Chord(String),
    /// A whole tube, with this gap at its seam on the inside; 0 closes it.
    Tube(String),
}

/// Hem an edge.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemAction {
    /// The edge.
    pub edge: String,
    /// Its kind.
    pub style: HemStyle,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Where it sits relative to the edge: material inside keeps the overall size.
    #[serde(default)]
    pub position: BendPosition,
    /// How far it stands in from an end of the edge, by the name of the side.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_in: BTreeMap<String, String>,
    /// Relief where its end meets material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<Relief>,
    /// How its blank is computed; the piece's formula where left out (a measured table tells of bends, not of hems).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// Kinds of hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HemStyle {
    /// Pressed flat on the sheet.
    Closed(HemLength),
    /// Folded back with a gap.
    Open(OpenHem),
    /// Folded back past flat, its tip on the sheet.
    Teardrop(TeardropHem),
    /// Curled, with no straight.
    Rolled(RolledHem),
}

/// A length of hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemLength {
    /// Over all: from its fold's outside to its tip.
    pub length: String,
}

/// An open hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenHem {
    /// Over all: from its fold's outside to its tip.
    pub length: String,
    /// Between its face and the sheet's.
    pub gap: String,
}

/// A teardrop hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TeardropHem {
    /// Over all: from its fold's outside to its tip.
    pub length: String,
    /// Inside radius of its fold.
    pub radius: String,
}

/// A rolled hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RolledHem {
    /// Inside radius.
    pub radius: String,
    /// How far it is curled; 270 deg where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<String>,
}

/// Joggle an edge: two equal and opposite bends. The panel past them is called by the operation, the web between them
/// `OPERATION.web`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JoggleAction {
    /// The edge.
    pub edge: String,
    /// From a face before it to the same face past it.
    pub offset: String,
    /// Angle of both bends; 90 deg where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<String>,
    /// The leg past it, to the second bend's tangent line.
    pub leg: String,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Where its first bend sits relative to the edge.
    #[serde(default = "outside", skip_serializing_if = "is_outside")]
    pub position: BendPosition,
    /// Inside radius of both bends; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<String>,
    /// How far it stands in from an end of the edge, by the name of the side.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_in: BTreeMap<String, String>,
    /// Relief where its end meets material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<Relief>,
    /// How its blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

fn outside() -> BendPosition {
    BendPosition::BendOutside
}

fn is_outside(position: &BendPosition) -> bool {
    *position == BendPosition::BendOutside
}

/// Bend a panel along a line drawn on it. The part that moves becomes the panel called by the operation; edges wholly
/// on it keep their names, of edges that the line crosses the far part is called `OPERATION.edge`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CreaseAction {
    /// The panel.
    pub panel: String,
    /// The edge that the line is drawn from.
    pub edge: String,
    /// From the edge to the line, at the middle of the edge.
    pub distance: String,
    /// How the line is turned from the edge's own direction, left positive; along it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<String>,
    /// Which part moves.
    #[serde(default)]
    pub moves: CreaseSide,
    /// How far the sheet is turned from flat.
    pub angle: String,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Where the bend sits relative to the line.
    #[serde(default)]
    pub position: CreasePosition,
    /// Inside radius; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<String>,
    /// How its blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// Which part of a creased panel moves.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CreaseSide {
    /// The part toward the edge that the line is drawn from.
    #[default]
    Near,
    /// The part beyond the line.
    Far,
}

/// Where a bend sits relative to the line that it is drawn along.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CreasePosition {
    /// The line is the middle of the bend's flat.
    #[default]
    Centred,
    /// The moved part's outside face stands on the line.
    MaterialInside,
    /// The moved part's inside face stands on the line.
    MaterialOutside,
}

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

/// Flanges, hems and cuts made again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainAction {
    /// The operations, in order. What each makes is called `THIS.operation`.
    pub of: Vec<String>,
    /// How.
    pub how: AgainHow,
}

/// How work is made again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AgainHow {
    /// Across a centre line of a panel as it was laid down.
    Mirror(AgainMirror),
    /// Moved along the blank.
    Shift(AgainShift),
}

/// A mirror in the flat.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainMirror {
    /// The panel whose centre line it is.
    pub panel: String,
    /// To the other side along the blank's x, or along its y.
    #[serde(default)]
    pub along: AgainAlong,
}

/// Directions of the blank.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum AgainAlong {
    #[default]
    X,
    Y,
}

/// Moved along the blank.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainShift {
    /// How many in all, the first included.
    pub count: String,
    /// From each to the next along the blank's x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<String>,
    /// From each to the next along the blank's y; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<String>,
}
