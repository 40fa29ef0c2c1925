//! From the text of ribs to their numbers.

use crate::quantity::{Dimension, angle_text};
use crate::sheet::reader::Reader;
use crate::work::sheet::{RibAction, RibPlace, RibRidge};

use super::{RibLegsNumbers, RibNumbers, RibRow};

/// Lean of a rib's sides where none is typed, degrees (common practice).
const USUAL_DRAFT: f64 = 15.0;
/// The most that sides lean, degrees.
const MOST_DRAFT: f64 = 60.0;

/// Reads ribs. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_rib(reader: &mut Reader<'_>, given: &RibAction) -> Option<RibNumbers> {
    let panel = reader.size("panel_leg", &given.panel_leg, "a rib's leg on the panel");
    let other = match (&given.flange_leg, &given.angle) {
        (Some(text), None) => {
            let leg = reader.size("flange_leg", text, "a rib's leg on the flange");
            leg.map(|leg| (false, leg))
        }
        (None, Some(text)) => {
            let angle = reader.value("angle", text, Dimension::ANGLE, "a ridge's angle")?;
            Some((true, angle))
        }
        _ => {
            let message = "a rib has two legs, or one and an angle".into();
            reader.refuse("flange_leg", message, "Say the leg on the flange or the angle to the panel, one of them.");
            None
        }
    };
    let width = reader.size("width", &given.width, "a rib's width");
    let draft = match &given.draft {
        None => Some(USUAL_DRAFT.to_radians()),
        Some(text) => reader.value("draft", text, Dimension::ANGLE, "a draft").filter(|value| {
            let fits = *value >= 0.0 && *value <= MOST_DRAFT.to_radians();
            if !fits {
                let message = format!("a draft of {} cannot be pressed: 0 to {MOST_DRAFT} deg can", angle_text(*value));
                reader.refuse("draft", message, "It is how far the sides lean from square to the ridge.");
            }
            fits
        }),
    };
    let radius = match &given.radius {
        None => Some(None),
        Some(text) => reader.zero_or_more("radius", text, "a radius of a rib's edges").map(Some),
    };
    let row = row(reader, given);
    let ((by_angle, other), panel) = (other?, panel?);
    let legs = if by_angle { RibLegsNumbers::Angle(panel, other) } else { RibLegsNumbers::Both(panel, other) };
    Some(RibNumbers {
        bend: given.bend.to_string(),
        legs,
        width: width?,
        is_round: given.ridge == RibRidge::Round,
        draft: draft?,
        radius: radius?,
        row: row?,
        skip: given.skip.clone(),
    })
}

fn row(reader: &mut Reader<'_>, given: &RibAction) -> Option<RibRow> {
    let mut end = |field: &str, text: &Option<crate::quantity::Expr>| match text {
        None => Some(None),
        Some(text) => reader.zero_or_more(field, text, "a distance from the bend's end").map(Some),
    };
    let (at, last) = (end("at", &given.at), end("last", &given.last));
    let count = match &given.count {
        None => Some(None),
        Some(text) => reader.count("count", text).map(Some),
    };
    let pitch = match &given.pitch {
        None => Some(None),
        Some(text) => reader.size("pitch", text, "a pitch").map(Some),
    };
    Some(RibRow {
        from: given.from.as_ref().map(ToString::to_string),
        at: at?,
        last: last?,
        to_edge: given.at_is == RibPlace::Edge,
        count: count?,
        pitch: pitch?,
    })
}
