//! An outline moved inward by a distance, piece by piece: what a slope on it comes to. Each piece stays what it was, so that the faces
//! between are planes and cones.

use crate::plane::{Edge, Outline, Point, Segment, Vector, segment_distance};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, TRACED};

/// The way that a segment runs at its end, or at its start.
fn way(segment: &Segment, at_end: bool) -> Vector {
    if segment.is_line() {
        return (segment.end - segment.start).unit();
    }
    let arm = (if at_end { segment.end } else { segment.start }) - segment.centre();
    if segment.bulge > 0.0 { arm.left().unit() } else { -arm.left().unit() }
}

/// A counter-clockwise outline moved inward, mm.
///
/// # Errors
/// In words: a round that is smaller than that, a side that vanishes, a round that meets another piece at a corner, sides that meet.
pub(in crate::sheet) fn inward(outline: &Outline, by: f64) -> Result<Outline, String> {
    let segments: Vec<Segment> = outline.segments().map(|(one, _)| one).collect();
    let count = segments.len();
    let mut corners: Vec<Point> = Vec::with_capacity(count);
    for at in 0..count {
        let (before, own) = (&segments[(at + count - 1) % count], &segments[at]);
        let (into, out) = (way(before, true), way(own, false));
        let start = own.start;
        corners.push(if into.cross(out).abs() < TRACED && into.dot(out) > 0.0 {
            start + out.left() * by
        } else if before.is_line() && own.is_line() {
            let both = into.left() + out.left();
            start + both * (by / (1.0 + into.dot(out)))
        } else {
            return Err("a round meets another piece of its outline at a corner".into());
        });
    }
    let mut edges = Vec::with_capacity(count);
    for at in 0..count {
        let (from, to) = (corners[at], corners[(at + 1) % count]);
        let own = &segments[at];
        if own.is_line() {
            if (to - from).dot(own.end - own.start) <= MODELLING_TOLERANCE * own.length() {
                return Err("its sides meet before they are that high".into());
            }
        } else if own.bulge > 0.0 && own.radius() - by < MODELLING_TOLERANCE {
            return Err("its rounds are too small for sides of that slope and height".into());
        }
        edges.push(Edge { start: from, bulge: own.bulge, tag: 0 });
    }
    let moved = Outline { edges };
    let own: Vec<Segment> = moved.segments().map(|(one, _)| one).collect();
    for one in 0..count {
        for two in one + 2..count {
            if (one, two) != (0, count - 1) && segment_distance(&own[one], &own[two]) < MODELLING_TOLERANCE {
                return Err("its sides meet before they are that high".into());
            }
        }
    }
    Ok(moved)
}
