//! Surfaces in two parameters: u round (or along, on a plane), v across. The surface's own normal is (d/du) x (d/dv).

use crate::quantity::tolerance::{NOTHING_SQUARED, PARALLEL};
use crate::space::{Motion, Point3, Vector3};

use super::Surface;

impl Surface {
    /// Whether the surface's own normal looks away from the metal.
    pub fn looks_out(&self) -> bool {
        match self {
            Surface::Plane { .. } => true,
            Surface::Cylinder { outward, .. }
            | Surface::Cone { outward, .. }
            | Surface::Torus { outward, .. }
            | Surface::Ruled { outward, .. } => *outward,
        }
    }

    /// The surface after a rigid motion.
    pub(in crate::space) fn moved(&self, motion: &Motion) -> Surface {
        let place = |point: &Point3| motion.apply(*point);
        let turn = |way: &Vector3| motion.direction(*way);
        let mut moved = self.clone();
        match &mut moved {
            Surface::Plane { point, normal, across } => {
                (*point, *normal, *across) = (place(point), turn(normal), turn(across));
            }
            Surface::Cylinder { point, axis, across, .. }
            | Surface::Cone { point, axis, across, .. }
            | Surface::Torus { point, axis, across, .. } => {
                (*point, *axis, *across) = (place(point), turn(axis), turn(across));
            }
            Surface::Ruled { first, second, .. } => {
                *first = first.iter().map(place).collect();
                *second = second.iter().map(place).collect();
            }
        }
        moved
    }

    /// Whether v is a length, so that the surface is straight along it.
    pub(super) fn is_straight_across(&self) -> bool {
        !matches!(self, Surface::Torus { .. })
    }

    /// u of a place on it.
    pub(in crate::space) fn turn(&self, place: Point3) -> f64 {
        match self {
            Surface::Plane { point, across, .. } => (place - *point).dot(*across),
            Surface::Cylinder { point, axis, across, .. }
            | Surface::Cone { point, axis, across, .. }
            | Surface::Torus { point, axis, across, .. } => {
                let arm = place - *point;
                arm.dot(axis.cross(*across)).atan2(arm.dot(*across))
            }
            Surface::Ruled { .. } => 0.0,
        }
    }

    /// How u changes over a small displacement from a place on it.
    pub(super) fn round_rate(&self, place: Point3, by: Vector3) -> f64 {
        match self {
            Surface::Plane { across, .. } => by.dot(*across),
            Surface::Cylinder { point, axis, .. }
            | Surface::Cone { point, axis, .. }
            | Surface::Torus { point, axis, .. } => {
                let arm = place - *point;
                let square = arm - *axis * arm.dot(*axis);
                let size = square.dot(square);
                if size < NOTHING_SQUARED { 0.0 } else { axis.cross(square).dot(by) / size }
            }
            Surface::Ruled { .. } => 0.0,
        }
    }

    /// v of a place on it.
    pub(in crate::space) fn across(&self, place: Point3) -> f64 {
        match self {
            Surface::Plane { point, normal, across } => (place - *point).dot(normal.cross(*across)),
            Surface::Cylinder { point, axis, .. } | Surface::Cone { point, axis, .. } => (place - *point).dot(*axis),
            Surface::Torus { point, axis, major, .. } => {
                let arm = place - *point;
                let up = arm.dot(*axis);
                up.atan2((arm - *axis * up).length() - *major)
            }
            Surface::Ruled { .. } => 0.0,
        }
    }

    /// How far across from a v to a place, the short way round where v goes round.
    pub(in crate::space) fn across_from(&self, place: Point3, foot: f64) -> f64 {
        let by = self.across(place) - foot;
        match self {
            Surface::Torus { .. } => by - std::f64::consts::TAU * (by / std::f64::consts::TAU).round(),
            _ => by,
        }
    }

    /// Whether another surface is the same one to within `near` mm, looking the same way: a face that goes on under it.
    pub(crate) fn goes_on(&self, other: &Surface, near: f64) -> bool {
        match (self, other) {
            (Surface::Plane { point, normal, .. }, Surface::Plane { point: two, normal: way, .. }) => {
                normal.dot(*way) > 1.0 - PARALLEL && (*two - *point).dot(*normal).abs() < near
            }
            (
                Surface::Cylinder { point, axis, radius, outward, .. },
                Surface::Cylinder { point: two, axis: way, radius: other, outward: out, .. },
            ) => {
                let coaxial = axis.cross(*way).length() < PARALLEL && (*two - *point).cross(*axis).length() < near;
                outward == out && (radius - other).abs() < near && coaxial
            }
            (Surface::Ruled { .. }, _) | (_, Surface::Ruled { .. }) => false,
            _ => self == other,
        }
    }

    /// Its axis; the normal of a plane.
    pub(in crate::space) fn axis(&self) -> Vector3 {
        match self {
            Surface::Plane { normal, .. } => *normal,
            Surface::Cylinder { axis, .. } | Surface::Cone { axis, .. } | Surface::Torus { axis, .. } => *axis,
            Surface::Ruled { .. } => Vector3::default(),
        }
    }

    /// The unit vector square to its axis at a turn.
    pub(in crate::space) fn radial(&self, turn: f64) -> Vector3 {
        match self {
            Surface::Cylinder { axis, across, .. }
            | Surface::Cone { axis, across, .. }
            | Surface::Torus { axis, across, .. } => radial(*axis, *across, turn),
            Surface::Plane { .. } | Surface::Ruled { .. } => Vector3::default(),
        }
    }

    /// The unit normal away from the metal at a place on it; `None` on a ruled strip.
    pub(in crate::space) fn normal_at(&self, place: Point3) -> Option<Vector3> {
        match self {
            Surface::Plane { normal, .. } => Some(*normal),
            Surface::Ruled { .. } => None,
            _ => Some(self.element(self.turn(place), self.across(place)).1.unit()),
        }
    }

    /// The place at (u, v), and (d/du) x (d/dv) there turned away from the metal.
    pub(super) fn element(&self, u: f64, v: f64) -> (Point3, Vector3) {
        let facing = if self.looks_out() { 1.0 } else { -1.0 };
        match self {
            Surface::Plane { point, normal, across } => (*point + *across * u + normal.cross(*across) * v, *normal),
            Surface::Cylinder { point, axis, across, radius, .. } => {
                let out = radial(*axis, *across, u);
                (*point + out * *radius + *axis * v, out * (*radius * facing))
            }
            Surface::Cone { point, axis, across, radius, slope, .. } => {
                let out = radial(*axis, *across, u);
                let arm = radius + slope * v;
                // d/du is round at arm, d/dv is axis + slope x out.
                (*point + out * arm + *axis * v, (out - *axis * *slope) * (arm * facing))
            }
            Surface::Torus { point, axis, across, major, minor, .. } => {
                let out = radial(*axis, *across, u);
                let normal = out * v.cos() + *axis * v.sin();
                let arm = major + minor * v.cos();
                (*point + out * *major + normal * *minor, normal * (arm * minor * facing))
            }
            Surface::Ruled { .. } => (Point3::default(), Vector3::default()),
        }
    }
}

fn radial(axis: Vector3, across: Vector3, turn: f64) -> Vector3 {
    let (sine, cosine) = turn.sin_cos();
    across * cosine + axis.cross(across) * sine
}
