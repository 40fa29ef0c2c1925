//! Where two rounds of an end reach alike: their curve through each other, followed from one edge of a cell to another.

use crate::frame::end::Cope;
use crate::plane::Point;
use crate::quantity::tolerance::{LEAST_DIVISOR, ROUNDING};
use crate::space::{Point3, Tube, Vector3};

/// How far to both sides the slope of a traced curve is taken, as a share of it.
const ASIDE: f64 = 1e-4;

/// How far it is followed at a time, of the smaller radius.
const STEP: f64 = 0.02;
/// Steps after which it is given up.
const MOST: usize = 2000;
/// Nearer than this to a round is on it, mm.
const NEAR: f64 = 1e-6;

/// A stretch of the curve of two rounds, in the end's frame.
#[derive(Debug)]
pub(super) struct Trace {
    tubes: [Tube; 2],
    places: Vec<Point3>,
}

fn section(place: Point3) -> Point {
    Point::new(place.x, place.y)
}

impl Trace {
    /// The curve from a place on a cell's rim through the cell, to the first of the others that it comes to, with which that
    /// is. `within` says whether a place lies in the cell. `None` where it cannot be followed.
    pub fn follow(
        copes: [&Cope; 2],
        way: f64,
        from: Point,
        others: &[Point],
        within: &dyn Fn(Point) -> bool,
    ) -> Option<(usize, Trace)> {
        let tubes = copes.map(Cope::tube);
        let raised = |at: Point| Point3::new(at.x, at.y, copes[0].reach(at, way));
        let start = raised(from);
        let ends: Vec<Point3> = others.iter().map(|&at| raised(at)).collect();
        let step = STEP * tubes[0].radius.min(tubes[1].radius);
        let along = |at: Point3| tubes[0].crossing_way(&tubes[1], at);
        let next = |at: Point3, by: Vector3| tubes[0].onto(&tubes[1], at + by);
        // Where metal's fibres come first to both rounds, and not behind either.
        let in_front = |at: Point3| copes.iter().all(|cope| (cope.reach(section(at), way) - at.z).abs() < NEAR);
        let mut ways = [1.0, -1.0].into_iter().filter_map(|sense| {
            let by = along(start)? * sense;
            let close = next(start, by * (step / 4.0))?;
            (in_front(close) && within(section(close))).then_some(by)
        });
        let mut heading = ways.next()?;
        if ways.next().is_some() {
            return None;
        }
        let mut places = vec![start];
        for _ in 0..MOST {
            let here = *places.last()?;
            let there = next(here, heading * step)?;
            let chord = there - here;
            // Where it has come to an end, or goes by one within the step.
            let met = ends.iter().enumerate().filter_map(|(at, end)| {
                let share = (*end - here).dot(chord) / chord.dot(chord);
                let aside = end.distance(here + chord * share);
                let passed = share > ROUNDING && share <= 1.0 + ROUNDING && aside < 0.02 * step;
                passed.then_some((share, at))
            });
            if let Some((_, at)) = met.min_by(|one, two| one.0.total_cmp(&two.0)) {
                places.push(ends[at]);
                return Some((at, Trace { tubes, places }));
            }
            if !in_front(there) {
                return None;
            }
            let way = along(there)?;
            heading = if way.dot(heading) < 0.0 { -way } else { way };
            places.push(there);
        }
        None
    }

    /// The place a share of the way along.
    pub fn at(&self, share: f64) -> Point3 {
        let last = self.places.len() - 1;
        let far = share.clamp(0.0, 1.0) * last as f64;
        let at = (far.floor() as usize).min(last - 1);
        let part = far - at as f64;
        if part == 0.0 {
            return self.places[at];
        }
        if part == 1.0 {
            return self.places[at + 1];
        }
        let chord = self.places[at] + (self.places[at + 1] - self.places[at]) * part;
        self.tubes[0].onto(&self.tubes[1], chord).unwrap_or(chord)
    }

    /// The same seen along the fibres.
    pub fn place(&self, share: f64) -> Point {
        section(self.at(share))
    }

    /// Where a place near it lies, as a share of the way.
    pub fn share_of(&self, at: Point) -> f64 {
        let last = self.places.len() - 1;
        let of = |index: usize| {
            let (from, to) = (section(self.places[index]), section(self.places[index + 1]));
            let by = to - from;
            let part = ((at - from).dot(by) / by.dot(by).max(LEAST_DIVISOR)).clamp(0.0, 1.0);
            (from.toward(to, part).distance(at), (index as f64 + part) / last as f64)
        };
        let mut share = (0..last).map(of).min_by(|one, two| one.0.total_cmp(&two.0)).map_or(0.0, |one| one.1);
        // Nearer, by its slope.
        for _ in 0..6 {
            let (low, high) = ((share - ASIDE).max(0.0), (share + ASIDE).min(1.0));
            let slope = (self.place(high) - self.place(low)) * (1.0 / (high - low));
            let off = (at - self.place(share)).dot(slope) / slope.dot(slope).max(LEAST_DIVISOR);
            share = (share + off).clamp(0.0, 1.0);
        }
        share
    }
}
