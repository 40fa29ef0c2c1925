//! What a call-out may measure, and the measuring.

use crate::plane::Segment;
use crate::quantity::tolerance::{CUBIC_METRES, MODELLING_TOLERANCE};
use crate::sheet::bending::outside_setback;
use crate::sheet::{Part, figures, folded_extents, form_height};
use crate::work::measure::{Axis, Distance, Measure};
use crate::work::sheet::Direction;

use super::feature::{Feature, feature, panel_normal, turned};
use super::in_flat::{Rims, edge_angle, panel_area, panel_cut_length};
use super::looked_up::{arc_radius, bend, edge_segments, form, head_depth, hole_outline, leg, no_hole, panel, worked};
use super::measured::{MeasureError, Measured};
use super::witness::witnesses;

/// Measures the part.
///
/// # Errors
/// A name that is not there, features that are not parallel, a direction in which a feature has no single place.
pub fn measure(part: &Part, what: &Measure) -> Result<Measured, MeasureError> {
    let value = match what {
        Measure::Frame(one) => {
            return Err(MeasureError {
                message: format!("the {} is of a frame", one.words()),
                way_out: "Say what it measures on this part.".into(),
            });
        }
        Measure::Distance(one) => {
            let (from, to) = (feature(part, &one.from)?, feature(part, &one.to)?);
            match one.along {
                Some(axis) => (place_along(&to, axis, &one.to)? - place_along(&from, axis, &one.from)?).abs(),
                None => shortest(&from, &to, one)?,
            }
        }
        Measure::Size(one) => one.along.of(folded_extents(part).size()),
        Measure::Leg(one) => leg(part, one)?,
        Measure::Angle(one) => {
            let normal = |name: &str| panel(part, name).map(|panel| panel_normal(part, panel));
            std::f64::consts::PI - normal(&one.from)?.angle_to(normal(&one.to)?)
        }
        Measure::BendAngle(one) => {
            let bend = bend(part, &one.bend)?;
            turned(part, bend.strip)
        }
        Measure::InsideRadius(one) => inside_radius(part, &one.bend)?,
        Measure::Diameter(one) => diameter(part, &one.hole)?,
        Measure::HoleSize(one) => {
            let size = hole_outline(part, &one.hole)?.extents();
            match one.along {
                Axis::X => size.width(),
                Axis::Y => size.height(),
                Axis::Z => {
                    return Err(MeasureError::new(
                        "a hole has no size along z on the blank",
                        "Choose x or y, or measure the thickness.",
                    ));
                }
            }
        }
        Measure::HoleCount(one) => {
            let count = part.flat.holes.iter().filter(|hole| hole.operation == one.hole).count();
            if count == 0 {
                return Err(no_hole(part, &one.hole));
            }
            count as f64
        }
        Measure::Floor(one) => {
            let hole = worked(part, &one.hole)?;
            let deep = hole.work.profile.last().map_or(0.0, |last| last.to);
            if hole.work.through || deep > part.flat.thickness - MODELLING_TOLERANCE {
                return Err(MeasureError::new(
                    format!("{} comes out of the other face: there is no metal under it", one.hole),
                    "Choose a blind hole.",
                ));
            }
            part.flat.thickness - deep
        }
        Measure::HeadDepth(one) => head_depth(worked(part, &one.hole)?, &one.hole)?,
        Measure::FormHeight(one) => {
            let form = form(part, &one.form)?;
            form_height(&part.flat, form).ok_or_else(|| {
                MeasureError::new(format!("{} has no faces: something runs into it", one.form), "Move one of them.")
            })?
        }
        Measure::Rim(one) => Rims::new(part, one)?.least(),
        Measure::HoleArea(one) => hole_outline(part, &one.hole)?.area(),
        Measure::HoleCutLength(one) => hole_outline(part, &one.hole)?.perimeter(),
        Measure::PanelArea(one) => panel_area(part, &one.panel)?,
        Measure::PanelCutLength(one) => panel_cut_length(part, &one.panel)?,
        Measure::EdgeAngle(one) => edge_angle(part, one)?,
        Measure::Setback(one) => {
            let strip = part.flat.strip_of(bend(part, &one.bend)?);
            outside_setback(strip.angle, strip.radius, part.flat.thickness)
        }
        Measure::SeamLength(one) | Measure::WeldLength(one) => {
            return Err(MeasureError::new(
                format!("there is no seam called {}", one.seam),
                "Join two edges first, or name the step that joins them.",
            ));
        }
        Measure::EdgeLength(one) => edge_segments(part, &one.edge)?.iter().map(Segment::length).sum(),
        Measure::EdgeRadius(one) => {
            let round = edge_segments(part, &one.edge)?;
            match round.first() {
                Some(first) if !first.is_line() => first.radius(),
                _ => {
                    return Err(MeasureError::new(
                        format!("{} is straight", one.edge),
                        "Measure its length, or choose a round edge.",
                    ));
                }
            }
        }
        Measure::Thickness => {
            let place = part.flat.nodes[0].laid.centre();
            part.folded.apply(0, place, 0.0).distance(part.folded.apply(0, place, part.flat.thickness))
        }
        Measure::BlankSize(one) => {
            let size = part.blank.extents();
            match one.along {
                Axis::X => size.width(),
                Axis::Y => size.height(),
                Axis::Z => {
                    return Err(MeasureError::new(
                        "a blank has no size along z",
                        "Choose x or y, or measure the thickness.",
                    ));
                }
            }
        }
        Measure::CutLength => figures(part).cut_length,
        Measure::Pierces => figures(part).pierces as f64,
        Measure::NetArea => part.blank.region.area(),
        Measure::Mass => figures(part).mass,
        Measure::UndrilledMass => part.blank.region.area() * part.flat.thickness * CUBIC_METRES * part.density,
        Measure::CentreOfGravity(one) => one.along.of(figures(part).centre_of_gravity.from_origin()),
        Measure::FoldedVolume => figures(part).folded_volume,
    };
    Ok(Measured { value, dimension: what.dimension(), witnesses: witnesses(part, what) })
}

/// A feature's one place along a direction.
fn place_along(feature: &Feature, axis: Axis, name: &str) -> Result<f64, MeasureError> {
    let (low, high) = feature.corners().iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), corner| {
        let at = axis.of(corner.from_origin());
        (low.min(at), high.max(at))
    });
    if high - low > MODELLING_TOLERANCE {
        let letter = axis.letter();
        return Err(MeasureError::new(
            format!(
                "{name} runs over {} mm along {letter}, so it has no one place there",
                crate::quantity::decimal(high - low, 3)
            ),
            format!("Choose another direction, or one border of it such as {name}.top or {name}.bottom."),
        ));
    }
    Ok((low + high) / 2.0)
}

const PARALLEL: f64 = 1e-7;

fn shortest(one: &Feature, two: &Feature, what: &Distance) -> Result<f64, MeasureError> {
    let slanted = |angle: f64| {
        MeasureError::new(
            format!(
                "{} and {} are not parallel: they stand {} apart",
                what.from,
                what.to,
                crate::quantity::angle_text(angle)
            ),
            "Say along which direction (x, y or z) to measure.",
        )
    };
    match (one, two) {
        (Feature::Plane { point: a, normal: n, .. }, Feature::Plane { point: b, normal: m, .. }) => {
            // Of two that are square the sine comes to a hair more than one, of which there is no angle.
            let angle = n.cross(*m).length().min(1.0).asin();
            if angle > PARALLEL { Err(slanted(angle)) } else { Ok((*b - *a).dot(*n).abs()) }
        }
        (Feature::Plane { point, normal, .. }, Feature::Line { point: on, direction, .. })
        | (Feature::Line { point: on, direction, .. }, Feature::Plane { point, normal, .. }) => {
            let angle = normal.dot(*direction).abs().min(1.0).asin();
            if angle > PARALLEL { Err(slanted(angle)) } else { Ok((*on - *point).dot(*normal).abs()) }
        }
        (Feature::Line { point: a, direction: d, .. }, Feature::Line { point: b, direction: e, .. }) => {
            let between = *b - *a;
            let square = d.cross(*e);
            if square.length() > PARALLEL {
                return Ok(between.dot(square.unit()).abs());
            }
            Ok(between.cross(*d).length())
        }
    }
}

fn inside_radius(part: &Part, name: &str) -> Result<f64, MeasureError> {
    let bend = bend(part, name)?;
    let z = if part.flat.strip_of(bend).direction == Direction::Up { part.flat.thickness } else { 0.0 };
    Ok(arc_radius(part, bend.strip, z))
}

fn diameter(part: &Part, name: &str) -> Result<f64, MeasureError> {
    match hole_outline(part, name)?.as_circle() {
        Some((_, radius)) => Ok(2.0 * radius),
        None => Err(MeasureError::new(
            format!("{name} is not round"),
            "Measure its size along x or y, or choose a round hole.",
        )),
    }
}
