//! Rows of holes that stand in one line at even steps.

use crate::plane::Vector;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_TURN};
use crate::sheet::{Flat, Hole};

/// Fewer are no row.
const FEWEST: usize = 3;

/// A row along an edge of an upright panel, mm.
pub(super) struct Row<'a> {
    /// The operation that made it.
    pub operation: &'a str,
    /// Its panel, an index in [`Flat::nodes`].
    pub panel: usize,
    pub first: &'a Hole,
    pub last: &'a Hole,
    /// From hole to hole.
    pub pitch: f64,
    /// From the first and from the last to the panel's edges ahead of them, in the row's own direction.
    pub ends: [f64; 2],
    /// From the row to the nearer edge beside it.
    pub beside: f64,
}

/// Every row of the part. A row aslant has no far edge to speak of, and one that is divided from corner to corner has told ends.
pub(super) fn rows(flat: &Flat) -> Vec<Row<'_>> {
    // What one operation makes on one panel stands together in the list.
    let made = flat.holes.chunk_by(|one, two| one.panel == two.panel && one.operation == two.operation);
    let looked = |holes: &&[Hole]| holes.len() >= FEWEST && !holes[0].is_divided;
    made.filter(looked).filter_map(|holes| row(flat, holes)).collect()
}

fn row<'a>(flat: &Flat, holes: &'a [Hole]) -> Option<Row<'a>> {
    let (first, last) = (holes.first()?, holes.last()?);
    let panel = first.panel;
    let step: Vector = holes.get(1)?.centre - first.centre;
    let even = holes.windows(2).all(|two| ((two[1].centre - two[0].centre) - step).length() < MODELLING_TOLERANCE);
    let pitch = step.length();
    if !even || pitch < MODELLING_TOLERANCE {
        return None;
    }
    let around = flat.nodes[panel].laid;
    let (low, high) = (around.low, around.high);
    let (a, b) = (first.centre, last.centre);
    // From the first and the last to the edge that each looks at, and from the row to the edges beside it.
    let (ends, beside) = if step.y.abs() < NO_TURN * pitch {
        let ends = if step.x > 0.0 { [a.x - low.x, high.x - b.x] } else { [high.x - a.x, b.x - low.x] };
        (ends, (a.y - low.y).min(high.y - a.y))
    } else if step.x.abs() < NO_TURN * pitch {
        let ends = if step.y > 0.0 { [a.y - low.y, high.y - b.y] } else { [high.y - a.y, b.y - low.y] };
        (ends, (a.x - low.x).min(high.x - a.x))
    } else {
        return None;
    };
    Some(Row { operation: &first.operation, panel, first, last, pitch, ends, beside })
}
