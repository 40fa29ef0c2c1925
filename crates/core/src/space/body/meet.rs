//! Curves where surfaces meet: a round wall cut by a plane, two round walls through each other.

use crate::quantity::tolerance::{NO_TURN, NOTHING, PARALLEL, ROUNDING};
use crate::space::{Point3, Vector3};

use super::Curve;

/// Sine of the angle at which round walls are all but tangent: their crossing has no way to go by.
const TANGENT: f64 = 1e-5;
/// A piece of a crossing shorter than this is shorter than anything that is made, mm.
const SHORTEST: f64 = 1e-3;

/// A round wall without ends.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Tube {
    /// A point of its axis.
    pub point: Point3,
    /// Unit vector of its axis.
    pub axis: Vector3,
    /// Its radius, mm.
    pub radius: f64,
}

/// How near a curve of cubic pieces keeps to both round walls, mm.
const CLOSE: f64 = 1e-7;
/// No piece is halved more often than this.
const DEEPEST: u32 = 14;

impl Tube {
    /// From the axis to a place, square to the axis.
    fn arm(&self, place: Point3) -> Vector3 {
        let arm = place - self.point;
        arm - self.axis * arm.dot(self.axis)
    }

    /// The curve that a plane cuts out of it, from one place on it to another by way of a third. A plane along the axis cuts
    /// a straight line.
    pub fn cut(&self, normal: Vector3, from: Point3, by: Point3, to: Point3) -> Curve {
        let lean = self.axis.dot(normal);
        if lean.abs() < PARALLEL {
            return Curve::Line;
        }
        let rise = (from - self.point).dot(normal) / lean;
        let centre = self.point + self.axis * rise;
        let aside = self.axis.cross(normal);
        let steep = aside.length();
        let round = |normal: Vector3| {
            if steep < PARALLEL {
                return Curve::Circle { centre, axis: normal, radius: self.radius };
            }
            let major = normal.cross(aside * (1.0 / steep)).unit();
            Curve::Ellipse { centre, axis: normal, major, long: self.radius / lean.abs(), short: self.radius }
        };
        // Counter-clockwise about its axis: the way round that comes by the third place.
        let turn_of = |place: Point3| {
            let arm = self.arm(place);
            let first = self.arm(from).unit();
            arm.dot(self.axis.cross(first)).atan2(arm.dot(first)).rem_euclid(std::f64::consts::TAU)
        };
        let end = turn_of(to);
        let whole = from.distance(to) < ROUNDING;
        let ahead = whole || turn_of(by) <= end;
        // Turning right-handed about the tube's axis is turning right-handed about a normal that looks the same way.
        let same = if lean > 0.0 { normal } else { -normal };
        round(if ahead { same } else { -same })
    }

    /// Where the axes of two rounds of one radius meet, with the normals of the two planes in which these cross; `None` for others.
    pub(crate) fn crossing(&self, other: &Tube) -> Option<(Point3, [Vector3; 2])> {
        let square = self.axis.cross(other.axis);
        let by = other.point - self.point;
        if (self.radius - other.radius).abs() > ROUNDING
            || square.length() < NO_TURN
            || by.dot(square.unit()).abs() > PARALLEL
        {
            return None;
        }
        // Along the first so far that the second's own way has no part in what is left.
        let meet = self.point + self.axis * (by.cross(other.axis).dot(square) / square.dot(square));
        Some((meet, [self.axis + other.axis, self.axis + -other.axis].map(Vector3::unit)))
    }

    /// The way of the curve in which two round walls meet, at a place of it; `None` where they are all but tangent.
    pub(crate) fn crossing_way(&self, other: &Tube, at: Point3) -> Option<Vector3> {
        let way = self.arm(at).unit().cross(other.arm(at).unit());
        (way.length() > TANGENT).then(|| way.unit())
    }

    /// A place brought onto both round walls; `None` where they are all but tangent.
    pub(crate) fn onto(&self, other: &Tube, mut place: Point3) -> Option<Point3> {
        for _ in 0..12 {
            let (one, two) = (self.arm(place), other.arm(place));
            let (off, far) = (one.length() - self.radius, two.length() - other.radius);
            if off.abs().max(far.abs()) < NOTHING * (self.radius + other.radius) {
                return Some(place);
            }
            let (n, m) = (one.unit(), two.unit());
            let lean = n.dot(m);
            let square = 1.0 - lean * lean;
            if square < TANGENT * TANGENT {
                return None;
            }
            let (a, b) = ((off - lean * far) / square, (far - lean * off) / square);
            place = place + n * -a + m * -b;
        }
        let off = (self.arm(place).length() - self.radius).abs().max((other.arm(place).length() - other.radius).abs());
        (off < CLOSE).then_some(place)
    }

    /// Where two round walls meet, in cubic pieces through these places of it in order, each near enough to the next that the
    /// curve turns by less than a quarter turn between. `None` where they are all but tangent.
    pub fn meet(&self, other: &Tube, through: &[Point3]) -> Option<Vec<Point3>> {
        let mut all = vec![*through.first()?];
        for pair in through.windows(2) {
            self.piece(other, pair[0], pair[1], 0, &mut all)?;
        }
        (all.len() > 1).then_some(all)
    }

    /// The way of the curve at a place, in the sense of a chord.
    fn way(&self, other: &Tube, at: Point3, chord: Vector3) -> Option<Vector3> {
        let way = self.crossing_way(other, at)?;
        Some(if way.dot(chord) < 0.0 { -way } else { way })
    }

    fn piece(&self, other: &Tube, from: Point3, to: Point3, depth: u32, into: &mut Vec<Point3>) -> Option<()> {
        let chord = to - from;
        let long = chord.length();
        if let (Some(a), Some(b)) = (self.way(other, from, chord), self.way(other, to, chord)) {
            // As a round of that turn would have it.
            let turn = a.angle_to(b);
            let arm =
                if turn < NO_TURN { long / 3.0 } else { long * 2.0 / 3.0 * (turn / 4.0).tan() / (turn / 2.0).sin() };
            let points = [from, from + a * arm, to + b * -arm, to];
            let off = [0.2, 0.4, 0.5, 0.6, 0.8].into_iter().fold(0.0f64, |worst, t| {
                let (at, _) = super::curve::cubic(&points, t);
                let one = (self.arm(at).length() - self.radius).abs();
                worst.max(one).max((other.arm(at).length() - other.radius).abs())
            });
            if off < CLOSE && turn < 1.0 {
                into.extend(&points[1..]);
                return Some(());
            }
        }
        if depth == DEEPEST {
            // What is left is shorter than anything that is made.
            into.extend([from + chord * (1.0 / 3.0), from + chord * (2.0 / 3.0), to]);
            return (long < SHORTEST).then_some(());
        }
        let middle = self.onto(other, from + chord * 0.5)?;
        self.piece(other, from, middle, depth + 1, into)?;
        self.piece(other, middle, to, depth + 1, into)
    }
}
