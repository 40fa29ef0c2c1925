//! Bent sheet: a flat blank, bend strips in it, and the panels between them.
//!
//! Operations ([`params`]) become numbers ([`read`]), numbers lay panels and strips in the flat ([`build`]), strips and
//! panels form a tree ([`tree`]), the tree folds ([`fold`]) and the flat's pieces stitch into the blank ([`stitch`]).

pub mod bending;
mod build;
mod corner;
mod flange;
mod flat;
pub mod fold;
mod hole;
mod mesh;
mod params;
pub mod partition;
mod read;
mod shape;
mod stitch;
pub mod tree;

pub use build::{Built, build};
pub use corner::{CornerCut, CornerNumbers};
pub use flat::{Bend, BendSide, EdgeRecord, Flat, Hole, Node, NodeKind, Strip, TagKind, TagRecord};
pub use hole::{
    AlongNumbers, HoleNumbers, HoleShape, HoleWork, PlaceNumbers, RepeatNumbers, SpreadNumbers, WorkNumbers,
};
pub use mesh::{MeshError, folded_mesh};
pub use params::{
    Action, AlongPattern, BendAction, BendPosition, Chamfer, CirclePattern, ClearanceHole, CornerAction, CornerShape,
    Counterbore, Countersink, CutAction, Direction, DrillAction, Face, FillPattern, FromEdge, FromHole, Keyhole,
    LayDown, LegTo, Make, Method, Mirror, Notch, OpenCorners, Operation, Pattern, Place, PointPlace, Relief,
    ReliefShape, Repeat, Slot, Stagger, TappedHole,
};
pub use read::{BendNumbers, MethodNumbers, Numbers, OperationNumbers, ReliefNumbers, ResolvedValue, read_operation};
pub use shape::{
    Across, BaseShape, Circle, CombineAct, Combined, CombinedPart, Disagreement, Drawn, DrawnCircle, DrawnCorner,
    DrawnGuide, Eared, Gusset, Laid, LooseAt, Lug, MOST_EDGES, NamedCircle, NamedPoint, Obround, OpenRun, PathFault,
    PicturePoint, PlacedBy, Polygon, Profile, PullError, Rectangle, Ring, Run, RunArc, RunArcThrough, RunLeg, RunLine,
    RunSide, Saying, SayingKind, SayingRole, SayingStands, ScalePair, Standing, Traced, Triangle, Underlay,
    UnderlayStands, pull_to_round, read_path, write_path,
};
pub use stitch::{Blank, StitchError, stitch};
