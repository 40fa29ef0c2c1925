//! Rigid motions: a turn, then a shift. Lengths, areas and handedness stay.

use super::{Point3, Vector3};

/// A rigid motion; `apply` turns, then shifts.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Motion {
    rows: [Vector3; 3],
    shift: Vector3,
}

impl Default for Motion {
    fn default() -> Motion {
        Motion::STILL
    }
}

impl Motion {
    /// The motion that moves nothing.
    pub const STILL: Motion = Motion {
        rows: [Vector3::new(1.0, 0.0, 0.0), Vector3::new(0.0, 1.0, 0.0), Vector3::new(0.0, 0.0, 1.0)],
        shift: Vector3::new(0.0, 0.0, 0.0),
    };

    /// A shift, mm.
    pub fn shift(by: Vector3) -> Motion {
        Motion { shift: by, ..Motion::STILL }
    }

    /// The motion that takes the axes x, y, z at the origin to three unit vectors, square to each other and right-handed, at
    /// a point.
    pub fn to_frame(origin: Point3, x: Vector3, y: Vector3, z: Vector3) -> Motion {
        let rows = [Vector3::new(x.x, y.x, z.x), Vector3::new(x.y, y.y, z.y), Vector3::new(x.z, y.z, z.z)];
        Motion { rows, shift: origin.from_origin() }
    }

    /// A turn about the line through `point` along the unit vector `axis`, right-handed, radians (Rodrigues).
    pub fn turn(point: Point3, axis: Vector3, angle: f64) -> Motion {
        let (sine, cosine) = angle.sin_cos();
        let column = |v: Vector3| v * cosine + axis.cross(v) * sine + axis * (axis.dot(v) * (1.0 - cosine));
        let (a, b, c) = (
            column(Vector3::new(1.0, 0.0, 0.0)),
            column(Vector3::new(0.0, 1.0, 0.0)),
            column(Vector3::new(0.0, 0.0, 1.0)),
        );
        let rows = [Vector3::new(a.x, b.x, c.x), Vector3::new(a.y, b.y, c.y), Vector3::new(a.z, b.z, c.z)];
        let turned = Motion { rows, shift: Vector3::default() };
        let shift = point.from_origin() - turned.direction(point.from_origin());
        Motion { rows, shift }
    }

    /// Moves a point.
    pub fn apply(&self, point: Point3) -> Point3 {
        let turned = self.direction(point.from_origin());
        Point3::new(turned.x, turned.y, turned.z) + self.shift
    }

    /// Turns a direction.
    pub fn direction(&self, v: Vector3) -> Vector3 {
        Vector3::new(self.rows[0].dot(v), self.rows[1].dot(v), self.rows[2].dot(v))
    }

    /// This motion after another: `self.after(first)` applies `first`, then `self`.
    pub fn after(&self, first: &Motion) -> Motion {
        let column = |at: usize| {
            let pick = |row: &Vector3| [row.x, row.y, row.z][at];
            self.direction(Vector3::new(pick(&first.rows[0]), pick(&first.rows[1]), pick(&first.rows[2])))
        };
        let (a, b, c) = (column(0), column(1), column(2));
        Motion {
            rows: [Vector3::new(a.x, b.x, c.x), Vector3::new(a.y, b.y, c.y), Vector3::new(a.z, b.z, c.z)],
            shift: self.direction(first.shift) + self.shift,
        }
    }

    /// The motion as a mirror across the plane x = 0 shows it: what is moved by it there is the mirror image of what is moved
    /// by this one.
    pub fn seen_across_x(&self) -> Motion {
        let [a, b, c] = self.rows;
        let rows = [Vector3::new(a.x, -a.y, -a.z), Vector3::new(-b.x, b.y, b.z), Vector3::new(-c.x, c.y, c.z)];
        Motion { rows, shift: Vector3::new(-self.shift.x, self.shift.y, self.shift.z) }
    }

    /// The motion that takes everything back.
    pub fn inverse(&self) -> Motion {
        let [a, b, c] = self.rows;
        let rows = [Vector3::new(a.x, b.x, c.x), Vector3::new(a.y, b.y, c.y), Vector3::new(a.z, b.z, c.z)];
        let back = Motion { rows, shift: Vector3::default() };
        Motion { rows, shift: -back.direction(self.shift) }
    }
}
