//! Edges that cuts have made: where a cut opens a panel's or a strip's outside, what is left there is an edge of the part. What it is
//! called is the cut, the side of its tool and the panel or strip that it stands on; several stretches share a name.

use crate::plane::{MODELLING_TOLERANCE, Point, Segment};

use super::flat::{Flat, TagKind};

/// An edge made by a cut.
#[derive(Clone, Debug, PartialEq)]
pub struct CutEdge {
    /// `slot.side-2.base`: the second edge of the tool's outline as it was drawn, and on the bend of `up` `slot.side-2.up.bend`; of
    /// notches and reliefs, which keep no tool, `notch.cut-1.base`: the first side that the outline comes to.
    pub name: String,
    /// Its panel or strip, an index in [`Flat::nodes`]; of a strip that cuts have parted the first of its pieces.
    pub node: usize,
    /// What is left of it, counted along the tool's side (of notches and reliefs along the outside), metal on the left, mm.
    pub stretches: Vec<Segment>,
}

/// Every edge that cuts have made, node by node.
pub fn cut_edges(flat: &Flat) -> Vec<CutEdge> {
    let mut all: Vec<CutEdge> = Vec::new();
    for (at, node) in flat.nodes.iter().enumerate() {
        // A strip is called as its flange is.
        let stands = format!("{}{}", node.name, if node.is_panel() { "" } else { ".bend" });
        for (segment, tag) in node.region.outer.segments() {
            let Some(record) = flat.tags.get(tag as usize) else { continue };
            let name = match record.kind {
                TagKind::Hole(hole) => {
                    let Some(hole) = flat.holes.get(hole) else { continue };
                    let Some(side) = hole.outline.segments().position(|(side, _)| lies_on(&segment, &side)) else {
                        continue;
                    };
                    format!("{}.side-{}.{stands}", hole.name, side + 1)
                }
                TagKind::Relief => {
                    let own = |edge: &&CutEdge| {
                        edge.name.strip_prefix(&record.name).is_some_and(|rest| rest.starts_with(".cut-"))
                            && edge.name.ends_with(&format!(".{stands}"))
                            && flat.nodes[edge.node].name == node.name
                    };
                    match all.iter().filter(own).find(|edge| is_one_side(&edge.stretches[0], &segment)) {
                        Some(known) => known.name.clone(),
                        None => format!("{}.cut-{}.{stands}", record.name, all.iter().filter(own).count() + 1),
                    }
                }
                _ => continue,
            };
            match all.iter_mut().find(|edge| edge.name == name) {
                Some(edge) => edge.stretches.push(segment),
                None => all.push(CutEdge { name, node: at, stretches: vec![segment] }),
            }
        }
    }
    for edge in &mut all {
        along_the_side(flat, edge);
    }
    all
}

/// Puts the stretches of a tool's side in the order in which the tool's outline comes to them.
fn along_the_side(flat: &Flat, edge: &mut CutEdge) {
    if edge.stretches.len() < 2 {
        return;
    }
    let sides = flat.holes.iter().filter(|hole| edge.name.starts_with(&format!("{}.side-", hole.name)));
    let side = sides
        .flat_map(|hole| hole.outline.segments())
        .map(|(side, _)| side)
        .find(|side| edge.stretches.iter().all(|stretch| lies_on(stretch, side)));
    let Some(side) = side else { return };
    let far = |stretch: &Segment| {
        let middle = stretch.at(0.5);
        if side.is_line() {
            return (middle - side.start).dot((side.end - side.start).unit());
        }
        let (from, to) = (side.start - side.centre(), middle - side.centre());
        (from.cross(to).atan2(from.dot(to)) * side.sweep().signum()).rem_euclid(std::f64::consts::TAU)
    };
    edge.stretches.sort_by(|one, two| far(one).total_cmp(&far(two)));
}

/// Whether two stretches are of one side: on one line or one round, with the metal on the same side.
fn is_one_side(one: &Segment, two: &Segment) -> bool {
    let near = 10.0 * MODELLING_TOLERANCE;
    match (one.is_line(), two.is_line()) {
        (true, true) => {
            let way = (one.end - one.start).unit();
            let aside = |place: Point| way.cross(place - one.start).abs();
            way.dot(two.end - two.start) > 0.0 && aside(two.start) < near && aside(two.end) < near
        }
        (false, false) => {
            one.centre().distance(two.centre()) < near
                && (one.radius() - two.radius()).abs() < near
                && one.sweep().signum() == two.sweep().signum()
        }
        _ => false,
    }
}

/// Whether a stretch is part of a side of a tool, whichever way it is walked.
pub(super) fn lies_on(stretch: &Segment, side: &Segment) -> bool {
    let near = 10.0 * MODELLING_TOLERANCE;
    if stretch.is_line() != side.is_line() {
        return false;
    }
    [stretch.start, stretch.at(0.5), stretch.end].into_iter().all(|place| side.distance_to(place) < near)
}
