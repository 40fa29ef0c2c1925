//! How a solved outline stands: what settles it, what is loose, what disagrees.

use serde::Serialize;
use utoipa::ToSchema;

use crate::plane::Point;

use super::underlay::{Traced, UnderlayStands};

/// How a solved outline stands.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Standing {
    /// How many numbers are still missing; 0 is "defined".
    pub missing: usize,
    /// What may still move.
    pub loose: Vec<LooseAt>,
    /// What each saying came to, in order.
    pub sayings: Vec<SayingStands>,
    /// What disagrees; empty when all agree.
    pub disagree: Vec<Disagreement>,
    /// Where each named point lies, mm: corners, centres, ends of guides.
    pub points: Vec<NamedPoint>,
    /// Where each circle lies.
    pub circles: Vec<NamedCircle>,
    /// The picture under it.
    pub underlay: Option<UnderlayStands>,
    /// Sizes as traced from the picture that no number is on yet.
    pub traced: Vec<Traced>,
}

/// A point by name, mm.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct NamedPoint {
    pub name: String,
    pub x: f64,
    pub y: f64,
}

/// A circle by name; its centre is among the points as `NAME.centre`.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct NamedCircle {
    pub name: String,
    pub radius: f64,
}

/// A point or radius that no number holds yet.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LooseAt {
    /// The point's name, or the circle's whose radius is loose.
    pub name: String,
    /// Where it is, mm.
    pub place: Point,
    /// The one direction that it may move in, a unit vector; none: any way.
    pub along: Option<[f64; 2]>,
    /// Whether it is a radius that may change.
    pub radius: bool,
}

/// What one saying came to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SayingStands {
    /// What it does.
    pub role: SayingRole,
    /// What it measures on the solved shape, mm or radians; `None` for a rule or one that could not be read.
    pub measured: Option<f64>,
}

/// What a saying does.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SayingRole {
    /// It shapes the outline.
    Drives,
    /// The others already say it: it is a proof.
    Implied,
    /// It disagrees with others.
    Disagrees,
    /// It could not be read and is left out.
    Unread,
}

/// Sayings that cannot all be true.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Disagreement {
    /// Their places among the sayings; taking any one out settles it.
    pub sayings: Vec<usize>,
    /// The one that is measured against the others.
    pub measured: usize,
    /// By how much it is off, mm or radians.
    pub off_by: f64,
    /// Whether `off_by` is an angle.
    pub angle: bool,
}
