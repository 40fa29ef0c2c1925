//! Integrals of an end's height over its section: what a cut of several planes, or along a round, leaves. The section is gone
//! over in lines along the other member, on which heights of planes and of a round rise straight, so that only the way across
//! them is summed: between the places where anything turns, by Gauss.

use crate::plane::{GAUSS, Outline, Point, Segment, Vector};

use super::member::{Cope, CutPlane, End, ReachSums, crossings, heights};

/// Parts of each stretch across.
const PARTS: usize = 12;
/// Looks along a line over two rounds for where they reach alike.
const LINE_LOOKS: usize = 16;
/// Parts of each stretch of such a line between the places where anything turns.
const LINE_PARTS: usize = 3;
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
        Height::Round(cope, _) => cope.beside().is_some_and(|(way, _)| way.cross(across).abs() < 1e-9),
    });
    let steps = breaks(&turned, end, across, &|at, one, two| {
        let place = back(at.x, at.y);
        all[one].at(place) - all[two].at(place)
    });
    let mut sums = ReachSums::default();
    for pair in steps.windows(2) {
        let (middle, half) = ((pair[0] + pair[1]) / 2.0, (pair[1] - pair[0]) / 2.0);
        for part in 0..PARTS {
            for (share, weight) in GAUSS {
                // By the sine of an angle: the flank of a round has no slope there.
                let angle = std::f64::consts::PI * ((part as f64 + share) / PARTS as f64 - 0.5);
                let o = middle + half * angle.sin();
                let wide = half * angle.cos() * std::f64::consts::PI * weight / PARTS as f64;
                let mut levels: Vec<f64> = turned.iter().flat_map(|one| heights(one, o)).collect();
                levels.sort_by(f64::total_cmp);
                for run in levels.chunks_exact(2) {
                    along_line(&all, way, straight, (run[0], run[1]), &|s| back(o, s), wide, &mut sums);
                }
            }
        }
    }
    sums
}

/// Adds a line of the section from one level to another.
fn along_line(
    all: &[Height],
    way: f64,
    straight: bool,
    (low, high): (f64, f64),
    place: &dyn Fn(f64) -> Point,
    wide: f64,
    sums: &mut ReachSums,
) {
    let mut steps = vec![low, high];
    if straight {
        // Where two straight heights cross.
        let ends: Vec<(f64, f64)> = all.iter().map(|one| (one.at(place(low)), one.at(place(high)))).collect();
        for (at, one) in ends.iter().enumerate() {
            for two in &ends[at + 1..] {
                let (a, b) = (one.0 - two.0, one.1 - two.1);
                if a * b < 0.0 {
                    steps.push(low + (high - low) * a / (a - b));
                }
            }
        }
    } else {
        steps.extend(all.iter().flat_map(|one| one.flanks(place(low), place(high))).map(|at| low + (high - low) * at));
        let mut looks = steps.clone();
        looks.extend((1..LINE_LOOKS).map(|at| low + (high - low) * at as f64 / LINE_LOOKS as f64));
        looks.sort_by(f64::total_cmp);
        let heights: Vec<f64> =
            looks.iter().flat_map(|&level| all.iter().map(move |one| one.at(place(level)))).collect();
        for (pair, high) in looks.windows(2).zip(heights.windows(2 * all.len()).step_by(all.len())) {
            for at in 0..all.len() {
                for other in at + 1..all.len() {
                    let apart = |look: usize| high[look * all.len() + at] - high[look * all.len() + other];
                    if apart(0) * apart(1) < 0.0 {
                        let apart = |level: f64| all[at].at(place(level)) - all[other].at(place(level));
                        steps.extend(turns(pair[0], pair[1], &apart));
                    }
                }
            }
        }
    }
    steps.sort_by(f64::total_cmp);
    let mut add = |level: f64, area: f64| {
        let at = place(level);
        let first = all.iter().map(|one| one.at(at) * way).fold(f64::INFINITY, f64::min) * way;
        sums.volume += first * area;
        sums.across += first * at.x * area;
        sums.up += first * at.y * area;
        sums.along += first * first / 2.0 * area;
    };
    for pair in steps.windows(2).filter(|pair| pair[1] > pair[0]) {
        let long = pair[1] - pair[0];
        for (share, weight) in GAUSS {
            if straight {
                add(pair[0] + long * share, long * weight * wide);
                continue;
            }
            // A round by the sine of an angle, as across.
            for part in 0..LINE_PARTS {
                let angle = std::f64::consts::PI * ((part as f64 + share) / LINE_PARTS as f64 - 0.5);
                let area = long * angle.cos() * std::f64::consts::FRAC_PI_2 * weight / LINE_PARTS as f64 * wide;
                add(pair[0] + long * (1.0 + angle.sin()) / 2.0, area);
            }
        }
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
            && way.cross(across).abs() < 1e-9
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
    all.dedup_by(|two, one| *two - *one < 1e-9);
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
