//! Joggles: two equal and opposite bends that set a sheet off by a height.

use std::collections::BTreeMap;
use std::f64::consts::FRAC_PI_2;

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::work::sheet::{BendPosition, Direction, JoggleAction};

use super::flange::{Outward, flat_width, lay_along, straight_edge, tangent_position};
use super::flat::{BendMake, BendSizes, Flat};
use super::numbers::{MethodNumbers, ReliefNumbers};
use super::reader::Reader;

/// A joggle in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct JoggleNumbers {
    pub edge: String,
    pub offset: f64,
    pub angle: f64,
    pub leg: f64,
    pub direction: Direction,
    pub position: BendPosition,
    pub radius: f64,
    pub set_in: BTreeMap<String, f64>,
    pub relief: Option<ReliefNumbers>,
    pub method: MethodNumbers,
}

/// Reads a joggle. `None` when a field was bad; the findings are in the reader.
pub(super) fn read_joggle(reader: &mut Reader<'_>, given: &JoggleAction) -> Option<JoggleNumbers> {
    let offset = reader.size("offset", &given.offset, "an offset");
    let angle = match &given.angle {
        Some(text) => reader.bend_angle("angle", text),
        None => Some(FRAC_PI_2),
    };
    let leg = reader.size("leg", &given.leg, "a leg length");
    let radius = reader.radius(&given.radius);
    let set_in = reader.set_in(&given.set_in);
    let relief = reader.relief_or_none(&given.relief, radius.unwrap_or_default());
    let method = reader.method_or_own(&given.method);
    Some(JoggleNumbers {
        edge: given.edge.to_string(),
        offset: offset?,
        angle: angle?,
        leg: leg?,
        direction: given.direction,
        position: given.position,
        radius: radius?,
        set_in: set_in?,
        relief: relief?,
        method: method?,
    })
}

/// Straight length of the web between two equal and opposite bends that set a sheet off by `offset`:
/// (h - (2R + T)(1 - cos A)) / sin A, since each bend lifts the middle of the metal by (R + T/2)(1 - cos A).
pub fn web_length(offset: f64, angle: f64, radius: f64, thickness: f64) -> f64 {
    (offset - (2.0 * radius + thickness) * (1.0 - angle.cos())) / angle.sin()
}

/// Joggles an edge; returns notes.
pub(super) fn joggle(
    flat: &mut Flat,
    name: &str,
    given: &JoggleNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let show = |value: f64| length_text(value, unit);
    let edge = straight_edge(flat, &given.edge)?;
    let thickness = flat.thickness;
    if given.angle > 135f64.to_radians() {
        return Err(Finding::error(
            format!("a joggle of {} folds back on itself", angle_text(given.angle)),
            "A joggle's bends are 90 deg or less.",
        )
        .at_field("angle"));
    }
    let web = web_length(given.offset, given.angle, given.radius, thickness);
    if web < -MODELLING_TOLERANCE {
        let least = (2.0 * given.radius + thickness) * (1.0 - given.angle.cos());
        return Err(Finding::error(
            format!(
                "two bends of {} at an inside radius of {} set the sheet off by {} at least; {} is wanted",
                angle_text(given.angle),
                show(given.radius),
                show(least),
                show(given.offset)
            ),
            "Make the angle or the radius smaller, or the offset larger.",
        )
        .at_field("offset"));
    }
    let (width, rule) = flat_width(given.angle, given.radius, thickness, &given.method, None, unit)?;
    let back = match given.direction {
        Direction::Up => Direction::Down,
        Direction::Down => Direction::Up,
    };
    let curl = |own: String, direction: Direction| Outward::Curl {
        name: own,
        sizes: BendSizes {
            angle: given.angle,
            radius: given.radius,
            direction,
            width,
            rule: rule.clone(),
            make: BendMake::Brake,
        },
    };
    let first = format!("{name}.web");
    let mut pieces = vec![curl(first.clone(), given.direction)];
    if web > MODELLING_TOLERANCE {
        pieces.push(Outward::Flat { name: first, length: web, past: (0.0, 0.0) });
    }
    pieces.push(curl(name.to_string(), back));
    pieces.push(Outward::Flat { name: name.to_string(), length: given.leg, past: (0.0, 0.0) });
    let tangent_at = tangent_position(given.position, given.angle, given.radius, thickness);
    lay_along(flat, name, edge, &given.set_in, tangent_at, given.relief.as_ref(), &pieces, unit)
}
