//! Chains of flats and bends: a profile seen from its end, a rolled arc. Each becomes strips and panels end to end, with
//! one that stays put.

mod link;
mod profile;
mod roll;
mod section;

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Region, Segment, Vector};
use crate::quantity::LengthUnit;

use super::flat::{Bend, EdgeRecord, Flat, Node, NodeKind, TagKind};
use link::{Chain, ChainLink};

pub use profile::ProfileNumbers;
pub(super) use profile::read_profile;
pub(super) use roll::read_roll;
pub use roll::{RollNumbers, RollSize};

/// Lays a chain as the first thing of a part: along x, the piece that stays from x = 0.
///
/// # Errors
/// Something is laid down already; a chain that runs into itself when folded, with the place.
pub(super) fn lay(flat: &mut Flat, chain: &Chain, unit: LengthUnit) -> Result<(), Finding> {
    let names = names(chain);
    section::check_clear(&chain.links, &names, flat.thickness, unit)?;
    let spans: Vec<f64> = chain.links.iter().map(ChainLink::span).collect();
    let before: f64 = spans[..chain.root].iter().sum();
    let mut starts = Vec::with_capacity(spans.len());
    let mut x = -before;
    for span in &spans {
        starts.push(x);
        x += span;
    }
    let (low, high) = chain.width;
    let last = chain.links.len() - 1;
    let mut node_of = vec![0; chain.links.len()];
    let order = std::iter::once(chain.root).chain((0..chain.links.len()).filter(|&at| at != chain.root));
    let mut laid: Vec<(usize, usize)> = Vec::new();
    for at in order {
        let (from, to) = (starts[at], starts[at] + spans[at]);
        let node = flat.nodes.len();
        node_of[at] = node;
        laid.push((at, node));
        let stem = &names[at];
        let is_flat = matches!(chain.links[at], ChainLink::Flat { .. });
        let (front_name, back_name, kind) = if is_flat {
            (format!("{stem}.front"), format!("{stem}.back"), TagKind::Edge)
        } else {
            (format!("{stem}.bend.front"), format!("{stem}.bend.back"), TagKind::BendEnd)
        };
        let (front, back) = (flat.tag(front_name.clone(), kind), flat.tag(back_name.clone(), kind));
        // Where two pieces join, the edge is called after the bend.
        let beside = |other: usize| {
            let bend = if matches!(chain.links[at], ChainLink::Curl { .. }) { at } else { other };
            (format!("{}.joint", names[bend]), TagKind::Joint)
        };
        let (start, start_kind) = if at == 0 { (format!("{stem}.start"), TagKind::Edge) } else { beside(at - 1) };
        let (end, end_kind) = if at == last { (format!("{stem}.end"), TagKind::Edge) } else { beside(at + 1) };
        let (start, end) = (flat.tag(start, start_kind), flat.tag(end, end_kind));
        let corners = [
            (Point::new(from, low), front),
            (Point::new(to, low), end),
            (Point::new(to, high), back),
            (Point::new(from, high), start),
        ];
        let region = Region::solid(Outline::polygon(&corners));
        let laid_box = region.extents();
        let mut record = |name: String, tag, line: (usize, usize), sides: [&str; 2]| {
            flat.edges.push(EdgeRecord {
                name,
                tag,
                panel: node,
                line: Segment::line(corners[line.0].0, corners[line.1].0),
                sides: sides.map(str::to_string),
                bends: Vec::new(),
            });
        };
        if is_flat {
            record(front_name, front, (0, 1), ["start", "end"]);
            record(back_name, back, (2, 3), ["end", "start"]);
        }
        if at == last {
            record(format!("{stem}.end"), end, (1, 2), ["front", "back"]);
        }
        if at == 0 {
            record(format!("{stem}.start"), start, (3, 0), ["back", "front"]);
        }
        let kind = match &chain.links[at] {
            ChainLink::Flat { .. } => NodeKind::Panel,
            // Seen from the panel that stays, a bend's flange is the panel beyond it: a bend before it is turned about.
            ChainLink::Curl { sizes, .. } => NodeKind::Strip(match at < chain.root {
                false => sizes.strip(Point::new(from, low), Vector::new(0.0, 1.0), Vector::new(1.0, 0.0), high - low),
                true => sizes.strip(Point::new(to, high), Vector::new(0.0, -1.0), Vector::new(-1.0, 0.0), high - low),
            }),
        };
        flat.nodes.push(Node { name: stem.clone(), kind, region: Arc::new(region), laid: laid_box, is_shell: false });
    }
    for (at, node) in laid {
        let ChainLink::Curl { sizes, .. } = &chain.links[at] else { continue };
        let panel = |at: usize| {
            let node = node_of.get(at).copied()?;
            flat.nodes[node].is_panel().then_some(node)
        };
        let (before, after) = (at.checked_sub(1).and_then(panel), panel(at + 1));
        let (parent, flange, ends) = match at < chain.root {
            true => (after, before, ["back", "front"]),
            false => (before, after, ["front", "back"]),
        };
        flat.bends.push(Bend {
            name: names[at].clone(),
            strip: node,
            parent,
            flange,
            edge: None,
            ends: ends.map(str::to_string),
            tangent_at: 0.0,
            make: sizes.make,
            rule: sizes.rule.clone(),
        });
    }
    Ok(())
}

/// The name of each piece: a flat's own, a bend's own or that of the panel farther from the one that stays.
fn names(chain: &Chain) -> Vec<String> {
    let (links, root) = (&chain.links, chain.root);
    (0..links.len())
        .map(|at| match &links[at] {
            ChainLink::Flat { name, .. } => name.clone(),
            ChainLink::Curl { name: Some(name), .. } => name.clone(),
            ChainLink::Curl { name: None, .. } => {
                let beyond = if at > root { links.get(at + 1) } else { at.checked_sub(1).and_then(|at| links.get(at)) };
                match beyond {
                    Some(ChainLink::Flat { name, .. }) => name.clone(),
                    _ => format!("{}.bend-{}", chain.operation, at + 1),
                }
            }
        })
        .collect()
}

/// Nothing shorter is a panel, mm.
const LEAST_FLAT: f64 = 10.0 * MODELLING_TOLERANCE;
