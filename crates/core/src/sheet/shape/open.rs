//! An open run: a profile seen from its end, metal laid along its legs to one side or both.

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point, Segment, Vector};
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, length_text};
use crate::work::shape::RunSide;

use super::laid::Laid;
use super::run::{Leg, walk};

/// The outline of the metal along the legs, mm.
///
/// # Errors
/// As [`walk`]; an arc too tight or a leg too short for the thickness; a corner at an arc.
pub(super) fn open(legs: &[(String, Leg)], thickness: f64, side: RunSide, unit: LengthUnit) -> Result<Laid, Finding> {
    let (chain, last) = walk(legs)?;
    let names: Vec<&str> = chain.iter().map(|(.., name)| name.as_str()).collect();
    let ways: Vec<Segment> = (0..chain.len())
        .map(|at| {
            let end = chain.get(at + 1).map_or(last, |(next, ..)| *next);
            Segment { start: chain[at].0, end, bulge: chain[at].1 }
        })
        .collect();
    let (left, right) = match side {
        RunSide::Left => (thickness, 0.0),
        RunSide::Right => (0.0, -thickness),
        RunSide::Middle => (thickness / 2.0, -thickness / 2.0),
    };
    let (left, right) = (beside(&ways, &names, left, unit)?, beside(&ways, &names, right, unit)?);
    let count = ways.len();
    let mut edges: Vec<(Point, f64, String)> =
        (0..count).map(|at| (right[at].start, right[at].bulge, names[at].to_string())).collect();
    edges.push((right[count - 1].end, 0.0, "end".into()));
    edges.extend((0..count).rev().map(|at| (left[at].end, -left[at].bulge, format!("{}-left", names[at]))));
    edges.push((left[0].start, 0.0, "start".into()));
    Ok(Laid::from_edges(&edges))
}

/// The legs moved to the left by a distance, corners between straight legs kept sharp.
fn beside(ways: &[Segment], names: &[&str], by: f64, unit: LengthUnit) -> Result<Vec<Segment>, Finding> {
    if by == 0.0 {
        return Ok(ways.to_vec());
    }
    let fault = |at: usize, message: String, way_out: &str| {
        Err(Finding::error(message, way_out).at_field(format!("legs.{at}")))
    };
    let mut moved = Vec::with_capacity(ways.len());
    for (at, way) in ways.iter().enumerate() {
        if way.is_line() {
            let aside = (way.end - way.start).unit().left() * by;
            moved.push(Segment::line(way.start + aside, way.end + aside));
            continue;
        }
        // To the left of a left turn the radius is smaller.
        let radius = way.radius() - by * way.bulge.signum();
        if radius <= MODELLING_TOLERANCE {
            let message = format!(
                "{} of radius {} is too tight for {} of metal on its inside",
                names[at],
                length_text(way.radius(), unit),
                length_text(by.abs(), unit)
            );
            return fault(at, message, "Make its radius larger, or lay the metal to the other side.");
        }
        let (centre, share) = (way.centre(), radius / way.radius());
        let place = |point: Point| centre + (point - centre) * share;
        moved.push(Segment { start: place(way.start), end: place(way.end), bulge: way.bulge });
    }
    for at in 1..moved.len() {
        let (one, two) = (moved[at - 1], moved[at]);
        if one.end.distance(two.start) <= MODELLING_TOLERANCE {
            continue;
        }
        if !(one.is_line() && two.is_line()) {
            let message = format!("{} and {} meet at a corner, and one of them is round", names[at - 1], names[at]);
            return fault(at, message, "Let the arc touch its neighbour: take its turn out.");
        }
        let (a, b): (Vector, Vector) = (one.end - one.start, two.end - two.start);
        let turn = a.cross(b);
        if turn.abs() <= PARALLEL * a.length() * b.length() {
            let message = format!("{} turns straight back along {}", names[at], names[at - 1]);
            return fault(at, message, "Put an arc between them.");
        }
        let meet = one.start + a * ((two.start - one.start).cross(b) / turn);
        moved[at - 1].end = meet;
        moved[at].start = meet;
    }
    for (at, (way, own)) in moved.iter().zip(ways).enumerate() {
        if way.is_line() && (way.end - way.start).dot(own.end - own.start) <= 0.0 {
            let message =
                format!("{} is too short for {} of metal in its corner", names[at], length_text(by.abs(), unit));
            return fault(at, message, "Make it longer, or lay the metal to the other side.");
        }
    }
    Ok(moved)
}
