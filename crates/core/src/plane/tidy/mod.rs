//! From the loose strokes of a file to one profile: bits dropped, gaps closed, contours found and told apart, and every
//! change said.

mod ends;
mod fit;

use ends::{End, Ends};
pub use fit::fit_arcs;

use std::collections::HashSet;

use rstar::RTree;
use rstar::primitives::{GeomWithData, Rectangle};

use super::{Edge, MODELLING_TOLERANCE, Outline, Point, Region, Segment, Vector};
use crate::patience;

/// A stroke as a file has it, mm.
#[derive(Clone, Debug, PartialEq)]
pub enum Stroke {
    /// A line or an arc.
    Segment(Segment),
    /// A full circle.
    Circle(Point, f64),
    /// Any other curve: dense points on it.
    Curve(Vec<Point>),
}

/// How closely a file's strokes are taken, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Tolerances {
    /// Ends nearer than this are one point.
    pub gap: f64,
    /// Arcs in place of a curve stay this near to it.
    pub curve: f64,
}

impl Default for Tolerances {
    fn default() -> Self {
        Tolerances { gap: 0.05, curve: 0.01 }
    }
}

/// A profile and what was changed to get it.
#[derive(Clone, Debug, PartialEq)]
pub struct Tidied {
    /// The largest contour with the holes in it.
    pub region: Region,
    /// What was changed or left out, in words.
    pub changes: Vec<String>,
    /// Strokes that close nothing: slits, or lines that belong elsewhere.
    pub open: Vec<Segment>,
}

/// Why strokes give no profile.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum TidyError {
    /// Nothing to read.
    #[error("there is nothing drawn in it that a cutter could follow")]
    Empty,
    /// More than is taken.
    #[error("it has {0} strokes; {MOST_STROKES} is the most that is read")]
    TooMany(usize),
    /// No number, or too far out.
    #[error("a stroke lies at {0}, {1} mm: no place within {FURTHEST} mm of the origin")]
    Place(f64, f64),
    /// Strokes, but none that closes.
    #[error("no contour closes: the widest gap between neighbouring ends is {0:.3} mm")]
    Open(f64),
}

/// The most strokes that are read.
pub const MOST_STROKES: usize = 200_000;
/// Coordinates beyond this are a fault of the file, mm.
pub const FURTHEST: f64 = 100_000.0;
/// Strokes shorter than this are bits, mm.
const BIT: f64 = 1e-4;

/// Makes a profile of strokes.
///
/// # Errors
/// [`TidyError`] when there is nothing, too much, a senseless place, or no closed contour.
pub fn tidy(strokes: &[Stroke], tolerances: Tolerances) -> Result<Tidied, TidyError> {
    if strokes.len() > MOST_STROKES {
        return Err(TidyError::TooMany(strokes.len()));
    }
    let mut changes = Vec::new();
    let mut loops: Vec<Outline> = Vec::new();
    let mut open: Vec<Segment> = Vec::new();
    let (mut curves, mut pieces) = (0, 0);
    for stroke in strokes {
        patience::check();
        let points: &[Point] = match stroke {
            Stroke::Segment(one) => &[one.start, one.end],
            Stroke::Circle(centre, _) => &[*centre],
            Stroke::Curve(points) => points,
        };
        let sound = |value: f64| value.is_finite() && value.abs() <= FURTHEST;
        if let Some(bad) = points.iter().find(|point| !sound(point.x) || !sound(point.y)) {
            return Err(TidyError::Place(bad.x, bad.y));
        }
        match stroke {
            Stroke::Segment(one) if one.bulge.is_finite() => open.push(*one),
            Stroke::Segment(_) => {}
            Stroke::Circle(centre, radius) if sound(*radius) && *radius > BIT => {
                loops.push(Outline::circle(*centre, *radius, 0));
            }
            Stroke::Circle(..) => {}
            Stroke::Curve(points) => {
                let fitted = fit_arcs(points, tolerances.curve);
                curves += 1;
                pieces += fitted.len();
                open.extend(fitted);
            }
        }
    }
    if open.is_empty() && loops.is_empty() {
        return Err(TidyError::Empty);
    }
    if curves > 0 {
        changes.push(format!(
            "{} fitted by {pieces} lines and arcs within {} mm",
            plural(curves, "curve"),
            tolerances.curve
        ));
    }
    let before = open.len();
    open.retain(|one| one.length() > BIT);
    say(&mut changes, before - open.len(), "bit without length taken out", "bits without length taken out");
    let doubles = drop_doubles(&mut open) + drop_double_circles(&mut loops);
    say(&mut changes, doubles, "stroke drawn twice taken once", "strokes drawn twice taken once");
    let chained = chain(&open, tolerances.gap);
    if chained.closed > 0 {
        changes.push(format!("{} closed, the widest {:.4} mm", plural(chained.closed, "gap"), chained.widest));
    }
    if !chained.left.is_empty() {
        let length: f64 = chained.left.iter().map(|&at| open[at].length()).sum();
        let count = chained.left.len();
        let strokes = if count == 1 { "stroke that closes" } else { "strokes that close" };
        changes.push(format!("{count} {strokes} nothing left out, {length:.1} mm in all"));
    }
    loops.extend(chained.loops.into_iter().map(Outline::counter_clockwise));
    loops.retain(|one| one.area() > BIT);
    if loops.is_empty() {
        return Err(TidyError::Open(chained.nearest));
    }
    let open = chained.left.iter().map(|&at| open[at]).collect();
    Ok(Tidied { region: nest(loops, &mut changes), changes, open })
}

fn plural(count: usize, word: &str) -> String {
    if count == 1 { format!("1 {word}") } else { format!("{count} {word}s") }
}

fn say(changes: &mut Vec<String>, count: usize, one: &str, many: &str) {
    if count > 0 {
        changes.push(format!("{count} {}", if count == 1 { one } else { many }));
    }
}

fn rounded(value: f64) -> i64 {
    (value * 1e4).round() as i64
}

fn drop_doubles(open: &mut Vec<Segment>) -> usize {
    let before = open.len();
    let mut seen = HashSet::new();
    open.retain(|one| {
        let (a, b) = ((rounded(one.start.x), rounded(one.start.y)), (rounded(one.end.x), rounded(one.end.y)));
        let way = if a <= b { (a, b, rounded(one.bulge)) } else { (b, a, rounded(-one.bulge)) };
        seen.insert(way)
    });
    before - open.len()
}

fn drop_double_circles(loops: &mut Vec<Outline>) -> usize {
    let before = loops.len();
    let mut seen = HashSet::new();
    loops.retain(|one| {
        one.as_circle()
            .is_none_or(|(centre, radius)| seen.insert((rounded(centre.x), rounded(centre.y), rounded(radius))))
    });
    before - loops.len()
}

struct Chained {
    loops: Vec<Outline>,
    /// Places of strokes that are in no loop.
    left: Vec<usize>,
    /// Gaps that were closed, and the widest of them.
    closed: usize,
    widest: f64,
    /// Where nothing closed: the widest of the nearest distances between ends.
    nearest: f64,
}

/// Joins strokes end to end.
fn chain(open: &[Segment], gap: f64) -> Chained {
    let ends = Ends::new(open, gap);
    let mut used = whiskers(open, &ends);
    let left = (0..open.len()).filter(|&at| used[at]).collect();
    let mut chained = Chained { loops: Vec::new(), left, closed: 0, widest: 0.0, nearest: 0.0 };
    for first in 0..open.len() {
        patience::check();
        if used[first] {
            continue;
        }
        let mut members = vec![(first, false)];
        used[first] = true;
        let mut here = open[first].end;
        let start = open[first].start;
        let mut gaps: Vec<f64> = Vec::new();
        let closed = loop {
            let next = ends.near(here).filter(|(_, (at, _))| !used[*at]).min_by(|one, two| one.0.total_cmp(&two.0));
            let home = here.distance(start);
            if home <= gap && next.is_none_or(|(away, _)| home <= away) {
                gaps.push(home);
                break members.len() > 1 || !open[first].is_line();
            }
            let Some((away, (at, from_end))) = next else {
                chained.nearest = chained.nearest.max(home);
                break false;
            };
            used[at] = true;
            gaps.push(away);
            members.push((at, from_end));
            here = if from_end { open[at].start } else { open[at].end };
        };
        if !closed {
            chained.left.extend(members.iter().map(|(at, _)| *at));
            continue;
        }
        for away in gaps.into_iter().filter(|away| *away > super::MODELLING_TOLERANCE) {
            chained.closed += 1;
            chained.widest = chained.widest.max(away);
        }
        let edges = members
            .iter()
            .map(|&(at, turned)| if turned { open[at].reversed() } else { open[at] })
            .map(|one| Edge { start: one.start, bulge: one.bulge, tag: 0 })
            .collect();
        chained.loops.push(Outline { edges });
    }
    chained
}

/// Strokes that lead from where others meet to a dead end: no contour runs along them.
fn whiskers(open: &[Segment], ends: &Ends) -> Vec<bool> {
    // The other strokes' ends at a stroke's end.
    let beside = |end: End, gone: &[bool]| -> Vec<End> {
        ends.near(ends.place(end)).map(|(_, other)| other).filter(|other| *other != end && !gone[other.0]).collect()
    };
    let mut gone = vec![false; open.len()];
    for first in 0..open.len() {
        patience::check();
        for is_end in [false, true] {
            if gone[first] || !beside((first, is_end), &gone).is_empty() {
                continue;
            }
            let mut chain = vec![first];
            let mut far = (first, !is_end);
            let meets = loop {
                match beside(far, &gone).as_slice() {
                    [] => break false,
                    [(next, _)] if chain.contains(next) => break false,
                    [(next, at_end)] => {
                        chain.push(*next);
                        far = (*next, !at_end);
                    }
                    _ => break true,
                }
            };
            if meets {
                chain.into_iter().for_each(|at| gone[at] = true);
            }
        }
    }
    gone
}

/// The largest contour with what lies directly in it; the rest is said to be left out.
fn nest(mut loops: Vec<Outline>, changes: &mut Vec<String>) -> Region {
    loops.sort_by(|one, two| two.area().total_cmp(&one.area()));
    let outer = loops.remove(0);
    // A perforation has tens of thousands: only those whose box is there are looked into.
    let spot = |at: Point| [at.x, at.y];
    let boxes = loops.iter().enumerate().map(|(at, one)| {
        let around = one.extents();
        let hair = Vector::new(MODELLING_TOLERANCE, MODELLING_TOLERANCE);
        GeomWithData::new(Rectangle::from_corners(spot(around.low - hair), spot(around.high + hair)), at)
    });
    let boxes: RTree<GeomWithData<Rectangle<[f64; 2]>, usize>> = RTree::bulk_load(boxes.collect());
    let (mut islands, mut others) = (0, 0);
    // Larger ones come first: what a contour may lie in is told before it.
    let mut is_hole = vec![false; loops.len()];
    for (at, one) in loops.iter().enumerate() {
        patience::check();
        let probe = one.edges[0].start;
        let mut around = boxes.locate_all_at_point(spot(probe)).map(|found| found.data);
        if !outer.contains(probe) {
            others += 1;
        } else if around.any(|larger| larger < at && is_hole[larger] && loops[larger].contains(probe)) {
            islands += 1;
        } else {
            is_hole[at] = true;
        }
    }
    let holes = loops.into_iter().zip(is_hole).filter_map(|(one, is_hole)| is_hole.then_some(one)).collect();
    say(changes, others, "contour outside the largest left out", "contours outside the largest left out");
    say(changes, islands, "contour within a hole left out", "contours within holes left out");
    Region { outer, holes }
}
