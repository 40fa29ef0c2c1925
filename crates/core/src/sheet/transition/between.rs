//! The strip between two panels that are bent into each other, and where the second one lies beyond it.

use crate::plane::{Point, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, PARALLEL};
use crate::sheet::flat::{BendSizes, Strip};
use crate::space::Vector3;

use super::cut::{Cut, FILM, NO_EDGE};
use super::edges::{EdgeIs, SheetPanel};
use super::faces::{Face, Surface};
use super::halves::Frame;

/// Wider than this a panel's corner reaches past the end of a bend: 120 deg.
const BLUNT: f64 = 120.0 * std::f64::consts::PI / 180.0;

/// A rigid move of a plane: turned, then shifted.
#[derive(Clone, Copy)]
pub(super) struct Move {
    pub x: Vector,
    pub shift: Vector,
}

impl Move {
    pub fn vector(&self, v: Vector) -> Vector {
        self.x * v.x + self.x.left() * v.y
    }

    pub fn point(&self, point: Point) -> Point {
        let turned = self.vector(point - Point::default());
        Point::default() + turned + self.shift
    }
}

/// One panel's side of a bend.
pub(super) struct Side<'a> {
    pub cut: &'a Cut,
    pub sheet: &'a SheetPanel,
    pub face: &'a Face,
    pub edge: usize,
}

/// What lies between two panels that are bent into each other.
pub(super) struct Between {
    pub strip: Strip,
    /// How the second one lies beyond it.
    pub moved: Move,
    /// How far it ends from the corners that it runs between, mm.
    pub relieved: f64,
    /// Where it begins and ends along the edge of either panel, in that panel's plane, in the order of its corners.
    pub ends: [(Point, Point); 2],
}

/// The strip between two panels. `None` where nothing is left of it.
pub(super) fn beside(
    surface: &Surface,
    (here, there): (Side<'_>, Side<'_>),
    turned: &Move,
    sizes: &BendSizes,
    relief: f64,
) -> Option<Between> {
    let (k, l) = (here.edge, there.edge);
    let count = here.cut.given.len();
    let (from, to) = (here.cut.given[k], here.cut.given[(k + 1) % count]);
    let along = (to - from).unit();
    let reach = |cut: &Cut, edge: usize, zero: Point, way: Vector| {
        let (a, b) = cut.edges[edge];
        let (a, b) = ((a - zero).dot(way), (b - zero).dot(way));
        (a.min(b), a.max(b))
    };
    let own = reach(here.cut, k, from, along);
    // The neighbour walks the edge the other way: its end is this one's start.
    let other = there.cut.given.len();
    let (zero, away) =
        (there.cut.given[(l + 1) % other], (there.cut.given[l] - there.cut.given[(l + 1) % other]).unit());
    // As far along the edge as this one's corner: a tab's own corner may lie past it.
    let local = there.cut.frame.inverse().apply(surface.points[here.face.corners[k]]);
    let zero = zero + away * (Point::new(local.x, local.y) - zero).dot(away);
    let theirs = reach(there.cut, l, zero, away);
    let (mut low, mut high) = (own.0.max(theirs.0), own.1.min(theirs.1));
    let long = from.distance(to);
    // What stands beside the bend at its ends, on either panel.
    let at_start = [(&here, (k + count - 1) % count, true), (&there, (l + 1) % other, false)];
    let at_finish = [(&here, (k + 1) % count, false), (&there, (l + other - 1) % other, true)];
    let metal = metal(surface, &here, &there);
    for (side, edge, its_start) in at_start {
        match side.sheet.keeps[edge] {
            Some((normal, by)) => {
                low = low.max(clear_from(&metal, normal, by));
                if is_blunt(side.cut, side.edge, its_start) {
                    low = low.max(own.0.max(theirs.0) + relief);
                }
            }
            None if relief > 0.0 && bends_again(side.sheet, edge) => low = low.max(own.0.max(theirs.0) + relief),
            None => {}
        }
    }
    let back = Metal { along: -metal.along, places: metal.places.clone() };
    for (side, edge, its_start) in at_finish {
        match side.sheet.keeps[edge] {
            Some((normal, by)) => {
                high = high.min(long - clear_from(&back, normal, by));
                if is_blunt(side.cut, side.edge, its_start) {
                    high = high.min(own.1.min(theirs.1) - relief);
                }
            }
            None if relief > 0.0 && bends_again(side.sheet, edge) => high = high.min(own.1.min(theirs.1) - relief),
            None => {}
        }
    }
    low = no_film(low, [own.0, theirs.0]);
    high = -no_film(-high, [-own.1, -theirs.1]);
    if high - low < NO_EDGE {
        return None;
    }
    let relieved = low.max(long - high).max(0.0);
    // In the flat: metal on the left of the edge, the strip on its right.
    let flat_along = turned.vector(along);
    let out = -flat_along.left();
    let line = here.cut.edges[k].0;
    let place = |u: f64| line + along * (u - (line - from).dot(along));
    let strip = sizes.strip(turned.point(place(low)), flat_along, out, high - low);
    // A turn that takes `away` to flat_along takes its right to out.
    let x = Vector::new(flat_along.x * away.x + flat_along.y * away.y, flat_along.y * away.x - flat_along.x * away.y);
    let turn = Move { x, shift: Vector::default() };
    let their_line = there.cut.edges[l].0;
    // The place of their tangent line that is as far along the edge.
    let their_place = |u: f64| their_line + away * (u - (their_line - zero).dot(away));
    let target = strip.place(0.0, strip.width);
    let shift = target - turn.point(their_place(low));
    let ends = [(place(low), place(high)), (their_place(high), their_place(low))];
    Some(Between { strip, moved: Move { x, shift }, relieved, ends })
}

/// Where a bend begins along its edge: a film past a corner of either panel it begins so far past it as a film is wide.
fn no_film(begins: f64, mut corners: [f64; 2]) -> f64 {
    corners.sort_by(f64::total_cmp);
    corners.into_iter().fold(begins, |begins, corner| {
        let past = begins - corner;
        if past > MODELLING_TOLERANCE && past < FILM { corner + FILM } else { begins }
    })
}

/// Whether a panel's corner at an end of an edge is so wide that its metal stands beside the end of a bend there.
fn is_blunt(cut: &Cut, edge: usize, at_start: bool) -> bool {
    let long = cut.outline.len();
    let Some(at) = cut.outline.iter().position(|(_, own)| *own == Some(edge)) else { return false };
    let at = if at_start { at } else { (at + 1) % long };
    let place = |at: usize| cut.outline[at % long].0;
    let (ahead, behind) = (place(at + 1) - place(at), place(at + long - 1) - place(at));
    ahead.cross(behind).atan2(ahead.dot(behind)).rem_euclid(std::f64::consts::TAU) > BLUNT
}

/// Whether an edge is bent too, by a bend of its own.
fn bends_again(sheet: &SheetPanel, edge: usize) -> bool {
    matches!(sheet.edges[edge], EdgeIs::Bent(..))
}

/// The metal of a bend seen along its edge: places off the edge's first corner, and the way along it.
struct Metal {
    places: Vec<Vector3>,
    along: Vector3,
}

/// The corners that hold all of a bend's metal: where both panels' faces would meet, and its tangent lines.
fn metal(surface: &Surface, here: &Side<'_>, there: &Side<'_>) -> Metal {
    let one = Frame::new(surface, here.face, here.edge);
    let two = Frame::new(surface, there.face, there.edge);
    let (low, high) = here.sheet.faces;
    // From this one's edge square to the other's: nothing but for a tab, which has an edge of its own.
    let apart = two.from - one.from;
    let apart = apart - one.along * apart.dot(one.along);
    let mut places = Vec::new();
    for height in [low, high] {
        places.push(one.inward * here.sheet.back[here.edge] + one.up * height);
        places.push(apart + two.inward * there.sheet.back[there.edge] + two.up * height);
        let slant = one.inward.dot(two.up);
        if slant.abs() > PARALLEL {
            let across = (height + apart.dot(two.up) - height * one.up.dot(two.up)) / slant;
            places.push(one.inward * across + one.up * height);
        }
    }
    Metal { places, along: one.along }
}

/// How far along the edge from its corner a bend's metal keeps to a half of space.
fn clear_from(metal: &Metal, normal: Vector3, by: f64) -> f64 {
    let runs = normal.dot(metal.along);
    // A plane along the edge bounds no end of it.
    if runs < PARALLEL {
        return f64::NEG_INFINITY;
    }
    metal.places.iter().map(|place| (by - normal.dot(*place)) / runs).fold(f64::NEG_INFINITY, f64::max)
}
