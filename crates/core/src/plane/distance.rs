//! The least distance between two segments or two outlines; zero where they cross or touch.

use super::{Outline, Point, Segment, Vector};
use crate::patience;
use crate::quantity::tolerance::NOTHING;

/// Least distance between two segments, mm. Exact for lines and arcs: the least distance stands at an end of one, on
/// the line from an arc's centre, or is zero at a crossing.
pub fn segment_distance(one: &Segment, two: &Segment) -> f64 {
    if crosses(one, two) {
        return 0.0;
    }
    let mut least = one
        .distance_to(two.start)
        .min(one.distance_to(two.end))
        .min(two.distance_to(one.start))
        .min(two.distance_to(one.end));
    for (arc, other) in [(one, two), (two, one)] {
        if arc.is_line() {
            continue;
        }
        let centre = arc.centre();
        let foot = if other.is_line() {
            let along = other.end - other.start;
            let fraction = (centre - other.start).dot(along) / along.dot(along).max(f64::MIN_POSITIVE);
            if !(0.0..=1.0).contains(&fraction) {
                continue;
            }
            vec![other.start.toward(other.end, fraction)]
        } else {
            let between = other.centre() - centre;
            if between.length() < NOTHING {
                // Concentric: the ends have told the distance already.
                continue;
            }
            let toward = between.unit() * arc.radius();
            vec![centre + toward, centre - toward]
        };
        for place in foot {
            if other.is_line() {
                least = least.min(arc.distance_to(place));
            } else if arc.sweeps_over(place) {
                least = least.min(other.distance_to(place));
            }
        }
    }
    least
}

/// Least distance between two outlines, mm; an outline inside another has its distance to that one's edge.
pub fn outline_distance(one: &Outline, two: &Outline) -> f64 {
    if let (Some((first, r1)), Some((second, r2))) = (one.two_halves(), two.two_halves()) {
        let gap = first.distance(second);
        return (gap - (r1 + r2)).max((r1 - r2).abs() - gap).max(0.0);
    }
    let mut least = f64::INFINITY;
    for (first, _) in one.segments() {
        patience::check();
        for (second, _) in two.segments() {
            least = least.min(segment_distance(&first, &second));
        }
    }
    least
}

fn crosses(one: &Segment, two: &Segment) -> bool {
    match (one.is_line(), two.is_line()) {
        (true, true) => {
            let (along, other) = (one.end - one.start, two.end - two.start);
            let turn = along.cross(other);
            if turn == 0.0 {
                return false;
            }
            let gap = two.start - one.start;
            let (first, second) = (gap.cross(other) / turn, gap.cross(along) / turn);
            (0.0..=1.0).contains(&first) && (0.0..=1.0).contains(&second)
        }
        (true, false) => line_meets_arc(one, two),
        (false, true) => line_meets_arc(two, one),
        (false, false) => {
            let (first, second) = (one.centre(), two.centre());
            let (r1, r2) = (one.radius(), two.radius());
            let between = second - first;
            let gap = between.length();
            if gap == 0.0 || gap > r1 + r2 || gap < (r1 - r2).abs() {
                return false;
            }
            let along = (gap * gap + r1 * r1 - r2 * r2) / (2.0 * gap);
            let aside = (r1 * r1 - along * along).max(0.0).sqrt();
            let unit = between.unit();
            [aside, -aside].iter().any(|&side| {
                let place = first + unit * along + unit.left() * side;
                one.sweeps_over(place) && two.sweeps_over(place)
            })
        }
    }
}

fn line_meets_arc(line: &Segment, arc: &Segment) -> bool {
    let (centre, radius): (Point, f64) = (arc.centre(), arc.radius());
    let along: Vector = line.end - line.start;
    let length = along.length();
    if length == 0.0 {
        return false;
    }
    let unit = along * (1.0 / length);
    let foot = (centre - line.start).dot(unit);
    let aside = (centre - line.start).cross(unit).abs();
    if aside > radius {
        return false;
    }
    let half = (radius * radius - aside * aside).sqrt();
    [foot - half, foot + half].iter().any(|&at| (0.0..=length).contains(&at) && arc.sweeps_over(line.start + unit * at))
}
