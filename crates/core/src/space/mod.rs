//! Space: points, rigid motions, triangle meshes. Millimetres.

mod body;
mod clash;
mod mesh;
mod motion;
mod point;
pub mod query;

pub(crate) use body::Facets;
pub use body::{Body, BodyEdge, BodyFace, BodyMass, Curve, MeshFault, Surface, Tube, Walked};
pub use clash::{Prism, deepest_clash};
pub use mesh::{HoleField, Mesh};
pub use motion::Motion;
pub use point::{Box3, Point3, Vector3};
