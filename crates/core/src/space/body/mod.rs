//! A closed body of planes, cylinders, cones, tori and ruled strips, with its edges and corners: the one exact solid, which
//! STEP, sizes, volumes and queries all read.

mod along;
mod curve;
mod extents;
mod integral;
mod meet;
mod mesh;
mod surface;
mod tidy;

use super::{Motion, Point3, Vector3};

pub(in crate::space) use curve::cubic;
pub(in crate::space) use extents::slope_roots;
pub use integral::BodyMass;
pub use meet::Tube;
pub(crate) use mesh::Facets;
pub use mesh::MeshFault;
pub use tidy::Walked;

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
pub struct BodyEdge {
    /// Its start, an index in [`Body::corners`].
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
    /// A cone: at `point` it is `radius` from its axis, and `slope` further out for each mm along it.
    Cone {
        /// A point on its axis.
        point: Point3,
        /// Unit vector of its axis.
        axis: Vector3,
        /// A unit vector square to the axis.
        across: Vector3,
        /// Its radius at the point, mm.
        radius: f64,
        /// How much the radius grows along the axis, mm a mm: the tangent of half its angle.
        slope: f64,
        /// Whether the metal lies within: its surface looks away from the axis.
        outward: bool,
    },
    /// A torus: a circle of radius `minor` carried round the axis at `major` from it.
    Torus {
        /// Its middle.
        point: Point3,
        /// Unit vector of its axis.
        axis: Vector3,
        /// A unit vector square to the axis.
        across: Vector3,
        /// From the axis to the middle of the tube, mm.
        major: f64,
        /// Radius of the tube, mm.
        minor: f64,
        /// Whether the metal lies within the tube.
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
pub struct BodyFace {
    /// What it is called: a name that the measures know.
    pub name: String,
    /// What it belongs to: the panel, bend or member whose metal it bounds.
    pub owner: String,
    /// Its surface.
    pub surface: Surface,
    /// Its loops.
    pub loops: Vec<Vec<(usize, bool)>>,
}

/// A closed solid.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Body {
    /// Corners, mm.
    pub corners: Vec<Point3>,
    /// Edges.
    pub edges: Vec<BodyEdge>,
    /// Faces.
    pub faces: Vec<BodyFace>,
}

impl Body {
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

    /// Takes in corners, edges and faces of another body as they are; nothing is joined.
    pub(crate) fn take_in(&mut self, other: Body) {
        let (corner, edge) = (self.corners.len(), self.edges.len());
        self.corners.extend(other.corners);
        let moved = |own: BodyEdge| BodyEdge { from: own.from + corner, to: own.to + corner, ..own };
        self.edges.extend(other.edges.into_iter().map(moved));
        self.faces.extend(other.faces.into_iter().map(|mut face| {
            face.loops.iter_mut().flatten().for_each(|walked| walked.0 += edge);
            face
        }));
    }

    /// For each edge the faces that it bounds: two, as bodies are closed.
    pub(in crate::space) fn faces_at_edges(&self) -> Vec<[Option<usize>; 2]> {
        let mut faces = vec![[None; 2]; self.edges.len()];
        for (index, face) in self.faces.iter().enumerate() {
            for &(edge, _) in face.loops.iter().flatten() {
                let known: &mut [Option<usize>; 2] = &mut faces[edge];
                if known[0].is_none() {
                    known[0] = Some(index);
                } else {
                    known[1] = Some(index);
                }
            }
        }
        faces
    }

    /// The body after a rigid motion. `name` gives faces and owners their names.
    pub fn moved(&self, motion: &Motion, name: impl Fn(&str) -> String) -> Body {
        let place = |point: &Point3| motion.apply(*point);
        let turn = |way: &Vector3| motion.direction(*way);
        let curve = |curve: &Curve| match curve {
            Curve::Line => Curve::Line,
            Curve::Circle { centre, axis, radius } => {
                Curve::Circle { centre: place(centre), axis: turn(axis), radius: *radius }
            }
            Curve::Ellipse { centre, axis, major, long, short } => Curve::Ellipse {
                centre: place(centre),
                axis: turn(axis),
                major: turn(major),
                long: *long,
                short: *short,
            },
            Curve::Cubic(points) => Curve::Cubic(points.iter().map(place).collect()),
        };
        Body {
            corners: self.corners.iter().map(place).collect(),
            edges: self.edges.iter().map(|edge| BodyEdge { curve: curve(&edge.curve), ..edge.clone() }).collect(),
            faces: self
                .faces
                .iter()
                .map(|face| BodyFace {
                    name: name(&face.name),
                    owner: name(&face.owner),
                    surface: face.surface.moved(motion),
                    loops: face.loops.clone(),
                })
                .collect(),
        }
    }
}
