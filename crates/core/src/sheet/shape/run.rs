//! A chain of legs as a drawing gives them.

use std::f64::consts::{PI, TAU};

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point, Vector};
use crate::quantity::{LengthUnit, length_text};

use super::laid::Laid;
use super::ready::bulge;

/// One leg in numbers, mm and radians.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::sheet) enum Leg {
    /// Length; its direction where given, else its turn from the leg before it.
    Line { length: f64, direction: Option<f64>, turn: f64 },
    /// Radius, signed sweep, and a turn before it begins.
    Arc { radius: f64, sweep: f64, turn: f64 },
    /// A point that it passes and its end, both from its start.
    Through { through: Vector, end: Vector },
}

/// Walks the legs and closes them.
///
/// # Errors
/// As [`walk`]; an end that does not meet the start while `close` is off.
pub(super) fn run(legs: &[(String, Leg)], close: bool, unit: LengthUnit) -> Result<Laid, Finding> {
    let (mut edges, place) = walk(legs)?;
    let gap = place.distance(Point::default());
    if gap > MODELLING_TOLERANCE {
        if !close {
            return Err(Finding::error(
                format!(
                    "the run ends {} from its start: {} across and {} up of it",
                    length_text(gap, unit),
                    length_text(place.x, unit),
                    length_text(place.y, unit)
                ),
                "Correct a leg, add the one that is missing, let a straight leg close it, or leave it open.",
            )
            .at_field("legs"));
        }
        edges.push((place, 0.0, "close".into()));
    }
    // What rounding left between the last end and the first start goes into the last leg: outlines hold starts only.
    Ok(Laid::from_edges(&edges))
}

/// Legs laid end to end: where each begins, its bulge, its name.
pub(in crate::sheet) type Chain = Vec<(Point, f64, String)>;

/// Walks the legs from the origin, the first along x. Returns where each begins with its bulge, and where the last ends.
///
/// # Errors
/// Three points on one line.
pub(in crate::sheet) fn walk(legs: &[(String, Leg)]) -> Result<(Chain, Point), Finding> {
    let mut edges: Chain = Vec::new();
    let mut place = Point::default();
    let mut heading = 0.0f64;
    for (at, (name, leg)) in legs.iter().enumerate() {
        let start = place;
        let mut arc = 0.0;
        match *leg {
            Leg::Line { length, direction, turn } => {
                heading = direction.unwrap_or(heading + turn);
                place = place + Vector::new(heading.cos(), heading.sin()) * length;
            }
            Leg::Arc { radius, sweep, turn } => {
                heading += turn;
                let side = if sweep > 0.0 { 1.0 } else { -1.0 };
                let to_centre = Vector::new(heading.cos(), heading.sin()).left() * (side * radius);
                let centre = place + to_centre;
                let arm = place - centre;
                let (sin, cos) = sweep.sin_cos();
                place = centre + Vector::new(arm.x * cos - arm.y * sin, arm.x * sin + arm.y * cos);
                heading += sweep;
                arc = bulge(sweep);
            }
            Leg::Through { through, end } => {
                let turn = through.cross(end);
                if turn.abs() <= MODELLING_TOLERANCE * end.length().max(through.length()).max(1.0) {
                    return Err(Finding::error(
                        format!("{name} starts, passes and ends on one line, so it is no arc"),
                        "Move the point that it passes away from the line, or make it a straight leg.",
                    )
                    .at_field(format!("legs.{at}")));
                }
                // Half of the sweep beyond the point equals the angle seen from it (angle at the circumference).
                let seen = (-through).cross(end - through).atan2((-through).dot(end - through));
                let sweep = if seen > 0.0 { 2.0 * (seen - PI) } else { 2.0 * (seen + PI) };
                arc = bulge(sweep);
                place = place + end;
                // An arc leaves its chord turned by half its sweep and arrives turned by the other half.
                heading = end.y.atan2(end.x) + sweep / 2.0;
            }
        }
        heading = (heading + PI).rem_euclid(TAU) - PI;
        edges.push((start, arc, name.clone()));
    }
    Ok((edges, place))
}
