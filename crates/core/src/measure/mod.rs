//! Probes on the built geometry. Nothing here looks at the numbers that were typed.

mod feature;
mod frame;
mod frame_faces;
mod measured;
mod probe;

pub use feature::{Feature, feature};
pub use measured::{MeasureError, Measured};
pub use probe::{measure, span};
