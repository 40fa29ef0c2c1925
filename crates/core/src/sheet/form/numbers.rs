//! Forms in numbers.

use crate::sheet::hole::HoleNumbers;

use super::Pressed;

/// The numbers of one operation's forms.
#[derive(Clone, Debug, PartialEq)]
pub struct FormNumbers {
    /// Where they go, and the footprint of each.
    pub places: HoleNumbers,
    /// What each is.
    pub shape: Pressed,
    /// Whether they stand out of the upper face.
    pub up: bool,
    /// Of a louvre: whether it opens toward the edge that it is placed from.
    pub toward: bool,
}
