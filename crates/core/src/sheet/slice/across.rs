//! Cuts in the blank as it lies flat: they take from every panel and strip that they meet, and fold with them.

use crate::finding::Finding;
use crate::plane::{Outline, Point, common_area, subtract};
use crate::sheet::flat::{Flat, Hole, NodeKind, TagKind};
use crate::sheet::hole::{HoleWork, Made};
use crate::sheet::tree::{TreeError, grow};

/// Cuts outlines out of the blank.
///
/// # Errors
/// An outline that meets no material, runs into another hole, cuts a panel or the part in two.
pub(in crate::sheet) fn cut_flat(flat: &mut Flat, operation: &str, made: Vec<Made>) -> Result<(), Finding> {
    for Made { name, mut outline, centre, work } in made {
        let tag = flat.tag(name.clone(), TagKind::Hole(flat.holes.len()));
        outline.edges.iter_mut().for_each(|edge| edge.tag = tag);
        let met: Vec<usize> = (0..flat.nodes.len())
            .filter(|&at| flat.nodes[at].region.extents().is_near(&outline.extents(), 0.0))
            .filter(|&at| common_area(&flat.nodes[at].region.outer, &outline) > 1e-6)
            .collect();
        if met.is_empty() {
            return Err(Finding::error(
                format!("{name} meets no material of the blank"),
                "Check the distances that it is placed by.",
            )
            .at_field("place"));
        }
        for &at in &met {
            take(flat, at, &outline, &name)?;
        }
        check_whole(flat, &name)?;
        record(flat, operation, name, outline, centre, tag, work, &met);
    }
    Ok(())
}

/// Takes an outline out of one node; a strip may be parted by it, a panel may not.
pub(super) fn take(flat: &mut Flat, at: usize, outline: &Outline, name: &str) -> Result<(), Finding> {
    let node = flat.nodes[at].clone();
    let mut pieces = subtract(&node.region, outline).into_iter();
    let Some(first) = pieces.next() else {
        return Err(Finding::error(format!("{name} would take all of {}", node.name), "Make the cut smaller.")
            .at_field("place"));
    };
    flat.nodes[at].region = first;
    for piece in pieces {
        if matches!(node.kind, NodeKind::Panel) {
            return Err(Finding::error(
                format!("{name} would cut {} in two", node.name),
                "Make the cut smaller, or move it.",
            )
            .at_field("place"));
        }
        let mut twin = node.clone();
        twin.laid = piece.extents();
        twin.region = piece;
        flat.nodes.push(twin);
    }
    Ok(())
}

/// Refuses a cut after which something hangs on nothing.
pub(super) fn check_whole(flat: &Flat, name: &str) -> Result<(), Finding> {
    match grow(&flat.nodes) {
        Err(TreeError::Loose(loose)) => Err(Finding::error(
            format!("{name} would cut the part in two: {} would hang on nothing", loose.join(", ")),
            "Make the cut smaller, or move it.",
        )
        .at_field("place")),
        _ => Ok(()),
    }
}

/// Writes a cut down as a hole of the node that its centre lies in, or of the first that it met.
#[allow(clippy::too_many_arguments)]
pub(super) fn record(
    flat: &mut Flat,
    operation: &str,
    name: String,
    outline: Outline,
    centre: Point,
    tag: u32,
    work: HoleWork,
    met: &[usize],
) {
    let holds = |at: &&usize| {
        let around = flat.nodes[**at].laid;
        (around.low.x..=around.high.x).contains(&centre.x) && (around.low.y..=around.high.y).contains(&centre.y)
    };
    let panel = met.iter().find(holds).or(met.first()).copied().unwrap_or(0);
    let extents = outline.extents();
    flat.holes.push(Hole { name, operation: operation.to_string(), panel, centre, extents, tag, outline, work });
}
