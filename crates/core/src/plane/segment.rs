//! One straight or circular piece of an outline.

use super::{Box2, Point, Vector};
use crate::quantity::tolerance::NOTHING;

/// A line or an arc from `start` to `end`. `bulge` is the tangent of a quarter of the sweep: 0 a line, positive
/// counter-clockwise, 1 a half circle.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Segment {
    /// Where it begins.
    pub start: Point,
    /// Where it ends.
    pub end: Point,
    /// Tangent of a quarter of the sweep.
    pub bulge: f64,
}

impl Segment {
    /// A straight segment.
    pub fn line(start: Point, end: Point) -> Self {
        Segment { start, end, bulge: 0.0 }
    }

    /// Whether it is straight.
    pub fn is_line(&self) -> bool {
        self.bulge == 0.0
    }

    /// Signed sweep of the arc in radians; 0 for a line.
    pub fn sweep(&self) -> f64 {
        // A half turn is one exactly, and what holes are drawn of.
        if self.bulge.abs() == 1.0 { std::f64::consts::PI.copysign(self.bulge) } else { 4.0 * self.bulge.atan() }
    }

    /// Radius in mm; infinite for a line.
    pub fn radius(&self) -> f64 {
        let chord = self.start.distance(self.end);
        chord * (1.0 + self.bulge * self.bulge) / (4.0 * self.bulge.abs())
    }

    /// The centre of the arc; for a line, the middle of it.
    pub fn centre(&self) -> Point {
        let middle = self.start.toward(self.end, 0.5);
        if self.is_line() {
            return middle;
        }
        let chord = self.end - self.start;
        middle + chord.left() * ((1.0 - self.bulge * self.bulge) / (4.0 * self.bulge))
    }

    /// Length along it, mm.
    pub fn length(&self) -> f64 {
        if self.is_line() { self.start.distance(self.end) } else { self.radius() * self.sweep().abs() }
    }

    /// The point a fraction of the way along.
    pub fn at(&self, fraction: f64) -> Point {
        if self.is_line() {
            return self.start.toward(self.end, fraction);
        }
        let centre = self.centre();
        let arm = self.start - centre;
        let (sine, cosine) = (self.sweep() * fraction).sin_cos();
        centre + Vector::new(arm.x * cosine - arm.y * sine, arm.x * sine + arm.y * cosine)
    }

    /// Whether the direction from the arc's centre to `point` falls within the sweep.
    pub fn sweeps_over(&self, point: Point) -> bool {
        self.sweeps_from(self.centre(), self.sweep(), point)
    }

    /// As [`Segment::sweeps_over`], with the arc's centre and sweep at hand.
    fn sweeps_from(&self, centre: Point, sweep: f64, point: Point) -> bool {
        let arm = self.start - centre;
        let to = point - centre;
        let turn = arm.cross(to).atan2(arm.dot(to));
        let turn = if sweep > 0.0 {
            turn.rem_euclid(std::f64::consts::TAU)
        } else {
            (-turn).rem_euclid(std::f64::consts::TAU)
        };
        // A hair of angle, so that an end point counts as on the arc.
        turn <= sweep.abs() + NOTHING || turn >= std::f64::consts::TAU - NOTHING
    }

    /// The nearest distance from a point, mm.
    pub fn distance_to(&self, point: Point) -> f64 {
        if self.is_line() {
            let along = self.end - self.start;
            let square = along.dot(along);
            if square == 0.0 {
                return self.start.distance(point);
            }
            let fraction = ((point - self.start).dot(along) / square).clamp(0.0, 1.0);
            return self.start.toward(self.end, fraction).distance(point);
        }
        if self.sweeps_over(point) {
            return (self.centre().distance(point) - self.radius()).abs();
        }
        self.start.distance(point).min(self.end.distance(point))
    }

    /// The piece of it between two fractions of the way along.
    pub fn part(&self, from: f64, to: f64) -> Segment {
        Segment { start: self.at(from), end: self.at(to), bulge: (self.sweep() * (to - from) / 4.0).tan() }
    }

    /// The same piece walked the other way.
    pub fn reversed(&self) -> Segment {
        Segment { start: self.end, end: self.start, bulge: -self.bulge }
    }

    /// The smallest upright box around it.
    pub fn extents(&self) -> Box2 {
        let mut around = Box2::EMPTY;
        around.hold(self.start);
        around.hold(self.end);
        if !self.is_line() {
            let (centre, radius, sweep) = (self.centre(), self.radius(), self.sweep());
            for (x, y) in [(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)] {
                let tip = centre + Vector::new(x, y) * radius;
                if self.sweeps_from(centre, sweep, tip) {
                    around.hold(tip);
                }
            }
        }
        around
    }

    /// Points along it, the start in and the end left out, so that no chord strays from the arc by more than
    /// `tolerance` mm.
    pub fn flatten(&self, tolerance: f64, into: &mut Vec<Point>) {
        into.push(self.start);
        if self.is_line() {
            return;
        }
        let radius = self.radius();
        let step = if tolerance >= radius { 1.0 } else { 2.0 * (1.0 - tolerance / radius).acos() };
        // At least 8 chords to the circle, at most 512: a hole must look round and a huge arc must not run away.
        let chords = (self.sweep().abs() / step.clamp(0.012, 0.786)).ceil().max(1.0) as usize;
        for at in 1..chords {
            into.push(self.at(at as f64 / chords as f64));
        }
    }
}
