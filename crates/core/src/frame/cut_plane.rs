//! A flat cut of an end, as a height over the section.

use crate::plane::Point;
use crate::space::Vector3;

/// A plane that cuts an end: metal is kept where `normal . place <= level`, in the end's frame.
#[derive(Clone, Debug, PartialEq)]
pub struct CutPlane {
    /// Unit normal, away from the metal.
    pub normal: Vector3,
    /// Level along it, mm.
    pub level: f64,
    /// What cuts: `mitre with top-left`, `face of top-front`.
    pub by: String,
    /// The members that it is cut to: several where their faces lie in one plane, as of a leg under two rails.
    pub to: Vec<usize>,
}

impl CutPlane {
    /// Where the plane meets the fibre at (u, v), mm.
    pub fn reach(&self, at: Point) -> f64 {
        (self.level - self.normal.x * at.x - self.normal.y * at.y) / self.normal.z
    }

    /// Saw angle from square, radians.
    pub fn angle(&self) -> f64 {
        self.normal.z.abs().min(1.0).acos()
    }
}
