//! An end as it is cut: planes and copes, and how far the metal reaches to them.

use crate::plane::{Outline, Point, Segment, Vector};
use crate::quantity::tolerance::{NO_TURN, NOTHING, ROUNDING};
use crate::space::{Point3, Tube, Vector3};
use crate::work::frame::OneEnd;

use super::cut_plane::{CutBy, CutPlane};
use super::cutout::Cutout;

/// Nearer than this to the flank of a cope is on it, mm.
pub(super) const FLANK: f64 = 1e-10;

/// A round member that an end is coped on: metal is kept outside it.
#[derive(Clone, Debug, PartialEq)]
pub struct Cope {
    /// A point of its axis, in the end's frame, mm.
    pub point: Vector3,
    /// Unit vector along its axis.
    pub axis: Vector3,
    /// Its outer radius and the gap, mm.
    pub radius: f64,
    /// The member.
    pub to: usize,
}

/// One end as cut.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct End {
    /// Planes; the metal is what all of them keep.
    pub planes: Vec<CutPlane>,
    /// Copes.
    pub copes: Vec<Cope>,
    /// Parts of the section that are cut further back. Lengths and angles are those of the saw's cut, before them.
    pub cutouts: Vec<Cutout>,
}

/// Integrals of an end's height over the section, mm3 and mm4.
#[derive(Clone, Copy, Debug, Default)]
pub(super) struct ReachSums {
    pub volume: f64,
    pub across: f64,
    pub up: f64,
    pub along: f64,
}

impl Cope {
    /// Where the fibre at (u, v) meets the round member, coming from the metal's side: `way` is 1 at a finish, -1 at a
    /// start. A fibre that passes beside it ends where it is nearest.
    pub fn reach(&self, at: Point, way: f64) -> f64 {
        let from = Vector3::new(at.x, at.y, 0.0) - self.point;
        let square = |v: Vector3| v - self.axis * v.dot(self.axis);
        let (a, b) = (square(Vector3::new(0.0, 0.0, 1.0)), square(from));
        let (aa, ab, bb) = (a.dot(a), a.dot(b), b.dot(b));
        let inside = ab * ab - aa * (bb - self.radius * self.radius);
        // On the flank a root would make micrometres out of the last digits.
        let flank = 2.0 * self.radius * FLANK * aa;
        (-ab - way * if inside < flank { 0.0 } else { inside.sqrt() }) / aa
    }

    /// How far fibres pass beside its axis: `across . place - level`, mm. `None` where the member runs along the other one.
    pub fn beside(&self) -> Option<(Vector, f64)> {
        let across = Vector::new(self.axis.y, -self.axis.x);
        if across.length() < NO_TURN {
            return None;
        }
        let across = across.unit();
        Some((across, across.x * self.point.x + across.y * self.point.y))
    }

    /// The plane on which fibres end that pass beside it: where they are nearest to its axis; `way` as for [`reach`](Self::reach).
    pub fn aside(&self, way: f64) -> CutPlane {
        // Far to the side every fibre passes beside it, and there the reach is linear.
        let slim = Cope { radius: 0.0, ..self.clone() };
        let at = |x: f64, y: f64| slim.reach(Point::new(x, y), way);
        let level = at(0.0, 0.0);
        let (a, b) = (at(1.0, 0.0) - level, at(0.0, 1.0) - level);
        let normal = Vector3::new(-a * way, -b * way, way);
        let long = normal.length();
        CutPlane { normal: normal * (1.0 / long), level: level * way / long, by: CutBy::Round, to: vec![self.to] }
    }

    /// Whether another is the same round moved back along the fibres, so that all of them come to that one first.
    pub(super) fn is_behind(&self, other: &Cope, way: f64) -> bool {
        let by = other.point - self.point;
        let same = (self.axis - other.axis).length() < NOTHING && (self.radius - other.radius).abs() < NOTHING;
        same && by.x.hypot(by.y) < NOTHING && by.z * way < -ROUNDING
    }

    /// Its round, in its end's frame.
    pub fn tube(&self) -> Tube {
        Tube { point: Point3::default() + self.point, axis: self.axis, radius: self.radius }
    }
}

/// Lines of the section on which two planes of an end reach alike: `a u + b v = c`.
pub fn creases(end: &End) -> Vec<(Vector, f64)> {
    let mut all = Vec::new();
    for (at, one) in end.planes.iter().enumerate() {
        for two in &end.planes[at + 1..] {
            let way = Vector::new(
                one.normal.x / one.normal.z - two.normal.x / two.normal.z,
                one.normal.y / one.normal.z - two.normal.y / two.normal.z,
            );
            let level = one.level / one.normal.z - two.level / two.normal.z;
            if way.length() > ROUNDING {
                all.push((way * (1.0 / way.length()), level / way.length()));
            }
        }
    }
    all
}

/// Adds the points where an edge crosses lines `way . p = level`.
pub fn crossings(one: &Segment, lines: &[(Vector, f64)], into: &mut Vec<Point>) {
    for (way, level) in lines {
        let side = |at: Point| way.x * at.x + way.y * at.y - level;
        if one.is_line() {
            let (x, y) = (side(one.start), side(one.end));
            if x * y < 0.0 {
                into.push(one.start.toward(one.end, x / (x - y)));
            }
            continue;
        }
        let (centre, radius) = (one.centre(), one.radius());
        let off = side(centre);
        if off.abs() < radius {
            let half = (radius * radius - off * off).sqrt();
            let foot = centre + *way * -off;
            let both = [1.0, -1.0].map(|sign| foot + way.left() * (sign * half));
            into.extend(both.into_iter().filter(|&at| one.sweeps_over(at)));
        }
    }
}

/// Heights at which the upright line at `u` crosses an outline.
pub(super) fn heights(outline: &Outline, u: f64) -> Vec<f64> {
    let mut all = Vec::new();
    for (one, _) in outline.segments() {
        if one.is_line() {
            let (a, b) = (one.start.x - u, one.end.x - u);
            if (a < 0.0) != (b < 0.0) {
                all.push(one.start.y + (one.end.y - one.start.y) * a / (a - b));
            }
            continue;
        }
        let (centre, radius) = (one.centre(), one.radius());
        let off = u - centre.x;
        if off.abs() < radius {
            let half = (radius * radius - off * off).sqrt();
            for y in [centre.y - half, centre.y + half] {
                // On the arc between its ends, counted once where two arcs meet.
                let at = Point::new(u, y);
                let (a, b) = (one.start.distance(at), one.end.distance(at));
                if one.sweeps_over(at) && (b > ROUNDING || a < ROUNDING) && a.min(b) > ROUNDING {
                    all.push(y);
                }
            }
        }
    }
    all
}

/// A square end, so far beyond the line's own.
pub fn square_end(which: OneEnd, by: f64) -> End {
    let way = which.way();
    let cut = CutPlane { normal: Vector3::new(0.0, 0.0, way), level: by, by: CutBy::Square, to: Vec::new() };
    End { planes: vec![cut], ..End::default() }
}
