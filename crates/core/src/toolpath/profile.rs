//! What of a part the cutter cuts, marks or leaves alone.

use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Slit};
use crate::sheet::{Hole, Part, TagKind};
use crate::work::sheet::Make;

/// A hole's outline that is cut through, with its name.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct CutHole {
    pub name: String,
    pub outline: Outline,
}

/// A part as the cutter sees it, in the plane of the blank.
#[derive(Clone, Debug, PartialEq)]
pub struct Profile {
    /// The outside.
    pub outer: Outline,
    /// What is cut through.
    pub cut: Vec<CutHole>,
    /// What is cut along once: where a bend ends against metal beside it without a relief.
    pub slits: Vec<Slit>,
    /// Centres that are marked, with the hole's name and its least width, mm.
    pub marks: Vec<(String, Point, f64)>,
    /// Holes left to the drill press without a mark.
    pub left: Vec<String>,
}

/// What the cutter does of a part.
pub fn profile(part: &Part) -> Profile {
    let flat = &part.flat;
    let mut cut = Vec::new();
    let (outer, mut slits) = part.blank.region.outer.without_slits(MODELLING_TOLERANCE);
    for (at, outline) in part.blank.region.holes.iter().enumerate() {
        let hole = outline.edges.first().and_then(|edge| match flat.tags[edge.tag as usize].kind {
            TagKind::Hole(at) => flat.holes.get(at),
            _ => None,
        });
        if hole.is_none_or(|hole| hole.work.make == Make::Cut) {
            let name = hole.map_or_else(|| format!("opening-{}", at + 1), |hole| hole.name.clone());
            let (outline, own) = outline.without_slits(MODELLING_TOLERANCE);
            slits.extend(own);
            cut.extend(outline.map(|outline| CutHole { name, outline }));
        }
    }
    let of = |make: Make| flat.holes.iter().filter(move |hole| hole.work.make == make);
    let width = |hole: &Hole| hole.extents.width().min(hole.extents.height());
    Profile {
        outer: outer.unwrap_or_else(|| part.blank.region.outer.clone()),
        cut,
        slits,
        marks: of(Make::Mark).map(|hole| (hole.name.clone(), hole.centre, width(hole))).collect(),
        left: of(Make::Leave).map(|hole| hole.name.clone()).collect(),
    }
}
