//! Bent sheet: a flat blank, bend strips in it, and the panels between them.
//!
//! Operations ([`params`]) become numbers ([`read`]), numbers lay panels and strips in the flat ([`build`]), strips and
//! panels form a tree ([`tree`]), the tree folds ([`fold`]) and the flat's pieces stitch into the blank ([`stitch`]).

mod again;
pub mod bending;
mod body;
mod build;
mod chain;
mod corner;
mod crease;
mod cut_edges;
mod flange;
mod flat;
pub mod fold;
mod hand;
mod hem;
mod hole;
mod joggle;
mod mesh;
mod params;
pub mod partition;
mod read;
mod record;
mod shape;
mod slice;
mod stitch;
mod stretch;
pub mod tree;

pub use again::{AgainMove, AgainNumbers};
pub use body::{BodyError, folded_body};
pub use build::{Built, build};
pub use chain::{ProfileNumbers, RollNumbers, RollSize};
pub use corner::{CornerCut, CornerNumbers};
pub use crease::CreaseNumbers;
pub use cut_edges::{CutEdge, cut_edges};
pub use flat::{
    Bend, BendMake, BendSide, BendSizes, EdgeRecord, Flat, Hole, HoleCopy, Node, NodeKind, Strip, TabRecord, TagKind,
    TagRecord,
};
pub use hem::{HemFold, HemNumbers};
pub use hole::{
    AlongNumbers, HoleNumbers, HoleShape, HoleWork, PlaceNumbers, RepeatNumbers, SpreadNumbers, WorkNumbers,
};
pub use joggle::{JoggleNumbers, web_length};
pub use mesh::{MeshError, folded_mesh};
pub use params::{
    Action, AgainAction, AgainAlong, AgainHow, AgainMirror, AgainShift, AlongPattern, AngleIs, BendAction,
    BendPosition, Chamfer, CirclePattern, ClearanceHole, CornerAction, CornerGap, CornerRelief, CornerShape, Corners,
    Counterbore, Countersink, CreaseAction, CreasePosition, CreaseSide, CurvePoint, CutAction, Direction, DrillAction,
    Face, FillPattern, FromEdge, FromHole, HemAction, HemLength, HemStyle, JoggleAction, Keyhole, LayDown, LegTo, Make,
    Method, Mirror, Notch, NotchAction, NotchShape, NotchSizes, OpenCorner, OpenCorners, OpenHem, Operation, OwnFlange,
    Pattern, Place, PointPlace, ProfileAction, ProfileSizes, Reach, Relief, ReliefShape, Repeat, RollAction, RollFace,
    RollSpan, RolledHem, Slot, SlotsAction, Stagger, Stands, TabAction, TappedHole, TeardropHem, UpTo, WidthFrom,
};
pub use read::{
    AngleNumbers, BendNumbers, CornerMake, CornerReliefNumbers, LegNumbers, MethodNumbers, Numbers, OperationNumbers,
    ReliefNumbers, ResolvedValue, read_operation,
};
pub use record::{CutRecord, NodeCut};
pub use shape::{
    Across, BaseShape, Circle, CombineAct, Combined, CombinedPart, Disagreement, Drawn, DrawnCircle, DrawnCorner,
    DrawnGuide, Eared, Gusset, Laid, LooseAt, Lug, MOST_EDGES, NamedCircle, NamedPoint, Obround, OpenRun, PathFault,
    PicturePoint, PlacedBy, Polygon, Profile, PullError, Rectangle, Ring, Run, RunArc, RunArcThrough, RunLeg, RunLine,
    RunSide, Saying, SayingKind, SayingRole, SayingStands, ScalePair, Standing, Traced, Triangle, Underlay,
    UnderlayStands, pull_to_round, read_path, write_path,
};
pub use slice::{NotchNumbers, NotchSize, SlotsNumbers, TabNumbers};
pub use stitch::{Blank, StitchError, stitch};
