//! A distance, and the directions to measure along.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::FeatureName;
use crate::space::Vector3;

/// A distance: the shortest, or along one direction of the folded part.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Distance {
    pub from: FeatureName,
    pub to: FeatureName,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<Axis>,
}

/// A direction of the folded part; x along the base's front, y from front to back, z up.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Axis {
    X,
    Y,
    Z,
}

impl Axis {
    /// One along it.
    pub fn unit(self) -> Vector3 {
        match self {
            Axis::X => Vector3::new(1.0, 0.0, 0.0),
            Axis::Y => Vector3::new(0.0, 1.0, 0.0),
            Axis::Z => Vector3::new(0.0, 0.0, 1.0),
        }
    }

    /// What a vector has along it.
    pub fn of(self, v: Vector3) -> f64 {
        self.unit().dot(v)
    }

    /// Its letter.
    pub fn letter(self) -> char {
        match self {
            Axis::X => 'x',
            Axis::Y => 'y',
            Axis::Z => 'z',
        }
    }
}

/// Along which direction.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Along {
    pub along: Axis,
}
