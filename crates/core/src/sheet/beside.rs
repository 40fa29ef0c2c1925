//! Several blanks side by side, as they are looked at: one part made of all of them, for measures, names and pictures. Nothing is
//! built on it and nothing is cut from it.

use std::sync::Arc;

use crate::plane::{Box2, Outline, Point, Region, Segment, Tag, Vector};
use crate::space::{Motion, Vector3};

use super::fold::{Folded, Placed};
use super::tree::{Joint, Link, Tree};
use super::{Blank, Flat, NodeKind, Part, TagKind};

/// Room between two blanks, as a share of the largest, and at least so much, mm.
const ROOM: (f64, f64) = (0.08, 20.0);

/// All blanks in one plane, each shifted beside the one before it. Of its blank only the pieces of outline are right: they are one
/// after another, and its outside is that of the first.
pub(super) fn side_by_side(parts: &[&Part]) -> (Part, Vec<Vector>) {
    let mut shifts = Vec::new();
    let mut all = Part {
        flat: Flat::new(parts[0].flat.thickness),
        tree: Tree { links: Vec::new(), order: Vec::new(), joints: Vec::new() },
        folded: Folded { placed: Vec::new(), fraction: 1.0 },
        blank: Blank { region: Region::default() },
        density: parts[0].density,
    };
    let largest =
        parts.iter().map(|part| part.blank.extents()).map(|box_| box_.width().max(box_.height())).fold(0.0, f64::max);
    let room = (largest * ROOM.0).max(ROOM.1);
    let mut next = parts[0].blank.extents().low.x;
    let level = parts[0].blank.extents().low.y;
    for (which, part) in parts.iter().enumerate() {
        let around = part.blank.extents();
        let by = Vector::new(next - around.low.x, level - around.low.y);
        next += around.width() + room;
        shifts.push(by);
        add(&mut all, part, by, which == 0);
    }
    (all, shifts)
}

fn add(all: &mut Part, part: &Part, by: Vector, first: bool) {
    let point = |place: Point| place + by;
    let boxed = |box_: Box2| Box2 { low: box_.low + by, high: box_.high + by };
    let segment = |one: &Segment| Segment { start: one.start + by, end: one.end + by, bulge: one.bulge };
    let (nodes, edges, bends, holes, tags) = (
        all.flat.nodes.len(),
        all.flat.edges.len(),
        all.flat.bends.len(),
        all.flat.holes.len(),
        all.flat.tags.len() as Tag,
    );
    let tag = |own: Tag| if own == 0 { 0 } else { own + tags };
    let outline = |given: &Outline| {
        let mut moved = given.moved(point);
        moved.edges.iter_mut().for_each(|edge| edge.tag = tag(edge.tag));
        moved
    };
    let region =
        |given: &Region| Region { outer: outline(&given.outer), holes: given.holes.iter().map(outline).collect() };
    let own = &part.flat;
    Arc::make_mut(&mut all.flat.tags).extend(own.tags.iter().map(|record| {
        let mut record = record.clone();
        if let TagKind::Hole(at) = record.kind {
            record.kind = TagKind::Hole(at + holes);
        }
        record
    }));
    all.flat.nodes.extend(own.nodes.iter().map(|node| {
        let mut node = node.clone();
        node.region = Arc::new(region(&node.region));
        node.laid = boxed(node.laid);
        if let NodeKind::Strip(strip) = &mut node.kind {
            strip.origin = strip.origin + by;
        }
        node
    }));
    all.flat.edges.extend(own.edges.iter().map(|edge| {
        let mut edge = edge.clone();
        (edge.tag, edge.panel, edge.line) = (tag(edge.tag), edge.panel + nodes, segment(&edge.line));
        edge.bends.iter_mut().for_each(|bend| *bend += bends);
        edge
    }));
    all.flat.bends.extend(own.bends.iter().map(|bend| {
        let mut bend = bend.clone();
        bend.strip += nodes;
        bend.parent = bend.parent.map(|at| at + nodes);
        bend.flange = bend.flange.map(|at| at + nodes);
        bend.edge = bend.edge.map(|at| at + edges);
        bend
    }));
    Arc::make_mut(&mut all.flat.holes).extend(own.holes.iter().map(|hole| {
        let mut hole = hole.clone();
        hole.panel += nodes;
        (hole.centre, hole.extents, hole.tag) = (point(hole.centre), boxed(hole.extents), tag(hole.tag));
        hole.outline = outline(&hole.outline);
        if let Some(copy) = &mut hole.copy {
            copy.mirror = copy.mirror.map(|(on, normal)| (on + by, normal));
        }
        hole
    }));
    Arc::make_mut(&mut all.flat.forms).extend(own.forms.iter().map(|form| {
        let mut form = form.clone();
        form.panel += nodes;
        (form.centre, form.extents) = (point(form.centre), boxed(form.extents));
        (form.outline, form.pilot) = (outline(&form.outline), form.pilot.map(tag));
        form
    }));
    Arc::make_mut(&mut all.flat.ribs).extend(own.ribs.iter().map(|rib| {
        let mut rib = rib.clone();
        (rib.strip, rib.centre) = (rib.strip + nodes, point(rib.centre));
        rib
    }));
    all.flat.tabs.extend(own.tabs.iter().map(|tab| {
        let mut tab = tab.clone();
        (tab.panel, tab.root, tab.tip) = (tab.panel + nodes, segment(&tab.root), segment(&tab.tip));
        tab
    }));
    all.flat.cuts.extend(own.cuts.iter().cloned());
    // What moved the flat moves it back first.
    let back = Motion::shift(Vector3::new(-by.x, -by.y, 0.0));
    all.folded.placed.extend(part.folded.placed.iter().map(|placed| match placed {
        Placed::Panel(motion) => Placed::Panel(motion.after(&back)),
        Placed::Strip(motion, curl) => Placed::Strip(motion.after(&back), curl.moved(by)),
    }));
    all.tree
        .links
        .extend(part.tree.links.iter().map(|link| link.map(|link| Link { parent: link.parent + nodes, ..link })));
    all.tree.order.extend(part.tree.order.iter().map(|at| at + nodes));
    all.tree.joints.extend(part.tree.joints.iter().map(|joint| Joint {
        strip: joint.strip + nodes,
        neighbour: joint.neighbour + nodes,
        ..*joint
    }));
    let blank = region(&part.blank.region);
    if first {
        all.blank.region.outer = blank.outer;
    } else {
        all.blank.region.holes.push(blank.outer);
    }
    all.blank.region.holes.extend(blank.holes);
}
