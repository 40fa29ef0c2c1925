//! Splits two sets of outlines wherever they meet, and tells of each stretch on which side of the other set it lies.

use std::collections::HashMap;

use crate::patience;
use crate::plane::{Outline, Point, Segment, Tag, Vector};
use crate::quantity::tolerance::{NO_TURN, NOTHING};

/// Where a stretch lies as seen from the other region.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Side {
    /// In its metal.
    Inside,
    /// Out of it.
    Outside,
    /// On its outline, both with the metal on the same side.
    Along,
    /// On its outline, with the metal on opposite sides.
    Against,
}

/// A stretch of an edge between two places.
#[derive(Clone, Debug)]
pub(super) struct Piece {
    /// The stretch, metal on its left.
    pub segment: Segment,
    /// Its name.
    pub tag: Tag,
    /// The place where it starts.
    pub from: usize,
    /// The place where it ends.
    pub to: usize,
    /// The edge that it is of: stretches of one edge that follow each other are one again.
    pub edge: usize,
    /// Of the second set.
    pub of_second: bool,
    /// Where it lies.
    pub side: Side,
}

impl Piece {
    pub fn reversed(self) -> Piece {
        Piece { segment: self.segment.reversed(), from: self.to, to: self.from, ..self }
    }
}

/// Places, those nearer than a width being one.
struct Places {
    points: Vec<Point>,
    cells: HashMap<(i64, i64), Vec<usize>>,
    width: f64,
}

impl Places {
    fn new(width: f64) -> Self {
        Places { points: Vec::new(), cells: HashMap::new(), width }
    }

    /// Cells are so much wider than a place that most points need only their own.
    fn cell(&self, x: f64, y: f64) -> (i64, i64) {
        let size = 64.0 * self.width;
        ((x / size).floor() as i64, (y / size).floor() as i64)
    }

    /// The place of a point: the nearest known one, or a new one.
    fn at(&mut self, point: Point) -> usize {
        let (low, high) = (
            self.cell(point.x - self.width, point.y - self.width),
            self.cell(point.x + self.width, point.y + self.width),
        );
        let near = (low.0..=high.0)
            .flat_map(|x| (low.1..=high.1).map(move |y| (x, y)))
            .flat_map(|cell| self.cells.get(&cell).into_iter().flatten().copied())
            .map(|at| (self.points[at].distance(point), at))
            .filter(|(away, _)| *away <= self.width)
            .min_by(|one, two| one.0.total_cmp(&two.0));
        if let Some((_, at)) = near {
            return at;
        }
        self.points.push(point);
        self.cells.entry(self.cell(point.x, point.y)).or_default().push(self.points.len() - 1);
        self.points.len() - 1
    }
}

/// Every stretch of both sets with its side. Points nearer than `width` (mm) are one place.
pub(super) fn arrange(one: &[Outline], two: &[Outline], width: f64) -> Vec<Piece> {
    let mut places = Places::new(width);
    // Corners first: they stay where they are, and what comes near is drawn to them.
    let edges = |loops: &[Outline]| -> Vec<(Segment, Tag)> { loops.iter().flat_map(Outline::segments).collect() };
    let (first, second) = (edges(one), edges(two));
    for (edge, _) in first.iter().chain(&second) {
        places.at(edge.start);
    }
    let mut marks: [Vec<Vec<Point>>; 2] = [vec![Vec::new(); first.len()], vec![Vec::new(); second.len()]];
    let boxes: Vec<_> = second.iter().map(|(edge, _)| edge.extents()).collect();
    for (a, (edge, _)) in first.iter().enumerate() {
        patience::check();
        let around = edge.extents();
        for (b, (other, _)) in second.iter().enumerate().filter(|(b, _)| boxes[*b].is_near(&around, 2.0 * width)) {
            for point in meets(edge, other, width) {
                marks[0][a].push(point);
                marks[1][b].push(point);
            }
        }
    }
    let mut pieces: Vec<Piece> = Vec::new();
    let mut number = 0;
    for (which, edges) in [&first, &second].into_iter().enumerate() {
        for (at, (edge, tag)) in edges.iter().enumerate() {
            cut(edge, &marks[which][at], &mut places, |segment, from, to| {
                pieces.push(Piece {
                    segment,
                    tag: *tag,
                    from,
                    to,
                    edge: number,
                    of_second: which == 1,
                    side: Side::Outside,
                });
            });
            number += 1;
        }
    }
    // Pieces by their ends, so that shared stretches find each other.
    let mut by_ends: HashMap<(usize, usize), Vec<usize>> = HashMap::new();
    for (at, piece) in pieces.iter().enumerate().filter(|(_, piece)| piece.of_second) {
        by_ends.entry((piece.from.min(piece.to), piece.from.max(piece.to))).or_default().push(at);
    }
    let mut shared: HashMap<usize, Side> = HashMap::new();
    for (at, piece) in pieces.iter().enumerate().filter(|(_, piece)| !piece.of_second) {
        let middle = piece.segment.at(0.5);
        let twins = by_ends.get(&(piece.from.min(piece.to), piece.from.max(piece.to))).into_iter().flatten();
        for &twin in twins.filter(|twin| pieces[**twin].segment.at(0.5).distance(middle) < 5.0 * width) {
            let side = if pieces[twin].from == piece.from { Side::Along } else { Side::Against };
            shared.insert(at, side);
            shared.insert(twin, side);
        }
    }
    for (at, piece) in pieces.iter_mut().enumerate() {
        piece.side = shared.get(&at).copied().unwrap_or_else(|| {
            let middle = piece.segment.at(0.5);
            let others = if piece.of_second { one } else { two };
            // Loops of one region do not cross: a point is in the metal where an odd number of them hold it.
            let holding = others.iter().filter(|outline| outline.contains(middle)).count();
            if holding % 2 == 1 { Side::Inside } else { Side::Outside }
        });
    }
    pieces
}

/// Cuts an edge at the marks on it.
fn cut(edge: &Segment, marks: &[Point], places: &mut Places, mut add: impl FnMut(Segment, usize, usize)) {
    let (start, end) = (places.at(edge.start), places.at(edge.end));
    let mut stops: Vec<(f64, usize)> = marks
        .iter()
        .map(|&point| {
            let at = places.at(point);
            (fraction_of(edge, places.points[at]), at)
        })
        .filter(|(fraction, at)| (0.0..=1.0).contains(fraction) && *at != start && *at != end)
        .collect();
    stops.sort_by(|one, two| one.0.total_cmp(&two.0));
    stops.dedup_by_key(|stop| stop.1);
    stops.push((1.0, end));
    let (mut from, mut share) = (start, 0.0);
    for (fraction, to) in stops {
        // An edge that begins and ends in one place is none, unless it is an arc that goes round.
        let goes_round = from == to && !edge.is_line() && (fraction - share) * edge.sweep().abs() > 0.1;
        if from != to || goes_round {
            let bulge = if edge.is_line() { 0.0 } else { (edge.sweep() * (fraction - share) / 4.0).tan() };
            add(Segment { start: places.points[from], end: places.points[to], bulge }, from, to);
        }
        (from, share) = (to, fraction);
    }
}

/// How far along an edge a point on it lies, 0 to 1.
fn fraction_of(edge: &Segment, point: Point) -> f64 {
    if edge.is_line() {
        let along = edge.end - edge.start;
        return (point - edge.start).dot(along) / along.dot(along);
    }
    let centre = edge.centre();
    let (arm, to) = (edge.start - centre, point - centre);
    let sweep = edge.sweep();
    let turn = (arm.cross(to).atan2(arm.dot(to)) * sweep.signum()).rem_euclid(std::f64::consts::TAU);
    // A hair before the start is the start.
    let turn = if turn > std::f64::consts::TAU - NO_TURN { 0.0 } else { turn };
    turn / sweep.abs()
}

/// Places where two edges meet, touch, or where one ends on the other.
fn meets(one: &Segment, two: &Segment, width: f64) -> Vec<Point> {
    let mut found: Vec<Point> = Vec::new();
    for (edge, other) in [(one, two), (two, one)] {
        found.extend([other.start, other.end].into_iter().filter(|&end| edge.distance_to(end) <= width));
    }
    match (one.is_line(), two.is_line()) {
        (true, true) => {
            let (a, b) = (one.end - one.start, two.end - two.start);
            let turn = a.cross(b);
            if turn.abs() > NOTHING * a.length() * b.length() {
                let gap = two.start - one.start;
                let (s, t) = (gap.cross(b) / turn, gap.cross(a) / turn);
                if (0.0..=1.0).contains(&s) && (0.0..=1.0).contains(&t) {
                    found.push(one.start + a * s);
                }
            }
        }
        (true, false) => line_and_arc(one, two, width, &mut found),
        (false, true) => line_and_arc(two, one, width, &mut found),
        (false, false) => arcs(one, two, width, &mut found),
    }
    found
}

fn line_and_arc(line: &Segment, arc: &Segment, width: f64, found: &mut Vec<Point>) {
    let (centre, radius) = (arc.centre(), arc.radius());
    let along = line.end - line.start;
    let length = along.length();
    if length == 0.0 {
        return;
    }
    let unit = along * (1.0 / length);
    let foot = (centre - line.start).dot(unit);
    let aside = (centre - line.start).cross(unit).abs();
    let half = if (aside - radius).abs() <= width {
        0.0
    } else if aside < radius {
        (radius * radius - aside * aside).sqrt()
    } else {
        return;
    };
    for at in [foot - half, foot + half] {
        let point = line.start + unit * at;
        if (0.0..=length).contains(&at) && arc.sweeps_over(point) {
            found.push(point);
        }
    }
}

fn arcs(one: &Segment, two: &Segment, width: f64, found: &mut Vec<Point>) {
    let (first, second) = (one.centre(), two.centre());
    let (r1, r2) = (one.radius(), two.radius());
    let between = second - first;
    let gap = between.length();
    // One circle: they share what lies between their ends, which are known.
    if gap <= width {
        return;
    }
    let unit = between.unit();
    let touching = (gap - (r1 + r2)).abs() <= width || (gap - (r1 - r2).abs()).abs() <= width;
    let along = (gap * gap + r1 * r1 - r2 * r2) / (2.0 * gap);
    let aside = if touching {
        0.0
    } else if gap > r1 + r2 || gap < (r1 - r2).abs() {
        return;
    } else {
        (r1 * r1 - along * along).max(0.0).sqrt()
    };
    let along = if touching { along.clamp(-r1, r1).signum() * r1 } else { along };
    for side in [aside, -aside] {
        let point = first + unit * along + unit.left() * side;
        if one.sweeps_over(point) && two.sweeps_over(point) {
            found.push(point);
        }
    }
}

/// Heading at the start of a stretch and how fast it turns to the left, 1/mm.
pub(super) fn leaving(segment: &Segment) -> (Vector, f64) {
    let chord = (segment.end - segment.start).unit();
    if segment.is_line() {
        return (chord, 0.0);
    }
    let (sine, cosine) = (segment.sweep() / 2.0).sin_cos();
    // An arc leaves its chord by half its sweep, to the right when it turns left.
    let heading = Vector::new(chord.x * cosine + chord.y * sine, chord.y * cosine - chord.x * sine);
    (heading, segment.sweep().signum() / segment.radius())
}
