//! What every face of a folded part is called: the one place that body, mesh and measures take it from.

use std::collections::{HashMap, HashSet};

use crate::plane::{MODELLING_TOLERANCE, Segment, Tag};

use super::cut_edges::{CutEdge, cut_edges, lies_on};
use super::flat::{Flat, Hole, Node, TagKind};

/// The faces of one flat.
pub(super) struct FaceNames<'a> {
    flat: &'a Flat,
    /// Edges that notches and reliefs have made, by their tag.
    reliefs: HashMap<Tag, Vec<CutEdge>>,
    /// Edges of panels that trims have left in several planes: of each panel and tag a stretch of each plane.
    parted: HashMap<(String, Tag), Vec<Segment>>,
    /// Holes that open a panel's or a bend's outside: where, and their tag.
    opened: HashSet<(String, Tag)>,
}

impl<'a> FaceNames<'a> {
    pub fn new(flat: &'a Flat) -> Self {
        let mut reliefs: HashMap<Tag, Vec<CutEdge>> = HashMap::new();
        let of_relief = |edge: &CutEdge| matches!(flat.tags[edge.tag as usize].kind, TagKind::Relief);
        cut_edges(flat).into_iter().filter(of_relief).for_each(|edge| reliefs.entry(edge.tag).or_default().push(edge));
        let mut opened = HashSet::new();
        for node in &flat.nodes {
            let of_holes = node.region.outer.edges.iter().map(|edge| edge.tag);
            let of_holes = of_holes.filter(|tag| matches!(flat.tags[*tag as usize].kind, TagKind::Hole(_)));
            opened.extend(of_holes.map(|tag| (node.stands(), tag)));
        }
        FaceNames { flat, reliefs, parted: parted(flat), opened }
    }

    /// The upper or lower face of a panel or a bend: `base.top`, `up.bend.bottom`.
    pub fn face(node: &Node, top: bool) -> String {
        format!("{}.{}", node.stands(), if top { "top" } else { "bottom" })
    }

    /// The wall under a stretch of a node's outline: `base.front`, `bore`, `slot.side-2.base`, `up.bend.left`.
    pub fn wall(&self, node: &Node, segment: &Segment, tag: Tag) -> String {
        let record = self.flat.tags.get(tag as usize);
        let hole = record.and_then(|record| match record.kind {
            TagKind::Hole(hole) => self.flat.holes.get(hole),
            _ => None,
        });
        if let Some(hole) = hole {
            return self.hole_wall(hole, node, segment);
        }
        let made = self.reliefs.get(&tag).into_iter().flatten().find(|edge| {
            let own = &self.flat.nodes[edge.node];
            own.name == node.name
                && own.is_panel() == node.is_panel()
                && edge.stretches.iter().any(|stretch| lies_on(segment, stretch))
        });
        match (made, record) {
            (Some(edge), _) => edge.name.clone(),
            (None, Some(record)) if matches!(record.kind, TagKind::Joint) => joint_wall(&record.name, node, segment),
            (None, Some(record)) if !record.name.is_empty() => {
                let planes = self.parted.get(&(node.stands(), tag));
                match planes.and_then(|all| all.iter().position(|one| in_line(one, segment))) {
                    None | Some(0) => record.name.clone(),
                    Some(at) => format!("{}-{}", record.name, at + 1),
                }
            }
            _ => format!("{}.edge", node.name),
        }
    }

    /// The wall of a hole: a round hole that is whole is one wall, called as it is; of any other each side has its own, by the
    /// side of the tool.
    fn hole_wall(&self, hole: &Hole, node: &Node, segment: &Segment) -> String {
        let whole = || hole.name.clone();
        let place = node.stands();
        if hole.outline.as_circle().is_some() && !self.opened.contains(&(place.clone(), hole.tag)) {
            return whole();
        }
        let mut sides = hole.outline.segments().map(|(side, _)| side).enumerate();
        sides
            .find(|(_, side)| lies_on(segment, side))
            .map_or_else(whole, |(at, _)| format!("{}.side-{}.{place}", hole.name, at + 1))
    }
}

/// Edges that stand in several planes on one panel: what lies on the edge as it was laid down comes first, the rest as the outline
/// comes to it.
fn parted(flat: &Flat) -> HashMap<(String, Tag), Vec<Segment>> {
    let mut all: HashMap<(String, Tag), Vec<Segment>> = HashMap::new();
    for record in &flat.edges {
        let node = &flat.nodes[record.panel];
        let mut planes: Vec<Segment> = Vec::new();
        let mut own: Vec<Segment> = flat.segments_of(record.panel, record.tag);
        own.sort_by_key(|one| !in_line(&record.line, one));
        for one in own {
            if !planes.iter().any(|known| in_line(known, &one)) {
                planes.push(one);
            }
        }
        if planes.len() > 1 {
            all.insert((node.stands(), record.tag), planes);
        }
    }
    all
}

/// Whether two stretches are of one line or one round.
fn in_line(one: &Segment, two: &Segment) -> bool {
    let near = 10.0 * MODELLING_TOLERANCE;
    match (one.is_line(), two.is_line()) {
        (true, true) => {
            let way = (one.end - one.start).unit();
            [two.start, two.end].iter().all(|&place| way.cross(place - one.start).abs() < near)
        }
        (false, false) => one.centre().distance(two.centre()) < near && (one.radius() - two.radius()).abs() < near,
        _ => false,
    }
}

/// The wall along a tangent line where nothing joins: of a panel, or of a bend on the side that it begins or ends with.
fn joint_wall(joint: &str, node: &Node, segment: &Segment) -> String {
    let side = match node.strip() {
        None => "",
        Some(strip) if strip.local(segment.at(0.5)).1 < strip.width / 2.0 => ".near",
        Some(_) => ".far",
    };
    format!("{joint}.{}{side}", node.stands())
}

/// The wall that is called so: the first panel or bend that it stands on, and its stretches there. Of walls that share a name the
/// stretches of all are given.
pub fn wall_called(flat: &Flat, name: &str) -> Option<(usize, Vec<Segment>)> {
    let names = FaceNames::new(flat);
    let (mut first, mut stretches) = (None, Vec::new());
    for (at, node) in flat.nodes.iter().enumerate() {
        for (segment, tag) in node.region.outlines().flat_map(|outline| outline.segments()) {
            // A name begins with what made the wall: most are told apart by that alone.
            let may_be = flat.tags.get(tag as usize).is_some_and(|record| name.starts_with(record.name.as_str()));
            if may_be && names.wall(node, &segment, tag) == name {
                first.get_or_insert(at);
                stretches.push(segment);
            }
        }
    }
    Some((first?, stretches))
}
