//! How far two bodies are apart, with the two places and the faces that they lie on. Triangles say which faces may be nearest;
//! the places are found on the faces themselves.

use std::collections::HashMap;

use crate::patience;
use crate::quantity::tolerance::{NOTHING, NOTHING_SQUARED};
use crate::space::{Box3, Point3, Vector3};

use super::nearest::Ready;
use super::probe::{FINE, Probe, nearest_on};
use super::{DEEP, Unsupported, clash};

/// Steps end where they come no nearer than this, mm.
const COMES_NEARER: f64 = 1e-11;

/// How far two bodies are apart.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Clearance {
    /// The least distance, mm; 0 where they touch.
    pub distance: f64,
    /// The place on the first body.
    pub from: Point3,
    /// The place on the second.
    pub to: Point3,
    /// The faces that the places lie on, by index in each body.
    pub faces: [usize; 2],
}

/// Triangles stray so far from both bodies together at most, mm.
const STRAY: f64 = 2.0 * FINE;
/// Steps from one face to the other and back: places close in on each other at each.
const STEPS: usize = 400;
/// Pairs of triangles of two faces from which the search starts.
const STARTS: usize = 6;

/// The least distance between two bodies; `None` where they share metal.
///
/// # Errors
/// [`Unsupported`] with the faces where what is nearest is a ruled strip.
pub fn clearance(one: &Probe, two: &Probe) -> Result<Option<Clearance>, Unsupported> {
    if clash(one, two, DEEP).is_some() {
        return Ok(None);
    }
    let candidates = candidates(one, two);
    let mut best: Option<Clearance> = None;
    let mut unsupported: Vec<(f64, String)> = Vec::new();
    let (mut first, mut second) = (HashMap::new(), HashMap::new());
    for (a, b, near, start) in candidates {
        patience::check();
        let mine = first.entry(a).or_insert_with(|| Ready::new(&one.body, a));
        let theirs = second.entry(b).or_insert_with(|| Ready::new(&two.body, b));
        let (Some(mine), Some(theirs)) = (mine.as_ref(), theirs.as_ref()) else {
            unsupported.push((near, format!("{} and {}", one.body.faces[a].name, two.body.faces[b].name)));
            continue;
        };
        let (mut from, mut to) = (start, start);
        let mut known = f64::INFINITY;
        for _ in 0..STEPS {
            to = theirs.nearest(from);
            from = mine.nearest(to);
            let distance = from.distance(to);
            if known - distance < COMES_NEARER {
                break;
            }
            known = distance;
        }
        let distance = from.distance(to);
        if best.is_none_or(|best| distance < best.distance) {
            best = Some(Clearance { distance, from, to, faces: [a, b] });
        }
    }
    // A strip that may be nearer than what was found leaves the question open.
    let found = best.map_or(f64::INFINITY, |best| best.distance);
    let faces: Vec<String> =
        unsupported.into_iter().filter(|(near, _)| *near < found + STRAY).map(|(_, names)| names).collect();
    if faces.is_empty() { Ok(best) } else { Err(Unsupported { faces }) }
}

/// How far two boxes are apart.
fn apart(one: &Box3, two: &Box3) -> f64 {
    let gap = |a: f64, b: f64, c: f64, d: f64| (c - b).max(a - d).max(0.0);
    Vector3::new(
        gap(one.low.x, one.high.x, two.low.x, two.high.x),
        gap(one.low.y, one.high.y, two.low.y, two.high.y),
        gap(one.low.z, one.high.z, two.low.z, two.high.z),
    )
    .length()
}

/// Pairs of faces that may be nearest, each with the distance of their triangles and places of the first to start from.
fn candidates(one: &Probe, two: &Probe) -> Vec<(usize, usize, f64, Point3)> {
    let mut least = f64::INFINITY;
    let mut found: Vec<(usize, usize, f64, Point3)> = Vec::new();
    let mut order: Vec<(f64, usize)> =
        one.boxes.iter().enumerate().map(|(at, around)| (apart(around, &two.around), at)).collect();
    order.sort_by(|a, b| a.0.total_cmp(&b.0));
    for (away, at) in order {
        patience::check();
        if away > least + 2.0 * STRAY {
            break;
        }
        for (other, around) in two.boxes.iter().enumerate() {
            if apart(&one.boxes[at], around) > least + 2.0 * STRAY {
                continue;
            }
            let (distance, place) = between(&one.corners[at], &two.corners[other]);
            if distance <= least + 2.0 * STRAY {
                least = least.min(distance);
                found.push((one.faces[at] as usize, two.faces[other] as usize, distance, place));
            }
        }
    }
    found.retain(|one| one.2 <= least + 2.0 * STRAY);
    found.sort_by(|a, b| a.2.total_cmp(&b.2));
    let mut starts: HashMap<(usize, usize), usize> = HashMap::new();
    found.retain(|one| {
        let count = starts.entry((one.0, one.1)).or_default();
        *count += 1;
        *count <= STARTS
    });
    found
}

/// How far two triangles that do not cross are apart, and the place of the first.
fn between(one: &[Point3; 3], two: &[Point3; 3]) -> (f64, Point3) {
    let mut best = (f64::INFINITY, one[0]);
    let mut hold = |from: Point3, to: Point3| {
        let away = from.distance(to);
        if away < best.0 {
            best = (away, from);
        }
    };
    for corner in one {
        hold(*corner, nearest_on(two, *corner));
    }
    for corner in two {
        hold(nearest_on(one, *corner), *corner);
    }
    for i in 0..3 {
        for j in 0..3 {
            let (from, to) = edges(one[i], one[(i + 1) % 3], two[j], two[(j + 1) % 3]);
            hold(from, to);
        }
    }
    best
}

/// The nearest places of two edges (Ericson, Real-Time Collision Detection, 5.1.9).
fn edges(p: Point3, q: Point3, r: Point3, s: Point3) -> (Point3, Point3) {
    let (d1, d2, arm) = (q - p, s - r, p - r);
    let (a, e, f) = (d1.dot(d1), d2.dot(d2), d2.dot(arm));
    let (mut share, mut other) = (0.0, 0.0);
    if a > NOTHING_SQUARED && e > NOTHING_SQUARED {
        let (b, c) = (d1.dot(d2), d1.dot(arm));
        let size = a * e - b * b;
        share = if size > NOTHING * a * e { ((b * f - c * e) / size).clamp(0.0, 1.0) } else { 0.0 };
        other = (b * share + f) / e;
        if other < 0.0 {
            (share, other) = ((-c / a).clamp(0.0, 1.0), 0.0);
        } else if other > 1.0 {
            (share, other) = (((b - c) / a).clamp(0.0, 1.0), 1.0);
        }
    }
    (p + d1 * share, r + d2 * other)
}
