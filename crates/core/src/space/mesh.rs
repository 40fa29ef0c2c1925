//! A triangle mesh with the name of what each triangle belongs to: for the screen and for cross-checks.

use super::{Box3, Point3, Vector3};

/// Many holes of one shape in one panel, drawn as copies instead of as triangles of the mesh.
#[derive(Clone, Debug, Default)]
pub struct HoleField {
    /// The operation that made them.
    pub feature: String,
    /// Their outline about its place, along `along` and `across`, mm; counter-clockwise.
    pub ring: Vec<[f64; 2]>,
    /// Unit vector of the ring's x, folded.
    pub along: Vector3,
    /// Unit vector of the ring's y, folded.
    pub across: Vector3,
    /// The place of the first on the lower face.
    pub lower: Point3,
    /// The place of the first on the upper face.
    pub upper: Point3,
    /// How far each lies from the first, along `along` and `across`, mm: the first itself at nought.
    pub places: Vec<[f64; 2]>,
}

impl HoleField {
    /// A place in the field from one of the first hole's.
    pub fn place(&self, first: Point3, [x, y]: [f64; 2]) -> Point3 {
        first + self.along * x + self.across * y
    }
}

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
    /// Edges worth drawing, as pairs of points: where faces meet walls and where walls turn a corner.
    pub lines: Vec<[u32; 2]>,
    /// Holes that the triangles leave closed.
    pub fields: Vec<HoleField>,
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

    /// Adds another mesh beside this one: nothing of the two is joined.
    pub fn add(&mut self, other: Mesh) {
        let (points, features) = (self.points.len() as u32, self.features.len() as u32);
        self.points.extend(other.points);
        self.triangles.extend(other.triangles.iter().map(|corners| corners.map(|at| at + points)));
        self.owners.extend(other.owners.iter().map(|at| at + features));
        self.features.extend(other.features);
        self.lines.extend(other.lines.iter().map(|ends| ends.map(|at| at + points)));
        self.fields.extend(other.fields);
    }

    /// The smallest upright box around it.
    pub fn extents(&self) -> Box3 {
        self.points.iter().fold(Box3::EMPTY, |mut around, &point| {
            around.hold(point);
            around
        })
    }
}
