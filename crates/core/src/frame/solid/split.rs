//! A cell parted along a curve on which two surfaces of an end reach alike.

use std::rc::Rc;

use crate::plane::{Point, Vector};

use super::path::{Graph, Kind, Path};

/// The curve that parts a cell.
pub(super) enum Crease {
    /// Straight, along this way; several side by side where `across` tells them apart.
    Lines(Vector),
    /// Where a cope and a plane reach alike.
    Graph(Rc<Graph>),
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
                if here == 0.0 || high - low < 1e-15 {
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
            if (a - b).abs() > 1e-6 { a.total_cmp(&b) } else { level(*one, *along).total_cmp(&level(*two, *along)) }
        }),
        Crease::Graph(graph) => turns.sort_by(|(one, _), (two, _)| graph.off(*one).total_cmp(&graph.off(*two))),
    }
    let mut both: [Vec<Path>; 2] = [Vec::new(), Vec::new()];
    for (path, below) in pieces {
        both[usize::from(!below)].push(path);
    }
    for pair in turns.chunks(2) {
        let &[(one, to_below), (two, again)] = pair else { return None };
        if to_below == again {
            return None;
        }
        let kind = match crease {
            Crease::Lines(_) => Kind::Line,
            Crease::Graph(graph) => Kind::Graph(graph.clone()),
        };
        let path = Path { from: one, to: two, kind };
        // Where the boundary turns to below zero, the part below zero comes in by the curve.
        let (below, above) = if to_below { (path.reversed(), path) } else { (path.clone(), path.reversed()) };
        both[0].push(below);
        both[1].push(above);
    }
    let [below, above] = both;
    Some((chained(below)?, chained(above)?))
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
