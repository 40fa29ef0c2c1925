//! Parting a piece into blanks, and joining edges.

use crate::sheet::pointed::{Pointed, Pointing};
use crate::work::sheet::{SeamAction, SeamAs, SplitAction, SplitAt, SplitBend, SplitLine, SplitReach, StripStays};
use crate::work::{Action, Group, Offer};

/// Part at the bend that is pointed at, or along a line across the panel or from the edge that is.
pub(in crate::sheet::verbs) fn split(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    if let [Pointed::Bend(at)] = pointing.at.as_slice() {
        let bend = flat.bends[*at].name.as_str();
        let own = |words: &str, strip: StripStays| {
            let at = SplitAt::Bend(SplitBend { bend: bend.into(), strip });
            Offer::new(Group::Blank, words, "split", Action::Split(SplitAction { at, seam: SeamAs::default() }))
        };
        return vec![
            own("Part the piece here, the bend stays with its panel", StripStays::Parent),
            own("Part the piece here, the bend goes with its flange", StripStays::Flange),
        ];
    }
    let edge = match pointing.edge() {
        Some(edge) => Some(edge),
        None => pointing.panel().and_then(|panel| pointing.free_edges(panel).into_iter().next()),
    };
    let Some(edge) = edge else { return Vec::new() };
    let line = &edge.line;
    let inward = (line.end - line.start).unit().left();
    let deep = flat.nodes[edge.panel].region.outer.edges.iter().map(|one| (one.start - line.start).dot(inward));
    let deep = deep.fold(0.0, f64::max);
    let at = SplitAt::Line(SplitLine {
        panel: flat.nodes[edge.panel].name.as_str().into(),
        edge: edge.name.as_str().into(),
        distance: pointing.about(deep / 2.0),
        turn: None,
        reach: SplitReach::Flat,
    });
    let words = match (pointing.nowhere(), pointing.edge().is_some()) {
        (true, _) => "Part the piece into blanks along a line",
        (_, true) => "Part the piece along a line at a distance from this edge",
        _ => "Part the piece along a line on this panel",
    };
    let action = Action::Split(SplitAction { at, seam: SeamAs::default() });
    let offer = Offer::new(Group::Blank, words, "split", action).asking(&["at.line.distance"]);
    vec![if pointing.nowhere() { offer.wanting("at.line.edge") } else { offer }]
}

/// Joins the two edges that are pointed at.
pub(in crate::sheet::verbs) fn seam(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let called = |one: &Pointed| match one {
        Pointed::Edge(at) => Some(flat.edges[*at].name.clone()),
        Pointed::Wall(name) => Some(name.clone()),
        _ => None,
    };
    let [one, two] = pointing.at.as_slice() else { return Vec::new() };
    let (Some(from), Some(to)) = (called(one), called(two)) else { return Vec::new() };
    let action = SeamAction { from: from.as_str().into(), to: to.as_str().into(), seam: SeamAs::default() };
    vec![Offer::new(Group::Blank, "Join these two edges by a seam", "seam", Action::Seam(action))]
}
