//! Operations as people write them: every value is text with its unit, read later against the call-outs.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::stock::Fit;

pub use crate::work::{Action, Operation};

use super::shape::{BaseShape, PlacedBy};

mod bent;

pub use bent::{
    AgainAction, AgainAlong, AgainHow, AgainMirror, AgainShift, CreaseAction, CreasePosition, CreaseSide, HemAction,
    HemLength, HemStyle, JoggleAction, NotchAction, NotchShape, NotchSizes, OpenHem, ProfileAction, ProfileSizes,
    RollAction, RollFace, RollSpan, RolledHem, SlotsAction, TabAction, TeardropHem, WidthFrom,
};

/// Lay down the panel that stays put.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LayDown {
    /// Its shape.
    pub shape: BaseShape,
    /// Which point of its box lies on the origin; where left out, a shape drawn about a centre keeps it there, any
    /// other starts from its corner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<PlacedBy>,
}

/// Bend a flange along a straight edge, or one along each of several.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendAction {
    /// The edge, such as `base.back`.
    pub edge: String,
    /// Further edges that are bent alike in the same operation; the flanges are then called `OPERATION.edge`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<String>,
    /// Edges whose flange has an angle or a leg of its own.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub own: BTreeMap<String, OwnFlange>,
    /// How the corners between flanges of this operation are made.
    #[serde(default, skip_serializing_if = "Corners::is_open")]
    pub corners: Corners,
    /// How far the sheet is turned from flat: above 0 and to 180 deg. Empty where `stands` says it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub angle: String,
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
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub leg: String,
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

/// What one flange of several has of its own.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnFlange {
    /// Its angle, as the operation's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<String>,
    /// Its leg, as the operation's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub leg: Option<String>,
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
    Parallel(String),
    /// Square to this panel.
    Square(String),
}

/// A leg as far as something of the folded part.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UpTo {
    /// A face (`lid.bottom`), an edge (`wall.end`) or a corner (`wall.end/left`).
    pub feature: String,
    /// Left free before it; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<String>,
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
    pub gap: String,
    /// Relief where the two bends meet; a plain tear where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<CornerRelief>,
}

/// Relief where two bends meet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CornerRelief {
    /// A square of this side about the place where the tangent lines cross.
    Square(String),
    /// A circle of this diameter about it.
    Round(String),
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
    /// K by the ratio of inside radius to thickness: points in rising order, in proportion between them, nothing past
    /// them.
    KCurve(Vec<CurvePoint>),
}

/// A point of a curve of K.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CurvePoint {
    /// R/T.
    pub ratio: String,
    /// K there.
    pub k: String,
}

/// Drill round holes in a panel. One of `diameter`, `clearance` and `tapped` says how large.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrillAction {
    /// The panel.
    pub panel: String,
    /// Further panels that get the same: edges that place it are read as the same edges of those.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<String>,
    /// How far it reaches.
    #[serde(default, skip_serializing_if = "Reach::is_panel")]
    pub reach: Reach,
    /// Diameter of a plain hole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub diameter: Option<String>,
    /// A clearance hole for a bolt.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clearance: Option<ClearanceHole>,
    /// A tapped hole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tapped: Option<TappedHole>,
    /// Depth of a blind hole at full diameter; through where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<String>,
    /// Angle of the drill's point at the bottom of a blind hole; 118 deg where left out, 180 deg is flat.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<String>,
    /// Countersink at the face it is worked from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub countersink: Option<Countersink>,
    /// Counterbore at the face it is worked from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub counterbore: Option<Counterbore>,
    /// The face it is worked from.
    #[serde(default, skip_serializing_if = "Face::is_top")]
    pub face: Face,
    /// What the cutter does of it.
    #[serde(default, skip_serializing_if = "Make::is_cut")]
    pub make: Make,
    /// Where.
    #[serde(default)]
    pub place: Place,
    /// Several off: each entry repeats all before it, so two entries make a grid.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub repeat: Vec<Repeat>,
    /// Several off in another way than rows; not together with `repeat`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pattern: Option<Pattern>,
    /// Made again across the panel's centre lines.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mirror: Option<Mirror>,
    /// Single places left out, by number; the others keep their names.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub skip: Vec<usize>,
}

/// How far a cut reaches.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reach {
    /// Through its panel alone; it must lie wholly in it.
    #[default]
    Panel,
    /// Through the blank as it lies flat, across bends too; then it folds.
    Flat,
    /// Straight through everything of the folded part, square to its panel.
    Through,
}

impl Reach {
    fn is_panel(&self) -> bool {
        *self == Reach::Panel
    }
}

/// A clearance hole by its bolt.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClearanceHole {
    /// The bolt: `M10`.
    pub bolt: String,
    /// How closely it fits.
    #[serde(default)]
    pub fit: Fit,
}

/// A tapped hole by its thread.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TappedHole {
    /// The thread: `M10`, `M10x1.25`, `#8-32`, `1/4-20`.
    pub thread: String,
    /// Depth of full thread in a blind hole; all through where left out. The drill goes `depth` deep.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<String>,
}

/// A countersink.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Countersink {
    /// Diameter of the head at the face.
    pub diameter: String,
    /// Angle of the cone; 90 deg where left out (82 deg is usual for unified screws).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<String>,
}

/// A counterbore.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Counterbore {
    pub diameter: String,
    pub depth: String,
}

/// A face of the sheet.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Face {
    /// The upper face of the blank.
    #[default]
    Top,
    /// The lower face.
    Bottom,
}

impl Face {
    fn is_top(&self) -> bool {
        *self == Face::Top
    }
}

/// What the cutter does of a hole.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Make {
    /// Cuts it through (a tapped one: its tap drill).
    #[default]
    Cut,
    /// Marks its centre.
    Mark,
    /// Leaves it to the drill press.
    Leave,
}

impl Make {
    fn is_cut(&self) -> bool {
        *self == Make::Cut
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
}

/// Holes round a centre.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CirclePattern {
    /// How many.
    pub count: String,
    /// Diameter of the circle that they stand on.
    pub diameter: String,
    /// Where the first stands, counter-clockwise from x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub start: Option<String>,
    /// The arc that they share, both its ends holes; the whole circle where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sweep: Option<String>,
}

/// A place from the first.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct PointPlace {
    pub x: String,
    pub y: String,
}

/// Holes along an edge.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AlongPattern {
    /// The edge that the row runs along.
    pub edge: String,
    /// From the edge to the row.
    pub distance: String,
    /// How many equal spaces; or `pitch`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spaces: Option<String>,
    /// The most from hole to hole: as few equal spaces as keep within it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pitch: Option<String>,
    /// How far the first and the last hole stand in from the edge's ends; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inset: Option<String>,
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

/// Holes wherever they fit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FillPattern {
    /// How the rows stand to each other.
    #[serde(default)]
    pub rows: Stagger,
    /// Centre to centre.
    pub pitch: String,
    /// Material left between the outermost holes and the panel's edges.
    pub margin: String,
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

/// Cut holes of another shape. One of `width` with `height`, `slot`, `keyhole` and `outline` says which.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutAction {
    /// The panel.
    pub panel: String,
    /// Further panels that get the same: edges that place it are read as the same edges of those.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<String>,
    /// How far it reaches.
    #[serde(default, skip_serializing_if = "Reach::is_panel")]
    pub reach: Reach,
    /// Of a rectangle: along the first edge it is placed from (along the blank's x where placed by the centre).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<String>,
    /// Of a rectangle: square to the width.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<String>,
    /// Corner radius of a rectangle; sharp where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<String>,
    /// Corners of a rectangle opened so that a square part goes in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub open: Option<OpenCorners>,
    /// A slot.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slot: Option<Slot>,
    /// A keyhole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub keyhole: Option<Keyhole>,
    /// Any closed shape without holes, placed by the centre of its box.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outline: Option<BaseShape>,
    /// Turned from the direction that it is placed along, left positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<String>,
    /// Where.
    #[serde(default)]
    pub place: Place,
    /// Several off; see [`DrillAction::repeat`].
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub repeat: Vec<Repeat>,
    /// Several off in another way than rows; not together with `repeat`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pattern: Option<Pattern>,
    /// Made again across the panel's centre lines.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mirror: Option<Mirror>,
    /// Single places left out, by number; the others keep their names.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub skip: Vec<usize>,
}

/// A slot with round ends.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Slot {
    /// Between the centres of its ends.
    pub length: String,
    /// Twice the radius of its ends.
    pub width: String,
}

/// A keyhole: a round head and a slot up from it; placed by the head's centre.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Keyhole {
    /// Diameter of the head.
    pub head: String,
    /// Width of the slot.
    pub slot: String,
    /// From the head's centre to the centre of the slot's end.
    pub travel: String,
}

/// Corners opened by a tool's radius.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OpenCorners {
    /// A circle of this radius on the corner's bisector, through the corner.
    DogBone(String),
    /// A circle of this radius about a point on the longer side, through the corner.
    Overcut(String),
}

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
}

/// A distance from another hole of the same panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromHole {
    /// Its name: `bore`, `bolt.3`.
    pub hole: String,
    /// Across, along the blank's x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<String>,
    /// Up, along the blank's y; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<String>,
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

/// Round, clip or notch corners of a panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CornerAction {
    /// The panel.
    pub panel: String,
    /// The corners, each by its two edges: `front/right`; every corner between free edges where left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub at: Vec<String>,
    /// What is done to each.
    pub shape: CornerShape,
}

/// What is done to a corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CornerShape {
    /// An arc of this radius that touches both edges.
    Round(String),
    /// A straight cut.
    Chamfer(Chamfer),
    /// A rectangle cut out.
    Notch(Notch),
    /// The edge between two corners made a half circle: `at` names the edge once.
    FullRound,
}

/// A straight cut across a corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chamfer {
    /// What it takes off the first edge.
    pub leg: String,
    /// What it takes off the second; as much as off the first where neither this nor an angle is given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub other: Option<String>,
    /// Its angle to the first edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<String>,
}

/// A rectangle cut out of a square corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Notch {
    /// Along the first edge.
    pub width: String,
    /// Along the second edge.
    pub depth: String,
}
