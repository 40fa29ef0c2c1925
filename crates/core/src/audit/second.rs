//! The second opinion on booleans: another library, which knows only polygons, on outlines broken into chords.

use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;

use crate::plane::{Outline, Region};

/// How far a chord lies from its arc, mm.
pub(super) const CHORD: f64 = 5.0e-4;

type Contours = Vec<Vec<[f64; 2]>>;

fn contour(outline: &Outline) -> Vec<[f64; 2]> {
    outline.flatten(CHORD).into_iter().map(|point| [point.x, point.y]).collect()
}

fn contours(regions: &[Region]) -> Contours {
    regions.iter().flat_map(Region::outlines).map(contour).collect()
}

fn area(shapes: &[Contours]) -> f64 {
    let ring = |ring: &Vec<[f64; 2]>| {
        let count = ring.len();
        (0..count)
            .map(|at| {
                let ([ax, ay], [bx, by]) = (ring[at], ring[(at + 1) % count]);
                (ax - ring[0][0]) * (by - ring[0][1]) - (bx - ring[0][0]) * (ay - ring[0][1])
            })
            .sum::<f64>()
            / 2.0
    };
    shapes.iter().flatten().map(ring).sum::<f64>().abs()
}

fn finite(all: &Contours) -> bool {
    all.iter().flatten().flatten().all(|value| value.is_finite())
}

/// What a tool takes of a region, and how much metal differs between what should be left and what is left, mm2; `None` where
/// a coordinate is no number.
pub(super) fn cut(before: &Region, tool: &Outline, after: &[Region]) -> Option<(f64, f64)> {
    let (whole, tool, left) = (contours(std::slice::from_ref(before)), vec![contour(tool)], contours(after));
    if !(finite(&whole) && finite(&tool) && finite(&left)) {
        return None;
    }
    let taken = whole.overlay(&tool, OverlayRule::Intersect, FillRule::EvenOdd);
    let wanted: Contours =
        whole.overlay(&tool, OverlayRule::Difference, FillRule::EvenOdd).into_iter().flatten().collect();
    let differs = wanted.overlay(&left, OverlayRule::Xor, FillRule::EvenOdd);
    Some((area(&taken), area(&differs)))
}

/// Area in which two outlines differ, mm2; `None` where a coordinate is no number.
pub(super) fn difference(one: &Outline, two: &Outline) -> Option<f64> {
    let (one, two) = (vec![contour(one)], vec![contour(two)]);
    (finite(&one) && finite(&two)).then(|| area(&one.overlay(&two, OverlayRule::Xor, FillRule::EvenOdd)))
}
