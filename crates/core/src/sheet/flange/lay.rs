//! Laying strips and panels outward from an edge, and trimming the parent for them.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Region, Segment, Tag, Vector, outline_distance, subtract};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flat::{Bend, BendSizes, EdgeRecord, Flat, Node, NodeKind, Strip, TagKind};

/// How far a cutter stands out past an edge, so that the cut runs clean off the panel, mm.
pub(super) const RUN_OUT: f64 = 1.0;

/// The frame of an edge: s along it, v outward from it.
pub(in crate::sheet) struct EdgeFrame {
    pub start: Point,
    pub along: Vector,
    pub outward: Vector,
}

impl EdgeFrame {
    pub fn new(line: Segment) -> Self {
        let along = (line.end - line.start).unit();
        EdgeFrame { start: line.start, along, outward: along.right() }
    }

    pub fn place(&self, s: f64, v: f64) -> Point {
        self.start + self.along * s + self.outward * v
    }

    /// A rectangle from s0 to s1 and v0 to v1 (v0 < v1): tags for the side at v0, and for the others.
    pub fn rectangle(&self, s: (f64, f64), v: (f64, f64), inner: Tag, other: Tag) -> Outline {
        // Counter-clockwise: (along, outward) is a left-handed frame.
        Outline::polygon(&[
            (self.place(s.0, v.0), other),
            (self.place(s.0, v.1), other),
            (self.place(s.1, v.1), other),
            (self.place(s.1, v.0), inner),
        ])
    }
}

/// The edge of this name.
pub(in crate::sheet) fn find_edge(flat: &Flat, name: &str) -> Result<usize, Finding> {
    flat.edges.iter().position(|edge| edge.name == name).ok_or_else(|| {
        let mut known: Vec<&str> =
            flat.edges.iter().filter(|edge| edge.bends.is_empty()).map(|edge| edge.name.as_str()).collect();
        known.sort_unstable();
        let way_out = if known.is_empty() {
            "Lay down a base panel first.".to_string()
        } else {
            format!("The edges at this step are {}.", known.join(", "))
        };
        Finding::error(format!("there is no edge called {name} at this step"), way_out).at_field("edge")
    })
}

/// An edge that can be bent along: straight, and of a panel.
pub(in crate::sheet) fn straight_edge(flat: &Flat, name: &str) -> Result<usize, Finding> {
    let index = find_edge(flat, name)?;
    let edge = &flat.edges[index];
    if !edge.line.is_line() {
        return Err(Finding::error(
            format!("{} is round: a flange is bent along a straight edge", edge.name),
            "Pick a straight edge; a round flange is rolled or spun, not bent.",
        )
        .at_field("edge"));
    }
    if !flat.nodes[edge.panel].is_panel() {
        return Err(Finding::error(
            format!("{} is the end of a bend with nothing flat behind it", edge.name),
            "Give it a straight lead first.",
        )
        .at_field("edge"));
    }
    Ok(index)
}

/// Refuses a bend over a stretch that another bend has.
pub(super) fn check_free(flat: &Flat, edge: &EdgeRecord, from: f64, to: f64) -> Result<(), Finding> {
    let frame = EdgeFrame::new(edge.line);
    for &other in &edge.bends {
        let bend = &flat.bends[other];
        let strip = flat.strip_of(bend);
        let start = (strip.origin - frame.start).dot(frame.along);
        if start < to - MODELLING_TOLERANCE && from + MODELLING_TOLERANCE < start + strip.length {
            return Err(Finding::error(
                format!("{} is already bent there by {}", edge.name, bend.name),
                "Set both in so that they stand side by side, or bend another edge.",
            )
            .at_field("edge"));
        }
    }
    Ok(())
}

/// Takes off the parent what the bend and its flange replace.
#[allow(clippy::too_many_arguments)]
pub(super) fn trim_parent(
    flat: &mut Flat,
    name: &str,
    parent: usize,
    frame: &EdgeFrame,
    (from, to): (f64, f64),
    tangent_at: f64,
    joint: Tag,
    relief: Tag,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let region = &flat.nodes[parent].region;
    // At a full end the cut runs off the side, unless the panel widens there and has material to lose.
    let clear = |s: f64| !region.outer.contains(frame.place(s, tangent_at / 2.0));
    let low = if clear(from - RUN_OUT / 2.0) { from - RUN_OUT } else { from };
    let high = if clear(to + RUN_OUT / 2.0) { to + RUN_OUT } else { to };
    let cutter = frame.rectangle((low, high), (tangent_at, RUN_OUT), joint, relief);
    let parent_name = flat.nodes[parent].name.clone();
    for form in flat.forms.iter().filter(|form| form.panel == parent) {
        if outline_distance(&form.outline, &cutter) < MODELLING_TOLERANCE || cutter.contains(form.centre) {
            return Err(Finding::error(
                format!("the bend {name} would run over the form {}", form.name),
                "Move the form away from the edge, or bend outside the edge.",
            )
            .at_field("edge"));
        }
    }
    for hole in flat.holes.iter().filter(|hole| hole.panel == parent) {
        let outline =
            flat.nodes[parent].region.holes.iter().find(|one| one.edges.first().is_some_and(|e| e.tag == hole.tag));
        let Some(outline) = outline else { continue };
        if outline.extents().is_near(&cutter.extents(), 0.0)
            && (outline_distance(outline, &cutter) < MODELLING_TOLERANCE || cutter.contains(hole.centre))
        {
            return Err(Finding::error(
                format!("the bend {name} would run over the hole {}", hole.name),
                "Move the hole away from the edge, or bend outside the edge.",
            )
            .at_field("edge"));
        }
    }
    let mut pieces = subtract(&flat.nodes[parent].region, &cutter);
    if pieces.len() != 1 {
        return Err(Finding::error(
            format!(
                "the bend {name} takes {} from {parent_name}, which leaves {} of it",
                length_text(-tangent_at, unit),
                if pieces.is_empty() { "nothing".to_string() } else { format!("{} loose pieces", pieces.len()) }
            ),
            "Make the panel larger or the inside radius smaller, or place the bend outside the edge.",
        )
        .at_field("position"));
    }
    flat.nodes[parent].region = Arc::new(pieces.remove(0));
    Ok(())
}

/// A strip or a panel to be laid outward from an edge.
#[derive(Clone, Debug)]
pub(in crate::sheet) enum Outward {
    /// A bend.
    Curl { name: String, sizes: BendSizes },
    /// A panel, and how far it stands out past the bend at its start and its end.
    Flat { name: String, length: f64, past: (f64, f64) },
}

/// Lays strips and panels outward from an edge, from s = `from` to s = `to`, the first strip's tangent line at
/// `tangent_at`. The first strip belongs to the edge. Returns the nodes.
pub(in crate::sheet) fn lay_outward(
    flat: &mut Flat,
    edge_index: usize,
    (from, to): (f64, f64),
    tangent_at: f64,
    pieces: &[Outward],
) -> Vec<usize> {
    let edge = flat.edges[edge_index].clone();
    let frame = EdgeFrame::new(edge.line);
    let [start_side, end_side] = edge.sides.clone();
    let length = to - from;
    let mut v = tangent_at;
    let mut nodes = Vec::new();
    let first = flat.nodes.len();
    for (at, piece) in pieces.iter().enumerate() {
        let is_last = at + 1 == pieces.len();
        let origin = frame.place(from, v);
        let place = |s: f64, by: f64| origin + frame.along * s + frame.outward * by;
        let node = flat.nodes.len();
        nodes.push(node);
        let (Outward::Curl { name: own, .. } | Outward::Flat { name: own, .. }) = piece;
        let joint = flat.tag(format!("{own}.joint"), TagKind::Joint);
        match piece {
            Outward::Curl { name, sizes } => {
                let width = sizes.width;
                let bend_start = flat.tag(format!("{name}.bend.{start_side}"), TagKind::BendEnd);
                let bend_end = flat.tag(format!("{name}.bend.{end_side}"), TagKind::BendEnd);
                let far = if is_last { flat.tag(format!("{name}.end"), TagKind::Edge) } else { joint };
                let region = Region::solid(Outline::polygon(&[
                    (place(0.0, 0.0), bend_start),
                    (place(0.0, width), far),
                    (place(length, width), bend_end),
                    (place(length, 0.0), joint),
                ]));
                let laid = region.extents();
                let strip = sizes.strip(origin, frame.along, frame.outward, length);
                flat.nodes.push(Node {
                    name: name.clone(),
                    kind: NodeKind::Strip(strip),
                    region: Arc::new(region),
                    laid,
                    is_shell: false,
                });
                if is_last {
                    flat.edges.push(EdgeRecord {
                        name: format!("{name}.end"),
                        tag: far,
                        panel: node,
                        line: Segment::line(place(0.0, width), place(length, width)),
                        sides: [start_side.clone(), end_side.clone()],
                        bends: Vec::new(),
                    });
                }
                let before = match at.checked_sub(1).map(|at| &pieces[at]) {
                    None => Some(edge.panel),
                    Some(Outward::Flat { .. }) => Some(node - 1),
                    Some(Outward::Curl { .. }) => None,
                };
                let after = matches!(pieces.get(at + 1), Some(Outward::Flat { .. })).then_some(node + 1);
                let bend = flat.bends.len();
                flat.bends.push(Bend {
                    name: name.clone(),
                    strip: node,
                    parent: before,
                    flange: after,
                    edge: (node == first).then_some(edge_index),
                    ends: [start_side.clone(), end_side.clone()],
                    tangent_at: if node == first { tangent_at } else { 0.0 },
                    make: sizes.make,
                    rule: sizes.rule.clone(),
                });
                if node == first {
                    flat.edges[edge_index].bends.push(bend);
                }
                v += width;
            }
            Outward::Flat { name, length: deep, past } => {
                lay_panel(flat, name, &place, (length, *deep, *past), [&start_side, &end_side], joint, is_last);
                v += deep;
            }
        }
    }
    nodes
}

fn lay_panel(
    flat: &mut Flat,
    name: &str,
    place: &dyn Fn(f64, f64) -> Point,
    (length, deep, past): (f64, f64, (f64, f64)),
    [start_side, end_side]: [&str; 2],
    joint: Tag,
    free_end: bool,
) {
    let panel = flat.nodes.len();
    let (low, high) = (-past.0, length + past.1);
    let ends = |one: &str, two: &str| [one.to_string(), two.to_string()];
    let sides = [
        (start_side, (low, 0.0), (low, deep), ends("near", "far")),
        ("end", (low, deep), (high, deep), ends(start_side, end_side)),
        (end_side, (high, deep), (high, 0.0), ends("far", "near")),
    ];
    let mut corners = Vec::new();
    for (side, from, to, ends) in sides {
        if side == "end" && !free_end {
            corners.push((place(from.0, from.1), joint));
            continue;
        }
        let full = format!("{name}.{side}");
        let tag = flat.tag(full.clone(), TagKind::Edge);
        let line = Segment::line(place(from.0, from.1), place(to.0, to.1));
        corners.push((line.start, tag));
        flat.edges.push(EdgeRecord { name: full, tag, panel, line, sides: ends, bends: Vec::new() });
    }
    // Where the panel stands out past its bend, the edge beside the bend is free.
    if past.1 > MODELLING_TOLERANCE {
        let heel = flat.tag(format!("{name}.heel-{end_side}"), TagKind::Relief);
        corners.push((place(high, 0.0), heel));
    }
    corners.push((place(length, 0.0), joint));
    if past.0 > MODELLING_TOLERANCE {
        let heel = flat.tag(format!("{name}.heel-{start_side}"), TagKind::Relief);
        corners.push((place(0.0, 0.0), heel));
    }
    let region = Region::solid(Outline::polygon(&corners));
    let laid = region.extents();
    flat.nodes.push(Node {
        name: name.to_string(),
        kind: NodeKind::Panel,
        region: Arc::new(region),
        laid,
        is_shell: false,
    });
}

/// Whether a region has an edge along a strip's first tangent line.
pub(super) fn touches_strip(region: &Region, strip: &Strip) -> bool {
    let near = 10.0 * MODELLING_TOLERANCE;
    region.outer.segments().any(|(segment, _)| {
        let (a, b) = (strip.local(segment.start), strip.local(segment.end));
        segment.is_line()
            && a.1.abs() < near
            && b.1.abs() < near
            && a.0.max(b.0) > near
            && a.0.min(b.0) < strip.length - near
    })
}
