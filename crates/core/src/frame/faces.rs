//! The faces of a straight member as a drill line and a torch see them: where each lies in the section, how the ends run over
//! it, and which of them a hole opens in. `v` is the face that is seen with the start at the left and up upward: the left one of the
//! section as drawn; `h` the one behind it, `o` the top, `u` the bottom. Along a face y begins at its lower edge, or at the edge
//! of `v`.

use crate::plane::{Point, Vector};
use crate::quantity::tolerance::PARALLEL;
use crate::section::Form;
use crate::work::frame::OneEnd;

use super::cutout::{Cutout, CutoutDepth};
use super::end::End;
use super::member::{Bore, Member};

/// A face.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Face {
    /// `v`, `o`, `u` or `h`.
    pub letter: char,
    /// Where its y begins, in the section, mm.
    pub origin: Point,
    /// The way of its y: a unit vector of the section.
    pub up: Vector,
    /// How far it goes, mm.
    pub height: f64,
}

/// A hole in a face, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FaceHole {
    /// `v`, `o`, `u` or `h`.
    pub letter: char,
    /// From the long point of the start.
    pub along: f64,
    /// Up its face.
    pub up: f64,
    /// Its diameter.
    pub diameter: f64,
}

/// The faces that the ends of a section are told on. A thin wall is told on its outside, the web of a beam and a round bar in
/// their middle.
pub fn faces(member: &Member) -> Vec<Face> {
    let around = member.region.extents();
    let (low, high) = (around.low, around.high);
    let upright = |letter: char, across: f64| Face {
        letter,
        origin: Point::new(across, low.y),
        up: Vector::new(0.0, 1.0),
        height: around.height(),
    };
    let level = |letter: char, up: f64| Face {
        letter,
        origin: Point::new(low.x, up),
        up: Vector::new(1.0, 0.0),
        height: around.width(),
    };
    let middle = around.centre().x;
    match member.section.form {
        Form::Beam => vec![upright('v', middle), level('o', high.y), level('u', low.y)],
        Form::Channel => vec![upright('v', low.x), level('o', high.y), level('u', low.y)],
        Form::Angle => vec![upright('v', low.x), level('u', low.y)],
        Form::SquareHollow | Form::RectangularHollow => {
            vec![upright('v', low.x), level('o', high.y), level('u', low.y), upright('h', high.x)]
        }
        Form::Flat | Form::Square | Form::Timber | Form::Own => vec![upright('v', low.x), level('o', high.y)],
        Form::RoundHollow | Form::Round => vec![upright('v', middle)],
    }
}

/// Steps along a face where a round cope curves over it, mm.
const CURVED: f64 = 1.0;
/// A curve of a cope is told by chords that are no further from it, mm.
const CHORD: f64 = 0.01;
/// So often a step is halved where a cope is steep or jumps.
const HALVINGS: usize = 12;
/// A place just inside of a stretch, as a part of it: a jump at its end belongs to both sides.
const INSIDE: f64 = 1e-6;
/// Shorter stretches of a face are none, mm.
const SHORT: f64 = 1e-6;

/// Places up a face where the end's cut turns or jumps: its own ends, the sides of cutouts, where two planes meet.
fn breaks(face: &Face, end: &End) -> Vec<f64> {
    let mut all = vec![0.0, face.height];
    let mut meet = |rate: f64, rest: f64| {
        if rate.abs() > PARALLEL {
            all.push(-rest / rate);
        }
    };
    for (way, level) in end.cutouts.iter().flat_map(|cutout| &cutout.sides) {
        meet(way.dot(face.up), way.x * face.origin.x + way.y * face.origin.y - level);
    }
    // Every plane as reach = from + rise y along the face.
    let line = |cut: &super::cut_plane::CutPlane, back: f64| {
        let from = cut.reach(face.origin);
        (from + back, cut.reach(face.origin + face.up) - from)
    };
    let mut lines: Vec<(f64, f64)> = end.planes.iter().map(|cut| line(cut, 0.0)).collect();
    for cutout in &end.cutouts {
        match &cutout.depth {
            CutoutDepth::To(cut) => lines.push(line(cut, 0.0)),
            // Either way: which end it is does not matter for where lines cross.
            CutoutDepth::Behind(length) => {
                lines.extend(end.planes.iter().flat_map(|cut| [line(cut, *length), line(cut, -length)]));
            }
        }
    }
    for (at, one) in lines.iter().enumerate() {
        for two in &lines[at + 1..] {
            meet(one.1 - two.1, one.0 - two.0);
        }
    }
    if !end.copes.is_empty() {
        let steps = (face.height / CURVED).ceil() as usize;
        all.extend((1..steps).map(|at| face.height * at as f64 / steps as f64));
    }
    all.retain(|at| (0.0..=face.height).contains(at));
    all.sort_by(f64::total_cmp);
    all.dedup_by(|two, one| *two - *one < SHORT);
    all
}

/// Places between two of a curve, told as (up, along), so that its chords come near enough to it.
fn chords(along: &impl Fn(f64) -> f64, from: (f64, f64), to: (f64, f64), halvings: usize, all: &mut Vec<Point>) {
    let middle = (from.0 + to.0) / 2.0;
    let reach = along(middle);
    if halvings == 0 || (reach - (from.1 + to.1) / 2.0).abs() <= CHORD {
        return;
    }
    chords(along, from, (middle, reach), halvings - 1, all);
    all.push(Point::new(reach, middle));
    chords(along, (middle, reach), to, halvings - 1, all);
}

impl Face {
    /// A place up the face, in the section.
    pub fn place(&self, up: f64) -> Point {
        self.origin + self.up * up
    }

    /// The edge of an end over the face, from its foot up: places (along from the long point of the start, up), mm.
    fn edge(&self, member: &Member, which: OneEnd) -> Vec<Point> {
        let shift = if which.is_finish() { member.lines[0].length() } else { 0.0 } - member.reach(OneEnd::Start).0;
        let along = |up: f64| shift + member.cut_reach(which, self.place(up));
        let end = &member.ends[which.at()];
        let mut all: Vec<Point> = Vec::new();
        for pair in breaks(self, end).windows(2) {
            let span = pair[1] - pair[0];
            if end.copes.is_empty() {
                // A jump belongs to both sides: the stretch is straight and told by two places within it.
                let (a, b) = (along(pair[0] + span / 3.0), along(pair[1] - span / 3.0));
                all.push(Point::new(2.0 * a - b, pair[0]));
                all.push(Point::new(2.0 * b - a, pair[1]));
            } else {
                let ends = (pair[0] + span * INSIDE, pair[1] - span * INSIDE);
                let (a, b) = (along(ends.0), along(ends.1));
                all.push(Point::new(a, pair[0]));
                chords(&along, (ends.0, a), (ends.1, b), HALVINGS, &mut all);
                all.push(Point::new(b, pair[1]));
            }
        }
        // Places on a straight run say nothing.
        let mut told: Vec<Point> = Vec::new();
        for place in all {
            while let [.., before, last] = told.as_slice()
                && (*last - *before).cross(place - *before).abs() < SHORT * (1.0 + before.distance(place))
                && (*last - *before).dot(place - *last) >= 0.0
            {
                told.pop();
            }
            if told.last().is_none_or(|last| last.distance(place) > SHORT) {
                told.push(place);
            }
        }
        told
    }

    /// The face as it is cut, a closed run of places (along from the long point of the start, up), mm: from the foot of the
    /// start along the bottom, up the finish, back along the top and down the start. `None` where the ends cross on it, so that
    /// nothing of it is left.
    pub fn contour(&self, member: &Member) -> Option<Vec<Point>> {
        let [start, finish] = OneEnd::BOTH.map(|which| self.edge(member, which));
        let first = start.iter().map(|place| place.x).fold(f64::NEG_INFINITY, f64::max);
        let last = finish.iter().map(|place| place.x).fold(f64::INFINITY, f64::min);
        if last <= first {
            return None;
        }
        Some(start.first().into_iter().chain(&finish).chain(start.iter().skip(1).rev()).copied().collect())
    }

    /// Area of the face between its ends, mm2, by fine strips: what a measurer of the sawn piece would find.
    pub fn area(&self, member: &Member) -> f64 {
        const STRIPS: usize = 8000;
        let step = self.height / STRIPS as f64;
        let length = member.lines[0].length();
        (0..STRIPS)
            .map(|strip| {
                let at = self.place((strip as f64 + 0.5) * step);
                (length + member.cut_reach(OneEnd::Finish, at) - member.cut_reach(OneEnd::Start, at)).max(0.0) * step
            })
            .sum()
    }
}

impl Member {
    /// Where metal ends on the fibre at (u, v), with cutouts, in the end's frame, mm.
    pub fn cut_reach(&self, which: OneEnd, at: Point) -> f64 {
        let sawn = self.sawn_reach(which, at);
        let nearer = |one: f64, two: f64| if which.is_finish() { one.min(two) } else { one.max(two) };
        let reach = |cutout: &Cutout| match &cutout.depth {
            CutoutDepth::To(cut) => cut.reach(at),
            CutoutDepth::Behind(length) => sawn + if which.is_finish() { -length } else { *length },
        };
        self.ends[which.at()]
            .cutouts
            .iter()
            .filter(|cutout| cutout.holds(at))
            .fold(sawn, |known, cutout| nearer(known, reach(cutout)))
    }

    /// The faces that a hole opens in: one for each wall that it goes through.
    pub fn face_holes(&self, bore: &Bore) -> Vec<FaceHole> {
        let around = self.region.extents();
        let middle = around.centre();
        let side = bore.into.left();
        // A point of the hole's axis.
        let axis = middle + side * bore.off;
        let along = bore.along - self.reach(OneEnd::Start).0;
        let upright = bore.into.x.abs() > 0.5;
        let of = |level: f64| -> char {
            let at = axis + bore.into * (level - (axis.x * bore.into.x + axis.y * bore.into.y));
            match (upright, self.section.form) {
                (true, Form::Beam | Form::Channel | Form::Angle) => 'v',
                (false, Form::Angle) => 'u',
                (true, _) if at.x < middle.x => 'v',
                (true, _) => 'h',
                (false, _) if at.y > middle.y => 'o',
                (false, _) => 'u',
            }
        };
        let walls = self.walls(bore);
        let count = if bore.one_wall { 1 } else { walls.len() };
        walls
            .iter()
            .take(count)
            .map(|wall| {
                // A wall is drilled from the side that the hole comes from where it is solid right through.
                let solid = walls.len() == 1 && !matches!(self.section.form, Form::Beam | Form::Channel | Form::Angle);
                let letter = of(if solid { wall.0 } else { (wall.0 + wall.1) / 2.0 });
                let up = if upright { axis.y - around.low.y } else { axis.x - around.low.x };
                FaceHole { letter, along, up, diameter: bore.diameter }
            })
            .collect()
    }

    /// The angle from square that the saw is set to for an end, radians; none where the end is no single plane.
    pub fn saw_angle(&self, which: OneEnd) -> Option<f64> {
        let end = &self.ends[which.at()];
        match (end.planes.as_slice(), end.copes.as_slice()) {
            ([cut], []) => Some(cut.angle()),
            _ => None,
        }
    }

    /// A straight member with its section as drawn: a mirrored one turned round.
    pub fn as_drawn(&self) -> std::borrow::Cow<'_, Member> {
        if self.mirrored { std::borrow::Cow::Owned(self.turned_round()) } else { std::borrow::Cow::Borrowed(self) }
    }

    /// The same piece turned about its up, end for end: start for finish and left for right. A mirrored section turned so is
    /// the drawn one again.
    pub fn turned_round(&self) -> Member {
        let length = self.lines[0].length();
        let flip = |at: Point| Point::new(-at.x, at.y);
        let way = |v: Vector| Vector::new(-v.x, v.y);
        let space = |v: crate::space::Vector3| crate::space::Vector3::new(-v.x, v.y, -v.z);
        let outline = |one: &crate::plane::Outline| super::model::mirrored_outline(&one.moved(flip));
        let end = |end: &End| {
            let mut turned = end.clone();
            for cut in &mut turned.planes {
                cut.normal = space(cut.normal);
            }
            for cope in &mut turned.copes {
                (cope.point, cope.axis) = (space(cope.point), space(cope.axis));
            }
            for cutout in &mut turned.cutouts {
                cutout.sides.iter_mut().for_each(|side| side.0 = way(side.0));
                if let CutoutDepth::To(cut) = &mut cutout.depth {
                    cut.normal = space(cut.normal);
                }
            }
            turned
        };
        let basis = |one: &super::member::Basis| super::member::Basis { u: -one.u, w: -one.w, ..*one };
        let mut turned = Member { kept_bodies: None, ..self.clone() };
        turned.region.outer = outline(&self.region.outer);
        turned.region.holes = self.region.holes.iter().map(outline).collect();
        turned.lines = self.lines.iter().rev().map(super::skeleton::CentreLine::reversed).collect();
        (turned.start, turned.finish) = (basis(&self.finish), basis(&self.start));
        turned.ends = [end(&self.ends[1]), end(&self.ends[0])];
        turned.mirrored = !self.mirrored;
        for bore in &mut turned.bores {
            // Its side turns over with it: the offset keeps to the same metal.
            let side = way(bore.into.left() * bore.off);
            bore.into = way(bore.into);
            bore.off = side.dot(bore.into.left());
            bore.along = length - bore.along;
        }
        turned
    }
}
