//! Welded frames: centre lines with sections on them, settled corners, plates; the cut list comes from what is built.

mod body;
mod build;
mod convex;
mod import;
mod joint;
mod list;
mod lug;
mod measure;
mod member;
mod notch;
mod params;
mod picture;
mod plate;
mod reader;
mod ready;
mod same;
mod skeleton;
mod solid;
mod weld;
mod wrap;

pub use body::{Keep, MemberClash, PlateClash, add_bores, add_to_mesh, clashes, plate_clashes};
pub use build::{Frame, FrameBuilt, FrameInput, build_frame, matches};
pub use joint::{EndAt, JointNumbers, Meeting};
pub use list::{EndCutWords, FrameLine, FrameList, Sum, end_words, frame_list, to_step, why_length, why_mass};
pub use lug::{LugFigures, REVIEW};
pub use measure::{BetweenMembers, BetweenNodes, FrameMade, FrameMeasure, OfEnd, OfMember, OfWeldment, TwoDiagonals};
pub use member::{Basis, Bore, Cope, CutPlane, End, Member, Notch};
pub use params::*;
pub use picture::{PiecePicture, piece_picture};
pub use plate::FramePlate;
pub use ready::sizes_of;
pub use same::{Alike, Cut};
pub use skeleton::{Arc, Line, Node, ONE_NODE, Skeleton, meeting};
pub use solid::{FACETS, frame_solids, from_mesh, member_solid, member_solids};
pub use weld::{Weld, cautions as weld_cautions, cut_perimeter, fillet_leg, welds};
pub use wrap::{Wrap, wrap_template};
