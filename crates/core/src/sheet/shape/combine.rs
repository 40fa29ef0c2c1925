//! Shapes put together, taken away, or what they share.

use crate::finding::Finding;
use crate::plane::{Outline, Region, common_outlines, subtract, unite};
use crate::work::shape::CombineAct;

use super::laid::Laid;

/// Joins parts in order; each comes placed, with its name.
///
/// # Errors
/// Parts that do not meet, a piece that falls off, nothing left.
pub(super) fn combine(parts: &[(CombineAct, String, Laid)]) -> Result<Laid, Finding> {
    let mut whole = Laid::default();
    for (at, (act, name, part)) in parts.iter().enumerate() {
        let mut part = part.clone();
        let tags: Vec<u32> = part.names.iter().map(|edge| whole.name(&format!("{name}-{edge}"))).collect();
        let renamed = |tag: u32| (tag as usize).checked_sub(1).and_then(|place| tags.get(place)).copied().unwrap_or(0);
        part.outer.edges.iter_mut().for_each(|edge| edge.tag = renamed(edge.tag));
        part.holes.iter_mut().for_each(|(hole, _)| *hole = format!("{name}-{hole}"));
        if at == 0 {
            whole.outer = part.outer;
            whole.holes = part.holes;
            continue;
        }
        let refuse =
            |message: String, way_out: &str| Err(Finding::error(message, way_out).at_field(format!("parts.{at}")));
        match act {
            CombineAct::Add => {
                let (outer, closed_in) = unite(&whole.outer, &part.outer);
                if outer.len() != 1 {
                    return refuse(
                        format!("{name} does not meet what is there before it"),
                        "Move it so that they overlap, or make it a piece of its own.",
                    );
                }
                // Material of either fills the other's holes.
                let mut holes = filled(&whole.holes, &part.outer, name)?;
                holes.extend(filled(&part.holes, &whole.outer, name)?);
                holes.extend(numbered(closed_in, &format!("{name}-window")));
                whole.outer = outer.into_iter().next().unwrap_or_default();
                whole.holes = holes;
            }
            CombineAct::Take => {
                if !part.holes.is_empty() {
                    return refuse(
                        format!("{name} has holes of its own, so taking it away would leave loose pieces"),
                        "Take away a shape without holes.",
                    );
                }
                let before =
                    Region { outer: whole.outer.clone(), holes: whole.holes.iter().map(|one| one.1.clone()).collect() };
                let mut left = subtract(&before, &part.outer);
                if left.len() != 1 {
                    let message = if left.is_empty() {
                        format!("{name} takes everything away")
                    } else {
                        format!("taking {name} away leaves {} pieces", left.len())
                    };
                    return refuse(message, "Make it smaller, or move it.");
                }
                let region = left.remove(0);
                let old = std::mem::take(&mut whole.holes);
                whole.outer = region.outer;
                let mut fresh = 0;
                for hole in region.holes {
                    let known = old.iter().find(|(_, one)| *one == hole).map(|(known, _)| known.clone());
                    let own = known.unwrap_or_else(|| {
                        fresh += 1;
                        if fresh == 1 { name.clone() } else { format!("{name}-{fresh}") }
                    });
                    whole.holes.push((own, hole));
                }
            }
            CombineAct::Keep => {
                let mut shared = common_outlines(&whole.outer, &part.outer);
                if shared.len() != 1 {
                    let message = if shared.is_empty() {
                        format!("{name} shares nothing with what is there before it")
                    } else {
                        format!("what {name} shares falls into {} pieces", shared.len())
                    };
                    return refuse(message, "Move it, or change its size.");
                }
                whole.outer = shared.remove(0);
                whole.holes.extend(part.holes);
                let outer = &whole.outer;
                whole.holes.retain(|(_, hole)| outer.contains(hole.centroid()));
            }
        }
    }
    Ok(whole)
}

fn numbered(outlines: Vec<Outline>, name: &str) -> impl Iterator<Item = (String, Outline)> {
    let single = outlines.len() == 1;
    outlines
        .into_iter()
        .enumerate()
        .map(move |(at, one)| (if single { name.to_string() } else { format!("{name}.{}", at + 1) }, one))
}

fn filled(holes: &[(String, Outline)], by: &Outline, name: &str) -> Result<Vec<(String, Outline)>, Finding> {
    let mut left = Vec::new();
    for (hole, outline) in holes {
        let pieces = subtract(&Region::solid(outline.clone()), by);
        for (at, piece) in pieces.iter().enumerate() {
            if !piece.holes.is_empty() {
                return Err(Finding::error(
                    format!("{name} lies loose in the hole {hole}"),
                    "Make it reach the material around the hole.",
                ));
            }
            let own = if at == 0 { hole.clone() } else { format!("{hole}-{}", at + 1) };
            left.push((own, piece.outer.clone()));
        }
    }
    Ok(left)
}
