//! Links kept stretches into closed loops.

use std::collections::HashMap;

use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Segment};
use crate::quantity::tolerance::ROUNDING;

use super::split::{Piece, leaving};

/// Closed loops from stretches with the metal on their left; `None` where a chain does not close. At a place where several
/// go on, the sharpest turn to the left is taken, so that loops which only touch stay apart.
pub(super) fn link(pieces: Vec<Piece>) -> Option<Vec<Outline>> {
    let mut leaving_from: HashMap<usize, Vec<usize>> = HashMap::new();
    for (at, piece) in pieces.iter().enumerate() {
        leaving_from.entry(piece.from).or_default().push(at);
    }
    let mut used = vec![false; pieces.len()];
    let mut loops = Vec::new();
    for first in 0..pieces.len() {
        if used[first] {
            continue;
        }
        let mut walk = vec![first];
        used[first] = true;
        loop {
            let here = &pieces[*walk.last()?];
            if let Some(from) = walk.iter().position(|&at| pieces[at].from == here.to) {
                // A place come to again closes a loop; what led there goes on.
                let ring = walk.split_off(from);
                loops.push(outline_of(ring.iter().map(|&at| &pieces[at]).collect()));
                if walk.is_empty() {
                    break;
                }
                // The next stretch is looked for from the end of what is left.
            }
            let here = &pieces[*walk.last()?];
            let open = leaving_from.get(&here.to)?;
            let next = open.iter().copied().filter(|&at| !used[at]).max_by(|&one, &two| {
                let (a, b) = (turn(&here.segment, &pieces[one].segment), turn(&here.segment, &pieces[two].segment));
                a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1))
            })?;
            used[next] = true;
            walk.push(next);
        }
    }
    Some(loops)
}

/// How far one turns to the left into the next, radians (a full reversal counts as right), and how fast the next turns on.
fn turn(from: &Segment, to: &Segment) -> (f64, f64) {
    let arriving = -leaving(&from.reversed()).0;
    let (heading, bend) = leaving(to);
    let angle = arriving.cross(heading).atan2(arriving.dot(heading));
    // Straight back to the left is straight back to the right: nothing lies between.
    let angle = if angle > std::f64::consts::PI - ROUNDING { -std::f64::consts::PI } else { angle };
    // Headings a hair apart are one; then the rounder to the left counts.
    ((angle * 1e7).round() / 1e7, bend)
}

/// A loop's edges, stretches of one edge that follow each other joined again.
fn outline_of(mut ring: Vec<&Piece>) -> Outline {
    // Begin where one edge gives way to another.
    let same = |one: &Piece, two: &Piece| one.edge == two.edge && one.to == two.from && one.from != one.to;
    if let Some(at) = (0..ring.len()).find(|&at| !same(ring[(at + ring.len() - 1) % ring.len()], ring[at])) {
        ring.rotate_left(at);
    }
    let mut edges: Vec<Edge> = Vec::new();
    let mut before: Option<&Piece> = None;
    for piece in ring {
        match (before, edges.last_mut()) {
            (Some(known), Some(edge)) if same(known, piece) => {
                // One arc again: its sweeps add up.
                edge.bulge =
                    if piece.segment.is_line() { 0.0 } else { (edge.bulge.atan() + piece.segment.bulge.atan()).tan() };
            }
            _ => edges.push(Edge { start: piece.segment.start, bulge: piece.segment.bulge, tag: piece.tag }),
        }
        before = Some(piece);
    }
    let mut outline = Outline { edges };
    outline.drop_short(MODELLING_TOLERANCE);
    outline
}
