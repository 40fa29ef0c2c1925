//! The surface between two outlines: plane polygons, each with its name, in the order in which they stand round it.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::plane::Point;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::quantity::{LengthUnit, length_text};
use crate::space::{Point3, Vector3};
use crate::work::sheet::TransitionSaid;

use super::extras;
use super::faces::{End, Face, FacePart, Surface, tilted};
use super::numbers::TransitionNumbers;
use super::outlines::{Corner, corners};
use super::walls::{Naming, OFF_PLANE, best_start, between, merge, newell, side};

/// The surface but for flanges.
///
/// # Errors
/// Outlines of too few corners, an upper outline that comes down through the lower one, sides that cross, heights off a plane, corners
/// joined by hand that do not go round alike.
pub(super) fn surface(given: &TransitionNumbers, unit: LengthUnit) -> Result<Surface, Finding> {
    let elevations = given.said == TransitionSaid::Elevations;
    let names = if elevations { ["rear", "front"] } else { ["lower", "upper"] };
    let mut chords = Vec::new();
    let lower = corners(&given.lower, given.lines, names[0], &mut chords);
    let upper = match given.apex {
        true => vec![Corner { place: Point::default(), edge: "apex".into() }],
        false => corners(&given.upper, given.lines, names[1], &mut chords),
    };
    let (n, m) = (lower.len(), upper.len());
    let mut points = placed(given, &lower, &upper, unit)?;
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
    let ends = vec![
        End { name: names[0].into(), at: points[0], into: Vector3::new(0.0, 0.0, 1.0), is_plane: true, panel: None },
        upper_end(names[1], &points[n..], given),
    ];
    let naming = Naming { by_upper: elevations };
    let ways = by_hand(given, &lower, &upper)?;
    let mut notes = Vec::new();
    let mut raw: Vec<(String, Vec<usize>)> = Vec::new();
    if n == m {
        let first = match ways.first() {
            Some(&(a, b)) => (b + n - a) % n,
            None => best_start(&points, n),
        };
        if ways.iter().any(|&(a, b)| (a + first) % n != b) {
            return Err(Finding::error(
                "the corners that are joined by hand do not go round alike",
                "Name one pair; the others follow in order.",
            )
            .at_field("ways"));
        }
        extras::cut_off(given, &mut points, (n, first), unit)?;
        for (at, corner) in lower.iter().enumerate() {
            let (a, b) = (at, (at + 1) % n);
            let (c, d) = (n + (at + first) % n, n + (at + 1 + first) % n);
            let name = if elevations { &upper[(at + first) % n].edge } else { &corner.edge };
            side(&points, name, [a, b, d, c], given.crease, unit, (&mut raw, &mut notes));
        }
    } else {
        if given.rims.iter().any(Option::is_some) {
            return Err(Finding::error(
                "walls are trimmed by a plane only where both outlines have as many corners",
                "Tilt the outline, or give both as many corners.",
            )
            .at_field("rims"));
        }
        raw = between(&points, (&lower, &upper), &ways, naming)?;
    }
    let mut faces: Vec<Face> = Vec::new();
    for (name, corners) in raw {
        let outward = -newell(&points, &corners);
        faces.push(Face { name, corners, outward, part: FacePart::Wall, gone: false });
    }
    merge(&points, &mut faces, naming);
    let mut used: HashMap<String, usize> = HashMap::new();
    for face in &mut faces {
        let count = used.entry(face.name.clone()).and_modify(|count| *count += 1).or_insert(1);
        if *count > 1 {
            face.name = format!("{}-{count}", face.name);
        }
    }
    check(&points, &faces, unit)?;
    let mut surface = Surface { points, counts: [n, m], ends, faces, rims: HashMap::new(), notes, chords };
    extras::ends(&mut surface, given);
    if elevations {
        surface.stand_up(given.height);
    }
    Ok(surface)
}

/// Corners of both outlines where they lie.
fn placed(
    given: &TransitionNumbers,
    lower: &[Corner],
    upper: &[Corner],
    unit: LengthUnit,
) -> Result<Vec<Point3>, Finding> {
    let [low, high] = given.shifts;
    let mut points: Vec<Point3> =
        lower.iter().map(|one| Point3::new(one.place.x + low.0, one.place.y + low.1, 0.0)).collect();
    let (sine, cosine) = given.turn.sin_cos();
    let turned = |one: &Corner| {
        let (x, y) = (one.place.x, one.place.y);
        Vector3::new(x * cosine - y * sine, x * sine + y * cosine, 0.0)
    };
    let middle = Point3::new(high.0, high.1, given.height);
    if given.heights.is_empty() {
        points.extend(upper.iter().map(|one| middle + tilted(turned(one), given.tilt)));
        return Ok(points);
    }
    if given.tilt != (0.0, 0.0) {
        return Err(Finding::error(
            "the upper outline is tilted by angles and by heights at its corners",
            "Keep the one that the drawing gives.",
        )
        .at_field("heights"));
    }
    if given.heights.len() > upper.len() || given.heights.len() < 3 {
        return Err(Finding::error(
            format!("{} heights for {} corners", given.heights.len(), upper.len()),
            "Three make the plane of the rim; further ones, as far as there are corners, must lie on it.",
        )
        .at_field("heights"));
    }
    let at = |k: usize| Point3::new(high.0, high.1, 0.0) + turned(&upper[k]);
    let known: Vec<Point3> =
        given.heights.iter().enumerate().map(|(k, &z)| at(k) + Vector3::new(0.0, 0.0, z)).collect();
    if given.not_plane {
        if known.len() != upper.len() {
            return Err(Finding::error(
                format!("a rim that is not plane needs {} heights", upper.len()),
                "Give the height of every corner.",
            )
            .at_field("heights"));
        }
        points.extend(known);
        return Ok(points);
    }
    let normal = (known[1] - known[0]).cross(known[2] - known[0]).unit();
    if !normal.z.is_finite() || normal.z.abs() < OFF_PLANE {
        return Err(Finding::error(
            "the first three corners with a height lie on one line",
            "Begin the outline at another corner.",
        )
        .at_field("heights"));
    }
    for (k, place) in known.iter().enumerate().skip(3) {
        let off = (*place - known[0]).dot(normal).abs();
        if off > OFF_PLANE {
            return Err(Finding::error(
                format!("corner {} lies {} from the plane of the first three", k + 1, length_text(off, unit)),
                "Correct its height, leave it out, or say that the rim is not plane.",
            )
            .at_field(format!("heights.{k}")));
        }
    }
    points.extend((0..upper.len()).map(|k| {
        let flat = at(k);
        let rise = -(flat - known[0]).dot(normal) / normal.z;
        flat + Vector3::new(0.0, 0.0, rise)
    }));
    Ok(points)
}

fn upper_end(name: &str, corners: &[Point3], given: &TransitionNumbers) -> End {
    let all: Vec<usize> = (0..corners.len()).collect();
    let into = match given.heights.is_empty() {
        true => -tilted(Vector3::new(0.0, 0.0, 1.0), given.tilt),
        false => -newell(corners, &all),
    };
    let is_plane = corners.iter().all(|corner| (*corner - corners[0]).dot(into).abs() < OFF_PLANE);
    let into = if is_plane { into } else { Vector3::new(0.0, 0.0, -1.0) };
    End { name: name.into(), at: corners[0], into, is_plane, panel: None }
}

/// Corners that are joined by hand, by their places.
fn by_hand(given: &TransitionNumbers, lower: &[Corner], upper: &[Corner]) -> Result<Vec<(usize, usize)>, Finding> {
    let known = |all: &[Corner], name: &str, at: usize| {
        all.iter().position(|one| one.edge == name).ok_or_else(|| {
            let names: Vec<&str> = all.iter().map(|one| one.edge.as_str()).collect();
            Finding::error(
                format!("no edge of that outline is called {name}"),
                format!("There are {}.", names.join(", ")),
            )
            .at_field(format!("ways.{at}"))
        })
    };
    let both = given.ways.iter().enumerate();
    both.map(|(at, [one, two])| Ok((known(lower, one, at)?, known(upper, two, at)?))).collect()
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
