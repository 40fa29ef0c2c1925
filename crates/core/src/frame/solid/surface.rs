//! What an end is cut by, as heights over the section: planes, and the rounds of copes.

use crate::plane::{Point, Vector};
use crate::space::{Surface, Tube, Vector3};

use super::super::member::{Basis, Cope, CutPlane};

/// One surface of an end, in the end's frame.
#[derive(Clone, Debug)]
pub(super) enum EndSurface {
    /// A plane.
    Plane(CutPlane),
    /// The round of another member.
    Round(Cope),
}

impl EndSurface {
    /// Where the fibre at a place of the section meets it, mm; `way` is 1 at a finish and -1 at a start.
    pub fn reach(&self, at: Point, way: f64) -> f64 {
        match self {
            EndSurface::Plane(cut) => cut.reach(at),
            EndSurface::Round(cope) => cope.reach(at, way),
        }
    }

    /// Whether both are one surface.
    pub fn is_same(&self, other: &EndSurface) -> bool {
        match (self, other) {
            (EndSurface::Plane(one), EndSurface::Plane(two)) => {
                (one.normal - two.normal).length() < 1e-9 && (one.level - two.level).abs() < 1e-7
            }
            (EndSurface::Round(one), EndSurface::Round(two)) => {
                let by = two.point - one.point;
                (one.radius - two.radius).abs() < 1e-9
                    && one.axis.cross(two.axis).length() < 1e-9
                    && by.cross(one.axis).length() < 1e-7
            }
            _ => false,
        }
    }

    /// As the surface of a face in space; `basis` is the end's frame, `way` is 1 at a finish and -1 at a start.
    pub fn face(&self, basis: &Basis, way: f64) -> Surface {
        match self {
            EndSurface::Plane(cut) => {
                let normal = basis.turn_out(cut.normal);
                let point = basis.place(0.0, 0.0, cut.level / cut.normal.z);
                let level = basis.v - normal * basis.v.dot(normal);
                let across =
                    if level.length() > 0.1 { level.unit() } else { (basis.u - normal * basis.u.dot(normal)).unit() };
                Surface::Plane { point, normal, across }
            }
            EndSurface::Round(cope) => {
                let tube = tube_of(cope, basis);
                // Its seam on the far side of the other member, where no face of this end lies.
                let far = (basis.w - tube.axis * basis.w.dot(tube.axis)) * way;
                Surface::Cylinder {
                    point: tube.point,
                    axis: tube.axis,
                    across: far.unit(),
                    radius: tube.radius,
                    outward: false,
                }
            }
        }
    }
}

/// A cope's round in space.
pub(super) fn tube_of(cope: &Cope, basis: &Basis) -> Tube {
    Tube {
        point: basis.place(cope.point.x, cope.point.y, cope.point.z),
        axis: basis.turn_out(cope.axis),
        radius: cope.radius,
    }
}

/// How far fibres pass beside a cope's axis: `across . place - level`, mm. `None` where the member runs along the other one.
pub(super) fn beside(cope: &Cope) -> Option<(Vector, f64)> {
    let across = Vector::new(cope.axis.y, -cope.axis.x);
    if across.length() < 1e-6 {
        return None;
    }
    let across = across.unit();
    Some((across, across.x * cope.point.x + across.y * cope.point.y))
}

/// The plane on which fibres end that pass beside a cope: where they are nearest to its axis.
pub(in crate::frame) fn nearest(cope: &Cope, way: f64) -> CutPlane {
    // Far to the side every fibre passes beside it, and there the reach is linear.
    let slim = Cope { radius: 0.0, ..cope.clone() };
    let at = |x: f64, y: f64| slim.reach(Point::new(x, y), way);
    let level = at(0.0, 0.0);
    let (a, b) = (at(1.0, 0.0) - level, at(0.0, 1.0) - level);
    let normal = Vector3::new(-a * way, -b * way, way);
    let long = normal.length();
    CutPlane { normal: normal * (1.0 / long), level: level * way / long, by: String::new(), to: vec![cope.to] }
}

/// The two planes in which rounds of one radius cross whose axes meet; `None` for others. In the end's frame.
pub(super) fn crossing_planes(one: &Cope, two: &Cope) -> Option<[CutPlane; 2]> {
    let square = one.axis.cross(two.axis);
    let by = two.point - one.point;
    if (one.radius - two.radius).abs() > 1e-9 || square.length() < 1e-6 || by.dot(square.unit()).abs() > 1e-9 {
        return None;
    }
    // Where the axes meet: along the first so far that the second's own way has no part in what is left.
    let meet = one.point + one.axis * (by.cross(two.axis).dot(square) / square.dot(square));
    Some([one.axis + two.axis, one.axis + -two.axis].map(|way| {
        let normal = way.unit();
        CutPlane { normal, level: normal.dot(meet), by: String::new(), to: Vec::new() }
    }))
}
