//! Edges of the cells that an end's surfaces part the section in: straight, round, or where a round and a plane reach alike.

use std::rc::Rc;

use crate::frame::cut_plane::CutPlane;
use crate::frame::end::Cope;
use crate::plane::{Point, Segment, Vector};
use crate::quantity::tolerance::{PARALLEL, ROUNDING};
use crate::space::Vector3;

use super::trace::Trace;

/// How far beside a path a place is tried, mm: off the path and within any wall.
const BESIDE: f64 = 1e-4;

/// What a path runs along.
#[derive(Clone, Debug)]
pub(super) enum Kind {
    /// A straight line.
    Line,
    /// Part of a circle, by its bulge.
    Arc(f64),
    /// Where a cope and a plane reach alike.
    Graph(Rc<Graph>),
    /// Where two copes reach alike, from one share of the way to another.
    Trace(Rc<Trace>, f64, f64),
}

/// The places of a section where a cope and a plane reach alike: one for each distance of a fibre beside the cope's axis.
#[derive(Debug)]
pub(super) struct Graph {
    cope: Cope,
    plane: CutPlane,
    way: f64,
    across: Vector,
    level: f64,
}

impl Graph {
    /// `None` where the plane runs along the cope's axis: there they reach alike on straight lines.
    pub fn new(cope: &Cope, plane: &CutPlane, way: f64) -> Option<Graph> {
        let (across, level) = cope.beside()?;
        let graph = Graph { cope: cope.clone(), plane: plane.clone(), way, across, level };
        (graph.slope().abs() > PARALLEL).then_some(graph)
    }

    /// The plane's normal, in the end's frame.
    pub fn normal(&self) -> Vector3 {
        self.plane.normal
    }

    /// The round, in the end's frame.
    pub fn cope(&self) -> &Cope {
        &self.cope
    }

    /// How much further the round reaches than the plane, mm.
    pub fn apart(&self, at: Point) -> f64 {
        self.cope.reach(at, self.way) - self.plane.reach(at)
    }

    /// How much further the cope reaches for each mm along it.
    fn slope(&self) -> f64 {
        let foot = Point::default() + self.across * self.level;
        self.apart(foot + self.across.left()) - self.apart(foot)
    }

    /// How far beside the axis a place lies, mm.
    pub fn off(&self, at: Point) -> f64 {
        self.across.x * at.x + self.across.y * at.y - self.level
    }

    fn at(&self, off: f64) -> Point {
        let foot = Point::default() + self.across * (self.level + off);
        foot + self.across.left() * (-self.apart(foot) / self.slope())
    }
}

/// A directed edge of a cell, the cell on its left.
#[derive(Clone, Debug)]
pub(super) struct Path {
    pub from: Point,
    pub to: Point,
    pub kind: Kind,
}

impl Path {
    pub fn of(one: &Segment) -> Path {
        Path { from: one.start, to: one.end, kind: if one.is_line() { Kind::Line } else { Kind::Arc(one.bulge) } }
    }

    fn segment(&self) -> Segment {
        let bulge = if let Kind::Arc(bulge) = self.kind { bulge } else { 0.0 };
        Segment { start: self.from, end: self.to, bulge }
    }

    /// The place a share of the way along.
    pub fn at(&self, share: f64) -> Point {
        match &self.kind {
            Kind::Graph(graph) => {
                let (from, to) = (graph.off(self.from), graph.off(self.to));
                graph.at(from + (to - from) * share)
            }
            Kind::Trace(trace, first, last) => match share {
                0.0 => self.from,
                1.0 => self.to,
                _ => trace.place(first + (last - first) * share),
            },
            _ => self.segment().at(share),
        }
    }

    pub fn middle(&self) -> Point {
        self.at(0.5)
    }

    /// The stretch between two shares of the way.
    pub fn part(&self, from: f64, to: f64) -> Path {
        let start = if from == 0.0 { self.from } else { self.at(from) };
        let end = if to == 1.0 { self.to } else { self.at(to) };
        let kind = match &self.kind {
            Kind::Arc(bulge) => Kind::Arc((bulge.atan() * (to - from)).tan()),
            Kind::Trace(trace, first, last) => {
                let at = |share: f64| first + (last - first) * share;
                Kind::Trace(trace.clone(), at(from), at(to))
            }
            other => other.clone(),
        };
        Path { from: start, to: end, kind }
    }

    pub fn reversed(&self) -> Path {
        let kind = match &self.kind {
            Kind::Arc(bulge) => Kind::Arc(-bulge),
            Kind::Trace(trace, first, last) => Kind::Trace(trace.clone(), *last, *first),
            other => other.clone(),
        };
        Path { from: self.to, to: self.from, kind }
    }

    /// Where a place on it lies, as a share of the way; `None` for one off it by more than `near` mm.
    pub fn share_of(&self, at: Point, near: f64) -> Option<f64> {
        let share = match &self.kind {
            Kind::Line => {
                let by = self.to - self.from;
                (at - self.from).dot(by) / by.dot(by)
            }
            Kind::Arc(_) => {
                let one = self.segment();
                let centre = one.centre();
                let (start, arm) = (one.start - centre, at - centre);
                let turn = start.cross(arm).atan2(start.dot(arm)) * one.sweep().signum();
                let turn = turn.rem_euclid(std::f64::consts::TAU);
                // Just before its start is just before it, not all the way round.
                let turn = if turn > std::f64::consts::PI + one.sweep().abs() / 2.0 {
                    turn - std::f64::consts::TAU
                } else {
                    turn
                };
                turn / one.sweep().abs()
            }
            Kind::Graph(graph) => {
                let (from, to) = (graph.off(self.from), graph.off(self.to));
                (graph.off(at) - from) / (to - from)
            }
            Kind::Trace(trace, first, last) => (trace.share_of(at) - first) / (last - first),
        };
        ((-ROUNDING..=1.0 + ROUNDING).contains(&share) && self.at(share).distance(at) < near).then_some(share)
    }

    /// A place a little to its left from its middle.
    pub fn inside(&self) -> Point {
        self.inside_at(0.5)
    }

    /// A place a little to its left, a share of the way along.
    pub fn inside_at(&self, share: f64) -> Point {
        let way = self.at(share + 0.0005) - self.at(share - 0.0005);
        self.at(share) + way.unit().left() * BESIDE
    }
}
