//! A body made ready for questions that search: fine triangles with the exact normals behind them.

use crate::quantity::tolerance::ROUNDING;
use crate::space::body::Facets;
use crate::space::{Body, Box3, MeshFault, Point3, Vector3};

/// Sine of the angle at which a line sees a triangle edge on.
const EDGE_ON: f64 = 1e-13;

/// How near the triangles of a probe are to its body, mm.
pub const FINE: f64 = 0.01;

/// A body made ready for questions that search.
#[derive(Clone, Debug)]
pub struct Probe {
    /// Its triangles' corners.
    pub(super) corners: Vec<[Point3; 3]>,
    /// The box around each triangle.
    pub(super) boxes: Vec<Box3>,
    /// The box around each [`GROUP`] of triangles that follow each other, which mostly lie together.
    pub(super) groups: Vec<Box3>,
    /// For each triangle its face.
    pub(super) faces: Vec<u32>,
    /// What it is the probe of.
    pub(super) body: Body,
    /// The box around it all.
    pub(super) around: Box3,
}

/// Triangles of a group.
const GROUP: usize = 24;

fn boxed(corners: &[Point3; 3]) -> Box3 {
    let mut around = Box3::EMPTY;
    corners.iter().for_each(|&corner| around.hold(corner));
    around
}

/// Rays for the count of crossings, a little aside of the axes, so that few boxes lie on their way and no flat face lies along
/// them: any that grazes an edge gives way to the next.
const WAYS: [Vector3; 4] = [
    Vector3::new(1.0, 0.013_371, -0.007_713),
    Vector3::new(-0.011_917, 1.0, 0.008_239),
    Vector3::new(0.009_417, -0.014_143, 1.0),
    Vector3::new(0.480_371, 0.651_204, -0.587_513),
];

impl Probe {
    /// The probe of a body.
    ///
    /// # Errors
    /// [`MeshFault`] where a face cannot be cut into triangles.
    pub fn new(body: &Body) -> Result<Probe, MeshFault> {
        let Facets { points, triangles, faces, .. } = body.facets(FINE)?;
        let corners: Vec<[Point3; 3]> = triangles.iter().map(|corners| corners.map(|at| points[at as usize])).collect();
        let mut probe =
            Probe { corners, boxes: Vec::new(), groups: Vec::new(), faces, body: body.clone(), around: Box3::EMPTY };
        probe.boxed();
        Ok(probe)
    }

    fn boxed(&mut self) {
        self.boxes = self.corners.iter().map(boxed).collect();
        let both = |all: &[Box3]| {
            let mut around = Box3::EMPTY;
            for own in all {
                around.hold(own.low);
                around.hold(own.high);
            }
            around
        };
        self.groups = self.boxes.chunks(GROUP).map(both).collect();
        self.around = both(&self.groups);
    }

    /// Triangles whose boxes share more than `skin` with a box, or come as near where it is below zero; by index.
    pub(super) fn near<'a>(&'a self, other: &'a Box3, skin: f64) -> impl Iterator<Item = usize> + 'a {
        let groups = self.groups.iter().enumerate().filter(move |(_, around)| around.overlaps(other, skin));
        let within = groups.flat_map(|(at, _)| at * GROUP..((at + 1) * GROUP).min(self.boxes.len()));
        within.filter(move |&at| self.boxes[at].overlaps(other, skin))
    }

    /// The unit normal away from the metal near a place of a triangle.
    pub(super) fn normal(&self, triangle: usize, place: Point3) -> Vector3 {
        let [a, b, c] = self.corners[triangle];
        self.body.faces[self.faces[triangle] as usize]
            .surface
            .normal_at(place)
            .unwrap_or_else(|| (b - a).cross(c - a).unit())
    }

    /// Whether a place lies in the metal deeper than `depth` mm, to within [`FINE`].
    pub fn holds(&self, place: Point3, depth: f64) -> bool {
        let within = |around: &Box3, by: f64| {
            let (low, high) = (around.low, around.high);
            place.x >= low.x - by
                && place.x <= high.x + by
                && place.y >= low.y - by
                && place.y <= high.y + by
                && place.z >= low.z - by
                && place.z <= high.z + by
        };
        if !within(&self.around, -depth) {
            return false;
        }
        let mut at = Box3::EMPTY;
        at.hold(place);
        let near = |at: usize| nearest_on(&self.corners[at], place).distance(place) < depth;
        !self.near(&at, -depth).any(near) && self.is_inside(place)
    }

    /// Whether a place that is not on the rim lies inside: a ray crosses the shell an odd number of times.
    pub(super) fn is_inside(&self, place: Point3) -> bool {
        let far = self.around.size().length() + 1.0;
        for way in WAYS {
            let mut beam = Box3::EMPTY;
            beam.hold(place);
            beam.hold(place + way * far);
            let mut inside = false;
            let clean = self.near(&beam, -ROUNDING).all(|at| match crossing(&self.corners[at], place, way) {
                Crossing::Clear => true,
                Crossing::Through(at) => {
                    inside ^= at > 0.0;
                    true
                }
                Crossing::Grazes => false,
            });
            if clean {
                return inside;
            }
        }
        false
    }
}

/// Triangles of a probe sorted into the cells of a box seen along a direction, so that a line that way asks few of them.
pub(super) struct Sorted<'a> {
    probe: &'a Probe,
    way: Vector3,
    /// The two directions across, each with where the box begins and the size of a cell.
    sides: [(Vector3, f64, f64); 2],
    cells: Vec<Vec<u32>>,
}

/// Cells each way.
const CELLS: usize = 16;

impl<'a> Sorted<'a> {
    /// Sorts the triangles over a box; `way` and the `sides` are three of the axes x, y and z.
    pub(super) fn new(probe: &'a Probe, within: &Box3, way: Vector3, sides: [Vector3; 2]) -> Sorted<'a> {
        let sides = sides.map(|side| {
            let (low, high) = (within.low.from_origin().dot(side), within.high.from_origin().dot(side));
            (side, low, ((high - low) / CELLS as f64).max(ROUNDING))
        });
        let mut sorted = Sorted { probe, way, sides, cells: vec![Vec::new(); CELLS * CELLS] };
        for (at, around) in probe.boxes.iter().enumerate() {
            let spans = [0, 1].map(|side| {
                let cell = |place: Point3| sorted.along(side, place).floor();
                let (low, high) = (cell(around.low), cell(around.high));
                let within = high >= 0.0 && low < CELLS as f64;
                within.then(|| (low.max(0.0) as usize, (high as usize).min(CELLS - 1)))
            });
            let [Some((a, b)), Some((c, d))] = spans else { continue };
            for row in c..=d {
                for cell in &mut sorted.cells[row * CELLS + a..=row * CELLS + b] {
                    cell.push(at as u32);
                }
            }
        }
        sorted
    }

    fn along(&self, side: usize, place: Point3) -> f64 {
        let (side, low, cell) = self.sides[side];
        (place.from_origin().dot(side) - low) / cell
    }

    /// Where a line through a place of the box crosses the shell: how far along, in order.
    pub(super) fn crossings(&self, place: Point3) -> Vec<f64> {
        let [a, b] = [0, 1].map(|side| (self.along(side, place).max(0.0) as usize).min(CELLS - 1));
        let mut all: Vec<f64> = self.cells[b * CELLS + a]
            .iter()
            .filter_map(|&at| match crossing(&self.probe.corners[at as usize], place, self.way) {
                Crossing::Through(at) => Some(at),
                _ => None,
            })
            .collect();
        all.sort_by(f64::total_cmp);
        all
    }
}

/// A line and a triangle.
enum Crossing {
    Clear,
    /// How far along the line.
    Through(f64),
    /// So near to an edge that rounding decides.
    Grazes,
}

/// Where a line crosses a triangle (Moller and Trumbore, 1997).
fn crossing(&[a, b, c]: &[Point3; 3], place: Point3, way: Vector3) -> Crossing {
    const GRAZE: f64 = 1e-9;
    let (along, up) = (b - a, c - a);
    let side = way.cross(up);
    let size = along.dot(side);
    let arm = place - a;
    let u = arm.dot(side);
    let turned = arm.cross(along);
    let v = way.dot(turned);
    let scale = along.length() * up.length();
    if size.abs() < EDGE_ON * scale {
        // Edge on: it counts only where the line lies in its plane.
        let normal = along.cross(up);
        return if (arm.dot(normal)).abs() < GRAZE * normal.length() { Crossing::Grazes } else { Crossing::Clear };
    }
    let (u, v) = (u / size, v / size);
    if u < -GRAZE || v < -GRAZE || u + v > 1.0 + GRAZE {
        return Crossing::Clear;
    }
    if u < GRAZE || v < GRAZE || u + v > 1.0 - GRAZE {
        return Crossing::Grazes;
    }
    Crossing::Through(up.dot(turned) / size)
}

/// The place of a triangle nearest to another (Ericson, Real-Time Collision Detection, 5.1.5).
pub(super) fn nearest_on(&[a, b, c]: &[Point3; 3], place: Point3) -> Point3 {
    let (ab, ac, ap) = (b - a, c - a, place - a);
    let (d1, d2) = (ab.dot(ap), ac.dot(ap));
    if d1 <= 0.0 && d2 <= 0.0 {
        return a;
    }
    let bp = place - b;
    let (d3, d4) = (ab.dot(bp), ac.dot(bp));
    if d3 >= 0.0 && d4 <= d3 {
        return b;
    }
    let vc = d1 * d4 - d3 * d2;
    if vc <= 0.0 && d1 >= 0.0 && d3 <= 0.0 {
        return a + ab * (d1 / (d1 - d3));
    }
    let cp = place - c;
    let (d5, d6) = (ab.dot(cp), ac.dot(cp));
    if d6 >= 0.0 && d5 <= d6 {
        return c;
    }
    let vb = d5 * d2 - d1 * d6;
    if vb <= 0.0 && d2 >= 0.0 && d6 <= 0.0 {
        return a + ac * (d2 / (d2 - d6));
    }
    let va = d3 * d6 - d5 * d4;
    if va <= 0.0 && d4 >= d3 && d5 >= d6 {
        return b + (c - b) * ((d4 - d3) / ((d4 - d3) + (d5 - d6)));
    }
    let sum = 1.0 / (va + vb + vc);
    a + ab * (vb * sum) + ac * (vc * sum)
}
