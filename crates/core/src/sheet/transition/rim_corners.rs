//! Where the flanges of a rim end at its corners: mitred, one over the full width and the other between, or each by itself.

use std::f64::consts::PI;

use crate::finding::Finding;
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, length_text};
use crate::space::{Point3, Vector3};

use super::faces::{Face, FacePart, Surface};
use super::joints::{Joints, bent_round};

/// What flanges are made by.
pub(super) struct Around<'a> {
    pub walls: &'a Joints,
    /// What ends beside another wall or flange keeps clear of it, mm.
    pub clear: f64,
    /// Left between sheets that are apart, mm.
    pub gap: f64,
    /// Of the bends and of the sheet, mm.
    pub radius: f64,
    pub thickness: f64,
    pub unit: LengthUnit,
}

/// Nearer to square than this two flanges beside walls at a corner leave nothing between them in the flat for their bends: 10 deg.
const NEAR_SQUARE: f64 = 10.0 * PI / 180.0;

/// One edge of a rim that gets a flange.
#[derive(Clone, Copy)]
pub(super) struct Along {
    pub from: usize,
    pub to: usize,
    pub wall: usize,
    /// mm, less than zero toward the inside.
    pub width: f64,
    /// Unit vectors along the edge and, in the flange's plane, out of the opening.
    pub way: Vector3,
    pub out: Vector3,
    /// Over the full width: its neighbours end between.
    pub full: bool,
}

impl Along {
    /// Unit vector of its plane.
    fn normal(&self) -> Vector3 {
        self.way.cross(self.out)
    }

    /// From its edge into the flange.
    pub fn inward(&self) -> Vector3 {
        self.out * self.width.signum()
    }
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
pub(super) struct Corner {
    /// Its outer corner.
    pub outer: Point3,
    /// What its end keeps to, where it meets no other flange there: a half of space, and how far into it, mm.
    pub open: Option<(Vector3, f64)>,
    /// Where its ear begins, past the corner on the line of the rim's edge, and what the ear's end keeps to.
    pub ear: Option<(Point3, Vector3)>,
}

impl Corner {
    fn shared(outer: Point3) -> Corner {
        Corner { outer, open: None, ear: None }
    }

    fn open(outer: Point3, keeps: Vector3, by: f64) -> Corner {
        Corner { outer, open: Some((keeps, by)), ear: None }
    }
}

/// Two flanges at a corner, the first ending there and the second beginning: mitred, one over the full width and the other between, or
/// both square where the walls are bent round it.
pub(super) fn meets(
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
    let wide = spread.is_wide(outward, mitre.map(|along| [(away, along), (beside, along)]))
        && bent_round(surface, around.walls, (one.wall, two.wall), corner);
    if wide && outward {
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
    // Between the edges where both lie on the side that the corner opens to, past them where they spread.
    let is_convex = beside.dot(surface.faces[own.wall].outward) < 0.0;
    let side = if (own.width < 0.0) == is_convex { 1.0 } else { -1.0 };
    let rises = [own, other].iter().all(|along| mitre.dot(along.inward()) > LEAST_RISE);
    if wide || !rises || mitre.dot(away) * side < PARALLEL || mitre.dot(beside) * side < PARALLEL {
        // One rises as the other falls, or their common line runs along an edge: they do not meet there, and each keeps to its side of
        // what halves the rim's corner.
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

/// A mitre that leaves its edge more slowly would come out past further flanges, a sine.
const LEAST_RISE: f64 = 0.34;

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
    let by =
        by.max(around.gap / 2.0 + drawn_in(surface, around, (one, two), 2.0 * PI - walls_round(surface, corner) - PI));
    Corner::open(surface.points[corner] + end * (own.width.abs() / sine), keeps, by)
}

/// How far two flanges that end square to their edges would come past the middle between them in the flat, mm: the bend between their walls
/// draws those together, and their own bends draw them in past the corner. `wedge` is what the flat has between their ends, radians. A
/// bend's flat is at least as long as its inside, so this is the most.
fn drawn_in(surface: &Surface, around: &Around<'_>, (one, two): (&Along, &Along), wedge: f64) -> f64 {
    let Around { radius, thickness, .. } = *around;
    let setback = |angle: f64| (radius + thickness) * (angle / 2.0).tan();
    let walls = surface.faces[one.wall].outward.angle_to(surface.faces[two.wall].outward);
    let between = (setback(walls) - walls * radius / 2.0).max(0.0);
    let own = |along: &Along| {
        // From straight on past the rim.
        let angle = surface.faces[along.wall].outward.cross(along.way).angle_to(along.inward());
        (setback(angle) - angle * radius).max(0.0)
    };
    between + own(one).max(own(two)) * (wedge.max(0.0) / 2.0).sin()
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
pub(super) fn alone(
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
    if deep.is_nan() || deep < PARALLEL {
        return square;
    }
    Corner::open(place + line * (along.width.abs() / deep), -surface.faces[wall].outward, clear)
}
