//! Shapes of plates as people write them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::underlay::Underlay;

/// A closed shape: of a base panel, of a hole, or one part of a combined shape.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BaseShape {
    /// A rectangle with edges `front`, `right`, `back`, `left`; x runs along the front.
    Rectangle(Rectangle),
    /// A disc with the edge `rim`.
    Circle(Circle),
    /// A disc with a hole in its middle: edge `rim`, hole `bore`.
    Ring(Ring),
    /// A strip with round ends: edges `front`, `right-end`, `back`, `left-end`.
    Obround(Obround),
    /// A regular polygon, `side-1` along the front.
    Polygon(Polygon),
    /// A triangle on its base: edges `base`, `right`, `left`.
    Triangle(Triangle),
    /// A gusset: two legs square to each other, `foot` and `upright`, a `slope` between them, its inner corner and its
    /// tips clipped where asked.
    Gusset(Gusset),
    /// A lug: a straight `foot`, a round `crown` about the hole, sides that touch the crown.
    Lug(Lug),
    /// A round body with ears about it, joined by lines that touch both circles.
    Eared(Eared),
    /// A chain of legs as the drawing gives them.
    Run(Run),
    /// A rough shape brought onto the drawing's numbers.
    Drawn(Drawn),
    /// Shapes put together, taken away, or what they share.
    Combined(Combined),
    /// An outline brought in from a file.
    Profile(Profile),
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

/// A disc.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Circle {
    pub diameter: String,
}

/// A ring.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ring {
    /// Outside diameter.
    pub outside: String,
    /// Inside diameter.
    pub inside: String,
}

/// A strip with round ends.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Obround {
    /// Over both round ends.
    pub length: String,
    /// Twice the end radius.
    pub width: String,
}

/// A regular polygon.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Polygon {
    /// How many sides, 3 to 360.
    pub sides: String,
    /// Its size.
    pub size: String,
    /// What the size is measured over.
    #[serde(default)]
    pub across: Across,
}

/// What a polygon's size is measured over: diameters of the circle inside or around it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Across {
    /// The circle that touches its sides.
    #[default]
    Flats,
    /// The circle through its corners.
    Corners,
}

/// A triangle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Triangle {
    /// Length of the base.
    pub base: String,
    /// From the base to the tip.
    pub height: String,
    /// How far along the base the tip stands, from its left end; 0 where left out: a right triangle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lean: Option<String>,
}

/// A gusset.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Gusset {
    /// Length of the foot.
    pub width: String,
    /// Length of the upright.
    pub height: String,
    /// Clip of the inner corner, for the weld: this much off both legs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<String>,
    /// Height of the blunt end at the foot's tip, square to the foot.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub toe: Option<String>,
    /// Width of the blunt end at the upright's tip, square to the upright.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tip: Option<String>,
}

/// A lug.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lug {
    /// Width of the foot.
    pub base: String,
    /// From the foot to the hole's centre.
    pub height: String,
    /// Radius of the crown about the hole.
    pub radius: String,
    /// Diameter of the hole; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hole: Option<String>,
}

/// A flange with ears.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Eared {
    /// Diameter of the round body.
    pub body: String,
    /// Diameter of the hole in its middle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bore: Option<String>,
    /// How many ears, 2 to 36; the first to the right.
    pub ears: String,
    /// Diameter of the circle that the ears' centres stand on.
    pub circle: String,
    /// Radius of an ear.
    pub ear_radius: String,
    /// Diameter of each ear's hole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hole: Option<String>,
}

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
    pub thickness: String,
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
    pub length: String,
    /// Direction from x, counter-clockwise; goes on straight where neither this nor a turn is given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub direction: Option<String>,
    /// Turn from the leg before it: left is positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<String>,
    /// Name of its edge; `leg-1`, `leg-2` and so on where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}

/// A round leg by radius and sweep.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RunArc {
    /// Radius of the edge.
    pub radius: String,
    /// How far it turns: left is positive.
    pub sweep: String,
    /// A turn before it begins; it touches the leg before it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<String>,
    /// Name of its edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}

/// A round leg through a point; both places are from the leg's start.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct RunArcThrough {
    pub through_x: String,
    pub through_y: String,
    pub x: String,
    pub y: String,
    /// Name of its edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}

/// A rough shape and the drawing's numbers on it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Drawn {
    /// The corners in order; each begins an edge that runs to the next corner.
    pub corners: Vec<DrawnCorner>,
    /// Circles: holes, or helpers.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub circles: Vec<DrawnCircle>,
    /// Straight helper lines, for symmetry and centre lines.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub guides: Vec<DrawnGuide>,
    /// What the drawing says, in its order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub says: Vec<Saying>,
    /// The picture that it is traced from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub underlay: Option<Underlay>,
}

/// A corner of a rough shape. Its place is where it was clicked: only a start for the solver, never a dimension.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnCorner {
    /// Its name: `p1`.
    pub name: String,
    /// Rough place across.
    pub x: f64,
    /// Rough place up.
    pub y: f64,
    /// Name of the edge that begins here: `e1`.
    pub edge: String,
    /// Of a round edge: the rough tangent of a quarter of its sweep, positive to the left. Its centre is named after
    /// the edge: `e1.centre`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bulge: Option<f64>,
}

/// A circle of a rough shape; its centre is named after it: `c1.centre`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnCircle {
    /// Its name: `c1`.
    pub name: String,
    /// Rough place of its centre across.
    pub x: f64,
    /// Rough place of its centre up.
    pub y: f64,
    /// Rough radius.
    pub radius: f64,
    /// Whether it is cut; a helper otherwise.
    #[serde(default)]
    pub cut: bool,
}

/// A helper line; its ends are named after it: `g1.start`, `g1.end`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct DrawnGuide {
    pub name: String,
    pub x1: f64,
    pub y1: f64,
    pub x2: f64,
    pub y2: f64,
}

/// One thing that the drawing says of a rough shape. `of` names points (`p1`), edges (`e1`), circles (`c1`), guides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Saying {
    /// What is said.
    pub what: SayingKind,
    /// What it is said of.
    pub of: Vec<String>,
    /// Its number, for those that carry one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub value: Option<String>,
}

/// What can be said.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SayingKind {
    /// Length of an edge, or distance between two points, or from a point to an edge, or between circles' centres.
    Length,
    /// Distance along x between two points, or of an edge.
    Across,
    /// Distance along y between two points, or of an edge.
    Up,
    /// Angle between two edges.
    Angle,
    /// Radius of a round edge or circle.
    Radius,
    /// Diameter of a circle or round edge.
    Diameter,
    /// Between two circles, edge to edge.
    Gap,
    /// Two edges of one length, or two circles of one radius.
    Equal,
    /// Two edges side by side.
    Parallel,
    /// Two edges square to each other.
    Square,
    /// An edge along x.
    Level,
    /// An edge along y.
    Upright,
    /// An edge and a circle, or two circles, touching.
    Tangent,
    /// Two circles about one centre.
    Concentric,
    /// Two edges on one line.
    Collinear,
    /// A point on an edge's line.
    On,
    /// A point in the middle of an edge.
    Middle,
    /// Two points mirrored in an edge or guide.
    Symmetric,
}

/// Shapes put together in order.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Combined {
    pub parts: Vec<CombinedPart>,
}

/// One part of a combined shape.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CombinedPart {
    /// What it does to the parts before it; the first is always laid.
    #[serde(default)]
    pub act: CombineAct,
    /// Its name, before the names of its edges: `body` makes `body-rim`.
    pub name: String,
    /// Its shape.
    #[schema(no_recursion)]
    pub shape: Box<BaseShape>,
    /// Where its corner or centre goes, across; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<String>,
    /// Where its corner or centre goes, up; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<String>,
    /// Which point of it is placed.
    #[serde(default)]
    pub by: PlacedBy,
    /// Turned about that point, left positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<String>,
}

/// What a part does to those before it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CombineAct {
    /// Joined on.
    #[default]
    Add,
    /// Taken away.
    Take,
    /// Only what both have is kept.
    Keep,
}

/// Which point of a shape is placed.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlacedBy {
    /// The lower left corner of its box.
    Corner,
    /// The middle of its box.
    #[default]
    Centre,
}

/// An outline from a file, as paths of `M x y`, `L x y`, `A bulge x y` and `Z` in the stated unit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Profile {
    /// Unit of the paths' numbers: `mm`, `in`.
    pub unit: crate::quantity::LengthUnit,
    /// The outside.
    pub outer: String,
    /// The holes.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub holes: Vec<String>,
    /// Where it came from, in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
}
