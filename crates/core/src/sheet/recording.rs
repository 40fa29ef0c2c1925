//! What cuts take, recorded while they are made.

use std::sync::Arc;

use crate::plane::{Box2, Outline, Region};

use super::flat::Flat;
use super::record::{CutRecord, NodeCut};

/// Room around a box for what touches it, mm.
const ROOM: f64 = 1e-3;

/// A node near a cut while it is being made: where it is in [`Flat::nodes`], its material before, the nodes that the cut
/// parted it into besides, and what fell off as scrap.
pub(super) struct NodeNear {
    pub at: usize,
    pub before: Region,
    pub twins: Vec<usize>,
    pub dropped: Vec<Region>,
}

impl Flat {
    /// Writes down a cut.
    pub(super) fn record_cut(&mut self, name: &str, tool: &Outline, near: Vec<NodeNear>) {
        let around = tool.extents();
        let nodes = near
            .into_iter()
            .map(|NodeNear { at, before, twins, dropped }| {
                let left = std::iter::once(at).chain(twins).map(|at| nearby(&self.nodes[at].region, &around));
                NodeCut { node: self.nodes[at].name.clone(), before, after: left.chain(dropped).collect() }
            })
            .collect();
        self.cuts.push(Arc::new(CutRecord { name: name.to_string(), tool: tool.clone(), nodes }));
    }

    /// The nodes whose box is near an outline, as they are.
    pub(super) fn nodes_near(&self, tool: &Outline) -> Vec<NodeNear> {
        let around = tool.extents();
        (0..self.nodes.len())
            .filter(|&at| self.nodes[at].region.extents().is_near(&around, 0.0))
            .map(|at| self.node_near(at, tool))
            .collect()
    }

    /// One node before a cut.
    pub(super) fn node_near(&self, at: usize, tool: &Outline) -> NodeNear {
        let before = nearby(&self.nodes[at].region, &tool.extents());
        NodeNear { at, before, twins: Vec::new(), dropped: Vec::new() }
    }
}

/// A region with only those of its holes that are near a box: the others have no part in a cut there.
pub(super) fn nearby(region: &Region, around: &Box2) -> Region {
    let holes = region.holes.iter().filter(|hole| hole.extents().is_near(around, ROOM)).cloned().collect();
    Region { outer: region.outer.clone(), holes }
}
