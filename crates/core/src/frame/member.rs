//! A member: a section along a line, cut at both ends. Everything about its ends is said in the frame of that end: u across,
//! v up, t along the member from the line's own end, positive toward the finish.

use std::collections::BTreeMap;
use std::sync::Arc as Shared;

use crate::plane::{Moments, Outline, Point, Region, Segment, Vector};
use crate::quantity::tolerance::{LEVEL, MODELLING_TOLERANCE, NOTHING, PARALLEL};
use crate::section::Section;
use crate::space::{Motion, Point3, Vector3};
use crate::stock::Material;
use crate::work::frame::{OneEnd, Purpose};

use super::cut_plane::CutPlane;
use super::end::{Cope, End, ReachSums, creases, crossings, heights};
use super::skeleton::CentreLine;

/// A right-handed frame: u across, v up, w along.
#[derive(Clone, Copy, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Basis {
    pub origin: Point3,
    pub u: Vector3,
    pub v: Vector3,
    pub w: Vector3,
}

impl Basis {
    /// About an axis, up as near to `up` as it can be.
    pub fn about(origin: Point3, w: Vector3, up: Vector3) -> Basis {
        let v = (up - w * up.dot(w)).unit();
        Basis { origin, u: v.cross(w), v, w }
    }

    /// A place from its coordinates, mm.
    pub fn place(&self, u: f64, v: f64, t: f64) -> Point3 {
        self.origin + self.u * u + self.v * v + self.w * t
    }

    /// Coordinates of a place.
    pub fn local(&self, place: Point3) -> Vector3 {
        self.turn_in(place - self.origin)
    }

    /// Coordinates of a direction.
    pub fn turn_in(&self, way: Vector3) -> Vector3 {
        Vector3::new(way.dot(self.u), way.dot(self.v), way.dot(self.w))
    }

    /// A direction from its coordinates.
    pub fn turn_out(&self, way: Vector3) -> Vector3 {
        self.u * way.x + self.v * way.y + self.w * way.z
    }

    /// The motion that brings what is told in this frame into space.
    pub fn motion(&self) -> Motion {
        Motion::to_frame(self.origin, self.u, self.v, self.w)
    }

    /// Under a rigid motion.
    pub fn moved(&self, motion: &Motion) -> Basis {
        Basis {
            origin: motion.apply(self.origin),
            u: motion.direction(self.u),
            v: motion.direction(self.v),
            w: motion.direction(self.w),
        }
    }
}

/// A hole through one wall or both.
#[derive(Clone, Debug, PartialEq)]
pub struct Bore {
    /// The operation that made it.
    pub operation: String,
    /// Direction that it goes in, in the section: a unit vector along -u, u, -v or v.
    pub into: Vector,
    /// Off the axis of the section's box, mm.
    pub off: f64,
    /// Along the member in its start's frame, mm.
    pub along: f64,
    /// Diameter, mm.
    pub diameter: f64,
    /// Through the first wall only.
    pub one_wall: bool,
    /// What it is for; nothing where another member passes through it.
    pub purpose: Option<Purpose>,
}

impl Bore {
    /// What it is for, in a word or two.
    pub fn purpose_words(&self) -> &'static str {
        match self.purpose {
            Some(Purpose::Bolt) => "hole",
            Some(Purpose::Drain) => "drain",
            Some(Purpose::Vent) => "vent",
            None => "to pass through",
        }
    }
}

/// A member.
#[derive(Clone, Debug)]
pub struct Member {
    /// Its line's name.
    pub name: String,
    /// The operation that put a section on it.
    pub group: String,
    /// Its place in its group, from 1, for its mark.
    pub number: usize,
    /// Its section.
    pub section: Shared<Section>,
    /// The section as it lies about its line, mm; mirrored for a mirror image.
    pub region: Region,
    /// Its material.
    pub material: &'static Material,
    /// Its lines end to end; one straight line for a straight member.
    pub lines: Vec<CentreLine>,
    /// Frame at its start.
    pub start: Basis,
    /// Frame at its finish, the same way round.
    pub finish: Basis,
    /// Its ends as cut: start, finish.
    pub ends: [End; 2],
    /// Its holes.
    pub bores: Vec<Bore>,
    /// A mirror image of what was drawn.
    pub mirrored: bool,
    /// Letters of its mark.
    pub mark: String,
    /// Extra length at each end for the bender, mm.
    pub grip: f64,
    /// Sub-weldment.
    pub weldment: Option<String>,
    /// Columns of the cut list.
    pub columns: BTreeMap<String, String>,
    /// Its bodies, kept once its ends are final; whoever changes an end or the section takes them away.
    pub(super) kept_bodies: Option<Shared<[Member]>>,
}

/// How finely a curve is drawn, mm from it.
const DRAWN: f64 = 0.05;

impl Member {
    /// Whether it is one straight line.
    pub fn is_straight(&self) -> bool {
        self.lines.len() == 1 && self.lines[0].arc.is_none()
    }

    /// Whether an end of it is notched, slotted or fitted to another section.
    pub fn has_cutouts(&self) -> bool {
        self.ends.iter().any(|end| !end.cutouts.is_empty())
    }

    /// Length of its line, mm.
    pub fn line_length(&self) -> f64 {
        self.lines.iter().map(CentreLine::length).sum()
    }

    /// Where the saw leaves the fibre at (u, v) at an end, in that end's frame, mm.
    pub fn sawn_reach(&self, which: OneEnd, at: Point) -> f64 {
        match which {
            OneEnd::Start => self.begins(at),
            OneEnd::Finish => self.finishes(at),
        }
    }

    /// Where metal begins on the fibre at (u, v), in the start's frame, mm.
    pub fn begins(&self, at: Point) -> f64 {
        let planes = self.ends[0].planes.iter().map(|cut| cut.reach(at));
        let copes = self.ends[0].copes.iter().map(|cope| cope.reach(at, -1.0));
        planes.chain(copes).fold(f64::NEG_INFINITY, f64::max).max(-1e7)
    }

    /// Where metal ends on the fibre at (u, v), in the finish's frame, mm.
    pub fn finishes(&self, at: Point) -> f64 {
        let planes = self.ends[1].planes.iter().map(|cut| cut.reach(at));
        let copes = self.ends[1].copes.iter().map(|cope| cope.reach(at, 1.0));
        planes.chain(copes).fold(f64::INFINITY, f64::min).min(1e7)
    }

    /// Where in the section the long point and the short point of an end are, with how far the metal reaches there, in the end's
    /// frame, mm.
    pub fn points_of_reach(&self, which: OneEnd) -> [(Point, f64); 2] {
        let mut points = Vec::new();
        for outline in self.region.outlines() {
            self.telling_points(outline, which, &mut points);
        }
        self.inner_points(which, &mut points);
        let reaches = points.into_iter().map(|at| (at, self.sawn_reach(which, at)));
        let start = [(Point::default(), f64::INFINITY), (Point::default(), f64::NEG_INFINITY)];
        let [low, high] = reaches.fold(start, |[low, high], one| {
            [if one.1 < low.1 { one } else { low }, if one.1 > high.1 { one } else { high }]
        });
        if which.is_finish() { [high, low] } else { [low, high] }
    }

    /// The metal's greatest and least reach at an end over the whole section: at the finish (greatest, least), at the
    /// start (least, greatest), in the end's frame.
    pub fn reach(&self, which: OneEnd) -> (f64, f64) {
        let [(_, long), (_, short)] = self.points_of_reach(which);
        (long, short)
    }

    /// Points of an outline where an end's reach can be greatest or least: corners, the points of an arc that look along
    /// the slope of a plane, and where two planes meet.
    fn telling_points(&self, outline: &Outline, which: OneEnd, into: &mut Vec<Point>) {
        let end = &self.ends[which.at()];
        for (one, _) in outline.segments() {
            into.push(one.start);
            for cut in &end.planes {
                let slope = Vector::new(cut.normal.x, cut.normal.y);
                if !one.is_line() && slope.length() > NOTHING {
                    for way in [slope.unit(), -slope.unit()] {
                        let at = one.centre() + way * one.radius();
                        if one.sweeps_over(at) {
                            into.push(at);
                        }
                    }
                }
            }
            crossings(&one, &creases(end), into);
        }
        if !end.copes.is_empty() {
            outline.segments().for_each(|(one, _)| self.tips(&one, which, into));
        }
    }

    /// Places inside the section where an end may reach furthest: where three planes meet, where a plane and a round do, and
    /// where two rounds do.
    fn inner_points(&self, which: OneEnd, into: &mut Vec<Point>) {
        let end = &self.ends[which.at()];
        if end.planes.len() + end.copes.len() < 2 {
            // One surface by itself reaches furthest on the rim.
            return;
        }
        let lines = creases(end);
        for (at, (way, level)) in lines.iter().enumerate() {
            for (other, rest) in &lines[at + 1..] {
                let square = way.cross(*other);
                if square.abs() > PARALLEL {
                    let u = (level * other.y - rest * way.y) / square;
                    let v = (way.x * rest - other.x * level) / square;
                    into.extend(Some(Point::new(u, v)).filter(|&at| self.region.contains(at)));
                }
            }
        }
        let way = which.way();
        // Only as far as no third comes before them.
        let reach = |at: Point| self.sawn_reach(which, at);
        let is_first = |(at, height): &(Point, f64)| (reach(*at) - height).abs() < MODELLING_TOLERANCE;
        let beside: Vec<CutPlane> =
            end.copes.iter().filter(|cope| cope.beside().is_some()).map(|cope| cope.aside(way)).collect();
        let size = self.region.extents();
        let far = size.width().hypot(size.height());
        for (at, cope) in end.copes.iter().enumerate() {
            let Some((across, level)) = cope.beside() else { continue };
            for flank in [cope.radius, -cope.radius] {
                let middle = size.centre() - Point::default();
                let foot = Point::default() + across * (level + flank) + across.left() * across.left().dot(middle);
                let on = |turn: f64| foot + across.left() * (far * turn.sin());
                extremes(&|turn| Some(on(turn)).filter(|&at| self.region.contains(at)).map(|at| (at, reach(at))), into);
            }
            for cut in end.planes.iter().chain(&beside) {
                extremes(&|turn| self.on_plane_and_round(cope, cut, way, turn).filter(is_first), into);
            }
            for other in &end.copes[at + 1..] {
                for sense in [1.0, -1.0] {
                    extremes(&|turn| self.on_two_rounds(cope, other, way, turn, sense).filter(is_first), into);
                }
            }
        }
    }

    /// The place of the section where a plane and a round reach alike, at a turn that goes from one flank of the round to the
    /// other and back, with its height.
    fn on_plane_and_round(&self, cope: &Cope, cut: &CutPlane, way: f64, turn: f64) -> Option<(Point, f64)> {
        let (across, level) = cope.beside()?;
        let apart = |at: Point| cope.reach(at, way) - cut.reach(at);
        let foot = Point::default() + across * (level + cope.radius * turn.sin());
        let slope = apart(foot + across.left()) - apart(foot);
        if slope.abs() < PARALLEL {
            return None;
        }
        let at = foot + across.left() * (-apart(foot) / slope);
        self.region.contains(at).then(|| (at, cut.reach(at)))
    }

    /// The place of the section where two rounds reach alike, at a turn of the first round's own; its lines meet the second
    /// twice, each on its own side.
    fn on_two_rounds(&self, one: &Cope, two: &Cope, way: f64, turn: f64, sense: f64) -> Option<(Point, f64)> {
        let level = Vector3::new(one.axis.y, -one.axis.x, 0.0).unit();
        let arm = level * turn.cos() + one.axis.cross(level) * turn.sin();
        let start = one.point + arm * one.radius - two.point;
        let square = |v: Vector3| v - two.axis * v.dot(two.axis);
        let (a, b) = (square(one.axis), square(start));
        let (aa, ab, bb) = (a.dot(a), a.dot(b), b.dot(b));
        let inside = ab * ab - aa * (bb - two.radius * two.radius);
        if aa < NOTHING || inside < 0.0 {
            return None;
        }
        let place = one.point + arm * one.radius + one.axis * ((-ab + sense * inside.sqrt()) / aa);
        let at = Point::new(place.x, place.y);
        // On the near side of both.
        let near = |cope: &Cope| (cope.reach(at, way) - place.z).abs() < MODELLING_TOLERANCE;
        (self.region.contains(at) && near(one) && near(two)).then_some((at, place.z))
    }

    /// Where a coped end reaches furthest and least along an edge of the section: looked for, then narrowed down.
    fn tips(&self, one: &Segment, which: OneEnd, into: &mut Vec<Point>) {
        const LOOKS: usize = 96;
        let share = |step: usize| step as f64 / LOOKS as f64;
        for side in [1.0, -1.0] {
            let reach = |at: f64| {
                let at = one.at(at);
                side * self.sawn_reach(which, at)
            };
            let found: Vec<f64> = (0..=LOOKS).map(|step| reach(share(step))).collect();
            let top = |step: usize| {
                found[step] >= found[step.saturating_sub(1)] && found[step] >= found[(step + 1).min(LOOKS)]
            };
            for step in (0..=LOOKS).filter(|&step| top(step)) {
                let (mut low, mut high) = (share(step.saturating_sub(1)), share((step + 1).min(LOOKS)));
                for _ in 0..48 {
                    let third = (high - low) / 3.0;
                    if reach(low + third) < reach(high - third) { low += third } else { high -= third }
                }
                into.push(one.at((low + high) / 2.0));
            }
        }
    }

    /// Long point to long point along the member, mm: the bar that it takes.
    pub fn length(&self) -> f64 {
        self.centre_length_of_lines() + self.reach(OneEnd::Finish).0 - self.reach(OneEnd::Start).0 + 2.0 * self.grip
    }

    /// Short point to short point, mm.
    pub fn short_length(&self) -> f64 {
        self.centre_length_of_lines() + self.reach(OneEnd::Finish).1 - self.reach(OneEnd::Start).1
    }

    /// Length of the line through the section's centroid, mm: straight lines as they are, arcs at the centroid's own
    /// radius.
    fn centre_length_of_lines(&self) -> f64 {
        if self.is_straight() {
            return self.lines[0].length();
        }
        let centroid = self.region.centroid();
        let mut basis = self.start;
        let mut total = 0.0;
        for line in &self.lines {
            match &line.arc {
                None => total += line.length(),
                Some(arc) => {
                    let place = basis.place(centroid.x, centroid.y, 0.0) - arc.centre;
                    let square = place - arc.axis * place.dot(arc.axis);
                    total += square.length() * arc.sweep;
                }
            }
            basis = along(basis, line);
        }
        total
    }

    /// Length along the centroid between the cut planes, mm. Times the section's area this is the volume, exactly, where
    /// each end is one plane.
    pub fn centroid_length(&self) -> f64 {
        let at = self.region.centroid();
        self.centre_length_of_lines() + self.finishes(at) - self.begins(at)
    }

    /// Volume between the ends as sawn, before cutouts and holes, mm3.
    pub(super) fn sawn_volume(&self) -> f64 {
        if self.ends.iter().all(|end| end.planes.len() <= 1 && end.copes.is_empty()) {
            return self.region.area() * self.centroid_length();
        }
        let [start, finish] = OneEnd::BOTH.map(|which| self.reach_sums(which).volume);
        self.region.area() * self.centre_length_of_lines() + finish - start
    }

    /// Volume that a hole takes, mm3, and where its middle lies: the drill's round in strips along its way in, each as long as
    /// the metal that it meets there. `r sin(turn)` across makes the sum exact for flat walls and all but exact for others.
    pub(super) fn bored(&self, bore: &Bore) -> (f64, Vector) {
        const STRIPS: usize = 64;
        let radius = bore.diameter / 2.0;
        let side = bore.into.left();
        let middle = self.region.extents().centre();
        let axis = side.x * middle.x + side.y * middle.y + bore.off;
        let (mut volume, mut first) = (0.0, Vector::default());
        for strip in 0..STRIPS {
            let turn = std::f64::consts::PI * ((strip as f64 + 0.5) / STRIPS as f64 - 0.5);
            let across = radius * turn.sin();
            let wide = 2.0 * radius * radius * turn.cos().powi(2) * std::f64::consts::PI / STRIPS as f64;
            let walls = self.walls_at(bore, across);
            let count = if bore.one_wall { 1 } else { walls.len() };
            for (from, to) in walls.into_iter().take(count) {
                let own = (to - from) * wide;
                volume += own;
                first = first + (side * (axis + across) + bore.into * ((from + to) / 2.0)) * own;
            }
        }
        (volume, if volume > 0.0 { first * (1.0 / volume) } else { Vector::default() })
    }

    /// The walls that a hole's axis meets, in order from the face that it goes in through: where each begins and ends along
    /// `into`, mm from the section's own zero.
    pub fn walls(&self, bore: &Bore) -> Vec<(f64, f64)> {
        self.walls_at(bore, 0.0)
    }

    /// The walls on a line beside a hole's axis, so far to the left of its way in.
    pub(super) fn walls_at(&self, bore: &Bore, beside: f64) -> Vec<(f64, f64)> {
        // Turned so that the hole runs along v of the turned section: turned and not reflected, or arcs would bulge the wrong way.
        let (right, into) = (bore.into.right(), bore.into);
        let turn = |at: Point| Point::new(right.x * at.x + right.y * at.y, into.x * at.x + into.y * at.y);
        let middle = self.region.extents().centre();
        let axis = turn(middle).x - bore.off - beside;
        let mut levels: Vec<f64> = self.region.outlines().flat_map(|one| heights(&one.moved(turn), axis)).collect();
        levels.sort_by(f64::total_cmp);
        levels.chunks_exact(2).map(|pair| (pair[0], pair[1])).collect()
    }

    /// The frame at a distance along it from its line's start; beyond its ends straight on. mm
    pub fn basis_along(&self, distance: f64) -> Basis {
        let (mut basis, mut left) = (self.start, distance);
        for (at, line) in self.lines.iter().enumerate() {
            let here = line.length();
            let straight_on = at + 1 == self.lines.len() && line.arc.is_none();
            if left >= 0.0 && (left <= here || straight_on) {
                return part_way(basis, line, left);
            }
            if left < 0.0 {
                break;
            }
            left -= here;
            basis = along(basis, line);
        }
        Basis { origin: basis.origin + basis.w * left, ..basis }
    }

    /// How many walls its holes go through.
    pub fn bored_walls(&self) -> usize {
        self.bores.iter().map(|bore| if bore.one_wall { 1 } else { self.walls(bore).len() }).sum()
    }

    /// What its holes take, mm3, with its first moments about the origin of space.
    pub fn bored_moments(&self) -> (f64, Vector3) {
        self.bores.iter().fold((0.0, Vector3::default()), |(volume, first), bore| {
            let (own, at) = self.bored(bore);
            (volume + own, first + self.basis_along(bore.along).place(at.x, at.y, 0.0).from_origin() * own)
        })
    }

    /// Takes all holes away.
    pub fn strip_bores(&mut self) {
        self.bores.clear();
        self.kept_bodies = None;
    }

    /// Volume between the ends as sawn and its first moments about the origin of space. An end's cut is a height over the
    /// section; with its integrals over the section the moments are exact for planes.
    pub(super) fn sawn_moments(&self) -> (f64, Vector3) {
        let centroid = self.region.centroid();
        let area = self.region.area();
        let (mut volume, mut first) = (0.0, Vector3::default());
        let mut basis = self.start;
        for line in &self.lines {
            match &line.arc {
                None => {
                    let own = area * line.length();
                    volume += own;
                    first = first + basis.place(centroid.x, centroid.y, line.length() / 2.0).from_origin() * own;
                }
                Some(arc) => {
                    let (own, moment) = self.turned_moments(&basis, arc);
                    volume += own;
                    first = first + moment;
                }
            }
            basis = along(basis, line);
        }
        for which in [OneEnd::Finish, OneEnd::Start] {
            let way = which.way();
            let sums = self.reach_sums(which);
            let basis = self.basis(which);
            volume += way * sums.volume;
            first = first
                + (basis.origin.from_origin() * sums.volume
                    + basis.u * sums.across
                    + basis.v * sums.up
                    + basis.w * sums.along)
                    * way;
        }
        (volume, first)
    }

    /// A section carried round an arc: its volume and first moments, by the section's first and second moments (Pappus).
    fn turned_moments(&self, basis: &Basis, arc: &super::skeleton::Arc) -> (f64, Vector3) {
        let out = (basis.origin - arc.centre).unit();
        let radius = (basis.origin - arc.centre).length();
        // Across the section: toward the outside, and along the axis.
        let (out_u, out_v) = (out.dot(basis.u), out.dot(basis.v));
        let (axis_u, axis_v) = (arc.axis.dot(basis.u), arc.axis.dot(basis.v));
        let m = Moments::of_region(&self.region, (0.0, 0.0));
        let reach = out_u * m.x + out_v * m.y;
        let rise = axis_u * m.x + axis_v * m.y;
        let square = out_u * out_u * m.xx + 2.0 * out_u * out_v * m.xy + out_v * out_v * m.yy;
        let mixed = out_u * axis_u * m.xx + (out_u * axis_v + out_v * axis_u) * m.xy + out_v * axis_v * m.yy;
        let volume = arc.sweep * (radius * m.area + reach);
        // The integral of (radius + out)^2 over the section turns from the start's way out to the end's.
        let arms = radius * radius * m.area + 2.0 * radius * reach + square;
        let (sine, cosine) = arc.sweep.sin_cos();
        let ahead = arc.axis.cross(out);
        let turned = out * sine + ahead * (1.0 - cosine);
        let up = arc.sweep * (radius * rise + mixed);
        (volume, arc.centre.from_origin() * volume + turned * arms + arc.axis * up)
    }

    /// The integrals of an end's height over the section: itself, with across, with up, and half its square.
    fn reach_sums(&self, which: OneEnd) -> ReachSums {
        let end = &self.ends[which.at()];
        if let ([cut], []) = (end.planes.as_slice(), end.copes.as_slice()) {
            let m = Moments::of_region(&self.region, (0.0, 0.0));
            let (level, a, b) = (cut.level / cut.normal.z, -cut.normal.x / cut.normal.z, -cut.normal.y / cut.normal.z);
            return ReachSums {
                volume: level * m.area + a * m.x + b * m.y,
                across: level * m.x + a * m.xx + b * m.xy,
                up: level * m.y + a * m.xy + b * m.yy,
                along: (level * level * m.area
                    + 2.0 * level * (a * m.x + b * m.y)
                    + a * a * m.xx
                    + 2.0 * a * b * m.xy
                    + b * b * m.yy)
                    / 2.0,
            };
        }
        let outlines: Vec<Outline> = self.region.outlines().cloned().collect();
        super::over::over(&outlines, end, which.way())
    }

    /// Takes out planes that cut nothing: the same plane twice (a leg under two rails, of which it keeps both), or one that
    /// another always comes before; and rounds before which the same round stands further back.
    pub fn tidy_ends(&mut self) {
        for (which, end) in OneEnd::BOTH.into_iter().zip(&mut self.ends) {
            let way = which.way();
            let all = end.copes.clone();
            end.copes.retain(|own| !all.iter().any(|other| own.is_behind(other, way)));
        }
        let points: Vec<Point> = self.region.outlines().flat_map(|outline| outline.flatten(0.05)).collect();
        for (which, end) in OneEnd::BOTH.into_iter().zip(&mut self.ends) {
            if end.planes.len() < 2 {
                continue;
            }
            let way = which.way();
            let mut at = 0;
            while at < end.planes.len() && end.planes.len() > 1 {
                // It cuts where it comes before every other plane, seen from the metal.
                let cuts = points.iter().any(|&point| {
                    let own = end.planes[at].reach(point) * way;
                    end.planes
                        .iter()
                        .enumerate()
                        .all(|(other, plane)| other == at || own < plane.reach(point) * way - LEVEL)
                });
                if cuts {
                    at += 1;
                    continue;
                }
                let gone = end.planes.remove(at);
                let twin = end.planes.iter_mut().find(|plane| {
                    (plane.normal - gone.normal).length() < PARALLEL && (plane.level - gone.level).abs() < LEVEL
                });
                if let Some(twin) = twin {
                    twin.to.extend(gone.to);
                    twin.to.sort_unstable();
                    twin.to.dedup();
                }
            }
        }
    }

    /// The frame of an end.
    pub fn basis(&self, which: OneEnd) -> Basis {
        if which.is_finish() { self.finish } else { self.start }
    }

    /// Straight pieces that stand for it on the screen and in clashes: one for a straight member, chords for a bent one.
    pub fn pieces(&self) -> Vec<Piece> {
        if self.is_straight() {
            return vec![Piece { from: self.start, to: self.finish, first: true, last: true }];
        }
        let mut stations = vec![self.start];
        let mut basis = self.start;
        for line in &self.lines {
            if let Some(arc) = &line.arc {
                let radius = line.from.distance(arc.centre) + self.region.extents().width();
                let step = (2.0 * (1.0 - (DRAWN / radius).min(0.3)).acos()).clamp(0.02, 0.4);
                let count = (arc.sweep / step).ceil().max(2.0) as usize;
                for at in 1..count {
                    stations.push(part_way(basis, line, line.length() * at as f64 / count as f64));
                }
            }
            basis = along(basis, line);
            stations.push(basis);
        }
        let count = stations.len() - 1;
        (0..count)
            .map(|at| Piece { from: stations[at], to: stations[at + 1], first: at == 0, last: at + 1 == count })
            .collect()
    }

    /// Where the fibre at (u, v) of a piece begins and ends.
    pub fn fibre(&self, piece: &Piece, at: Point) -> [Point3; 2] {
        let from = if piece.first { self.begins(at) } else { 0.0 };
        let to = if piece.last { self.finishes(at) } else { 0.0 };
        if piece.first && piece.last {
            // Cuts that cross leave nothing: a piece is never turned inside out.
            let length = self.lines[0].length();
            return [self.start.place(at.x, at.y, from), self.start.place(at.x, at.y, (length + to).max(from))];
        }
        [piece.from.place(at.x, at.y, from), piece.to.place(at.x, at.y, to)]
    }
}

/// A straight piece of a member, between two frames.
#[derive(Clone, Debug)]
pub struct Piece {
    /// The frame that it begins in.
    pub from: Basis,
    /// The frame that it ends in.
    pub to: Basis,
    /// It has the member's own start.
    pub first: bool,
    /// It has the member's own finish.
    pub last: bool,
}

/// The frame at the end of a line, carried along it.
pub fn along(basis: Basis, line: &CentreLine) -> Basis {
    part_way(basis, line, line.length())
}

/// The frame part of the way along a line.
pub fn part_way(basis: Basis, line: &CentreLine, distance: f64) -> Basis {
    match &line.arc {
        None => Basis { origin: basis.origin + basis.w * distance, ..basis },
        Some(arc) => {
            let turned = distance / line.from.distance(arc.centre);
            basis.moved(&Motion::turn(arc.centre, arc.axis, turned))
        }
    }
}

/// Adds the places at which a height along a closed way is greatest or least: looked for, then narrowed down.
fn extremes(of: &dyn Fn(f64) -> Option<(Point, f64)>, into: &mut Vec<Point>) {
    const LOOKS: usize = 360;
    let turn = |step: usize| std::f64::consts::TAU * step as f64 / LOOKS as f64;
    let found: Vec<Option<(Point, f64)>> = (0..LOOKS).map(|step| of(turn(step))).collect();
    for step in 0..LOOKS {
        let Some((at, height)) = found[step] else { continue };
        let beside = [found[(step + LOOKS - 1) % LOOKS], found[(step + 1) % LOOKS]];
        for side in [1.0, -1.0] {
            if !beside.iter().flatten().all(|(_, other)| side * (height - other) >= 0.0) {
                continue;
            }
            into.push(at);
            // Beyond its end it reaches nowhere.
            let reach = |turn: f64| of(turn).map_or(f64::NEG_INFINITY, |(_, height)| side * height);
            let (mut low, mut high) = (turn(step) - turn(1), turn(step) + turn(1));
            for _ in 0..60 {
                let third = (high - low) / 3.0;
                let (a, b) = (reach(low + third), reach(high - third));
                // Where one look finds nothing, the other side of the middle is nearer to what was found.
                let lower = if a == b { (low + high) / 2.0 < turn(step) } else { a < b };
                if lower { low += third } else { high -= third }
            }
            into.extend(of((low + high) / 2.0).map(|(at, _)| at));
        }
    }
}
