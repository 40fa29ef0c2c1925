//! What a measure comes to, or why it cannot be told.

use serde::Serialize;
use utoipa::ToSchema;

use crate::quantity::Dimension;
use crate::space::{Point3, Vector3};

/// A measured value, in mm, radians, kg, mm2 or mm3.
#[derive(Clone, Debug, PartialEq)]
pub struct Measured {
    /// The value, in inner units.
    pub value: f64,
    /// What it is.
    pub dimension: Dimension,
    /// Where it was measured: one for most, one a stretch for an edge of several, two for two diagonals; none for counts, masses,
    /// areas, volumes and lengths of cut, which are of the whole.
    pub witnesses: Vec<Witness>,
}

/// What a witness's places are told in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WitnessOn {
    /// The folded part or the frame, as it lies.
    Made,
    /// The blank in the flat, z up.
    Blank,
}

/// Where something is measured: the two places that bound it, and the direction of the measure. A length is the way from one to the
/// other, told along the direction; of an angle the places are on its two sides and the direction is what it turns about.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Witness {
    /// The first place, mm.
    pub from: Point3,
    /// The second, mm.
    pub to: Point3,
    /// Unit direction.
    pub along: Vector3,
    /// What the places are told in.
    pub on: WitnessOn,
}

impl Witness {
    /// On what was made.
    pub fn made(from: Point3, to: Point3, along: Vector3) -> Witness {
        Witness { from, to, along, on: WitnessOn::Made }
    }

    /// Straight from one place to another.
    pub(super) fn straight(from: Point3, to: Point3) -> Witness {
        Witness::made(from, to, (to - from).unit())
    }

    /// The way from one place to the other along the direction, mm; with its sign.
    pub fn length(&self) -> f64 {
        (self.to - self.from).dot(self.along)
    }
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
