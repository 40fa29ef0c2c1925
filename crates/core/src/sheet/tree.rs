//! From panels and strips lying in the flat to the tree they fold by. Nothing here knows how they were made.

use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::tolerance::NO_TURN;

use super::flat::{Node, Strip};

/// Which tangent line of a strip a neighbour lies on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Side {
    /// The first tangent line, v = 0.
    First,
    /// The second tangent line, v = width.
    Second,
}

/// A strip and a node that share part of a tangent line.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Joint {
    /// Index of the strip.
    pub strip: usize,
    /// Index of the neighbour: a panel, or another strip.
    pub neighbour: usize,
    /// On which of the strip's tangent lines.
    pub side: Side,
    /// Where the neighbour is a strip too: on which of its own tangent lines.
    pub neighbour_side: Option<Side>,
    /// How much of the line they share, mm.
    pub length: f64,
}

/// How a node hangs on the node nearer to the root.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Link {
    /// The node nearer to the root.
    pub parent: usize,
    /// Where the parent is a strip: on which of its tangent lines.
    pub parent_side: Option<Side>,
    /// Where this node is a strip: on which of its own tangent lines.
    pub own_side: Option<Side>,
}

/// The tree: for each node its link (none for the root), and an order in which parents come first.
#[derive(Clone, Debug, PartialEq)]
pub struct Tree {
    /// One entry a node.
    pub links: Vec<Option<Link>>,
    /// Root first.
    pub order: Vec<usize>,
    /// Every joint found.
    pub joints: Vec<Joint>,
}

/// Why nodes form no tree.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum TreeError {
    /// There is nothing to fold.
    #[error("there is no panel yet")]
    Empty,
    /// A ring of panels and strips: a corner closed twice.
    #[error("these close a ring, so the sheet cannot lie flat: {}", .0.join(", "))]
    Ring(Vec<String>),
    /// Nodes that hang on nothing.
    #[error("these hang on nothing: {}", .0.join(", "))]
    Loose(Vec<String>),
}

/// Finds every joint: a straight edge of a node that lies on a strip's tangent line, along an edge of the strip's own.
pub fn joints(nodes: &[Node]) -> Vec<Joint> {
    let mut found: Vec<Joint> = Vec::new();
    let boxes: Vec<_> = nodes.iter().map(|node| node.region.extents()).collect();
    for (at, node) in nodes.iter().enumerate() {
        let Some(strip) = node.strip() else { continue };
        for side in [Side::First, Side::Second] {
            let own = spans_on(node, strip, side);
            for (other, neighbour) in nodes.iter().enumerate() {
                // Two strips that share a line would each find the other: keep the first finder's.
                let known = found.iter().any(|joint| joint.strip == other && joint.neighbour == at);
                if other == at || known || !boxes[at].is_near(&boxes[other], MODELLING_TOLERANCE) {
                    continue;
                }
                // Strips join along their tangent lines; one that ends on the other's only touches it.
                if neighbour.strip().is_some_and(|theirs| theirs.along.cross(strip.along).abs() > NO_TURN) {
                    continue;
                }
                let theirs = spans_on(neighbour, strip, side);
                let length: f64 = own
                    .iter()
                    .flat_map(|one| theirs.iter().map(move |two| (one, two)))
                    // Material on opposite sides of the line: the edges run opposite ways.
                    .filter(|(one, two)| (one.1 - one.0) * (two.1 - two.0) < 0.0)
                    .map(|(one, two)| {
                        let (low, high) =
                            (one.0.min(one.1).max(two.0.min(two.1)), one.0.max(one.1).min(two.0.max(two.1)));
                        (high - low).max(0.0)
                    })
                    .sum();
                if length > 10.0 * MODELLING_TOLERANCE {
                    let neighbour_side = neighbour.strip().map(|theirs| {
                        let v = if side == Side::First { 0.0 } else { strip.width };
                        let across = theirs.local(strip.place(strip.length / 2.0, v)).1;
                        if across < theirs.width / 2.0 { Side::First } else { Side::Second }
                    });
                    found.push(Joint { strip: at, neighbour: other, side, neighbour_side, length });
                }
            }
        }
    }
    found
}

/// The directed spans of u that a node's edges cover on one tangent line of a strip.
fn spans_on(node: &Node, strip: &Strip, side: Side) -> Vec<(f64, f64)> {
    let line = match side {
        Side::First => 0.0,
        Side::Second => strip.width,
    };
    let near = 10.0 * MODELLING_TOLERANCE;
    let mut spans = Vec::new();
    for (segment, _) in node.region.outer.segments() {
        if !segment.is_line() {
            continue;
        }
        let (from, to) = (strip.local(segment.start), strip.local(segment.end));
        if (from.1 - line).abs() < near && (to.1 - line).abs() < near {
            spans.push((from.0, to.0));
        }
    }
    spans
}

/// Grows the tree from the first node.
///
/// # Errors
/// [`TreeError`]: nothing there, a ring (its members named), or nodes that hang on nothing.
pub fn grow(nodes: &[Node]) -> Result<Tree, TreeError> {
    if nodes.is_empty() {
        return Err(TreeError::Empty);
    }
    let joints = joints(nodes);
    let mut links = vec![None; nodes.len()];
    let mut seen = vec![false; nodes.len()];
    let mut used = vec![false; joints.len()];
    let mut order = vec![0];
    seen[0] = true;
    let mut at = 0;
    while at < order.len() {
        let here = order[at];
        at += 1;
        for (which, joint) in joints.iter().enumerate() {
            if used[which] {
                continue;
            }
            let (there, parent_side, own_side) = if joint.strip == here {
                (joint.neighbour, Some(joint.side), joint.neighbour_side)
            } else if joint.neighbour == here {
                (joint.strip, joint.neighbour_side, Some(joint.side))
            } else {
                continue;
            };
            used[which] = true;
            if seen[there] {
                let members = ring(&links, here, there);
                // A window across a bend parts its strip: both ways round it cross the same bends and agree.
                if agree_both_ways(nodes, &links, (here, parent_side), (there, own_side)) {
                    continue;
                }
                return Err(TreeError::Ring(members.into_iter().map(|at| describe(&nodes[at])).collect()));
            }
            seen[there] = true;
            links[there] = Some(Link { parent: here, parent_side, own_side });
            order.push(there);
        }
    }
    let loose: Vec<String> =
        nodes.iter().zip(&seen).filter(|(_, seen)| !**seen).map(|(node, _)| describe(node)).collect();
    if loose.is_empty() { Ok(Tree { links, order, joints }) } else { Err(TreeError::Loose(loose)) }
}

fn describe(node: &Node) -> String {
    if node.is_panel() { node.name.clone() } else { format!("bend {}", node.name) }
}

/// Whether both ways round the ring that a joint of two nodes would close cross the same bends in the same order. Each end of the joint comes
/// with the side of it that the joint lies on, where it is a strip.
fn agree_both_ways(
    nodes: &[Node],
    links: &[Option<Link>],
    (here, here_side): (usize, Option<Side>),
    (there, there_side): (usize, Option<Side>),
) -> bool {
    // Up from a node: each node with the sides that the way comes in and goes out by.
    let way = |from: usize, side: Option<Side>| {
        let (mut at, mut comes) = (from, side);
        let mut steps = Vec::new();
        while let Some(link) = links[at] {
            steps.push((at, comes, link.own_side));
            (at, comes) = (link.parent, link.parent_side);
        }
        steps.push((at, comes, None));
        steps
    };
    let (one, two) = (way(here, here_side), way(there, there_side));
    let Some((first, second)) = one
        .iter()
        .enumerate()
        .find_map(|(at, step)| two.iter().position(|other| other.0 == step.0).map(|other| (at, other)))
    else {
        return false;
    };
    let crossed = |steps: &[(usize, Option<Side>, Option<Side>)]| -> Vec<&Strip> {
        steps.iter().filter(|(_, comes, goes)| comes != goes).filter_map(|(at, ..)| nodes[*at].strip()).collect()
    };
    let (mut ones, twos) = (crossed(&one[..first]), crossed(&two[..second]));
    // Where both ways meet in a strip they may come from its two sides.
    if one[first].1 != two[second].1 {
        ones.extend(nodes[one[first].0].strip());
    }
    // In the same order: four panels about a point cross two bends either way, but the one first or the other.
    ones.len() == twos.len() && ones.iter().zip(&twos).all(|(one, other)| is_one_bend(one, other))
}

/// Whether two strips lie on one line and bend alike, so that folding either moves what is beyond them the same way.
fn is_one_bend(one: &Strip, two: &Strip) -> bool {
    let near = |a: f64, b: f64| (a - b).abs() < 10.0 * MODELLING_TOLERANCE;
    one.direction == two.direction
        && near(one.angle, two.angle)
        && near(one.radius, two.radius)
        && near(one.width, two.width)
        && near(one.across.cross(two.across), 0.0)
        && one.across.dot(two.across) > 0.0
        && near(one.local(two.origin).1, 0.0)
}

/// The members of the ring that a link from `here` to `there` would close.
fn ring(links: &[Option<Link>], here: usize, there: usize) -> Vec<usize> {
    let path = |mut at: usize| {
        let mut path = vec![at];
        while let Some(link) = links[at] {
            at = link.parent;
            path.push(at);
        }
        path
    };
    let (first, second) = (path(here), path(there));
    let meet = first.iter().find(|node| second.contains(node)).copied().unwrap_or(0);
    let upto = |path: &[usize]| path.iter().position(|&node| node == meet).unwrap_or(0);
    let mut members: Vec<usize> = first[..=upto(&first)].to_vec();
    members.extend(second[..upto(&second)].iter().rev());
    members
}
