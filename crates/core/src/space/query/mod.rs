//! What is asked of bodies. Each answers exactly, or says which faces it cannot answer for.

mod contact;

pub use contact::{Patch, Rim, RimKind, contact};
