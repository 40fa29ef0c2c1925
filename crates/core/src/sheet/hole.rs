//! Holes in a named panel, placed from its edges, from a bend's lines or from its centre, several off at a spacing.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Vector, outline_distance, segment_distance};
use crate::quantity::{LengthUnit, length_text};

use super::bending;
use super::flat::{BendSide, Flat, Hole, TagKind};
use super::read::{HoleNumbers, HoleShape, RepeatNumbers};

/// A line that distances are measured from: a point on it, its direction, and the side that counts as positive.
#[derive(Clone, Copy, Debug)]
pub(super) struct Datum {
    pub point: Point,
    pub along: Vector,
    pub inward: Vector,
}

/// Cuts the holes of one operation; none is made when one of them does not fit.
pub(super) fn cut(flat: &mut Flat, name: &str, given: &HoleNumbers, unit: LengthUnit) -> Result<(), Finding> {
    let panel = flat.panel(&given.panel).ok_or_else(|| {
        let known: Vec<&str> =
            flat.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.as_str()).collect();
        Finding::error(
            format!("there is no panel called {} at this step", given.panel),
            if known.is_empty() {
                "Lay down a base panel first.".to_string()
            } else {
                format!("The panels at this step are {}.", known.join(", "))
            },
        )
        .at_field("panel")
    })?;
    let mut data = Vec::new();
    for (at, (edge, distance)) in given.place.from.iter().enumerate() {
        let datum = datum(flat, panel, edge).map_err(|fault| fault.at_field(format!("place.from.{at}.edge")))?;
        data.push((datum, *distance, edge.clone()));
    }
    let first = first_place(flat, panel, &data)?;
    let along = data.first().map_or(Vector::new(1.0, 0.0), |(datum, ..)| datum.along);
    let centres = rows(flat, panel, first, along, &data, &given.repeat)?;

    let outlines: Vec<Outline> = centres
        .iter()
        .map(|&centre| match given.shape {
            HoleShape::Round(diameter) => Outline::circle(centre, diameter / 2.0, 0),
            HoleShape::Rectangle(width, height, corner) => {
                Outline::rounded_rectangle(centre, along, width, height, corner, 0)
            }
        })
        .collect();
    let own_name = |at: usize| if centres.len() == 1 { name.to_string() } else { format!("{name}.{}", at + 1) };
    check_fit(flat, panel, &outlines, &centres, &own_name, unit)?;
    check_apart(flat, panel, &outlines, &own_name)?;
    for (at, mut outline) in outlines.into_iter().enumerate() {
        let tag = flat.tag(own_name(at), TagKind::Hole(flat.holes.len()));
        outline.edges.iter_mut().for_each(|edge| edge.tag = tag);
        flat.holes.push(Hole {
            name: own_name(at),
            operation: name.to_string(),
            panel,
            centre: centres[at],
            extents: outline.extents(),
            tag,
        });
        flat.nodes[panel].region.holes.push(outline);
    }
    Ok(())
}

/// The line of this name as it lies in the flat of a panel.
pub(super) fn datum(flat: &Flat, panel: usize, name: &str) -> Result<Datum, Finding> {
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
        let along = (edge.line.end - edge.line.start).unit();
        return Ok(Datum { point: edge.line.start, along, inward: along.left() });
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
        if panel == bend.parent {
            return Ok(Datum { point: strip.place(0.0, setback), along: strip.along, inward: -strip.across });
        }
        if panel == bend.flange {
            let point = strip.place(0.0, strip.width - setback);
            return Ok(Datum { point, along: strip.along, inward: strip.across });
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
        .filter(|edge| edge.panel == panel && !flat.segments_of(panel, edge.tag).is_empty())
        .map(|edge| edge.name.clone());
    let bends = flat
        .bends
        .iter()
        .filter(|bend| bend.parent == panel || bend.flange == panel)
        .map(|bend| format!("{}.mould-outside", bend.name));
    edges.chain(bends).collect()
}

fn first_place(flat: &Flat, panel: usize, data: &[(Datum, f64, String)]) -> Result<Point, Finding> {
    let centre = flat.nodes[panel].laid.centre();
    match data {
        [] => Ok(centre),
        [(one, distance, _)] => {
            // On the centre line square to the edge: keep the centre's place along it.
            let off = *distance - (centre - one.point).dot(one.inward);
            Ok(centre + one.inward * off)
        }
        [(one, first, one_name), (two, second, two_name), ..] => {
            let turn = one.inward.cross(two.inward);
            if turn.abs() < 1e-9 {
                return Err(Finding::error(
                    format!(
                        "{one_name} and {two_name} run the same way: two distances from them fix one direction twice"
                    ),
                    "Give one distance here; make a call-out of the other and let it be measured.",
                )
                .at_field("place.from"));
            }
            // Solve (p - a).n1 = d1, (p - b).n2 = d2.
            let (c1, c2) =
                (first + (one.point - centre).dot(one.inward), second + (two.point - centre).dot(two.inward));
            let x = (c1 * two.inward.y - c2 * one.inward.y) / turn;
            let y = (c2 * one.inward.x - c1 * two.inward.x) / turn;
            Ok(centre + Vector::new(x, y))
        }
    }
}

/// The centres of every repeat of a place.
fn rows(
    flat: &Flat,
    panel: usize,
    first: Point,
    along: Vector,
    data: &[(Datum, f64, String)],
    repeat: &[RepeatNumbers],
) -> Result<Vec<Point>, Finding> {
    let mut centres = vec![first];
    for (at, row) in repeat.iter().enumerate() {
        let mut direction = match &row.along {
            Some(edge) => datum(flat, panel, edge).map_err(|fault| fault.at_field(format!("repeat.{at}.along")))?.along,
            None if at == 0 => along,
            None => along.left(),
        };
        // Where a distance fixes the place in this direction the row starts there and runs away from the edge;
        // elsewhere it is centred.
        let fixed = data.iter().map(|(datum, ..)| datum.inward.dot(direction)).find(|dot| dot.abs() > 1e-9);
        let start = match fixed {
            Some(dot) => {
                direction = direction * dot.signum();
                0.0
            }
            None => -((row.count - 1) as f64) / 2.0,
        };
        centres = (0..row.count)
            .flat_map(|step| {
                let by = direction * ((start + step as f64) * row.spacing);
                centres.iter().map(move |&centre| centre + by)
            })
            .collect();
    }
    Ok(centres)
}

fn check_fit(
    flat: &Flat,
    panel: usize,
    outlines: &[Outline],
    centres: &[Point],
    own_name: &dyn Fn(usize) -> String,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let region = &flat.nodes[panel].region;
    let panel_name = &flat.nodes[panel].name;
    let mut faults = Vec::new();
    for (at, outline) in outlines.iter().enumerate() {
        let crossed = region
            .outer
            .segments()
            .find(|(edge, _)| outline.segments().any(|(own, _)| segment_distance(&own, edge) < MODELLING_TOLERANCE));
        if let Some((_, tag)) = crossed {
            let record = &flat.tags[tag as usize];
            let where_ = match record.kind {
                TagKind::Joint => format!("runs into the bend {}", record.name.trim_end_matches(".joint")),
                TagKind::Relief => format!("runs into {}", record.name),
                _ => format!("runs off {panel_name} at {}", record.name),
            };
            faults.push(format!("{} {where_}", own_name(at)));
        } else if !region.outer.contains(centres[at]) {
            let place = centres[at];
            let box_ = flat.nodes[panel].laid;
            let beyond = (box_.low.x - place.x)
                .max(place.x - box_.high.x)
                .max(box_.low.y - place.y)
                .max(place.y - box_.high.y)
                .max(0.0);
            faults.push(format!("{} lies {} outside {panel_name}", own_name(at), length_text(beyond, unit)));
        } else if !outline.edges.iter().all(|edge| region.outer.contains(edge.start)) {
            // Nothing crosses, yet the hole's own edge is outside: the panel lies wholly within the hole.
            faults.push(format!("{} is larger than {panel_name}", own_name(at)));
        }
    }
    if faults.is_empty() {
        return Ok(());
    }
    let more = if faults.len() > 4 { format!(" and {} more", faults.len() - 4) } else { String::new() };
    Err(Finding::error(
        format!("{}{more}", faults[..faults.len().min(4)].join("; ")),
        "Check the distances, the count and the spacing against the panel's size.",
    )
    .at_field("place"))
}

/// Holes that meet each other or holes already there.
fn check_apart(
    flat: &Flat,
    panel: usize,
    outlines: &[Outline],
    own_name: &dyn Fn(usize) -> String,
) -> Result<(), Finding> {
    let known: Vec<(&str, &Outline)> = flat
        .holes
        .iter()
        .filter(|hole| hole.panel == panel)
        .filter_map(|hole| {
            let outline = flat.nodes[panel]
                .region
                .holes
                .iter()
                .find(|one| one.edges.first().is_some_and(|e| e.tag == hole.tag))?;
            Some((hole.name.as_str(), outline))
        })
        .collect();
    let names: Vec<String> = (0..outlines.len()).map(own_name).collect();
    let all: Vec<(&str, &Outline)> =
        known.iter().copied().chain(names.iter().map(String::as_str).zip(outlines)).collect();
    let boxes: Vec<_> = all.iter().map(|(_, outline)| outline.extents()).collect();
    let cell = boxes.iter().fold(1.0f64, |most, one| most.max(one.width()).max(one.height()));
    let mut grid: HashMap<(i64, i64), Vec<usize>> = HashMap::new();
    for (at, box_) in boxes.iter().enumerate() {
        let middle = box_.centre();
        let key = ((middle.x / cell).floor() as i64, (middle.y / cell).floor() as i64);
        let is_new = at >= known.len();
        if is_new {
            for near in (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (key.0 + dx, key.1 + dy))) {
                for &other in grid.get(&near).into_iter().flatten() {
                    let meets = boxes[other].is_near(box_, 0.0)
                        && (outline_distance(all[other].1, all[at].1) < MODELLING_TOLERANCE
                            || all[other].1.contains(middle)
                            || all[at].1.contains(boxes[other].centre()));
                    if meets {
                        return Err(Finding::error(
                            format!("{} and {} run into each other", all[other].0, all[at].0),
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
