//! Reliefs at a bend's ends, and cuts that let scraps fall.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Tag, outline_distance, subtract};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flat::Flat;
use crate::sheet::numbers::ReliefNumbers;
use crate::work::sheet::ReliefShape;

use super::lay::{EdgeFrame, RUN_OUT, touches_strip};

/// How far past the end of a bend and inside its tangent line metal is looked for, mm.
const ASIDE: f64 = 1e-3;

/// Cuts a relief at one end of a bend, where the bend would tear material beside it.
#[allow(clippy::too_many_arguments)]
pub(super) fn cut_relief(
    flat: &mut Flat,
    parent: usize,
    frame: &EdgeFrame,
    at: f64,
    outward: f64,
    tangent_at: f64,
    relief: &ReliefNumbers,
    tag: Tag,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
) -> Result<(), Finding> {
    // A hair past the end and a hair inside the tangent line: is there material that the bend would tear?
    let probe = frame.place(at + outward * ASIDE, tangent_at - ASIDE);
    if !flat.nodes[parent].region.contains(probe) {
        return Ok(());
    }
    let bottom = tangent_at - relief.depth;
    let (low, high) = if outward < 0.0 { (at - relief.width, at) } else { (at, at + relief.width) };
    let mut cutter = frame.rectangle((low, high), (bottom, RUN_OUT), tag, tag);
    if relief.shape == ReliefShape::Obround && relief.depth > 0.0 {
        let half = relief.width / 2.0;
        let shoulder = bottom + half.min(relief.depth);
        // The bottom edge becomes a half circle (a flatter arc where the relief is shallower than half its width).
        let sagitta = shoulder - bottom;
        let corners = [
            frame.place(low, shoulder),
            frame.place(low, RUN_OUT),
            frame.place(high, RUN_OUT),
            frame.place(high, shoulder),
        ];
        cutter = Outline { edges: corners.iter().map(|&start| Edge { start, bulge: 0.0, tag }).collect() };
        cutter.edges[3].bulge = sagitta / half;
    }
    take_from_panel(flat, parent, &cutter, notes, unit, "relief")
}

/// Cuts a panel and lets scraps that hang on nothing fall; refuses when a scrap carries a bend or a hole.
pub(in crate::sheet) fn take_from_panel(
    flat: &mut Flat,
    panel: usize,
    cutter: &Outline,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
    what: &str,
) -> Result<(), Finding> {
    let name = flat.nodes[panel].name.clone();
    if flat.nodes[panel].region.holes.iter().any(|hole| {
        hole.extents().is_near(&cutter.extents(), 0.0)
            && (outline_distance(hole, cutter) < MODELLING_TOLERANCE || cutter.contains(hole.edges[0].start))
    }) {
        return Err(Finding::error(
            format!("the {what} would run into a hole of {name}"),
            "Move the hole, or make the relief smaller.",
        )
        .at_field("relief"));
    }
    let mut near = flat.node_near(panel, cutter);
    let mut pieces = subtract(&flat.nodes[panel].region, cutter).into_iter();
    let Some(kept) = pieces.next() else {
        return Err(Finding::error(
            format!("the {what} would take all of {name}"),
            "Make the panel larger or the relief smaller.",
        )
        .at_field("relief"));
    };
    let scraps: Vec<_> = pieces.collect();
    for scrap in &scraps {
        let strips = flat.bends.iter().filter(|bend| bend.parent == Some(panel)).map(|bend| flat.strip_of(bend));
        if strips.clone().any(|strip| touches_strip(scrap, strip)) || !scrap.holes.is_empty() {
            return Err(Finding::error(
                format!("the {what} would cut {name} in two"),
                "Make the relief smaller, or set the flange in further.",
            )
            .at_field("relief"));
        }
        let size = scrap.extents();
        notes.push(Finding::hint(
            format!(
                "the {what} frees a scrap of {} by {} at a corner of {name}; it is left out of the blank",
                length_text(size.width(), unit),
                length_text(size.height(), unit)
            ),
            "Nothing to do: the corner is open there.",
        ));
    }
    flat.nodes[panel].region = Arc::new(kept);
    near.dropped = scraps;
    flat.record_cut(what, cutter, vec![near]);
    Ok(())
}
