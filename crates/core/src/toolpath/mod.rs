//! Cut programs: which contours are cut, with kerf, leads, tabs, in which order, and how long it takes.

mod choice;
mod estimate;
mod lead;
#[doc(hidden)]
pub mod order;
mod plan;
mod profile;
mod tab;

pub use choice::{CuttingValue, Settings, settings};
pub use estimate::{Estimate, estimate};
pub use plan::{CutPath, Mark, Plan, Side, plan};
pub use profile::{CutHole, Profile, profile};
