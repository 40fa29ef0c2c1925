//! Ends of strokes, found by place.

use std::collections::HashMap;

use crate::plane::{Point, Segment};

/// Which stroke, and whether it is its end rather than its start.
pub(super) type End = (usize, bool);

/// A cell's place among the cells.
type Cell = (i64, i64);

/// A cell is so many gaps wide: most places have what is near them in their own cell.
const GAPS: f64 = 4.0;

/// The ends of strokes by the cells that they lie in.
pub(super) struct Ends<'a> {
    open: &'a [Segment],
    gap: f64,
    cells: HashMap<Cell, Vec<End>>,
}

impl<'a> Ends<'a> {
    /// Of strokes whose ends are one point where they are no further apart than `gap` mm.
    pub fn new(open: &'a [Segment], gap: f64) -> Self {
        let mut ends = Ends { open, gap, cells: HashMap::with_capacity(open.len()) };
        for (at, one) in open.iter().enumerate() {
            for (place, is_end) in [(one.start, false), (one.end, true)] {
                let cell = ends.cell(place);
                ends.cells.entry(cell).or_default().push((at, is_end));
            }
        }
        ends
    }

    fn cell(&self, point: Point) -> Cell {
        let width = GAPS * self.gap;
        ((point.x / width).floor() as i64, (point.y / width).floor() as i64)
    }

    /// Where an end lies.
    pub fn place(&self, (at, is_end): End) -> Point {
        if is_end { self.open[at].end } else { self.open[at].start }
    }

    /// Ends no further than a gap from a place, with how far they are, mm.
    pub fn near(&self, here: Point) -> impl Iterator<Item = (f64, End)> {
        let (low, high) =
            (Point::new(here.x - self.gap, here.y - self.gap), Point::new(here.x + self.gap, here.y + self.gap));
        let (first, last) = (self.cell(low), self.cell(high));
        (first.0..=last.0)
            .flat_map(move |x| (first.1..=last.1).map(move |y| (x, y)))
            .filter_map(|cell| self.cells.get(&cell))
            .flatten()
            .map(move |&end| (self.place(end).distance(here), end))
            .filter(|(away, _)| *away <= self.gap)
    }
}
