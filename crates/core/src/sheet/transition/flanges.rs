//! Flanges along a rim: in its plane, bent by an angle or parallel to a panel; mitred on its corners, or one over the full width and its
//! neighbours between.

use std::collections::BTreeMap;
use std::f64::consts::PI;

use crate::finding::Finding;
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::space::{Point3, Vector3};

use super::extras::fresh;
use super::faces::{Face, FacePart, Rim, Surface};
use super::joints::{Joints, bent_round, joints, known};
use super::numbers::{FlangeLies, TransitionNumbers};
use super::walls::newell;

/// What flanges are made by.
struct Around<'a> {
    walls: &'a Joints,
    /// What ends beside another wall or flange keeps clear of it, mm.
    clear: f64,
    /// Left between sheets that are apart, mm.
    gap: f64,
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
    /// Unit vectors along the edge and, in the flange's plane, out of the opening.
    way: Vector3,
    out: Vector3,
    /// Over the full width: its neighbours end between.
    full: bool,
}

impl Along {
    /// Unit vector of its plane.
    fn normal(&self) -> Vector3 {
        self.way.cross(self.out)
    }

    /// From its edge into the flange.
    fn inward(&self) -> Vector3 {
        self.out * self.width.signum()
    }
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
        let around = Around { walls: &walls, clear: given.radius + thickness + given.gap, gap: given.gap, unit };
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
        if !surface.ends[end].is_plane && flange.lies == FlangeLies::InRim {
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
    /// Where its ear begins, past the corner on the line of the rim's edge, and what the ear's end keeps to.
    ear: Option<(Point3, Vector3)>,
}

impl Corner {
    fn shared(outer: Point3) -> Corner {
        Corner { outer, open: None, ear: None }
    }

    fn open(outer: Point3, keeps: Vector3, by: f64) -> Corner {
        Corner { outer, open: Some((keeps, by)), ear: None }
    }
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
        surface.faces.push(Face { name, corners, outward, part: FacePart::Flange(end) });
    }
    Ok(())
}

/// Two flanges at a corner, the first ending there and the second beginning: mitred, one over the full width and the other between, or
/// both square where the walls are bent round it.
fn meets(
    surface: &Surface,
    around: &Around<'_>,
    (one, two): (&Along, &Along),
    corner: usize,
    notes: &mut Vec<Finding>,
    (of_second, neighbour): (bool, Option<(usize, usize, usize)>),
) -> Result<Corner, Finding> {
    let place = surface.points[corner];
    let (own, other) = if of_second { (two, one) } else { (one, two) };
    // Along the own edge and along the other one, away from the corner.
    let [away, beside] = if of_second { [own.way, -other.way] } else { [-own.way, other.way] };
    let spread = Spread::of(surface, (one, two), corner);
    let outward = one.width > 0.0 && two.width > 0.0;
    let mitre = mitre(own, other, away);
    if spread.is_wide(outward, mitre.map(|along| [(away, along), (beside, along)]))
        && bent_round(surface, around.walls, (one.wall, two.wall), corner)
    {
        return Ok(square(surface, around, (one, two), corner, (notes, of_second)));
    }
    if (one.width > 0.0) != (two.width > 0.0) {
        return Ok(Corner::open(place + own.out * own.width, away, 0.0));
    }
    if one.full || two.full {
        return full(surface, around, (own, other), (corner, away), (of_second, neighbour));
    }
    let Some(mitre) = mitre else {
        return in_one_plane(place, (one, two));
    };
    let reach = |along: &Along| along.width.abs() / mitre.dot(along.inward());
    if mitre.dot(own.inward()) < PARALLEL || mitre.dot(other.inward()) < PARALLEL {
        // One rises as the other falls: they do not meet, and each keeps to its side of what halves the rim's corner.
        let halves = (away - beside).unit();
        let run = -halves.dot(own.inward()) * own.width.abs() / halves.dot(away);
        return Ok(Corner::open(place + own.out * own.width + away * run, halves, around.gap / 2.0));
    }
    let outer = place + mitre * reach(own);
    if (reach(own) - reach(other)).abs() < PARALLEL {
        return Ok(Corner::shared(outer));
    }
    // Their outer corners lie apart on the line that both planes have: each keeps to its half of the corner.
    let across = |away: Vector3| (away - mitre * away.dot(mitre)).unit();
    Ok(Corner::open(outer, (across(away) - across(beside)).unit(), around.gap / 2.0))
}

/// The line that the planes of two flanges have in common, from the corner toward both; `None` where they are one plane.
fn mitre(own: &Along, other: &Along, away: Vector3) -> Option<Vector3> {
    let line = own.normal().cross(other.normal());
    if line.length() < ONE_PLANE {
        return None;
    }
    let line = line.unit();
    let toward = line.dot(own.inward()) + line.dot(other.inward());
    let toward = if toward.abs() < PARALLEL { line.dot(away) } else { toward };
    Some(if toward < 0.0 { -line } else { line })
}

/// Planes that turn by less are one, a sine.
const ONE_PLANE: f64 = 1e-7;

/// How the flat round a corner is shared.
struct Spread {
    /// Whether outward flanges in one plane spread: the corner turns toward the inside of the opening.
    in_one_plane: bool,
    /// What the walls leave of a whole turn, radians.
    left: f64,
}

impl Spread {
    fn of(surface: &Surface, (one, two): (&Along, &Along), corner: usize) -> Spread {
        Spread { in_one_plane: one.out.dot(two.way) < 0.0, left: 2.0 * PI - walls_round(surface, corner) }
    }

    /// Whether the flanges as they are wanted need more than the flat has there.
    fn is_wide(&self, outward: bool, mitred: Option<[(Vector3, Vector3); 2]>) -> bool {
        match mitred {
            None => self.in_one_plane && outward,
            Some(both) => {
                let needed: f64 = both.iter().map(|(edge, mitre)| edge.angle_to(*mitre)).sum();
                needed > self.left - NEAR_SQUARE
            }
        }
    }
}

/// A flange whose wall is bent into the next one round the corner ends within what the flat has there.
fn square(
    surface: &Surface,
    around: &Around<'_>,
    (one, two): (&Along, &Along),
    corner: usize,
    (notes, of_second): (&mut Vec<Finding>, bool),
) -> Corner {
    let unit = around.unit;
    let own = if of_second { two } else { one };
    if of_second {
        notes.push(Finding::hint(
            format!(
                "the walls are bent round the corner of {} and {}: their flanges end square there, and a corner piece of {} by {} is open",
                surface.faces[one.wall].name,
                surface.faces[two.wall].name,
                length_text(one.width.abs(), unit),
                length_text(two.width.abs(), unit)
            ),
            "Make the edge between those panels a seam or a rip where the flanges are to meet.",
        ));
    }
    let away = if of_second { own.way } else { -own.way };
    // In the flat walls and flanges share the whole turn round the corner.
    let ends = (PI - walls_round(surface, corner) / 2.0).min(PI / 2.0);
    let (sine, cosine) = ends.sin_cos();
    let end = away * cosine + own.inward() * sine;
    let keeps = away * sine - own.inward() * cosine;
    let tight = ends < PI / 2.0 - NEAR_SQUARE || walls_round(surface, corner) > PI - NEAR_SQUARE;
    let by = if tight { around.clear } else { 0.0 };
    Corner::open(surface.points[corner] + end * (own.width.abs() / sine), keeps, by)
}

/// Two flanges in one plane: where their outer lines meet.
fn in_one_plane(place: Point3, (one, two): (&Along, &Along)) -> Result<Corner, Finding> {
    // Where the outer lines meet: place + out1 w1 + way1 s lies w2 out of the second edge.
    let sine = one.way.dot(two.out);
    if sine.abs() < PARALLEL {
        if (one.width - two.width).abs() > PARALLEL {
            return Err(Finding::error("two flanges of different widths meet along one line", "Give both one width.")
                .at_field("flanges"));
        }
        return Ok(Corner::shared(place + one.out * one.width));
    }
    let run = (two.width - one.out.dot(two.out) * one.width) / sine;
    Ok(Corner::shared(place + one.out * one.width + one.way * run))
}

/// One flange over the full width, the other between.
fn full(
    surface: &Surface,
    around: &Around<'_>,
    (own, other): (&Along, &Along),
    (corner, away): (usize, Vector3),
    (of_second, neighbour): (bool, Option<(usize, usize, usize)>),
) -> Result<Corner, Finding> {
    let place = surface.points[corner];
    let names = [own, other].map(|along| surface.faces[along.wall].name.as_str());
    if own.full && other.full {
        return Err(Finding::error(
            format!("the flanges of {} and {} both go over the full width at their corner", names[0], names[1]),
            "Let one of the two end between.",
        )
        .at_field("flanges"));
    }
    if mitre(own, other, away).is_some() {
        return Err(Finding::error(
            format!(
                "the flanges of {} and {} do not lie in one plane: neither goes over the other's end",
                names[0], names[1]
            ),
            "Let both lie in the rim's plane, or mitre them.",
        )
        .at_field("flanges"));
    }
    let (whole, between) = if own.full { (own, other) } else { (other, own) };
    let (first, second) = if of_second { (other, own) } else { (own, other) };
    if own.width < 0.0 {
        if own.full {
            return Ok(alone(surface, (own, around.clear), corner, of_second, neighbour));
        }
        // Its end stands before the other's outer edge, along the rim.
        let along = if of_second { -whole.way } else { whole.way };
        let deep = along.dot(own.inward());
        if deep < PARALLEL {
            return Ok(Corner::open(place + own.out * own.width, away, 0.0));
        }
        let outer = place + along * (own.width.abs() / deep);
        return Ok(Corner::open(outer, whole.inward(), whole.width.abs() + around.gap));
    }
    // Past the corner on the line of the full one's edge, as far as the other's outer line.
    let past = if own.full {
        -away
    } else if of_second {
        whole.way
    } else {
        -whole.way
    };
    let rise = past.dot(between.out);
    if rise < PARALLEL {
        return Err(Finding::error(
            format!("the rim turns inward at the corner of {} and {}: neither flange goes past it", names[0], names[1]),
            "Let the flanges there be mitred.",
        )
        .at_field("flanges"));
    }
    let ear = place + past * (between.width / rise);
    if !own.full {
        return Ok(Corner::shared(ear));
    }
    let outer = in_one_plane(place, (first, second))?.outer;
    Ok(Corner { outer, open: None, ear: Some((ear, -between.out)) })
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
    let square = Corner::open(place + along.out * along.width, away, 0.0);
    let Some((from, to, wall)) = neighbour.filter(|_| along.width < 0.0) else { return square };
    let beside = (surface.points[to] - surface.points[from]).unit();
    // Along the neighbour's edge, away from the corner: past a corner that turns outward it leaves the flange alone.
    let beside = if at_start { -beside } else { beside };
    if beside.dot(surface.faces[along.wall].outward) > -PARALLEL {
        return square;
    }
    // Where the flange's plane meets the neighbour's.
    let line = along.normal().cross(surface.faces[wall].outward).unit();
    let line = if line.dot(along.inward()) < 0.0 { -line } else { line };
    let deep = line.dot(along.inward());
    if !(deep > PARALLEL) {
        return square;
    }
    Corner::open(place + line * (along.width.abs() / deep), -surface.faces[wall].outward, clear)
}
