//! Work made again across a centre line.

use crate::sheet::pointed::{Pointed, Pointing};
use crate::work::sheet::{AgainAction, AgainAlong, AgainHow, AgainMirror};
use crate::work::{Action, Group, Offer};

/// The flange or the hole that is pointed at, made again on the other side of the panel that it is on.
pub(in crate::sheet::verbs) fn again(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let (operation, panel) = match pointing.at[..] {
        [Pointed::Bend(bend)] => {
            let bend = &flat.bends[bend];
            // A flange that stands alone: one of several is mirrored with the others.
            if bend.name.contains('.') {
                return Vec::new();
            }
            let Some(parent) = bend.parent else { return Vec::new() };
            (bend.name.clone(), parent)
        }
        [Pointed::Hole(hole) | Pointed::Holes(hole)] => (flat.holes[hole].operation.clone(), flat.holes[hole].panel),
        [Pointed::Rib(rib)] => {
            let rib = &flat.ribs[rib];
            let bend = flat.bends.iter().find(|bend| bend.strip == rib.strip);
            (rib.operation.clone(), bend.and_then(|bend| bend.parent).unwrap_or(0))
        }
        [Pointed::Form(form)] => (flat.forms[form].operation.clone(), flat.forms[form].panel),
        _ => return Vec::new(),
    };
    if operation.contains('.') {
        return Vec::new();
    }
    let offer = |along: AgainAlong, words: &str| {
        let how = AgainHow::Mirror(AgainMirror { panel: flat.nodes[panel].name.as_str().into(), along });
        let action = AgainAction { of: vec![operation.as_str().into()], how };
        Offer::new(Group::Again, format!("Make {operation} again, mirrored {words}"), "again", Action::Again(action))
    };
    vec![offer(AgainAlong::X, "left to right"), offer(AgainAlong::Y, "front to back")]
}
