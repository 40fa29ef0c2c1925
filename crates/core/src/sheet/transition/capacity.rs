//! What a transition holds: the volume within the inner faces of its panels, closed by the planes of its ends.

use crate::space::{Point3, Vector3};

use super::faces::{FacePart, Surface};
use super::walls::OFF_PLANE;

/// A plane by its unit normal and how far along it lies.
type Plane = (Vector3, f64);

/// Three planes whose normals span less than this meet in no place of their own.
const NO_CORNER: f64 = 1e-6;

/// The volume, mm3. `inner` is how far the inner face of each panel lies from the surface toward the inside, mm. `None` where the rims are
/// not plane, or where more than three inner faces come to a corner and do not meet in one place there.
pub(super) fn capacity(surface: &Surface, inner: &[f64]) -> Option<f64> {
    let ends = &surface.ends[..2];
    if ends.iter().any(|end| !end.is_plane) {
        return None;
    }
    let bounds: Vec<usize> = (0..surface.faces.len())
        .filter(|&at| !matches!(surface.faces[at].part, FacePart::Flange(_) | FacePart::Tab))
        .collect();
    let mut planes: Vec<Vec<Plane>> = vec![Vec::new(); surface.points.len()];
    let mut edges = std::collections::HashMap::new();
    for &at in &bounds {
        let face = &surface.faces[at];
        let plane = face.outward.dot(surface.points[face.corners[0]].from_origin()) - inner[at];
        for (k, &corner) in face.corners.iter().enumerate() {
            planes[corner].push((face.outward, plane));
            edges.insert((corner, face.corners[(k + 1) % face.corners.len()]), at);
        }
    }
    // Edges that no other bound has are the ends'.
    let mut open = Vec::new();
    for &(from, to) in edges.keys().filter(|(from, to)| !edges.contains_key(&(*to, *from))) {
        let place = surface.points[from];
        let on = ends.iter().position(|end| {
            [place, surface.points[to]].iter().all(|place| (*place - end.at).dot(end.into).abs() < OFF_PLANE)
        })?;
        let end = &ends[on];
        planes[from].push((end.into, end.into.dot(end.at.from_origin())));
        planes[to].push((end.into, end.into.dot(end.at.from_origin())));
        open.push((on, from, to));
    }
    let mut corners: Vec<Option<Point3>> = Vec::new();
    for planes in &planes {
        corners.push(if planes.is_empty() { None } else { Some(meet(planes)?) });
    }
    let volume = |a: Point3, b: Point3, c: Point3| a.from_origin().dot(b.from_origin().cross(c.from_origin())) / 6.0;
    let mut sum = 0.0;
    for &at in &bounds {
        let face = &surface.faces[at].corners;
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
