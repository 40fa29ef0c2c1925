//! Words of plates and bent sheet. Every value is text with its unit, read later against the call-outs.

mod again;
mod base;
mod bend;
mod chain;
mod corner;
mod crease;
mod edge;
mod form;
mod hem;
mod hole;
mod method;
mod place;
mod rib;
mod split;
mod transition;

pub use again::{AgainAction, AgainAlong, AgainHow, AgainMirror, AgainShift};
pub use base::LayDown;
pub use bend::{
    AngleIs, BendAction, BendPosition, CornerGap, CornerRelief, Corners, Direction, LegTo, OpenCorner, OwnFlange,
    Relief, ReliefShape, Stands, UpTo,
};
pub use chain::{ProfileAction, ProfileSizes, RollAction, RollFace, RollSpan, WidthFrom};
pub use corner::{Chamfer, CornerAction, CornerShape, Notch};
pub use crease::{CreaseAction, CreasePosition, CreaseSide};
pub use edge::{NotchAction, NotchShape, NotchSizes, SlotsAction, TabAction};
pub use form::{
    BeadForm, DimpleForm, ExtrudedForm, FormAction, FormShape, KnockOutForm, LouvreForm, LouvreSide, RaisedForm,
};
pub use hem::{HemAction, HemLength, HemStyle, JoggleAction, OpenHem, RolledHem, TeardropHem};
pub use hole::{
    ClearanceHole, Counterbore, Countersink, CutAction, DrillAction, Face, Keyhole, Make, OpenCorners, Reach, Slot,
    SlotLength, TappedHole,
};
pub use method::{CurvePoint, Method};
pub use place::{
    AlongPattern, BetweenPattern, CirclePattern, CornersPattern, FillPattern, FromEdge, FromHole, HoleSide, InRound,
    Mirror, Pattern, Place, PointPlace, Repeat, RimCorners, RimLine, RimPattern, Spacing, Stagger,
};
pub use rib::{RibAction, RibPlace, RibRidge};
pub use split::{
    SeamAction, SeamAs, SeamLay, SeamWeld, SplitAction, SplitAt, SplitBend, SplitLine, SplitReach, StripStays,
};
pub use transition::{
    Diagonal, ProfileMoves, RimFlange, SurfaceFace, TabHeld, TransitionAction, TransitionCollar, TransitionCorners,
    TransitionEdge, TransitionEnd, TransitionJoint, TransitionRim, TransitionSaid, TransitionTab, TransitionWay,
};
