//! A cell parted along a curve on which two surfaces of an end reach alike.

use std::rc::Rc;

use crate::frame::end::Cope;
use crate::patience;
use crate::plane::{Point, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING, TRACED};

use super::path::{Graph, Kind, Path};
use super::trace::Trace;

/// Shares that double precision hardly tells apart.
const ALIKE_SHARES: f64 = 1e-15;

/// The curve that parts a cell.
pub(super) enum Crease {
    /// Straight, along this way; several side by side where `across` tells them apart.
    Lines(Vector),
    /// Where a cope and a plane reach alike.
    Graph(Rc<Graph>),
    /// Where two copes reach alike, at a finish (1) or a start (-1).
    Rounds([Cope; 2], f64),
}

/// Closed loops with the cell on their left.
pub(super) type Loops = Vec<Vec<Path>>;

/// Nearer than this to alike is alike, mm.
const ALIKE: f64 = 1e-9;
/// Places nearer than this are one, mm.
const ONE: f64 = 1e-7;

/// Shares of the way along a path where a function changes its sign.
pub(super) fn roots(path: &Path, linear: bool, of: &dyn Fn(Point) -> f64) -> Vec<f64> {
    let steps = if linear && matches!(path.kind, Kind::Line) { 1 } else { 32 };
    let mut found = Vec::new();
    // The last place that was clearly on a side.
    let mut last: Option<(f64, f64)> = None;
    for step in 0..=steps {
        let share = f64::from(step) / f64::from(steps);
        let value = of(path.at(share));
        if value.abs() < ALIKE {
            continue;
        }
        if let Some((from, known)) = last
            && (known > 0.0) != (value > 0.0)
        {
            let (mut low, mut high, mut a, mut b) = (from, share, known, value);
            for turn in 0..200 {
                // Regula falsi and halving by turns: quick on straight runs, never stuck on curved ones.
                let at = if turn % 2 == 0 { low + (high - low) * (a / (a - b)) } else { (low + high) / 2.0 };
                let here = of(path.at(at));
                if here == 0.0 || high - low < ALIKE_SHARES {
                    (low, high) = (at, at);
                    break;
                }
                if (here > 0.0) == (a > 0.0) {
                    (low, a) = (at, here);
                } else {
                    (high, b) = (at, here);
                }
            }
            found.push((low + high) / 2.0);
        }
        last = Some((share, value));
    }
    found
}

/// Parts a cell: where `of` is below zero, and the rest. Either may be empty. `None` where the curve cannot be followed.
pub(super) fn split(loops: &Loops, crease: &Crease, linear: bool, of: &dyn Fn(Point) -> f64) -> Option<(Loops, Loops)> {
    patience::check();
    let mut pieces: Vec<(Path, bool)> = Vec::new();
    // Where the sign turns along the boundary, with whether it turns to below zero.
    let mut turns: Vec<(Point, bool)> = Vec::new();
    for walk in loops {
        let first = pieces.len();
        for path in walk {
            let mut cuts = roots(path, linear, of);
            cuts.retain(|&at| path.at(at).distance(path.from) > ONE && path.at(at).distance(path.to) > ONE);
            cuts.push(1.0);
            let mut from = 0.0;
            for to in cuts {
                let part = path.part(from, to);
                let value = of(part.middle());
                let below = if value.abs() < ALIKE { of(part.inside()) < 0.0 } else { value < 0.0 };
                pieces.push((part, below));
                from = to;
            }
        }
        let count = pieces.len() - first;
        for at in 0..count {
            let (before, here) = (&pieces[first + (at + count - 1) % count], &pieces[first + at]);
            if before.1 != here.1 {
                turns.push((here.0.from, here.1));
            }
        }
    }
    // In order along the curve they are its ways in and out by turns.
    let level = |at: Point, way: Vector| way.x * at.x + way.y * at.y;
    match crease {
        Crease::Lines(along) => turns.sort_by(|(one, _), (two, _)| {
            let (a, b) = (level(*one, along.left()), level(*two, along.left()));
            if (a - b).abs() > MODELLING_TOLERANCE {
                a.total_cmp(&b)
            } else {
                level(*one, *along).total_cmp(&level(*two, *along))
            }
        }),
        Crease::Graph(graph) => turns.sort_by(|(one, _), (two, _)| graph.off(*one).total_cmp(&graph.off(*two))),
        // Each is followed to the one that it leads to.
        Crease::Rounds(..) => {}
    }
    let mut both: [Vec<Path>; 2] = [Vec::new(), Vec::new()];
    for (path, below) in pieces {
        both[usize::from(!below)].push(path);
    }
    while !turns.is_empty() {
        patience::check();
        let (one, to_below) = turns.remove(0);
        let (next, kind) = match crease {
            Crease::Lines(_) => (0, Kind::Line),
            Crease::Graph(graph) => (0, Kind::Graph(graph.clone())),
            Crease::Rounds([first, second], way) => {
                let others: Vec<Point> = turns.iter().map(|(at, _)| *at).collect();
                let (next, trace) = Trace::follow([first, second], *way, one, &others, &|at| within(loops, at))?;
                (next, Kind::Trace(Rc::new(trace), 0.0, 1.0))
            }
        };
        if next >= turns.len() {
            return None;
        }
        let (two, again) = turns.remove(next);
        if to_below == again {
            return None;
        }
        let path = Path { from: one, to: two, kind };
        // Where the boundary turns to below zero, the part below zero comes in by the curve.
        // Where it touches a corner of the cell it pinches it there.
        let corners = loops.iter().flatten().map(|own| own.from);
        let inner = corners.filter(|at| at.distance(path.from) > TRACED && at.distance(path.to) > TRACED);
        let mut shares: Vec<f64> = inner.filter_map(|at| path.share_of(at, MODELLING_TOLERANCE)).collect();
        shares.sort_by(f64::total_cmp);
        shares.dedup_by(|two, one| *two - *one < ROUNDING);
        shares.push(1.0);
        let mut from = 0.0;
        for to in shares {
            let mut part = path.part(from, to);
            // To the corner itself.
            for end in [&mut part.from, &mut part.to] {
                if let Some(corner) =
                    loops.iter().flatten().map(|own| own.from).find(|at| at.distance(*end) < MODELLING_TOLERANCE)
                {
                    *end = corner;
                }
            }
            let (below, above) = if to_below { (part.reversed(), part) } else { (part.clone(), part.reversed()) };
            both[0].push(below);
            both[1].push(above);
            from = to;
        }
    }
    let [below, above] = both;
    Some((chained(below)?, chained(above)?))
}

/// A loop as places, its round edges looked at in chords.
fn chords(walk: &[Path]) -> Vec<Point> {
    const CHORDS: u32 = 128;
    walk.iter()
        .flat_map(|path| {
            let count = if matches!(path.kind, Kind::Line) { 1 } else { CHORDS };
            (0..count).map(move |chord| path.at(f64::from(chord) / f64::from(count)))
        })
        .collect()
}

/// Whether a place lies in a cell, even-odd.
fn within(loops: &[Vec<Path>], at: Point) -> bool {
    loops.iter().fold(false, |inside, walk| {
        let places = chords(walk);
        (0..places.len()).fold(inside, |inside, index| {
            let (from, to) = (places[index], places[(index + 1) % places.len()]);
            let crossed =
                (from.y > at.y) != (to.y > at.y) && at.x < from.x + (at.y - from.y) / (to.y - from.y) * (to.x - from.x);
            inside ^ crossed
        })
    })
}

/// A cell as the parts of it that hang together, each an outer loop with the openings in it.
pub(super) fn components(loops: Loops) -> Vec<Loops> {
    let area = |walk: &Vec<Path>| {
        let places = chords(walk);
        let first = places[0];
        places.windows(2).map(|pair| (pair[0] - first).cross(pair[1] - first)).sum::<f64>() / 2.0
    };
    let (outer, inner): (Vec<_>, Vec<_>) =
        loops.into_iter().map(|walk| (area(&walk), walk)).partition(|(area, _)| *area > 0.0);
    let mut all: Vec<(f64, Loops)> = outer.into_iter().map(|(area, walk)| (area, vec![walk])).collect();
    for (_, walk) in inner {
        let at = walk[0].middle();
        let holder = all.iter_mut().filter(|(_, own)| within(&own[..1], at)).min_by(|one, two| one.0.total_cmp(&two.0));
        if let Some((_, own)) = holder {
            own.push(walk);
        }
    }
    all.into_iter().map(|(_, own)| own).collect()
}

/// Directed paths as closed loops; the sharpest turn to the left where several leave a place.
fn chained(mut paths: Vec<Path>) -> Option<Loops> {
    let mut loops = Vec::new();
    while let Some(first) = paths.pop() {
        let start = first.from;
        let mut walk = vec![first];
        while let Some(last) = walk.last()
            && last.to.distance(start) > ONE
        {
            let into = last.to - last.at(0.999);
            let turn = |path: &Path| {
                let out = path.at(0.001) - path.from;
                into.cross(out).atan2(into.dot(out))
            };
            let next = (0..paths.len())
                .filter(|&at| paths[at].from.distance(last.to) < ONE)
                .max_by(|&one, &two| turn(&paths[one]).total_cmp(&turn(&paths[two])))?;
            walk.push(paths.swap_remove(next));
        }
        loops.push(walk);
    }
    Some(loops)
}
