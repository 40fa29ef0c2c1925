//! Lines that distances in a panel are measured from: its edges, and the lines of the bends on it.

use crate::finding::Finding;
use crate::plane::{Point, Vector};
use crate::sheet::bending;
use crate::sheet::flat::{BendSide, Flat};

/// A line that distances are measured from: a point on it, its direction, and the side that counts as positive.
#[derive(Clone, Copy, Debug)]
pub(in crate::sheet) struct Datum {
    pub point: Point,
    pub along: Vector,
    pub inward: Vector,
    /// How long it is, mm.
    pub length: f64,
}

/// The line of this name as it lies in the flat of a panel.
pub(in crate::sheet) fn datum(flat: &Flat, panel: usize, name: &str) -> Result<Datum, Finding> {
    let panel_name = &flat.nodes[panel].name;
    if let Some(edge) = flat.edges.iter().find(|edge| edge.name == name) {
        if edge.panel != panel {
            return Err(Finding::error(
                format!("{name} is not an edge of {panel_name}"),
                format!("Measure from one of {}.", lines_of(flat, panel).join(", ")),
            ));
        }
        if flat.segments_of(panel, edge.tag).is_empty()
            && let Some(&bend) = edge.bends.first()
        {
            let bend = &flat.bends[bend].name;
            return Err(Finding::error(
                format!("{name} is no longer an edge: operation {bend} bent it"),
                format!("Measure from {bend}.mould-outside, {bend}.mould-inside or {bend}.tangent."),
            ));
        }
        if !edge.line.is_line() {
            return Err(Finding::error(
                format!("{name} is round: a distance from it has no one direction"),
                "Measure from a straight edge, from another hole, or place it from the centre.",
            ));
        }
        let along = (edge.line.end - edge.line.start).unit();
        return Ok(Datum { point: edge.line.start, along, inward: along.left(), length: edge.line.length() });
    }
    if let Some((bend_name, side)) = name.rsplit_once('.')
        && let Some(side) = BendSide::named(side)
        && let Some(bend) = flat.bend(bend_name)
    {
        let strip = flat.strip_of(bend);
        let thickness = flat.thickness;
        let setback = match side {
            BendSide::MouldOutside => bending::outside_setback(strip.angle, strip.radius, thickness),
            BendSide::MouldInside => bending::inside_setback(strip.angle, strip.radius),
            BendSide::Tangent => 0.0,
        };
        if bend.parent == Some(panel) {
            return Ok(Datum {
                point: strip.place(0.0, setback),
                along: strip.along,
                inward: -strip.across,
                length: strip.length,
            });
        }
        if bend.flange == Some(panel) {
            let point = strip.place(0.0, strip.width - setback);
            return Ok(Datum { point, along: strip.along, inward: strip.across, length: strip.length });
        }
        return Err(Finding::error(
            format!("the bend {bend_name} does not touch {panel_name}"),
            format!("Measure from one of {}.", lines_of(flat, panel).join(", ")),
        ));
    }
    Err(Finding::error(
        format!("there is no edge called {name} at this step"),
        format!("Measure from one of {}.", lines_of(flat, panel).join(", ")),
    ))
}

/// Every line that a hole in this panel may be measured from.
fn lines_of(flat: &Flat, panel: usize) -> Vec<String> {
    let edges = flat
        .edges
        .iter()
        .filter(|edge| edge.panel == panel && edge.line.is_line() && !flat.segments_of(panel, edge.tag).is_empty())
        .map(|edge| edge.name.clone());
    let bends = flat.bends.iter().filter(|bend| bend.touches(panel)).map(|bend| format!("{}.mould-outside", bend.name));
    edges.chain(bends).collect()
}
