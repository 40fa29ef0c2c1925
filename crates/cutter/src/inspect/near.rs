//! Segments and boxes found by place.

use rstar::primitives::{GeomWithData, Rectangle};
use rstar::{AABB, RTree};
use steelk_core::plane::{Box2, Point, Segment};

/// A stretch of a segment and whose it is.
#[derive(Clone, Copy, Debug)]
pub(super) struct Piece {
    pub way: Segment,
    pub owner: usize,
}

/// Long segments are looked up in pieces, so that their boxes stay small, mm.
const LONGEST: f64 = 8.0;

pub(super) fn chopped(way: &Segment) -> Vec<Segment> {
    let parts = (way.length() / LONGEST).ceil().clamp(1.0, 1e5) as usize;
    if parts == 1 {
        return vec![*way];
    }
    (0..parts).map(|at| way.part(at as f64 / parts as f64, (at + 1) as f64 / parts as f64)).collect()
}

type Entry = GeomWithData<Rectangle<[f64; 2]>, Piece>;

pub(super) struct Near {
    tree: RTree<Entry>,
}

fn corners(box_: Box2) -> ([f64; 2], [f64; 2]) {
    ([box_.low.x, box_.low.y], [box_.high.x, box_.high.y])
}

impl Near {
    pub fn new(ways: impl Iterator<Item = (Segment, usize)>) -> Near {
        let entries = ways
            .flat_map(|(way, owner)| chopped(&way).into_iter().map(move |way| Piece { way, owner }))
            .map(|piece| {
                let (low, high) = corners(piece.way.extents());
                GeomWithData::new(Rectangle::from_corners(low, high), piece)
            })
            .collect();
        Near { tree: RTree::bulk_load(entries) }
    }

    pub fn of_boxes(boxes: impl Iterator<Item = (Box2, usize)>) -> Near {
        let entries = boxes
            .map(|(box_, owner)| {
                let (low, high) = corners(box_);
                let way = Segment::line(box_.low, box_.high);
                GeomWithData::new(Rectangle::from_corners(low, high), Piece { way, owner })
            })
            .collect();
        Near { tree: RTree::bulk_load(entries) }
    }

    /// Pieces whose boxes come within `reach` mm of a place.
    pub fn around(&self, place: Point, reach: f64) -> impl Iterator<Item = &Piece> {
        self.within(Box2 { low: place, high: place }, reach)
    }

    /// Pieces whose boxes come within `reach` mm of a segment's box.
    pub fn across(&self, way: &Segment, reach: f64) -> impl Iterator<Item = &Piece> {
        self.within(way.extents(), reach)
    }

    fn within(&self, box_: Box2, reach: f64) -> impl Iterator<Item = &Piece> {
        let (low, high) = corners(box_);
        let envelope = AABB::from_corners(low.map(|v| v - reach), high.map(|v| v + reach));
        self.tree.locate_in_envelope_intersecting(envelope).map(|entry| &entry.data)
    }
}
