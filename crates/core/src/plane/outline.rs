//! A closed chain of lines and arcs.

use super::{Box2, Point, Segment, Tag, Vector};
use crate::quantity::tolerance::ROUNDING;

/// The piece of an outline that starts at `start` and runs to the next edge's start.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Edge {
    /// Where it begins.
    pub start: Point,
    /// Tangent of a quarter of its sweep; see [`Segment`].
    pub bulge: f64,
    /// What it belongs to.
    pub tag: Tag,
}

/// A closed outline. Counter-clockwise ones bound material, clockwise ones would bound a hole; Steelk keeps every
/// outline counter-clockwise and lets [`super::Region`] say which are holes.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Outline {
    /// Its edges in order.
    pub edges: Vec<Edge>,
}

impl Outline {
    /// A polygon with one tag for each edge (the last edge closes it).
    pub fn polygon(corners: &[(Point, Tag)]) -> Self {
        Outline { edges: corners.iter().map(|&(start, tag)| Edge { start, bulge: 0.0, tag }).collect() }
    }

    /// A circle as two half circles, counter-clockwise.
    pub fn circle(centre: Point, radius: f64, tag: Tag) -> Self {
        let arm = Vector::new(radius, 0.0);
        let half = |start| Edge { start, bulge: 1.0, tag };
        Outline { edges: vec![half(centre + arm), half(centre - arm)] }
    }

    /// A rectangle about a centre with rounded corners: `along` is a unit vector, `width` lies along it, `height`
    /// square to it, mm. A corner radius of half the shorter side gives round ends.
    pub fn rounded_rectangle(centre: Point, along: Vector, width: f64, height: f64, corner: f64, tag: Tag) -> Self {
        let across = along.left();
        let place = |x: f64, y: f64| centre + along * x + across * y;
        let (x, y) = (width / 2.0, height / 2.0);
        let edge = |start, bulge| Edge { start, bulge, tag };
        let quarter = (std::f64::consts::FRAC_PI_8).tan();
        let mut edges = Vec::with_capacity(8);
        for (sx, sy, horizontal) in [(1.0, -1.0, true), (1.0, 1.0, false), (-1.0, 1.0, true), (-1.0, -1.0, false)] {
            if corner <= 0.0 {
                edges.push(edge(place(sx * x, sy * y), 0.0));
            } else if horizontal {
                edges.push(edge(place(sx * (x - corner), sy * y), quarter));
                edges.push(edge(place(sx * x, sy * (y - corner)), 0.0));
            } else {
                edges.push(edge(place(sx * x, sy * (y - corner)), quarter));
                edges.push(edge(place(sx * (x - corner), sy * y), 0.0));
            }
        }
        let mut outline = Outline { edges };
        outline.drop_short(super::MODELLING_TOLERANCE);
        outline
    }

    /// Takes out straight edges shorter than `tolerance` mm.
    pub fn drop_short(&mut self, tolerance: f64) {
        let short: Vec<bool> = self.segments().map(|(one, _)| one.is_line() && one.length() <= tolerance).collect();
        let mut at = 0;
        self.edges.retain(|_| {
            at += 1;
            !short[at - 1]
        });
    }

    /// Takes out spikes: straight edges that run back over the one before them enclose nothing.
    pub fn drop_spikes(&mut self, tolerance: f64) {
        if let (Some(rest), _) = self.without_slits(tolerance) {
            *self = rest;
        }
    }

    /// Its segments with their tags.
    pub fn segments(&self) -> impl Iterator<Item = (Segment, Tag)> + '_ {
        let count = self.edges.len();
        (0..count).map(move |at| {
            let edge = self.edges[at];
            (Segment { start: edge.start, end: self.edges[(at + 1) % count].start, bulge: edge.bulge }, edge.tag)
        })
    }

    /// Enclosed area, mm2: positive when counter-clockwise. Exact for lines and arcs.
    pub fn area(&self) -> f64 {
        let origin = self.origin();
        self.segments().map(|(one, _)| chord_area(one, origin) + cap_area(&one)).sum()
    }

    /// First moment of the enclosed area about the origin, mm3: (integral of x, integral of y).
    pub fn moment(&self) -> Vector {
        let origin = self.origin();
        let mut sum = Vector::default();
        let mut area = 0.0;
        for (one, _) in self.segments() {
            let triangle = chord_area(one, origin);
            let third = ((one.start - origin) + (one.end - origin)) * (1.0 / 3.0);
            sum = sum + third * triangle;
            area += triangle;
            if !one.is_line() {
                let cap = cap_area(&one);
                // Centroid of a circular segment: 4 r sin^3(h) / (3 (2h - sin 2h)) from the centre, h half the sweep
                // (standard plane-geometry result), along the middle of the arc.
                let half = one.sweep().abs() / 2.0;
                let reach = 4.0 * one.radius() * half.sin().powi(3) / (3.0 * (2.0 * half - (2.0 * half).sin()));
                let centre = one.centre();
                let place = centre + (one.at(0.5) - centre).unit() * reach;
                sum = sum + (place - origin) * cap;
                area += cap;
            }
        }
        sum + Vector::new(origin.x, origin.y) * area
    }

    /// Centroid of the enclosed area.
    pub fn centroid(&self) -> Point {
        let moment = self.moment();
        let area = self.area();
        Point::new(moment.x / area, moment.y / area)
    }

    /// Length around it, mm.
    pub fn perimeter(&self) -> f64 {
        self.segments().map(|(one, _)| one.length()).sum()
    }

    /// The smallest upright box around it.
    pub fn extents(&self) -> Box2 {
        if let Some((centre, radius)) = self.two_halves() {
            let reach = Vector::new(radius, radius);
            return Box2::EMPTY.with(Box2 { low: centre - reach, high: centre + reach });
        }
        self.segments().fold(Box2::EMPTY, |around, (one, _)| around.with(one.extents()))
    }

    /// Whether a point lies inside, by winding; points on the outline itself may answer either way.
    pub fn contains(&self, point: Point) -> bool {
        self.segments().map(|(one, _)| passes(&one, point)).sum::<i32>() != 0
    }

    /// The same outline walked the other way, tags kept with their edges.
    pub fn reversed(&self) -> Outline {
        let mut edges: Vec<Edge> =
            self.segments().map(|(one, tag)| Edge { start: one.end, bulge: -one.bulge, tag }).collect();
        edges.reverse();
        Outline { edges }
    }

    /// Counter-clockwise, turning it when it is not.
    pub fn counter_clockwise(self) -> Outline {
        if self.area() < 0.0 { self.reversed() } else { self }
    }

    /// Its points with arcs broken into chords; see [`Segment::flatten`].
    pub fn flatten(&self, tolerance: f64) -> Vec<Point> {
        let mut points = Vec::new();
        for (one, _) in self.segments() {
            one.flatten(tolerance, &mut points);
        }
        points
    }

    /// Centre and radius of a circle as it is drawn, in two half turns. Nothing is worked out but the middle between
    /// their ends: a perforation asks for tens of thousands.
    pub(super) fn two_halves(&self) -> Option<(Point, f64)> {
        match self.edges[..] {
            [one, two] if one.bulge == two.bulge && one.bulge.abs() == 1.0 => {
                Some((one.start.toward(two.start, 0.5), one.start.distance(two.start) / 2.0))
            }
            _ => None,
        }
    }

    /// If this is a full circle: its centre and radius, mm.
    pub fn as_circle(&self) -> Option<(Point, f64)> {
        if let Some(known) = self.two_halves() {
            return Some(known);
        }
        let first = self.segments().next()?.0;
        if first.is_line() {
            return None;
        }
        let (centre, radius) = (first.centre(), first.radius());
        let mut turned = 0.0;
        for (one, _) in self.segments() {
            let near = super::MODELLING_TOLERANCE;
            if one.is_line() || one.centre().distance(centre) > near || (one.radius() - radius).abs() > near {
                return None;
            }
            turned += one.sweep();
        }
        ((turned.abs() - std::f64::consts::TAU).abs() < ROUNDING).then_some((centre, radius))
    }

    /// Every point moved by a motion. Under a reflection arcs keep turning as they did: who mirrors turns their bulges round.
    pub fn moved(&self, by: impl Fn(Point) -> Point) -> Outline {
        Outline { edges: self.edges.iter().map(|edge| Edge { start: by(edge.start), ..*edge }).collect() }
    }

    /// A point near the outline to reckon from, so that far-off parts keep their digits.
    fn origin(&self) -> Point {
        self.edges.first().map_or(Point::default(), |edge| edge.start)
    }
}

/// How often a segment passes a level line that runs from a point to the right, upward counted as 1: summed around an outline
/// they are its winding. On the point's own level the point counts as the least bit higher, and then the least bit further to
/// the right, so that every point lies on one side of every chord, whichever way that is walked.
fn passes(one: &Segment, point: Point) -> i32 {
    let (from, to) = (one.start - point, one.end - point);
    let rises = i32::from(to.y > 0.0) - i32::from(from.y > 0.0);
    if rises == 0 && one.is_line() {
        return 0;
    }
    let side = [from.cross(to), to.x - from.x, from.y - to.y].into_iter().find(|side| *side != 0.0).unwrap_or(0.0);
    let is_left = side > 0.0;
    // Upward it passes on the right where the point is on its left, downward where on its right.
    let chord = if rises != 0 && is_left == (rises > 0) { rises } else { 0 };
    if one.is_line() || is_left == (one.bulge > 0.0) {
        return chord;
    }
    // Between the chord and the arc, the arc goes round on the other side of the point than its chord does.
    let within = one.centre().distance(point) < one.radius();
    chord + if within { one.bulge.signum() as i32 } else { 0 }
}

fn chord_area(one: Segment, origin: Point) -> f64 {
    (one.start - origin).cross(one.end - origin) / 2.0
}

/// Signed area between chord and arc: r^2 (a - sin a) / 2 for a sweep of a.
fn cap_area(one: &Segment) -> f64 {
    if one.is_line() {
        return 0.0;
    }
    let sweep = one.sweep();
    one.radius().powi(2) * (sweep - sweep.sin()) / 2.0
}
