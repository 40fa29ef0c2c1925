//! Points, displacements and boxes of space.

use std::ops::{Add, Mul, Neg, Sub};

use serde::Serialize;
use utoipa::ToSchema;

/// A place in space, mm.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Point3 {
    pub x: f64,
    pub y: f64,
    pub z: f64,
}

/// A displacement in space, mm.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Vector3 {
    pub x: f64,
    pub y: f64,
    pub z: f64,
}

impl Point3 {
    /// The point at these coordinates, mm.
    pub const fn new(x: f64, y: f64, z: f64) -> Self {
        Point3 { x, y, z }
    }

    /// Straight distance, mm.
    pub fn distance(self, other: Point3) -> f64 {
        (other - self).length()
    }

    /// The displacement from the origin.
    pub fn from_origin(self) -> Vector3 {
        Vector3::new(self.x, self.y, self.z)
    }
}

impl Vector3 {
    /// The displacement with these components, mm.
    pub const fn new(x: f64, y: f64, z: f64) -> Self {
        Vector3 { x, y, z }
    }

    /// Length, mm.
    pub fn length(self) -> f64 {
        self.dot(self).sqrt()
    }

    /// Dot product.
    pub fn dot(self, other: Vector3) -> f64 {
        self.x * other.x + self.y * other.y + self.z * other.z
    }

    /// Cross product, right-handed.
    pub fn cross(self, other: Vector3) -> Vector3 {
        Vector3::new(
            self.y * other.z - self.z * other.y,
            self.z * other.x - self.x * other.z,
            self.x * other.y - self.y * other.x,
        )
    }

    /// The same direction with length one; the zero vector stays zero.
    pub fn unit(self) -> Vector3 {
        let length = self.length();
        if length == 0.0 { self } else { self * (1.0 / length) }
    }

    /// Angle to another direction, 0 to pi, steady near 0 and pi.
    pub fn angle_to(self, other: Vector3) -> f64 {
        self.cross(other).length().atan2(self.dot(other))
    }
}

impl Sub for Point3 {
    type Output = Vector3;
    fn sub(self, other: Point3) -> Vector3 {
        Vector3::new(self.x - other.x, self.y - other.y, self.z - other.z)
    }
}

impl Add<Vector3> for Point3 {
    type Output = Point3;
    fn add(self, by: Vector3) -> Point3 {
        Point3::new(self.x + by.x, self.y + by.y, self.z + by.z)
    }
}

impl Add for Vector3 {
    type Output = Vector3;
    fn add(self, other: Vector3) -> Vector3 {
        Vector3::new(self.x + other.x, self.y + other.y, self.z + other.z)
    }
}

impl Sub for Vector3 {
    type Output = Vector3;
    fn sub(self, other: Vector3) -> Vector3 {
        self + -other
    }
}

impl Mul<f64> for Vector3 {
    type Output = Vector3;
    fn mul(self, by: f64) -> Vector3 {
        Vector3::new(self.x * by, self.y * by, self.z * by)
    }
}

impl Neg for Vector3 {
    type Output = Vector3;
    fn neg(self) -> Vector3 {
        self * -1.0
    }
}

/// The smallest upright box around something in space, mm.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Box3 {
    /// Least corner.
    pub low: Point3,
    /// Greatest corner.
    pub high: Point3,
}

impl Box3 {
    /// The box that holds nothing.
    pub const EMPTY: Box3 = Box3 {
        low: Point3::new(f64::INFINITY, f64::INFINITY, f64::INFINITY),
        high: Point3::new(f64::NEG_INFINITY, f64::NEG_INFINITY, f64::NEG_INFINITY),
    };

    /// Grows to hold a point.
    pub fn hold(&mut self, point: Point3) {
        let (low, high) = (self.low, self.high);
        self.low = Point3::new(low.x.min(point.x), low.y.min(point.y), low.z.min(point.z));
        self.high = Point3::new(high.x.max(point.x), high.y.max(point.y), high.z.max(point.z));
    }

    /// Whether two boxes share more than a skin of `skin` mm.
    pub fn overlaps(&self, other: &Box3, skin: f64) -> bool {
        self.low.x + skin < other.high.x
            && other.low.x + skin < self.high.x
            && self.low.y + skin < other.high.y
            && other.low.y + skin < self.high.y
            && self.low.z + skin < other.high.z
            && other.low.z + skin < self.high.z
    }

    /// Edge lengths, mm.
    pub fn size(&self) -> Vector3 {
        self.high - self.low
    }
}
