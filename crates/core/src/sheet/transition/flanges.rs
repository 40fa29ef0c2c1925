//! Flanges in the plane of a rim, mitred on its corners.

use std::collections::BTreeMap;
use std::f64::consts::PI;

use crate::finding::Finding;
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, length_text};
use crate::space::{Point3, Vector3};

use super::extras::fresh;
use super::faces::{Face, FacePart, Rim, Surface};
use super::joints::{Joints, bent_round, joints, known};
use super::numbers::TransitionNumbers;
use super::walls::newell;

/// What flanges are made by.
struct Around<'a> {
    walls: &'a Joints,
    /// What ends beside another wall or flange keeps clear of it, mm.
    clear: f64,
    unit: LengthUnit,
}

/// Nearer to square than this two flanges beside walls at a corner leave nothing between them in the flat for their bends: 10 deg.
const NEAR_SQUARE: f64 = 10.0 * PI / 180.0;

/// One edge of a rim that gets a flange.
#[derive(Clone, Copy)]
struct Along {
    from: usize,
    to: usize,
    wall: usize,
    /// mm, less than zero toward the inside.
    width: f64,
    /// Unit vectors along the edge and out of the opening.
    way: Vector3,
    out: Vector3,
}

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
    let names: Vec<String> = (0..2)
        .flat_map(|end| surface.faces.iter().map(move |face| (end, face)))
        .map(|(end, face)| format!("{}-rim-{}", surface.ends[end].name, face.name))
        .collect();
    let walls = joints(surface, given, &names, unit)?;
    for end in 0..2 {
        let all = wanted(surface, given, end)?;
        let around = Around { walls: &walls, clear: given.radius + thickness + given.gap, unit };
        make(surface, &around, end, &all, &mut notes)?;
    }
    Ok((joints(surface, given, &[], unit)?, notes))
}

/// The edges of a rim that get flanges, by the corner that they begin at.
fn wanted(surface: &Surface, given: &TransitionNumbers, end: usize) -> Result<BTreeMap<usize, Along>, Finding> {
    let mut all = BTreeMap::new();
    let open = surface.open_edges(end);
    let into = surface.ends[end].into;
    for (at, flange) in given.flanges.iter().enumerate().filter(|(_, flange)| flange.end == end) {
        if !surface.ends[end].is_plane {
            let message = format!("the {} rim is not plane: no flange lies in it", surface.ends[end].name);
            return Err(Finding::error(message, "Make the rim plane first.").at_field("flanges"));
        }
        let mut edges = open.clone();
        if !flange.along.is_empty() {
            let mut walls = Vec::new();
            for (which, name) in flange.along.iter().enumerate() {
                let field = format!("flanges.{at}.along.{which}");
                let wall = known(surface, name, &field)?;
                if !open.iter().any(|edge| edge.2 == wall) {
                    let message = format!("{name} has no edge at the {} rim", surface.ends[end].name);
                    return Err(Finding::error(message, "Name panels that end there.").at_field(field));
                }
                walls.push(wall);
            }
            edges.retain(|edge| walls.contains(&edge.2));
        }
        for (from, to, wall) in edges {
            let way = (surface.points[to] - surface.points[from]).unit();
            let along = Along { from, to, wall, width: flange.width, way, out: into.cross(way) };
            if all.insert(from, along).is_some() {
                let message = format!("{} has two flanges at that rim", surface.faces[wall].name);
                return Err(Finding::error(message, "Keep one of them.").at_field(format!("flanges.{at}.along")));
            }
        }
    }
    Ok(all)
}

/// The angle that the walls take up round a corner, radians.
fn walls_round(surface: &Surface, corner: usize) -> f64 {
    let place = surface.points[corner];
    let walls = surface.faces.iter().filter(|face| face.part == FacePart::Wall);
    let angle = |face: &Face| {
        let (count, k) = (face.corners.len(), face.corners.iter().position(|&at| at == corner)?);
        let way = |at: usize| surface.points[face.corners[at % count]] - place;
        Some(way(k + 1).angle_to(way(k + count - 1)))
    };
    walls.filter_map(angle).sum()
}

/// Where a flange ends at one corner.
struct Corner {
    /// Its outer corner.
    outer: Point3,
    /// What its end keeps to, where it meets no other flange there: a half of space, and how far into it, mm.
    open: Option<(Vector3, f64)>,
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
    // One corner of two flanges is one place.
    let mut outer: BTreeMap<usize, usize> = BTreeMap::new();
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
            let found = match one.zip(two) {
                Some((one, two)) => meets(surface, around, (&one, &two), corner, notes, at_start)?,
                None => {
                    let neighbour = open.iter().find(|edge| if at_start { edge.1 == corner } else { edge.0 == corner });
                    alone(surface, (along, around.clear), corner, at_start, neighbour.copied())
                }
            };
            let place = match found.open {
                None => *outer.entry(corner).or_insert_with(|| {
                    surface.points.push(found.outer);
                    surface.points.len() - 1
                }),
                Some(_) => {
                    surface.points.push(found.outer);
                    surface.points.len() - 1
                }
            };
            far.push((place, found.open));
        }
        made.push((*along, far));
    }
    for (along, far) in made {
        let name = format!("{}-rim-{}", surface.ends[end].name, surface.faces[along.wall].name);
        let name = fresh(surface, name);
        let [(start, open_start), (finish, open_finish)] = [far[0], far[1]];
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
        let corners = vec![along.to, along.from, start, finish];
        let outward = -newell(&surface.points, &corners);
        let toward = if along.width > 0.0 { -along.out } else { along.out };
        surface.rims.insert((start, finish), Rim { name: "outer".into(), keeps: toward, by: 0.0 });
        if let Some((keeps, by)) = open_start {
            surface.rims.insert((along.from, start), Rim { name: "start".into(), keeps, by });
        }
        if let Some((keeps, by)) = open_finish {
            surface.rims.insert((finish, along.to), Rim { name: "finish".into(), keeps, by });
        }
        surface.faces.push(Face { name, corners, outward, part: FacePart::Flange(end) });
    }
    Ok(())
}

/// Two flanges at a corner, the first ending there and the second beginning: mitred, or both square where the walls are bent round it.
fn meets(
    surface: &Surface,
    &Around { walls, clear, unit }: &Around<'_>,
    (one, two): (&Along, &Along),
    corner: usize,
    notes: &mut Vec<Finding>,
    of_second: bool,
) -> Result<Corner, Finding> {
    let place = surface.points[corner];
    let own = if of_second { two } else { one };
    // Outward flanges spread at a corner that turns toward the inside of the opening.
    let spreads = one.out.dot(two.way) < 0.0;
    let outward = one.width > 0.0 && two.width > 0.0;
    if spreads && outward && bent_round(surface, walls, (one.wall, two.wall), corner) {
        if of_second {
            notes.push(Finding::hint(
                format!(
                    "the walls are bent round the corner of {} and {}: their flanges end square there, and a corner piece of {} by {} is open",
                    surface.faces[one.wall].name,
                    surface.faces[two.wall].name,
                    length_text(one.width, unit),
                    length_text(two.width, unit)
                ),
                "Make the edge between those panels a seam or a rip where the flanges are to be mitred.",
            ));
        }
        let away = if of_second { own.way } else { -own.way };
        // In the flat walls and flanges share the whole turn round the corner.
        let ends = (PI - walls_round(surface, corner) / 2.0).min(PI / 2.0);
        let (sine, cosine) = ends.sin_cos();
        let end = away * cosine + own.out * sine;
        let keeps = away * sine - own.out * cosine;
        let by =
            if ends < PI / 2.0 - NEAR_SQUARE || walls_round(surface, corner) > PI - NEAR_SQUARE { clear } else { 0.0 };
        return Ok(Corner { outer: place + end * (own.width / sine), open: Some((keeps, by)) });
    }
    if (one.width > 0.0) != (two.width > 0.0) {
        let away = if of_second { own.way } else { -own.way };
        return Ok(Corner { outer: place + own.out * own.width, open: Some((away, 0.0)) });
    }
    // Where the outer lines meet: place + out1 w1 + way1 s lies w2 out of the second edge.
    let sine = one.way.dot(two.out);
    if sine.abs() < PARALLEL {
        if (one.width - two.width).abs() > PARALLEL {
            return Err(Finding::error("two flanges of different widths meet along one line", "Give both one width.")
                .at_field("flanges"));
        }
        return Ok(Corner { outer: place + one.out * one.width, open: None });
    }
    let run = (two.width - one.out.dot(two.out) * one.width) / sine;
    Ok(Corner { outer: place + one.out * one.width + one.way * run, open: None })
}

/// A flange that meets none at a corner: square outward; inward as far as the next wall's inner face lets it.
fn alone(
    surface: &Surface,
    (along, clear): (&Along, f64),
    corner: usize,
    at_start: bool,
    neighbour: Option<(usize, usize, usize)>,
) -> Corner {
    let place = surface.points[corner];
    let away = if at_start { along.way } else { -along.way };
    let square = Corner { outer: place + along.out * along.width, open: Some((away, 0.0)) };
    let Some((from, to, wall)) = neighbour.filter(|_| along.width < 0.0) else { return square };
    let beside = (surface.points[to] - surface.points[from]).unit();
    // Along the neighbour's edge, away from the corner.
    let beside = if at_start { -beside } else { beside };
    let deep = beside.dot(along.out);
    if deep > -PARALLEL {
        return square;
    }
    Corner { outer: place + beside * (along.width / deep), open: Some((-surface.faces[wall].outward, clear)) }
}
