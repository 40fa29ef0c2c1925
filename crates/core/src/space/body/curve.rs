//! Edges as curves with their slopes, in stretches that Gauss integration is exact on to rounding.

use crate::space::{Point3, Vector3};

/// Places and weights of five-point Gauss-Legendre integration on 0 to 1 (Abramowitz and Stegun, table 25.4).
pub(super) const GAUSS: [(f64, f64); 5] = [
    (0.046_910_077_030_668, 0.118_463_442_528_095),
    (0.230_765_344_947_158_5, 0.239_314_335_249_683_2),
    (0.5, 0.284_444_444_444_444_4),
    (0.769_234_655_052_841_5, 0.239_314_335_249_683_2),
    (0.953_089_922_969_332, 0.118_463_442_528_095),
];

/// The widest stretch of an arc that one set of Gauss places stands for, radians.
pub(super) const STRETCH: f64 = 0.4;

/// A right-handed frame of a circle or an ellipse: `at(t)` is centre + first cos t + second sin t.
pub(in crate::space) struct Round {
    pub centre: Point3,
    pub first: Vector3,
    pub second: Vector3,
    /// Parameter of the start and how far it runs, radians, above 0.
    pub from: f64,
    pub sweep: f64,
}

impl Round {
    pub fn at(&self, turn: f64) -> Point3 {
        let (sine, cosine) = (self.from + turn).sin_cos();
        self.centre + self.first * cosine + self.second * sine
    }

    pub fn slope(&self, turn: f64) -> Vector3 {
        let (sine, cosine) = (self.from + turn).sin_cos();
        self.second * cosine - self.first * sine
    }
}

/// A cubic piece's place and slope at a share of it.
pub(in crate::space) fn cubic(points: &[Point3], t: f64) -> (Point3, Vector3) {
    let [a, b, c, d] = [0, 1, 2, 3].map(|at| points[at].from_origin());
    let s = 1.0 - t;
    let place = a * (s * s * s) + b * (3.0 * s * s * t) + c * (3.0 * s * t * t) + d * (t * t * t);
    let slope = (b - a) * (3.0 * s * s) + (c - b) * (6.0 * s * t) + (d - c) * (3.0 * t * t);
    (Point3::default() + place, slope)
}
