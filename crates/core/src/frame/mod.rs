//! Welded frames: centre lines with sections on them, settled corners, plates; the cut list comes from what is built.

mod body;
mod bores;
mod build;
mod clash;
mod cutout;
mod faces;
mod fit;
mod import;
mod joint;
mod list;
mod lug;
mod measure;
mod measure_faces;
mod member;
mod over;
mod params;
mod pass;
mod picture;
mod plate;
mod plate_same;
mod reader;
mod ready;
mod same;
mod shape;
mod skeleton;
mod solid;
mod told;
mod weld;
mod wrap;

pub use build::{Frame, FrameBuilt, FrameInput, build_frame, matches};
pub use clash::{FrameClashes, MemberClash, PlateClash, PlateMeets, clashes};
pub use cutout::{Cutout, CutoutDepth, CutoutKind, bodies};
pub use faces::{Face, FaceHole, faces};
pub use joint::{EndAt, JointNumbers, Meeting};
pub use list::{
    EndCutWords, FrameLine, FrameList, Sum, end_words, file_stem, frame_list, to_step, why_length, why_mass,
};
pub use lug::{LugFigures, REVIEW};
pub use measure::{BetweenMembers, BetweenNodes, FrameMade, FrameMeasure, OfEnd, OfMember, OfWeldment, TwoDiagonals};
pub use member::{Basis, Bore, Cope, CutPlane, End, Member};
pub use params::*;
pub use picture::{PiecePicture, piece_picture};
pub use plate::FramePlate;
pub use plate_same::PlateCut;
pub use ready::sizes_of;
pub use same::{Alike, Cut};
pub use skeleton::{Arc, Line, Node, ONE_NODE, Skeleton, meeting};
pub use solid::{
    BodyFault, FACETS, FrameBodies, frame_mesh, frame_solids, from_mesh, in_facets, is_drilled, member_body,
    member_solid, plate_body, undrilled,
};
pub use told::{Extreme, Told};
pub use weld::{Weld, WeldsFound, cautions as weld_cautions, cut_perimeter, fillet_leg, weld_lengths_back, welds};
pub use wrap::{Wrap, wrap_template};
