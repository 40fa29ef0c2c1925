//! A hole about to be cut.

use crate::plane::{Outline, Point};
use crate::sheet::flat::HoleCopy;

use super::work::HoleWork;

/// A hole about to be made.
pub(in crate::sheet) struct NewHole {
    /// Its own name.
    pub name: String,
    /// Counter-clockwise, in the flat.
    pub outline: Outline,
    /// Where it is placed by.
    pub centre: Point,
    /// What is done there besides the outline.
    pub work: HoleWork,
    /// The hole that it is a copy of.
    pub copy: Option<HoleCopy>,
}
