//! A wall of an exact body.

use crate::plane::{Point, Segment, Vector};

/// A wall of an exact solid: the edge of the section, its way out, its faces.
pub struct Wall {
    /// In the section.
    pub segment: Segment,
    /// Out of the metal, for a straight edge.
    pub out: Vector,
    /// Its faces, by index among the solid's, in order along the member; a hole as wide as the wall parts it in two.
    pub faces: Vec<usize>,
    /// Where along the member each face but the last ends, mm.
    pub parted: Vec<f64>,
}

impl Wall {
    /// The wall of one face.
    pub fn new(segment: Segment, face: usize) -> Wall {
        let out = (segment.end - segment.start).unit().right();
        Wall { segment, out, faces: vec![face], parted: Vec::new() }
    }

    /// Which of its faces lies at a place along the member.
    pub(super) fn at(&self, along: f64) -> usize {
        self.parted.iter().filter(|&&end| along > end).count()
    }
}

/// How near a place must be to a wall, mm.
pub(super) const NEAR: f64 = 1e-6;

/// The corners of a section where two walls meet.
pub(super) fn between(one: &Wall, two: &Wall) -> impl Iterator<Item = Point> {
    let (a, b) = (one.segment, two.segment);
    let meet = |end: Point, start: Point| (end.distance(start) < NEAR).then_some(end);
    [meet(a.end, b.start), meet(b.end, a.start)].into_iter().flatten()
}
