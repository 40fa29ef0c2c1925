//! Whether two bodies share metal. Triangles only say where to look: wherever the two shells cross, and behind each face, a place
//! is tried that would lie in both, and only a place that does is a clash. What merely touches, flat or round, has none.

use crate::patience;
use crate::quantity::tolerance::PARALLEL;
use crate::space::{Body, Box3, Point3, Vector3};

use super::probe::{FINE, Probe, Sorted};

/// Less deep than this in each other is touching, mm.
pub const DEEP: f64 = 0.05;
/// How far behind the shells places are tried, of what is touching.
const BEHIND: f64 = 1.3;
/// Shells that look so nearly against each other lie on each other: the length of the sum of their normals.
const AGAINST: f64 = 0.02;
/// The furthest place that is tried behind two shells that cross flatly, mm.
const FURTHEST: f64 = 30.0;
/// Directions of flat faces that are tried to part two bodies.
const TRIED: usize = 32;
/// Lines through what two bodies share at each pass, the later ones through what the one before met.
const LINES: [u32; 3] = [1500, 1500, 4000];
/// Steps of the lines across and up, so that they spread evenly however many there are and no two stand in one row: walls lie in
/// rows (Roberts' sequence, from the plastic number).
const SPREAD: (f64, f64) = (0.754_877_666_246_692_7, 0.569_840_290_998_053_2);

/// Metal that two bodies share.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Clash {
    /// A place in both.
    pub place: Point3,
    /// The faces that cross there, by index in each body; a face of one and none of the other where one lies within the other.
    pub faces: [Option<usize>; 2],
}

/// Whether one of the directions in which flat faces look parts two bodies to within twice `deep` mm: quick, and enough for most
/// that touch.
pub fn parted_by_a_face(one: &Body, two: &Body, deep: f64) -> bool {
    let mut tried: Vec<Vector3> = Vec::new();
    one.faces.iter().chain(&two.faces).any(|face| {
        let crate::space::Surface::Plane { normal, .. } = &face.surface else { return false };
        // What is told in facets has hundreds of them.
        if tried.len() == TRIED || tried.iter().any(|known| known.dot(*normal).abs() > 1.0 - PARALLEL) {
            return false;
        }
        tried.push(*normal);
        let ((a, b), (c, d)) = (one.span(*normal), two.span(*normal));
        (b - c).min(d - a) <= 2.0 * deep
    })
}

/// A place of metal that two bodies share; `None` where they are apart or only touch, less than `deep` mm in each other:
/// [`DEEP`] for exact bodies, more for what is only near to the shape that it stands for.
pub fn clash(one: &Probe, two: &Probe, deep: f64) -> Option<Clash> {
    if !one.around.overlaps(&two.around, 2.0 * deep) {
        return None;
    }
    behind(one, two, deep)
        .map(|(face, place)| Clash { place, faces: [Some(face), None] })
        .or_else(|| behind(two, one, deep).map(|(face, place)| Clash { place, faces: [None, Some(face)] }))
        .or_else(|| crossing(one, two, deep))
}

/// A place behind a face of one body that lies in the other: one within the other, or both alike.
fn behind(one: &Probe, two: &Probe, deep: f64) -> Option<(usize, Point3)> {
    let mut best: Vec<Option<(f64, usize)>> = vec![None; one.body.faces.len()];
    for (at, [a, b, c]) in one.corners.iter().enumerate() {
        patience::check();
        let area = (*b - *a).cross(*c - *a).length();
        let known = &mut best[one.faces[at] as usize];
        if known.is_none_or(|(most, _)| area > most) {
            *known = Some((area, at));
        }
    }
    best.into_iter().flatten().find_map(|(_, at)| {
        let [a, b, c] = one.corners[at];
        let middle = a + ((b - a) + (c - a)) * (1.0 / 3.0);
        let place = middle + one.normal(at, middle) * (-BEHIND * deep);
        (two.holds(place, deep) && one.holds(place, deep)).then_some((one.faces[at] as usize, place))
    })
}

/// A place behind both shells where they cross.
fn crossing(one: &Probe, two: &Probe, deep: f64) -> Option<Clash> {
    for at in one.near(&two.around, -FINE) {
        patience::check();
        for other in two.near(&one.boxes[at], -FINE) {
            let Some(line) = shared_line(&one.corners[at], &two.corners[other]) else { continue };
            for share in [0.5, 0.1, 0.9] {
                let place = line[0] + (line[1] - line[0]) * share;
                let both = one.normal(at, place) + two.normal(other, place);
                let size = both.length();
                if size < AGAINST {
                    continue;
                }
                let back = (2.0 * BEHIND * deep / size).min(FURTHEST);
                let place = place + both * (-back / size);
                if one.holds(place, deep) && two.holds(place, deep) {
                    let faces = [Some(one.faces[at] as usize), Some(two.faces[other] as usize)];
                    return Some(Clash { place, faces });
                }
            }
        }
    }
    None
}

/// The line that two triangles share; `None` where they are apart, or lie in one plane.
fn shared_line(one: &[Point3; 3], two: &[Point3; 3]) -> Option<[Point3; 2]> {
    let normal = |[a, b, c]: &[Point3; 3]| (*b - *a).cross(*c - *a);
    let (n, m) = (normal(one), normal(two));
    let way = n.cross(m);
    let size = way.length();
    if size < PARALLEL * n.length() * m.length() || size == 0.0 {
        return None;
    }
    let way = way * (1.0 / size);
    // Where each triangle crosses the other's plane, along the line that the two planes share.
    let cut = |corners: &[Point3; 3], on: Point3, normal: Vector3| -> Option<[(f64, Point3); 2]> {
        let unit = normal.unit();
        let high = corners.map(|corner| (corner - on).dot(unit));
        let mut met: Vec<Point3> = Vec::with_capacity(3);
        for (from, to) in [(0, 1), (1, 2), (2, 0)] {
            let (a, b) = (high[from], high[to]);
            if (a > 0.0) != (b > 0.0) {
                met.push(corners[from] + (corners[to] - corners[from]) * (a / (a - b)));
            }
        }
        let [p, q] = met.as_slice() else { return None };
        let along = |place: Point3| place.from_origin().dot(way);
        let (p, q) = ((along(*p), *p), (along(*q), *q));
        Some(if p.0 <= q.0 { [p, q] } else { [q, p] })
    };
    let (a, b) = (cut(one, two[0], m)?, cut(two, one[0], n)?);
    let low = if a[0].0 > b[0].0 { a[0] } else { b[0] };
    let high = if a[1].0 < b[1].0 { a[1] } else { b[1] };
    (low.0 <= high.0).then_some([low.1, high.1])
}

/// How much two bodies share, mm3, about, and the middle of it: by lines through both, first through all of their shared box,
/// then through the box of what the first lines met.
pub fn shared_volume(one: &Probe, two: &Probe) -> (f64, Point3) {
    let meet =
        |low: fn(f64, f64) -> f64, a: Point3, b: Point3| Point3::new(low(a.x, b.x), low(a.y, b.y), low(a.z, b.z));
    let mut within = Box3 {
        low: meet(f64::max, one.around.low, two.around.low),
        high: meet(f64::min, one.around.high, two.around.high),
    };
    let whole = within;
    let mut found = (0.0, Point3::default());
    for lines in LINES {
        let (sum, place, met) = by_lines(one, two, &within, lines);
        if sum == 0.0 {
            break;
        }
        found = (sum, place);
        // As much again as the lines stand apart, about.
        let by = within.size() * (2.0 / f64::from(lines).sqrt());
        within =
            Box3 { low: meet(f64::max, whole.low, met.low + -by), high: meet(f64::min, whole.high, met.high + by) };
    }
    found
}

/// What lines through a box find of both bodies: its volume, its middle and its box.
fn by_lines(one: &Probe, two: &Probe, within: &Box3, lines: u32) -> (f64, Point3, Box3) {
    let size = within.size();
    let axes = [
        (Vector3::new(1.0, 0.0, 0.0), size.x),
        (Vector3::new(0.0, 1.0, 0.0), size.y),
        (Vector3::new(0.0, 0.0, 1.0), size.z),
    ];
    let short = (0..3).min_by(|&a, &b| axes[a].1.total_cmp(&axes[b].1)).unwrap_or(0);
    let (way, across, up) = (axes[short], axes[(short + 1) % 3], axes[(short + 2) % 3]);
    let low = within.low.from_origin();
    let sorted = [one, two].map(|probe| Sorted::new(probe, within, way.0, [across.0, up.0]));
    let (mut sum, mut first, mut around) = (0.0, Vector3::default(), Box3::EMPTY);
    for line in 0..lines {
        patience::check();
        let share = |step: f64| (0.5 + step * f64::from(line)).fract();
        let base = across.0 * (low.dot(across.0) + across.1 * share(SPREAD.0))
            + up.0 * (low.dot(up.0) + up.1 * share(SPREAD.1));
        let place = Point3::default() + base;
        let met = [sorted[0].crossings(place), sorted[1].crossings(place)];
        for a in met[0].chunks_exact(2) {
            for b in met[1].chunks_exact(2) {
                let (from, to) = (a[0].max(b[0]), a[1].min(b[1]));
                if to > from {
                    sum += to - from;
                    first = first + (base + way.0 * ((from + to) / 2.0)) * (to - from);
                    around.hold(place + way.0 * from);
                    around.hold(place + way.0 * to);
                }
            }
        }
    }
    let middle = if sum > 0.0 { Point3::default() + first * (1.0 / sum) } else { Point3::default() };
    (sum * across.1 * up.1 / f64::from(lines), middle, around)
}
