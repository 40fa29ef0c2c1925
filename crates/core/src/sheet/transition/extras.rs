//! What is at the ends of a surface: planes that cut the walls off, panels that close them, collars.

use crate::finding::Finding;
use crate::quantity::{LengthUnit, length_text};
use crate::space::{Point3, Vector3};

use super::faces::{End, Face, FacePart, Rim, Surface, tilted};
use super::numbers::TransitionNumbers;
use super::walls::{OFF_PLANE, newell};

/// Walls that run this near along a plane do not meet it: a cosine.
const ALONG: f64 = 1e-3;

/// Moves the corners of an end to where the walls' corner lines meet a plane: sizes there follow, slopes stay.
///
/// # Errors
/// Sides that are not plane, a plane that lies along a corner line or past the other end.
pub(super) fn cut_off(
    given: &TransitionNumbers,
    points: &mut [Point3],
    (n, first): (usize, usize),
    unit: LengthUnit,
) -> Result<(), Finding> {
    let was = points.to_vec();
    for (end, plane) in given.rims.iter().enumerate() {
        let Some(plane) = plane else { continue };
        for at in 0..n {
            let corners = [at, (at + 1) % n, n + (at + first) % n, n + (at + 1 + first) % n].map(|k| was[k]);
            let [a, b, c, d] = corners;
            let off = (d - a).dot((b - a).cross(c - a).unit()).abs();
            if off > OFF_PLANE {
                return Err(Finding::error(
                    format!(
                        "a wall is not plane, by {}: trimmed by a plane it would be another",
                        length_text(off, unit)
                    ),
                    "Give the rim's own outline instead.",
                )
                .at_field("rims"));
            }
        }
        let (shift, base) = (given.shifts[end], if end == 0 { 0.0 } else { given.height });
        let middle = Point3::new(shift.0, shift.1, base + plane.height);
        let normal = tilted(Vector3::new(0.0, 0.0, 1.0), plane.tilt);
        for at in 0..n {
            let (low, high) = (at, n + (at + first) % n);
            let way = was[high] - was[low];
            let meets = way.dot(normal);
            if meets.abs() < ALONG * way.length() {
                let message = "a corner of the walls runs along the plane that is to trim it".to_string();
                return Err(Finding::error(message, "Tilt the plane less.").at_field("rims"));
            }
            let share = (middle - was[low]).dot(normal) / meets;
            let moved = was[low] + way * share;
            points[if end == 0 { low } else { high }] = moved;
        }
    }
    for at in 0..n {
        let (low, high) = (at, n + (at + first) % n);
        if (points[high] - points[low]).dot(was[high] - was[low]) < OFF_PLANE {
            let message = "the plane that trims the walls passes the other end".to_string();
            return Err(Finding::error(message, "Tilt it less, or move it away from the other end.").at_field("rims"));
        }
    }
    Ok(())
}

/// The rims of both ends, or what is there instead.
pub(super) fn ends(surface: &mut Surface, given: &TransitionNumbers) {
    for end in 0..2 {
        if given.rims[end].is_some() {
            let open: Vec<usize> = corners_of(surface, end);
            let plane = newell(&surface.points, &open);
            let own = &mut surface.ends[end];
            own.at = surface.points[open[0]];
            // The loop goes counter-clockwise seen from above, at either end.
            own.into = if end == 0 { plane } else { -plane };
        }
        let edges = surface.open_edges(end);
        if given.closed[end] && surface.ends[end].is_plane {
            let corners: Vec<usize> = match end {
                // Walked against the walls.
                0 => corners_of(surface, 0),
                _ => corners_of(surface, 1).into_iter().rev().collect(),
            };
            let outward = -surface.ends[end].into;
            let name = match surface.ends[end].name.as_str() {
                name @ ("front" | "rear") => format!("{name}-sheet"),
                name => format!("{name}-end"),
            };
            surface.faces.push(Face { name, corners, outward, part: FacePart::End(end), gone: false });
        } else if let Some(length) = given.collars[end].filter(|_| surface.ends[end].is_plane) {
            collar(surface, end, &edges, length);
        } else {
            let keeps = surface.ends[end].into;
            let name = surface.ends[end].name.clone();
            rims(surface, &name, keeps, edges.iter().map(|&(from, to, _)| (from, to)).collect());
        }
    }
}

fn rims(surface: &mut Surface, name: &str, keeps: Vector3, edges: Vec<(usize, usize)>) {
    for edge in edges {
        surface.rims.insert(edge, Rim { name: name.to_string(), keeps, by: 0.0 });
    }
}

/// The corners of an end's outline in order, counter-clockwise seen from above.
fn corners_of(surface: &Surface, end: usize) -> Vec<usize> {
    let [n, m] = surface.counts;
    if end == 0 { (0..n).collect() } else { (n..n + m).collect() }
}

/// A name that no face has: a wall may have two edges at an end.
pub(super) fn fresh(surface: &Surface, name: String) -> String {
    let taken = |name: &str| surface.faces.iter().any(|face| face.name == name);
    let further = (2..).map(|count| format!("{name}-{count}"));
    std::iter::once(name.clone()).chain(further).find(|name| !taken(name)).unwrap_or(name)
}

/// Square to the end's plane.
fn collar(surface: &mut Surface, end: usize, edges: &[(usize, usize, usize)], length: f64) {
    let End { name, into, .. } = surface.ends[end].clone();
    let mut far = std::collections::HashMap::new();
    for &(from, to, _) in edges {
        for corner in [from, to] {
            far.entry(corner).or_insert_with(|| {
                surface.points.push(surface.points[corner] + into * -length);
                surface.points.len() - 1
            });
        }
    }
    for &(from, to, wall) in edges {
        let corners = vec![to, from, far[&from], far[&to]];
        let outward = -newell(&surface.points, &corners);
        let own = fresh(surface, format!("{name}-collar-{}", surface.faces[wall].name));
        surface.faces.push(Face { name: own, corners, outward, part: FacePart::Collar(end), gone: false });
        rims(surface, "end", into, vec![(far[&from], far[&to])]);
    }
    surface.ends[end].at = surface.ends[end].at + into * -length;
}
