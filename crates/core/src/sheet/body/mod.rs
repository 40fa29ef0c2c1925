//! The folded part as a closed solid: planes and cylinders, exact, from the same nodes and motions as everything else.
//! Only an edge that slants across a bend is no circle or line; it is written in cubic pieces within 1e-6 mm.

mod builder;
mod ribs;

use std::sync::Arc;

use crate::patience;
use crate::plane::{Region, common_outlines, subtract};
use crate::quantity::tolerance::ROUNDING;
use crate::space::Body;

use super::face_names::FaceNames;
use super::flat::{Flat, Node, NodeKind, Strip};
use super::fold::fold_at;
use super::partition::strip_outline;
use super::patch::{Patch, RibPatch, fitting, fitting_ribs, patches, rib_patches};
use super::tree::grow;

use builder::{Builder, Given};

/// Why a part has no solid.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum BodyError {
    /// More outline pieces than a solid is written with.
    #[error(
        "{0} pieces of outline are too many for a solid; {MOST_PIECES} is the most: leave the perforation out in a variant"
    )]
    Large(usize),
    /// A part that does not fold once its rolls are split.
    #[error("the part does not fold: {0}")]
    Fold(String),
    /// Heads of holes that run into something.
    #[error("{0}: the solid does not show that; move them apart, or leave one out in a variant")]
    Heads(String),
    /// The shell does not close.
    #[error("the solid does not close; look for edges that touch without a relief")]
    Open,
}

/// The most outline pieces of one solid.
const MOST_PIECES: usize = 12_000;
/// A bend that turns further is told in parts, radians: no face goes round more than this.
const WIDEST: f64 = 2.65;

/// The closed solid of a part.
///
/// # Errors
/// [`BodyError`].
pub fn folded_body(flat: &Flat) -> Result<Body, BodyError> {
    let ribs = rib_patches(flat).map_err(BodyError::Heads)?;
    body_with(flat, &patches(flat).map_err(BodyError::Heads)?, &ribs)
}

/// The closed solid of a part for what is asked of its faces: heads that run into each other or out of their face are left out of it.
///
/// # Errors
/// [`BodyError`].
pub fn body_to_ask(flat: &Flat) -> Result<Body, BodyError> {
    body_with(flat, &fitting(flat), &fitting_ribs(flat))
}

/// Why heads of a part are not in its solid, in words.
pub fn heads_left_out(flat: &Flat) -> Option<BodyError> {
    patches(flat).err().or_else(|| rib_patches(flat).err()).map(BodyError::Heads)
}

fn body_with(flat: &Flat, patches: &[Patch], ribs: &[RibPatch]) -> Result<Body, BodyError> {
    let outlines: usize = flat.nodes.iter().flat_map(|node| node.region.outlines().map(|one| one.edges.len())).sum();
    let pieces = outlines + patches.iter().map(|patch| patch.body.faces.len()).sum::<usize>();
    if pieces > MOST_PIECES {
        return Err(BodyError::Large(pieces));
    }
    let (nodes, panels) = split_wide(&flat.nodes);
    let tree = grow(&nodes).map_err(|fault| BodyError::Fold(fault.to_string()))?;
    let folded = fold_at(&nodes, &tree, flat.thickness, 1.0, &flat.pose);
    let mut builder = Builder::new(
        Given { nodes: &nodes, tree: &tree, folded: &folded, thickness: flat.thickness },
        patches.iter().filter_map(|patch| patch.replaces).collect(),
        ribs.iter().map(|rib| (panels[rib.strip], rib)),
    );
    let names = FaceNames::new(flat);
    for at in 0..nodes.len() {
        patience::check();
        builder.node(at, &names);
    }
    for patch in patches {
        patience::check();
        builder.patch(patch, panels[patch.node]);
    }
    for rib in ribs {
        patience::check();
        builder.rib(rib, panels[rib.strip]);
    }
    if !ribs.is_empty() {
        ribs::without_loose(&mut builder.solid);
    }
    if builder.solid.is_closed() { Ok(builder.solid) } else { Err(BodyError::Open) }
}

/// Strips that turn far, as several that follow each other; with where each node begins among them.
fn split_wide(nodes: &[Node]) -> (Vec<Node>, Vec<usize>) {
    let mut all = Vec::new();
    let mut firsts = Vec::with_capacity(nodes.len());
    for node in nodes {
        firsts.push(all.len());
        // A fold of no inside radius has its tangent lines in one place and stays whole.
        let Some(strip) = node.strip().filter(|strip| strip.angle > WIDEST && strip.radius > ROUNDING) else {
            all.push(node.clone());
            continue;
        };
        let parts = (strip.angle / WIDEST).ceil();
        for part in 0..parts as usize {
            let width = strip.width / parts;
            let own = Strip {
                origin: strip.place(0.0, width * part as f64),
                width,
                angle: strip.angle / parts,
                ..strip.clone()
            };
            for region in within(&node.region, &own) {
                let laid = region.extents();
                all.push(Node {
                    name: node.name.clone(),
                    kind: NodeKind::Strip(own.clone()),
                    region: Arc::new(region),
                    laid,
                    is_shell: false,
                });
            }
        }
    }
    (all, firsts)
}

/// What of a region lies in a strip.
fn within(region: &Region, strip: &Strip) -> Vec<Region> {
    let longer = Strip { origin: strip.place(-1.0, 0.0), length: strip.length + 2.0, ..strip.clone() };
    let band = strip_outline(&longer);
    let mut pieces: Vec<Region> = common_outlines(&region.outer, &band).into_iter().map(Region::solid).collect();
    for hole in &region.holes {
        patience::check();
        pieces = pieces.iter().flat_map(|piece| subtract(piece, hole)).collect();
    }
    pieces
}
