//! From the text of a drill or a cut to its numbers.

use crate::plane::{MODELLING_TOLERANCE, Vector};
use crate::quantity::{Dimension, Expr, length_text};
use crate::sheet::reader::Reader;
use crate::sheet::shape::read_shape;
use crate::stock::{Fit, stock};
use crate::work::sheet::{
    CutAction, DrillAction, FormAction, Make, Mirror, OpenCorners, Pattern, Place, Reach, Repeat, Slot, SlotLength,
};

use super::angle::angle;
use super::numbers::{
    AlongNumbers, FromNumbers, HoleNumbers, HoleShape, PlaceNumbers, RepeatNumbers, RimRowNumbers, SpreadNumbers,
    WorkNumbers,
};
use super::screws;
use super::spread::MOST_HOLES;

/// 118 deg: the usual point of a twist drill.
const DRILL_POINT: f64 = 118.0;

/// Reads a drill. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_drill(reader: &mut Reader<'_>, drill: &DrillAction) -> Option<HoleNumbers> {
    let size = drill_size(reader, drill);
    let depth = optional(reader, "depth", &drill.depth, "a depth");
    let thread_depth = match &drill.tapped {
        Some(tapped) => optional(reader, "tapped.depth", &tapped.depth, "a thread depth"),
        None => Some(None),
    };
    let point = angle(reader, "point", &drill.point, DRILL_POINT, "a drill's point", (1.0, 180.0));
    let countersink = match &drill.countersink {
        Some(sink) => screws::countersink(reader, sink).map(Some),
        None => Some(None),
    };
    let counterbore = match &drill.counterbore {
        Some(bore) => screws::counterbore(reader, bore).map(Some),
        None => Some(None),
    };
    let place = read_place(reader, &drill.place);
    let spread = read_spread(reader, &drill.repeat, &drill.pattern);
    if drill.reach != Reach::Panel
        && (drill.depth.is_some() || drill.countersink.is_some() || drill.counterbore.is_some())
    {
        reader.refuse(
            "reach",
            "a blind hole or one with a head is worked from the face of its panel".into(),
            "Let it reach through its panel alone, or take the depth and the head out.",
        );
    }
    let (diameter, designation, source) = size?;
    let (countersink, counterbore) = (countersink?, counterbore?);
    let screw = [&countersink, &counterbore].into_iter().flatten().find_map(|head| head.screw);
    let source = [source, screw.map(|screw| screw.source.clone()).unwrap_or_default()]
        .into_iter()
        .filter(|one| !one.is_empty())
        .collect::<Vec<_>>()
        .join("; ");
    let work = WorkNumbers {
        designation,
        source,
        drill: diameter,
        depth: depth?,
        point: point?,
        thread_depth: thread_depth?,
        thread: drill.tapped.as_ref().and_then(|tapped| stock().thread(&tapped.thread)),
        screw,
        countersink: countersink.map(|head| (head.diameter, head.other)),
        counterbore: counterbore.map(|head| (head.diameter, head.other)),
        face: drill.face,
        make: drill.make,
    };
    Some(HoleNumbers {
        panel: drill.panel.to_string(),
        also: drill.also.iter().map(ToString::to_string).collect(),
        reach: drill.reach,
        shape: HoleShape::Round(diameter),
        turn: 0.0,
        work,
        place: place?,
        spread: spread?,
        mirror: mirrored(drill.mirror),
        skip: drill.skip.clone(),
    })
}

/// Diameter drilled, designation, source.
fn drill_size(reader: &mut Reader<'_>, drill: &DrillAction) -> Option<(f64, String, String)> {
    let given = [drill.diameter.is_some(), drill.clearance.is_some(), drill.tapped.is_some()]
        .iter()
        .filter(|one| **one)
        .count();
    if given == 0
        && let Some(size) = screws::said_by(drill)
    {
        return if screws::are_known(drill) { screws::clearance(reader, size) } else { None };
    }
    if given != 1 {
        reader.refuse(
            "diameter",
            format!("{given} sizes are given for the hole: one of a diameter, a clearance hole and a thread is needed"),
            "Say one of them.",
        );
        return None;
    }
    if let Some(text) = &drill.diameter {
        return Some((reader.size("diameter", text, "a hole diameter")?, String::new(), String::new()));
    }
    if let Some(hole) = &drill.clearance {
        let Some(found) = stock().clearance(&hole.bolt) else {
            let known: Vec<&str> = stock().clearances.iter().map(|one| one.bolt.as_str()).collect();
            reader.refuse(
                "clearance.bolt",
                format!("there is no clearance hole for {} in the table", hole.bolt.trim()),
                &format!("The bolts are {}; for another type the diameter itself.", known.join(", ")),
            );
            return None;
        };
        let fit = match hole.fit {
            Fit::Fine => "fine",
            Fit::Medium => "medium",
            Fit::Coarse => "coarse",
        };
        return Some((found.diameter(hole.fit), format!("clearance {} {fit}", found.bolt), found.source.clone()));
    }
    let tapped = drill.tapped.as_ref()?;
    let Some(thread) = stock().thread(&tapped.thread) else {
        let known: Vec<&str> = stock().threads.iter().map(|one| one.name.as_str()).collect();
        reader.refuse(
            "tapped.thread",
            format!("there is no thread {} in the table", tapped.thread.trim()),
            &format!("The threads are {}.", known.join(", ")),
        );
        return None;
    };
    Some((thread.tap_drill, format!("tapped {}", thread.name), thread.source.clone()))
}

/// Reads a cut of another shape. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_cut(reader: &mut Reader<'_>, cut: &CutAction) -> Option<HoleNumbers> {
    let shape = cut_shape(reader, cut);
    let turn = match &cut.turn {
        Some(text) => reader.value("turn", text, Dimension::ANGLE, "a turn"),
        None => Some(0.0),
    };
    let place = read_place(reader, &cut.place);
    let spread = read_spread(reader, &cut.repeat, &cut.pattern);
    Some(HoleNumbers {
        panel: cut.panel.to_string(),
        also: cut.also.iter().map(ToString::to_string).collect(),
        reach: cut.reach,
        shape: shape?,
        turn: turn?,
        work: WorkNumbers { make: Make::Cut, ..WorkNumbers::default() },
        place: place?,
        spread: spread?,
        mirror: mirrored(cut.mirror),
        skip: cut.skip.clone(),
    })
}

/// A slot between the centres of its ends. One that is wider than it is long over all is turned round by mistake: it is told, not
/// guessed.
fn slot_shape(reader: &mut Reader<'_>, slot: &Slot) -> Option<HoleShape> {
    let overall = slot.length_is == SlotLength::Overall;
    let wanted = if overall { "a slot's length overall" } else { "a length between centres" };
    let length = reader.size("slot.length", &slot.length, wanted);
    let width = reader.size("slot.width", &slot.width, "a slot's width");
    let (length, width) = length.zip(width)?;
    if !overall {
        return Some(HoleShape::Slot(length, width));
    }
    let between = length - width;
    if between <= MODELLING_TOLERANCE {
        let unit = reader.given.names.show;
        let (long, wide) = (length_text(length, unit), length_text(width, unit));
        reader.refuse(
            "slot.length",
            format!("a slot {long} long overall and {wide} wide is not longer than it is wide"),
            "Turn the two round, or drill a round hole.",
        );
        return None;
    }
    Some(HoleShape::Slot(between, width))
}

fn cut_shape(reader: &mut Reader<'_>, cut: &CutAction) -> Option<HoleShape> {
    let rectangle = cut.width.is_some() || cut.height.is_some();
    let given = [rectangle, cut.slot.is_some(), cut.keyhole.is_some(), cut.outline.is_some()]
        .iter()
        .filter(|one| **one)
        .count();
    if given != 1 {
        reader.refuse(
            "width",
            format!(
                "{given} shapes are given for the hole: one of width with height, slot, keyhole and outline is needed"
            ),
            "Say one of them.",
        );
        return None;
    }
    let unit = reader.given.names.show;
    if let Some(slot) = &cut.slot {
        return slot_shape(reader, slot);
    }
    if let Some(keyhole) = &cut.keyhole {
        let (head, slot, travel) = screws::keyhole(reader, keyhole)?;
        let neck = ((head * head - slot * slot).max(0.0)).sqrt() / 2.0;
        if slot >= head - MODELLING_TOLERANCE || travel <= neck + MODELLING_TOLERANCE {
            reader.refuse(
                "keyhole.slot",
                format!(
                    "a slot of {} by {} makes no keyhole with a head of {}",
                    length_text(slot, unit),
                    length_text(travel, unit),
                    length_text(head, unit)
                ),
                "The slot is narrower than the head and travels beyond it.",
            );
            return None;
        }
        return Some(HoleShape::Keyhole(head, slot, travel));
    }
    if let Some(outline) = &cut.outline {
        let laid = read_shape(reader, "outline", outline)?;
        if !laid.holes.is_empty() {
            reader.refuse(
                "outline",
                "the outline to cut has holes of its own: what lies in them would fall out".into(),
                "Cut a shape without holes.",
            );
            return None;
        }
        return Some(HoleShape::Outline(Box::new(laid)));
    }
    let width = match &cut.width {
        Some(text) => reader.size("width", text, "a width"),
        None => missing(reader, "width", "a width"),
    };
    let height = match &cut.height {
        Some(text) => reader.size("height", text, "a height"),
        None => missing(reader, "height", "a height"),
    };
    let corner = match &cut.corner {
        Some(text) => reader.zero_or_more("corner", text, "a corner radius"),
        None => Some(0.0),
    };
    let open = match &cut.open {
        Some(OpenCorners::DogBone(text)) => {
            reader.size("open.dog_bone", text, "a tool radius").map(|radius| Some((radius, true)))
        }
        Some(OpenCorners::Overcut(text)) => {
            reader.size("open.overcut", text, "a tool radius").map(|radius| Some((radius, false)))
        }
        None => Some(None),
    };
    let (width, height, corner, open) = (width?, height?, corner?, open?);
    if corner > width.min(height) / 2.0 + MODELLING_TOLERANCE {
        let most = length_text(width.min(height) / 2.0, unit);
        reader.refuse(
            "corner",
            format!("a corner radius of {} does not fit: {most} is the most for this hole", length_text(corner, unit)),
            "Use a smaller radius or a larger hole.",
        );
        return None;
    }
    let Some((radius, bisector)) = open else { return Some(HoleShape::Rectangle(width, height, corner)) };
    let most = if bisector { width.min(height) / (2.0 * std::f64::consts::SQRT_2) } else { width.max(height) / 4.0 };
    if corner > 0.0 || radius > most - MODELLING_TOLERANCE {
        let message = if corner > 0.0 {
            format!("corners are rounded to {} and opened at once", length_text(corner, unit))
        } else {
            format!(
                "a tool radius of {} does not fit: below {} does",
                length_text(radius, unit),
                length_text(most, unit)
            )
        };
        reader.refuse("open", message, "Round the corners or open them, with a tool that fits.");
        return None;
    }
    Some(HoleShape::Opened { width, height, radius, bisector })
}

fn missing(reader: &mut Reader<'_>, field: &str, wanted: &str) -> Option<f64> {
    reader.refuse(field, format!("{wanted} is missing"), "Type it.");
    None
}

/// Reads where forms go, as holes do: panels, turn, place, rows or a pattern, mirror and what is left out. `shape` is what of the panel
/// each takes.
pub(in crate::sheet) fn read_form_places(
    reader: &mut Reader<'_>,
    form: &FormAction,
    shape: Option<HoleShape>,
) -> Option<HoleNumbers> {
    let turn = match &form.turn {
        Some(text) => reader.value("turn", text, Dimension::ANGLE, "a turn"),
        None => Some(0.0),
    };
    let place = read_place(reader, &form.place);
    let spread = read_spread(reader, &form.repeat, &form.pattern);
    if matches!(spread, Some(SpreadNumbers::Rim(_))) {
        let message = "a row along a rim is of holes: a form lies in one panel".into();
        reader.refuse("pattern.rim", message, "Use a row along an edge.");
        return None;
    }
    Some(HoleNumbers {
        panel: form.panel.to_string(),
        also: form.also.iter().map(ToString::to_string).collect(),
        reach: Reach::Panel,
        shape: shape?,
        turn: turn?,
        work: WorkNumbers::default(),
        place: place?,
        spread: spread?,
        mirror: mirrored(form.mirror),
        skip: form.skip.clone(),
    })
}

fn optional(reader: &mut Reader<'_>, field: &str, text: &Option<Expr>, wanted: &str) -> Option<Option<f64>> {
    match text {
        Some(text) => reader.size(field, text, wanted).map(Some),
        None => Some(None),
    }
}

fn mirrored(mirror: Option<Mirror>) -> (bool, bool) {
    match mirror {
        None => (false, false),
        Some(Mirror::Across) => (true, false),
        Some(Mirror::Up) => (false, true),
        Some(Mirror::Both) => (true, true),
    }
}

fn read_spread(reader: &mut Reader<'_>, repeat: &[Repeat], pattern: &Option<Pattern>) -> Option<SpreadNumbers> {
    let Some(pattern) = pattern else { return read_rows(reader, repeat).map(SpreadNumbers::Rows) };
    if !repeat.is_empty() {
        reader.refuse("pattern", "rows and a pattern are both given".into(), "Keep one of them.");
        return None;
    }
    match pattern {
        Pattern::Circle(circle) => {
            let count = reader.count("pattern.circle.count", &circle.count);
            let diameter = reader.size("pattern.circle.diameter", &circle.diameter, "a circle's diameter");
            let start = match &circle.start {
                Some(text) => reader.value("pattern.circle.start", text, Dimension::ANGLE, "a first angle"),
                None => Some(0.0),
            };
            let sweep = match &circle.sweep {
                Some(text) => reader.value("pattern.circle.sweep", text, Dimension::ANGLE, "an arc").map(Some),
                None => Some(None),
            };
            Some(SpreadNumbers::Circle(count?, diameter? / 2.0, start?, sweep?))
        }
        Pattern::Points(points) => {
            if points.is_empty() || points.len() > MOST_HOLES {
                let message = format!("{} places are given: 1 to {MOST_HOLES} is possible", points.len());
                reader.refuse("pattern.points", message, "Give a place, or take the pattern out.");
                return None;
            }
            let read: Vec<Option<Vector>> = points
                .iter()
                .enumerate()
                .map(|(at, point)| {
                    let x = reader.length(&format!("pattern.points.{at}.x"), &point.x, "a place across");
                    let y = reader.length(&format!("pattern.points.{at}.y"), &point.y, "a place up");
                    x.zip(y).map(|(x, y)| Vector::new(x, y))
                })
                .collect();
            Some(SpreadNumbers::Points(read.into_iter().collect::<Option<_>>()?))
        }
        Pattern::Along(row) => {
            let distance = reader.length("pattern.along.distance", &row.distance, "a distance from an edge");
            let inset = match &row.inset {
                Some(text) => reader.zero_or_more("pattern.along.inset", text, "an inset"),
                None => Some(0.0),
            };
            let last = match &row.last_inset {
                Some(text) => reader.zero_or_more("pattern.along.last_inset", text, "an inset"),
                None => inset,
            };
            let spaces = match (&row.count, &row.spaces, &row.pitch) {
                (Some(text), None, None) => along_count(reader, text, row.ends).map(Ok),
                (None, Some(text), None) => reader.count("pattern.along.spaces", text).map(Ok),
                (None, None, Some(text)) => reader.size("pattern.along.pitch", text, "a pitch").map(Err),
                _ => {
                    reader.refuse(
                        "pattern.along.spaces",
                        "a row along an edge takes a number of holes, a number of spaces or a pitch, one of them"
                            .into(),
                        "Keep the one that the drawing gives.",
                    );
                    None
                }
            };
            Some(SpreadNumbers::Along(AlongNumbers {
                edge: row.edge.to_string(),
                distance: distance?,
                spaces: spaces?,
                inset: (inset?, last?),
                ends: row.ends,
            }))
        }
        Pattern::Corners(corners) => {
            let distance =
                reader.zero_or_more("pattern.corners.distance", &corners.distance, "a distance from the edges");
            let other = match &corners.other {
                Some(text) => reader.zero_or_more("pattern.corners.other", text, "a distance from the edges"),
                None => distance,
            };
            Some(SpreadNumbers::Corners(distance?, other?))
        }
        Pattern::Between(grid) => {
            let columns = reader.count("pattern.between.columns", &grid.columns);
            let rows = reader.count("pattern.between.rows", &grid.rows);
            let distance = reader.zero_or_more("pattern.between.distance", &grid.distance, "a distance from the edges");
            let other = match &grid.other {
                Some(text) => reader.zero_or_more("pattern.between.other", text, "a distance from the edges"),
                None => distance,
            };
            let (columns, rows) = (columns?, rows?);
            if columns.checked_mul(rows).is_none_or(|all| all > MOST_HOLES) {
                reader.refuse(
                    "pattern.between.columns",
                    format!("this makes more than {MOST_HOLES} holes"),
                    "Check the counts.",
                );
                return None;
            }
            Some(SpreadNumbers::Between(columns, rows, distance?, other?))
        }
        Pattern::Rim(rim) => {
            let distance = reader.size("pattern.rim.distance", &rim.distance, "a distance");
            let spaces = match (&rim.spaces, &rim.pitch) {
                (Some(text), None) => reader.count("pattern.rim.spaces", text).map(Ok),
                (None, Some(text)) => reader.size("pattern.rim.pitch", text, "a pitch").map(Err),
                _ => {
                    let message = "a row on a rim takes a number of spaces or a pitch, one of them".into();
                    reader.refuse("pattern.rim.spaces", message, "Keep the one that the drawing gives.");
                    None
                }
            };
            let (from, corners) = (rim.from, rim.corners);
            Some(SpreadNumbers::Rim(RimRowNumbers { distance: distance?, from, spaces: spaces?, corners }))
        }
        Pattern::Fill(fill) => {
            let pitch = reader.size("pattern.fill.pitch", &fill.pitch, "a pitch");
            let margin = reader.zero_or_more("pattern.fill.margin", &fill.margin, "a margin");
            Some(SpreadNumbers::Fill(fill.rows, pitch?, margin?))
        }
    }
}

/// How many spaces a number of holes along an edge makes, with or without those at its ends.
fn along_count(reader: &mut Reader<'_>, text: &Expr, ends: bool) -> Option<usize> {
    let count = reader.count("pattern.along.count", text)?;
    if ends && count < 2 {
        reader.refuse(
            "pattern.along.count",
            "one hole has no other to share an edge with".into(),
            "Make two or more, or place a single hole by its distances.",
        );
        return None;
    }
    Some(if ends { count - 1 } else { count + 1 })
}

fn read_place(reader: &mut Reader<'_>, place: &Place) -> Option<PlaceNumbers> {
    if place.from.len() > 2 {
        reader.refuse(
            "place.from",
            format!("a place takes at most two distances; {} are given", place.from.len()),
            "Keep one for each direction; make call-outs of the others and let them be measured.",
        );
        return None;
    }
    if let Some(round) = &place.round {
        if !place.from.is_empty() || place.hole.is_some() {
            reader.refuse(
                "place.round",
                format!("a place in the middle of the round edge {} takes no other distances", round.edge),
                "Keep one of them.",
            );
            return None;
        }
        let distance = match &round.distance {
            Some(text) => reader.length("place.round.distance", text, "a distance from a round edge").map(Some),
            None => Some(None),
        };
        return Some(PlaceNumbers { round: Some((round.edge.to_string(), distance?)), ..PlaceNumbers::default() });
    }
    if let Some(hole) = &place.hole {
        if !place.from.is_empty() {
            reader.refuse(
                "place.hole",
                format!("a place is measured from edges or from the hole {}, not from both", hole.hole),
                "Keep one of them.",
            );
            return None;
        }
        let mut by = |field: &str, text: &Option<Expr>| match text {
            Some(text) => reader.length(&format!("place.hole.{field}"), text, "a distance from a hole"),
            None => Some(0.0),
        };
        let (x, y) = (by("x", &hole.x), by("y", &hole.y));
        let hole = Some((hole.hole.to_string(), Vector::new(x?, y?)));
        return Some(PlaceNumbers { hole, ..PlaceNumbers::default() });
    }
    let from: Vec<_> = place
        .from
        .iter()
        .enumerate()
        .map(|(at, one)| {
            reader
                .length(&format!("place.from.{at}.distance"), &one.distance, "a distance from an edge")
                .map(|distance| FromNumbers { edge: one.edge.to_string(), distance, to: one.to })
        })
        .collect();
    Some(PlaceNumbers { from: from.into_iter().collect::<Option<_>>()?, ..PlaceNumbers::default() })
}

fn read_rows(reader: &mut Reader<'_>, repeat: &[Repeat]) -> Option<Vec<RepeatNumbers>> {
    if repeat.len() > 2 {
        reader.refuse(
            "repeat",
            format!("a hole repeats at most two ways; {} are given", repeat.len()),
            "Make a second operation for the third.",
        );
        return None;
    }
    let rows: Vec<Option<RepeatNumbers>> = repeat
        .iter()
        .enumerate()
        .map(|(at, row)| {
            let count = reader.count(&format!("repeat.{at}.count"), &row.count);
            let spacing = reader.size(&format!("repeat.{at}.spacing"), &row.spacing, "a spacing");
            let along = row.along.as_ref().map(ToString::to_string);
            Some(RepeatNumbers { count: count?, spacing: spacing?, spacing_is: row.spacing_is, along })
        })
        .collect();
    let rows: Vec<RepeatNumbers> = rows.into_iter().collect::<Option<_>>()?;
    if rows.iter().try_fold(1usize, |all, row| all.checked_mul(row.count)).is_none_or(|all| all > MOST_HOLES) {
        reader.refuse("repeat", format!("this makes more than {MOST_HOLES} holes"), "Check the counts.");
        return None;
    }
    Some(rows)
}
