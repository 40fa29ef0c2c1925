//! Reads a transition: each text to its number.

use std::f64::consts::FRAC_PI_2;

use crate::finding::Finding;
use crate::plane::Point;
use crate::quantity::tolerance::NO_TURN;
use crate::quantity::{Dimension, Expr};
use crate::sheet::reader::Reader;
use crate::sheet::shape::{Laid, read_shape};
use crate::work::shape::BaseShape;
use crate::work::sheet::{TransitionAction, TransitionEnd, TransitionJoint, TransitionSaid, TransitionTab};

use super::follows::follow;
use super::numbers::{EdgeNumbers, EdgeTabNumbers, FlangeLies, RimFlangeNumbers, RimPlane, TransitionNumbers};

/// The most flats of a quarter of a round.
const MOST_LINES: usize = 36;
/// How a tab's ends are clipped where nothing is said, radians: 45 deg.
const USUAL_CLIP: f64 = std::f64::consts::FRAC_PI_4;
/// Flatter than this they are no ends, radians: 15 deg.
const LEAST_CLIP: f64 = 15.0 * std::f64::consts::PI / 180.0;
/// Steeper than this an outline stands on its side, radians: 80 deg.
const MOST_TILT: f64 = 80.0 * std::f64::consts::PI / 180.0;

/// Reads a transition. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_transition(
    reader: &mut Reader<'_>,
    given: &TransitionAction,
) -> Option<TransitionNumbers> {
    let elevations = given.said == TransitionSaid::Elevations;
    // By elevations the rear profile is the lower outline, so that what is seen from above is seen from the front.
    let place = |end: TransitionEnd| usize::from((end == TransitionEnd::Upper) != elevations);
    let first = outline(reader, "lower", &given.lower, elevations);
    let height = reader.size("height", &given.height, "a height");
    let offset_x = or_zero(reader, "offset_x", &given.offset_x, Dimension::LENGTH);
    let offset_y = or_zero(reader, "offset_y", &given.offset_y, Dimension::LENGTH);
    let turn = or_zero(reader, "turn", &given.turn, Dimension::ANGLE);
    let tilt_x = tilt(reader, "tilt_x", &given.tilt_x);
    let tilt_y = tilt(reader, "tilt_y", &given.tilt_y);
    if elevations {
        let told = [
            ("turn", given.turn.is_some()),
            ("tilt_x", given.tilt_x.is_some()),
            ("tilt_y", given.tilt_y.is_some()),
            ("heights", !given.heights.is_empty()),
        ];
        if let Some((field, _)) = told.iter().find(|(_, told)| *told) {
            let message = "profiles of elevations stand upright and parallel".to_string();
            reader.refuse(field, message, "Trim the walls by a plane at that rim instead, or say it by plan.");
        }
    }
    let mut notes = Vec::new();
    let second = second(reader, given, first.as_ref(), &mut notes);
    let heights: Vec<Option<f64>> = given
        .heights
        .iter()
        .enumerate()
        .map(|(at, text)| reader.length(&format!("heights.{at}"), text, "a height of a corner"))
        .collect();
    let lines = match &given.lines {
        Some(text) => reader.count("lines", text),
        None => Some(4),
    };
    if lines.is_some_and(|lines| lines > MOST_LINES) {
        reader.refuse("lines", format!("more than {MOST_LINES} flats a quarter"), "Ask for fewer.");
        return None;
    }
    let mut rims = [None, None];
    for (at, rim) in given.rims.iter().enumerate() {
        let height = or_zero(reader, &format!("rims.{at}.height"), &rim.height, Dimension::LENGTH)?;
        let about_x = tilt(reader, &format!("rims.{at}.tilt_x"), &rim.tilt_x)?;
        let about_y = tilt(reader, &format!("rims.{at}.tilt_y"), &rim.tilt_y)?;
        let way = if elevations { -1.0 } else { 1.0 };
        let plane = RimPlane { height: way * height, tilt: (way * about_x, way * about_y) };
        if rims[place(rim.end)].replace(plane).is_some() {
            reader.refuse(&format!("rims.{at}.end"), "this end is trimmed twice".into(), "Keep one of the planes.");
        }
    }
    let mut collars = [None, None];
    for (at, collar) in given.collars.iter().enumerate() {
        let length = reader.size(&format!("collars.{at}.length"), &collar.length, "a collar")?;
        if collars[place(collar.end)].replace(length).is_some() {
            reader.refuse(&format!("collars.{at}.end"), "this end has two collars".into(), "Keep one of them.");
        }
    }
    let mut flanges = Vec::new();
    for (at, flange) in given.flanges.iter().enumerate() {
        let width = reader.size(&format!("flanges.{at}.width"), &flange.width, "a flange")?;
        let width = if flange.inward { -width } else { width };
        let lies = match (&flange.angle, &flange.parallel_to) {
            (None, None) => FlangeLies::InRim,
            (Some(angle), None) => FlangeLies::Bent(reader.bend_angle(&format!("flanges.{at}.angle"), angle)?),
            (None, Some(panel)) => FlangeLies::Parallel(panel.clone()),
            (Some(_), Some(_)) => {
                let message = "a flange is bent by an angle or lies parallel to a panel, not both".to_string();
                reader.refuse(&format!("flanges.{at}.angle"), message, "Keep the one that the drawing gives.");
                return None;
            }
        };
        let along = flange.along.clone();
        let (end, opening) = (place(flange.end), flange.opening.clone());
        flanges.push(RimFlangeNumbers { end, opening, along, width, lies, full: flange.full });
    }
    let tabs = given.tabs.iter().enumerate().map(|(at, tab)| read_tab(reader, at, tab)).collect::<Option<Vec<_>>>();
    let mut closed = [false, false];
    for end in &given.closed {
        closed[place(*end)] = true;
    }
    for end in 0..2 {
        let has_flange = flanges.iter().any(|flange| flange.end == end && flange.opening.is_none());
        let several = [(closed[end], "closed"), (collars[end].is_some(), "collars"), (has_flange, "flanges")];
        let there: Vec<&str> = several.iter().filter(|(is, _)| *is).map(|(_, field)| *field).collect();
        if let [_, second, ..] = there.as_slice() {
            let message = "an end has a collar, flanges or a panel of its own, and only one of them".to_string();
            reader.refuse(second, message, "Keep the one that the drawing shows.");
        }
    }
    let gap = match &given.gap {
        Some(text) => reader.zero_or_more("gap", text, "a gap"),
        None => Some(0.0),
    };
    let radius = reader.radius(&given.radius);
    let method = reader.method_or_own(&given.method);
    let mut edges = Vec::new();
    for (at, edge) in given.edges.iter().enumerate() {
        let Some((one, two)) = edge.between.split_once('/') else {
            let message = format!("{} names no two panels", edge.between);
            reader.refuse(&format!("edges.{at}.between"), message, "Name both, such as front/right.");
            return None;
        };
        let owner = edge.owner.as_deref().map(|owner| [one, two].iter().position(|name| *name == owner));
        if owner == Some(None) {
            let message = format!("{} is neither {one} nor {two}", edge.owner.as_deref().unwrap_or_default());
            reader.refuse(&format!("edges.{at}.owner"), message, "Name the one of the two whose sheet goes through.");
            return None;
        }
        if owner.is_some() && edge.joint == TransitionJoint::Bend {
            let message = "a bent edge has no owner".to_string();
            reader.refuse(&format!("edges.{at}.owner"), message, "Make it a seam or a rip, or take the owner out.");
            return None;
        }
        let between = [one.to_string(), two.to_string()];
        edges.push(EdgeNumbers { between, joint: edge.joint, owner: owner.flatten() });
    }
    let ways = given.ways.iter().map(|way| match elevations {
        true => [way.upper.clone(), way.lower.clone()],
        false => [way.lower.clone(), way.upper.clone()],
    });
    let offset = (offset_x?, offset_y?);
    let (first, second) = (first?, second?);
    let (lower, upper, shifts) = match elevations {
        true => (second, first, [offset, (0.0, 0.0)]),
        false => (first, second, [(0.0, 0.0), offset]),
    };
    Some(TransitionNumbers {
        said: given.said,
        lower,
        upper,
        apex: given.apex,
        height: height?,
        shifts,
        turn: turn?,
        tilt: (tilt_x?, tilt_y?),
        heights: heights.into_iter().collect::<Option<_>>()?,
        not_plane: given.not_plane,
        rims,
        ways: ways.collect(),
        collars,
        closed,
        flanges,
        tabs: tabs?,
        notes,
        sizes: given.sizes,
        other_side: given.other_side.clone(),
        corners: given.corners,
        edges,
        without: given.without.clone(),
        lines: lines?,
        crease: given.crease,
        gap: gap?,
        seam: given.seam.clone(),
        radius: radius?,
        radius_told: given.radius.is_some(),
        method: method?,
    })
}

fn or_zero(reader: &mut Reader<'_>, field: &str, text: &Option<Expr>, dimension: Dimension) -> Option<f64> {
    match text {
        Some(text) => reader.value(field, text, dimension, "a size"),
        None => Some(0.0),
    }
}

fn tilt(reader: &mut Reader<'_>, field: &str, text: &Option<Expr>) -> Option<f64> {
    let tilt = or_zero(reader, field, text, Dimension::ANGLE)?;
    if tilt.abs() > MOST_TILT {
        reader.refuse(field, "the outline would stand on its side".into(), "Tilt it less; 80 deg is the most.");
        return None;
    }
    Some(tilt)
}

fn read_tab(reader: &mut Reader<'_>, at: usize, tab: &TransitionTab) -> Option<EdgeTabNumbers> {
    let mut along = Vec::new();
    for (which, text) in tab.along.iter().enumerate() {
        let Some((panel, beside)) = text.split_once('/') else {
            let message = format!("{text} names no edge of a panel");
            let way_out = "Name the panel that has the tab and what is beside it, such as front/right or front/lower.";
            reader.refuse(&format!("tabs.{at}.along.{which}"), message, way_out);
            return None;
        };
        along.push([panel.to_string(), beside.to_string()]);
    }
    if along.is_empty() {
        reader.refuse(
            &format!("tabs.{at}.along"),
            "the tabs stand along no edge".into(),
            "Name one, such as front/right.",
        );
    }
    let width = reader.size(&format!("tabs.{at}.width"), &tab.width, "a tab");
    let clip = match &tab.clip {
        Some(text) => reader.value(&format!("tabs.{at}.clip"), text, Dimension::ANGLE, "an angle of a tab's ends"),
        None => Some(USUAL_CLIP),
    };
    if clip.is_some_and(|clip| !(LEAST_CLIP..=FRAC_PI_2 + NO_TURN.to_radians()).contains(&clip)) {
        let message = "the ends of a tab are clipped at 15 to 90 deg from its bend".to_string();
        reader.refuse(&format!("tabs.{at}.clip"), message, "45 deg is usual; 90 deg is square.");
    }
    let angle = match &tab.angle {
        Some(text) => Some(reader.bend_angle(&format!("tabs.{at}.angle"), text)?),
        None => None,
    };
    Some(EdgeTabNumbers { along, width: width?, clip: clip?.min(FRAC_PI_2), angle, held: tab.held })
}

/// An outline and its middle. Seen from the front a rectangle has a bottom and a top.
fn outline(reader: &mut Reader<'_>, field: &str, shape: &BaseShape, elevations: bool) -> Option<(Laid, Point)> {
    let mut laid = read_shape(reader, field, shape)?;
    if let Some((hole, _)) = laid.holes.first() {
        let message = format!("an outline that walls stand on has no holes, and this one has {hole}");
        reader.refuse(field, message, "Give its outside alone; holes are cut into the panels afterwards.");
        return None;
    }
    if elevations && matches!(shape, BaseShape::Rectangle(_)) {
        for name in &mut laid.names {
            match name.as_str() {
                "front" => *name = "bottom".into(),
                "back" => *name = "top".into(),
                _ => {}
            }
        }
    }
    let middle = laid.outer.extents().centre();
    Some((laid, middle))
}

/// What does not go with an apex, by its field.
fn apex_fault(given: &TransitionAction) -> Option<(&'static str, &'static str)> {
    let there = |end: TransitionEnd| end == TransitionEnd::Upper;
    let flange = |flange: &crate::work::sheet::RimFlange| there(flange.end) && flange.opening.is_none();
    [
        (given.said == TransitionSaid::Elevations, "said", "a pyramid is said by plan"),
        (given.upper.is_some() || given.follows.is_some(), "upper", "there are a second outline and an apex"),
        (given.tilt_x.is_some() || given.tilt_y.is_some() || given.turn.is_some(), "tilt_x", "an apex is not turned"),
        (!given.heights.is_empty() || given.not_plane, "heights", "an apex has the height alone"),
        (given.rims.iter().any(|rim| there(rim.end)), "rims", "an apex has no rim"),
        (given.collars.iter().any(|collar| there(collar.end)), "collars", "no collar stands on an apex"),
        (given.flanges.iter().any(flange), "flanges", "an apex has no rim"),
        (given.closed.iter().any(|end| there(*end)), "closed", "an apex is closed"),
        (!given.ways.is_empty(), "ways", "every corner goes to the apex"),
    ]
    .into_iter()
    .find_map(|(is, field, message)| is.then_some((field, message)))
}

/// The second outline: its own, or what follows from the first.
fn second(
    reader: &mut Reader<'_>,
    given: &TransitionAction,
    first: Option<&(Laid, Point)>,
    notes: &mut Vec<Finding>,
) -> Option<(Laid, Point)> {
    let elevations = given.said == TransitionSaid::Elevations;
    if given.apex {
        return match apex_fault(given) {
            None => first.cloned(),
            Some((field, message)) => {
                reader.refuse(
                    field,
                    message.into(),
                    "A pyramid ends in a point: take that out, or give a second outline.",
                );
                None
            }
        };
    }
    let Some(text) = &given.follows else {
        let Some(upper) = &given.upper else {
            let message = "there is no second outline".to_string();
            reader.refuse("upper", message, "Give it, or by elevations the height that the rear profile has.");
            return None;
        };
        return outline(reader, "upper", upper, elevations);
    };
    if given.upper.is_some() || !elevations {
        let message = "a second outline is given or follows from the front profile by its height, not both".to_string();
        reader.refuse("follows", message, "Take the height out, or say it by elevations without a rear profile.");
        return None;
    }
    let height = reader.size("follows", text, "a height of the rear profile")?;
    let (laid, middle) = first?;
    match follow(laid, height, given.moves, reader.given.names.show) {
        Ok((laid, note)) => {
            notes.push(note);
            Some((laid, *middle))
        }
        Err(fault) => {
            reader.refuse("follows", fault.message, &fault.way_out);
            None
        }
    }
}
