//! Edges that cuts have made: where a cut opens a panel's or a strip's outside, what is left there is an edge of the part. What it is
//! called is the cut, the side of its tool and the panel or strip that it stands on; several stretches share a name.

use crate::plane::{MODELLING_TOLERANCE, Segment};

use super::flat::{Flat, TagKind};

/// An edge made by a cut.
#[derive(Clone, Debug, PartialEq)]
pub struct CutEdge {
    /// `slot.side-2.base`: the second edge of the tool's outline as it was drawn, and on the bend of `up` `slot.side-2.up.bend`; of
    /// notches and reliefs, whose sides have no number, `notch.cut.base`.
    pub name: String,
    /// Its panel or strip, an index in [`Flat::nodes`]; of a strip that cuts have parted the first of its pieces.
    pub node: usize,
    /// What is left of it, along the outside, metal on the left, mm.
    pub stretches: Vec<Segment>,
}

/// Every edge that cuts have made, node by node.
pub fn cut_edges(flat: &Flat) -> Vec<CutEdge> {
    let mut all: Vec<CutEdge> = Vec::new();
    for (at, node) in flat.nodes.iter().enumerate() {
        for (segment, tag) in node.region.outer.segments() {
            let Some(record) = flat.tags.get(tag as usize) else { continue };
            let cut = match record.kind {
                TagKind::Hole(hole) => {
                    let Some(hole) = flat.holes.get(hole) else { continue };
                    let Some(side) = hole.outline.segments().position(|(side, _)| lies_on(&segment, &side)) else {
                        continue;
                    };
                    format!("{}.side-{}", hole.name, side + 1)
                }
                TagKind::Relief => format!("{}.cut", record.name),
                _ => continue,
            };
            // A strip is called as its flange is.
            let name = format!("{cut}.{}{}", node.name, if node.is_panel() { "" } else { ".bend" });
            match all.iter_mut().find(|edge| edge.name == name) {
                Some(edge) => edge.stretches.push(segment),
                None => all.push(CutEdge { name, node: at, stretches: vec![segment] }),
            }
        }
    }
    all
}

/// Whether a stretch is part of a side of a tool, whichever way it is walked.
fn lies_on(stretch: &Segment, side: &Segment) -> bool {
    let near = 10.0 * MODELLING_TOLERANCE;
    if stretch.is_line() != side.is_line() {
        return false;
    }
    [stretch.start, stretch.at(0.5), stretch.end].into_iter().all(|place| side.distance_to(place) < near)
}
