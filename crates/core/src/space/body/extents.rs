//! The smallest upright box around a body: its corners, the tips of its round edges, and of tori the places that look along
//! an axis. On planes, cylinders and cones a greatest place always lies on the rim as well.

use crate::space::{Box3, Point3, Vector3};

use super::curve::cubic;
use super::{Body, Curve, Surface};

const AXES: [Vector3; 3] = [Vector3::new(1.0, 0.0, 0.0), Vector3::new(0.0, 1.0, 0.0), Vector3::new(0.0, 0.0, 1.0)];

impl Body {
    /// The smallest upright box around it, mm.
    pub fn extents(&self) -> Box3 {
        let mut around = Box3::EMPTY;
        self.corners.iter().for_each(|&corner| around.hold(corner));
        for (at, edge) in self.edges.iter().enumerate() {
            if let Some(round) = self.round(at) {
                for axis in AXES {
                    let tip = round.second.dot(axis).atan2(round.first.dot(axis)) - round.from;
                    for turn in [tip, tip + std::f64::consts::PI] {
                        let turn = turn.rem_euclid(std::f64::consts::TAU);
                        if turn < round.sweep {
                            around.hold(round.at(turn));
                        }
                    }
                }
            } else if let Curve::Cubic(points) = &edge.curve {
                for piece in points.windows(4).step_by(3) {
                    for axis in AXES {
                        tips(piece, axis).for_each(|tip| around.hold(tip));
                    }
                }
            }
        }
        for face in &self.faces {
            let Surface::Torus { point, axis, major, minor, .. } = &face.surface else { continue };
            for way in AXES.into_iter().flat_map(|way| [way, -way]) {
                let flat = way - *axis * way.dot(*axis);
                if flat.length() < 1e-9 {
                    // Along the axis a whole round is as far: its ends tell it.
                    continue;
                }
                for side in [1.0, -1.0] {
                    let out = flat.unit() * side;
                    let tip = *point + out * *major + way * *minor;
                    if self.holds(face, tip) {
                        around.hold(tip);
                    }
                }
            }
        }
        around
    }

    /// Whether a place on a torus lies within a face that is bounded by rounds about the tube and along it: by the spans of
    /// u and v that its rim covers.
    fn holds(&self, face: &super::BodyFace, place: Point3) -> bool {
        let surface = &face.surface;
        let Some(&(edge, _)) = face.loops.iter().flatten().next() else { return false };
        let from = self.corners[self.edges[edge].from];
        let Some(v0) = self.foot(face) else { return false };
        let u0 = surface.turn(from);
        let mut spans = [(0.0f64, 0.0f64); 2];
        let mut here = (0.0, 0.0);
        for &(edge, ahead) in face.loops.iter().flatten() {
            let mut steps = Vec::new();
            self.walk(edge, |at, by| steps.push((surface.round_rate(at, by), at)));
            let round: f64 = steps.iter().map(|step| step.0).sum();
            let end = self.corners[if ahead { self.edges[edge].to } else { self.edges[edge].from }];
            here.0 += if ahead { round } else { -round };
            here.1 = surface.across_from(end, v0);
            for (span, value) in spans.iter_mut().zip([here.0, here.1]) {
                *span = (span.0.min(value), span.1.max(value));
            }
        }
        let turned = |value: f64, span: (f64, f64)| {
            let tau = std::f64::consts::TAU;
            (-2..=2).any(|round| (span.0..=span.1).contains(&(value + tau * f64::from(round))))
        };
        turned(surface.turn(place) - u0, spans[0]) && turned(surface.across(place) - v0, spans[1])
    }
}

/// Places of a cubic piece where it runs square to an axis.
fn tips(piece: &[Point3], axis: Vector3) -> impl Iterator<Item = Point3> {
    let [a, b, c, d] = [0, 1, 2, 3].map(|at| piece[at].from_origin().dot(axis));
    // The slope is (b - a) s^2 + 2 (c - b) s t + (d - c) t^2 with s = 1 - t.
    let (p, q, r) = ((b - a) - 2.0 * (c - b) + (d - c), 2.0 * ((c - b) - (b - a)), b - a);
    let roots = if p.abs() < 1e-14 {
        vec![-r / q]
    } else {
        let inner = q * q - 4.0 * p * r;
        let root = inner.max(0.0).sqrt();
        if inner < 0.0 { Vec::new() } else { vec![(-q + root) / (2.0 * p), (-q - root) / (2.0 * p)] }
    };
    let piece = [piece[0], piece[1], piece[2], piece[3]];
    roots.into_iter().filter(|t| (0.0..=1.0).contains(t)).map(move |t| cubic(&piece, t).0)
}
