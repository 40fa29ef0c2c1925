//! Members as closed solids: planes, cylinders, cones, tori, with the curves where they meet. Straight and bent members with ends
//! of planes, points, copes and cutouts are exact, with the holes in them. What is told in facets only says so.

mod bodies;
mod bore;
mod ends;
mod fault;
mod path;
mod piece;
mod rim;
mod shell;
mod shown;
mod split;
mod stations;
mod surface;
mod trace;
mod wall;
mod wall_names;

pub use bodies::FrameBodies;
pub(in crate::frame) use bodies::renamed;
pub use bore::is_drilled;
pub use fault::BodyFault;
pub(in crate::frame) use piece::facets;
pub use piece::{FACETS, from_mesh, member_body, member_solid, plate_body};
pub(in crate::frame) use shown::{drilled_by, mesh_within};
pub use wall_names::member_wall_names;
