//! Probes on the built geometry. Nothing here looks at the numbers that were typed.

mod feature;
mod frame;
mod frame_faces;
mod frame_witness;
mod in_flat;
mod looked_up;
mod measured;
mod probe;
mod sheets;
mod witness;

pub use feature::{Feature, feature};
pub use measured::{MeasureError, Measured, Witness, WitnessOn};
pub use probe::measure;
pub use sheets::measure_sheets;
