//! A profile seen from its end: legs and arcs as the drawing gives them, to lengths of flat and angles of bend.

use crate::finding::Finding;
use crate::plane::Segment;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::sheet::bending;
use crate::sheet::flange::flat_width;
use crate::sheet::flat::{BendMake, BendSizes};
use crate::sheet::numbers::MethodNumbers;
use crate::sheet::reader::Reader;
use crate::sheet::shape::{Leg, read_legs, walk};
use crate::work::sheet::{Direction, ProfileAction, ProfileSizes, WidthFrom};

use super::LEAST_FLAT;
use super::link::{Chain, ChainLink};

/// A profile in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct ProfileNumbers {
    pub(in crate::sheet) legs: Vec<(String, Leg)>,
    pub sizes: ProfileSizes,
    pub width: f64,
    pub width_from: WidthFrom,
    pub stays: Option<String>,
    pub radius: f64,
    pub method: MethodNumbers,
}

/// Reads a profile. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_profile(reader: &mut Reader<'_>, given: &ProfileAction) -> Option<ProfileNumbers> {
    if given.legs.is_empty() {
        reader.refuse("legs", "a profile has no legs yet".into(), "Give its legs in order, from one end to the other.");
    }
    let legs = read_legs(reader, "legs", &given.legs);
    check_names(reader, legs.as_deref().unwrap_or_default());
    let width = reader.size("width", &given.width, "a width");
    let radius = reader.radius(&given.radius);
    let method = reader.method_or_own(&given.method);
    Some(ProfileNumbers {
        legs: legs?,
        sizes: given.sizes,
        width: width?,
        width_from: given.width_from,
        stays: given.stays.clone(),
        radius: radius?,
        method: method?,
    })
}

/// Legs name panels, which later work cites: each a name of its own, written as an operation's is.
fn check_names(reader: &mut Reader<'_>, legs: &[(String, Leg)]) {
    for (at, (name, _)) in legs.iter().enumerate() {
        let field = format!("legs.{at}");
        let sound = name.starts_with(|c: char| c.is_ascii_lowercase())
            && name.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-' || c == '_');
        if !sound {
            let message = format!("\"{name}\" is no name of a leg: a small letter, then small letters, digits, - or _");
            reader.refuse(&field, message, "Call it lip, web, side or the like.");
        } else if legs[..at].iter().any(|(other, _)| other == name) {
            let message = format!("two legs are called {name}");
            reader.refuse(&field, message, "Give each leg a name of its own; its panel is cited by it.");
        }
    }
}

/// From where to where a width lies.
pub(super) fn extent(width: f64, from: WidthFrom) -> (f64, f64) {
    match from {
        WidthFrom::Side => (0.0, width),
        WidthFrom::Centre => (-width / 2.0, width / 2.0),
    }
}

impl ProfileNumbers {
    /// The chain of this profile.
    ///
    /// # Errors
    /// A leg too short for its bends, a corner at an arc, a leg that goes straight on, an arc too tight.
    pub(in crate::sheet) fn chain(&self, operation: &str, thickness: f64, unit: LengthUnit) -> Result<Chain, Finding> {
        let (chain, last) = walk(&self.legs)?;
        let ways: Vec<Segment> = (0..chain.len())
            .map(|at| {
                let end = chain.get(at + 1).map_or(last, |(next, ..)| *next);
                Segment { start: chain[at].0, end, bulge: chain[at].1 }
            })
            .collect();
        let turns = self.turns(&ways, unit)?;
        let full = |name: &str| format!("{operation}.{name}");
        let mut links: Vec<ChainLink> = Vec::new();
        for (at, way) in ways.iter().enumerate() {
            let name = &chain[at].2;
            let field = format!("legs.{at}");
            if let Some(turn) = at.checked_sub(1).map(|before| turns[before]).filter(|turn| turn.abs() > STRAIGHT) {
                links.push(ChainLink::Curl { name: None, sizes: self.bend(turn, self.radius, thickness, unit)? });
            }
            if !way.is_line() {
                let sweep = way.sweep();
                let radius = self.inside_of_arc(way.radius(), sweep, thickness);
                if radius < -ROUNDING {
                    return Err(Finding::error(
                        format!(
                            "{name} of radius {} is too tight for {} of metal on its inside",
                            length_text(way.radius(), unit),
                            length_text(thickness, unit)
                        ),
                        "Make its radius larger, or measure the profile to the other side.",
                    )
                    .at_field(field));
                }
                let sizes = self.bend(sweep, radius.max(0.0), thickness, unit)?;
                links.push(ChainLink::Curl { name: Some(full(name)), sizes });
                continue;
            }
            let before = at.checked_sub(1).map_or(0.0, |before| turns[before]);
            let after = turns.get(at).copied().unwrap_or(0.0);
            let taken = self.setback(before, thickness) + self.setback(after, thickness);
            let length = way.length() - taken;
            if length < -LEAST_FLAT {
                return Err(Finding::error(
                    format!(
                        "{name} of {} is too short: its bends take {} of it",
                        length_text(way.length(), unit),
                        length_text(taken, unit)
                    ),
                    "Make it longer, or the inside radius smaller.",
                )
                .at_field(field));
            }
            // Bends that follow each other with nothing flat between have no panel there.
            if length > LEAST_FLAT {
                links.push(ChainLink::Flat { name: full(name), length });
            }
        }
        let root = self.root(&links, operation)?;
        let straight = links.iter().any(|link| matches!(link, ChainLink::Flat { .. }));
        if !straight && links.len() > 1 {
            return Err(Finding::error(
                "a profile of several arcs needs one straight leg, to stay put",
                "Roll a single arc, or give the profile a straight leg.",
            )
            .at_field("legs"));
        }
        let operation = operation.to_string();
        Ok(Chain { operation, links, root, width: extent(self.width, self.width_from) })
    }

    /// The bend of a turn (left positive, radians) about an inside radius, mm.
    fn bend(&self, turn: f64, radius: f64, thickness: f64, unit: LengthUnit) -> Result<BendSizes, Finding> {
        let angle = turn.abs();
        let (width, rule) =
            flat_width(angle, radius, thickness, &self.method, None, unit).map_err(|fault| fault.at_field("method"))?;
        Ok(BendSizes { angle, radius, direction: toward(turn), width, rule, make: BendMake::Brake })
    }

    fn root(&self, links: &[ChainLink], operation: &str) -> Result<usize, Finding> {
        let flats = || {
            links.iter().enumerate().filter_map(|(at, link)| match link {
                ChainLink::Flat { name, length } => Some((at, name, *length)),
                ChainLink::Curl { .. } => None,
            })
        };
        if let Some(stays) = &self.stays {
            let own = format!("{operation}.{stays}");
            return flats().find(|(_, name, _)| **name == own).map(|(at, ..)| at).ok_or_else(|| {
                let known: Vec<&str> = flats().map(|(_, name, _)| name.rsplit('.').next().unwrap_or(name)).collect();
                Finding::error(
                    format!("the profile has no straight leg called {stays}"),
                    format!("Its straight legs are {}.", known.join(", ")),
                )
                .at_field("stays")
            });
        }
        // The first of the longest: a hair of rounding must not move it.
        let longest = flats().map(|(.., length)| length).fold(0.0, f64::max);
        Ok(flats().find(|(.., length)| *length > longest - MODELLING_TOLERANCE).map_or(0, |(at, ..)| at))
    }

    /// The turn between each leg and the next, left positive.
    fn turns(&self, ways: &[Segment], unit: LengthUnit) -> Result<Vec<f64>, Finding> {
        let heading = |way: &Segment, at_end: bool| {
            let chord = way.end - way.start;
            let half = way.sweep() / 2.0;
            chord.y.atan2(chord.x) + if at_end { half } else { -half }
        };
        let mut turns = Vec::new();
        for (at, pair) in ways.windows(2).enumerate() {
            let turn = heading(&pair[1], false) - heading(&pair[0], true);
            let turn = (turn + std::f64::consts::PI).rem_euclid(std::f64::consts::TAU) - std::f64::consts::PI;
            // Straight back is a half turn to the left, as a hem.
            let turn = if turn < -std::f64::consts::PI + ROUNDING { std::f64::consts::PI } else { turn };
            let (name, next) = (&self.legs[at].0, &self.legs[at + 1].0);
            let fault = |message: String, way_out: &str| {
                Err(Finding::error(message, way_out).at_field(format!("legs.{}", at + 1)))
            };
            if turn.abs() > STRAIGHT && !(pair[0].is_line() && pair[1].is_line()) {
                return fault(
                    format!("{name} and {next} meet at a corner, and one of them is round"),
                    "Let the arc touch its neighbour: take its turn out.",
                );
            }
            if turn.abs() <= STRAIGHT && pair[0].is_line() && pair[1].is_line() {
                return fault(
                    format!("{next} goes straight on from {name}"),
                    "Make the two one leg, or give the second a turn.",
                );
            }
            let mid_line = !matches!(self.sizes, ProfileSizes::Outside | ProfileSizes::Inside);
            if mid_line && turn.abs() > 170f64.to_radians() {
                return fault(
                    format!(
                        "a turn of {} has no mould point to measure {} of {next} to",
                        angle_text(turn.abs()),
                        length_text(pair[1].length(), unit)
                    ),
                    "Measure the profile outside or inside, where sizes above 90 deg go to the tangent.",
                );
            }
            turns.push(turn);
        }
        Ok(turns)
    }

    /// What a turn takes of a leg that is measured to it.
    fn setback(&self, turn: f64, thickness: f64) -> f64 {
        let (angle, radius) = (turn.abs(), self.radius);
        if angle <= STRAIGHT {
            return 0.0;
        }
        let tangent = (angle / 2.0).tan();
        match self.sizes {
            ProfileSizes::Outside => bending::outside_setback(angle, radius, thickness),
            ProfileSizes::Inside => bending::inside_setback(angle, radius),
            ProfileSizes::Middle => (radius + thickness / 2.0) * tangent,
            ProfileSizes::MetalLeft if turn > 0.0 => (radius + thickness) * tangent,
            ProfileSizes::MetalRight if turn < 0.0 => (radius + thickness) * tangent,
            ProfileSizes::MetalLeft | ProfileSizes::MetalRight => radius * tangent,
        }
    }

    /// Inside radius of a drawn arc.
    fn inside_of_arc(&self, drawn: f64, sweep: f64, thickness: f64) -> f64 {
        match self.sizes {
            ProfileSizes::Outside => drawn - thickness,
            ProfileSizes::Inside => drawn,
            ProfileSizes::Middle => drawn - thickness / 2.0,
            ProfileSizes::MetalLeft if sweep > 0.0 => drawn - thickness,
            ProfileSizes::MetalRight if sweep < 0.0 => drawn - thickness,
            ProfileSizes::MetalLeft | ProfileSizes::MetalRight => drawn,
        }
    }
}

/// Below this a turn is none, radians.
const STRAIGHT: f64 = 1.0e-7;

fn toward(turn: f64) -> Direction {
    if turn > 0.0 { Direction::Up } else { Direction::Down }
}
