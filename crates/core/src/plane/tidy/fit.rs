//! Lines and arcs in place of a curve, within a tolerance.

use crate::patience;
use crate::plane::{Point, Segment};

/// Lines and arcs through points that lie on a curve, none of the points further off than `tolerance` mm. The points
/// are taken to be dense: what lies between two of them is not looked at.
pub fn fit_arcs(points: &[Point], tolerance: f64) -> Vec<Segment> {
    let mut segments = Vec::new();
    let mut from = 0;
    while from + 1 < points.len() {
        patience::check();
        // The furthest point that one piece still reaches: doubling, then halving.
        let (mut good, mut step) = (from + 1, 2);
        while from + step < points.len() && piece(&points[from..=from + step], tolerance).is_some() {
            good = from + step;
            step *= 2;
        }
        let mut bad = (from + step).min(points.len());
        while bad - good > 1 {
            let middle = (good + bad) / 2;
            if piece(&points[from..=middle], tolerance).is_some() {
                good = middle;
            } else {
                bad = middle;
            }
        }
        let found = piece(&points[from..=good], tolerance);
        segments.push(found.unwrap_or_else(|| Segment::line(points[from], points[good])));
        from = good;
    }
    segments
}

/// One line or arc from the first point to the last, past all between; `None` when one of them is too far off.
fn piece(points: &[Point], tolerance: f64) -> Option<Segment> {
    let (first, last) = (points[0], points[points.len() - 1]);
    let line = Segment::line(first, last);
    if points.iter().all(|&point| line.distance_to(point) <= tolerance) {
        return Some(line);
    }
    let through = points[points.len() / 2];
    let (a, b) = (first - through, last - through);
    // Angle at the circumference: the sweep is twice what is missing of half a turn.
    let seen = a.cross(b).atan2(a.dot(b));
    let sweep = if seen > 0.0 { 2.0 * (seen - std::f64::consts::PI) } else { 2.0 * (seen + std::f64::consts::PI) };
    if sweep.abs() > 1.75 * std::f64::consts::PI {
        return None;
    }
    let arc = Segment { start: first, end: last, bulge: (sweep / 4.0).tan() };
    let (centre, radius) = (arc.centre(), arc.radius());
    let near =
        |point: &Point| (point.distance(centre) - radius).abs() <= tolerance && arc.distance_to(*point) <= tolerance;
    (radius < 1e6 && points.iter().all(near)).then_some(arc)
}
