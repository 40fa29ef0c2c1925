//! Forms that are offered where a panel's face is pointed at.

use crate::sheet::pointed::{Pointed, Pointing};
use crate::work::sheet::{
    BeadForm, DimpleForm, ExtrudedForm, Face, FormAction, FormShape, LouvreForm, LouvreSide, Place,
};
use crate::work::{Action, Group, Offer};

/// Of a panel's shorter side, how long a form is offered.
const LONG: f64 = 0.4;
/// Thicknesses that are left about it.
const ROOM: f64 = 4.0;

/// A louvre, a bead, a dimple and an extruded hole on the face, a size that fits it.
pub(in crate::sheet::verbs) fn form(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let thickness = flat.thickness;
    // From an edge so far that the longer half of it and the room about it lie within.
    let away = |panel: usize| LONG / 2.0 * pointing.narrow(panel) + ROOM * thickness + pointing.radius;
    let near = pointing.lines_of_one_panel(pointing.about_from_an_edge());
    let (panel, place) = match (pointing.panel(), near) {
        (Some(panel), _) => (panel, Place::default()),
        (None, Some((panel, _))) => match pointing.lines_of_one_panel(away(panel)) {
            Some((panel, from)) => (panel, Place { from, ..Place::default() }),
            None => return Vec::new(),
        },
        (None, None) => return Vec::new(),
    };
    let node = &flat.nodes[panel];
    let short = pointing.narrow(panel);
    let is_below = matches!(pointing.at[..], [Pointed::Panel(_, Some(false))]);
    let round = |value: f64| pointing.about(value);
    let (long, high) = (round(LONG * short), round(3.0 * thickness));
    let wide = round((12.0 * thickness).min(0.2 * short));
    let low = round(thickness);
    let louvre =
        LouvreForm { length: long.clone(), width: wide.clone(), height: high, opens: LouvreSide::Away, side: None };
    let bead = BeadForm { length: long, width: wide.clone(), height: low.clone(), side: None };
    let dimple = DimpleForm { diameter: wide, height: low, side: None };
    let (diameter, height) = (Some(round(5.0 * thickness)), round(thickness));
    let extruded = ExtrudedForm { diameter, thread: None, height, wall: None };
    let sizes: [(&str, &str, FormShape, &[&str]); 4] = [
        ("Press a louvre", "louvre", FormShape::Louvre(louvre), &["length", "width", "height"]),
        ("Press a bead", "bead", FormShape::Bead(bead), &["length", "width", "height"]),
        ("Press a dimple", "dimple", FormShape::Dimple(dimple), &["diameter", "height"]),
        ("Extrude a hole", "extruded", FormShape::Extruded(extruded), &["diameter", "height"]),
    ];
    let out_of = if is_below { Face::Bottom } else { Face::Top };
    let from_there = if place.from.is_empty() { "" } else { " from this" };
    let offer = |(words, stem, shape, asks): (&str, &str, FormShape, &[&str])| {
        let mut asks: Vec<String> = asks.iter().map(|field| format!("shape.{stem}.{field}")).collect();
        asks.extend((0..place.from.len()).map(|at| format!("place.from.{at}.distance")));
        let action = FormAction {
            panel: node.name.as_str().into(),
            also: Vec::new(),
            shape,
            out_of,
            turn: None,
            place: place.clone(),
            repeat: Vec::new(),
            pattern: None,
            mirror: None,
            skip: Vec::new(),
        };
        Offer { asks, ..Offer::new(Group::Hole, format!("{words}{from_there}"), stem, Action::Form(action)) }
    };
    let mut all: Vec<Offer> = sizes.map(offer).into();
    // One is enough where nothing, or a line, was pointed at: the sentence makes another of it.
    if pointing.nowhere() {
        all.truncate(1);
        return all.into_iter().map(|one| one.wanting("panel")).collect();
    }
    if !from_there.is_empty() {
        all.truncate(1);
    }
    all
}
