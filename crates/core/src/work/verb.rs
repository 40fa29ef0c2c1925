//! One step of the work, and the one list of verbs for every kind of piece.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

use super::frame::{
    BoreAction, CopyAction, DivideAction, EndAction, JointAction, LinesAction, MemberAction, NodeAction,
    NotchEndAction, PathAction, PlateKind, ReadyAction, RoundAction,
};
use super::sheet::{
    AgainAction, BendAction, CornerAction, CreaseAction, CutAction, DrillAction, HemAction, JoggleAction, LayDown,
    NotchAction, ProfileAction, RollAction, SlotsAction, TabAction,
};

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

/// Every verb, of sheets, plates and frames; a piece's kind says which it takes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Action {
    /// Lay down the base panel.
    LayDown(LayDown),
    /// Bend a flange along an edge.
    Bend(BendAction),
    /// Drill round holes.
    Drill(DrillAction),
    /// Cut holes of another shape.
    Cut(CutAction),
    /// Round, clip or notch corners.
    Corner(CornerAction),
    /// Lay down a profile seen from its end.
    Profile(ProfileAction),
    /// Roll an arc or a tube.
    Roll(RollAction),
    /// Hem an edge.
    Hem(HemAction),
    /// Joggle an edge.
    Joggle(JoggleAction),
    /// Bend a panel along a line drawn on it.
    Crease(CreaseAction),
    /// Notch an edge.
    Notch(NotchAction),
    /// Put tabs on an edge.
    Tab(TabAction),
    /// Cut slots for tabs.
    Slots(SlotsAction),
    /// Make operations again.
    Again(AgainAction),
    /// Name a place of a frame.
    Node(NodeAction),
    /// Lay centre lines end to end.
    Path(PathAction),
    /// Part a line with nodes.
    Divide(DivideAction),
    /// Round the corner of two lines.
    Round(RoundAction),
    /// Centre lines from a file.
    Lines(LinesAction),
    /// Lay a ready frame.
    Ready(ReadyAction),
    /// Make lines, members and all, again.
    Copy(CopyAction),
    /// Put a section on lines.
    Member(MemberAction),
    /// Settle how members meet.
    Joint(JointAction),
    /// Cut an end in its own way.
    End(EndAction),
    /// Bore holes into members.
    Bore(BoreAction),
    /// Notch the ends of members.
    EndNotch(NotchEndAction),
    /// Put a plate on the frame.
    Plate(PlateAction),
}

impl Action {
    /// Whether it is work of a frame.
    pub fn is_frame(&self) -> bool {
        matches!(
            self,
            Action::Node(_)
                | Action::Path(_)
                | Action::Divide(_)
                | Action::Round(_)
                | Action::Lines(_)
                | Action::Ready(_)
                | Action::Copy(_)
                | Action::Member(_)
                | Action::Joint(_)
                | Action::End(_)
                | Action::Bore(_)
                | Action::EndNotch(_)
                | Action::Plate(_)
        )
    }
}

/// A plate on the frame: a plate piece of its own that moves with it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlateAction {
    /// Which.
    pub kind: PlateKind,
    /// Thickness, a length.
    pub thickness: Expr,
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
