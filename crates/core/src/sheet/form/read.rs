//! From the text of a form to its numbers.

use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::quantity::{Dimension, Expr, angle_text, length_text};
use crate::sheet::hole::{HoleShape, read_form_places};
use crate::sheet::reader::Reader;
use crate::sheet::shape::read_shape;
use crate::stock::stock;
use crate::work::sheet::{Face, FormAction, FormShape, LouvreSide};

use super::{FormNumbers, Pressed};

/// Slopes that a tool can press, degrees.
const SLOPES: (f64, f64) = (15.0, 90.0);
/// Sides of fields, and ends of louvres, where nothing is typed, degrees (common practice).
const USUAL_SIDE: f64 = 45.0;
const USUAL_END: f64 = 60.0;
/// A knock-out is pushed by so much of the sheet where nothing is typed (common practice).
const USUAL_PUSH: f64 = 0.5;
/// A collar is drawn down to so much of the sheet where nothing is typed (common practice).
const USUAL_WALL: f64 = 0.5;

/// Reads a form. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_form(reader: &mut Reader<'_>, form: &FormAction) -> Option<FormNumbers> {
    let read = shape(reader, &form.shape);
    let (pressed, footprint) = read.map_or((None, None), |(pressed, footprint)| (Some(pressed), Some(footprint)));
    let places = read_form_places(reader, form, footprint);
    let toward = matches!(&form.shape, FormShape::Louvre(louvre) if louvre.opens == LouvreSide::Toward);
    Some(FormNumbers { places: places?, shape: pressed?, up: form.out_of == Face::Top, toward })
}

fn slope(reader: &mut Reader<'_>, field: &str, text: Option<&Expr>, usual: f64) -> Option<f64> {
    let Some(text) = text else { return Some(usual.to_radians()) };
    let value = reader.value(field, text, Dimension::ANGLE, "a slope")?;
    if value < SLOPES.0.to_radians() - MODELLING_TOLERANCE || value > SLOPES.1.to_radians() + MODELLING_TOLERANCE {
        let message =
            format!("a slope of {} cannot be pressed: {} to {} deg can", angle_text(value), SLOPES.0, SLOPES.1);
        reader.refuse(field, message, "Check the angle; upright sides have 90 deg.");
        return None;
    }
    Some(value)
}

fn shape(reader: &mut Reader<'_>, shape: &FormShape) -> Option<(Pressed, HoleShape)> {
    match shape {
        FormShape::Louvre(louvre) => {
            let length = reader.size("shape.louvre.length", &louvre.length, "a louvre's length");
            let width = reader.size("shape.louvre.width", &louvre.width, "a louvre's width");
            let height = reader.size("shape.louvre.height", &louvre.height, "a louvre's height");
            let side = slope(reader, "shape.louvre.side", louvre.side.as_ref(), USUAL_END);
            let (length, width, height, side) = (length?, width?, height?, side?);
            Some((Pressed::Louvre { length, width, height, side }, HoleShape::Rectangle(length, width, 0.0)))
        }
        FormShape::Bead(bead) => {
            let length = reader.size("shape.bead.length", &bead.length, "a bead's length");
            let width = reader.size("shape.bead.width", &bead.width, "a bead's width");
            let height = reader.size("shape.bead.height", &bead.height, "a bead's height");
            let side = slope(reader, "shape.bead.side", bead.side.as_ref(), USUAL_SIDE);
            let (length, width, height, side) = (length?, width?, height?, side?);
            if length - width < MODELLING_TOLERANCE {
                let unit = reader.given.names.show;
                let (long, wide) = (length_text(length, unit), length_text(width, unit));
                let message = format!("a bead {long} long and {wide} wide is not longer than it is wide");
                reader.refuse("shape.bead.length", message, "Turn the two round, or press a dimple.");
                return None;
            }
            Some((Pressed::Raised { word: "bead", height, side }, HoleShape::Slot(length - width, width)))
        }
        FormShape::Dimple(dimple) => {
            let diameter = reader.size("shape.dimple.diameter", &dimple.diameter, "a dimple's diameter");
            let height = reader.size("shape.dimple.height", &dimple.height, "a dimple's height");
            let side = slope(reader, "shape.dimple.side", dimple.side.as_ref(), USUAL_SIDE);
            Some((Pressed::Raised { word: "dimple", height: height?, side: side? }, HoleShape::Round(diameter?)))
        }
        FormShape::Raised(field) => {
            let laid = read_shape(reader, "shape.raised.outline", &field.outline);
            let height = reader.size("shape.raised.height", &field.height, "a field's height");
            let side = slope(reader, "shape.raised.side", field.side.as_ref(), USUAL_SIDE);
            let (laid, height, side) = (laid?, height?, side?);
            if !laid.holes.is_empty() {
                let message = "the outline of a raised field has holes of its own".into();
                reader.refuse("shape.raised.outline", message, "Give a shape without holes.");
                return None;
            }
            Some((Pressed::Raised { word: "raised field", height, side }, HoleShape::Outline(Box::new(laid))))
        }
        FormShape::KnockOut(disc) => {
            let diameter = reader.size("shape.knock_out.diameter", &disc.diameter, "a knock-out's diameter");
            let height = match &disc.height {
                Some(text) => reader.size("shape.knock_out.height", text, "how far a knock-out is pushed"),
                None => Some(USUAL_PUSH * reader.given.thickness),
            };
            Some((Pressed::KnockOut { height: height? }, HoleShape::Round(diameter?)))
        }
        FormShape::Extruded(hole) => extruded(reader, hole),
    }
}

/// The pilot has the metal of the collar: pi (ri2 - rp2) T = pi (ro2 - ri2) h, volume kept (common practice).
fn extruded(reader: &mut Reader<'_>, hole: &crate::work::sheet::ExtrudedForm) -> Option<(Pressed, HoleShape)> {
    let thickness = reader.given.thickness;
    let height = reader.size("shape.extruded.height", &hole.height, "a collar's height");
    let wall = match &hole.wall {
        Some(text) => reader.size("shape.extruded.wall", text, "a collar's wall"),
        None => Some(USUAL_WALL * thickness),
    };
    let (inside, thread) = match (&hole.diameter, &hole.thread) {
        (Some(text), None) => (reader.size("shape.extruded.diameter", text, "a hole's diameter"), None),
        (None, Some(name)) => {
            let Some(thread) = stock().thread(name) else {
                let known: Vec<&str> = stock().threads.iter().map(|one| one.name.as_str()).collect();
                reader.refuse(
                    "shape.extruded.thread",
                    format!("there is no thread {} in the table", name.trim()),
                    &format!("The threads are {}.", known.join(", ")),
                );
                return None;
            };
            (Some(thread.tap_drill), Some(thread))
        }
        _ => {
            let message = "an extruded hole has a diameter or a thread, one of them".into();
            reader.refuse("shape.extruded.diameter", message, "Say one of them.");
            return None;
        }
    };
    let (inside, height, wall) = (inside?, height?, wall?);
    let (inner, outer) = (inside / 2.0, inside / 2.0 + wall);
    let left = inner * inner - (outer * outer - inner * inner) * height / thickness;
    let show = |value: f64| length_text(value, reader.given.names.show);
    if left <= MODELLING_TOLERANCE {
        let most = inner * inner * thickness / (outer * outer - inner * inner);
        let message = format!(
            "a collar {} high and {} thick takes more metal than a hole of {} has: {} is the most",
            show(height),
            show(wall),
            show(inside),
            show(most)
        );
        reader.refuse("shape.extruded.height", message, "Make it lower, its wall thinner, or the hole larger.");
        return None;
    }
    let pilot = 2.0 * left.sqrt();
    Some((Pressed::Extruded { inside, wall, height, pilot, thread }, HoleShape::Round(2.0 * outer)))
}
