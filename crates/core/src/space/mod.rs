//! Space: points, rigid motions, triangle meshes. Millimetres.

mod clash;
mod mesh;
mod motion;
mod point;
mod solid;

pub use clash::{Prism, deepest_clash};
pub use mesh::{HoleField, Mesh};
pub use motion::Motion;
pub use point::{Box3, Point3, Vector3};
pub use solid::{Curve, Solid, SolidEdge, SolidFace, Surface};
