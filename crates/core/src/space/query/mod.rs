//! What is asked of bodies. Each answers exactly, or says which faces it cannot answer for.

mod clash;
mod clearance;
mod contact;
mod nearest;
mod probe;
mod section;

pub use clash::{Clash, DEEP, clash, parted_by_a_face, shared_volume};
pub use clearance::{Clearance, clearance};
pub use contact::{Patch, Rim, RimKind, contact};
pub use probe::{FINE, Probe};
pub use section::{Section, section};

/// Faces that a question cannot be answered for.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("no exact answer for {}", faces.join(", "))]
pub struct Unsupported {
    /// Their names.
    pub faces: Vec<String>,
}
