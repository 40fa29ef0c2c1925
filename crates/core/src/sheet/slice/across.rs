//! Cuts in the blank as it lies flat: they take from every panel and strip that they meet, and fold with them.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Box2, MODELLING_TOLERANCE, Outline, Point, Region, common_area, segment_distance, subtract};
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
    cut(flat, operation, made, None)
}

/// Cuts outlines out of one panel, out over its edge.
///
/// # Errors
/// As [`cut_flat`]; one that takes from a bend or another panel as well, or that stays within the panel's edges.
pub(in crate::sheet) fn cut_open(
    flat: &mut Flat,
    operation: &str,
    panel: usize,
    made: Vec<NewHole>,
) -> Result<(), Finding> {
    cut(flat, operation, made, Some(panel))
}

/// Refuses an open cut that takes from anything but its panel, or that opens none of its edges.
fn check_open(flat: &Flat, panel: usize, met: &[usize], outline: &Outline, name: &str) -> Result<(), Finding> {
    let own = &flat.nodes[panel].name;
    if let Some(&other) = met.iter().find(|&&at| at != panel) {
        return Err(Finding::error(
            format!("{name} takes from {} as well, and it is to open {own} alone", flat.nodes[other].stands()),
            "Keep it clear of the bend, or let it reach across bends in the flat.",
        )
        .at_field("reach"));
    }
    let all = outline.area();
    if met.is_empty() || common_area(&flat.nodes[panel].region.outer, outline) < all - NO_AREA {
        return Ok(());
    }
    Err(Finding::error(
        format!("{name} lies within {own}: it opens none of its edges"),
        "Move it out over the edge, or let it reach through its panel alone.",
    )
    .at_field("reach"))
}

fn cut(flat: &mut Flat, operation: &str, made: Vec<NewHole>, alone: Option<usize>) -> Result<(), Finding> {
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
        if let Some(panel) = alone {
            check_open(flat, panel, &met, &outline, &name)?;
        }
        let reach = if alone.is_some() { Reach::Open } else { Reach::Flat };
        for &at in &met {
            let twins = take(flat, at, &outline, &name)?;
            near.iter_mut().filter(|one| one.at == at).for_each(|one| one.twins.clone_from(&twins));
        }
        check_whole(flat, &name)?;
        flat.record_cut(&name, &outline, near);
        let hole = Written { name, operation, outline, centre, tag, work, reach, copy };
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
    check_pinch(&first, outline, &node.name, name)?;
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
        check_pinch(&piece, outline, &node.name, name)?;
        let mut twin = node.clone();
        twin.laid = piece.extents();
        twin.region = Arc::new(piece);
        flat.nodes.push(twin);
        twins.push(flat.nodes.len() - 1);
    }
    Ok(twins)
}

/// Refuses a cut that touches an outside, a hole or itself without crossing it: what is left there has no width, and no body does
/// either.
fn check_pinch(region: &Region, cut: &Outline, node: &str, name: &str) -> Result<(), Finding> {
    let Some(tag) = cut.edges.first().map(|edge| edge.tag) else { return Ok(()) };
    let around = cut.extents();
    // Every edge near it with its outline, its place in it and how many that has.
    let all: Vec<_> = region
        .outlines()
        .filter(|one| one.extents().is_near(&around, MODELLING_TOLERANCE))
        .enumerate()
        .flat_map(|(which, one)| {
            let count = one.edges.len();
            one.segments().enumerate().map(move |(at, (edge, tag))| (which, at, count, edge, tag))
        })
        .collect();
    let boxes: Vec<Box2> = all.iter().map(|(.., edge, _)| edge.extents()).collect();
    for (one, own) in all.iter().zip(&boxes).filter(|((.., found), _)| *found == tag) {
        for (two, other) in all.iter().zip(&boxes) {
            let neighbours =
                one.0 == two.0 && ((one.1 + 1) % one.2 == two.1 || (two.1 + 1) % two.2 == one.1 || one.1 == two.1);
            if neighbours || !own.is_near(other, MODELLING_TOLERANCE) {
                continue;
            }
            if segment_distance(&one.3, &two.3) < MODELLING_TOLERANCE {
                return Err(Finding::error(
                    format!("{name} touches an edge of {node} in a point: no metal is left between them there"),
                    "Move it clear of the edge, or out over it.",
                )
                .at_field("place"));
            }
        }
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
        is_divided: false,
    });
}
