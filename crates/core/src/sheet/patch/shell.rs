//! The faces of a patch as they are put together: corners by their places, edges made once, openings as they are walked.

use std::collections::HashMap;

use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3, Walked};

pub(super) const UP: Vector3 = Vector3::new(0.0, 0.0, 1.0);

/// A patch while it is built.
pub(super) struct Shell {
    owner: String,
    pub body: Body,
    /// Edges by their corners and whether they are straight or which way they bulge.
    edges: HashMap<(usize, usize, i8), usize>,
}

impl Shell {
    pub fn new(owner: &str) -> Shell {
        Shell { owner: owner.to_string(), body: Body::default(), edges: HashMap::new() }
    }

    pub fn corner(&mut self, place: Point3) -> usize {
        self.body.corners.push(place);
        self.body.corners.len() - 1
    }

    fn edge(&mut self, (from, to): (usize, usize), kind: i8, curve: Curve) -> Walked {
        if let Some(&known) = self.edges.get(&(from, to, kind)) {
            return (known, true);
        }
        if let Some(&known) = self.edges.get(&(to, from, -kind)) {
            return (known, false);
        }
        self.body.edges.push(BodyEdge { from, to, curve });
        let at = self.body.edges.len() - 1;
        self.edges.insert((from, to, kind), at);
        (at, true)
    }

    pub fn line(&mut self, from: usize, to: usize) -> Walked {
        self.edge((from, to), 0, Curve::Line)
    }

    /// An arc in a level plane; `left` where it turns counter-clockwise seen from above.
    pub fn arc(&mut self, ends: (usize, usize), centre: Point3, radius: f64, left: bool) -> Walked {
        let (kind, axis) = if left { (1, UP) } else { (-1, -UP) };
        self.edge(ends, kind, Curve::Circle { centre, axis, radius })
    }

    /// An edge of a curve of its own, from its start.
    pub fn curve(&mut self, (from, to): (usize, usize), curve: Curve) -> Walked {
        self.body.edges.push(BodyEdge { from, to, curve });
        (self.body.edges.len() - 1, true)
    }

    pub fn face(&mut self, name: &str, surface: Surface, loops: Vec<Vec<Walked>>) {
        self.body.faces.push(BodyFace { name: name.into(), owner: self.owner.clone(), surface, loops });
    }

    /// A plane face between corners, walked counter-clockwise seen from outside of the metal.
    pub fn plane(&mut self, name: &str, corners: &[usize]) {
        let place = |at: usize| self.body.corners[corners[at % corners.len()]];
        let first = place(0);
        // Newell: the sum of the corners' products stands square to the plane, whatever the face's outline.
        let sum = (1..corners.len() - 1)
            .fold(Vector3::default(), |sum, at| sum + (place(at) - first).cross(place(at + 1) - first));
        let surface = Surface::Plane { point: first, normal: sum.unit(), across: (place(1) - first).unit() };
        let walk = self.around(corners);
        self.face(name, surface, vec![walk]);
    }

    /// Straight edges from corner to corner and back to the first.
    pub fn around(&mut self, corners: &[usize]) -> Vec<Walked> {
        (0..corners.len()).map(|at| self.line(corners[at], corners[(at + 1) % corners.len()])).collect()
    }
}

/// A walk the other way round.
pub(super) fn reversed(walk: &[Walked]) -> Vec<Walked> {
    walk.iter().rev().map(|&(edge, ahead)| (edge, !ahead)).collect()
}

/// A patch as it is when its sheet is turned over: what stood out of the upper face stands out of the lower one.
pub(super) fn turned_over(
    body: Body,
    openings: [Vec<Vec<Walked>>; 2],
    thickness: f64,
) -> (Body, [Vec<Vec<Walked>>; 2]) {
    let place = |at: Point3| Point3::new(at.x, at.y, thickness - at.z);
    let way = |by: Vector3| Vector3::new(by.x, by.y, -by.z);
    let mut over = body;
    over.corners.iter_mut().for_each(|corner| *corner = place(*corner));
    for edge in &mut over.edges {
        // A mirror turns the sense of a round about its axis.
        if let Curve::Circle { centre, axis, .. } = &mut edge.curve {
            (*centre, *axis) = (place(*centre), -way(*axis));
        }
    }
    for face in &mut over.faces {
        match &mut face.surface {
            Surface::Plane { point, normal, across } => {
                (*point, *normal, *across) = (place(*point), way(*normal), way(*across));
            }
            Surface::Cylinder { point, axis, across, .. }
            | Surface::Cone { point, axis, across, .. }
            | Surface::Torus { point, axis, across, .. } => {
                (*point, *axis, *across) = (place(*point), way(*axis), way(*across));
            }
            Surface::Ruled { .. } => {}
        }
        face.loops.iter_mut().for_each(|walk| *walk = reversed(walk));
    }
    let [lower, upper] = openings.map(|all| all.iter().map(|walk| reversed(walk)).collect::<Vec<_>>());
    (over, [upper, lower])
}
