//! How much metal a hole wants about it.

use crate::sheet::Hole;
use crate::work::sheet::Make;

/// Thicker than this a cut leaves metal that stands by itself, mm (common practice).
const THICK: f64 = 6.0;
/// A drill does not break out through so much, mm (common practice).
const DRILLED: f64 = 2.0;
/// Of a hole's diameter: from its edge to the part's where its centre is 1.2 diameters in (EN 1993-1-8, table 3.3).
const OF_DIAMETER: f64 = 0.7;

/// How much metal a hole leaves to an edge or to the next opening at least, mm, and the formula. Between two openings EN 1993-1-8
/// has more where bolts bear on it (2.2 d0 from centre to centre); that is the joint's design and not this rule's.
pub(super) fn wanted(hole: &Hole, thickness: f64) -> (f64, &'static str) {
    let round = hole.outline.as_circle().map(|(_, radius)| 2.0 * radius);
    match round {
        Some(diameter) if hole.work.make != Make::Cut && OF_DIAMETER * diameter < thickness => {
            ((OF_DIAMETER * diameter).max(DRILLED).min(thickness), "distance >= 0.7 d, at least 2 mm, at most 1T")
        }
        _ if thickness > THICK => ((thickness / 2.0).max(THICK), "distance >= T/2, at least 6 mm"),
        _ => (thickness, "distance >= 1T"),
    }
}
