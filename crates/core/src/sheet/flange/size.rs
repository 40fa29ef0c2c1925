//! What a flange's numbers come to on its edge: bend angle, flat width, length of its straight.

use std::f64::consts::PI;

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::tolerance::NO_TURN;
use crate::quantity::{Amount, LengthUnit, angle_text, length_text};
use crate::sheet::bending::{self, AllowanceRule};
use crate::sheet::flat::{EdgeRecord, Flat};
use crate::sheet::fold::Folded;
use crate::sheet::numbers::{AngleNumbers, BendNumbers, LegNumbers, MethodNumbers};
use crate::space::{Motion, Point3, Vector3};
use crate::stock::TableGives;
use crate::work::sheet::{BendPosition, Direction, LegTo};

use super::lay::EdgeFrame;

/// Flat width of a bend and how it was found. `leg_to` is what its leg is measured to, for a deduction.
///
/// # Errors
/// A table or curve that does not reach the bend; a width that the metal of this bend cannot have.
pub(in crate::sheet) fn flat_width(
    angle: f64,
    radius: f64,
    thickness: f64,
    method: &MethodNumbers,
    leg_to: Option<LegTo>,
    unit: LengthUnit,
) -> Result<(f64, AllowanceRule), Finding> {
    // A deduction is counted from outside legs, whichever way this leg was typed.
    let deduction_setback = || match leg_to {
        Some(LegTo::Mould) => bending::mould_setback(angle, radius, thickness),
        _ => bending::outside_setback(angle, radius, thickness),
    };
    let (width, rule, field) = match method {
        MethodNumbers::KFactor { k, source } => (
            bending::allowance(angle, radius, *k, thickness),
            AllowanceRule::KFactor { k: *k, source: source.clone() },
            "method.k_factor",
        ),
        MethodNumbers::Allowance(allowance) => (*allowance, AllowanceRule::Allowance, "method.allowance"),
        MethodNumbers::Deduction(deduction) => {
            let setback = deduction_setback();
            let rule = AllowanceRule::Deduction { deduction: *deduction, setback };
            (2.0 * setback - deduction, rule, "method.deduction")
        }
        MethodNumbers::Din6935 => {
            (bending::din_6935_allowance(angle, radius, thickness), AllowanceRule::Din6935, "method")
        }
        MethodNumbers::Curve(points) => {
            let (k, words) = bending::k_on_curve(points, radius / thickness).map_err(|message| {
                Finding::error(message, "Give the curve a point there, or this bend a K-factor of its own.")
                    .at_field("method.k_curve")
            })?;
            (bending::allowance(angle, radius, k, thickness), AllowanceRule::Curve { k, words }, "method.k_curve")
        }
        MethodNumbers::Table { table, family, die, .. } => {
            let reading = table
                .read(*family, thickness, *die, radius, angle.to_degrees(), unit)
                .map_err(|fault| Finding::error(fault.message, fault.way_out).at_field("method"))?;
            let (width, shown) = match table.gives {
                TableGives::Deduction => (
                    2.0 * bending::outside_setback(angle, radius, thickness) - reading.value,
                    unit.says(Amount::Length, reading.value, 4),
                ),
                TableGives::Allowance => (reading.value, unit.says(Amount::Length, reading.value, 4)),
                TableGives::KFactor => (
                    bending::allowance(angle, radius, reading.value, thickness),
                    crate::quantity::decimal(reading.value, 4),
                ),
            };
            let source = match table.source.is_empty() {
                true => table.name.clone(),
                false => format!("{} ({})", table.name, table.source),
            };
            let figure = format!("{} {shown}", table.gives.words());
            (width, AllowanceRule::Table { source, words: reading.words, figure }, "method")
        }
    };
    // DIN 6935 sets the correction of shallow bends to zero: the two setbacks, a hair more than the outside's arc.
    let most = match rule {
        AllowanceRule::Din6935 => {
            (angle * (radius + thickness)).max(2.0 * bending::mould_setback(angle.min(1.0), radius, thickness))
        }
        _ => angle * (radius + thickness),
    };
    if width <= MODELLING_TOLERANCE || width > most + MODELLING_TOLERANCE {
        let show = |value: f64| length_text(value, unit);
        return Err(Finding::error(
            format!(
                "the bend comes to {} of flat; the metal of this bend is between {} (inside) and {} (outside) long",
                show(width),
                show(angle * radius),
                show(most)
            ),
            "Check the allowance, deduction or K-factor against the angle and the radius.",
        )
        .at_field(field));
    }
    Ok((width, rule))
}

/// Where the parent's tangent line lies, outward from the edge, mm.
pub(in crate::sheet) fn tangent_position(position: BendPosition, angle: f64, radius: f64, thickness: f64) -> f64 {
    match position {
        BendPosition::MaterialInside => -bending::outside_setback(angle, radius, thickness),
        BendPosition::MaterialOutside => -bending::inside_setback(angle, radius),
        BendPosition::BendOutside => 0.0,
    }
}

/// A panel's edge where it stands in the folded part: unit vectors along it, out of its panel, and up.
pub(super) struct Stand {
    along: Vector3,
    outward: Vector3,
    up: Vector3,
    motion: Motion,
}

impl Stand {
    pub(super) fn new(folded: &Folded, panel: usize, frame: &EdgeFrame) -> Option<Stand> {
        let motion = *folded.motion(panel)?;
        let turn = |v: crate::plane::Vector| motion.direction(Vector3::new(v.x, v.y, 0.0));
        Some(Stand {
            along: turn(frame.along),
            outward: turn(frame.outward),
            up: motion.direction(Vector3::new(0.0, 0.0, 1.0)),
            motion,
        })
    }

    /// Unit vector along a flange that is bent by this angle, away from the bend.
    fn away(&self, angle: f64, direction: Direction) -> Vector3 {
        let (sine, cosine) = angle.sin_cos();
        match direction {
            Direction::Up => self.outward * cosine + self.up * sine,
            Direction::Down => self.outward * cosine - self.up * sine,
        }
    }
}

/// What asks for the folded part finds none: its edge is on no panel.
fn not_folded() -> Finding {
    Finding::error(
        "this edge does not stand on a folded panel",
        "Name a panel's edge, or give angle and leg as numbers.",
    )
    .at_field("edge")
}

/// The bend angle of a flange on this edge, radians.
///
/// # Errors
/// A panel that is not there, or to which no bend along this edge can stand so.
pub(super) fn bend_angle(flat: &Flat, place: Option<(&Folded, &Stand)>, given: &BendNumbers) -> Result<f64, Finding> {
    let (panel_name, square) = match &given.angle {
        AngleNumbers::Bend(angle) => return Ok(*angle),
        AngleNumbers::Parallel(panel) => (panel, false),
        AngleNumbers::Square(panel) => (panel, true),
    };
    let field = if square { "stands.square" } else { "stands.parallel" };
    let panel = flat.find_panel(panel_name).map_err(|fault| fault.at_field(field))?;
    let Some((folded, stand)) = place else { return Err(not_folded()) };
    let motion = folded.motion(panel).ok_or_else(not_folded)?;
    let normal = motion.direction(Vector3::new(0.0, 0.0, 1.0));
    let (out, up) = (normal.dot(stand.outward), normal.dot(stand.up));
    let word = if square { "square" } else { "parallel" };
    let cannot = |way_out: &str| {
        Err(Finding::error(format!("no bend along this edge stands {word} to {panel_name}"), way_out).at_field(field))
    };
    if (!square && normal.dot(stand.along).abs() > NO_TURN) || out.hypot(up) < NO_TURN {
        return cannot("Give the bend its angle as a number.");
    }
    let side = if given.direction == Direction::Up { 1.0 } else { -1.0 };
    // The flange's own normal is (-side sin A, cos A) in (outward, up).
    let angle = if square { (side * up).atan2(out) } else { (-side * out).atan2(up) };
    let angle = angle.rem_euclid(PI);
    if !(NO_TURN..=PI - NO_TURN).contains(&angle) {
        return cannot("The panel lies so already: a flange there needs an angle of its own.");
    }
    Ok(angle)
}

/// The straight length of a flange past its second tangent line, mm.
///
/// # Errors
/// A leg that its bend uses up; something to reach that is not there, lies the other way, or is never met.
pub(super) fn straight_length(
    flat: &Flat,
    place: Option<(&Folded, &Stand)>,
    frame: &EdgeFrame,
    angle: f64,
    given: &BendNumbers,
    unit: LengthUnit,
) -> Result<f64, Finding> {
    let show = |value: f64| length_text(value, unit);
    let thickness = flat.thickness;
    let (leg, leg_to) = match &given.leg {
        LegNumbers::Length(leg) => (*leg, given.leg_to),
        LegNumbers::UpTo { feature, gap } => {
            let (folded, stand) = place.ok_or_else(not_folded)?;
            let straight = reach(flat, folded, stand, frame, angle, given, feature)? - gap;
            if straight <= MODELLING_TOLERANCE {
                return Err(Finding::error(
                    format!("{feature} is not in front of this flange: {} of straight would be left", show(straight)),
                    "Turn the flange the other way, make the gap smaller, or name something further off.",
                )
                .at_field("up_to.feature"));
            }
            return Ok(straight);
        }
    };
    let setback = match leg_to {
        LegTo::Outside => bending::outside_setback(angle, given.radius, thickness),
        LegTo::Inside => bending::inside_setback(angle, given.radius),
        LegTo::Mould if angle > 175f64.to_radians() => {
            return Err(Finding::error(
                format!("a bend of {} has no mould line to measure its leg to", angle_text(angle)),
                "Measure the leg outside or inside: above 90 deg that is to the bend's outermost tangent.",
            )
            .at_field("leg_to"));
        }
        LegTo::Mould => bending::mould_setback(angle, given.radius, thickness),
        LegTo::Tangent => 0.0,
    };
    let straight = leg - setback;
    if straight <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!("a leg of {} leaves no flat: this bend takes {} of it", show(leg), show(setback)),
            format!("Make the leg longer than {}, or the inside radius smaller.", show(setback)),
        )
        .at_field("leg"));
    }
    Ok(straight)
}

/// How far a flange runs from its second tangent line before its end meets something.
fn reach(
    flat: &Flat,
    folded: &Folded,
    stand: &Stand,
    frame: &EdgeFrame,
    angle: f64,
    given: &BendNumbers,
    name: &str,
) -> Result<f64, Finding> {
    let thickness = flat.thickness;
    let tangent_at = tangent_position(given.position, angle, given.radius, thickness);
    let start = frame.place(0.0, tangent_at);
    let start = stand.motion.apply(Point3::new(start.x, start.y, 0.0));
    let away = stand.away(angle, given.direction);
    // Both faces of the flange where its straight begins.
    let begins = [0.0, thickness].map(|z| {
        let (across, rise) = match given.direction {
            Direction::Up => {
                let arm = given.radius + thickness - z;
                (arm * angle.sin(), thickness + given.radius - arm * angle.cos())
            }
            Direction::Down => {
                let arm = given.radius + z;
                (arm * angle.sin(), arm * angle.cos() - given.radius)
            }
        };
        start + stand.outward * across + stand.up * rise
    });
    let unknown = || {
        Finding::error(
            format!("there is nothing called {name} to reach at this step"),
            "Name a face (lid.bottom), an edge (wall.end) or a corner (wall.end/left).",
        )
        .at_field("up_to.feature")
    };
    let (stem, side) = name.split_once('/').map_or((name, None), |(stem, side)| (stem, Some(side)));
    if let Some(edge) = flat.edges.iter().find(|edge| edge.name == stem) {
        let points = edge_points(flat, folded, edge, side).ok_or_else(unknown)?;
        return Ok(points
            .iter()
            .flat_map(|point| begins.iter().map(move |begin| (*point - *begin).dot(away)))
            .fold(f64::NEG_INFINITY, f64::max));
    }
    let (panel, top) = match name.rsplit_once('.') {
        Some((panel, "top")) => (panel, true),
        Some((panel, "bottom")) => (panel, false),
        _ => return Err(unknown()),
    };
    let panel = flat.panel(panel).ok_or_else(unknown)?;
    let motion = folded.motion(panel).ok_or_else(unknown)?;
    let normal = motion.direction(Vector3::new(0.0, 0.0, 1.0));
    let slope = away.dot(normal);
    if slope.abs() < NO_TURN {
        return Err(Finding::error(
            format!("the flange runs along {name} and never meets it"),
            "Name a face that stands across the flange, or give the leg as a number.",
        )
        .at_field("up_to.feature"));
    }
    let on = motion.apply(Point3::new(0.0, 0.0, if top { thickness } else { 0.0 }));
    Ok(begins.iter().map(|begin| (on - *begin).dot(normal) / slope).fold(f64::INFINITY, f64::min))
}

/// An edge's folded points, or those of one of its ends.
fn edge_points(flat: &Flat, folded: &Folded, edge: &EdgeRecord, side: Option<&str>) -> Option<Vec<Point3>> {
    let ends = match side {
        None => vec![edge.line.start, edge.line.end],
        Some(side) if edge.sides[0] == side => vec![edge.line.start],
        Some(side) if edge.sides[1] == side => vec![edge.line.end],
        Some(_) => return None,
    };
    Some(ends.iter().flat_map(|&end| [0.0, flat.thickness].map(|z| folded.apply(edge.panel, end, z))).collect())
}
