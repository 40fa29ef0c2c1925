//! Bent sheet: a flat blank, bend strips in it, and the panels between them.
//!
//! Operations (`work::sheet`) become numbers (`read`), numbers lay panels and strips in the flat (`build`), strips and
//! panels form a tree (`tree`), the tree folds (`fold`) and the flat's pieces stitch into the blank (`stitch`).

mod again_numbers;
mod alike;
pub mod bending;
mod beside;
mod body;
mod build;
mod chain;
mod corner;
mod crease;
mod cut_edges;
mod extents;
mod face_names;
mod figures;
mod flange;
mod flat;
pub mod fold;
mod form;
mod hand;
#[doc(hidden)]
pub mod heads;
mod hem;
mod hole;
mod joggle;
mod lay_seam;
mod mesh;
mod moved;
mod numbers;
mod part;
pub mod partition;
mod patch;
mod pointed;
mod read;
mod reader;
mod record;
mod recording;
mod rib;
mod seam;
mod set;
mod shape;
mod sheets;
mod slice;
mod split;
mod stitch;
mod stretch;
mod subset;
mod transition;
pub mod tree;
mod verbs;

pub use again_numbers::{AgainMove, AgainNumbers};
pub use alike::{Alike, BlankCut};
pub use body::{BodyError, body_to_ask, folded_body, heads_left_out};
pub use build::{Built, BuiltBlank, build, would_stand};
pub use chain::{ProfileNumbers, RollNumbers, RollSize};
pub use corner::{CornerCut, CornerNumbers};
pub use crease::CreaseNumbers;
pub use cut_edges::{CutEdge, cut_edges};
pub use extents::folded_extents;
pub use face_names::wall_called;
pub use figures::{Figures, figures, folded_centre};
pub use flat::{
    Bend, BendMake, BendSide, BendSizes, EdgeRecord, Flat, Hole, HoleCopy, Node, NodeKind, Strip, TabRecord, TagKind,
    TagRecord,
};
pub use form::{Form, FormMass, Pressed};
pub use hem::{HemFold, HemNumbers};
pub use hole::{
    AlongNumbers, HoleNumbers, HolePart, HoleShape, HoleWork, PlaceNumbers, RepeatNumbers, RimRowNumbers,
    SpreadNumbers, WorkNumbers,
};
pub use joggle::{JoggleNumbers, web_length};
pub use mesh::{MeshError, folded_mesh};
pub use numbers::{
    AngleNumbers, BendNumbers, CornerMake, CornerReliefNumbers, LegNumbers, MethodNumbers, Numbers, ReliefNumbers,
};
pub use part::Part;
pub use patch::{HoleFace, displaced, form_face, form_height, hole_face, rib_displaced, rib_face};
pub use pointed::{Pointed, Pointing, pointed};
pub use read::read_operation;
pub use reader::ResolvedValue;
pub use record::{CutRecord, NodeCut};
pub use rib::{BentLegs, Rib, RibFault, RibPart, RibPiece, RibShell, RibSizes, RibZone, shells};
pub use seam::{Seam, SeamNumbers, SeamRecord};
pub use set::SheetSet;
pub use shape::{
    Disagreement, Laid, LooseAt, MOST_EDGES, NamedCircle, NamedPoint, PathFault, PullError, SayingRole, SayingStands,
    Standing, Traced, UnderlayStands, pull_to_round, read_path, write_path,
};
pub use sheets::{BlankLine, SheetBlank, Sheets, WholeFigures};
pub use slice::{NotchNumbers, NotchSize, SlotsNumbers, TabNumbers};
pub use split::{SplitNumbers, SplitPlace};
pub use stitch::{Blank, StitchError, stitch};
pub use transition::{
    AfterWelding, EdgeNumbers, EdgeSizes, EdgeTabNumbers, FlangeLies, PanelSizes, RimFlangeNumbers, RimPlane, RimSizes,
    SurfaceRecord, TransitionNumbers,
};
pub use verbs::{Bends, OperationNumbers, SHEET_VERBS, SheetVerb, SheetWork, sheet_verb};
