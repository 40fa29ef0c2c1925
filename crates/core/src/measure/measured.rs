//! What a measure comes to, or why it cannot be told.

use crate::quantity::Dimension;

/// A measured value, in mm, radians, kg, mm2 or mm3.
#[derive(Clone, Copy, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Measured {
    pub value: f64,
    pub dimension: Dimension,
}

/// Why something cannot be measured.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{message}")]
pub struct MeasureError {
    /// What is wrong.
    pub message: String,
    /// What to do.
    pub way_out: String,
}

impl MeasureError {
    pub(super) fn new(message: impl Into<String>, way_out: impl Into<String>) -> Self {
        MeasureError { message: message.into(), way_out: way_out.into() }
    }
}
