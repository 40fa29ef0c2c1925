//! Bent sheet: a flat blank, bend strips in it, and the panels between them.
//!
//! Operations ([`params`]) become numbers ([`read`]), numbers lay panels and strips in the flat ([`build`]), strips and
//! panels form a tree ([`tree`]), the tree folds ([`fold`]) and the flat's pieces stitch into the blank ([`stitch`]).

pub mod bending;
mod build;
mod flange;
mod flat;
pub mod fold;
mod hole;
mod mesh;
mod params;
pub mod partition;
mod read;
mod stitch;
pub mod tree;

pub use build::{Built, build};
pub use flat::{Bend, BendSide, EdgeRecord, Flat, Hole, Node, NodeKind, Strip, TagKind, TagRecord};
pub use mesh::{MeshError, folded_mesh};
pub use params::{
    Action, BaseShape, BendAction, BendPosition, CutAction, Direction, DrillAction, FromEdge, LayDown, LegTo, Method,
    Operation, Place, Rectangle, Relief, ReliefShape, Repeat,
};
pub use read::{
    BendNumbers, HoleNumbers, HoleShape, MethodNumbers, Numbers, OperationNumbers, PlaceNumbers, ReliefNumbers,
    RepeatNumbers, ResolvedValue, read_operation,
};
pub use stitch::{Blank, StitchError, stitch};
