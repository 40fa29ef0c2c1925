//! The region that an outline passes over when it is shifted along a line.

use super::{MODELLING_TOLERANCE, Outline, Point, Segment, Vector, unite};

/// Everything that a polygon passes over on its way from where it is to `by` further, as one outline. `None` where the way
/// encloses an island that is not passed over, which no single outline tells.
///
/// Besides the polygon itself that is what its leading edges sweep: each chain of them with its shifted self encloses a strip.
pub fn swept(polygon: &Outline, by: Vector) -> Option<Outline> {
    let whole = polygon.clone().counter_clockwise();
    if by.length() <= MODELLING_TOLERANCE {
        return Some(whole);
    }
    let edges: Vec<Segment> = whole.segments().map(|(one, _)| one).collect();
    let leads = |one: &Segment| (one.end - one.start).right().dot(by) > 0.0;
    // Begin where a chain of leading edges begins.
    let first =
        (0..edges.len()).find(|&at| leads(&edges[at]) && !leads(&edges[(at + edges.len() - 1) % edges.len()]))?;
    let mut chains: Vec<Vec<Point>> = Vec::new();
    let mut before = false;
    for step in 0..edges.len() {
        let edge = &edges[(first + step) % edges.len()];
        if leads(edge) {
            if !before {
                chains.push(vec![edge.start]);
            }
            if let Some(chain) = chains.last_mut() {
                chain.push(edge.end);
            }
        }
        before = leads(edge);
    }
    let mut all = whole;
    for chain in chains {
        // Along the chain as it is shifted, back along the chain as it was.
        let ahead = chain.iter().map(|&point| (point + by, 0));
        let back = chain.iter().rev().map(|&point| (point, 0));
        let strip = Outline::polygon(&ahead.chain(back).collect::<Vec<_>>()).counter_clockwise();
        let (mut outer, holes) = unite(&all, &strip);
        if outer.len() != 1 || !holes.is_empty() {
            return None;
        }
        all = outer.remove(0);
    }
    Some(all)
}
