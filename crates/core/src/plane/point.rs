//! Points, displacements and boxes of the plane.

use std::ops::{Add, Mul, Neg, Sub};

use serde::Serialize;
use utoipa::ToSchema;

/// A place, in millimetres.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Point {
    /// Across, mm.
    pub x: f64,
    /// Up, mm.
    pub y: f64,
}

/// A displacement, in millimetres.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Vector {
    /// Across, mm.
    pub x: f64,
    /// Up, mm.
    pub y: f64,
}

impl Point {
    /// The point at these coordinates, mm.
    pub const fn new(x: f64, y: f64) -> Self {
        Point { x, y }
    }

    /// Straight distance, mm.
    pub fn distance(self, other: Point) -> f64 {
        (other - self).length()
    }

    /// The point a fraction of the way to another.
    pub fn toward(self, other: Point, fraction: f64) -> Point {
        self + (other - self) * fraction
    }
}

impl Vector {
    /// The displacement with these components, mm.
    pub const fn new(x: f64, y: f64) -> Self {
        Vector { x, y }
    }

    /// Its length, mm.
    pub fn length(self) -> f64 {
        self.x.hypot(self.y)
    }

    /// Dot product.
    pub fn dot(self, other: Vector) -> f64 {
        self.x * other.x + self.y * other.y
    }

    /// Cross product: positive when `other` lies counter-clockwise of this.
    pub fn cross(self, other: Vector) -> f64 {
        self.x * other.y - self.y * other.x
    }

    /// The same direction with length one; the zero vector stays zero.
    pub fn unit(self) -> Vector {
        let length = self.length();
        if length == 0.0 { self } else { self * (1.0 / length) }
    }

    /// Turned a quarter clockwise: the outward side of a counter-clockwise edge.
    pub fn right(self) -> Vector {
        Vector::new(self.y, -self.x)
    }

    /// Turned a quarter counter-clockwise.
    pub fn left(self) -> Vector {
        Vector::new(-self.y, self.x)
    }
}

impl Sub for Point {
    type Output = Vector;
    fn sub(self, other: Point) -> Vector {
        Vector::new(self.x - other.x, self.y - other.y)
    }
}

impl Add<Vector> for Point {
    type Output = Point;
    fn add(self, by: Vector) -> Point {
        Point::new(self.x + by.x, self.y + by.y)
    }
}

impl Sub<Vector> for Point {
    type Output = Point;
    fn sub(self, by: Vector) -> Point {
        Point::new(self.x - by.x, self.y - by.y)
    }
}

impl Add for Vector {
    type Output = Vector;
    fn add(self, other: Vector) -> Vector {
        Vector::new(self.x + other.x, self.y + other.y)
    }
}

impl Sub for Vector {
    type Output = Vector;
    fn sub(self, other: Vector) -> Vector {
        Vector::new(self.x - other.x, self.y - other.y)
    }
}

impl Mul<f64> for Vector {
    type Output = Vector;
    fn mul(self, by: f64) -> Vector {
        Vector::new(self.x * by, self.y * by)
    }
}

impl Neg for Vector {
    type Output = Vector;
    fn neg(self) -> Vector {
        Vector::new(-self.x, -self.y)
    }
}

/// The smallest upright box around something, mm.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Box2 {
    /// Lower left corner.
    pub low: Point,
    /// Upper right corner.
    pub high: Point,
}

impl Box2 {
    /// The box that holds nothing: growing it by a point gives the point.
    pub const EMPTY: Box2 =
        Box2 { low: Point::new(f64::INFINITY, f64::INFINITY), high: Point::new(f64::NEG_INFINITY, f64::NEG_INFINITY) };

    /// Grows to hold a point.
    pub fn hold(&mut self, point: Point) {
        self.low = Point::new(self.low.x.min(point.x), self.low.y.min(point.y));
        self.high = Point::new(self.high.x.max(point.x), self.high.y.max(point.y));
    }

    /// The box around both.
    pub fn with(mut self, other: Box2) -> Box2 {
        self.hold(other.low);
        self.hold(other.high);
        self
    }

    /// Whether two boxes come nearer than `gap` mm.
    pub fn is_near(&self, other: &Box2, gap: f64) -> bool {
        self.low.x - gap <= other.high.x
            && other.low.x - gap <= self.high.x
            && self.low.y - gap <= other.high.y
            && other.low.y - gap <= self.high.y
    }

    /// Width, mm.
    pub fn width(&self) -> f64 {
        self.high.x - self.low.x
    }

    /// Height, mm.
    pub fn height(&self) -> f64 {
        self.high.y - self.low.y
    }

    /// The middle.
    pub fn centre(&self) -> Point {
        self.low.toward(self.high, 0.5)
    }
}
