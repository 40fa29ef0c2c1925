//! Welded frames: centre lines with sections on them, settled corners, plates; the cut list comes from what is built.

mod body;
mod bores;
mod build;
mod clash;
mod clash_pair;
mod cut_plane;
mod cutout;
mod end;
mod end_at;
mod faces;
mod fields;
mod fit;
mod import;
mod joint;
mod laid_plate;
mod layout;
mod list;
mod lug;
mod made;
mod member;
mod members;
mod model;
mod names;
mod outside;
mod over;
mod pass;
mod picture;
mod plain;
mod plate;
mod plate_same;
mod reader;
mod ready;
mod same;
mod settle;
mod shape;
mod skeleton;
mod solid;
mod told;
mod verbs;
mod weigh;
mod weld;
mod weld_kind;
mod whole;
mod wrap;

pub use build::{FrameBuilt, FrameInput, build_frame};
pub use clash::{FrameClashes, MemberClash, PlateClash, PlateMeets, clashes};
pub use cut_plane::{CutBy, CutPlane};
pub use cutout::{Cutout, CutoutDepth, CutoutKind};
pub use end::{Cope, End};
pub use end_at::{EndAt, Meeting};
pub use faces::{Face, FaceHole, faces};
pub use joint::JointNumbers;
pub use laid_plate::{Extreme, FramePlate, PlateForm, Told};
pub use list::{
    EndCutWords, FrameLine, FrameList, LineKind, Sum, end_words, file_stem, frame_list, to_step, why_length, why_mass,
};
pub use lug::{LugFigures, REVIEW};
pub use made::FrameMade;
pub use member::{Basis, Bore, Member};
pub use model::Frame;
pub use names::matches;
pub use picture::{PiecePicture, piece_picture};
pub use plain::bodies;
pub use plate_same::PlateCut;
pub use ready::sizes_of;
pub use same::{Alike, Cut};
pub use skeleton::{Arc, CentreLine, Node, ONE_NODE, Skeleton, meeting};
pub use solid::{
    BodyFault, FACETS, FrameBodies, from_mesh, is_drilled, member_body, member_solid, member_wall_names, plate_body,
};
pub use verbs::{FRAME_VERBS, FrameVerb, frame_verb};
pub use weld::{Weld, WeldsFound, cautions as weld_cautions, cut_perimeter, fillet_leg, weld_lengths_back, welds};
pub use weld_kind::{WeldKind, WeldSides};
pub use whole::{frame_mesh, frame_solids, holes_made_by, in_facets, undrilled};
pub use wrap::{Wrap, has_wrap, wrap_template};
