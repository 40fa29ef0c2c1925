//! Where holes go, and how often.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{EdgeName, Expr, HoleName};

/// Where a hole's centre goes: from no edge (the panel's centre), one edge (and on the centre line square to it) or two.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// Distances from edges or from a bend's mould lines.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub from: Vec<FromEdge>,
    /// From another hole's centre; not together with `from`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hole: Option<FromHole>,
    /// In the middle of a round edge; not together with the others.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub round: Option<InRound>,
}

/// In the middle of a round edge: at its centre, or on the line from there to the middle of the edge.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct InRound {
    /// A round edge of the panel.
    pub edge: EdgeName,
    /// From the middle of the edge towards its centre; at its centre where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub distance: Option<Expr>,
}

/// A distance from another hole of the same panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromHole {
    /// Its name: `bore`, `bolt.3`.
    pub hole: HoleName,
    /// Across, along the blank's x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<Expr>,
    /// Up, along the blank's y; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<Expr>,
}

/// A distance from a line, into the panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromEdge {
    /// An edge of the panel (`base.left`), or a line of a bend on it (`upright.mould-outside`, `upright.mould-inside`,
    /// `upright.tangent`).
    pub edge: EdgeName,
    /// Distance, a length.
    pub distance: Expr,
    /// What of the hole it is measured to.
    #[serde(default, skip_serializing_if = "HoleSide::is_centre")]
    pub to: HoleSide,
}

/// What of a hole a distance from an edge is measured to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HoleSide {
    /// Its centre.
    #[default]
    Centre,
    /// The side of it that is nearest to the edge.
    Near,
    /// The side that is farthest from it.
    Far,
}

impl HoleSide {
    fn is_centre(&self) -> bool {
        *self == HoleSide::Centre
    }
}

/// Several off at a spacing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Repeat {
    /// How many in all.
    pub count: Expr,
    /// From one to the next, as `spacing_is` says.
    pub spacing: Expr,
    /// What the spacing is measured between.
    #[serde(default, skip_serializing_if = "Spacing::is_centres")]
    pub spacing_is: Spacing,
    /// The edge that the row runs along; where left out, along the edge that the hole is placed from (first entry) or
    /// square to it (second entry).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<EdgeName>,
}

/// What a spacing is measured between.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Spacing {
    /// The centres.
    #[default]
    Centres,
    /// The sides that face each other: what is left clear.
    Clear,
}

impl Spacing {
    fn is_centres(&self) -> bool {
        *self == Spacing::Centres
    }
}

/// Across which centre lines of the panel holes are made again; what lies on one stays single.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Mirror {
    /// To the other side along the direction that they are placed along.
    Across,
    /// To the other side square to it.
    Up,
    /// Both: four of each.
    Both,
}

/// Several off in other ways than rows.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Pattern {
    /// Round a centre: the place is the circle's centre.
    Circle(CirclePattern),
    /// At given places from the first, each an x and a y along the panel.
    Points(Vec<PointPlace>),
    /// Along an edge at a distance from it.
    Along(AlongPattern),
    /// As many as fit the panel.
    Fill(FillPattern),
    /// At the four corners of a rectangular panel, as drawings say it: "4x 15 from the edges".
    Corners(CornersPattern),
    /// In rows and columns over a rectangular panel, the outermost at a distance from its edges.
    Between(BetweenPattern),
    /// Along the flange of a rim, from corner to corner of it.
    Rim(RimPattern),
}

/// Holes round a centre.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CirclePattern {
    /// How many.
    pub count: Expr,
    /// Diameter of the circle that they stand on.
    pub diameter: Expr,
    /// Where the first stands, counter-clockwise from x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub start: Option<Expr>,
    /// The arc that they share, both its ends holes; the whole circle where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sweep: Option<Expr>,
}

/// A place from the first.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct PointPlace {
    pub x: Expr,
    pub y: Expr,
}

/// Holes along an edge.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AlongPattern {
    /// The edge that the row runs along.
    pub edge: EdgeName,
    /// From the edge to the row.
    pub distance: Expr,
    /// How many holes; or `spaces`, or `pitch`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Expr>,
    /// How many equal spaces.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spaces: Option<Expr>,
    /// The most from hole to hole: as few equal spaces as keep within it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pitch: Option<Expr>,
    /// How far the first and the last hole stand in from the edge's ends; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inset: Option<Expr>,
    /// How far the last one stands in from the edge's other end, where that is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub last_inset: Option<Expr>,
    /// Whether the holes at the ends are made.
    #[serde(default = "yes", skip_serializing_if = "is_yes")]
    pub ends: bool,
}

fn yes() -> bool {
    true
}

fn is_yes(value: &bool) -> bool {
    *value
}

/// Holes at the corners of a panel. A side that is bent counts from the outside mould line of its bend.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CornersPattern {
    /// From the edges; where `other` is given from the left and the right one.
    pub distance: Expr,
    /// From the other two, where it is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub other: Option<Expr>,
}

/// Holes in rows and columns over a rectangular panel. A side that is bent counts from the outside mould line of its bend; a single
/// row or column stands in the middle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BetweenPattern {
    /// Along the front edge, or along the bend that the panel stands on.
    pub columns: Expr,
    /// Square to it.
    pub rows: Expr,
    /// From the edges; where `other` is given from the left and the right one.
    pub distance: Expr,
    /// From the other two, where it is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub other: Option<Expr>,
}

/// A row of holes along the flange of a rim, in equal spaces on its real length: from where it meets the row of the flange beside, to
/// where it does at the other end.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RimPattern {
    /// From the opening's edge, or from the flange's outer one.
    pub distance: Expr,
    /// Which of the two.
    #[serde(default, skip_serializing_if = "RimLine::is_opening")]
    pub from: RimLine,
    /// How many equal spaces; or `pitch`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spaces: Option<Expr>,
    /// The most from hole to hole: as few equal spaces as keep within it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pitch: Option<Expr>,
    /// What becomes of the holes at the corners.
    #[serde(default, skip_serializing_if = "RimCorners::is_none")]
    pub corners: RimCorners,
}

/// What a row on a rim flange is measured from.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RimLine {
    /// The edge of the opening.
    #[default]
    Opening,
    /// The flange's outer edge.
    Outer,
}

impl RimLine {
    fn is_opening(&self) -> bool {
        *self == RimLine::Opening
    }
}

/// What becomes of the holes at the corners of a rim.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RimCorners {
    /// There are none.
    #[default]
    None,
    /// Made in the flange that has the corner; refused where it lies in a joint.
    Made,
    /// Those that lie in a joint are drilled after welding, and are in no blank.
    AfterWelding,
}

impl RimCorners {
    fn is_none(&self) -> bool {
        *self == RimCorners::None
    }
}

/// Holes wherever they fit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FillPattern {
    /// How the rows stand to each other.
    #[serde(default)]
    pub rows: Stagger,
    /// Centre to centre.
    pub pitch: Expr,
    /// Material left between the outermost holes and the panel's edges.
    pub margin: Expr,
}

/// How the rows of a fill stand to each other.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stagger {
    /// In rows and columns.
    Square,
    /// Every other row half a pitch along, rows half a pitch apart: holes on 45 deg lines.
    Diagonal,
    /// Every other row half a pitch along, every neighbour a pitch away: holes on 60 deg lines.
    #[default]
    Hexagonal,
}
