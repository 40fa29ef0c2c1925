//! A closed solid of planes, cylinders and ruled strips, with its edges and corners: what a STEP file says.

use super::{Point3, Vector3};

/// The curve of an edge.
#[derive(Clone, Debug, PartialEq)]
pub enum Curve {
    /// Straight.
    Line,
    /// Part of a circle, counter-clockwise about its axis from the edge's start to its end.
    Circle {
        /// Its centre.
        centre: Point3,
        /// Unit vector of its axis.
        axis: Vector3,
        /// Its radius, mm.
        radius: f64,
    },
    /// Part of an ellipse, counter-clockwise about its axis from the edge's start to its end.
    Ellipse {
        /// Its centre.
        centre: Point3,
        /// Unit vector of its axis.
        axis: Vector3,
        /// Unit vector along its long half.
        major: Vector3,
        /// Its long half, mm.
        long: f64,
        /// Its short half, mm.
        short: f64,
    },
    /// Cubic pieces end to end: four points for the first, three more for each that follows.
    Cubic(Vec<Point3>),
}

/// An edge between two corners.
#[derive(Clone, Debug, PartialEq)]
pub struct SolidEdge {
    /// Its start, an index in [`Solid::corners`].
    pub from: usize,
    /// Its end.
    pub to: usize,
    /// Its curve.
    pub curve: Curve,
}

/// The surface of a face.
#[derive(Clone, Debug, PartialEq)]
pub enum Surface {
    /// A plane with its unit normal, away from the metal.
    Plane {
        /// A point on it.
        point: Point3,
        /// Unit normal.
        normal: Vector3,
        /// A unit vector in it.
        across: Vector3,
    },
    /// A cylinder.
    Cylinder {
        /// A point on its axis.
        point: Point3,
        /// Unit vector of its axis.
        axis: Vector3,
        /// A unit vector square to the axis.
        across: Vector3,
        /// Its radius, mm.
        radius: f64,
        /// Whether the metal lies within: its surface looks away from the axis.
        outward: bool,
    },
    /// Straight lines between two curves of cubic pieces.
    Ruled {
        /// The first curve.
        first: Vec<Point3>,
        /// The second, as many points.
        second: Vec<Point3>,
        /// Whether the direction along the curves crossed with that from the first to the second looks away from the
        /// metal.
        outward: bool,
    },
}

/// A face: its surface and its closed loops of edges, each with whether it is walked from its start. The first loop is
/// the outer one; the metal's outside is toward the reader when loops run counter-clockwise.
#[derive(Clone, Debug, PartialEq)]
pub struct SolidFace {
    /// What it is called.
    pub name: String,
    /// Its surface.
    pub surface: Surface,
    /// Its loops.
    pub loops: Vec<Vec<(usize, bool)>>,
}

/// A closed solid.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Solid {
    /// Corners, mm.
    pub corners: Vec<Point3>,
    /// Edges.
    pub edges: Vec<SolidEdge>,
    /// Faces.
    pub faces: Vec<SolidFace>,
}

impl Solid {
    /// Whether every edge is walked twice, once each way: the shell is closed and has one outside.
    pub fn is_closed(&self) -> bool {
        let mut walked = vec![(0u32, 0u32); self.edges.len()];
        for (edge, ahead) in self.faces.iter().flat_map(|face| face.loops.iter().flatten()) {
            if *ahead {
                walked[*edge].0 += 1;
            } else {
                walked[*edge].1 += 1;
            }
        }
        !self.faces.is_empty() && walked.iter().all(|&both| both == (1, 1))
    }
}
