//! Two outlines at a height, joined by flat panels: hoppers, hoods, square-to-rounds.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;
use crate::work::shape::BaseShape;

use super::{Method, SeamAs};

/// Join two outlines by flat panels. Each panel is called `OPERATION.EDGE` by the edge of the first outline that it stands on, or by
/// `up-` and the edge of the second one where it stands on none; its own edges are `lower`, `upper` (`front`, `rear` by elevations) and
/// `to-NEIGHBOUR`. A collar is `lower-collar-EDGE`, a rim flange `upper-rim-EDGE`, the panel that closes an end `lower-end`.
///
/// Said by *plan* the first outline is the lower one, on the plane z = 0, and the second one lies over it. Said by *elevations* the first
/// is the front profile, seen from the front on the plane y = 0 with z upward, and the second is the rear one, the distance behind it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionAction {
    /// Whether it is said by plan or by elevations.
    #[serde(default, skip_serializing_if = "TransitionSaid::is_plan")]
    pub said: TransitionSaid,
    /// The lower outline, its middle at the origin; the front profile by elevations.
    pub lower: BaseShape,
    /// The upper outline, or the rear profile. Left out where it is a point, or follows from the first one by `follows`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper: Option<BaseShape>,
    /// The second outline is a point at the height, over the offsets: a pyramid. By plan only.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub apex: bool,
    /// How high the rear profile is, where it is the front one with the slopes of its sides kept: its width follows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub follows: Option<Expr>,
    /// Which of its ends moves where it follows.
    #[serde(default, skip_serializing_if = "ProfileMoves::is_bottom")]
    pub moves: ProfileMoves,
    /// From the lower plane to the middle of the upper outline; by elevations the distance between the profiles.
    pub height: Expr,
    /// How far the middle of the second outline lies from over that of the first one, along x; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub offset_x: Option<Expr>,
    /// The same along y; upward by elevations.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub offset_y: Option<Expr>,
    /// Heights of the upper outline's corners over the lower plane, in order from its first, instead of a tilt; its sizes are then as seen
    /// from above. Three make the plane, and further ones must lie on it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub heights: Vec<Expr>,
    /// The upper rim is not plane: every corner has its height.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub not_plane: bool,
    /// Rims where the walls, their slopes kept, meet a given plane: sizes there follow.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rims: Vec<TransitionRim>,
    /// Which corners stand over each other, where that is said by hand.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ways: Vec<TransitionWay>,
    /// Straight collars past an end, square to its plane.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub collars: Vec<TransitionCollar>,
    /// Ends whose own face is a panel.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub closed: Vec<TransitionEnd>,
    /// Flanges in the plane of a rim.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub flanges: Vec<RimFlange>,
    /// Tabs along edges, to glue, rivet or weld to the panel beside.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tabs: Vec<TransitionTab>,
    /// How the upper outline is turned about its middle, left positive seen from above.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// How it is tilted about the line along x through its middle: its back rises.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_x: Option<Expr>,
    /// How it is tilted about the line along y through its middle: its left rises.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_y: Option<Expr>,
    /// Which face of the sheets the outlines are of.
    #[serde(default)]
    pub sizes: SurfaceFace,
    /// Panels whose sheet lies on the other side of the surface: end plates outside, sides inside.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub other_side: Vec<String>,
    /// What becomes of the edges between panels, but for those that say their own.
    #[serde(default)]
    pub corners: TransitionCorners,
    /// Edges that say their own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub edges: Vec<TransitionEdge>,
    /// Panels that are left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub without: Vec<String>,
    /// How many flats a quarter of a round is made of; 4 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lines: Option<Expr>,
    /// Which diagonal a side that is not plane is creased along.
    #[serde(default)]
    pub crease: Diagonal,
    /// Between sheets at seams and rips; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
    /// How seams lie together and are welded.
    #[serde(default, skip_serializing_if = "SeamAs::is_usual")]
    pub seam: SeamAs,
    /// Inside radius of the bends; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// How the blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

impl TransitionAction {
    /// Two outlines by plan, everything else as it usually is.
    pub fn plan(lower: BaseShape, upper: BaseShape, height: Expr) -> TransitionAction {
        TransitionAction {
            said: TransitionSaid::Plan,
            lower,
            upper: Some(upper),
            apex: false,
            follows: None,
            moves: ProfileMoves::Bottom,
            height,
            offset_x: None,
            offset_y: None,
            heights: Vec::new(),
            not_plane: false,
            rims: Vec::new(),
            ways: Vec::new(),
            collars: Vec::new(),
            closed: Vec::new(),
            flanges: Vec::new(),
            tabs: Vec::new(),
            turn: None,
            tilt_x: None,
            tilt_y: None,
            sizes: SurfaceFace::Outside,
            other_side: Vec::new(),
            corners: TransitionCorners::Bent,
            edges: Vec::new(),
            without: Vec::new(),
            lines: None,
            crease: Diagonal::Shorter,
            gap: None,
            seam: SeamAs::default(),
            radius: None,
            method: None,
        }
    }
}

/// How a transition is said.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TransitionSaid {
    /// Two outlines seen from above, one over the other.
    #[default]
    Plan,
    /// A front and a rear profile, one behind the other.
    Elevations,
}

impl TransitionSaid {
    /// Whether it is by plan.
    pub fn is_plan(&self) -> bool {
        *self == TransitionSaid::Plan
    }
}

/// Which end of a profile moves where its slopes are kept.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProfileMoves {
    /// Its bottom; the top stays level with the front one's.
    #[default]
    Bottom,
    /// Its top.
    Top,
}

impl ProfileMoves {
    /// Whether it is the bottom.
    pub fn is_bottom(&self) -> bool {
        *self == ProfileMoves::Bottom
    }
}

/// An end of a transition.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TransitionEnd {
    /// The first outline's: lower, or front.
    #[default]
    Lower,
    /// The second outline's: upper, or rear.
    Upper,
}

/// A plane that the walls are cut off by.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionRim {
    /// Which end.
    pub end: TransitionEnd,
    /// How far from the outline's own plane, along the axis from the first outline to the second, it passes the middle of the outline; 0
    /// where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Expr>,
    /// How it is tilted about the line along x through that place: its back rises (by elevations: its top goes back).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_x: Option<Expr>,
    /// How it is tilted about the other line: its left rises (by elevations: its left goes back).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_y: Option<Expr>,
}

/// Two corners that are joined.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionWay {
    /// The edge of the first outline that begins at the corner.
    pub lower: String,
    /// The edge of the second outline that begins at the corner.
    pub upper: String,
}

/// A straight collar.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionCollar {
    /// At which end.
    pub end: TransitionEnd,
    /// How long.
    pub length: Expr,
}

/// Flanges along a rim, in its plane unless an angle or a panel is told.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RimFlange {
    /// At which end.
    #[serde(default)]
    pub end: TransitionEnd,
    /// Where a panel is left out, instead of at an end: its name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opening: Option<String>,
    /// Along which panels' edges; all where none is named.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub along: Vec<String>,
    /// How wide, from the rim's edge in the flange's own plane.
    pub width: Expr,
    /// Toward the inside of the opening.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub inward: bool,
    /// How far it is bent from its wall, instead of lying in the rim's plane.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
    /// The panel that it is parallel to, instead of lying in the rim's plane; the rim's edge must run along that panel.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub parallel_to: Option<String>,
    /// Over the full width, past the rim's corners: the flanges beside it end between.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub full: bool,
}

/// Tabs: narrow flanges that lie within the panel beside them. One is called `PANEL-tab-EDGE`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionTab {
    /// The edges, each as the panel that has the tab and what is beside it there: `front/right`, `front/lower`.
    pub along: Vec<String>,
    /// How wide, from the edge in the tab's own plane.
    pub width: Expr,
    /// The angle at which its ends are clipped, from its bend; 45 deg where left out, square with 90 deg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clip: Option<Expr>,
    /// How far it is bent toward the inside; where left out it lies on the inner face of the panel beside, in the plane of one that is
    /// left out, or in the plane of a rim.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
    /// What holds it.
    #[serde(default)]
    pub held: TabHeld,
}

/// What holds a tab.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TabHeld {
    /// Glue.
    #[default]
    Glue,
    /// Rivets.
    Rivets,
    /// Weld.
    Weld,
}

impl TabHeld {
    /// The word for it.
    pub fn word(self) -> &'static str {
        match self {
            TabHeld::Glue => "glued",
            TabHeld::Rivets => "riveted",
            TabHeld::Weld => "welded",
        }
    }
}

/// Which face of the sheets lies on the surface between the outlines.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SurfaceFace {
    /// Outside sizes: the sheets lie within.
    #[default]
    Outside,
    /// Inside sizes: the sheets lie about it.
    Inside,
}

/// What becomes of the edges between panels.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TransitionCorners {
    /// All are bent but the last, which is a seam.
    #[default]
    Bent,
    /// All are seams: a sheet a panel.
    Seams,
}

/// An edge between two panels that says its own.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TransitionEdge {
    /// The two panels, by their own names: `front/right`.
    pub between: String,
    /// What becomes of it.
    pub joint: TransitionJoint,
    /// Which of the two owns the corner where they are apart: its sheet goes through and covers the edge of the other.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub owner: Option<String>,
}

/// What becomes of an edge between two panels.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TransitionJoint {
    /// Bent.
    #[default]
    Bend,
    /// Cut apart and not joined.
    Rip,
    /// Cut apart and welded.
    Seam,
}

/// Which diagonal a side that is not plane is creased along.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Diagonal {
    /// The shorter.
    #[default]
    Shorter,
    /// From the lower left corner to the upper right one, seen from outside.
    Rising,
    /// From the upper left corner to the lower right one.
    Falling,
}
