//! The opposite hand: the flat as seen from behind, folded the same way.

use std::sync::Arc;

use crate::plane::{Box2, Edge, Outline, Point, Region, Segment, Vector};

use super::flat::{Flat, NodeKind};

fn across(point: Point) -> Point {
    Point::new(-point.x, point.y)
}

/// An outline mirrored across the blank's y axis. Order and arcs both turn about, so bulges stay.
fn outline(given: &Outline) -> Outline {
    let count = given.edges.len();
    let edges = (0..count)
        .rev()
        .map(|at| {
            let end = given.edges[(at + 1) % count].start;
            Edge { start: across(end), bulge: given.edges[at].bulge, tag: given.edges[at].tag }
        })
        .collect();
    Outline { edges }
}

fn region(given: &Region) -> Region {
    Region { outer: outline(&given.outer), holes: given.holes.iter().map(outline).collect() }
}

fn mirrored_box(given: Box2) -> Box2 {
    Box2 { low: Point::new(-given.high.x, given.low.y), high: Point::new(-given.low.x, given.high.y) }
}

impl Flat {
    /// The opposite hand of this part: every name, angle and radius stays.
    pub fn opposite_hand(&self) -> Flat {
        let mut flat = self.clone();
        for node in &mut flat.nodes {
            node.region = Arc::new(region(&node.region));
            node.laid = mirrored_box(node.laid);
            if let NodeKind::Strip(strip) = &mut node.kind {
                // The frame keeps its hand: the strip's start is where its end was.
                let end = strip.place(strip.length, 0.0);
                strip.origin = across(end);
                strip.along.y = -strip.along.y;
                strip.across.x = -strip.across.x;
            }
        }
        for bend in &mut flat.bends {
            bend.ends.swap(0, 1);
        }
        for edge in &mut flat.edges {
            edge.line = Segment { start: across(edge.line.end), end: across(edge.line.start), bulge: edge.line.bulge };
            edge.sides.swap(0, 1);
        }
        for hole in Arc::make_mut(&mut flat.holes) {
            hole.centre = across(hole.centre);
            hole.outline = outline(&hole.outline);
            hole.extents = mirrored_box(hole.extents);
            if let Some(copy) = &mut hole.copy {
                copy.shift.x = -copy.shift.x;
                copy.mirror = copy.mirror.map(|(on, normal)| (across(on), Vector::new(-normal.x, normal.y)));
            }
        }
        for form in Arc::make_mut(&mut flat.forms) {
            form.centre = across(form.centre);
            form.outline = outline(&form.outline);
            form.extents = mirrored_box(form.extents);
            form.ways = form.ways.map(|way| Vector::new(-way.x, way.y));
        }
        for rib in Arc::make_mut(&mut flat.ribs) {
            rib.centre = across(rib.centre);
        }
        flat.pose = flat.pose.seen_across_x();
        for tab in &mut flat.tabs {
            tab.root = Segment::line(across(tab.root.end), across(tab.root.start));
            tab.tip = Segment::line(across(tab.tip.end), across(tab.tip.start));
        }
        flat
    }
}
