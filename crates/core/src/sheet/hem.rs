//! Hems: an edge folded back on itself.

use std::collections::BTreeMap;
use std::f64::consts::PI;

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::tolerance::NO_TURN;
use crate::quantity::{Dimension, LengthUnit, length_text};
use crate::work::sheet::{BendPosition, Direction, HemAction, HemStyle};

use super::flange::{Outward, flat_width, lay_along, straight_edge, tangent_position};
use super::flat::{BendMake, BendSizes, Flat};
use super::numbers::{MethodNumbers, ReliefNumbers};
use super::reader::Reader;

/// A hem in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct HemNumbers {
    pub edge: String,
    pub fold: HemFold,
    pub direction: Direction,
    pub position: BendPosition,
    pub set_in: BTreeMap<String, f64>,
    pub relief: Option<ReliefNumbers>,
    pub method: MethodNumbers,
}

/// How a hem is folded.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum HemFold {
    /// Turned by 180 deg about this inside radius; this long over all.
    Back {
        /// Inside radius: half its gap.
        radius: f64,
        /// From the fold's outside to the tip.
        length: f64,
    },
    /// Turned past 180 deg until its tip lies on the sheet.
    Teardrop {
        /// Inside radius.
        radius: f64,
        /// From the fold's outside to the tip.
        length: f64,
    },
    /// Curled by this angle, with no straight.
    Rolled {
        /// Inside radius.
        radius: f64,
        /// Radians.
        angle: f64,
    },
}

/// Reads a hem. `None` when a field was bad; the findings are in the reader.
pub(super) fn read_hem(reader: &mut Reader<'_>, given: &HemAction) -> Option<HemNumbers> {
    let fold = match &given.style {
        HemStyle::Closed(hem) => reader
            .size("style.closed.length", &hem.length, "a hem's length")
            .map(|length| HemFold::Back { radius: 0.0, length }),
        HemStyle::Open(hem) => {
            let length = reader.size("style.open.length", &hem.length, "a hem's length");
            let gap = reader.size("style.open.gap", &hem.gap, "a hem's gap");
            length.zip(gap).map(|(length, gap)| HemFold::Back { radius: gap / 2.0, length })
        }
        HemStyle::Teardrop(hem) => {
            let length = reader.size("style.teardrop.length", &hem.length, "a hem's length");
            let radius = reader.size("style.teardrop.radius", &hem.radius, "a hem's inside radius");
            length.zip(radius).map(|(length, radius)| HemFold::Teardrop { radius, length })
        }
        HemStyle::Rolled(hem) => {
            let radius = reader.size("style.rolled.radius", &hem.radius, "a hem's inside radius");
            let angle = match &hem.angle {
                Some(text) => reader.value("style.rolled.angle", text, Dimension::ANGLE, "a hem's angle"),
                None => Some(1.5 * PI),
            };
            let angle = angle.filter(|angle| {
                let fits = *angle > NO_TURN && *angle <= 350f64.to_radians();
                if !fits {
                    let shown = crate::quantity::angle_text(*angle);
                    reader.refuse(
                        "style.rolled.angle",
                        format!("a curl of {shown} cannot be made: above 0 and to 350 deg is"),
                        "270 deg is usual.",
                    );
                }
                fits
            });
            radius.zip(angle).map(|(radius, angle)| HemFold::Rolled { radius, angle })
        }
    };
    let set_in = reader.set_in(&given.set_in);
    let relief = reader.relief_or_none(&given.relief, 0.0);
    let method = match &given.method {
        Some(_) => reader.method_or_own(&given.method),
        None => Some(reader.given.method.formula().clone()),
    };
    Some(HemNumbers {
        edge: given.edge.to_string(),
        fold: fold?,
        direction: given.direction,
        position: given.position,
        set_in: set_in?,
        relief: relief?,
        method: method?,
    })
}

impl HemFold {
    /// Bend angle, inside radius and straight length, for a thickness.
    ///
    /// # Errors
    /// A length that the fold uses up.
    pub fn sizes(&self, thickness: f64, unit: LengthUnit) -> Result<(f64, f64, f64), Finding> {
        let show = |value: f64| length_text(value, unit);
        let too_short = |length: f64, least: f64, field: &str| {
            Err(Finding::error(
                format!("a hem of {} is too short: its fold takes {} of it", show(length), show(least)),
                format!("Make it longer than {}; about 4 T is usual.", show(least)),
            )
            .at_field(field))
        };
        match *self {
            HemFold::Back { radius, length } => {
                let straight = length - (radius + thickness);
                let field = if radius > 0.0 { "style.open.length" } else { "style.closed.length" };
                if straight <= MODELLING_TOLERANCE {
                    return too_short(length, radius + thickness, field);
                }
                Ok((PI, radius, straight))
            }
            HemFold::Teardrop { radius, length } => {
                // The straight falls toward the sheet by d past flat. From the fold's axis to the tip it is R / tan(d/2)
                // along the sheet, and R (1 + cos d) / sin d long itself, which is the same: the tip is the point that
                // both faces of the sheet's plane and of the straight touch the fold's circle from.
                let beyond = length - (radius + thickness);
                if beyond <= radius {
                    return too_short(length, 2.0 * radius + thickness, "style.teardrop.length");
                }
                let past = 2.0 * (radius / beyond).atan();
                Ok((PI + past, radius, beyond))
            }
            HemFold::Rolled { radius, angle } => Ok((angle, radius, 0.0)),
        }
    }
}

/// Hems an edge; returns notes.
pub(super) fn hem(flat: &mut Flat, name: &str, given: &HemNumbers, unit: LengthUnit) -> Result<Vec<Finding>, Finding> {
    let edge = straight_edge(flat, &given.edge)?;
    let thickness = flat.thickness;
    let (angle, radius, straight) = given.fold.sizes(thickness, unit)?;
    let (width, rule) = flat_width(angle, radius, thickness, &given.method, None, unit)?;
    let tangent_at = tangent_position(given.position, angle, radius, thickness);
    let mut pieces = vec![Outward::Curl {
        name: name.to_string(),
        sizes: BendSizes { angle, radius, direction: given.direction, width, rule, make: BendMake::Hem },
    }];
    if straight > MODELLING_TOLERANCE {
        pieces.push(Outward::Flat { name: name.to_string(), length: straight, past: (0.0, 0.0) });
    }
    lay_along(flat, name, edge, &given.set_in, tangent_at, given.relief.as_ref(), &pieces, unit)
}
