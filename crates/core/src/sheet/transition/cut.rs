//! A panel in its own plane: what is left of it where its edges stand back, and the reliefs at the ends of its bends.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point, Vector};
use crate::quantity::{LengthUnit, length_text};
use crate::space::Motion;

use super::edges::{Nick, SheetPanel};
use super::faces::Surface;
use super::halves::Frame;

/// A panel in its own plane: x along its first edge, y into it, seen from within.
pub(super) struct Cut {
    /// Where its own plane lies in the piece, at the height of the surface.
    pub frame: Motion,
    /// Corners of the surface's polygon.
    pub given: Vec<Point>,
    /// What is left of each edge, where anything is, along it; the corners where it ends.
    pub edges: Vec<(Point, Point)>,
    /// The outline: corners with the edge that begins there, `None` for a step between two edges of one line.
    pub outline: Vec<(Point, Option<usize>)>,
}

/// Less than this is no edge, mm.
pub(super) const NO_EDGE: f64 = 10.0 * MODELLING_TOLERANCE;

/// What is left of a panel.
///
/// # Errors
/// Nothing is, or not of each edge.
pub(super) fn cut(surface: &Surface, panel: &SheetPanel, unit: LengthUnit) -> Result<Cut, Finding> {
    let face = &surface.faces[panel.face];
    let own = Frame::new(surface, face, 0);
    let frame = Motion::to_frame(own.from, own.along, own.inward, own.up);
    let home = frame.inverse();
    let given: Vec<Point> = face
        .corners
        .iter()
        .map(|&at| {
            let local = home.apply(surface.points[at]);
            Point::new(local.x, local.y)
        })
        .collect();
    let count = given.len();
    // Each edge shifted into the panel: a point on it and its direction.
    let lines: Vec<(Point, Vector)> = (0..count)
        .map(|k| {
            let along = (given[(k + 1) % count] - given[k]).unit();
            (given[k] + along.left() * panel.back[k], along)
        })
        .collect();
    let mut outline: Vec<(Point, Option<usize>)> = Vec::new();
    for k in 0..count {
        let before = (k + count - 1) % count;
        let ((p, d), (q, e)) = (lines[before], lines[k]);
        let turn = d.cross(e);
        if turn.abs() < MODELLING_TOLERANCE {
            // Two edges of one line that stand back differently: a step at their corner.
            let (first, second) = (given[k] + d.left() * panel.back[before], given[k] + e.left() * panel.back[k]);
            if first.distance(second) > NO_EDGE {
                outline.push((first, None));
            }
            outline.push((second, Some(k)));
            continue;
        }
        let corner = p + d * ((q - p).cross(e) / turn);
        outline.push((corner, Some(k)));
    }
    for nick in &panel.nicks {
        outline = clipped(&outline, nick, &frame);
    }
    let mut edges = Vec::new();
    for k in 0..count {
        let long = outline.len();
        let at = (0..long).find(|&at| outline[at].1 == Some(k));
        let left = at.map(|at| (outline[at].0, outline[(at + 1) % long].0));
        let left = left.filter(|(from, to)| (*to - *from).dot(lines[k].1) > NO_EDGE);
        edges.push(left.ok_or_else(|| eaten(surface, panel, unit))?);
    }
    Ok(Cut { frame, given, edges, outline })
}

fn eaten(surface: &Surface, panel: &SheetPanel, unit: LengthUnit) -> Finding {
    let most = panel.back.iter().copied().fold(0.0, f64::max);
    Finding::error(
        format!(
            "nothing is left of {}: its edges stand back by up to {}",
            surface.faces[panel.face].name,
            length_text(most, unit)
        ),
        "Make it larger, the sheet thinner, the inside radius smaller, or choose other joints.",
    )
    .at_field("edges")
}

/// What of an outline lies on the side of a nick that the panel keeps, both faces of the sheet.
fn clipped(outline: &[(Point, Option<usize>)], nick: &Nick, frame: &Motion) -> Vec<(Point, Option<usize>)> {
    let home = frame.inverse();
    let (corner, normal) = (home.apply(nick.corner), home.direction(nick.normal));
    let side = Vector::new(normal.x, normal.y);
    let off = |point: Point| side.dot(point - Point::new(corner.x, corner.y)) - nick.by(normal.z);
    let mut kept: Vec<(Point, Option<usize>)> = Vec::new();
    for (at, &(here, edge)) in outline.iter().enumerate() {
        let there = outline[(at + 1) % outline.len()].0;
        let (a, b) = (off(here), off(there));
        let crossing = || here + (there - here) * (a / (a - b));
        match (a >= 0.0, b >= 0.0) {
            (true, true) => kept.push((here, edge)),
            (true, false) => {
                kept.push((here, edge));
                kept.push((crossing(), None));
            }
            (false, true) => kept.push((crossing(), edge)),
            (false, false) => {}
        }
    }
    // Where the line runs through a corner two places are one: the edge between them is none.
    let count = kept.len();
    let long = |at: usize| kept[at].0.distance(kept[(at + 1) % count].0);
    (0..count).filter(|&at| long(at) > NO_EDGE).map(|at| kept[at]).collect()
}

/// Takes a panel's corners away beside bends that end before them: square to the bend and as deep as a relief, or to where the relief of
/// the next bend meets it.
pub(super) fn relieve(cut: &mut Cut, ended: &BTreeMap<usize, (Point, Point)>, depth: f64) {
    let long = cut.outline.len();
    let mut relieved: Vec<(Point, Option<usize>)> = Vec::new();
    for at in 0..long {
        let (before, next) = ((at + long - 1) % long, (at + 1) % long);
        let (corner, own) = cut.outline[at];
        let start = own.and_then(|own| ended.get(&own)).map(|ends| ends.0);
        let finish = cut.outline[before].1.and_then(|last| ended.get(&last)).map(|ends| ends.1);
        let [finish, start] = [finish, start].map(|end| end.filter(|end| end.distance(corner) > MODELLING_TOLERANCE));
        let (to, from) = (cut.outline[next].0, cut.outline[before].0);
        let (ahead, behind) = ((to - corner).unit(), (from - corner).unit());
        let places = match (finish, start) {
            (None, None) => vec![corner],
            // A film is no notch: it runs out along the side, which else stays where it is.
            (None, Some(end)) if end.distance(corner) < 2.0 * FILM => {
                vec![corner + behind * depth.min(from.distance(corner) * OF_A_SIDE), end]
            }
            (Some(end), None) if end.distance(corner) < 2.0 * FILM => {
                vec![end, corner + ahead * depth.min(to.distance(corner) * OF_A_SIDE)]
            }
            (None, Some(end)) => {
                let mut all = notch(corner, end, ahead.left(), (behind, from.distance(corner)), depth);
                all.reverse();
                all.push(end);
                all
            }
            (Some(end), None) => {
                let mut all = vec![end];
                all.extend(notch(corner, end, -behind.left(), (ahead, to.distance(corner)), depth));
                all
            }
            (Some(one), Some(two)) => between_two((one, -behind.left()), (two, ahead.left()), depth),
        };
        let last = places.len() - 1;
        relieved.extend(places.into_iter().enumerate().map(|(k, place)| (place, if k == last { own } else { None })));
    }
    // Where a notch ends at a corner, one place is there twice: the one that an edge begins at stays.
    let count = relieved.len();
    let twice = |at: usize| {
        let (here, next) = (relieved[at], relieved[(at + 1) % count]);
        here.1.is_none() && here.0.distance(next.0) <= NO_EDGE
    };
    let relieved: Vec<(Point, Option<usize>)> = (0..count).filter(|&at| !twice(at)).map(|at| relieved[at]).collect();
    let relieved = without_films(relieved);
    // A panel too narrow for its reliefs keeps its corners: that its bends end against metal is told by the rule.
    cut.outline = if is_simple(&relieved) { relieved } else { ended_only(&cut.outline, ended) };
    for k in 0..cut.edges.len() {
        let long = cut.outline.len();
        if let Some(at) = (0..long).find(|&at| cut.outline[at].1 == Some(k)) {
            cut.edges[k] = (cut.outline[at].0, cut.outline[(at + 1) % long].0);
        }
    }
}

/// Without the corners of reliefs that stand a film from the next: where an edge begins or ends stays.
fn without_films(outline: Vec<(Point, Option<usize>)>) -> Vec<(Point, Option<usize>)> {
    let count = outline.len();
    let is_film = |at: usize| {
        let [before, next] = [(at + count - 1) % count, (at + 1) % count].map(|at| outline[at]);
        let (here, own) = outline[at];
        own.is_none() && before.1.is_none() && [before, next].iter().any(|other| other.0.distance(here) < FILM)
    };
    (0..count).filter(|&at| !is_film(at)).map(|at| outline[at]).collect()
}

/// The outline as it was, with a corner where each bend ends.
fn ended_only(
    outline: &[(Point, Option<usize>)],
    ended: &BTreeMap<usize, (Point, Point)>,
) -> Vec<(Point, Option<usize>)> {
    let mut all = Vec::new();
    for (at, &(corner, edge)) in outline.iter().enumerate() {
        let next = outline[(at + 1) % outline.len()].0;
        let Some((edge, (start, finish))) = edge.and_then(|edge| ended.get(&edge).map(|ends| (edge, *ends))) else {
            all.push((corner, edge));
            continue;
        };
        if start.distance(corner) > NO_EDGE {
            all.push((corner, None));
        }
        all.push((start, Some(edge)));
        if finish.distance(next) > NO_EDGE {
            all.push((finish, None));
        }
    }
    all
}

/// Whether no two edges of an outline cross.
fn is_simple(outline: &[(Point, Option<usize>)]) -> bool {
    let count = outline.len();
    let edge = |at: usize| (outline[at].0, outline[(at + 1) % count].0);
    let side = |(from, to): (Point, Point), place: Point| (to - from).cross(place - from);
    let crosses = |one: (Point, Point), two: (Point, Point)| {
        side(one, two.0) * side(one, two.1) < 0.0 && side(two, one.0) * side(two, one.1) < 0.0
    };
    (0..count).all(|one| (one + 2..count).all(|two| (one == 0 && two == count - 1) || !crosses(edge(one), edge(two))))
}

/// What is narrower no cutter leaves apart, mm. A bend that ends before a corner ends so far before it at least: what is nearer together
/// is one place to a body.
pub(super) const FILM: f64 = 1e-3;

/// The most that a relief takes of a side: two of them leave a third of it between them.
const OF_A_SIDE: f64 = 1.0 / 3.0;

/// So many times as deep as a relief is no relief.
const MOST_DEEP: f64 = 3.0;

/// The corners of a relief between two bends' ends: square to both, each with the way into the panel that is square to its bend.
fn between_two((one, d): (Point, Vector), (two, e): (Point, Vector), depth: f64) -> Vec<Point> {
    let turn = d.cross(e);
    if turn.abs() < MODELLING_TOLERANCE {
        return vec![one, two];
    }
    let meet =
        |from: Point, way: Vector, on: Point, line: Vector| from + way * ((on - from).cross(line) / way.cross(line));
    let square = meet(one, d, two, e);
    let (own, other) = ((square - one).dot(d), (square - two).dot(e));
    // One that ends far further back than the other has a notch of its own.
    match (own > 0.0, other > 0.0) {
        // At a wide corner they meet far within: no deeper than a relief.
        (true, true) if own.max(other) > MOST_DEEP * depth => vec![one, one + d * depth, two + e * depth, two],
        (true, true) => vec![one, square, two],
        (true, false) => {
            let deep = two + e * depth.min((one - two).dot(e) / 2.0);
            vec![one, meet(one, d, deep, e.left()), deep, two]
        }
        (false, true) => {
            let deep = one + d * depth.min((two - one).dot(d) / 2.0);
            vec![one, deep, meet(two, e, deep, d.left()), two]
        }
        (false, false) => vec![one, two],
    }
}

/// The corners of a notch beside a bend's end, from there to the side that it leaves by; `inward` is square to the bend, into the panel.
fn notch(corner: Point, end: Point, inward: Vector, (side, long): (Vector, f64), depth: f64) -> Vec<Point> {
    let rise = side.dot(inward);
    if rise < MODELLING_TOLERANCE {
        return vec![corner];
    }
    let wide = corner.distance(end);
    let (toward, deep) = ((end - corner).unit(), depth.min(rise * long * OF_A_SIDE));
    let lean = side.dot(toward);
    // A side that leans over the bend meets the square line from its end.
    let meets = if lean > MODELLING_TOLERANCE { wide * rise / lean } else { f64::INFINITY };
    if meets <= deep {
        return vec![corner + side * (wide / lean)];
    }
    vec![end + inward * deep, corner + side * (deep / rise)]
}
