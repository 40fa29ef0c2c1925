//! Integrals of an end's height over its section: what a cut of several planes, or along a round, leaves. The section is gone
//! over in lines along the other member, on which heights of planes and of a round rise straight, so that only the way across
//! them is summed: between the places where anything turns, by Gauss.

use crate::plane::{GAUSS, Outline, Point, Segment, Vector};
use crate::quantity::tolerance::{PARALLEL, ROUNDING};

use super::cut_plane::CutPlane;
use super::end::{Cope, End, ReachSums, crossings, heights};

/// Parts of each stretch across; of an end on two rounds aslant, whose every turn is known.
const PARTS: usize = 12;
const ASLANT_PARTS: usize = 6;
/// Looks along a line over two rounds for where they reach alike.
const LINE_LOOKS: usize = 16;
/// Parts of each stretch of such a line between the places where anything turns.
const LINE_PARTS: usize = 4;
/// Looks across a stretch for where lines come to cross another curve.
const TURN_LOOKS: usize = 16;
/// Looks along an edge of the section for where two surfaces reach alike.
const LOOKS: usize = 48;

/// A surface of an end as a height over the section.
enum Height<'a> {
    Plane(&'a CutPlane),
    Round(&'a Cope, f64),
}

impl Height<'_> {
    fn at(&self, at: Point) -> f64 {
        match self {
            Height::Plane(cut) => cut.reach(at),
            Height::Round(cope, way) => cope.reach(at, *way),
        }
    }
}

impl Height<'_> {
    /// Shares of the way between two places at which fibres begin to pass beside a round.
    fn flanks(&self, from: Point, to: Point) -> Vec<f64> {
        let Height::Round(cope, _) = self else { return Vec::new() };
        let Some((across, level)) = cope.beside() else { return Vec::new() };
        let off = |at: Point| across.x * at.x + across.y * at.y - level;
        let (a, b) = (off(from), off(to));
        let shares = [-cope.radius, cope.radius].map(|flank| (flank - a) / (b - a));
        shares.into_iter().filter(|share| (0.0..1.0).contains(share)).collect()
    }
}

/// The integrals of an end's height over a section of these outlines; `way` is 1 at a finish and -1 at a start.
pub(super) fn over(outlines: &[Outline], end: &End, way: f64) -> ReachSums {
    let all: Vec<Height> =
        end.planes.iter().map(Height::Plane).chain(end.copes.iter().map(|cope| Height::Round(cope, way))).collect();
    let across = end.copes.iter().find_map(Cope::beside).map_or(Vector::new(1.0, 0.0), |(across, _)| across);
    let along = across.left();
    let turn = |at: Point| {
        let arm = at - Point::default();
        Point::new(across.dot(arm), along.dot(arm))
    };
    let back = |o: f64, s: f64| Point::default() + across * o + along * s;
    let turned: Vec<Outline> = outlines.iter().map(|one| one.moved(turn)).collect();
    // A round along which the lines run is straight on them; any other is looked at in parts.
    let straight = all.iter().all(|one| match one {
        Height::Plane(_) => true,
        Height::Round(cope, _) => cope.beside().is_some_and(|(way, _)| way.cross(across).abs() < PARALLEL),
    });
    let steps = breaks(&turned, end, across, &|at, one, two| {
        let place = back(at.x, at.y);
        all[one].at(place) - all[two].at(place)
    });
    let lines = Lines { all: &all, way, straight, turned: &turned, across };
    let (steps, parts) = if straight { (steps, PARTS) } else { (lines.with_turns(steps), ASLANT_PARTS) };
    let mut sums = ReachSums::default();
    for pair in steps.windows(2) {
        let (middle, half) = ((pair[0] + pair[1]) / 2.0, (pair[1] - pair[0]) / 2.0);
        for part in 0..parts {
            for (share, weight) in GAUSS {
                // By the sine of an angle: the flank of a round has no slope there.
                let angle = std::f64::consts::PI * ((part as f64 + share) / parts as f64 - 0.5);
                let wide = half * angle.cos() * std::f64::consts::PI * weight / parts as f64;
                lines.add(middle + half * angle.sin(), wide, &mut sums);
            }
        }
    }
    sums
}

/// The lines along which a section is gone over.
struct Lines<'a> {
    all: &'a [Height<'a>],
    way: f64,
    /// All heights rise straight along them.
    straight: bool,
    /// The section's outlines, turned so that the lines stand upright.
    turned: &'a [Outline],
    across: Vector,
}

impl Lines<'_> {
    fn place(&self, off: f64, level: f64) -> Point {
        Point::default() + self.across * off + self.across.left() * level
    }

    /// Where the line so far across runs through the section.
    fn runs(&self, off: f64) -> Vec<(f64, f64)> {
        let mut levels: Vec<f64> = self.turned.iter().flat_map(|one| heights(one, off)).collect();
        levels.sort_by(f64::total_cmp);
        levels.chunks_exact(2).map(|run| (run[0], run[1])).collect()
    }

    /// Levels of a run between which the height that comes first is smooth.
    fn steps(&self, off: f64, (low, high): (f64, f64)) -> Vec<f64> {
        let at = |level: f64| self.place(off, level);
        let mut steps = vec![low, high];
        let mut looks = vec![low, high];
        if !self.straight {
            let flanks = self.all.iter().flat_map(|one| one.flanks(at(low), at(high)));
            steps.extend(flanks.map(|share| low + (high - low) * share));
            looks.clone_from(&steps);
            looks.extend((1..LINE_LOOKS).map(|look| low + (high - low) * look as f64 / LINE_LOOKS as f64));
            looks.sort_by(f64::total_cmp);
        }
        let count = self.all.len();
        let heights: Vec<f64> =
            looks.iter().flat_map(|&level| self.all.iter().map(move |one| one.at(at(level)))).collect();
        for (pair, heights) in looks.windows(2).zip(heights.windows(2 * count).step_by(count)) {
            for one in 0..count {
                for two in one + 1..count {
                    let (a, b) = (heights[one] - heights[two], heights[count + one] - heights[count + two]);
                    if a * b >= 0.0 {
                        continue;
                    }
                    if self.straight {
                        steps.push(pair[0] + (pair[1] - pair[0]) * a / (a - b));
                    } else {
                        let apart = |level: f64| self.all[one].at(at(level)) - self.all[two].at(at(level));
                        steps.extend(turns(pair[0], pair[1], &apart));
                    }
                }
            }
        }
        steps.sort_by(f64::total_cmp);
        steps
    }

    /// Adds the line so far across, so wide.
    fn add(&self, off: f64, wide: f64, sums: &mut ReachSums) {
        for run in self.runs(off) {
            let steps = self.steps(off, run);
            for pair in steps.windows(2).filter(|pair| pair[1] > pair[0]) {
                let long = pair[1] - pair[0];
                for (share, weight) in GAUSS {
                    if self.straight {
                        self.add_place(self.place(off, pair[0] + long * share), long * weight * wide, sums);
                        continue;
                    }
                    // A round by the sine of an angle, as across.
                    for part in 0..LINE_PARTS {
                        let angle = std::f64::consts::PI * ((part as f64 + share) / LINE_PARTS as f64 - 0.5);
                        let area = long * angle.cos() * std::f64::consts::FRAC_PI_2 * weight / LINE_PARTS as f64 * wide;
                        self.add_place(self.place(off, pair[0] + long * (1.0 + angle.sin()) / 2.0), area, sums);
                    }
                }
            }
        }
    }

    fn add_place(&self, at: Point, area: f64, sums: &mut ReachSums) {
        let first = self.all.iter().map(|one| one.at(at) * self.way).fold(f64::INFINITY, f64::min) * self.way;
        sums.volume += first * area;
        sums.across += first * at.x * area;
        sums.up += first * at.y * area;
        sums.along += first * first / 2.0 * area;
    }

    /// Levels across with those at which the lines come to cross a curve of two rounds, or leave it, between them.
    fn with_turns(&self, steps: Vec<f64>) -> Vec<f64> {
        let crossed = |off: f64| self.runs(off).into_iter().map(|run| self.steps(off, run).len()).sum::<usize>();
        let mut all = steps.clone();
        for pair in steps.windows(2) {
            let at = |look: usize| pair[0] + (pair[1] - pair[0]) * (look as f64 + 0.5) / TURN_LOOKS as f64;
            let counts: Vec<usize> = (0..TURN_LOOKS).map(|look| crossed(at(look))).collect();
            for look in (1..TURN_LOOKS).filter(|&look| counts[look - 1] != counts[look]) {
                let (mut low, mut high) = (at(look - 1), at(look));
                for _ in 0..40 {
                    let middle = (low + high) / 2.0;
                    if crossed(middle) == counts[look - 1] { low = middle } else { high = middle }
                }
                all.push((low + high) / 2.0);
            }
        }
        all.sort_by(f64::total_cmp);
        all
    }
}

/// Levels across at which anything turns: corners of the section, flanks of its rounds and of copes, and where the surface that
/// comes first changes on its rim.
fn breaks(turned: &[Outline], end: &End, across: Vector, apart: &dyn Fn(Point, usize, usize) -> f64) -> Vec<f64> {
    let mut all: Vec<f64> = Vec::new();
    let count = end.planes.len() + end.copes.len();
    for one in turned.iter().flat_map(Outline::segments).map(|(one, _)| one) {
        all.push(one.start.x);
        if !one.is_line() {
            let tips = [1.0, -1.0].map(|side| one.centre() + Vector::new(side * one.radius(), 0.0));
            all.extend(tips.iter().filter(|tip| one.sweeps_over(**tip)).map(|tip| tip.x));
        }
        for first in 0..count {
            for second in first + 1..count {
                all.extend(alike(&one, &|at| apart(at, first, second)));
            }
        }
    }
    let (low, high) =
        all.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), at| (low.min(*at), high.max(*at)));
    for cope in &end.copes {
        if let Some((way, level)) = cope.beside()
            && way.cross(across).abs() < PARALLEL
        {
            let level = level * way.dot(across).signum();
            all.extend([level - cope.radius, level + cope.radius]);
        } else if let Some((way, level)) = cope.beside() {
            // Flanks of another round run aslant: where they leave the section.
            let way = Vector::new(way.dot(across), way.dot(across.left()));
            let lines = [(way, level - cope.radius), (way, level + cope.radius)];
            let mut places = Vec::new();
            turned.iter().flat_map(Outline::segments).for_each(|(one, _)| crossings(&one, &lines, &mut places));
            all.extend(places.iter().map(|at| at.x));
        }
    }
    all.retain(|at| (low..=high).contains(at));
    all.sort_by(f64::total_cmp);
    all.dedup_by(|two, one| *two - *one < ROUNDING);
    all
}

/// Levels across at which a difference changes its sign along an edge.
fn alike(one: &Segment, apart: &dyn Fn(Point) -> f64) -> Vec<f64> {
    let mut found = Vec::new();
    let share = |step: usize| step as f64 / LOOKS as f64;
    for step in 0..LOOKS {
        let at = turns(share(step), share(step + 1), &|share| apart(one.at(share)));
        found.extend(at.map(|share| one.at(share).x));
    }
    found
}

/// Where a function turns its sign between two places, if it does.
fn turns(mut low: f64, mut high: f64, of: &dyn Fn(f64) -> f64) -> Option<f64> {
    let from = of(low);
    if from * of(high) >= 0.0 {
        return None;
    }
    for _ in 0..60 {
        let middle = (low + high) / 2.0;
        if of(middle) * from > 0.0 { low = middle } else { high = middle }
    }
    Some((low + high) / 2.0)
}
