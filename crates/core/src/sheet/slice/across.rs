//! Cuts in the blank as it lies flat: they take from every panel and strip that they meet, and fold with them.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Outline, Point, common_area, subtract};
use crate::quantity::tolerance::NO_AREA;
use crate::sheet::flat::{Flat, Hole, HoleCopy, NodeKind, TagKind};
use crate::sheet::hole::{HoleWork, NewHole};
use crate::sheet::tree::{TreeError, grow};
use crate::work::sheet::Reach;

/// Cuts outlines out of the blank.
///
/// # Errors
/// An outline that meets no material, runs into another hole, cuts a panel or the part in two.
pub(in crate::sheet) fn cut_flat(flat: &mut Flat, operation: &str, made: Vec<NewHole>) -> Result<(), Finding> {
    for NewHole { name, mut outline, centre, work, copy } in made {
        let tag = flat.tag(name.clone(), TagKind::Hole(flat.holes.len()));
        outline.edges.iter_mut().for_each(|edge| edge.tag = tag);
        let mut near = flat.nodes_near(&outline);
        let met: Vec<usize> = (0..flat.nodes.len())
            .filter(|&at| flat.nodes[at].region.extents().is_near(&outline.extents(), 0.0))
            .filter(|&at| common_area(&flat.nodes[at].region.outer, &outline) > NO_AREA)
            .collect();
        if met.is_empty() {
            return Err(Finding::error(
                format!("{name} meets no material of the blank"),
                "Check the distances that it is placed by.",
            )
            .at_field("place"));
        }
        for &at in &met {
            let twins = take(flat, at, &outline, &name)?;
            near.iter_mut().filter(|one| one.at == at).for_each(|one| one.twins.clone_from(&twins));
        }
        check_whole(flat, &name)?;
        flat.record_cut(&name, &outline, near);
        let hole = Written { name, operation, outline, centre, tag, work, reach: Reach::Flat, copy };
        record(flat, hole, &met);
    }
    Ok(())
}

/// Takes an outline out of one node; a strip may be parted by it, a panel may not. Returns the nodes that a strip was parted
/// into besides.
pub(super) fn take(flat: &mut Flat, at: usize, outline: &Outline, name: &str) -> Result<Vec<usize>, Finding> {
    let node = flat.nodes[at].clone();
    let mut pieces = subtract(&node.region, outline).into_iter();
    let Some(first) = pieces.next() else {
        return Err(Finding::error(format!("{name} would take all of {}", node.name), "Make the cut smaller.")
            .at_field("place"));
    };
    flat.nodes[at].region = Arc::new(first);
    let mut twins = Vec::new();
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
        twin.region = Arc::new(piece);
        flat.nodes.push(twin);
        twins.push(flat.nodes.len() - 1);
    }
    Ok(twins)
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

/// A cut that was made.
pub(super) struct Written<'a> {
    pub name: String,
    pub operation: &'a str,
    pub outline: Outline,
    pub centre: Point,
    pub tag: u32,
    pub work: HoleWork,
    pub reach: Reach,
    pub copy: Option<HoleCopy>,
}

/// Writes a cut down as a hole of the node that its centre lies in, or of the first that it met.
pub(super) fn record(flat: &mut Flat, hole: Written<'_>, met: &[usize]) {
    let Written { name, operation, outline, centre, tag, work, reach, copy } = hole;
    let holds = |at: &&usize| {
        let around = flat.nodes[**at].laid;
        (around.low.x..=around.high.x).contains(&centre.x) && (around.low.y..=around.high.y).contains(&centre.y)
    };
    let panel = met.iter().find(holds).or(met.first()).copied().unwrap_or(0);
    let extents = outline.extents();
    let operation = operation.to_string();
    Arc::make_mut(&mut flat.holes).push(Hole {
        name,
        operation,
        panel,
        centre,
        extents,
        tag,
        outline,
        work,
        reach,
        copy,
    });
}
