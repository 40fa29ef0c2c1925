//! Pulls a traced outline to round numbers: what looks level, upright, touching or about one centre is said so, then every
//! size that may still move takes the roundest number within its uncertainty, until the outline is defined.

use std::f64::consts::TAU;

use crate::plane::solve::StatementKind;
use crate::plane::{Point, Segment, Vector};
use crate::quantity::tolerance::NO_TURN;
use crate::quantity::{Dimension, LengthUnit, Names as Values};
use crate::work::shape::{Drawn, Saying, SayingKind};

use super::drawn::{self, Names};
use super::standing::{SayingRole, Standing};
use super::underlay::{self, UnderlayStands, round_number};

/// Directions that differ by less than this are meant to be the same, radians: 2.5 deg.
const SAME_WAY: f64 = 0.0436;
/// Joints that bend by less than this are meant to touch, radians: 9 deg.
const TOUCHING: f64 = 0.157;
/// The most trials: each solves the outline once.
const MOST_TRIALS: usize = 500;

/// Why an outline cannot be pulled.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum PullError {
    /// No picture with a scale.
    #[error("there is no picture with a scale under this outline; put one in and set its scale first")]
    NoScale,
    /// The outline itself is bad.
    #[error("the outline cannot be solved as it stands: {0}")]
    Outline(String),
}

struct Pull<'a> {
    drawn: &'a Drawn,
    names: Names,
    /// What is said so far.
    said: Vec<(usize, String, StatementKind)>,
    standing: Standing,
    /// As traced, before anything was said.
    traced: Standing,
    added: Vec<Saying>,
    trials: usize,
}

/// What has to be said further so that a traced outline is defined in round numbers.
///
/// # Errors
/// [`PullError`] without a scale, or when the outline's own names are bad.
pub fn pull_to_round(drawn: &Drawn, values: &Values, unit: LengthUnit) -> Result<Vec<Saying>, PullError> {
    let scale = drawn.underlay.as_ref().ok_or(PullError::NoScale)?;
    let length =
        |text: &str| values.read(text, Dimension::LENGTH, "a measured length").ok().filter(|value| *value > 0.0);
    let measured = length(&scale.scale.length).ok_or(PullError::NoScale)?;
    let check = scale.check.as_ref().and_then(|pair| length(&pair.length));
    let scale = underlay::stand(scale, measured, check, 0.0, unit).map_err(|_| PullError::NoScale)?;
    let names = Names::new(drawn).map_err(|fault| PullError::Outline(fault.message))?;
    let mut said = Vec::new();
    for (at, saying) in drawn.says.iter().enumerate() {
        let value = match (&saying.value, saying.what) {
            (Some(text), SayingKind::Angle) => values.read(text, Dimension::ANGLE, "an angle").ok(),
            (Some(text), _) => values.read(text, Dimension::LENGTH, "a length").ok(),
            (None, _) => Some(0.0),
        };
        let kind = value.and_then(|value| names.statement(saying.what, &saying.of, value).ok());
        said.extend(kind.map(|kind| (at, String::new(), kind)));
    }
    let standing = drawn::settle(drawn, &names, said.clone(), drawn.says.len()).standing.unwrap_or_default();
    let mut pull = Pull { drawn, names, said, traced: standing.clone(), standing, added: Vec::new(), trials: 0 };
    pull.rules(&scale);
    pull.numbers(&scale, values, unit);
    Ok(pull.added)
}

impl Pull<'_> {
    fn point(&self, name: &str) -> Option<Point> {
        self.standing.points.iter().find(|one| one.name == name).map(|one| Point::new(one.x, one.y))
    }

    fn radius(&self, name: &str) -> Option<f64> {
        self.standing.circles.iter().find(|one| one.name == name).map(|one| one.radius)
    }

    fn says(&self, what: SayingKind, of: &[&str]) -> bool {
        self.drawn.says.iter().chain(&self.added).any(|one| {
            one.what == what && one.of.len() == of.len() && of.iter().all(|name| one.of.iter().any(|own| own == name))
        })
    }

    /// Says one thing more if it shapes the outline and leaves nothing in disagreement.
    fn say(&mut self, what: SayingKind, of: &[&str], value: f64, text: Option<String>) {
        if self.standing.missing == 0 || self.trials >= MOST_TRIALS || self.says(what, of) {
            return;
        }
        let of: Vec<String> = of.iter().map(|name| (*name).to_string()).collect();
        let Ok(kind) = self.names.statement(what, &of, value) else { return };
        self.trials += 1;
        let place = self.drawn.says.len() + self.added.len();
        let mut said = self.said.clone();
        said.push((place, String::new(), kind));
        let tried = drawn::settle(self.drawn, &self.names, said.clone(), place + 1).standing.unwrap_or_default();
        // The first thing said of a direction lays the whole shape and leaves as many numbers missing.
        let drives = tried.sayings.last().is_some_and(|one| one.role == SayingRole::Drives);
        if drives && tried.disagree.is_empty() && tried.missing <= self.standing.missing {
            self.said = said;
            self.standing = tried;
            self.added.push(Saying { what, of, value: text.map(Into::into) });
        }
    }

    fn edge(&self, at: usize) -> Option<Segment> {
        let corners = &self.drawn.corners;
        let corner = corners.get(at)?;
        let next = &corners[(at + 1) % corners.len()];
        let (start, end) = (self.point(&corner.name)?, self.point(&next.name)?);
        Some(Segment { start, end, bulge: corner.bulge.unwrap_or(0.0) })
    }

    fn rules(&mut self, scale: &UnderlayStands) {
        let corners = self.drawn.corners.clone();
        let count = corners.len();
        let direction = |one: &Segment, at_end: bool| -> Vector {
            if one.is_line() {
                return (one.end - one.start).unit();
            }
            let arm = if at_end { one.end } else { one.start } - one.centre();
            (if one.bulge > 0.0 { arm.left() } else { arm.right() }).unit()
        };
        for at in 0..count {
            let (Some(one), Some(two)) = (self.edge(at), self.edge((at + 1) % count)) else { continue };
            if one.is_line() && two.is_line() {
                continue;
            }
            if direction(&one, true).dot(direction(&two, false)) > TOUCHING.cos() {
                self.say(SayingKind::Tangent, &[&corners[at].edge, &corners[(at + 1) % count].edge], 0.0, None);
            }
        }
        // Circles that share a centre within what picking can tell.
        let circles: Vec<String> = self.standing.circles.iter().map(|one| one.name.clone()).collect();
        for (at, one) in circles.iter().enumerate() {
            for two in &circles[at + 1..] {
                let (Some(a), Some(b)) = (self.point(&format!("{one}.centre")), self.point(&format!("{two}.centre")))
                else {
                    continue;
                };
                let size = self.radius(one).unwrap_or(0.0).max(self.radius(two).unwrap_or(0.0));
                if a.distance(b) <= 3.0 * scale.uncertainty(size) {
                    self.say(SayingKind::Concentric, &[one, two], 0.0, None);
                }
            }
        }
        // Arcs, and holes, that are as good as equal are meant to be.
        let traced =
            |pull: &Self, name: &str| pull.traced.circles.iter().find(|one| one.name == name).map(|one| one.radius);
        let arcs: Vec<(String, f64)> =
            corners.iter().filter_map(|one| Some((one.edge.clone(), 4.0 * one.bulge?.atan()))).collect();
        let holes: Vec<(String, f64)> = self.drawn.circles.iter().map(|one| (one.name.clone(), TAU)).collect();
        for kind in [&arcs, &holes] {
            for (at, (one, sweep)) in kind.iter().enumerate() {
                for (two, other) in &kind[at + 1..] {
                    let (Some(a), Some(b)) = (traced(self, one), traced(self, two)) else { continue };
                    if (a - b).abs() <= scale.arc_uncertainty(a, *sweep).hypot(scale.arc_uncertainty(b, *other)) {
                        self.say(SayingKind::Equal, &[one, two], 0.0, None);
                    }
                }
            }
        }
        for at in 0..count {
            let Some(one) = self.edge(at).filter(Segment::is_line) else { continue };
            let way = direction(&one, false);
            if way.y.abs() < SAME_WAY.sin() {
                self.say(SayingKind::Level, &[&corners[at].edge], 0.0, None);
            } else if way.x.abs() < SAME_WAY.sin() {
                self.say(SayingKind::Upright, &[&corners[at].edge], 0.0, None);
            }
        }
    }

    fn numbers(&mut self, scale: &UnderlayStands, values: &Values, unit: LengthUnit) {
        let number = |pull: &mut Self, what: SayingKind, of: &[&str], traced: f64| {
            let uncertainty = scale.uncertainty(traced);
            if traced <= uncertainty && matches!(what, SayingKind::Across | SayingKind::Up) {
                // As good as nought.
                pull.say(what, of, 0.0, Some("0".into()));
                return;
            }
            let text = round_number(traced, uncertainty, unit);
            // What will be typed is what counts.
            let Ok(value) = values.read(&text, Dimension::LENGTH, "a length") else { return };
            pull.say(what, of, value, Some(text));
        };
        let corners = self.drawn.corners.clone();
        let holes: Vec<String> = self.drawn.circles.iter().map(|one| one.name.clone()).collect();
        // Circles were picked by their rims: as traced they are worth more than after rules have moved them.
        let middle = |pull: &Self, name: &str| {
            let name = format!("{name}.centre");
            pull.traced.points.iter().find(|one| one.name == name).map(|one| Point::new(one.x, one.y))
        };
        for name in &holes {
            let rim = self.traced.circles.iter().find(|one| one.name == *name).map(|one| one.radius);
            if let Some(radius) = rim {
                number(self, SayingKind::Diameter, &[name], 2.0 * radius);
            }
        }
        for corner in corners.iter().filter(|one| one.bulge.is_some_and(|bulge| bulge.abs() > NO_TURN)) {
            if let Some(radius) = self.radius(&corner.edge) {
                number(self, SayingKind::Radius, &[&corner.edge], radius);
            }
        }
        // Circles to one another, then edges, then whatever may still move against the first corner.
        for (at, one) in holes.iter().enumerate() {
            for two in holes[..at].iter().rev() {
                let (Some(a), Some(b)) = (middle(self, one), middle(self, two)) else { continue };
                number(self, SayingKind::Across, &[two, one], (a.x - b.x).abs());
                number(self, SayingKind::Up, &[two, one], (a.y - b.y).abs());
            }
        }
        for at in 0..corners.len() {
            if let Some(one) = self.edge(at).filter(Segment::is_line) {
                number(self, SayingKind::Length, &[&corners[at].edge], one.length());
            }
        }
        let first = corners[0].name.clone();
        let loose: Vec<String> =
            self.standing.points.iter().map(|one| one.name.clone()).filter(|name| *name != first).collect();
        for name in loose {
            let (Some(a), Some(b)) = (self.point(&name), self.point(&first)) else { continue };
            number(self, SayingKind::Across, &[&first, &name], (a.x - b.x).abs());
            number(self, SayingKind::Up, &[&first, &name], (a.y - b.y).abs());
        }
    }
}
