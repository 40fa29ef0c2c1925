//! Places at the four corners of a rectangular panel: "4x 15 from the edges".

use crate::finding::Finding;
use crate::plane::Point;
use crate::quantity::tolerance::PARALLEL;
use crate::sheet::flat::Flat;

use super::datum::{Datum, datum};

/// A side of a panel: what it is called, and the line that distances from it count from.
struct Side {
    name: String,
    line: Datum,
}

/// The sides of a panel: its own straight edges, for one that is bent the outside mould line of its bend, and that of the bend that
/// the panel itself stands on.
fn sides(flat: &Flat, panel: usize) -> Result<Vec<Side>, Finding> {
    let own = &flat.nodes[panel].name;
    let mut sides = Vec::new();
    for edge in flat.edges.iter().filter(|edge| edge.panel == panel && edge.line.is_line()) {
        // What tabs and cuts have made is no side of the panel's.
        let Some(side) = edge.name.strip_prefix(own.as_str()).and_then(|rest| rest.strip_prefix('.')) else { continue };
        if side.contains('.') {
            continue;
        }
        let bend = edge.bends.first().filter(|_| flat.segments_of(panel, edge.tag).is_empty());
        let from = bend.map_or_else(|| edge.name.clone(), |&at| format!("{}.mould-outside", flat.bends[at].name));
        sides.push(Side { name: side.to_string(), line: datum(flat, panel, &from)? });
    }
    if let Some(stands_on) = flat.bends.iter().find(|bend| bend.flange == Some(panel)) {
        let line = datum(flat, panel, &format!("{}.mould-outside", stands_on.name))?;
        sides.push(Side { name: "bend".into(), line });
    }
    Ok(sides)
}

/// The four places, from the first corner round the panel: `distance` from its left and its right side, `other` from the two
/// between, mm.
///
/// # Errors
/// A panel that is no rectangle.
pub(super) fn corners(flat: &Flat, panel: usize, distance: f64, other: f64) -> Result<Vec<Point>, Finding> {
    let sides = sides(flat, panel)?;
    let name = &flat.nodes[panel].name;
    let no_rectangle = || {
        Finding::error(
            format!(
                "{name} has {} straight sides that are no rectangle, so it has no four corners for holes",
                sides.len()
            ),
            "Place one hole by two distances, and repeat or mirror it.",
        )
    };
    // Two sides along the first, two square to it; of a flange's the first is its end.
    let is_side = |side: &Side| side.name == "left" || side.name == "right";
    let Some(first) = sides.iter().find(|side| !is_side(side)).or(sides.first()) else { return Err(no_rectangle()) };
    let along = first.line.along;
    let (level, upright): (Vec<&Side>, Vec<&Side>) =
        sides.iter().partition(|side| side.line.along.cross(along).abs() < PARALLEL);
    let square = upright.iter().all(|side| side.line.along.dot(along).abs() < PARALLEL);
    let faces = |pair: &[&Side]| pair[0].line.inward.dot(pair[1].line.inward) < 0.0;
    if level.len() != 2 || upright.len() != 2 || !square || !faces(&level) || !faces(&upright) {
        return Err(no_rectangle());
    }
    let (from_level, from_upright) = (other, distance);
    let place = |one: &Side, two: &Side| {
        let start = one.line.point + one.line.inward * from_level;
        let off = (start - two.line.point).dot(two.line.inward);
        start + one.line.along * ((from_upright - off) / one.line.along.dot(two.line.inward))
    };
    // Round the panel, so that neighbours are numbered one after another.
    let [a, b] = [level[0], level[1]];
    // The first corner is where the first side starts.
    let starts = upright[0].line.inward.dot(along) > 0.0;
    let [c, d] = if starts { [upright[0], upright[1]] } else { [upright[1], upright[0]] };
    Ok(vec![place(a, c), place(a, d), place(b, d), place(b, c)])
}

/// Whether a panel is a rectangle with four corners for holes.
pub(in crate::sheet) fn has_four_corners(flat: &Flat, panel: usize) -> bool {
    corners(flat, panel, 0.0, 0.0).is_ok()
}
