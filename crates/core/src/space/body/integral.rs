//! Volume, area and centre of a body by its faces: the divergence theorem, each face brought to its rim by Green's theorem.

use crate::patience;
use crate::quantity::tolerance::ROUNDING;
use crate::space::{Point3, Vector3};

use super::curve::{GAUSS, STRETCH, cubic};
use super::{Body, BodyFace, Surface};

/// What a body comes to by its faces.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct BodyMass {
    /// Volume, mm3.
    pub volume: f64,
    /// Area of all faces, mm2.
    pub area: f64,
    /// Centre of the volume, mm.
    pub centre: Point3,
}

/// Sums over faces: volume, area, and the integrals of x, y, z over the volume.
#[derive(Clone, Copy, Default)]
struct Sums {
    volume: f64,
    area: f64,
    first: Vector3,
}

impl Sums {
    /// Adds what a place stands for: `normal` is the outward normal times the area there, from a middle near the body.
    fn add(&mut self, arm: Vector3, normal: Vector3, times: f64, area: f64) {
        self.volume += arm.dot(normal) / 3.0 * times;
        self.area += area;
        self.first = self.first
            + Vector3::new(
                arm.x * arm.x * normal.x / 2.0,
                arm.y * arm.y * normal.y / 2.0,
                arm.z * arm.z * normal.z / 2.0,
            ) * times;
    }
}

impl Body {
    /// Volume, area and centre by the faces: exact for planes, cylinders, cones and tori to rounding.
    pub fn mass(&self) -> BodyMass {
        // Reckoned from a corner, so that what stands far off keeps its digits.
        let middle = self.corners.first().copied().unwrap_or_default();
        let mut sums = Sums::default();
        for face in &self.faces {
            patience::check();
            match &face.surface {
                Surface::Ruled { first, second, outward } => ruled(first, second, *outward, middle, &mut sums),
                _ => self.face(face, middle, &mut sums),
            }
        }
        BodyMass { volume: sums.volume, area: sums.area, centre: middle + sums.first * (1.0 / sums.volume) }
    }

    /// Area of one face, mm2.
    pub fn face_area(&self, face: &BodyFace) -> f64 {
        let mut sums = Sums::default();
        match &face.surface {
            Surface::Ruled { first, second, outward } => {
                ruled(first, second, *outward, Point3::default(), &mut sums);
            }
            _ => self.face(face, Point3::default(), &mut sums),
        }
        sums.area
    }

    /// A v to reckon a face's from: of a cone that runs to its tip the tip's, as its rim has no edge there; of a torus, where v goes round, the middle of the edge over which it changes most, so that
    /// no place of the face is half a turn away.
    pub(in crate::space) fn foot(&self, face: &BodyFace) -> Option<f64> {
        let surface = &face.surface;
        if let Surface::Cone { radius, slope, .. } = surface {
            let edges = face.loops.iter().flatten().map(|&(edge, _)| &self.edges[edge]);
            let corners = edges.flat_map(|edge| [edge.from, edge.to]);
            let at = |corner: usize| surface.across(self.corners[corner]);
            if let Some(tip) = corners.map(at).find(|v| (radius + slope * v).abs() < ROUNDING) {
                return Some(tip);
            }
        }
        let mut best: Option<(f64, f64)> = None;
        for &(edge, _) in face.loops.iter().flatten() {
            let start = surface.across(self.corners[self.edges[edge].from]);
            if surface.is_straight_across() {
                return Some(start);
            }
            let mut places = Vec::new();
            self.walk(edge, |place, _| places.push(place));
            let middle = surface.across(*places.get(places.len() / 2)?);
            let by = (middle - start + std::f64::consts::PI).rem_euclid(std::f64::consts::TAU) - std::f64::consts::PI;
            if best.is_none_or(|(known, _)| by.abs() > known) {
                best = Some((by.abs(), middle));
            }
        }
        best.map(|(_, middle)| middle)
    }

    /// A face as an integral over its rim. With u round and v across, the area element is du dv; integrating along v from
    /// one fixed v leaves minus the integral round the rim over u. Rims run counter-clockwise seen from outside the metal,
    /// so the sign turns where the surface's own normal looks into the metal.
    fn face(&self, face: &BodyFace, middle: Point3, sums: &mut Sums) {
        let surface = &face.surface;
        let Some(foot) = self.foot(face) else { return };
        let facing = if surface.looks_out() { 1.0 } else { -1.0 };
        for &(edge, ahead) in face.loops.iter().flatten() {
            let way = if ahead { 1.0 } else { -1.0 };
            self.walk(edge, |place, by| {
                let round = surface.round_rate(place, by);
                if round == 0.0 {
                    return;
                }
                let turn = surface.turn(place);
                let across = surface.across_from(place, foot);
                let parts = if surface.is_straight_across() { 1.0 } else { (across.abs() / STRETCH).ceil().max(1.0) };
                for part in 0..parts as usize {
                    for (share, weight) in GAUSS {
                        let v = foot + across * (part as f64 + share) / parts;
                        let (at, normal) = surface.element(turn, v);
                        let times = -facing * round * way * across * weight / parts;
                        sums.add(at - middle, normal, times, times * normal.length());
                    }
                }
            });
        }
    }
}

/// Straight lines between two curves: integrated directly, piece by piece.
fn ruled(first: &[Point3], second: &[Point3], outward: bool, middle: Point3, sums: &mut Sums) {
    let facing = if outward { 1.0 } else { -1.0 };
    for (one, two) in first.windows(4).step_by(3).zip(second.windows(4).step_by(3)) {
        for (t, along) in GAUSS {
            let ((a, slope_a), (b, slope_b)) = (cubic(one, t), cubic(two, t));
            for (s, across) in GAUSS {
                let at = a + (b - a) * s;
                let normal = (slope_a * (1.0 - s) + slope_b * s).cross(b - a);
                let times = along * across;
                sums.add(at - middle, normal * facing, times, times * normal.length());
            }
        }
    }
}
