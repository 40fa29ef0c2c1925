//! The surface between two outlines: plane polygons, each with its name, in the order in which they stand round it.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::plane::{Outline, Point};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::shape::Laid;
use crate::space::{Point3, Vector3};
use crate::work::sheet::Diagonal;

use super::numbers::TransitionNumbers;

/// One plane polygon of the surface.
#[derive(Clone, Debug)]
pub(super) struct Face {
    /// `front`, `up-rim-3`.
    pub name: String,
    /// Its corners, by their place in [`Surface::points`], counter-clockwise seen from within.
    pub corners: Vec<usize>,
    /// Unit vector out of the body that the surface bounds.
    pub outward: Vector3,
}

/// The surface between two outlines.
#[derive(Clone, Debug)]
pub(super) struct Surface {
    /// Corners of the lower outline, then of the upper one, mm.
    pub points: Vec<Point3>,
    /// How many are of the lower outline.
    pub lower: usize,
    /// Unit vector of the upper outline's plane, upward.
    pub upper_normal: Vector3,
    /// In order, counter-clockwise seen from above.
    pub faces: Vec<Face>,
    /// What is worth knowing.
    pub notes: Vec<Finding>,
    /// Rounds that are made of flats, with how far those lie within, mm.
    pub chords: Vec<(String, f64)>,
}

/// Further off a plane than this a side is not plane, mm.
const OFF_PLANE: f64 = 10.0 * MODELLING_TOLERANCE;
/// Neighbours that turn less than this are one panel, radians.
const ONE_PLANE: f64 = 1e-7;

/// A corner of an outline and the name of the edge that begins there.
struct Corner {
    place: Point,
    edge: String,
}

fn corners(laid: &Laid, lines: usize, of: &str, chords: &mut Vec<(String, f64)>) -> Vec<Corner> {
    let middle = laid.outer.extents().centre();
    let outline: Outline = laid.outer.clone().counter_clockwise();
    let mut all = Vec::new();
    let mut used: HashMap<String, usize> = HashMap::new();
    for (segment, tag) in outline.segments() {
        let name = laid.name_of(tag).to_string();
        let parts = if segment.is_line() {
            1
        } else {
            let quarters = segment.sweep().abs() / std::f64::consts::FRAC_PI_2;
            // A quarter that is one but for rounding is one.
            ((quarters * lines as f64) - ONE_PLANE).ceil().max(1.0) as usize
        };
        if !segment.is_line() {
            let half = segment.sweep().abs() / parts as f64 / 2.0;
            let told = format!("{name} of the {of} outline");
            if !chords.iter().any(|(known, _)| *known == told) {
                chords.push((told, segment.radius() * (1.0 - half.cos())));
            }
        }
        for part in 0..parts {
            let place = segment.at(part as f64 / parts as f64);
            let count = used.entry(name.clone()).and_modify(|count| *count += 1).or_insert(1);
            let edge = if segment.is_line() && *count == 1 { name.clone() } else { format!("{name}-{count}") };
            all.push(Corner { place: Point::new(place.x - middle.x, place.y - middle.y), edge });
        }
    }
    all
}

/// The surface.
///
/// # Errors
/// Outlines of too few corners, an upper outline that comes down through the lower one, sides that cross.
pub(super) fn surface(given: &TransitionNumbers, unit: LengthUnit) -> Result<Surface, Finding> {
    let mut chords = Vec::new();
    let lower = corners(&given.lower, given.lines, "lower", &mut chords);
    let upper = corners(&given.upper, given.lines, "upper", &mut chords);
    let (n, m) = (lower.len(), upper.len());
    let (about_x, about_y) = (given.tilt.0.sin_cos(), given.tilt.1.sin_cos());
    let (sine, cosine) = given.turn.sin_cos();
    let tilted = |v: Vector3| {
        let v = Vector3::new(v.x, v.y * about_x.1 - v.z * about_x.0, v.y * about_x.0 + v.z * about_x.1);
        Vector3::new(v.x * about_y.1 + v.z * about_y.0, v.y, v.z * about_y.1 - v.x * about_y.0)
    };
    let up = |place: Point| {
        let turned = Vector3::new(place.x * cosine - place.y * sine, place.x * sine + place.y * cosine, 0.0);
        Point3::new(given.offset.0, given.offset.1, given.height) + tilted(turned)
    };
    let mut points: Vec<Point3> = lower.iter().map(|one| Point3::new(one.place.x, one.place.y, 0.0)).collect();
    points.extend(upper.iter().map(|one| up(one.place)));
    if let Some(low) = points[n..].iter().find(|point| point.z < MODELLING_TOLERANCE) {
        return Err(Finding::error(
            format!(
                "the upper outline comes down to {} at its lowest: it crosses the lower one",
                length_text(low.z, unit)
            ),
            "Raise it, or tilt it less.",
        )
        .at_field("height"));
    }
    let upper_normal = tilted(Vector3::new(0.0, 0.0, 1.0));
    let mut notes = Vec::new();
    let mut raw: Vec<(String, Vec<usize>)> = Vec::new();
    // From within the corners go the other way round than from outside.
    if n == m {
        let first = best_start(&points, n);
        for (at, corner) in lower.iter().enumerate() {
            let (a, b) = (at, (at + 1) % n);
            let (c, d) = (n + (at + first) % n, n + (at + 1 + first) % n);
            side(&points, &corner.edge, [a, b, d, c], given.crease, unit, (&mut raw, &mut notes));
        }
    } else {
        between(&points, (&lower, &upper), &mut raw);
    }
    let mut used: HashMap<String, usize> = HashMap::new();
    let mut faces: Vec<Face> = Vec::new();
    for (name, corners) in raw {
        let outward = -newell(&points, &corners);
        faces.push(Face { name, corners, outward });
    }
    merge(&points, &mut faces);
    for face in &mut faces {
        let count = used.entry(face.name.clone()).and_modify(|count| *count += 1).or_insert(1);
        if *count > 1 {
            face.name = format!("{}-{count}", face.name);
        }
    }
    check(&points, &faces, unit)?;
    Ok(Surface { points, lower: n, upper_normal, faces, notes, chords })
}

/// Which corner of the upper outline meets the first of the lower one, of as many: where all ways up together are shortest.
fn best_start(points: &[Point3], n: usize) -> usize {
    let long = |first: usize| (0..n).map(|at| points[at].distance(points[n + (at + first) % n]).powi(2)).sum::<f64>();
    // Of two that are as short the first: rounding does not choose.
    let least = (0..n).map(long).fold(f64::INFINITY, f64::min);
    (0..n).find(|&first| long(first) <= least * (1.0 + MODELLING_TOLERANCE)).unwrap_or(0)
}

/// A side over one edge of both outlines: lower left, lower right, upper right, upper left, seen from outside.
fn side(
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

/// Triangles between outlines of different numbers of corners: always the shorter of the two ways on.
fn between(points: &[Point3], (lower, upper): (&[Corner], &[Corner]), raw: &mut Vec<(String, Vec<usize>)>) {
    let (n, m) = (lower.len(), upper.len());
    // Begins at the shortest way up.
    let ways = (0..n).flat_map(|a| (0..m).map(move |b| (a, b)));
    let long = |&(a, b): &(usize, usize)| points[a].distance(points[n + b]);
    let least = ways.clone().map(|way| long(&way)).fold(f64::INFINITY, f64::min);
    let start = ways.clone().find(|way| long(way) <= least * (1.0 + MODELLING_TOLERANCE)).unwrap_or((0, 0));
    let (mut i, mut j) = (0, 0);
    while i < n || j < m {
        let (a, next_a) = ((start.0 + i) % n, (start.0 + i + 1) % n);
        let (b, next_b) = ((start.1 + j) % m, (start.1 + j + 1) % m);
        let on_lower = points[next_a].distance(points[n + b]);
        let on_upper = points[a].distance(points[n + next_b]);
        if j == m || (i < n && on_lower <= on_upper * (1.0 + MODELLING_TOLERANCE)) {
            raw.push((lower[a].edge.clone(), vec![next_a, a, n + b]));
            i += 1;
        } else {
            raw.push((format!("up-{}", upper[b].edge), vec![a, n + b, n + next_b]));
            j += 1;
        }
    }
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
fn merge(points: &[Point3], faces: &mut Vec<Face>) {
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
        // The name of the one that stands on the lower outline.
        let name = if one.name.starts_with("up-") { two.name.clone() } else { one.name.clone() };
        faces[at] = Face { name, corners, outward };
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

/// Refuses sides that cross each other or have no width.
fn check(points: &[Point3], faces: &[Face], unit: LengthUnit) -> Result<(), Finding> {
    for face in faces {
        let count = face.corners.len();
        for at in 0..count {
            let (from, to) = (points[face.corners[at]], points[face.corners[(at + 1) % count]]);
            if from.distance(to) < MODELLING_TOLERANCE {
                let message = format!("{} has an edge of no length, at x {}", face.name, length_text(from.x, unit));
                return Err(Finding::error(message, "Correct the outline's sizes.").at_field("upper"));
            }
        }
        if !face.outward.x.is_finite() {
            return Err(Finding::error(format!("{} has no area", face.name), "Correct the outline's sizes."));
        }
        // A quadrilateral whose sides cross is seen from within on one corner and from outside on the next.
        for at in 0..count {
            let (a, b, c) = (
                points[face.corners[at]],
                points[face.corners[(at + 1) % count]],
                points[face.corners[(at + 2) % count]],
            );
            let turn = (b - a).cross(c - b).dot(-face.outward);
            if count == 4 && turn < -MODELLING_TOLERANCE {
                return Err(Finding::error(
                    format!("the sides of {} cross: the outlines do not go round alike", face.name),
                    "Turn the upper outline less, or give both outlines the same corners.",
                )
                .at_field("turn"));
            }
        }
    }
    Ok(())
}
