//! Flanges along a rim: in its plane, bent by an angle or parallel to a panel; mitred on its corners, or one over the full width and its
//! neighbours between.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::space::{Point3, Vector3};

use super::extras::fresh;
use super::faces::{End, Face, FacePart, Rim, Surface};
use super::joints::{Joints, joints, known, left_out};
use super::numbers::{FlangeLies, TransitionNumbers};
use super::rim_corners::{Along, Around, alone, meets};
use super::walls::newell;

/// Adds the flanges, and settles what becomes of every edge. The notes are of corners that stay open.
///
/// # Errors
/// Names of panels with no edge at that rim, a rim that is not plane, two flanges along one edge, flanges that pass each other.
pub(super) fn add(
    surface: &mut Surface,
    given: &TransitionNumbers,
    thickness: f64,
    unit: LengthUnit,
) -> Result<(Joints, Vec<Finding>), Finding> {
    if given.flanges.is_empty() {
        return Ok((joints(surface, given, &[], unit)?, Vec::new()));
    }
    let mut notes = Vec::new();
    let at = openings(surface, given)?;
    let names: Vec<String> = (0..surface.ends.len())
        .flat_map(|end| surface.faces.iter().map(move |face| (end, face)))
        .map(|(end, face)| format!("{}-rim-{}", surface.ends[end].name, face.name))
        .collect();
    let walls = joints(surface, given, &names, unit)?;
    for end in 0..surface.ends.len() {
        let all = wanted(surface, given, (end, &at))?;
        let around = Around {
            walls: &walls,
            clear: given.radius + thickness + given.gap,
            gap: given.gap,
            radius: given.radius,
            thickness,
            unit,
        };
        make(surface, &around, end, &all, &mut notes)?;
        if let Some(panel) = surface.ends[end].panel {
            // Edges with no flange keep to the plane of the opening.
            let (name, keeps) = (format!("to-{}", surface.ends[end].name), surface.ends[end].into);
            for (from, to, _) in surface.open_edges(end) {
                surface.rims.entry((from, to)).or_insert(Rim { name: name.clone(), keeps, by: 0.0 });
            }
            surface.faces[panel].gone = true;
        }
    }
    Ok((joints(surface, given, &[], unit)?, notes))
}

/// Which opening each entry of flanges is of; places of panels that are left out are added to the surface's ends.
///
/// # Errors
/// A panel that is not there to be left out, or is not left out.
fn openings(surface: &mut Surface, given: &TransitionNumbers) -> Result<Vec<usize>, Finding> {
    let mut all = Vec::new();
    for (at, flange) in given.flanges.iter().enumerate() {
        let Some(name) = &flange.opening else {
            all.push(flange.end);
            continue;
        };
        let field = format!("flanges.{at}.opening");
        let panel = known(surface, name, &field)?;
        if !given.without.contains(name) {
            return Err(Finding::error(
                format!("{name} is there: no flange lies in its place"),
                "Leave the panel out, or give the end whose rim is meant.",
            )
            .at_field(field));
        }
        all.push(match surface.ends.iter().position(|end| end.panel == Some(panel)) {
            Some(known) => known,
            None => {
                let face = &surface.faces[panel];
                let (at, into) = (surface.points[face.corners[0]], -face.outward);
                surface.ends.push(End { name: name.clone(), at, into, is_plane: true, panel: Some(panel) });
                surface.ends.len() - 1
            }
        });
    }
    Ok(all)
}

/// The edges of a rim that get flanges, by the corner that they begin at.
fn wanted(
    surface: &Surface,
    given: &TransitionNumbers,
    (end, openings): (usize, &[usize]),
) -> Result<BTreeMap<usize, Along>, Finding> {
    let without = left_out(surface, given)?;
    let mut all = BTreeMap::new();
    let open = surface.open_edges(end);
    let into = surface.ends[end].into;
    for (at, flange) in given.flanges.iter().enumerate().filter(|(at, _)| openings[*at] == end) {
        if !surface.ends[end].is_plane && flange.lies == FlangeLies::InRim {
            let message = format!("the {} rim is not plane: no flange lies in it", surface.ends[end].name);
            return Err(Finding::error(message, "Make the rim plane first.").at_field("flanges"));
        }
        let mut edges: Vec<_> = open.iter().copied().filter(|edge| !without[edge.2]).collect();
        if !flange.along.is_empty() {
            let mut walls = Vec::new();
            for (which, name) in flange.along.iter().enumerate() {
                let field = format!("flanges.{at}.along.{which}");
                let wall = known(surface, name, &field)?;
                if !edges.iter().any(|edge| edge.2 == wall) {
                    let message = format!("{name} has no edge at the {} rim", surface.ends[end].name);
                    return Err(Finding::error(message, "Name panels that end there.").at_field(field));
                }
                walls.push(wall);
            }
            edges.retain(|edge| walls.contains(&edge.2));
        }
        for (from, to, wall) in edges {
            let way = (surface.points[to] - surface.points[from]).unit();
            let out = match &flange.lies {
                FlangeLies::InRim => into.cross(way),
                FlangeLies::Bent(angle) => bent_out(&surface.faces[wall], way, *angle, flange.width > 0.0),
                FlangeLies::Parallel(name) => {
                    let field = format!("flanges.{at}.parallel_to");
                    let to = known(surface, name, &field)?;
                    parallel_out(&surface.faces[wall], way, &surface.faces[to])
                        .map_err(|fault| fault.at_field(field))?
                }
            };
            let along = Along { from, to, wall, width: flange.width, way, out, full: flange.full };
            if all.insert(from, along).is_some() {
                let message = format!("{} has two flanges at that rim", surface.faces[wall].name);
                return Err(Finding::error(message, "Keep one of them.").at_field(format!("flanges.{at}.along")));
            }
        }
    }
    Ok(all)
}

/// Out of the opening in the plane of a flange that is bent from its wall, outward or inward, by an angle.
fn bent_out(wall: &Face, way: Vector3, angle: f64, outward: bool) -> Vector3 {
    // On past the rim in the wall's own plane.
    let on = wall.outward.cross(way);
    let (sine, cosine) = angle.sin_cos();
    if outward { on * cosine + wall.outward * sine } else { wall.outward * sine - on * cosine }
}

/// Out of the opening in the plane of a flange that is parallel to a panel.
fn parallel_out(wall: &Face, way: Vector3, to: &Face) -> Result<Vector3, Finding> {
    let leans = way.dot(to.outward);
    if leans.abs() > PARALLEL {
        return Err(Finding::error(
            format!(
                "the rim's edge of {} runs at {} to {}: no flange along it is parallel to that",
                wall.name,
                angle_text(leans.abs().asin()),
                to.name
            ),
            "Name a panel that the edge runs along, or give an angle.",
        ));
    }
    let out = to.outward.cross(way).unit();
    let outward = out.dot(wall.outward);
    if outward.abs() < PARALLEL {
        return Err(Finding::error(
            format!("{} is parallel to {} itself: nothing would be bent there", wall.name, to.name),
            "Name another panel, or give an angle.",
        ));
    }
    Ok(out * outward.signum())
}

fn make(
    surface: &mut Surface,
    around: &Around<'_>,
    end: usize,
    all: &BTreeMap<usize, Along>,
    notes: &mut Vec<Finding>,
) -> Result<(), Finding> {
    let by_end: BTreeMap<usize, usize> = all.values().map(|along| (along.to, along.from)).collect();
    let open = surface.open_edges(end);
    // One corner of two flanges is one place, as is the one where an ear begins.
    let mut shared: BTreeMap<(usize, bool), usize> = BTreeMap::new();
    let mut made = Vec::new();
    for along in all.values() {
        let mut far = Vec::new();
        for (corner, at_start) in [(along.from, true), (along.to, false)] {
            let beside = if at_start { by_end.get(&corner).map(|from| all[from]) } else { all.get(&corner).copied() };
            let (one, two) = match (beside, at_start) {
                (Some(beside), true) => (Some(beside), Some(*along)),
                (Some(beside), false) => (Some(*along), Some(beside)),
                (None, _) => (None, None),
            };
            let neighbour = open.iter().find(|edge| if at_start { edge.1 == corner } else { edge.0 == corner });
            let found = match one.zip(two) {
                Some((one, two)) => {
                    meets(surface, around, (&one, &two), corner, notes, (at_start, neighbour.copied()))?
                }
                None => alone(surface, (along, around.clear), corner, at_start, neighbour.copied()),
            };
            let mut place = |surface: &mut Surface, point: Point3, of: Option<(usize, bool)>| {
                let fresh = surface.points.len();
                let at = of.map_or(fresh, |key| *shared.entry(key).or_insert(fresh));
                if at == fresh {
                    surface.points.push(point);
                }
                at
            };
            let is_between = one.zip(two).is_some_and(|(one, two)| one.full != two.full) && !along.full;
            let outer = place(surface, found.outer, found.open.is_none().then_some((corner, is_between)));
            let ear = found.ear.map(|(point, keeps)| (place(surface, point, Some((corner, true))), keeps));
            far.push((outer, found.open, ear));
        }
        made.push((*along, far));
    }
    for (along, far) in made {
        let name = format!("{}-rim-{}", surface.ends[end].name, surface.faces[along.wall].name);
        let name = fresh(surface, name);
        let [(start, open_start, ear_start), (finish, open_finish, ear_finish)] = [far[0], far[1]];
        let run = (surface.points[finish] - surface.points[start]).dot(along.way);
        if run < PARALLEL {
            return Err(Finding::error(
                format!(
                    "{name} is {} wide and has no length left at its outer edge",
                    length_text(along.width.abs(), around.unit)
                ),
                "Make it narrower.",
            )
            .at_field("flanges"));
        }
        let mut corners = vec![along.to, along.from];
        corners.extend(ear_start.map(|(place, _)| place));
        corners.extend([start, finish]);
        corners.extend(ear_finish.map(|(place, _)| place));
        let outward = -newell(&surface.points, &corners);
        surface.rims.insert((start, finish), Rim { name: "outer".into(), keeps: -along.inward(), by: 0.0 });
        let mut side = |edge: (usize, usize), name: &str, (keeps, by): (Vector3, f64)| {
            surface.rims.insert(edge, Rim { name: name.into(), keeps, by });
        };
        if let Some((ear, keeps)) = ear_start {
            side((ear, start), "start", (keeps, 0.0));
        } else if let Some(keeps) = open_start {
            side((along.from, start), "start", keeps);
        }
        if let Some((ear, keeps)) = ear_finish {
            side((finish, ear), "finish", (keeps, 0.0));
        } else if let Some(keeps) = open_finish {
            side((finish, along.to), "finish", keeps);
        }
        surface.faces.push(Face { name, corners, outward, part: FacePart::Flange(end), gone: false });
    }
    Ok(())
}
