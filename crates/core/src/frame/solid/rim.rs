//! Where a drill meets the faces of a member's walls: a closed curve on each side of a wall, of one piece on a wall's face and of
//! several over the corners of its section.

use std::f64::consts::{PI, TAU};

use crate::plane::{Point, Vector};
use crate::space::{Body, Curve, Point3, Surface, Tube, Vector3};

use super::super::member::{Basis, Bore, Member};
use super::wall::{NEAR, Wall, between};

/// Looks over a stretch of a hole for the wall that it opens in.
const LOOKS: i32 = 8;
/// Places round half a hole that its rim on a round wall goes through.
const ROUND: f64 = 12.0;

/// A hole through one run of metal.
pub(super) struct Drill<'a> {
    pub member: &'a Member,
    pub bore: &'a Bore,
    /// Which of the runs of metal that it goes through.
    pub which: usize,
    pub walls: &'a [Wall],
    pub solid: &'a Body,
}

/// A straight edge of the solid that a rim goes over.
pub(super) struct Crossing {
    /// The edge.
    pub edge: usize,
    /// Places of the rim on it, by index.
    pub nodes: [usize; 2],
}

/// The rim of a hole on one side of a run of metal, counter-clockwise about the drill's way in.
pub(super) struct Rim {
    /// Where its pieces begin: the first at the far left of the way in, another opposite.
    pub places: Vec<Point3>,
    /// The index of the place opposite the first.
    pub half: usize,
    /// For each piece its wall and its curve.
    pub pieces: Vec<(usize, Curve)>,
    /// The edges that it goes over.
    pub crossings: Vec<Crossing>,
    /// The surface of the hole.
    pub round: Surface,
    basis: Basis,
}

impl Rim {
    /// How far along the member a place lies, mm.
    pub fn along(&self, place: Point3) -> f64 {
        self.basis.local(place).z
    }
}

impl Drill<'_> {
    fn radius(&self) -> f64 {
        self.bore.diameter / 2.0
    }

    /// In the section, the place so far beside the drill's axis and so far along its way in.
    fn section(&self, aside: f64, level: f64) -> Point {
        let side = self.bore.into.left();
        Point::default() + side * (self.member.across(self.bore) + aside) + self.bore.into * level
    }

    fn aside(&self, at: Point) -> f64 {
        let side = self.bore.into.left();
        side.x * at.x + side.y * at.y - self.member.across(self.bore)
    }

    fn turned(&self, way: Vector) -> Vector3 {
        self.member.start.turn_out(Vector3::new(way.x, way.y, 0.0))
    }

    /// Where the run of metal begins, or ends, beside the axis.
    fn level(&self, aside: f64, far: bool) -> Option<f64> {
        let &(low, high) = self.member.walls_at(self.bore, aside).get(self.which)?;
        Some(if far { high } else { low })
    }

    fn wall(&self, aside: f64, far: bool) -> Option<usize> {
        let at = self.section(aside, self.level(aside, far)?);
        self.walls.iter().position(|wall| wall.segment.distance_to(at) < NEAR)
    }

    /// The rims on both sides; `None` where the drill runs along a face, or off the metal.
    pub fn rims(&self) -> Option<[Rim; 2]> {
        Some([self.rim(false)?, self.rim(true)?])
    }

    /// The corner between two walls that stands so far beside the axis, on one side of the run of metal.
    fn corner(&self, one: usize, two: usize, aside: f64, far: bool) -> Option<Point> {
        let level = |at: Point| self.bore.into.x * at.x + self.bore.into.y * at.y;
        // Just beside it: on it a run of metal may begin.
        let near = self.level(aside - 10.0 * NEAR, far).or_else(|| self.level(aside + 10.0 * NEAR, far))?;
        between(&self.walls[one], &self.walls[two])
            .filter(|&at| (self.aside(at) - aside).abs() < 2.0 * NEAR)
            .min_by(|&a, &b| (level(a) - near).abs().total_cmp(&(level(b) - near).abs()))
    }

    /// The walls that the drill meets on one side: where each begins beside the axis, from right to left.
    fn stretches(&self, far: bool) -> Option<Vec<(f64, usize)>> {
        let radius = self.radius();
        let mut bounds: Vec<f64> = self.walls.iter().map(|wall| self.aside(wall.segment.start)).collect();
        bounds.retain(|aside| aside.abs() < radius - NEAR);
        bounds.push(-radius);
        bounds.push(radius);
        bounds.sort_by(f64::total_cmp);
        let mut found: Vec<(f64, usize)> = Vec::new();
        for pair in bounds.windows(2).filter(|pair| pair[1] - pair[0] > 2.0 * NEAR) {
            let at = |look: i32| pair[0] + (pair[1] - pair[0]) * (0.5 + f64::from(look)) / f64::from(LOOKS);
            let wall = self.wall(at(0), far)?;
            if (1..LOOKS).any(|look| self.wall(at(look), far) != Some(wall)) {
                return None;
            }
            match found.last() {
                Some(&(_, known)) if known == wall => {}
                Some(&(_, known)) => {
                    let corner = self.corner(known, wall, pair[0], far)?;
                    found.push((self.aside(corner), wall));
                }
                None => found.push((pair[0], wall)),
            }
        }
        // A rim that touches an edge is on neither side of it.
        let beyond = [-radius - 2.0 * NEAR, radius + 2.0 * NEAR];
        let same = self.wall(beyond[0], far) == found.first().map(|one| one.1)
            && self.wall(beyond[1], far) == found.last().map(|one| one.1);
        same.then_some(found)
    }

    fn rim(&self, far: bool) -> Option<Rim> {
        let stretches = self.stretches(far)?;
        let (basis, radius) = (self.member.start, self.radius());
        let (axis, arm) = (self.turned(self.bore.into), self.turned(self.bore.into.left()));
        // 1 where turning right-handed about the way in leads along the member.
        let upright = axis.cross(arm).dot(basis.w).signum();
        let middle = self.section(0.0, 0.0);
        let drill = Tube { point: basis.place(middle.x, middle.y, self.bore.along), axis, radius };
        let place = |at: Point, turn: f64| basis.place(at.x, at.y, self.bore.along + radius * turn.sin() * upright);
        // Turns at which its pieces begin, with the corner of the section that is there.
        let mut nodes: Vec<(f64, Option<(usize, Point)>)> = vec![(0.0, None), (PI, None)];
        for (at, pair) in stretches.windows(2).enumerate() {
            let corner = self.corner(pair[0].1, pair[1].1, pair[1].0, far)?;
            let turn = (pair[1].0 / radius).acos();
            nodes.extend([(turn, Some((at, corner))), (TAU - turn, Some((at, corner)))]);
        }
        nodes.sort_by(|one, two| one.0.total_cmp(&two.0));
        let places: Option<Vec<Point3>> = nodes
            .iter()
            .map(|&(turn, corner)| match corner {
                Some((_, corner)) => Some(place(corner, turn)),
                None => {
                    let aside = radius * turn.cos();
                    Some(place(self.section(aside, self.level(aside, far)?), turn))
                }
            })
            .collect();
        let places = places?;
        let mut pieces = Vec::new();
        for (at, &(from, _)) in nodes.iter().enumerate() {
            let to = nodes.get(at + 1).map_or(TAU, |next| next.0);
            let aside = radius * ((from + to) / 2.0).cos();
            let wall = stretches.iter().rev().find(|one| one.0 <= aside)?.1;
            let steps = (ROUND * (to - from) / PI).ceil().max(4.0) as usize;
            let through: Option<Vec<Point3>> = (0..=steps)
                .map(|step| {
                    if step == 0 || step == steps {
                        return Some(places[(at + usize::from(step == steps)) % places.len()]);
                    }
                    let turn = from + (to - from) * step as f64 / steps as f64;
                    let aside = radius * turn.cos();
                    Some(place(self.section(aside, self.level(aside, far)?), turn))
                })
                .collect();
            pieces.push((wall, self.curve(&drill, wall, &through?)?));
        }
        let mut crossings = Vec::new();
        for which in 0..stretches.len() - 1 {
            let mut own = nodes.iter().enumerate().filter(|(_, node)| node.1.is_some_and(|(at, _)| at == which));
            let (one, two) = (own.next()?.0, own.next()?.0);
            let corner = nodes[one].1?.1;
            crossings.push(Crossing { edge: self.long_edge(corner, [places[one], places[two]])?, nodes: [one, two] });
        }
        let half = nodes.iter().position(|node| node.1.is_none() && node.0 > 1.0)?;
        let round = Surface::Cylinder { point: drill.point, axis, across: arm, radius, outward: false };
        Some(Rim { places, half, pieces, crossings, round, basis })
    }

    /// A piece of the rim on one wall.
    fn curve(&self, drill: &Tube, wall: usize, through: &[Point3]) -> Option<Curve> {
        let basis = &self.member.start;
        let Wall { segment, out, .. } = &self.walls[wall];
        if segment.is_line() {
            let (first, last) = (*through.first()?, *through.last()?);
            return Some(drill.cut(self.turned(*out), first, through[through.len() / 2], last));
        }
        let centre = segment.centre();
        let round = Tube { point: basis.place(centre.x, centre.y, 0.0), axis: basis.w, radius: segment.radius() };
        drill.meet(&round, through).map(Curve::Cubic)
    }

    /// The straight edge at a corner of the section that goes past both places.
    fn long_edge(&self, corner: Point, places: [Point3; 2]) -> Option<usize> {
        let basis = &self.member.start;
        let levels = places.map(|place| basis.local(place).z);
        self.solid.edges.iter().position(|edge| {
            let ends = [edge.from, edge.to].map(|at| basis.local(self.solid.corners[at]));
            matches!(edge.curve, Curve::Line)
                && ends.iter().all(|end| (end.x - corner.x).hypot(end.y - corner.y) < NEAR)
                && levels.iter().all(|level| {
                    (ends[0].z - level).abs() > NEAR
                        && (ends[1].z - level).abs() > NEAR
                        && (ends[0].z < *level) != (ends[1].z < *level)
                })
        })
    }
}
