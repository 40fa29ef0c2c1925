//! Words of closed shapes. Every value is text with its unit, read later against the call-outs.

mod base;
mod drawn;
mod ready;
mod run;
mod underlay;

pub use base::{BaseShape, CombineAct, Combined, CombinedPart, PlacedBy, Profile};
pub use drawn::{Drawn, DrawnCircle, DrawnCorner, DrawnGuide, Saying, SayingKind};
pub use ready::{Across, Circle, Eared, Gusset, Lug, Obround, Polygon, Rectangle, Ring, Triangle};
pub use run::{OpenRun, Run, RunArc, RunArcThrough, RunLeg, RunLine, RunSide};
pub use underlay::{PicturePoint, ScalePair, Underlay};
