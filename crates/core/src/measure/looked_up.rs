//! What measures look up on a part by its name: bends, panels, holes, edges, and the leg of a bend.

use crate::plane::{Outline, Segment};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, NOTHING, ROUNDING};
use crate::sheet::{Form, Hole, HolePart, Part};
use crate::space::{Point3, Vector3};
use crate::work::measure::LegOf;
use crate::work::sheet::{Direction, LegTo};

use super::feature::{Feature, feature, turned};
use super::measured::MeasureError;

pub(super) fn bend<'a>(part: &'a Part, name: &str) -> Result<&'a crate::sheet::Bend, MeasureError> {
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

pub(super) fn panel(part: &Part, name: &str) -> Result<usize, MeasureError> {
    part.flat.panel(name).ok_or_else(|| {
        let known: Vec<&str> =
            part.flat.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.as_str()).collect();
        MeasureError::new(format!("there is no panel called {name}"), format!("The panels are {}.", known.join(", ")))
    })
}

pub(super) fn no_hole(part: &Part, name: &str) -> MeasureError {
    let mut known: Vec<&str> = part.flat.holes.iter().map(|hole| hole.operation.as_str()).collect();
    known.dedup();
    let way_out = if known.is_empty() {
        "There are no holes yet.".into()
    } else {
        format!("The holes are {}.", known.join(", "))
    };
    MeasureError::new(format!("there is no hole called {name}"), way_out)
}

/// The corner of a bend's section: where the flange starts, which way it goes, and how far its end is.
pub(super) struct Section {
    /// On the flange's second tangent line, outside and inside faces.
    pub outside: Point3,
    /// Unit vector along the flange, away from the bend, in its plane and square to the bend line.
    pub away: Vector3,
    /// Straight length from tangent to end, mm.
    pub straight: f64,
}

pub(super) fn section(part: &Part, name: &str) -> Result<Section, MeasureError> {
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
        .filter(|one| one.is_line() && (strip.local(one.start).1 - strip.local(one.end).1).abs() < MODELLING_TOLERANCE)
        .filter(|one| far(one) > strip.width + MODELLING_TOLERANCE)
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

pub(super) fn leg(part: &Part, what: &LegOf) -> Result<f64, MeasureError> {
    let section = section(part, &what.bend)?;
    let bend = bend(part, &what.bend)?;
    let strip = part.flat.strip_of(bend);
    let past_square = turned(part, bend.strip) > std::f64::consts::FRAC_PI_2 + ROUNDING;
    let to_mould = |side: &str| -> Result<f64, MeasureError> {
        let line = feature(part, &format!("{}.mould-{side}", what.bend))?;
        let Feature::Line { point, .. } = line else {
            return Err(MeasureError::new(
                format!("{}.mould-{side} is no line", what.bend),
                "Measure the leg to the tangent.",
            ));
        };
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
pub(super) fn arc_radius(part: &Part, node: usize, z: f64) -> f64 {
    let Some(strip) = part.flat.nodes[node].strip() else { return 0.0 };
    let at = |fraction: f64| part.folded.apply(node, strip.place(strip.length / 2.0, strip.width * fraction), z);
    let (a, b, c) = (at(0.0), at(0.5), at(1.0));
    let area = (b - a).cross(c - a).length() / 2.0;
    let sides = a.distance(b) * b.distance(c) * c.distance(a);
    if area < NOTHING { 0.0 } else { sides / (4.0 * area) }
}

/// A hole that is worked from a face; of several the first.
pub(super) fn worked<'a>(part: &'a Part, name: &str) -> Result<&'a Hole, MeasureError> {
    let hole = part.flat.holes.iter().find(|hole| hole.name == name || hole.operation == name);
    hole.ok_or_else(|| no_hole(part, name))
}

/// How deep the head of a hole is, mm.
pub(super) fn head_depth(hole: &Hole, name: &str) -> Result<f64, MeasureError> {
    let heads =
        hole.work.profile.iter().filter(|one| matches!(one.part, HolePart::Countersink | HolePart::Counterbore));
    heads.map(|one| one.to).reduce(f64::max).ok_or_else(|| {
        MeasureError::new(format!("{name} has no head"), "Choose a hole with a countersink or a counterbore.")
    })
}

/// A form; of several the first.
pub(super) fn form<'a>(part: &'a Part, name: &str) -> Result<&'a Form, MeasureError> {
    let own = part.flat.forms.iter().find(|form| form.name == name || form.operation == name);
    own.ok_or_else(|| {
        let mut known: Vec<&str> = part.flat.forms.iter().map(|form| form.operation.as_str()).collect();
        known.dedup();
        let way_out = match known.is_empty() {
            true => "There are no forms yet.".to_string(),
            false => format!("The forms are {}.", known.join(", ")),
        };
        MeasureError::new(format!("there is no form called {name}"), way_out)
    })
}

/// The outline of a hole on the blank; of the first one where an operation made several.
pub(super) fn hole_outline<'a>(part: &'a Part, name: &str) -> Result<&'a Outline, MeasureError> {
    let hole = part.flat.holes.iter().find(|hole| hole.name == name || hole.operation == name);
    let hole = hole.ok_or_else(|| no_hole(part, name))?;
    if !hole.work.through {
        return Ok(&hole.outline);
    }
    let cut = part.blank.region.holes.iter().find(|one| one.edges.first().is_some_and(|edge| edge.tag == hole.tag));
    cut.ok_or_else(|| no_hole(part, name))
}

/// What is left of a named edge, in the flat.
pub(super) fn edge_segments(part: &Part, name: &str) -> Result<Vec<Segment>, MeasureError> {
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
