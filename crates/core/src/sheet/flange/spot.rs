//! One flange of an operation, settled on its edge before anything is cut.

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flat::{BendSizes, EdgeRecord, Flat};

use std::collections::BTreeMap;

use super::lay::EdgeFrame;

/// A flange to be laid.
pub(super) struct Spot {
    /// Name of its panel and its bend.
    pub name: String,
    /// Its edge's place in [`Flat::edges`].
    pub edge_index: usize,
    /// Its edge as laid down.
    pub edge: EdgeRecord,
    pub frame: EdgeFrame,
    /// The panel that it is bent from.
    pub parent: usize,
    /// From where to where along the edge its bend runs, mm.
    pub span: (f64, f64),
    /// How far its panel stands out past the bend at its start and its end, mm.
    pub past: (f64, f64),
    /// Whether it runs to the very end of its edge, at its start and its end.
    pub is_full: (bool, bool),
    pub sizes: BendSizes,
    /// Length of its panel, mm.
    pub straight: f64,
    /// Its parent's tangent line, outward from the edge, mm.
    pub tangent_at: f64,
}

/// From where to where along the edge a flange runs, mm. Set-ins for sides that this edge does not have are left to the
/// other edges of the operation; `alone` refuses them.
pub(super) fn span(
    edge: &EdgeRecord,
    set_in: &BTreeMap<String, f64>,
    alone: bool,
    unit: LengthUnit,
) -> Result<(f64, f64), Finding> {
    let length = edge.line.length();
    let mut ends = [0.0, 0.0];
    for (side, by) in set_in {
        let Some(at) = edge.sides.iter().position(|known| known == side) else {
            if !alone {
                continue;
            }
            return Err(Finding::error(
                format!("{} has no end called {side}", edge.name),
                format!("Its ends are {} and {}.", edge.sides[0], edge.sides[1]),
            )
            .at_field(format!("set_in.{side}")));
        };
        ends[at] = *by;
    }
    let (from, to) = (ends[0], length - ends[1]);
    if from < -MODELLING_TOLERANCE || to > length + MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "it would run from {} to {} of {}, which is {} long",
                length_text(from, unit),
                length_text(to, unit),
                edge.name,
                length_text(length, unit)
            ),
            "Move it less far, or make fewer.",
        )
        .at_field("set_in"));
    }
    if to - from <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "set-ins of {} and {} leave nothing of {}, which is {} long",
                length_text(ends[0], unit),
                length_text(ends[1], unit),
                edge.name,
                length_text(length, unit)
            ),
            "Make the set-ins smaller.",
        )
        .at_field("set_in"));
    }
    Ok((from, to))
}

/// Names for the flanges along several edges: the operation's own for one, `OPERATION.side` for more, with the panel's
/// name where two panels have a side of that name.
pub(super) fn names(flat: &Flat, operation: &str, edges: &[usize]) -> Vec<String> {
    if let [_] = edges {
        return vec![operation.to_string()];
    }
    let side = |at: usize| flat.edges[at].name.rsplit('.').next().unwrap_or_default();
    let panel = |at: usize| {
        let name = &flat.nodes[flat.edges[at].panel].name;
        name.rsplit('.').next().unwrap_or(name).to_string()
    };
    edges
        .iter()
        .map(|&at| {
            let twin = edges.iter().any(|&other| other != at && side(other) == side(at));
            if !twin {
                return format!("{operation}.{}", side(at));
            }
            // Lips on walls are told apart by the wall.
            let twin_panel =
                edges.iter().any(|&other| other != at && side(other) == side(at) && panel(other) == panel(at));
            match twin_panel {
                false => format!("{operation}.{}", panel(at)),
                true => format!("{operation}.{}-{}", panel(at), at),
            }
        })
        .collect()
}
