//! Words of frames. x runs to the right, y away, z up. Every value is text with its unit, read later against the call-outs.

mod bore;
mod end;
mod joint;
mod member;
mod place;
mod plate;
mod ready;
mod settings;

pub use bore::{BoreAction, Purpose};
pub use end::{AngleCut, Beyond, CapPlate, CopeTo, EndAction, EndHow, NotchEndAction, PlaneCut, TrimTo};
pub use joint::{Butt, Gap, JointAction, JointAt, JointHow, MitreJoint};
pub use member::{Align, MemberAction, MemberFace, OneEnd, WhichEnd};
pub use place::{
    ArcHow, ArcLeg, ArcRadius, ByLeg, DivideAction, FramePlace, LinesAction, Meet, NodeAction, OnLine, PathAction,
    PathLeg, RoundAction, ToLeg, Way,
};
pub use plate::{BasePlate, FacePlate, GussetPlate, LugReview, PanelPlate, PlateKind, PlateStands};
pub use ready::{
    CopyAction, CopyHow, Lies, MirrorPlane, ReadyAction, ReadyJoints, ReadyKind, ShiftCopies, SizesTo, TurnCopies,
};
pub use settings::{FrameSettings, OwnSection, StockBarText, Symmetry, UsualJoints, WeldSymbols, WeldedClass};
