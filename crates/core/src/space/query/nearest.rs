//! The place of a face that is nearest to another place: under it on the surface where the face reaches so far, else on its rim.

use std::f64::consts::TAU;

use crate::quantity::tolerance::NOTHING_SQUARED;
use crate::space::body::cubic;
use crate::space::{Body, Curve, Point3, Surface, Vector3};

/// How near the chords of a rim are to it where it is asked what lies within, mm.
const CHORD: f64 = 1e-4;
/// Steps of the search along a cubic piece or an ellipse before it closes in.
const STEPS: usize = 24;

/// A face made ready: its rim on the chart of its surface.
pub(super) struct Ready<'a> {
    body: &'a Body,
    face: usize,
    /// Turns (lengths on a plane) and lengths across, closed loops.
    rim: Vec<Vec<(f64, f64)>>,
    middle: f64,
    foot: f64,
}

impl<'a> Ready<'a> {
    /// `None` for ruled strips, which no closed form is under.
    pub(super) fn new(body: &'a Body, index: usize) -> Option<Ready<'a>> {
        let face = &body.faces[index];
        if matches!(face.surface, Surface::Ruled { .. }) {
            return None;
        }
        let middle = body.turns(face).map(|(low, high)| 0.5 * (low + high))?;
        let foot = body.foot(face)?;
        let mut ready = Ready { body, face: index, rim: Vec::new(), middle, foot };
        ready.rim = face
            .loops
            .iter()
            .map(|walk| {
                let mut rim: Vec<(f64, f64)> = Vec::new();
                for &(edge, ahead) in walk {
                    let mut places = vec![body.corners[body.edges[edge].from]];
                    places.extend(body.chords(edge, CHORD));
                    places.push(body.corners[body.edges[edge].to]);
                    if !ahead {
                        places.reverse();
                    }
                    places.pop();
                    rim.extend(places.into_iter().map(|place| ready.chart(place)));
                }
                rim
            })
            .collect();
        Some(ready)
    }

    fn surface(&self) -> &'a Surface {
        &self.body.faces[self.face].surface
    }

    fn chart(&self, place: Point3) -> (f64, f64) {
        let surface = self.surface();
        let turn = surface.turn(place);
        let turn = match surface {
            Surface::Plane { .. } => turn,
            _ => turn - TAU * ((turn - self.middle) / TAU).round(),
        };
        (turn, surface.across_from(place, self.foot))
    }

    fn reaches(&self, place: Point3) -> bool {
        let (u, v) = self.chart(place);
        let mut inside = false;
        for rim in &self.rim {
            for (at, &(a, b)) in rim.iter().enumerate() {
                let (c, d) = rim[(at + 1) % rim.len()];
                if (b > v) != (d > v) && u < a + (v - b) / (d - b) * (c - a) {
                    inside = !inside;
                }
            }
        }
        inside
    }

    /// The nearest place of the face.
    pub(super) fn nearest(&self, place: Point3) -> Point3 {
        let mut best = (f64::INFINITY, place);
        let mut hold = |at: Point3| {
            let away = at.distance(place);
            if away < best.0 {
                best = (away, at);
            }
        };
        feet(self.surface(), place).into_iter().filter(|&foot| self.reaches(foot)).for_each(&mut hold);
        for &(edge, _) in self.body.faces[self.face].loops.iter().flatten() {
            hold(on_edge(self.body, edge, place));
        }
        best.1
    }
}

/// Places of a surface that a place stands square over.
fn feet(surface: &Surface, place: Point3) -> Vec<Point3> {
    let radial = |point: Point3, axis: Vector3| {
        let arm = place - point;
        let up = arm.dot(axis);
        (up, arm - axis * up)
    };
    match surface {
        Surface::Plane { point, normal, .. } => vec![place + *normal * -(place - *point).dot(*normal)],
        Surface::Cylinder { point, axis, radius, .. } => {
            let (up, out) = radial(*point, *axis);
            let out = out.unit();
            [1.0, -1.0].map(|side| *point + *axis * up + out * (side * radius)).to_vec()
        }
        Surface::Cone { point, axis, radius, slope, .. } => {
            let (up, out) = radial(*point, *axis);
            let (arm, out) = (out.length(), out.unit());
            // Square onto the side's line, radius + slope v, on both sides of the axis.
            [1.0, -1.0]
                .map(|side: f64| {
                    let v = (up + slope * (side * arm - radius)) / (1.0 + slope * slope);
                    *point + *axis * v + out * (side * (radius + slope * v))
                })
                .to_vec()
        }
        Surface::Torus { point, axis, major, minor, .. } => {
            let (_, out) = radial(*point, *axis);
            let out = out.unit();
            [1.0, -1.0]
                .iter()
                .flat_map(|side| {
                    let middle = *point + out * (side * major);
                    let way = (place - middle).unit();
                    [middle + way * *minor, middle + way * -*minor]
                })
                .collect()
        }
        Surface::Ruled { .. } => Vec::new(),
    }
}

/// The place of an edge nearest to another.
pub(super) fn on_edge(body: &Body, index: usize, place: Point3) -> Point3 {
    let edge = &body.edges[index];
    let (from, to) = (body.corners[edge.from], body.corners[edge.to]);
    match (&edge.curve, body.round(index)) {
        (Curve::Line, _) => {
            let way = to - from;
            from + way * ((place - from).dot(way) / way.dot(way).max(NOTHING_SQUARED)).clamp(0.0, 1.0)
        }
        (Curve::Circle { .. }, Some(round)) => {
            let arm = place - round.centre;
            let turn = (arm.dot(round.second).atan2(arm.dot(round.first)) - round.from).rem_euclid(TAU);
            if turn <= round.sweep {
                round.at(turn)
            } else if from.distance(place) <= to.distance(place) {
                from
            } else {
                to
            }
        }
        (Curve::Cubic(points), _) => {
            let pieces = (points.len() - 1) / 3;
            let best = points
                .windows(4)
                .step_by(3)
                .map(|piece| {
                    let at = closest(|t| cubic(piece, t).0.distance(place), STEPS / pieces.min(STEPS / 4));
                    cubic(piece, at).0
                })
                .min_by(|a, b| a.distance(place).total_cmp(&b.distance(place)));
            best.unwrap_or(from)
        }
        (_, Some(round)) => round.at(round.sweep * closest(|t| round.at(round.sweep * t).distance(place), STEPS)),
        _ => from,
    }
}

/// Where between 0 and 1 a distance is least: the best of some steps, closed in on by thirds.
fn closest(distance: impl Fn(f64) -> f64, steps: usize) -> f64 {
    let at = |step: usize| step as f64 / steps as f64;
    let best = (0..=steps).min_by(|&a, &b| distance(at(a)).total_cmp(&distance(at(b)))).unwrap_or(0);
    let (mut low, mut high) = (at(best.saturating_sub(1)), at((best + 1).min(steps)));
    for _ in 0..80 {
        let third = (high - low) / 3.0;
        if distance(low + third) <= distance(high - third) { high -= third } else { low += third }
    }
    0.5 * (low + high)
}
