//! A rolled arc with its leads, or a tube: one wide strip.

use std::f64::consts::TAU;

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::tolerance::{NO_TURN, ROUNDING};
use crate::quantity::{Dimension, Expr, LengthUnit, angle_text, length_text};
use crate::sheet::flange::flat_width;
use crate::sheet::flat::{BendMake, BendSizes};
use crate::sheet::numbers::MethodNumbers;
use crate::sheet::reader::Reader;
use crate::work::sheet::{Direction, RollAction, RollFace, RollSpan, WidthFrom};

use super::link::{Chain, ChainLink};
use super::profile::extent;

/// A rolled arc in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct RollNumbers {
    pub radius: f64,
    pub to: RollFace,
    pub size: RollSize,
    pub lead_in: f64,
    pub lead_out: f64,
    pub width: f64,
    pub width_from: WidthFrom,
    pub direction: Direction,
    pub method: MethodNumbers,
}

/// How far an arc is rolled, in numbers.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum RollSize {
    /// Radians.
    Angle(f64),
    /// Length of the arc, mm.
    Arc(f64),
    /// Chord, mm.
    Chord(f64),
    /// Gap of a whole tube's seam, mm.
    Tube(f64),
}

/// Reads a rolled arc. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_roll(reader: &mut Reader<'_>, given: &RollAction) -> Option<RollNumbers> {
    let radius = reader.size("radius", &given.radius, "a radius");
    let size = match &given.span {
        RollSpan::Angle(text) => reader.value("span.angle", text, Dimension::ANGLE, "an angle").map(RollSize::Angle),
        RollSpan::Arc(text) => reader.size("span.arc", text, "the length of an arc").map(RollSize::Arc),
        RollSpan::Chord(text) => reader.size("span.chord", text, "a chord").map(RollSize::Chord),
        RollSpan::Tube(text) => reader.zero_or_more("span.tube", text, "a seam's gap").map(RollSize::Tube),
    };
    let mut lead = |field: &str, text: &Option<Expr>| match text {
        Some(text) => reader.zero_or_more(field, text, "a lead"),
        None => Some(0.0),
    };
    let (lead_in, lead_out) = (lead("lead_in", &given.lead_in), lead("lead_out", &given.lead_out));
    let width = reader.size("width", &given.width, "a width");
    let method = match &given.method {
        Some(_) => reader.method_or_own(&given.method),
        None => Some(MethodNumbers::KFactor {
            k: 0.5,
            source: "rolled: the middle of the metal keeps its length (DIN 6935 from R/T = 5)".into(),
        }),
    };
    Some(RollNumbers {
        radius: radius?,
        to: given.to,
        size: size?,
        lead_in: lead_in?,
        lead_out: lead_out?,
        width: width?,
        width_from: given.width_from,
        direction: given.direction,
        method: method?,
    })
}

impl RollNumbers {
    /// The chain of this arc.
    ///
    /// # Errors
    /// A radius too tight for the metal; an angle, arc or chord that no arc has; a gap as wide as the tube.
    pub(in crate::sheet) fn chain(&self, operation: &str, thickness: f64, unit: LengthUnit) -> Result<Chain, Finding> {
        let show = |value: f64| length_text(value, unit);
        let inside = match self.to {
            RollFace::Inside => self.radius,
            RollFace::Middle => self.radius - thickness / 2.0,
            RollFace::Outside => self.radius - thickness,
        };
        if inside <= MODELLING_TOLERANCE {
            return Err(Finding::error(
                format!("a radius of {} leaves no inside for {} of metal", show(self.radius), show(thickness)),
                "Make the radius larger, or measure it to another face.",
            )
            .at_field("radius"));
        }
        let (angle, field) = match self.size {
            RollSize::Angle(angle) => (angle, "span.angle"),
            RollSize::Arc(length) => (length / self.radius, "span.arc"),
            RollSize::Chord(chord) => {
                if chord > 2.0 * self.radius + MODELLING_TOLERANCE {
                    return Err(Finding::error(
                        format!(
                            "a chord of {} is longer than the circle is wide: {}",
                            show(chord),
                            show(2.0 * self.radius)
                        ),
                        "Check the chord against the radius, and what both are measured to.",
                    )
                    .at_field("span.chord"));
                }
                (2.0 * (chord / 2.0 / self.radius).min(1.0).asin(), "span.chord")
            }
            RollSize::Tube(gap) => {
                if gap >= inside {
                    return Err(Finding::error(
                        format!("a seam's gap of {} is no seam of a tube of {} inside radius", show(gap), show(inside)),
                        "Make the gap smaller, or roll an arc by its angle.",
                    )
                    .at_field("span.tube"));
                }
                if self.lead_in > 0.0 || self.lead_out > 0.0 {
                    return Err(Finding::error(
                        "a tube has no leads: its seam is where the arc ends",
                        "Take the leads out, or roll an arc by its angle.",
                    )
                    .at_field("lead_in"));
                }
                (TAU - 2.0 * (gap / 2.0 / inside).asin(), "span.tube")
            }
        };
        if !(angle > NO_TURN && angle <= TAU + ROUNDING) {
            return Err(Finding::error(
                format!("an arc of {} cannot be rolled: above 0 and to 360 deg is", angle_text(angle)),
                "Check the length against the radius.",
            )
            .at_field(field));
        }
        let angle = angle.min(TAU);
        let (width, rule) =
            flat_width(angle, inside, thickness, &self.method, None, unit).map_err(|fault| fault.at_field("method"))?;
        let mut links = Vec::new();
        if self.lead_in > MODELLING_TOLERANCE {
            links.push(ChainLink::Flat { name: format!("{operation}.lead-in"), length: self.lead_in });
        }
        let sizes = BendSizes { angle, radius: inside, direction: self.direction, width, rule, make: BendMake::Roll };
        links.push(ChainLink::Curl { name: Some(operation.to_string()), sizes });
        if self.lead_out > MODELLING_TOLERANCE {
            links.push(ChainLink::Flat { name: format!("{operation}.lead-out"), length: self.lead_out });
        }
        Ok(Chain { operation: operation.to_string(), links, root: 0, width: extent(self.width, self.width_from) })
    }
}
