//! The smallest upright box around a body: its corners, the tips of its round edges, and of tori the places that look along
//! an axis. On planes, cylinders and cones a greatest place always lies on the rim as well.

use crate::quantity::tolerance::ROUNDING;
use crate::space::{Box3, Point3, Vector3};

use super::curve::cubic;
use super::{Body, Curve, Surface};

/// A coefficient of a square equation that makes it a straight one, mm.
const STRAIGHT: f64 = 1e-14;

const AXES: [Vector3; 3] = [Vector3::new(1.0, 0.0, 0.0), Vector3::new(0.0, 1.0, 0.0), Vector3::new(0.0, 0.0, 1.0)];

impl Body {
    /// The smallest upright box around it, mm.
    pub fn extents(&self) -> Box3 {
        let [x, y, z] = AXES.map(|axis| self.span(axis));
        Box3 { low: Point3::new(x.0, y.0, z.0), high: Point3::new(x.1, y.1, z.1) }
    }

    /// From where to where it reaches along a unit direction, mm.
    pub fn span(&self, way: Vector3) -> (f64, f64) {
        let mut span = (f64::INFINITY, f64::NEG_INFINITY);
        let hold = |place: Point3, span: &mut (f64, f64)| {
            let at = place.from_origin().dot(way);
            *span = (span.0.min(at), span.1.max(at));
        };
        self.corners.iter().for_each(|&corner| hold(corner, &mut span));
        for (at, edge) in self.edges.iter().enumerate() {
            if matches!(edge.curve, Curve::Line) {
                continue;
            }
            if let Some(round) = self.round(at) {
                let tip = round.second.dot(way).atan2(round.first.dot(way)) - round.from;
                for turn in [tip, tip + std::f64::consts::PI] {
                    let turn = turn.rem_euclid(std::f64::consts::TAU);
                    if turn < round.sweep {
                        hold(round.at(turn), &mut span);
                    }
                }
            } else if let Curve::Cubic(points) = &edge.curve {
                for piece in points.windows(4).step_by(3) {
                    slope_roots(piece, way).for_each(|t| hold(cubic(piece, t).0, &mut span));
                }
            }
        }
        for face in self.faces.iter().filter(|face| matches!(face.surface, Surface::Torus { .. })) {
            self.torus_tips(face, way, span).into_iter().for_each(|tip| hold(tip, &mut span));
        }
        span
    }

    /// Places of a torus's face that look along a direction or against it, and lie beyond a span that is known.
    pub(in crate::space) fn torus_tips(&self, face: &super::BodyFace, way: Vector3, known: (f64, f64)) -> Vec<Point3> {
        let Surface::Torus { point, axis, major, minor, .. } = &face.surface else { return Vec::new() };
        let flat = way - *axis * way.dot(*axis);
        if flat.length() < ROUNDING {
            // Along the axis a whole round is as far: its ends tell it.
            return Vec::new();
        }
        let out = flat.unit();
        let sides = [(out, way), (out, -way), (-out, way), (-out, -way)];
        let tips = sides.into_iter().map(|(out, far)| *point + out * *major + far * *minor);
        let beyond = |tip: &Point3| {
            let at = tip.from_origin().dot(way);
            at < known.0 || at > known.1
        };
        tips.filter(|tip| beyond(tip) && self.holds(face, *tip)).collect()
    }

    /// From where to where a face reaches round its surface, radians (mm on a plane), by its outer rim.
    pub(in crate::space) fn turns(&self, face: &super::BodyFace) -> Option<(f64, f64)> {
        let walk = face.loops.first()?;
        let &(edge, ahead) = walk.first()?;
        let first = if ahead { self.edges[edge].from } else { self.edges[edge].to };
        let mut here = face.surface.turn(self.corners[first]);
        let mut span = (here, here);
        for &(edge, ahead) in walk {
            let mut round = 0.0;
            self.walk(edge, |at, by| round += face.surface.round_rate(at, by));
            here += if ahead { round } else { -round };
            span = (span.0.min(here), span.1.max(here));
        }
        Some(span)
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

/// Where a cubic piece runs square to an axis, as shares of it.
pub(in crate::space) fn slope_roots(piece: &[Point3], axis: Vector3) -> impl Iterator<Item = f64> + use<> {
    let [a, b, c, d] = [0, 1, 2, 3].map(|at| piece[at].from_origin().dot(axis));
    // The slope is (b - a) s^2 + 2 (c - b) s t + (d - c) t^2 with s = 1 - t.
    let (p, q, r) = ((b - a) - 2.0 * (c - b) + (d - c), 2.0 * ((c - b) - (b - a)), b - a);
    let roots = if p.abs() < STRAIGHT {
        vec![-r / q]
    } else {
        let inner = q * q - 4.0 * p * r;
        let root = inner.max(0.0).sqrt();
        if inner < 0.0 { Vec::new() } else { vec![(-q + root) / (2.0 * p), (-q - root) / (2.0 * p)] }
    };
    roots.into_iter().filter(|t| (0.0..=1.0).contains(t))
}
