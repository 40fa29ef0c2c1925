//! Frame work as people write it: every value is text with its unit. x runs to the right, y away, z up.

use std::collections::BTreeMap;

use crate::measure::Axis;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::sheet::BaseShape;
use crate::work::Operation;

/// A place: coordinates, or offsets from a node.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct FramePlace {
    /// The node that it is reckoned from; the origin where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<String>,
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
    pub line: String,
    /// Distance from its start; from its end where negative.
    pub distance: String,
}

/// Two lines by their nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Meet {
    /// Two nodes of the first line.
    pub one: [String; 2],
    /// Two nodes of the second.
    pub two: [String; 2],
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

/// Straight by so much.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ByLeg {
    /// Name of the line after the operation's; its number where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<String>,
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
    pub radius: String,
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
    pub line: String,
    /// Into how many equal parts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub into: Option<String>,
    /// Distances from its start.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub at: Vec<String>,
}

/// A tangent arc between the two lines that meet in a node.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RoundAction {
    /// The node.
    pub node: String,
    /// Radius of the centre line.
    pub radius: String,
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
    pub sizes: BTreeMap<String, String>,
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
    pub of: Vec<String>,
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
    pub axis: crate::measure::Axis,
    /// Where on the axis; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
}

/// Copies at a spacing.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ShiftCopies {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<String>,
    /// How many more.
    pub count: String,
}

/// Copies about an axis.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnCopies {
    /// Direction of the axis.
    pub axis: crate::measure::Axis,
    /// A place on it.
    #[serde(default)]
    pub about: FramePlace,
    /// Angle from one to the next.
    pub angle: String,
    /// How many more.
    pub count: String,
}

/// A section on lines: a group.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MemberAction {
    /// Lines by name; `*` stands for any letters; an operation's name for all of its lines.
    pub lines: Vec<String>,
    /// Section by name; `own` where `outline` gives it.
    pub section: String,
    /// An outline of your own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outline: Option<BaseShape>,
    /// Material; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Turned about the line, left-handed seen from its start.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub roll: Option<String>,
    /// Which point of the section lies on the line.
    #[serde(default, skip_serializing_if = "Align::is_centre")]
    pub align: Align,
    /// Further across, to the section's right.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<String>,
    /// Further up.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<String>,
    /// First letters of their marks; the group's name in capitals where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mark: Option<String>,
    /// Straight length at each end of a bent member for the bender's grip, cut off afterwards or left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grip: Option<String>,
    /// Sub-weldment that they belong to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weldment: Option<String>,
    /// Your own columns of the cut list: part number, finish.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub columns: BTreeMap<String, String>,
}

/// Which point of a section lies on its line, seen with its up upward.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Align {
    #[default]
    Centre,
    Centroid,
    Top,
    Bottom,
    Left,
    Right,
    TopLeft,
    TopRight,
    BottomLeft,
    BottomRight,
}

impl Align {
    fn is_centre(&self) -> bool {
        *self == Align::Centre
    }
}

/// How members meet at nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JointAction {
    /// Where.
    pub at: JointAt,
    /// How.
    pub how: JointHow,
}

/// Where a joint is.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JointAt {
    /// Every node where members end together.
    Corners,
    /// Every node where a member ends on one that runs on.
    Tees,
    /// Both.
    All,
    /// These nodes.
    Nodes(Vec<String>),
}

/// How members meet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JointHow {
    /// Cut on the planes between them; on a member that runs on, cut to that and mitred with each other.
    Mitre(MitreJoint),
    /// One runs through, the others are cut to its face.
    Butt(Butt),
    /// Cut to the face, or coped where the one that runs on is round.
    Trim(Gap),
    /// Fitted into the outline of the one that runs on, flanges and web each to their own face.
    Cope(Gap),
    /// A round member passes through a bore of the other; neither is cut.
    Pass(Gap),
}

/// A mitre.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MitreJoint {
    /// Groups or members that are mitred with each other; the others are cut to them. Where left out: two ends alone, all
    /// ends where they are of one group, or the ends of the one group that has several there.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub between: Vec<String>,
    /// For weld or paint; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<String>,
}

/// Room left between members.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Gap {
    /// For weld or paint; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<String>,
}

/// A butt joint.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Butt {
    /// Groups or members in the order in which they run through; the others follow in the order of the work.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub through: Vec<String>,
    /// For weld or paint; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<String>,
    /// The one that runs through ends at the node instead of flush with the far face of the others.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub to_node: bool,
}

/// An end of members that is cut in its own way.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EndAction {
    /// Members, by name or pattern.
    pub of: Vec<String>,
    /// Which end.
    #[serde(default)]
    pub at: WhichEnd,
    /// How.
    pub how: EndHow,
}

/// Which end of a member.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum WhichEnd {
    Start,
    Finish,
    #[default]
    Both,
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
    pub to: Vec<String>,
    /// Room left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<String>,
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
    pub to: Vec<String>,
    /// Room left all along the outline.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<String>,
}

/// A plane square to an axis that cuts an end.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaneCut {
    /// The axis.
    pub axis: Axis,
    /// Where on it; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
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
    pub by: Option<String>,
}

/// A free angle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AngleCut {
    /// From square, turned about the section's up.
    pub angle: String,
    /// From square, turned about the section's across; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt: Option<String>,
}

/// An end cap.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CapPlate {
    /// Its thickness.
    pub thickness: String,
    /// Inside the tube with a clearance all round; over its end where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inset: Option<String>,
}

/// Holes through the walls of members: bolts, drains, vents.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BoreAction {
    /// Members.
    pub of: Vec<String>,
    /// The face that it goes in through.
    pub face: MemberFace,
    /// Its diameter.
    pub diameter: String,
    /// From the long point of the start; from that of the finish where negative.
    pub at: String,
    /// Off the middle of the face, up or to the right of the section; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<String>,
    /// How many; one where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<String>,
    /// From one to the next.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing: Option<String>,
    /// Through one wall only.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub one_wall: bool,
    /// What it is for.
    #[serde(default)]
    pub purpose: Purpose,
}

/// A face of a section, seen with its up upward.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum MemberFace {
    Top,
    Bottom,
    Left,
    Right,
}

/// What a hole is for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Purpose {
    /// A bolt or anything else.
    #[default]
    Bolt,
    /// Lets water out.
    Drain,
    /// Lets air and zinc through.
    Vent,
}

/// A notch that takes one side of a section off over a length, or a slot for a plate.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotchEndAction {
    /// Members.
    pub of: Vec<String>,
    /// Which end.
    #[serde(default)]
    pub at: WhichEnd,
    /// The face that it is taken from: all metal from there to `depth` goes.
    pub face: MemberFace,
    /// How deep from that face; right through where left out, which only a slot may.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<String>,
    /// How far along from the end.
    pub length: String,
    /// A slot of this width instead of a notch over the whole face.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<String>,
    /// The middle of the slot off the middle of the face, up or to the right.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<String>,
}

/// A plate on the frame: a plate piece of its own that moves with it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlateAction {
    /// Which.
    pub kind: PlateKind,
    /// Thickness, a length.
    pub thickness: String,
    /// Material; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Its mark; made from the operation's name where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mark: Option<String>,
    /// Sub-weldment that it belongs to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weldment: Option<String>,
    /// Further work on the plate, as of any plate piece: holes, corners. Its base panel is `base`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(no_recursion)]
    pub work: Vec<Operation>,
}

/// Plates of a frame.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlateKind {
    /// In the corner of two members.
    Gusset(GussetPlate),
    /// Square across the end of members: base plate, cleat plate, cap.
    Base(BasePlate),
    /// On a member's face: lug, axle plate, cleat.
    Face(FacePlate),
    /// Filling the opening between members that lie in one plane, or on top of them.
    Panel(PanelPlate),
}

/// A gusset.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GussetPlate {
    /// The two members, each pair giving one gusset.
    pub between: [String; 2],
    /// Leg along the first.
    pub first: String,
    /// Leg along the second.
    pub second: String,
    /// Clip of the inner corner, for the weld.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<String>,
    /// Blunt tips.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tips: Option<String>,
    /// Off the middle of the members.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<String>,
}

/// A base plate.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BasePlate {
    /// Members.
    pub of: Vec<String>,
    /// Which end.
    #[serde(default)]
    pub at: WhichEnd,
    /// Its shape, its middle on the section's middle.
    pub shape: BaseShape,
    /// The member is shortened by the thickness, so that the plate's far face is where the member ended.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub within: bool,
}

/// A plate on a face.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FacePlate {
    /// Members.
    pub of: Vec<String>,
    /// The face that it sits on.
    pub face: MemberFace,
    /// Distance of its middle from the line's start; from its end where negative.
    pub at: String,
    /// Its shape, its middle or its foot there.
    pub shape: BaseShape,
    /// PlateStands square on the face along the member instead of lying on it: a lug.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stands: Option<PlateStands>,
    /// Off the middle of the face.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<String>,
    /// The figures of a lug that lifts, for review.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lifts: Option<LugReview>,
}

/// How a plate stands on a face.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlateStands {
    /// Along the member.
    Along,
    /// Across it.
    Across,
}

/// What a lifting lug is reviewed with.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LugReview {
    /// Pin diameter.
    pub pin: String,
    /// Load, a mass.
    pub load: String,
    /// Yield strength, MPa as a plain number.
    pub yield_strength: String,
    /// Tensile strength, MPa as a plain number.
    pub tensile_strength: String,
    /// Design factor: 2 (category A) or 3 (B).
    pub design_factor: String,
}

/// A panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PanelPlate {
    /// Four members round an opening, in order.
    pub between: Vec<String>,
    /// Clearance all round.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clearance: Option<String>,
    /// On top of the members, out to their outer faces, instead of between them.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub on_top: bool,
}

/// What a frame says beside its work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct FrameSettings {
    /// What the saw's angle is set to: the exact angle is shown to this step.
    pub saw_step: String,
    /// Bars to cut from; 6000 mm without limit where empty.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bars: Vec<StockBarText>,
    /// Width of the saw cut.
    pub kerf: String,
    /// Cut off each end of a bar before use.
    pub end_trim: String,
    /// The last of a bar, which the saw's grip cannot give.
    pub grip: String,
    /// The widest gap that is welded.
    pub weld_gap: String,
    /// Which weld symbols the shop draws.
    pub weld_symbols: WeldSymbols,
    /// ISO 13920 class of welded sizes with no tolerance of their own: A, B, C or D.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub welded_tolerance: Option<WeldedClass>,
}

impl Default for FrameSettings {
    fn default() -> Self {
        FrameSettings {
            saw_step: "0.5 deg".into(),
            bars: Vec::new(),
            kerf: "3 mm".into(),
            end_trim: "0 mm".into(),
            grip: "0 mm".into(),
            weld_gap: "5 mm".into(),
            weld_symbols: WeldSymbols::default(),
            welded_tolerance: None,
        }
    }
}

/// Bars of one length.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StockBarText {
    /// The section that they are of; any where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub section: Option<String>,
    /// Length.
    pub length: String,
    /// How many there are; no limit where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quantity: Option<u32>,
}

/// Weld symbols.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WeldSymbols {
    /// ISO 2553.
    #[default]
    Iso2553,
    /// AWS A2.4.
    AwsA24,
}

/// Classes of ISO 13920 for linear sizes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs)]
pub enum WeldedClass {
    A,
    B,
    C,
    D,
}
