//! The walls between two outlines: a side over an edge of both, or triangles where their corners are not as many.

use std::f64::consts::{PI, TAU};

use crate::finding::Finding;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::quantity::{LengthUnit, length_text};
use crate::space::{Point3, Vector3};
use crate::work::sheet::Diagonal;

use super::faces::{Face, FacePart};
use super::outlines::{Corner, ONE_PLANE};

/// Further off a plane than this a side is not plane, mm.
pub(super) const OFF_PLANE: f64 = 10.0 * MODELLING_TOLERANCE;

/// Which corner of the upper outline meets the first of the lower one, of as many: where all ways up together are shortest.
pub(super) fn best_start(points: &[Point3], n: usize) -> usize {
    let long = |first: usize| (0..n).map(|at| points[at].distance(points[n + (at + first) % n]).powi(2)).sum::<f64>();
    // Of two that are as short the first: rounding does not choose.
    let least = (0..n).map(long).fold(f64::INFINITY, f64::min);
    (0..n).find(|&first| long(first) <= least * (1.0 + MODELLING_TOLERANCE)).unwrap_or(0)
}

/// A side over one edge of both outlines: lower left, lower right, upper right, upper left, seen from outside.
pub(super) fn side(
    points: &[Point3],
    name: &str,
    [a, b, d, c]: [usize; 4],
    crease: Diagonal,
    unit: LengthUnit,
    (raw, notes): (&mut Vec<(String, Vec<usize>)>, &mut Vec<Finding>),
) {
    let normal = newell(points, &[b, a, c, d]);
    let off = (points[d] - points[a]).dot((points[b] - points[a]).cross(points[c] - points[a]).unit()).abs();
    let flat = [a, b, c, d].iter().all(|&at| (points[at] - points[a]).dot(normal).abs() < OFF_PLANE);
    if flat {
        raw.push((name.to_string(), vec![b, a, c, d]));
        return;
    }
    let rising = points[a].distance(points[d]);
    let falling = points[c].distance(points[b]);
    let by_rising = match crease {
        Diagonal::Rising => true,
        Diagonal::Falling => false,
        Diagonal::Shorter => rising <= falling,
    };
    notes.push(Finding::hint(
        format!(
            "{name} is not plane: its fourth corner lies {} from the plane of the others; it is creased along its {} diagonal, {}",
            length_text(off, unit),
            if by_rising { "rising" } else { "falling" },
            length_text(if by_rising { rising } else { falling }, unit)
        ),
        "Choose the other diagonal where the metal should run the other way.",
    ));
    // In the order round the body: the triangle that is met first first.
    if by_rising {
        raw.push((name.to_string(), vec![a, c, d]));
        raw.push((name.to_string(), vec![b, a, d]));
    } else {
        raw.push((name.to_string(), vec![b, a, c]));
        raw.push((name.to_string(), vec![b, c, d]));
    }
}

/// What the panels are called that stand on an edge of one outline only.
#[derive(Clone, Copy)]
pub(super) struct Naming {
    /// By elevations the front profile, which is the upper outline, gives the names.
    pub by_upper: bool,
}

impl Naming {
    pub fn of(&self, on_upper: bool, edge: &str) -> String {
        match (on_upper == self.by_upper, on_upper) {
            (true, _) => edge.to_string(),
            (false, true) => format!("up-{edge}"),
            (false, false) => format!("rear-{edge}"),
        }
    }

    /// Whether a name is of the outline that does not give the names.
    fn is_second(&self, name: &str) -> bool {
        name.starts_with(if self.by_upper { "rear-" } else { "up-" })
    }
}

/// Triangles between outlines of different numbers of corners: of the two ways on the one that leaves the other outline within, so that
/// the surface turns outward as far as the outlines let it; else the shorter; and through the corners that are joined by hand.
pub(super) fn between(
    points: &[Point3],
    (lower, upper): (&[Corner], &[Corner]),
    ways: &[(usize, usize)],
    naming: Naming,
) -> Result<Vec<(String, Vec<usize>)>, Finding> {
    let (n, m) = (lower.len(), upper.len());
    let mut raw = Vec::new();
    // Begins at the first way by hand, or at the shortest way up.
    let all = (0..n).flat_map(|a| (0..m).map(move |b| (a, b)));
    let long = |&(a, b): &(usize, usize)| points[a].distance(points[n + b]);
    let least = all.clone().map(|way| long(&way)).fold(f64::INFINITY, f64::min);
    let shortest = all.clone().find(|way| long(way) <= least * (1.0 + MODELLING_TOLERANCE)).unwrap_or((0, 0));
    // The shortest of the ways that nothing of either outline lies past.
    let mut outer: Vec<(usize, usize)> = all.clone().filter(|&(a, b)| is_outer(points, a, n + b)).collect();
    outer.sort_by(|one, two| long(one).total_cmp(&long(two)).then(one.cmp(two)));
    let outer = outer.first().map(|first| long(first) * (1.0 + MODELLING_TOLERANCE)).and_then(|most| {
        // Of those that are as short the first in the outlines' own order.
        all.clone().find(|way| long(way) <= most && is_outer(points, way.0, n + way.1))
    });
    let start = ways.first().copied().unwrap_or(outer.unwrap_or(shortest));
    // Whether a triangle leaves a place within, seen from within counter-clockwise.
    let within = |[a, b, c]: [usize; 3], place: usize| {
        let outward = -newell(points, &[a, b, c]);
        (points[place] - points[a]).dot(outward) < OFF_PLANE
    };
    let mut stops: Vec<(usize, usize)> =
        ways.iter().skip(1).map(|&(a, b)| ((a + n - start.0) % n, (b + m - start.1) % m)).collect();
    stops.sort_unstable();
    // A point has no edges of its own.
    stops.push((n, if m == 1 { 0 } else { m }));
    if stops.windows(2).any(|pair| pair[1].1 < pair[0].1) {
        return Err(Finding::error(
            "the ways between corners that are joined by hand cross",
            "Name the corners of both outlines in the same order round.",
        )
        .at_field("ways"));
    }
    let (mut i, mut j) = (0, 0);
    for (stop_i, stop_j) in stops {
        while i < stop_i || j < stop_j {
            let (a, next_a) = ((start.0 + i) % n, (start.0 + i + 1) % n);
            let (b, next_b) = ((start.1 + j) % m, (start.1 + j + 1) % m);
            let on_lower = points[next_a].distance(points[n + b]);
            let on_upper = points[a].distance(points[n + next_b]);
            let by_lower = within([next_a, a, n + b], n + next_b);
            let by_upper = within([a, n + b, n + next_b], next_a);
            let lower_first = match (by_lower, by_upper) {
                (true, false) => true,
                (false, true) => false,
                _ => on_lower <= on_upper * (1.0 + MODELLING_TOLERANCE),
            };
            if j == stop_j || (i < stop_i && lower_first) {
                raw.push((naming.of(false, &lower[a].edge), vec![next_a, a, n + b]));
                i += 1;
            } else {
                raw.push((naming.of(true, &upper[b].edge), vec![a, n + b, n + next_b]));
                j += 1;
            }
        }
    }
    Ok(raw)
}

/// Whether all places lie to one side of some plane through two of them.
fn is_outer(points: &[Point3], one: usize, two: usize) -> bool {
    let axis = (points[two] - points[one]).unit();
    let any = if axis.x.abs() < 0.6 { Vector3::new(1.0, 0.0, 0.0) } else { Vector3::new(0.0, 1.0, 0.0) };
    let (u, v) = (any.cross(axis).unit(), axis.cross(any.cross(axis).unit()));
    let seen = |place: &Point3| {
        let way = *place - points[one];
        let (x, y) = (way.dot(u), way.dot(v));
        (x.hypot(y) > OFF_PLANE).then(|| y.atan2(x))
    };
    let mut angles: Vec<f64> = points.iter().filter_map(seen).collect();
    angles.sort_by(f64::total_cmp);
    let Some(&first) = angles.first() else { return false };
    let around = angles.iter().skip(1).copied().chain([first + TAU]);
    angles.iter().zip(around).any(|(one, next)| next - one > PI + OFF_PLANE)
}

/// Unit normal of a polygon by Newell's sum: toward whoever sees it counter-clockwise.
pub(super) fn newell(points: &[Point3], corners: &[usize]) -> Vector3 {
    let count = corners.len();
    let sum = (0..count).fold(Vector3::default(), |sum, at| {
        let (from, to) = (points[corners[at]], points[corners[(at + 1) % count]]);
        sum + from.from_origin().cross(to.from_origin())
    });
    sum.unit()
}

/// Puts neighbours in one plane together.
pub(super) fn merge(points: &[Point3], faces: &mut Vec<Face>, naming: Naming) {
    let mut at = 0;
    while at < faces.len() && faces.len() > 1 {
        let next = (at + 1) % faces.len();
        let (one, two) = (&faces[at], &faces[next]);
        let joined = (one.outward.angle_to(two.outward) < ONE_PLANE)
            .then(|| joined(&one.corners, &two.corners))
            .flatten()
            .filter(|corners| corners.len() > 2);
        let Some(corners) = joined else {
            at += 1;
            continue;
        };
        let outward = -newell(points, &corners);
        // The name of the one that stands on the outline that gives the names.
        let name = if naming.is_second(&one.name) { two.name.clone() } else { one.name.clone() };
        faces[at] = Face { name, corners, outward, part: FacePart::Wall, gone: false };
        faces.remove(next);
        if next < at {
            at -= 1;
        }
    }
}

/// Two loops that share one edge, as one.
fn joined(one: &[usize], two: &[usize]) -> Option<Vec<usize>> {
    let edge = (0..one.len()).find(|&at| {
        let (from, to) = (one[at], one[(at + 1) % one.len()]);
        (0..two.len()).any(|other| two[other] == to && two[(other + 1) % two.len()] == from)
    })?;
    let (from, to) = (one[edge], one[(edge + 1) % one.len()]);
    let begin = two.iter().position(|&corner| corner == from)?;
    let rest = (1..two.len() - 1).map(|step| two[(begin + step) % two.len()]);
    let mut all: Vec<usize> = Vec::new();
    for at in 0..one.len() {
        let corner = one[(edge + 1 + at) % one.len()];
        all.push(corner);
    }
    debug_assert_eq!(all.first(), Some(&to));
    all.extend(rest);
    Some(all)
}
