//! Holes and cuts, as they are worked.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, PanelName};
use crate::stock::{Fit, Head};
use crate::work::shape::BaseShape;

use super::{Mirror, Pattern, Place, Repeat};

/// Drill round holes in a panel. One of `diameter`, `clearance` and `tapped` says how large; where none does, the screw that
/// its head is for, with a medium clearance.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrillAction {
    /// The panel.
    pub panel: PanelName,
    /// Further panels that get the same: edges that place it are read as the same edges of those.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<PanelName>,
    /// How far it reaches.
    #[serde(default, skip_serializing_if = "Reach::is_panel")]
    pub reach: Reach,
    /// Diameter of a plain hole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub diameter: Option<Expr>,
    /// A clearance hole for a bolt.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clearance: Option<ClearanceHole>,
    /// A tapped hole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tapped: Option<TappedHole>,
    /// Depth of a blind hole at full diameter; through where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Expr>,
    /// Angle of the drill's point at the bottom of a blind hole; 118 deg where left out, 180 deg is flat.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<Expr>,
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
    /// Out over an edge of its panel: what it takes there is open; it takes from that panel alone.
    Open,
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
    pub depth: Option<Expr>,
}

/// A countersink: for a screw, or by its numbers.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Countersink {
    /// The flat-head screw that it is for: `M5`, `#8`; its head says diameter and angle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub screw: Option<String>,
    /// Diameter of the head at the face.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub diameter: Expr,
    /// Angle of the cone; 90 deg where left out (82 deg is usual for unified screws).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
}

/// A counterbore: for a screw, or by its numbers.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Counterbore {
    /// The socket-head screw that it is for: `M5`, `#8`; its head says diameter and depth.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub screw: Option<String>,
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub diameter: Expr,
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub depth: Expr,
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
    pub(super) fn is_top(&self) -> bool {
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
    /// Leaves it to the punch.
    Punch,
}

impl Make {
    fn is_cut(&self) -> bool {
        *self == Make::Cut
    }
}

/// Cut holes of another shape. One of `width` with `height`, `slot`, `keyhole` and `outline` says which.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutAction {
    /// The panel.
    pub panel: PanelName,
    /// Further panels that get the same: edges that place it are read as the same edges of those.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<PanelName>,
    /// How far it reaches.
    #[serde(default, skip_serializing_if = "Reach::is_panel")]
    pub reach: Reach,
    /// Of a rectangle: along the first edge it is placed from (along the blank's x where placed by the centre).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Expr>,
    /// Of a rectangle: square to the width.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Expr>,
    /// Corner radius of a rectangle; sharp where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<Expr>,
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
    pub turn: Option<Expr>,
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
    /// How long it is, as `length_is` says.
    pub length: Expr,
    /// Twice the radius of its ends.
    pub width: Expr,
    /// What the length is measured between.
    #[serde(default, skip_serializing_if = "SlotLength::is_centres")]
    pub length_is: SlotLength,
}

/// What a slot's length is measured between.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SlotLength {
    /// The centres of its ends.
    #[default]
    Centres,
    /// Its ends themselves: a width longer.
    Overall,
}

impl SlotLength {
    fn is_centres(&self) -> bool {
        *self == SlotLength::Centres
    }
}

/// A keyhole: a round head and a slot up from it; placed by the head's centre. For a screw, or by its numbers.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Keyhole {
    /// The screw that it hangs on: `M5`, `#8`; it says head, slot and travel.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub screw: Option<String>,
    /// What of that screw bears on the sheet: a head, or a washer.
    #[serde(default, skip_serializing_if = "Head::is_socket")]
    pub bears: Head,
    /// Diameter of the head.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub head: Expr,
    /// Width of the slot.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub slot: Expr,
    /// From the head's centre to the centre of the slot's end.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub travel: Expr,
}

/// Corners opened by a tool's radius.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OpenCorners {
    /// A circle of this radius on the corner's bisector, through the corner.
    DogBone(Expr),
    /// A circle of this radius about a point on the longer side, through the corner.
    Overcut(Expr),
}
