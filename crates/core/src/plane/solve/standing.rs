//! How a sketch stands once solved: what drives, what is implied, what is missing, what disagrees.

use crate::patience;
use crate::plane::{Point, Vector};
use crate::quantity::tolerance::{NOTHING, ROUNDING};

use super::equation::{Equation, Row, equations};
use super::newton::{descend, rows};
use super::sketch::{CircleAt, PointAt, Sketch, StatementKind};

/// Steps go on until no equation is off by more than this share of the drawing.
const SOLVED: f64 = 1e-11;
/// Where they come no further, this share of the drawing is still an answer.
const ENOUGH: f64 = 1e-8;
/// What weighs less than this share of the heaviest has no part in a contradiction.
const TAKES_PART: f64 = 1e-6;
/// Of a direction of unit length, what is left where it cannot move.
const FREE: f64 = 1e-6;

/// What a statement came to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Role {
    /// It shapes the outline.
    Drives,
    /// The others already say it, and it agrees.
    Implied,
    /// It disagrees with others.
    Conflicts,
}

/// Statements that cannot all be true.
#[derive(Clone, Debug, PartialEq)]
pub struct Conflict {
    /// Their places in [`Sketch::statements`], in order. Taking any one out settles it.
    pub statements: Vec<usize>,
    /// By how much the last of them is off, mm (radians for an angle); the shape drawn follows the others.
    pub off_by: f64,
    /// The statement that `off_by` speaks of.
    pub measured: usize,
}

/// A point or a radius that numbers do not hold yet.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Loose {
    /// A point that may move along one direction, a unit vector.
    Along(PointAt, Vector),
    /// A point that may move any way.
    Freely(PointAt),
    /// A radius that may change.
    Radius(CircleAt),
}

/// A sketch brought onto its statements.
#[derive(Clone, Debug)]
pub struct Solution {
    /// The solved places.
    pub sketch: Sketch,
    /// What became of each statement.
    pub roles: Vec<Role>,
    /// How many numbers are still missing.
    pub missing: usize,
    /// What may still move.
    pub loose: Vec<Loose>,
    /// What disagrees; empty when all agree.
    pub conflicts: Vec<Conflict>,
    /// Largest equation left among those that shape it, mm.
    pub left: f64,
}

/// Slopes this far from the others' span, relative to their own length, are independent.
const INDEPENDENT: f64 = 1e-7;
/// The most attempts at finding which numbers cannot be true together.
const MOST_TRIALS: usize = 64;

/// A number drawn within this part of the whole may stand on the wrong side by the hand's error.
const HANDS_ERROR: f64 = 0.08;
/// The most numbers whose other side is tried.
const MOST_SIDES: usize = 6;

/// Solves. Never fails: when numbers disagree the shape follows those that agree, and the rest are named.
///
/// A number's side is the one it is drawn on. Where numbers disagree and one of them is drawn so small that the hand
/// may have slipped to the wrong side, its other side is tried: true numbers do not disagree for want of a steady hand.
pub fn solve(rough: &Sketch) -> Solution {
    let as_drawn = solve_as_drawn(rough);
    if as_drawn.conflicts.is_empty() {
        return as_drawn;
    }
    let slip = HANDS_ERROR * extent(rough);
    let mut doubtful: Vec<(f64, usize)> = as_drawn
        .conflicts
        .iter()
        .flat_map(|conflict| conflict.statements.iter().copied())
        .filter(|&at| {
            use StatementKind as Say;
            let kind = rough.statements[at].kind;
            matches!(kind, Say::Across(..) | Say::Up(..) | Say::FromEdge(..))
                && kind.number().is_some_and(|value| value > 0.0)
        })
        .map(|at| (measured(rough, &rough.statements[at].kind).abs(), at))
        .filter(|(drawn, _)| *drawn <= slip)
        .collect();
    doubtful.sort_by(|one, two| one.0.total_cmp(&two.0));
    doubtful.dedup();
    for &(_, at) in doubtful.iter().take(MOST_SIDES) {
        // A negative number is the same one on the other side.
        let mut trial = rough.clone();
        let kind = trial.statements[at].kind;
        trial.statements[at].kind = with_number(kind, -kind.number().unwrap_or(0.0));
        let mut other = solve_as_drawn(&trial);
        if other.conflicts.is_empty() {
            other.sketch.statements.clone_from(&rough.statements);
            return other;
        }
    }
    as_drawn
}

fn solve_as_drawn(rough: &Sketch) -> Solution {
    let start = to_scale(rough);
    let scale = extent(&start).max(1.0);
    let good = SOLVED * scale;
    let enough = ENOUGH * scale;
    let all = equations(&start, scale);
    let mut dropped: Vec<usize> = Vec::new();
    let mut conflicts = Vec::new();
    let whole = reach(&start, &all, good, enough);
    let vector = match whole {
        Some(vector) => vector,
        None => disagreeing(&start, &all, good, enough, &mut dropped, &mut conflicts),
    };
    let kept: Vec<Equation> =
        all.iter().filter(|one| one.statement.is_none_or(|at| !dropped.contains(&at))).cloned().collect();
    let sketch = start.with(&vector);
    let reduction = reduce(&rows(&sketch, &kept, &vector), &by_rank(&sketch, &kept), vector.len());
    let mut roles = vec![Role::Implied; rough.statements.len()];
    for &at in &reduction.independent {
        if let Some(statement) = kept[at].statement {
            roles[statement] = Role::Drives;
        }
    }
    for conflict in &conflicts {
        for &at in &conflict.statements {
            roles[at] = Role::Conflicts;
        }
    }
    // On the shape that is shown, whatever shape each conflict was found on.
    for conflict in &mut conflicts {
        let kind = &rough.statements[conflict.measured].kind;
        if let Some(value) = kind.number() {
            conflict.off_by = measured(&sketch, kind) - value;
        }
    }
    let left = rows(&sketch, &kept, &vector).iter().fold(0.0f64, |most, row| most.max(row.value.abs()));
    let (missing, loose) = freedom(&sketch, &reduction, &rows(&sketch, &kept, &vector));
    Solution { sketch, roles, missing, loose, conflicts, left }
}

/// Brings the rough places to the size that the numbers speak of, so that a sketch clicked at any zoom starts near.
fn to_scale(rough: &Sketch) -> Sketch {
    let mut ratios: Vec<f64> = Vec::new();
    for statement in &rough.statements {
        use StatementKind as Say;
        let lengthy = matches!(
            statement.kind,
            Say::Distance(..) | Say::Across(..) | Say::Up(..) | Say::Radius(..) | Say::Diameter(..)
        );
        if let (true, Some(value)) = (lengthy, statement.kind.number()) {
            let drawn = measured(rough, &statement.kind).abs();
            if drawn > ROUNDING && value.abs() > ROUNDING {
                ratios.push(value.abs() / drawn);
            }
        }
    }
    if ratios.is_empty() {
        return rough.clone();
    }
    ratios.sort_by(f64::total_cmp);
    let ratio = ratios[ratios.len() / 2];
    let mut scaled = rough.clone();
    let first = rough.points.first().copied().unwrap_or_default();
    scaled.points.iter_mut().for_each(|point| *point = first + (*point - first) * ratio);
    scaled.circles.iter_mut().for_each(|circle| circle.radius *= ratio);
    scaled
}

fn extent(sketch: &Sketch) -> f64 {
    let mut around = crate::plane::Box2::EMPTY;
    sketch.points.iter().for_each(|&point| around.hold(point));
    let radius = sketch.circles.iter().fold(0.0f64, |most, circle| most.max(circle.radius.abs()));
    around.width().max(around.height()).max(radius)
}

/// Solves in one go, or failing that by steps along the way; `None` when the equations are not met.
fn reach(start: &Sketch, wanted: &[Equation], good: f64, enough: f64) -> Option<Vec<f64>> {
    let ended = descend(start, wanted, start.vector(), good);
    let drawn = start.with(&ended.vector);
    (ended.worst <= enough && keeps_its_radii(&drawn)).then_some(ended.vector)
}

fn keeps_its_radii(sketch: &Sketch) -> bool {
    sketch.circles.iter().all(|circle| circle.radius > 0.0)
}

/// The order in which equations claim the shape: arcs' own, then rules, then the drawing's numbers in their order.
fn by_rank(sketch: &Sketch, equations: &[Equation]) -> Vec<usize> {
    let mut order: Vec<usize> = (0..equations.len()).collect();
    order.sort_by_key(|&at| match equations[at].statement {
        None => (0, 0),
        Some(statement) if sketch.statements[statement].kind.number().is_none() => (1, statement),
        Some(statement) => (2, statement),
    });
    order
}

/// Settles a sketch whose statements are not all true: finds independent ones, solves those, and measures the rest.
fn disagreeing(
    start: &Sketch,
    all: &[Equation],
    good: f64,
    enough: f64,
    dropped: &mut Vec<usize>,
    conflicts: &mut Vec<Conflict>,
) -> Vec<f64> {
    // A general place of the sketch's family: its rules met, its numbers not.
    let is_rule = |one: &Equation| one.statement.is_none_or(|at| start.statements[at].kind.number().is_none());
    let rules: Vec<Equation> = all.iter().filter(|one| is_rule(one)).cloned().collect();
    let mut place = descend(start, &rules, start.vector(), good).vector;
    for _ in 0..start.statements.len() {
        let kept: Vec<&Equation> =
            all.iter().filter(|one| one.statement.is_none_or(|at| !dropped.contains(&at))).collect();
        let owned: Vec<Equation> = kept.iter().map(|&one| one.clone()).collect();
        let sketch = start.with(&place);
        let reduction = reduce(&rows(&sketch, &owned, &place), &by_rank(start, &owned), place.len());
        let chosen: Vec<Equation> = reduction.independent.iter().map(|&at| owned[at].clone()).collect();
        let Some(solved) = reach(start, &chosen, good, enough).or_else(|| stepwise(start, &chosen, good, enough))
        else {
            let stuck = irreducible(start, &chosen, good, enough);
            let Some(&last) = stuck.last() else { return place };
            let shape = without(&chosen, &[last]);
            let there = descend(start, &shape, start.vector(), good).vector;
            let kind = &start.statements[last].kind;
            let off_by = measured(&start.with(&there), kind) - kind.number().unwrap_or(0.0);
            conflicts.push(Conflict { statements: stuck, off_by, measured: last });
            dropped.push(last);
            place = there;
            continue;
        };
        place = solved;
        // Everything that follows from the independent ones is measured on the solved shape.
        let sketch = start.with(&place);
        let there = rows(&sketch, &owned, &place);
        let again = reduce(&there, &by_rank(start, &owned), place.len());
        for (at, circuit) in &again.dependent {
            let Some(statement) = owned[*at].statement else { continue };
            if there[*at].value.abs() <= enough || dropped.contains(&statement) {
                continue;
            }
            let mut names: Vec<usize> = circuit.iter().filter_map(|&one| owned[one].statement).collect();
            names.push(statement);
            names.sort_unstable();
            names.dedup();
            let kind = &start.statements[statement].kind;
            let off_by = match kind.number() {
                Some(value) => measured(&sketch, kind) - value,
                None => there[*at].value,
            };
            conflicts.push(Conflict { statements: names, off_by, measured: statement });
            dropped.push(statement);
        }
        return place;
    }
    place
}

/// Walks the numbers from what is drawn to what is wanted, a part of the way at a time.
fn stepwise(start: &Sketch, chosen: &[Equation], good: f64, enough: f64) -> Option<Vec<f64>> {
    let wanted: Vec<usize> = chosen.iter().filter_map(|one| one.statement).collect();
    let scale = extent(start).max(1.0);
    let mut place = start.clone();
    for step in 1..=8 {
        let part = f64::from(step) / 8.0;
        let mut trial = place.clone();
        for (at, statement) in trial.statements.iter_mut().enumerate() {
            let kind = start.statements[at].kind;
            if let Some(value) = kind.number() {
                let drawn = measured(start, &kind).abs();
                statement.kind = with_number(kind, drawn + (value - drawn) * part);
            }
        }
        let own: Vec<Equation> = equations(&trial, scale)
            .into_iter()
            .filter(|one| one.statement.is_none_or(|at| wanted.contains(&at)))
            .collect();
        let ended = descend(&trial, &own, trial.vector(), if step == 8 { good } else { enough });
        place = trial.with(&ended.vector);
    }
    let worst = rows(start, chosen, &place.vector()).iter().fold(0.0f64, |most, row| most.max(row.value.abs()));
    (worst <= enough && keeps_its_radii(&place)).then(|| place.vector())
}

fn with_number(kind: StatementKind, to: f64) -> StatementKind {
    use StatementKind as Say;
    match kind {
        Say::Distance(a, b, _) => Say::Distance(a, b, to),
        Say::Across(a, b, _) => Say::Across(a, b, to),
        Say::Up(a, b, _) => Say::Up(a, b, to),
        Say::FromEdge(a, b, _) => Say::FromEdge(a, b, to),
        Say::Angle(a, b, _) => Say::Angle(a, b, to),
        Say::Radius(a, _) => Say::Radius(a, to),
        Say::Diameter(a, _) => Say::Diameter(a, to),
        Say::Gap(a, b, _) => Say::Gap(a, b, to),
        other => other,
    }
}

fn without(equations: &[Equation], out: &[usize]) -> Vec<Equation> {
    equations.iter().filter(|one| one.statement.is_none_or(|at| !out.contains(&at))).cloned().collect()
}

/// A set of numbers that cannot be true together while every set with one fewer can: found by taking them out in
/// halves, then one by one, within a bound on trials.
fn irreducible(start: &Sketch, chosen: &[Equation], good: f64, enough: f64) -> Vec<usize> {
    let mut kept: Vec<usize> = Vec::new();
    for statement in chosen.iter().filter_map(|one| one.statement) {
        if start.statements[statement].kind.number().is_some() && !kept.contains(&statement) {
            kept.push(statement);
        }
    }
    let numbers = kept.clone();
    let fails = |kept: &[usize]| {
        let out: Vec<usize> = numbers.iter().copied().filter(|one| !kept.contains(one)).collect();
        reach(start, &without(chosen, &out), good, enough).is_none()
    };
    let mut trials = 0;
    let mut chunk = kept.len().div_ceil(2).max(1);
    loop {
        let mut at = 0;
        while at < kept.len() && trials < MOST_TRIALS {
            let end = (at + chunk).min(kept.len());
            let rest: Vec<usize> = kept[..at].iter().chain(&kept[end..]).copied().collect();
            trials += 1;
            if !rest.is_empty() && fails(&rest) {
                kept = rest;
            } else {
                at = end;
            }
        }
        if chunk == 1 || trials >= MOST_TRIALS {
            return kept;
        }
        chunk = chunk.div_ceil(2);
    }
}

/// Independent rows, an orthonormal basis of their span, and for each dependent row the rows that it follows from.
struct Reduction {
    basis: Vec<Vec<f64>>,
    independent: Vec<usize>,
    dependent: Vec<(usize, Vec<usize>)>,
}

fn reduce(rows: &[Row], order: &[usize], size: usize) -> Reduction {
    let mut basis: Vec<Vec<f64>> = Vec::new();
    let mut independent = Vec::new();
    let mut dependent = Vec::new();
    // Row i of the independent ones is the sum over j of coefficients[i][j] times basis j; the last is its own.
    let mut coefficients: Vec<Vec<f64>> = Vec::new();
    for &at in order {
        patience::check();
        let row = &rows[at];
        let length = row.slopes.iter().map(|one| one * one).sum::<f64>().sqrt();
        if length.is_nan() || length <= NOTHING {
            continue;
        }
        let mut rest = vec![0.0; size];
        for (slope, &unknown) in row.slopes.iter().zip(&row.unknowns) {
            rest[unknown] += slope / length;
        }
        let mut parts = vec![0.0; basis.len()];
        // Twice is enough to keep the basis square (Kahan's remark on Gram-Schmidt).
        for _ in 0..2 {
            for (part, own) in parts.iter_mut().zip(&basis) {
                let along: f64 = own.iter().zip(&rest).map(|(a, b)| a * b).sum();
                if along != 0.0 {
                    *part += along;
                    rest.iter_mut().zip(own).for_each(|(value, own)| *value -= along * own);
                }
            }
        }
        let left = rest.iter().map(|one| one * one).sum::<f64>().sqrt();
        if left > INDEPENDENT {
            rest.iter_mut().for_each(|value| *value /= left);
            basis.push(rest);
            parts.push(left);
            coefficients.push(parts);
            independent.push(at);
        } else {
            // Which independent rows add up to this one: back substitution.
            let mut weights = vec![0.0; parts.len()];
            for place in (0..parts.len()).rev() {
                let weight = parts[place] / coefficients[place][place];
                weights[place] = weight;
                for below in 0..place {
                    parts[below] -= weight * coefficients[place][below];
                }
            }
            let most = weights.iter().fold(0.0f64, |most, one| most.max(one.abs()));
            let circuit = (0..weights.len())
                .filter(|&one| weights[one].abs() > TAKES_PART * most)
                .map(|one| independent[one])
                .collect();
            dependent.push((at, circuit));
        }
    }
    Reduction { basis, independent, dependent }
}

/// How many numbers are missing, and what may still move.
fn freedom(sketch: &Sketch, reduction: &Reduction, rows: &[Row]) -> (usize, Vec<Loose>) {
    let size = sketch.unknowns();
    let count = sketch.points.len();
    let mut basis = reduction.basis.clone();
    let mut around = crate::plane::Box2::EMPTY;
    sketch.points.iter().for_each(|&point| around.hold(point));
    let middle = if count > 0 { around.centre() } else { Point::default() };
    let mut rigid = 0;
    let motion = |way: &dyn Fn(Point) -> Vector| -> Vec<f64> {
        let mut unknowns = vec![0.0; size];
        for (at, &point) in sketch.points.iter().enumerate() {
            let by = way(point);
            (unknowns[2 * at], unknowns[2 * at + 1]) = (by.x, by.y);
        }
        unknowns
    };
    let motions = [
        motion(&|_| Vector::new(1.0, 0.0)),
        motion(&|_| Vector::new(0.0, 1.0)),
        motion(&|point| (point - middle).left()),
    ];
    for (which, mut one) in motions.into_iter().enumerate() {
        let length = one.iter().map(|v| v * v).sum::<f64>().sqrt();
        if length < NOTHING {
            continue;
        }
        one.iter_mut().for_each(|v| *v /= length);
        let held = rows.iter().any(|row| {
            let slope = row.slopes.iter().map(|s| s * s).sum::<f64>().sqrt();
            let along: f64 = row.unknowns.iter().zip(&row.slopes).map(|(&at, s)| one[at] * s).sum();
            along.abs() > INDEPENDENT * slope.max(NOTHING)
        });
        if held {
            continue;
        }
        // The whole shape may move this way, which no number of the drawing stops: the first corner (for a turn, the
        // first edge) is held instead, so that what is told as loose is loose against it.
        let pinned = orthogonal(pin(sketch, which, size), &basis);
        if let Some(row) = pinned.or_else(|| orthogonal(one, &basis)) {
            basis.push(row);
            rigid += 1;
        }
    }
    let missing = size.saturating_sub(reduction.independent.len() + rigid);
    let mut loose = Vec::new();
    if missing > 0 {
        let block = |a: usize, b: usize| {
            let own: f64 = basis.iter().map(|q| q[a] * q[b]).sum();
            if a == b { 1.0 - own } else { -own }
        };
        let free = FREE;
        for at in 0..count {
            let (xx, xy, yy) = (block(2 * at, 2 * at), block(2 * at, 2 * at + 1), block(2 * at + 1, 2 * at + 1));
            let (half, spread) = ((xx + yy) / 2.0, (((xx - yy) / 2.0).powi(2) + xy * xy).sqrt());
            if half + spread <= free {
                continue;
            }
            if half - spread > free {
                loose.push(Loose::Freely(at));
            } else {
                let angle = 0.5 * (2.0 * xy).atan2(xx - yy);
                loose.push(Loose::Along(at, Vector::new(angle.cos(), angle.sin())));
            }
        }
        for at in 0..sketch.circles.len() {
            if block(2 * count + at, 2 * count + at) > free {
                loose.push(Loose::Radius(at));
            }
        }
    }
    (missing, loose)
}

/// The row that holds the first corner across (0) or up (1), or the first edge's far end from turning (2).
fn pin(sketch: &Sketch, which: usize, size: usize) -> Vec<f64> {
    let mut row = vec![0.0; size];
    if which < 2 {
        row[which] = 1.0;
        return row;
    }
    let far = sketch.edges.first().map_or(1, |edge| if edge.to == 0 { edge.from } else { edge.to });
    if let Some(&place) = sketch.points.get(far) {
        let across = (place - sketch.points[0]).unit().left();
        (row[2 * far], row[2 * far + 1]) = (across.x, across.y);
    }
    row
}

/// What is left of a row beside an orthonormal basis, as a unit row; `None` when nothing is.
fn orthogonal(mut row: Vec<f64>, basis: &[Vec<f64>]) -> Option<Vec<f64>> {
    for own in basis {
        let along: f64 = own.iter().zip(&row).map(|(a, b)| a * b).sum();
        row.iter_mut().zip(own).for_each(|(value, own)| *value -= along * own);
    }
    let left = row.iter().map(|v| v * v).sum::<f64>().sqrt();
    if left <= FREE || !left.is_finite() {
        return None;
    }
    row.iter_mut().for_each(|v| *v /= left);
    Some(row)
}

/// What a statement's number measures on the sketch as it lies, mm or radians; 0 for a rule.
pub fn measured(sketch: &Sketch, kind: &StatementKind) -> f64 {
    use StatementKind as Say;
    let point = |at: PointAt| sketch.points[at];
    let line = |at: usize| (point(sketch.edges[at].from), point(sketch.edges[at].to));
    match *kind {
        Say::Distance(a, b, _) => point(a).distance(point(b)),
        Say::Across(a, b, _) => (point(b).x - point(a).x).abs(),
        Say::Up(a, b, _) => (point(b).y - point(a).y).abs(),
        Say::FromEdge(at, edge, _) => {
            let (from, to) = line(edge);
            (to - from).unit().cross(point(at) - from).abs()
        }
        Say::Angle(one, two, wanted) => {
            let between = |u: Vector, v: Vector| u.cross(v).atan2(u.dot(v)).abs();
            if let Some((a, corner, b)) = sketch.shared_corner(one, two) {
                return between(point(a) - point(corner), point(b) - point(corner));
            }
            let ((a, b), (c, d)) = (line(one), line(two));
            let angle = between(b - a, d - c);
            let other = std::f64::consts::PI - angle;
            if (angle - wanted).abs() <= (other - wanted).abs() { angle } else { other }
        }
        Say::Radius(at, _) => sketch.circles[at].radius,
        Say::Diameter(at, _) => 2.0 * sketch.circles[at].radius,
        Say::Gap(one, two, _) => {
            let (a, b) = (sketch.circles[one], sketch.circles[two]);
            let apart = point(a.centre).distance(point(b.centre));
            if apart >= a.radius.max(b.radius) {
                apart - a.radius - b.radius
            } else {
                (a.radius - b.radius).abs() - apart
            }
        }
        _ => 0.0,
    }
}
