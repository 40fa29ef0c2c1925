//! Plane geometry: points, lines and arcs, closed outlines, regions with holes. Millimetres; counter-clockwise is
//! positive; arcs stay arcs.

mod boolean;
mod distance;
mod moments;
mod offset;
mod outline;
mod point;
mod region;
mod segment;
mod slit;
pub mod solve;
mod sweep;
pub mod tidy;
mod triangulate;

pub use boolean::{common, common_area, common_outlines, subtract, unite};
pub use distance::{outline_distance, segment_distance};
pub(crate) use moments::GAUSS;
pub use moments::Moments;
pub use offset::offset;
pub use outline::{Edge, Outline};
pub use point::{Box2, Point, Vector};
pub use region::Region;
pub use segment::Segment;
pub use slit::Slit;
pub use sweep::swept;
pub use triangulate::{Triangles, TriangulateError, triangulate};

pub use crate::quantity::tolerance::MODELLING_TOLERANCE;

/// What an edge belongs to; meaning is given by whoever made it. Zero is "no name".
pub type Tag = u32;
