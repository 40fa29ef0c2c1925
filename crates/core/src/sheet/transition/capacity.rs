//! What a transition holds: the volume within the inner faces of its panels, closed by the planes of its ends.

use std::collections::HashMap;

use crate::plane::{Point, Vector};
use crate::space::{Point3, Vector3};

use super::faces::{End, Face, FacePart, Surface};
use super::walls::OFF_PLANE;

/// A plane by its unit normal and how far along it lies.
type Plane = (Vector3, f64);

/// Three planes whose normals span less than this meet in no place of their own.
const NO_CORNER: f64 = 1e-6;

/// The volume, mm3. `inner` is how far the inner face of each panel lies from the surface toward the inside, mm. `None` where the rims are
/// not plane. Exact, but where more than three inner faces come to a corner at which the surface turns inward: they do not meet in one
/// place there, and it is told within some cubes of the thickness for each such corner.
pub(super) fn capacity(surface: &Surface, inner: &[f64]) -> Option<f64> {
    if surface.ends[..2].iter().any(|end| !end.is_plane) {
        return None;
    }
    by_corners(surface, inner).or_else(|| convex(surface, inner)).or_else(|| by_layers(surface, inner))
}

/// Whether a face bounds what the transition holds.
fn bounds(face: &Face) -> bool {
    !matches!(face.part, FacePart::Flange(_) | FacePart::Tab)
}

/// What the surface encloses less the layers within each panel, from the surface to its inner face: each layer's edges run in the planes
/// that halve the corners, so that neighbouring layers touch.
fn by_layers(surface: &Surface, inner: &[f64]) -> Option<f64> {
    let whole = by_corners(surface, &vec![0.0; inner.len()])?;
    let owners = walked(surface);
    let mut layers = 0.0;
    for (at, face) in surface.faces.iter().enumerate().filter(|(at, face)| bounds(face) && inner[*at] != 0.0) {
        let count = face.corners.len();
        let place = |k: usize| surface.points[face.corners[k % count]];
        let right = (place(1) - place(0)).unit();
        let up = -face.outward.cross(right);
        let flat = |v: Vector3| Vector::new(v.dot(right), v.dot(up));
        // Each edge, and how far it has moved into the panel at its inner face.
        let mut lines: Vec<(Point, Vector, f64)> = Vec::new();
        for k in 0..count {
            let along = (place(k + 1) - place(k)).unit();
            let into = -face.outward.cross(along);
            let (from, to) = (face.corners[k], face.corners[(k + 1) % count]);
            let (normal, by) = match owners.get(&(to, from)) {
                Some(&next) => (surface.faces[next].outward, -inner[next]),
                None => (surface.ends[end_of(surface, (from, to))?].into, 0.0),
            };
            let slant = normal.dot(into);
            let moved = if slant.abs() < NO_CORNER { 0.0 } else { (normal.dot(face.outward) * inner[at] + by) / slant };
            lines.push((Point::default() + flat(place(k) - place(0)), flat(along), moved));
        }
        // The area at a share of the depth runs as a square of it: three of them tell its mean.
        let mean = (area(&lines, 0.0) + 4.0 * area(&lines, 0.5) + area(&lines, 1.0)) / 6.0;
        layers += inner[at] * mean;
    }
    Some(whole - layers)
}

/// The area within lines that have moved to their left by a share of what they move.
fn area(lines: &[(Point, Vector, f64)], share: f64) -> f64 {
    let count = lines.len();
    let mut corners = Vec::new();
    for k in 0..count {
        let ((p, d, m), (q, e, n)) = (lines[(k + count - 1) % count], lines[k]);
        let (before, here) = (p + d.left() * (m * share), q + e.left() * (n * share));
        let turn = d.cross(e);
        if turn.abs() < NO_CORNER {
            corners.extend([q + d.left() * (m * share), here]);
        } else {
            corners.push(before + d * ((here - before).cross(e) / turn));
        }
    }
    let about = corners[0];
    (1..corners.len() - 1).map(|k| (corners[k] - about).cross(corners[k + 1] - about) / 2.0).sum()
}

/// Which of the faces that bound what is held walks an edge from one corner to the next.
fn walked(surface: &Surface) -> HashMap<(usize, usize), usize> {
    let mut all = HashMap::new();
    for (at, face) in surface.faces.iter().enumerate().filter(|(_, face)| bounds(face)) {
        for (k, &corner) in face.corners.iter().enumerate() {
            all.insert((corner, face.corners[(k + 1) % face.corners.len()]), at);
        }
    }
    all
}

/// The end whose plane an edge of the surface lies on, of the two.
fn end_of(surface: &Surface, edge: (usize, usize)) -> Option<usize> {
    let on = |end: &End, corner: usize| (surface.points[corner] - end.at).dot(end.into).abs() < OFF_PLANE;
    surface.ends[..2].iter().position(|end| on(end, edge.0) && on(end, edge.1))
}

/// Where the inner faces have the surface's corners.
fn by_corners(surface: &Surface, inner: &[f64]) -> Option<f64> {
    let edges = walked(surface);
    let mut planes: Vec<Vec<Plane>> = vec![Vec::new(); surface.points.len()];
    // Edges that no other bound has are the ends'.
    let mut open = Vec::new();
    for (at, face) in surface.faces.iter().enumerate().filter(|(_, face)| bounds(face)) {
        let plane = face.outward.dot(surface.points[face.corners[0]].from_origin()) - inner[at];
        for (k, &from) in face.corners.iter().enumerate() {
            planes[from].push((face.outward, plane));
            let to = face.corners[(k + 1) % face.corners.len()];
            if !edges.contains_key(&(to, from)) {
                open.push((end_of(surface, (from, to))?, from, to));
            }
        }
    }
    for &(on, from, to) in &open {
        let end = &surface.ends[on];
        for corner in [from, to] {
            planes[corner].push((end.into, end.into.dot(end.at.from_origin())));
        }
    }
    let mut corners: Vec<Option<Point3>> = Vec::new();
    for planes in &planes {
        corners.push(if planes.is_empty() { None } else { Some(meet(planes)?) });
    }
    let volume = |a: Point3, b: Point3, c: Point3| a.from_origin().dot(b.from_origin().cross(c.from_origin())) / 6.0;
    let mut sum = 0.0;
    for face in surface.faces.iter().filter(|face| bounds(face)).map(|face| &face.corners) {
        for k in 1..face.len() - 1 {
            // Counter-clockwise seen from within: turned about it is seen from outside.
            sum += volume(corners[face[0]]?, corners[face[k + 1]]?, corners[face[k]]?);
        }
    }
    let mut about: [Option<Point3>; 2] = [None, None];
    for (on, from, to) in open {
        let (from, to) = (corners[from]?, corners[to]?);
        let centre = *about[on].get_or_insert(from);
        sum += volume(centre, from, to);
    }
    Some(sum)
}

/// Where the surface turns outward at every edge: what all inner faces and both ends' planes leave of space, whatever corners that has.
fn convex(surface: &Surface, inner: &[f64]) -> Option<f64> {
    let mut planes: Vec<Plane> = Vec::new();
    let mut used: Vec<Point3> = Vec::new();
    for (at, face) in surface.faces.iter().enumerate().filter(|(_, face)| bounds(face)) {
        let along = face.outward.dot(surface.points[face.corners[0]].from_origin());
        used.extend(face.corners.iter().map(|&corner| surface.points[corner]));
        planes.push((face.outward, along - inner[at]));
    }
    for end in &surface.ends[..2] {
        planes.push((-end.into, -end.into.dot(end.at.from_origin())));
    }
    let outside = |&(normal, along): &Plane, by: f64| {
        used.iter().any(|place| normal.dot(place.from_origin()) > along + by + OFF_PLANE)
    };
    let walls = surface.faces.iter().enumerate().filter(|(_, face)| bounds(face));
    let turns_in = walls.zip(&planes).any(|((at, _), plane)| outside(plane, inner[at]));
    if turns_in {
        return None;
    }
    // One plane bounds once.
    let mut single: Vec<Plane> = Vec::new();
    for plane in planes {
        if !single.iter().any(|known| (known.0 - plane.0).length() < NO_CORNER && (known.1 - plane.1).abs() < OFF_PLANE)
        {
            single.push(plane);
        }
    }
    let planes = single;
    let volume = |place: Point3, a: Point3, b: Point3, c: Point3| (a - place).dot((b - place).cross(c - place)) / 6.0;
    let middle = used[0];
    let mut sum = 0.0;
    for (at, plane) in planes.iter().enumerate() {
        let face =
            left_of(plane, planes.iter().enumerate().filter(|(other, _)| *other != at).map(|(_, plane)| *plane), &used);
        for k in 1..face.len().max(1) - 1 {
            sum += volume(middle, face[0], face[k], face[k + 1]);
        }
    }
    Some(sum)
}

/// What other planes leave of one, counter-clockwise seen against its normal.
fn left_of(&(normal, along): &Plane, others: impl Iterator<Item = Plane>, used: &[Point3]) -> Vec<Point3> {
    let far = used.iter().map(|place| place.from_origin().length()).fold(0.0, f64::max) * 4.0 + 1.0;
    let any = if normal.x.abs() < 0.6 { Vector3::new(1.0, 0.0, 0.0) } else { Vector3::new(0.0, 1.0, 0.0) };
    let right = any.cross(normal).unit();
    let up = normal.cross(right);
    let middle = Point3::default() + normal * along;
    let mut face: Vec<Point3> = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
        .map(|(x, y)| middle + right * (x * far) + up * (y * far))
        .into();
    for (cut, by) in others {
        let off = |place: Point3| cut.dot(place.from_origin()) - by;
        let mut kept = Vec::new();
        for (at, &here) in face.iter().enumerate() {
            let there = face[(at + 1) % face.len()];
            let (a, b) = (off(here), off(there));
            if a <= 0.0 {
                kept.push(here);
            }
            if (a < 0.0 && b > 0.0) || (a > 0.0 && b < 0.0) {
                kept.push(here + (there - here) * (a / (a - b)));
            }
        }
        face = kept;
    }
    face
}

/// The place that all planes of a corner go through.
fn meet(planes: &[Plane]) -> Option<Point3> {
    let count = planes.len();
    let mut best: Option<(f64, Point3)> = None;
    for a in 0..count {
        for b in a + 1..count {
            for c in b + 1..count {
                let [(n, d), (m, e), (o, f)] = [planes[a], planes[b], planes[c]];
                let spans = n.dot(m.cross(o));
                if spans.abs() < NO_CORNER || best.is_some_and(|(known, _)| known >= spans.abs()) {
                    continue;
                }
                let place = (m.cross(o) * d + o.cross(n) * e + n.cross(m) * f) * (1.0 / spans);
                best = Some((spans.abs(), Point3::default() + place));
            }
        }
    }
    let (_, place) = best?;
    let all = planes.iter().all(|(normal, along)| (normal.dot(place.from_origin()) - along).abs() < OFF_PLANE);
    all.then_some(place)
}
