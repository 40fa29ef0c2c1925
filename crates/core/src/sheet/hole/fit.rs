//! Whether holes fit: inside their panel, apart from each other.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::patience;
use crate::plane::{Box2, MODELLING_TOLERANCE, Outline, outline_distance, segment_distance};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flat::{Flat, TagKind};

use super::HoleWork;
use super::new_hole::NewHole;

/// Refuses holes that run off their panel, naming the first few. `boxes` are theirs.
pub(super) fn check_fit(
    flat: &Flat,
    panel: usize,
    holes: &[NewHole],
    boxes: &[Box2],
    unit: LengthUnit,
) -> Result<(), Finding> {
    let region = &flat.nodes[panel].region;
    let panel_name = &flat.nodes[panel].name;
    let mut faults = Vec::new();
    // Whether one of them runs out over an edge that could be opened.
    let mut over_an_edge = false;
    let edges: Vec<_> = region.outer.segments().map(|(edge, tag)| (edge, tag, edge.extents())).collect();
    for (NewHole { name, outline, centre, .. }, around) in holes.iter().zip(boxes) {
        patience::check();
        let crossed = edges
            .iter()
            .filter(|(.., box_)| box_.is_near(around, MODELLING_TOLERANCE))
            .find(|(edge, ..)| outline.segments().any(|(own, _)| segment_distance(&own, edge) < MODELLING_TOLERANCE));
        if let Some((_, tag, _)) = crossed {
            let record = &flat.tags[*tag as usize];
            let where_ = match record.kind {
                TagKind::Joint => format!("runs into the bend {}", record.name.trim_end_matches(".joint")),
                TagKind::Relief => format!("runs into {}", record.name),
                _ => {
                    over_an_edge = true;
                    format!("runs out over the edge of {panel_name} at {}", record.name)
                }
            };
            faults.push(format!("{name} {where_}"));
        } else if !region.outer.contains(*centre) {
            let place = centre;
            let box_ = flat.nodes[panel].laid;
            let beyond = (box_.low.x - place.x)
                .max(place.x - box_.high.x)
                .max(box_.low.y - place.y)
                .max(place.y - box_.high.y)
                .max(0.0);
            faults.push(format!("{name} lies {} outside {panel_name}", length_text(beyond, unit)));
        } else if !outline.edges.iter().all(|edge| region.outer.contains(edge.start)) {
            // Nothing crosses, yet the hole's own edge is outside: the panel lies wholly within the hole.
            faults.push(format!("{name} is larger than {panel_name}"));
        }
    }
    if faults.is_empty() {
        return Ok(());
    }
    let more = if faults.len() > 4 { format!(" and {} more", faults.len() - 4) } else { String::new() };
    Err(Finding::error(
        format!("{}{more}", faults[..faults.len().min(4)].join("; ")),
        if over_an_edge && holes.len() == 1 {
            "Check its distances, or let it reach out over the edge, so that the edge is open there."
        } else {
            "Check the distances, the count and the spacing against the panel's size."
        },
    )
    .at_field("place"))
}

/// Refuses holes that meet each other or holes already there: the same place is not cut twice. `boxes` are those of the new ones.
pub(super) fn check_apart(flat: &Flat, panel: usize, holes: &[NewHole], boxes: &[Box2]) -> Result<(), Finding> {
    let own = flat.holes.iter().filter(|hole| hole.panel == panel);
    // A form takes both faces.
    let plain = HoleWork::plain();
    let forms = flat.forms.iter().filter(|form| form.panel == panel);
    let known: Vec<(&str, &Outline, &HoleWork)> = own
        .map(|hole| (hole.name.as_str(), &hole.outline, &hole.work))
        .chain(forms.map(|form| (form.name.as_str(), &form.outline, &plain)))
        .collect();
    let all: Vec<(&str, &Outline, &HoleWork)> =
        known.iter().copied().chain(holes.iter().map(|one| (one.name.as_str(), &one.outline, &one.work))).collect();
    let boxes: Vec<Box2> = known.iter().map(|(_, outline, _)| outline.extents()).chain(boxes.iter().copied()).collect();
    let cell = boxes.iter().fold(1.0f64, |most, one| most.max(one.width()).max(one.height()));
    let mut grid: HashMap<(i64, i64), Vec<usize>> = HashMap::with_capacity(boxes.len());
    for (at, box_) in boxes.iter().enumerate() {
        patience::check();
        let middle = box_.centre();
        let key = ((middle.x / cell).floor() as i64, (middle.y / cell).floor() as i64);
        let is_new = at >= known.len();
        if is_new {
            for near in (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (key.0 + dx, key.1 + dy))) {
                for &other in grid.get(&near).into_iter().flatten() {
                    // Blind from both faces: whether they meet in the depth is a proof of its own.
                    let (one, two) = (all[other].2, all[at].2);
                    if !one.through && !two.through && one.face != two.face {
                        continue;
                    }
                    let meets = boxes[other].is_near(box_, 0.0)
                        && (outline_distance(all[other].1, all[at].1) < MODELLING_TOLERANCE
                            || all[other].1.contains(middle)
                            || all[at].1.contains(boxes[other].centre()));
                    if meets {
                        let same = boxes[other].centre().distance(middle) < MODELLING_TOLERANCE;
                        let how = if same { "lie in the same place" } else { "run into each other" };
                        return Err(Finding::error(
                            format!("{} and {} {how}", all[other].0, all[at].0),
                            "Move one of them, or make the spacing larger.",
                        )
                        .at_field("place"));
                    }
                }
            }
        }
        grid.entry(key).or_default().push(at);
    }
    Ok(())
}
