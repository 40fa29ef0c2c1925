//! A number with its dimension.

use super::{Dimension, Round};

/// A value with its dimension, in millimetres, radians and kilograms.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Quantity {
    /// The number, in inner units.
    pub value: f64,
    /// What it measures.
    pub dimension: Dimension,
    /// True for a number typed without a unit: it takes on the unit that its place asks for.
    pub bare: bool,
    /// How the drawing says it, where it is a round's size and nothing was worked out of it.
    pub round: Option<Round>,
}

impl Quantity {
    /// A quantity that has its unit.
    pub fn new(value: f64, dimension: Dimension) -> Self {
        Quantity { value, dimension, bare: false, round: None }
    }
}
