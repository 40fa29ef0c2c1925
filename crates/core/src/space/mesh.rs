//! A triangle mesh with the name of what each triangle belongs to: for the screen and for cross-checks.

use super::{Box3, Point3};

/// Triangles over shared points, outward sides counter-clockwise.
#[derive(Clone, Debug, Default)]
pub struct Mesh {
    /// Points, mm.
    pub points: Vec<Point3>,
    /// Corners of each triangle.
    pub triangles: Vec<[u32; 3]>,
    /// For each triangle, an index into `features`.
    pub owners: Vec<u32>,
    /// Names of panels, bends, edges and holes.
    pub features: Vec<String>,
}

impl Mesh {
    /// Enclosed volume, mm3, by the divergence theorem; meaningful for a closed mesh.
    pub fn volume(&self) -> f64 {
        self.triangles
            .iter()
            .map(|corners| {
                let [a, b, c] = corners.map(|at| self.points[at as usize].from_origin());
                a.dot(b.cross(c)) / 6.0
            })
            .sum()
    }

    /// Whether every edge is walked once each way: no gap, no edge shared by three.
    pub fn is_watertight(&self) -> bool {
        let mut walked = std::collections::HashSet::new();
        let each = || self.triangles.iter().flat_map(|&[a, b, c]| [(a, b), (b, c), (c, a)]);
        each().all(|edge| edge.0 != edge.1 && walked.insert(edge)) && each().all(|(a, b)| walked.contains(&(b, a)))
    }

    /// The smallest upright box around it.
    pub fn extents(&self) -> Box3 {
        self.points.iter().fold(Box3::EMPTY, |mut around, &point| {
            around.hold(point);
            around
        })
    }
}
