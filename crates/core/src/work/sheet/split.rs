//! A piece parted into blanks, and what joins them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{EdgeName, Expr, PanelName};

/// Part a piece into blanks: along a line across the flat, or at one of a bend's tangent lines. No folded place moves. What comes
/// off along a line is called by the operation, and what hangs on it keeps its names where it is whole.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SplitAction {
    /// Where.
    pub at: SplitAt,
    /// How the two lie together and are welded; edge to edge and welded outside where left out.
    #[serde(default, skip_serializing_if = "SeamAs::is_usual")]
    pub seam: SeamAs,
}

/// Where a piece is parted.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SplitAt {
    /// Along a straight line.
    Line(SplitLine),
    /// At a tangent line of a bend.
    Bend(SplitBend),
}

/// A straight line drawn on a panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SplitLine {
    /// The panel.
    pub panel: PanelName,
    /// The edge that the line is drawn from.
    pub edge: EdgeName,
    /// From the edge to the line, at the middle of the edge.
    pub distance: Expr,
    /// How the line is turned from the edge's own direction, left positive; along it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// What it parts.
    #[serde(default, skip_serializing_if = "SplitReach::is_flat")]
    pub reach: SplitReach,
}

/// What a line parts.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SplitReach {
    /// All of the blank that it meets as it lies flat, across bends.
    #[default]
    Flat,
    /// Its own panel alone.
    Panel,
}

impl SplitReach {
    fn is_flat(&self) -> bool {
        *self == SplitReach::Flat
    }
}

/// A tangent line of a bend.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SplitBend {
    /// The bend, by its flange.
    pub bend: PanelName,
    /// With which side the bent strip stays.
    #[serde(default)]
    pub strip: StripStays,
}

/// With which side of a bend its strip stays.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StripStays {
    /// With the panel that was bent.
    #[default]
    Parent,
    /// With the flange.
    Flange,
}

/// Join two edges that lie together: of one blank or of two.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamAction {
    /// One edge.
    pub from: EdgeName,
    /// The other.
    pub to: EdgeName,
    /// How they lie together and are welded.
    #[serde(default, skip_serializing_if = "SeamAs::is_usual")]
    pub seam: SeamAs,
}

/// How a seam is laid and welded.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamAs {
    /// Edge to edge, or which covers the other.
    #[serde(default)]
    pub lay: SeamLay,
    /// Where it is welded.
    #[serde(default)]
    pub weld: SeamWeld,
    /// Whether the weld is ground flush.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub flush: bool,
}

impl SeamAs {
    pub(super) fn is_usual(&self) -> bool {
        *self == SeamAs::default()
    }
}

/// How two edges of a seam lie together.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeamLay {
    /// Edge to edge.
    #[default]
    EdgeToEdge,
    /// The first covers the edge of the second.
    FirstCovers,
    /// The second covers the edge of the first.
    SecondCovers,
}

/// Where a seam is welded.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeamWeld {
    /// On the outside of the corner; on the upper face where the two lie in one plane.
    #[default]
    Outside,
    /// On its inside; on the lower face where the two lie in one plane.
    Inside,
    /// On both.
    Both,
    /// Not welded: screwed, riveted, glued or left open.
    Not,
}
