//! What an end is cut by, as heights over the section: planes, and the rounds of copes.

use crate::frame::cut_plane::{CutBy, CutPlane};
use crate::frame::end::Cope;
use crate::plane::Point;
use crate::quantity::tolerance::{LEVEL, PARALLEL, ROUNDING};
use crate::space::{Surface, Tube, Vector3};

use super::super::member::Basis;

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
                (one.normal - two.normal).length() < PARALLEL && (one.level - two.level).abs() < LEVEL
            }
            (EndSurface::Round(one), EndSurface::Round(two)) => {
                let by = two.point - one.point;
                (one.radius - two.radius).abs() < ROUNDING
                    && one.axis.cross(two.axis).length() < PARALLEL
                    && by.cross(one.axis).length() < LEVEL
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
    let Tube { point, axis, radius } = cope.tube();
    Tube { point: basis.place(point.x, point.y, point.z), axis: basis.turn_out(axis), radius }
}

/// The two planes in which rounds of one radius cross whose axes meet; `None` for others. In the end's frame.
pub(super) fn crossing_planes(one: &Cope, two: &Cope) -> Option<[CutPlane; 2]> {
    let (meet, normals) = one.tube().crossing(&two.tube())?;
    let plane =
        |normal: Vector3| CutPlane { normal, level: normal.dot(meet.from_origin()), by: CutBy::Round, to: Vec::new() };
    Some(normals.map(plane))
}
