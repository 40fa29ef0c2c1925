//! What is measured in the flat: rims, areas and lengths of cut of one panel or hole, angles between edges.

use std::f64::consts::PI;

use crate::plane::{Outline, Point, Segment, segment_distance};
use crate::quantity::tolerance::{PARALLEL, TRACED};
use crate::sheet::{Hole, Part, TagKind};
use crate::work::measure::{BetweenEdges, RimTo};

use super::looked_up::{edge_segments, hole_outline, panel, worked};
use super::measured::MeasureError;

/// From a hole's rim to what it is measured to: the least distance, mm, and the two lines that it is between.
pub(super) struct Rims {
    /// The hole.
    pub hole: usize,
    /// Its rim.
    pub rim: Vec<Segment>,
    /// What it is measured to.
    pub other: Vec<Segment>,
}

impl Rims {
    /// Looks both up in the panel of the hole.
    pub fn new(part: &Part, what: &RimTo) -> Result<Rims, MeasureError> {
        let flat = &part.flat;
        let own = worked(part, &what.hole)?;
        let at = flat.holes.iter().position(|hole| hole.tag == own.tag).unwrap_or(0);
        let rim = segments(hole_outline(part, &what.hole)?);
        let elsewhere = |panel: usize| {
            MeasureError::new(
                format!("{} and {} lie in different panels", what.hole, what.to),
                format!("Name something in {}, or measure a distance between the two.", flat.nodes[panel].name),
            )
        };
        let name = what.to.as_str();
        let find = |hole: &&Hole| hole.name == name || hole.operation == name;
        if let Some(other) = flat.holes.iter().find(find) {
            if other.panel != own.panel {
                return Err(elsewhere(own.panel));
            }
            if other.tag == own.tag {
                return Err(MeasureError::new(format!("{name} has no distance to itself"), "Name another hole."));
            }
            return Ok(Rims { hole: at, rim, other: segments(hole_outline(part, name)?) });
        }
        let bend = name.strip_suffix(".bend").unwrap_or(name);
        if let Some(bend) = flat.bends.iter().find(|one| one.name == bend) {
            let strip = flat.strip_of(bend);
            let line = match own.panel {
                panel if bend.parent == Some(panel) => 0.0,
                panel if bend.flange == Some(panel) => strip.width,
                panel => return Err(elsewhere(panel)),
            };
            let tangent = Segment::line(strip.place(0.0, line), strip.place(strip.length, line));
            return Ok(Rims { hole: at, rim, other: vec![tangent] });
        }
        let edge = flat.edges.iter().find(|edge| edge.name == name);
        if edge.is_some_and(|edge| edge.panel != own.panel) {
            return Err(elsewhere(own.panel));
        }
        Ok(Rims { hole: at, rim, other: edge_segments(part, name)? })
    }

    /// The least distance, mm.
    pub fn least(&self) -> f64 {
        let pairs = self.rim.iter().flat_map(|one| self.other.iter().map(move |two| segment_distance(one, two)));
        pairs.fold(f64::INFINITY, f64::min)
    }

    /// The two places nearest to each other.
    pub fn nearest(&self) -> Option<[Point; 2]> {
        let pairs = self.rim.iter().flat_map(|one| self.other.iter().map(move |two| nearest(one, two)));
        pairs.min_by(|a, b| a[0].distance(a[1]).total_cmp(&b[0].distance(b[1])))
    }
}

/// The place of a segment that is nearest to a point.
fn foot(on: &Segment, at: Point) -> Point {
    if on.is_line() {
        let along = on.end - on.start;
        let share = (at - on.start).dot(along) / along.dot(along).max(f64::MIN_POSITIVE);
        return on.start.toward(on.end, share.clamp(0.0, 1.0));
    }
    if on.sweeps_over(at) && at.distance(on.centre()) > TRACED {
        return on.centre() + (at - on.centre()).unit() * on.radius();
    }
    if at.distance(on.start) < at.distance(on.end) { on.start } else { on.end }
}

/// The places of two segments that are nearest to each other: an end and its foot, or on the way from an arc's centre.
fn nearest(one: &Segment, two: &Segment) -> [Point; 2] {
    let mut from = vec![one.start, one.end];
    for (arc, other) in [(one, two), (two, one)] {
        if !arc.is_line() {
            // Square over the centre, or over the middle of the other's own round.
            let on = if other.is_line() { foot(other, arc.centre()) } else { other.centre() };
            from.extend([foot(one, on), foot(one, foot(two, foot(one, on)))]);
        }
    }
    let mut pairs: Vec<[Point; 2]> = from.into_iter().map(|at| [at, foot(two, at)]).collect();
    pairs.extend([two.start, two.end].map(|at| [foot(one, at), at]));
    pairs
        .into_iter()
        .min_by(|a, b| a[0].distance(a[1]).total_cmp(&b[0].distance(b[1])))
        .unwrap_or([one.start, two.start])
}

fn segments(outline: &Outline) -> Vec<Segment> {
    outline.segments().map(|(one, _)| one).collect()
}

/// Net area of a panel, its bends not with it, mm2.
pub(super) fn panel_area(part: &Part, name: &str) -> Result<f64, MeasureError> {
    Ok(part.flat.nodes[panel(part, name)?].region.area())
}

/// Length of what is cut of a panel, its holes with it; where it goes over into a bend nothing is cut. mm.
pub(super) fn panel_cut_length(part: &Part, name: &str) -> Result<f64, MeasureError> {
    let flat = &part.flat;
    let own = panel(part, name)?;
    let bends = flat.bends.iter().filter(|bend| bend.touches(own)).map(|bend| flat.strip_of(bend));
    let strips: Vec<_> = bends.collect();
    let is_joint = |edge: &Segment, tag: u32| {
        flat.tags[tag as usize].kind == TagKind::Joint
            || edge.is_line()
                && strips.iter().any(|strip| {
                    [0.0, strip.width].iter().any(|line| {
                        [edge.start, edge.end].iter().all(|at| {
                            let (along, across) = strip.local(*at);
                            (across - line).abs() < TRACED && along > -TRACED && along < strip.length + TRACED
                        })
                    })
                })
    };
    let all = flat.nodes[own].region.outlines().flat_map(|outline| outline.segments());
    Ok(all.filter(|(edge, tag)| !is_joint(edge, *tag)).map(|(edge, _)| edge.length()).sum())
}

/// The angle between two straight edges in the flat: where they meet in a corner the metal's own, elsewhere that of their lines, at most
/// 90 deg. Radians.
pub(super) fn edge_angle(part: &Part, what: &BetweenEdges) -> Result<f64, MeasureError> {
    let straight = |name: &str| -> Result<Segment, MeasureError> {
        let all = edge_segments(part, name)?;
        match all.iter().find(|one| one.is_line()) {
            Some(first) => Ok(Segment::line(first.start, all.last().filter(|one| one.is_line()).unwrap_or(first).end)),
            None => Err(MeasureError::new(format!("{name} is round: it has no angle"), "Choose a straight edge.")),
        }
    };
    let (one, two) = (straight(&what.from)?, straight(&what.to)?);
    let (a, b) = ((one.end - one.start).unit(), (two.end - two.start).unit());
    // Metal lies on the left: from an edge to the next one the way turns left by what a corner is less than 180 deg.
    let inside =
        |first: &Segment, next: &Segment, turn: f64| (first.end.distance(next.start) < TRACED).then_some(PI - turn);
    let turn = a.cross(b).atan2(a.dot(b));
    let corner = inside(&one, &two, turn).or_else(|| inside(&two, &one, -turn));
    if corner.is_none() && a.cross(b).abs() < PARALLEL {
        return Err(MeasureError::new(
            format!("{} and {} run the same way: there is no angle between them", what.from, what.to),
            "Choose edges that meet, or measure the distance between these.",
        ));
    }
    Ok(corner.unwrap_or_else(|| a.cross(b).abs().atan2(a.dot(b).abs())))
}
