//! Tabs: stretches of the outside that are not cut, so that the part stays in the sheet.

use crate::plane::Segment;
use crate::quantity::tolerance::ROUNDING;

/// A closed path parted by `count` gaps of `gap` mm each, equally spread, moved onto straight stretches where that is
/// possible nearby. Empty when the gaps leave nothing to cut.
pub(super) fn part(path: &[Segment], count: usize, gap: f64) -> Vec<Vec<Segment>> {
    let total: f64 = path.iter().map(Segment::length).sum();
    let space = total / count as f64;
    if gap >= 0.8 * space {
        return Vec::new();
    }
    let middles: Vec<f64> = (0..count)
        .map(|at| {
            let wanted = (at as f64 + 0.5) * space;
            // Nearest first, to either side, within a quarter of the space.
            (0..=20)
                .flat_map(|step| [1.0, -1.0].map(|way| wanted + way * f64::from(step) * space / 80.0))
                .find(|&middle| straight(path, middle - gap, middle + gap))
                .unwrap_or(wanted)
        })
        .collect();
    (0..count)
        .map(|at| {
            let from = middles[at] + gap / 2.0;
            let to = if at + 1 < count { middles[at + 1] } else { middles[0] + total } - gap / 2.0;
            stretch(path, total, from, to)
        })
        .collect()
}

/// Whether one straight segment holds the whole stretch.
fn straight(path: &[Segment], from: f64, to: f64) -> bool {
    let mut here = 0.0;
    for one in path {
        let next = here + one.length();
        if from >= here && to <= next {
            return one.is_line();
        }
        here = next;
    }
    false
}

/// The piece of a closed path between two distances along it; `to` may lie past its end.
fn stretch(path: &[Segment], total: f64, from: f64, to: f64) -> Vec<Segment> {
    let mut pieces = Vec::new();
    for round in 0..2 {
        let mut here = f64::from(round) * total;
        for one in path {
            let length = one.length();
            let (a, b) = (((from - here) / length).clamp(0.0, 1.0), ((to - here) / length).clamp(0.0, 1.0));
            if (b - a) * length > ROUNDING {
                pieces.push(one.part(a, b));
            }
            here += length;
        }
    }
    pieces
}
