//! Edges that cuts have made: where a cut opens a panel's or a strip's outside, what is left there is an edge of the part. What it is
//! called is the cut, the side of its tool and the panel or strip that it stands on; several stretches share a name.

use std::collections::HashMap;

use crate::plane::{MODELLING_TOLERANCE, Point, Segment, Tag};

use super::flat::{Flat, TagKind};

/// An edge made by a cut.
#[derive(Clone, Debug, PartialEq)]
pub struct CutEdge {
    /// `slot.side-2.base`: the second edge of the tool's outline as it was drawn, and on the bend of `up` `slot.side-2.up.bend`; of
    /// notches and reliefs, which keep no tool, `notch.cut-1.base`: the first side that the outline comes to.
    pub name: String,
    /// Its panel or strip, an index in [`Flat::nodes`]; of a strip that cuts have parted the first of its pieces.
    pub node: usize,
    /// The tag of its stretches.
    pub tag: Tag,
    /// The side of the tool that made it; `None` of notches and reliefs.
    pub tool: Option<Segment>,
    /// What is left of it, counted along the tool's side (of notches and reliefs along the outside), metal on the left, mm.
    pub stretches: Vec<Segment>,
}

/// Every edge that cuts have made, node by node.
pub fn cut_edges(flat: &Flat) -> Vec<CutEdge> {
    let mut all: Vec<CutEdge> = Vec::new();
    let mut by_name: HashMap<String, usize> = HashMap::new();
    // Of each notch or relief, on each panel or strip, the sides so far.
    let mut sides: HashMap<(Tag, String), Vec<usize>> = HashMap::new();
    for (at, node) in flat.nodes.iter().enumerate() {
        // A strip is called as its flange is.
        let stands = node.stands();
        for (segment, tag) in node.region.outer.segments() {
            let Some(record) = flat.tags.get(tag as usize) else { continue };
            let (name, tool) = match record.kind {
                TagKind::Hole(hole) => {
                    let Some(hole) = flat.holes.get(hole) else { continue };
                    let mut tools = hole.outline.segments().enumerate();
                    let Some((side, (tool, _))) = tools.find(|(_, (side, _))| lies_on(&segment, side)) else {
                        continue;
                    };
                    (format!("{}.side-{}.{stands}", hole.name, side + 1), Some(tool))
                }
                TagKind::Relief => {
                    let own = sides.entry((tag, stands.clone())).or_default();
                    let known = own.iter().position(|&edge| is_one_side(&all[edge].stretches[0], &segment));
                    let side = known.unwrap_or_else(|| {
                        own.push(all.len());
                        own.len() - 1
                    });
                    (format!("{}.cut-{}.{stands}", record.name, side + 1), None)
                }
                _ => continue,
            };
            let index = *by_name.entry(name).or_insert_with_key(|name| {
                all.push(CutEdge { name: name.clone(), node: at, tag, tool, stretches: Vec::new() });
                all.len() - 1
            });
            all[index].stretches.push(segment);
        }
    }
    all.iter_mut().for_each(along_the_side);
    all
}

/// Puts the stretches of a tool's side in the order in which the tool's outline comes to them.
fn along_the_side(edge: &mut CutEdge) {
    let Some(side) = edge.tool else { return };
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
