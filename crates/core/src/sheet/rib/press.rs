//! Presses the ribs of one operation.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Segment, Vector, outline_distance, segment_distance};
use crate::quantity::tolerance::TRACED;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::sheet::bending::outside_setback;
use crate::sheet::flat::{BendMake, Flat, Strip};

use super::numbers::MOST_RIBS;
use super::section::{Part, RibFault, RibSizes};
use super::{Rib, RibLegsNumbers, RibNumbers};

/// Bends that ribs are pressed across, degrees: in a shallower one there is no room under the ridge, out of a closer one no tool comes.
const BENDS: (f64, f64) = (15.0, 150.0);

/// Nearer to a rib than this is run into, mm: round rims are looked at in chords, which stray less.
const ROOM: f64 = 0.1;

/// Presses ribs across a bend; none is pressed when one of them does not fit.
///
/// # Errors
/// A bend that is not there or takes no ribs; ribs that do not pass its tangent lines, leave its length, or run into something.
pub(in crate::sheet) fn press(
    flat: &mut Flat,
    name: &str,
    given: &RibNumbers,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let show = |value: f64| length_text(value, unit);
    let bend = flat.bend(&given.bend).ok_or_else(|| {
        let known: Vec<&str> = flat.bends.iter().map(|bend| bend.name.as_str()).collect();
        let way_out = match known.is_empty() {
            true => "Bend a flange first.".to_string(),
            false => format!("The bends at this step are {}.", known.join(", ")),
        };
        Finding::error(format!("there is no bend called {} at this step", given.bend), way_out).at_field("bend")
    })?;
    let strip = flat.strip_of(bend);
    check_bend(bend.make, strip, &given.bend, unit)?;
    let setback = outside_setback(strip.angle, strip.radius, flat.thickness);
    let legs = match given.legs {
        RibLegsNumbers::Both(one, two) => [one, two],
        RibLegsNumbers::Angle(one, angle) => {
            if angle <= MODELLING_TOLERANCE || angle >= strip.angle - MODELLING_TOLERANCE {
                return Err(Finding::error(
                    format!(
                        "a ridge at {} to the panel does not meet the flange of a bend of {}",
                        angle_text(angle),
                        angle_text(strip.angle)
                    ),
                    "Its angle lies between 0 and that of the bend.",
                )
                .at_field("angle"));
            }
            [one, setback + met_by_angle(strip, one - setback, angle)]
        }
    };
    let sizes = RibSizes {
        legs: legs.map(|leg| leg - setback),
        width: given.width,
        is_round: given.is_round,
        draft: given.draft,
    };
    let from_far = match &given.row.from {
        None => false,
        Some(end) => {
            bend.ends.iter().position(|own| own == end).ok_or_else(|| {
                Finding::error(
                    format!("the bend {} has no end called {end}", bend.name),
                    format!("Its ends are {} and {}.", bend.ends[0], bend.ends[1]),
                )
                .at_field("from")
            })? == 1
        }
    };
    let places = given
        .row
        .places(strip.length, given.width)
        .map_err(|(what, way_out)| Finding::error(what, way_out).at_field("at"))?;
    if places.len() > MOST_RIBS {
        return Err(Finding::error(
            format!("{} ribs are too many across one bend: {MOST_RIBS} is the most", places.len()),
            "Give fewer, or a larger pitch.",
        )
        .at_field("count"));
    }
    if let Some(off) = given.skip.iter().find(|&&one| one < 1 || one > places.len()) {
        return Err(Finding::error(
            format!("there is no rib {off} to leave out: there are {}", places.len()),
            format!("Numbers from 1 to {} can be left out.", places.len()),
        )
        .at_field("skip"));
    }
    let number = |at: usize| if places.len() == 1 { name.to_string() } else { format!("{name}.{}", at + 1) };
    let rib = |(at, place): (usize, &f64)| {
        if *place < 0.0 || *place > strip.length {
            return Err(Finding::error(
                format!("{} at {} leaves the bend, which is {} long", number(at), show(*place), show(strip.length)),
                "Check the end distances, the count and the pitch.",
            )
            .at_field("at"));
        }
        let along = if from_far { strip.length - place } else { *place };
        Ok(Rib {
            name: number(at),
            operation: name.to_string(),
            bend: bend.name.clone(),
            strip: bend.strip,
            centre: strip.place(along, strip.width / 2.0),
            sizes,
            legs,
            radius: given.radius,
        })
    };
    let all = places.iter().enumerate().filter(|(at, _)| !given.skip.contains(&(at + 1)));
    let ribs = all.map(rib).collect::<Result<Vec<Rib>, Finding>>()?;
    put(flat, ribs, unit)
}

/// How far from its tangent line a ridge at an angle to the first leg meets the inner face of the second, mm.
fn met_by_angle(strip: &Strip, leg: f64, angle: f64) -> f64 {
    let way = |turn: f64| Vector::new(turn.cos(), turn.sin());
    let tangent = Point::new(strip.radius * strip.angle.sin(), strip.radius * (1.0 - strip.angle.cos()));
    way(angle).cross(Point::new(-leg, 0.0) - tangent) / way(angle).cross(way(strip.angle))
}

/// Refuses a bend that takes no ribs.
///
/// # Errors
/// One that the brake does not make, that turns too little or too far, or that has no inside radius; at the field `bend`.
pub(in crate::sheet) fn check_bend(make: BendMake, strip: &Strip, name: &str, unit: LengthUnit) -> Result<(), Finding> {
    let refused = |why: String, way_out: &str| Err(Finding::error(why, way_out).at_field("bend"));
    if make != BendMake::Brake {
        return refused(
            format!("{name} is no bend of the press brake: a rib is not pressed across it"),
            "Name a bend that the brake makes in one stroke.",
        );
    }
    let degrees = strip.angle.to_degrees();
    if degrees < BENDS.0 - TRACED || degrees > BENDS.1 + TRACED {
        return refused(
            format!(
                "{name} bends {}: ribs are pressed across bends of {} to {} deg",
                angle_text(strip.angle),
                BENDS.0,
                BENDS.1
            ),
            "Press a bead on the panel instead, or bend it otherwise.",
        );
    }
    if strip.radius < TRACED {
        return refused(
            format!(
                "{name} has an inside radius of {}: a rib has no face there to leave",
                length_text(strip.radius, unit)
            ),
            "Give the bend the radius that the tool makes.",
        );
    }
    Ok(())
}

/// Puts ribs across bends.
///
/// # Errors
/// As [`press`].
pub(in crate::sheet) fn put(flat: &mut Flat, ribs: Vec<Rib>, unit: LengthUnit) -> Result<(), Finding> {
    for mut rib in ribs {
        rib.strip = stretch_of(flat, &rib);
        rib.shells(flat).map_err(|fault| told(&rib, fault, unit))?;
        if let Some(over) = struck(flat, &rib) {
            return Err(Finding::error(
                format!("{} {over}", rib.name),
                "Move it along the bend, make it narrower or its legs shorter, or make room for it.",
            )
            .at_field("at"));
        }
        Arc::make_mut(&mut flat.ribs).push(rib);
    }
    Ok(())
}

fn told(rib: &Rib, fault: RibFault, unit: LengthUnit) -> Finding {
    let show = |value: f64| length_text(value, unit);
    let leg = |which: usize| (["panel_leg", "flange_leg"][which], ["panel", "flange"][which]);
    match fault {
        RibFault::Short(which, by) => {
            let (field, where_) = leg(which);
            Finding::error(
                format!(
                    "the ridge of {} meets the {where_} {} short of the bend's tangent line, with its leg of {}",
                    rib.name,
                    show(by),
                    show(rib.legs[which])
                ),
                "Make that leg longer: both ends of a ridge lie on flat metal, on both faces.",
            )
            .at_field(field)
        }
        RibFault::Steep(which, angle) => {
            let (field, where_) = leg(which);
            Finding::error(
                format!("the ridge of {} stands at {} to the {where_}", rib.name, angle_text(angle)),
                "Make the legs more alike: no tool is drawn out of a ridge past 85 deg.",
            )
            .at_field(field)
        }
        RibFault::Narrow(least) => Finding::error(
            format!(
                "{} is {} wide: in this sheet {} is left empty by its own thickness",
                rib.name,
                show(rib.sizes.width),
                show(least)
            ),
            format!("Make it wider than {}.", show(least)),
        )
        .at_field("width"),
    }
}

/// What a rib runs into as its sheet is now, in words: "runs into drain.2".
pub(in crate::sheet) fn struck(flat: &Flat, rib: &Rib) -> Option<String> {
    let Some((footprint, strip)) = rib.footprint(flat).zip(flat.nodes[rib.strip].strip()) else {
        return Some("has no bend to stand on".into());
    };
    let around = footprint.extents();
    let own: Vec<Segment> = footprint.segments().map(|(one, _)| one).collect();
    let on_tangent = |edge: &Segment| {
        edge.is_line()
            && [0.0, strip.width]
                .iter()
                .any(|line| [edge.start, edge.end].iter().all(|point| (strip.local(*point).1 - line).abs() < TRACED))
    };
    for node in &flat.nodes {
        for outline in node.region.outlines().filter(|one| one.extents().is_near(&around, ROOM)) {
            let mut met = outline.segments().filter(|(edge, _)| !on_tangent(edge)).filter(|(edge, _)| {
                footprint.contains(edge.at(0.5)) || own.iter().any(|one| segment_distance(one, edge) < ROOM)
            });
            if let Some((_, tag)) = met.next() {
                let name = flat.tags[tag as usize].name.as_str();
                return Some(match name.is_empty() {
                    true => format!("runs into an edge of {}", node.name),
                    false => format!("runs into {name}"),
                });
            }
        }
    }
    let Ok([inner, _]) = rib.shells(flat) else { return Some("has no section any more".into()) };
    let middle = strip.local(rib.centre).0;
    let probes = [(Part::First, inner.ends[0]), (Part::Bend, 2.0 * strip.angle), (Part::Second, inner.ends[1])];
    for (part, reach) in probes {
        let place = strip.place(middle, strip.across_at(part, reach / 4.0));
        let stands = |at: usize| {
            let node = &flat.nodes[at];
            let fits = if part == Part::Bend { at == rib.strip } else { node.is_panel() };
            fits && node.region.contains(place)
        };
        if !(0..flat.nodes.len()).any(stands) {
            let where_ = if part == Part::Bend { "bend" } else { "flat metal" };
            return Some(format!(
                "has no {where_} under it at a leg of {}",
                if part == Part::Second { "the flange" } else { "the panel" }
            ));
        }
    }
    let meets = |other: &Outline| {
        other.extents().is_near(&around, ROOM)
            && (outline_distance(other, &footprint) < ROOM
                || footprint.contains(other.edges[0].start)
                || other.contains(rib.centre))
    };
    let form = flat.forms.iter().find(|form| meets(&form.outline)).map(|form| &form.name);
    // Heads and blind holes are no part of the region.
    let headed = flat.holes.iter().filter(|hole| !hole.work.profile.is_empty());
    let mut heads = headed.filter(|hole| {
        let wide = hole.work.profile.first().map_or(0.0, |one| one.near);
        meets(&Outline::circle(hole.centre, wide, 0))
    });
    let hole = heads.next().map(|hole| &hole.name);
    // Footprints take their time: only of those whose middle is no further than both reach.
    let near = around.width() + around.height();
    let ribs = flat
        .ribs
        .iter()
        .filter(|other| other.name != rib.name && other.centre.distance(rib.centre) < near + other.reach(strip.width));
    let other =
        ribs.filter(|other| other.footprint(flat).is_some_and(|own| meets(&own))).map(|other| &other.name).next();
    form.or(hole).or(other).map(|name| format!("runs into {name}"))
}

/// The stretch of a rib's bend that it stands on: cuts across a bend part it, and each stretch is a node of its own.
fn stretch_of(flat: &Flat, rib: &Rib) -> usize {
    let name = &flat.nodes[rib.strip].name;
    let holds = |at: usize| {
        let node = &flat.nodes[at];
        node.strip().is_some() && node.name == *name && node.region.contains(rib.centre)
    };
    if holds(rib.strip) { rib.strip } else { (0..flat.nodes.len()).find(|&at| holds(at)).unwrap_or(rib.strip) }
}

/// After a step: ribs are on the stretch of their bend that is left under them, and nothing runs into them.
///
/// # Errors
/// The rib, and what it would run into.
pub(in crate::sheet) fn keep_ribs(flat: &mut Flat) -> Result<(), Finding> {
    for at in 0..flat.ribs.len() {
        let strip = stretch_of(flat, &flat.ribs[at]);
        if strip != flat.ribs[at].strip {
            Arc::make_mut(&mut flat.ribs)[at].strip = strip;
        }
    }
    let over = flat.ribs.iter().find_map(|rib| struck(flat, rib).map(|over| format!("the rib {} {over}", rib.name)));
    over.map_or(Ok(()), |what| Err(Finding::error(what, "Keep clear of the rib, or press it elsewhere.")))
}
