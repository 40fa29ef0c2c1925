//! A flat taken apart: some of its nodes as a flat of their own, with all that is on them.

use std::sync::Arc;

use super::flat::{Flat, TagKind};
use super::form::Form;
use super::rib::Rib;

impl Flat {
    /// Only these nodes, the first of them as the root, at the same places of the flat. Bends whose strip is not among them stay
    /// behind; one that loses a neighbour ends in nothing there. The pose is left as it is.
    pub(super) fn only(&self, keep: &[usize]) -> Flat {
        let node_of = |old: usize| keep.iter().position(|&one| one == old);
        let kept_edges: Vec<usize> =
            (0..self.edges.len()).filter(|&at| node_of(self.edges[at].panel).is_some()).collect();
        let kept_bends: Vec<usize> =
            (0..self.bends.len()).filter(|&at| node_of(self.bends[at].strip).is_some()).collect();
        let kept_holes: Vec<usize> =
            (0..self.holes.len()).filter(|&at| node_of(self.holes[at].panel).is_some()).collect();
        let place = |all: &[usize], old: usize| all.iter().position(|&one| one == old);
        let mut flat = Flat::new(self.thickness);
        flat.pose = self.pose;
        flat.nodes = keep.iter().map(|&old| self.nodes[old].clone()).collect();
        flat.edges = kept_edges
            .iter()
            .map(|&old| {
                let mut edge = self.edges[old].clone();
                edge.panel = node_of(edge.panel).unwrap_or(0);
                edge.bends = edge.bends.iter().filter_map(|&bend| place(&kept_bends, bend)).collect();
                edge
            })
            .collect();
        flat.bends = kept_bends
            .iter()
            .map(|&old| {
                let mut bend = self.bends[old].clone();
                bend.strip = node_of(bend.strip).unwrap_or(0);
                bend.parent = bend.parent.and_then(node_of);
                bend.flange = bend.flange.and_then(node_of);
                bend.edge = bend.edge.and_then(|edge| place(&kept_edges, edge));
                bend
            })
            .collect();
        let hole_at: std::collections::HashMap<usize, usize> =
            kept_holes.iter().enumerate().map(|(new, &old)| (old, new)).collect();
        let holes = kept_holes.iter().map(|&old| {
            let mut hole = self.holes[old].clone();
            hole.panel = node_of(hole.panel).unwrap_or(0);
            hole
        });
        flat.holes = Arc::new(holes.collect());
        let forms = self.forms.iter().filter_map(|form| Some(Form { panel: node_of(form.panel)?, ..form.clone() }));
        flat.forms = Arc::new(forms.collect());
        let ribs = self.ribs.iter().filter_map(|rib| Some(Rib { strip: node_of(rib.strip)?, ..rib.clone() }));
        flat.ribs = Arc::new(ribs.collect());
        let tags = self.tags.iter().map(|tag| {
            let mut tag = tag.clone();
            if let TagKind::Hole(old) = tag.kind {
                tag.kind = hole_at.get(&old).map_or(TagKind::None, |&new| TagKind::Hole(new));
            }
            tag
        });
        flat.tags = Arc::new(tags.collect());
        flat.tabs = self.tabs.iter().filter(|tab| node_of(tab.panel).is_some()).cloned().collect();
        for tab in &mut flat.tabs {
            tab.panel = node_of(tab.panel).unwrap_or(0);
        }
        let stands: Vec<&str> = flat.nodes.iter().map(|node| node.name.as_str()).collect();
        let own = |record: &&Arc<super::record::CutRecord>| {
            record.nodes.first().is_some_and(|cut| stands.contains(&cut.node.as_str()))
        };
        flat.cuts = self.cuts.iter().filter(own).cloned().collect();
        flat
    }
}
