//! What a call-out may measure, and the measuring.

use crate::plane::{Outline, Segment};
use crate::sheet::{Part, figures, folded_extents};
use crate::space::{Point3, Vector3};
use crate::work::measure::{Axis, Distance, LegOf, Measure};
use crate::work::sheet::{Direction, LegTo};

use super::feature::{panel_normal, turned};
use super::measured::{MeasureError, Measured};
use super::{Feature, feature};

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
        Measure::CentreOfGravity(one) => one.along.of(figures(part).centre_of_gravity.from_origin()),
        Measure::FoldedVolume => figures(part).folded_volume,
    };
    Ok(Measured { value, dimension: what.dimension() })
}

fn bend<'a>(part: &'a Part, name: &str) -> Result<&'a crate::sheet::Bend, MeasureError> {
    part.flat.bend(name).ok_or_else(|| {
        let known: Vec<&str> = part.flat.bends.iter().map(|bend| bend.name.as_str()).collect();
        let way_out = if known.is_empty() {
            "There are no bends yet.".into()
        } else {
            format!("The bends are {}.", known.join(", "))
        };
        MeasureError::new(format!("there is no bend called {name}"), way_out)
    })
}

fn panel(part: &Part, name: &str) -> Result<usize, MeasureError> {
    part.flat.panel(name).ok_or_else(|| {
        let known: Vec<&str> =
            part.flat.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.as_str()).collect();
        MeasureError::new(format!("there is no panel called {name}"), format!("The panels are {}.", known.join(", ")))
    })
}

fn no_hole(part: &Part, name: &str) -> MeasureError {
    let mut known: Vec<&str> = part.flat.holes.iter().map(|hole| hole.operation.as_str()).collect();
    known.dedup();
    let way_out = if known.is_empty() {
        "There are no holes yet.".into()
    } else {
        format!("The holes are {}.", known.join(", "))
    };
    MeasureError::new(format!("there is no hole called {name}"), way_out)
}

/// A feature's one place along a direction.
fn place_along(feature: &Feature, axis: Axis, name: &str) -> Result<f64, MeasureError> {
    let (low, high) = feature.corners().iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), corner| {
        let at = axis.of(corner.from_origin());
        (low.min(at), high.max(at))
    });
    if high - low > 1e-6 {
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
            let angle = n.cross(*m).length().asin();
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

/// The corner of a bend's section: where the flange starts, which way it goes, and how far its end is.
struct Section {
    /// On the flange's second tangent line, outside and inside faces.
    outside: Point3,
    /// Unit vector along the flange, away from the bend, in its plane and square to the bend line.
    away: Vector3,
    /// Straight length from tangent to end, mm.
    straight: f64,
}

fn section(part: &Part, name: &str) -> Result<Section, MeasureError> {
    let bend = bend(part, name)?;
    let strip = part.flat.strip_of(bend);
    let z = if strip.direction == Direction::Up { 0.0 } else { part.flat.thickness };
    let tangent = strip.place(strip.length / 2.0, strip.width);
    let flange = bend.flange.ok_or_else(|| {
        MeasureError::new(
            format!("no panel follows the bend {name}"),
            "Measure the panel before it, or the bend itself.",
        )
    })?;
    let outside = part.folded.apply(flange, tangent, z);
    let away = (part.folded.apply(flange, tangent + strip.across, z) - outside).unit();
    // Its free end: of the straight edges along the bend, the farthest from it.
    let far = |segment: &Segment| strip.local(segment.start).1;
    let segment = part
        .flat
        .edges
        .iter()
        .filter(|edge| edge.panel == flange)
        .flat_map(|edge| part.flat.segments_of(flange, edge.tag))
        .filter(|one| one.is_line() && (strip.local(one.start).1 - strip.local(one.end).1).abs() < 1e-6)
        .filter(|one| far(one) > strip.width + 1e-6)
        .max_by(|one, two| far(one).total_cmp(&far(two)));
    let Some(segment) = segment else {
        return Err(MeasureError::new(
            format!("the end of {name} is bent on or cut away, so its leg has no free end"),
            format!("Measure from {name}.mould-outside to the next bend's mould line or face."),
        ));
    };
    let straight = (part.folded.apply(flange, segment.start, z) - outside).dot(away);
    Ok(Section { outside, away, straight })
}

fn leg(part: &Part, what: &LegOf) -> Result<f64, MeasureError> {
    let section = section(part, &what.bend)?;
    let bend = bend(part, &what.bend)?;
    let strip = part.flat.strip_of(bend);
    let past_square = turned(part, bend.strip) > std::f64::consts::FRAC_PI_2 + 1e-9;
    let to_mould = |side: &str| -> Result<f64, MeasureError> {
        let line = feature(part, &format!("{}.mould-{side}", what.bend))?;
        let Feature::Line { point, .. } = line else { unreachable!("a mould line is a line") };
        Ok(section.straight - (point - section.outside).dot(section.away))
    };
    // Past square, sizes are taken to the bend's own outermost (or innermost) tangent: the back of the arc, which lies
    // one radius behind the tangent line whatever the angle.
    let to_round = |z: f64| section.straight + arc_radius(part, bend.strip, z);
    let (outer, inner) =
        if strip.direction == Direction::Up { (0.0, part.flat.thickness) } else { (part.flat.thickness, 0.0) };
    match what.to {
        LegTo::Tangent => Ok(section.straight),
        LegTo::Mould => to_mould("outside"),
        LegTo::Outside if past_square => Ok(to_round(outer)),
        LegTo::Outside => to_mould("outside"),
        LegTo::Inside if past_square => Ok(to_round(inner)),
        LegTo::Inside => to_mould("inside"),
    }
}

/// Radius of a bend's face at height z, from three folded points: r = abc / (4 area).
fn arc_radius(part: &Part, node: usize, z: f64) -> f64 {
    let Some(strip) = part.flat.nodes[node].strip() else { return 0.0 };
    let at = |fraction: f64| part.folded.apply(node, strip.place(strip.length / 2.0, strip.width * fraction), z);
    let (a, b, c) = (at(0.0), at(0.5), at(1.0));
    let area = (b - a).cross(c - a).length() / 2.0;
    let sides = a.distance(b) * b.distance(c) * c.distance(a);
    if area < 1e-12 { 0.0 } else { sides / (4.0 * area) }
}

fn inside_radius(part: &Part, name: &str) -> Result<f64, MeasureError> {
    let bend = bend(part, name)?;
    let z = if part.flat.strip_of(bend).direction == Direction::Up { part.flat.thickness } else { 0.0 };
    Ok(arc_radius(part, bend.strip, z))
}

/// The outline of a hole on the blank; of the first one where an operation made several.
fn hole_outline<'a>(part: &'a Part, name: &str) -> Result<&'a Outline, MeasureError> {
    let hole = part.flat.holes.iter().find(|hole| hole.name == name || hole.operation == name);
    let hole = hole.ok_or_else(|| no_hole(part, name))?;
    if !hole.work.through {
        return Ok(&hole.outline);
    }
    let cut = part.blank.region.holes.iter().find(|one| one.edges.first().is_some_and(|edge| edge.tag == hole.tag));
    cut.ok_or_else(|| no_hole(part, name))
}

/// What is left of a named edge, in the flat.
fn edge_segments(part: &Part, name: &str) -> Result<Vec<Segment>, MeasureError> {
    let known = part.flat.edges.iter().find(|edge| edge.name == name);
    let left = known.map_or(Vec::new(), |edge| part.flat.segments_of(edge.panel, edge.tag));
    if left.is_empty() {
        let edges: Vec<&str> = part.flat.edges.iter().map(|edge| edge.name.as_str()).collect();
        return Err(MeasureError::new(
            match known {
                Some(_) => format!("nothing is left of the edge {name}"),
                None => format!("there is no edge called {name}"),
            },
            format!("The edges are {}.", edges.join(", ")),
        ));
    }
    Ok(left)
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

/// From where to where a length is measured, for a dimension line on the folded part; `None` for what has no two ends.
pub fn span(part: &Part, what: &Measure) -> Option<[Point3; 2]> {
    let middle = |feature: &Feature| {
        let corners = feature.corners();
        let sum = corners.iter().fold(Vector3::default(), |sum, corner| sum + corner.from_origin());
        let mean = sum * (1.0 / corners.len().max(1) as f64);
        Point3::new(mean.x, mean.y, mean.z)
    };
    match what {
        Measure::Distance(one) => {
            let (from, to) = (feature(part, &one.from).ok()?, feature(part, &one.to).ok()?);
            let (a, b) = (middle(&from), middle(&to));
            let across = match (one.along, &from, &to) {
                (Some(axis), ..) => axis.unit(),
                (None, Feature::Plane { normal, .. }, _) | (None, _, Feature::Plane { normal, .. }) => *normal,
                (None, ..) => (b - a).unit(),
            };
            // Start where the smaller feature is, so that the line leaves from a hole and not from mid-air.
            if from.corners().len() <= to.corners().len() {
                Some([a, a + across * (b - a).dot(across)])
            } else {
                Some([b + across * (a - b).dot(across), b])
            }
        }
        Measure::Size(one) => {
            let around = folded_extents(part);
            let size = one.along.unit() * one.along.of(around.size());
            Some([around.low, around.low + size])
        }
        Measure::Leg(one) => {
            let section = section(part, &one.bend).ok()?;
            let long = leg(part, one).ok()?;
            let end = section.outside + section.away * section.straight;
            Some([end + section.away * -long, end])
        }
        Measure::Diameter(one) => {
            let hole = part.flat.holes.iter().find(|hole| hole.name == one.hole || hole.operation == one.hole)?;
            let across = crate::plane::Vector::new(hole.extents.width() / 2.0, 0.0);
            let at = |point| part.folded.apply(hole.panel, point, part.flat.thickness);
            Some([at(hole.centre - across), at(hole.centre + across)])
        }
        _ => None,
    }
}
