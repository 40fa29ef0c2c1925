//! A flat piece of material: an outer outline less its holes.

use super::{Box2, Outline, Point, Vector};

/// Material inside `outer` and outside every hole; all outlines counter-clockwise.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Region {
    /// The outside.
    pub outer: Outline,
    /// The holes, none touching another or the outside.
    pub holes: Vec<Outline>,
}

impl Region {
    /// A region with no holes.
    pub fn solid(outer: Outline) -> Self {
        Region { outer, holes: Vec::new() }
    }

    /// Net area, mm2.
    pub fn area(&self) -> f64 {
        self.outer.area() - self.holes.iter().map(Outline::area).sum::<f64>()
    }

    /// First moment of the net area about the origin, mm3.
    pub fn moment(&self) -> Vector {
        self.holes.iter().fold(self.outer.moment(), |sum, hole| sum - hole.moment())
    }

    /// Centroid of the net area.
    pub fn centroid(&self) -> Point {
        self.centroid_at(self.area())
    }

    /// As [`Region::centroid`], with its area, mm2, at hand.
    pub fn centroid_at(&self, area: f64) -> Point {
        let moment = self.moment();
        Point::new(moment.x / area, moment.y / area)
    }

    /// Length of every outline, mm: what a cutter travels.
    pub fn perimeter(&self) -> f64 {
        self.outlines().map(Outline::perimeter).sum()
    }

    /// The outer outline, then the holes.
    pub fn outlines(&self) -> impl Iterator<Item = &Outline> {
        std::iter::once(&self.outer).chain(&self.holes)
    }

    /// The smallest upright box around it.
    pub fn extents(&self) -> Box2 {
        self.outer.extents()
    }

    /// Whether a point lies in material.
    pub fn contains(&self, point: Point) -> bool {
        self.outer.contains(point) && !self.holes.iter().any(|hole| hole.contains(point))
    }
}
