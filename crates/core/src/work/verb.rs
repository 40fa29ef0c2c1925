//! One step of the work, and the one list of verbs for every kind of piece.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

use super::frame::{
    BoreAction, CopyAction, DivideAction, EndAction, JointAction, LinesAction, MemberAction, NodeAction,
    NotchEndAction, PathAction, PlateKind, ReadyAction, RoundAction,
};
use super::sheet::{
    AgainAction, BendAction, CornerAction, CreaseAction, CutAction, DrillAction, FormAction, HemAction, JoggleAction,
    LayDown, NotchAction, ProfileAction, RibAction, RollAction, SeamAction, SlotsAction, SplitAction, TabAction,
    TransitionAction,
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

/// Makes the list of verbs: for each its words, its variant, its action, its key in the document and whose work it is.
macro_rules! verbs {
    ($($(#[$words:meta])* $variant:ident($action:ty) $key:literal $trade:ident;)*) => {
        /// Every verb, of sheets, plates and frames; a piece's kind says which it takes.
        #[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        pub enum Action {
            $($(#[$words])* $variant($action),)*
        }

        impl Action {
            /// Its key in the document.
            pub fn key(&self) -> &'static str {
                match self {
                    $(Action::$variant(_) => $key,)*
                }
            }

            /// Whose work it is.
            pub fn trade(&self) -> Trade {
                match self {
                    $(Action::$variant(_) => Trade::$trade,)*
                }
            }
        }
    };
}

/// Whose work a verb is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Trade {
    /// Plates and bent sheet.
    Sheet,
    /// Frames.
    Frame,
}

verbs! {
    /// Lay down the base panel.
    LayDown(LayDown) "lay_down" Sheet;
    /// Bend a flange along an edge.
    Bend(BendAction) "bend" Sheet;
    /// Drill round holes.
    Drill(DrillAction) "drill" Sheet;
    /// Cut holes of another shape.
    Cut(CutAction) "cut" Sheet;
    /// Press forms.
    Form(FormAction) "form" Sheet;
    /// Press ribs across a bend.
    Rib(RibAction) "rib" Sheet;
    /// Round, clip or notch corners.
    Corner(CornerAction) "corner" Sheet;
    /// Lay down a profile seen from its end.
    Profile(ProfileAction) "profile" Sheet;
    /// Roll an arc or a tube.
    Roll(RollAction) "roll" Sheet;
    /// Hem an edge.
    Hem(HemAction) "hem" Sheet;
    /// Joggle an edge.
    Joggle(JoggleAction) "joggle" Sheet;
    /// Bend a panel along a line drawn on it.
    Crease(CreaseAction) "crease" Sheet;
    /// Notch an edge.
    Notch(NotchAction) "notch" Sheet;
    /// Put tabs on an edge.
    Tab(TabAction) "tab" Sheet;
    /// Cut slots for tabs.
    Slots(SlotsAction) "slots" Sheet;
    /// Make operations again.
    Again(AgainAction) "again" Sheet;
    /// Join two outlines by flat panels.
    Transition(Box<TransitionAction>) "transition" Sheet;
    /// Part a piece into blanks.
    Split(SplitAction) "split" Sheet;
    /// Join two edges.
    Seam(SeamAction) "seam" Sheet;
    /// Name a place of a frame.
    Node(NodeAction) "node" Frame;
    /// Lay centre lines end to end.
    Path(PathAction) "path" Frame;
    /// Part a line with nodes.
    Divide(DivideAction) "divide" Frame;
    /// Round the corner of two lines.
    Round(RoundAction) "round" Frame;
    /// Centre lines from a file.
    Lines(LinesAction) "lines" Frame;
    /// Lay a ready frame.
    Ready(ReadyAction) "ready" Frame;
    /// Make lines, members and all, again.
    Copy(CopyAction) "copy" Frame;
    /// Put a section on lines.
    Member(MemberAction) "member" Frame;
    /// Settle how members meet.
    Joint(JointAction) "joint" Frame;
    /// Cut an end in its own way.
    End(EndAction) "end" Frame;
    /// Bore holes into members.
    Bore(BoreAction) "bore" Frame;
    /// Notch the ends of members.
    EndNotch(NotchEndAction) "end_notch" Frame;
    /// Put a plate on the frame.
    Plate(PlateAction) "plate" Frame;
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
