//! The blank: outlines of all nodes with the shared tangent lines taken out, exact in lines and arcs, names kept.

use std::collections::HashMap;

use crate::patience;
use crate::plane::{Box2, Edge, MODELLING_TOLERANCE, Outline, Point, Region, Segment, Tag};

use super::flat::Node;

/// The flat part as it is cut.
#[derive(Clone, Debug, Default)]
pub struct Blank {
    /// The material; edges tagged as in the flat model.
    pub region: Region,
}

impl Blank {
    /// The smallest upright box around it, mm.
    pub fn extents(&self) -> Box2 {
        self.region.extents()
    }

    /// How many times the cutter pierces: once a closed outline.
    pub fn pierces(&self) -> usize {
        1 + self.region.holes.len()
    }
}

/// Why the nodes make no single blank.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum StitchError {
    /// Nothing there.
    #[error("there is no panel yet")]
    Empty,
    /// An outline that never closes, near this place (mm).
    #[error("the blank's outline does not close near x {} mm, y {} mm", .0.x, .0.y)]
    Open(Point),
    /// The material falls into this many pieces.
    #[error("the blank falls into {0} pieces")]
    Pieces(usize),
}

/// Points nearer than this are joined end to end: rounding after a few turns of frames stays far below it.
const JOIN: f64 = 10.0 * MODELLING_TOLERANCE;

/// Stitches nodes into one blank.
///
/// # Errors
/// [`StitchError`]; nodes that overlap are not looked for here.
pub fn stitch(nodes: &[Node]) -> Result<Blank, StitchError> {
    if nodes.is_empty() {
        return Err(StitchError::Empty);
    }
    let mut holes = Vec::new();
    let mut segments: Vec<(Segment, Tag)> = Vec::new();
    for node in nodes {
        segments.extend(node.region.outer.segments());
        holes.extend(node.region.holes.iter().cloned());
    }
    for node in nodes {
        let Some(strip) = node.strip() else { continue };
        for v in [0.0, strip.width] {
            segments = cancel_along(segments, strip.place(0.0, v), strip.place(1.0, v));
        }
    }
    let loops = link(segments)?;
    let mut outers = Vec::new();
    for outline in loops {
        if outline.area() > 0.0 {
            outers.push(outline);
        } else {
            holes.push(outline.reversed());
        }
    }
    if outers.len() != 1 {
        return Err(StitchError::Pieces(outers.len()));
    }
    Ok(Blank { region: Region { outer: outers.remove(0), holes } })
}

/// Takes out, along one line, every stretch that is walked once each way.
fn cancel_along(segments: Vec<(Segment, Tag)>, from: Point, toward: Point) -> Vec<(Segment, Tag)> {
    let unit = (toward - from).unit();
    let aside = |point: Point| unit.cross(point - from).abs();
    let along = |point: Point| unit.dot(point - from);
    let (on, mut kept): (Vec<_>, Vec<_>) =
        segments.into_iter().partition(|(one, _)| one.is_line() && aside(one.start) < JOIN && aside(one.end) < JOIN);
    let mut marks: Vec<(f64, Point)> =
        on.iter().flat_map(|(one, _)| [(along(one.start), one.start), (along(one.end), one.end)]).collect();
    marks.sort_by(|one, two| one.0.total_cmp(&two.0));
    marks.dedup_by(|next, known| next.0 - known.0 < JOIN);
    for pair in marks.windows(2) {
        let (low, high) = (pair[0], pair[1]);
        let middle = (low.0 + high.0) / 2.0;
        let over = on.iter().filter(|(one, _)| {
            let (start, end) = (along(one.start), along(one.end));
            start.min(end) < middle && middle < start.max(end)
        });
        let mut balance = 0i32;
        let (mut up, mut down) = (None, None);
        for (one, tag) in over {
            if along(one.end) > along(one.start) {
                balance += 1;
                up = up.or(Some(*tag));
            } else {
                balance -= 1;
                down = down.or(Some(*tag));
            }
        }
        match (balance, up, down) {
            (1.., Some(tag), _) => kept.push((Segment::line(low.1, high.1), tag)),
            (..=-1, _, Some(tag)) => kept.push((Segment::line(high.1, low.1), tag)),
            _ => {}
        }
    }
    kept
}

fn cell(point: Point) -> (i64, i64) {
    ((point.x / (4.0 * JOIN)).floor() as i64, (point.y / (4.0 * JOIN)).floor() as i64)
}

/// Chains segments end to start into closed outlines, material on the left.
fn link(segments: Vec<(Segment, Tag)>) -> Result<Vec<Outline>, StitchError> {
    let mut starts: HashMap<(i64, i64), Vec<usize>> = HashMap::new();
    for (at, (one, _)) in segments.iter().enumerate() {
        starts.entry(cell(one.start)).or_default().push(at);
    }
    let mut used = vec![false; segments.len()];
    let mut loops = Vec::new();
    for first in 0..segments.len() {
        patience::check();
        if used[first] {
            continue;
        }
        let mut edges = Vec::new();
        let mut here = first;
        loop {
            used[here] = true;
            let (segment, tag) = segments[here];
            edges.push(Edge { start: segment.start, bulge: segment.bulge, tag });
            if segment.end.distance(segments[first].0.start) < JOIN && edges.len() > 1 {
                break;
            }
            let (cx, cy) = cell(segment.end);
            let leaving = segment.end - segment.at(0.99);
            let next = (-1..=1)
                .flat_map(|dx| (-1..=1).map(move |dy| (cx + dx, cy + dy)))
                .filter_map(|near| starts.get(&near))
                .flatten()
                .copied()
                .filter(|&at| !used[at] && segments[at].0.start.distance(segment.end) < JOIN)
                // Where corners only touch, the sharpest turn to the left keeps to the same piece of material.
                .max_by(|&one, &two| {
                    let turn = |at: usize| {
                        let setting_off = segments[at].0.at(0.01) - segments[at].0.start;
                        leaving.cross(setting_off).atan2(leaving.dot(setting_off))
                    };
                    turn(one).total_cmp(&turn(two))
                });
            match next {
                Some(at) => here = at,
                None => return Err(StitchError::Open(segment.end)),
            }
        }
        let mut outline = Outline { edges };
        merge_straight(&mut outline);
        if outline.edges.len() > 1 {
            loops.push(outline);
        }
    }
    Ok(loops)
}

/// Joins straight edges of one tag that run on in one line.
fn merge_straight(outline: &mut Outline) {
    let count = outline.edges.len();
    if count < 4 {
        return;
    }
    let keep: Vec<bool> = (0..count)
        .map(|at| {
            let (before, here) = (outline.edges[(at + count - 1) % count], outline.edges[at]);
            let next = outline.edges[(at + 1) % count].start;
            let (into, out) = (here.start - before.start, next - here.start);
            let straight = before.bulge == 0.0
                && here.bulge == 0.0
                && before.tag == here.tag
                && into.dot(out) > 0.0
                && into.cross(out).abs() <= MODELLING_TOLERANCE * (into.length() + out.length());
            !straight
        })
        .collect();
    let mut at = 0;
    outline.edges.retain(|_| {
        at += 1;
        keep[at - 1]
    });
}
