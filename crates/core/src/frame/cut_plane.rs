//! A flat cut of an end, as a height over the section.

use crate::plane::Point;
use crate::space::Vector3;

/// What an end is cut by.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum CutBy {
    /// Nothing: it ends square to its line.
    Square,
    /// An angle that was typed.
    Angle,
    /// A plane that was typed.
    Plane,
    /// The plane halfway to a member, by name.
    Mitre(String),
    /// A face of a member, by name.
    Face(String),
    /// The outline of a member, by name.
    Outline(String),
    /// A round, of which it is one fibre or one crossing: it stands for no cut of its own.
    Round,
}

impl std::fmt::Display for CutBy {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            CutBy::Square => write!(to, "square"),
            CutBy::Angle => write!(to, "angle as typed"),
            CutBy::Plane => write!(to, "plane"),
            CutBy::Mitre(with) => write!(to, "mitre with {with}"),
            CutBy::Face(of) => write!(to, "face of {of}"),
            CutBy::Outline(of) => write!(to, "outline of {of}"),
            CutBy::Round => write!(to, "round"),
        }
    }
}

/// A plane that cuts an end: metal is kept where `normal . place <= level`, in the end's frame.
#[derive(Clone, Debug, PartialEq)]
pub struct CutPlane {
    /// Unit normal, away from the metal.
    pub normal: Vector3,
    /// Level along it, mm.
    pub level: f64,
    /// What cuts.
    pub by: CutBy,
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
