//! What a body has besides its panels and bends: loops on a panel's faces and the faces that close them.

mod forms;
mod meet;
mod model;
mod rib;
mod shell;
mod turned;

use crate::space::Box3;

use super::flat::Flat;
use super::fold::Folded;
use super::rib::struck;

pub use forms::{displaced, form_face, form_height};
use meet::run_into;
pub(super) use meet::{Cluster, clusters};
pub(super) use model::Patch;
pub(super) use rib::{RibPatch, RibRim};
pub use rib::{rib_displaced, rib_face};
pub use turned::{HoleFace, hole_face};

/// The patches of a part.
///
/// # Errors
/// Heads that run into each other or out of their face, and forms that a later cut runs into, in words: they have no faces of their own
/// there.
pub(super) fn patches(flat: &Flat) -> Result<Vec<Patch>, String> {
    let mut all = Vec::new();
    for cluster in clusters(flat) {
        if let Some(fault) = cluster.words(flat) {
            return Err(fault);
        }
        all.push(turned::patch(flat, &flat.holes[cluster.holes[0]])?);
    }
    for form in flat.forms.iter() {
        if let Some(fault) = run_into(flat, form) {
            return Err(fault);
        }
        all.push(forms::patch(flat, form)?);
    }
    Ok(all)
}

/// Those patches of a part that have faces of their own.
pub(super) fn fitting(flat: &Flat) -> Vec<Patch> {
    let whole = clusters(flat).into_iter().filter(|cluster| cluster.words(flat).is_none());
    let heads = whole.filter_map(|cluster| turned::patch(flat, &flat.holes[cluster.holes[0]]).ok());
    let forms = flat.forms.iter().filter(|form| run_into(flat, form).is_none());
    heads.chain(forms.filter_map(|form| forms::patch(flat, form).ok())).collect()
}

/// The faces of a part's ribs.
///
/// # Errors
/// A rib that a later step runs into, in words.
pub(super) fn rib_patches(flat: &Flat) -> Result<Vec<RibPatch>, String> {
    let own = flat.ribs.iter().map(|rib| match struck(flat, rib) {
        Some(over) => Err(format!("{} {over}", rib.name)),
        None => rib::patch(flat, rib).ok_or_else(|| format!("{} has no section any more", rib.name)),
    });
    own.collect()
}

/// Those ribs of a part that have faces.
pub(super) fn fitting_ribs(flat: &Flat) -> Vec<RibPatch> {
    flat.ribs.iter().filter(|rib| struck(flat, rib).is_none()).filter_map(|rib| rib::patch(flat, rib)).collect()
}

/// The boxes of a part's forms as they lie when folded.
pub(super) fn form_extents(flat: &Flat, folded: &Folded) -> Vec<Box3> {
    let own = flat.forms.iter().filter_map(|form| {
        let patch = forms::patch(flat, form).ok()?;
        Some(patch.body.moved(folded.motion(form.panel)?, str::to_string).extents())
    });
    own.collect()
}
