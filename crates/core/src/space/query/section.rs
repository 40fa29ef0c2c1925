//! A body cut by a plane: the exact lines, rounds and ellipses where the plane goes through its faces, chained into loops. What
//! lies in the plane counts as beyond it, so a section along a face shows what is just this side of it.

use std::f64::consts::TAU;

use crate::patience;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, PARALLEL_COSINE};
use crate::space::body::{cubic, slope_roots};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3};

use super::Unsupported;

/// A body cut by a plane.
#[derive(Clone, Debug, PartialEq)]
pub struct Section {
    /// One flat face with the loops of the section, the metal on the left seen from where the normal points.
    pub sheet: Body,
    /// For each edge of it the face of the body that it lies on.
    pub faces: Vec<usize>,
}

impl Section {
    /// Area of the metal cut, mm2.
    pub fn area(&self) -> f64 {
        self.sheet.faces.first().map_or(0.0, |face| self.sheet.face_area(face))
    }
}

/// Nearer to the plane than this lies in it, mm.
const IN: f64 = 1e-9;
/// Directions nearer to square or parallel than this are.
const SQUARE: f64 = 1e-9;
/// A span that holds nothing.
const NOTHING: (f64, f64) = (f64::INFINITY, f64::NEG_INFINITY);
/// The widest cubic piece round a cone, radians: its error is far below a millionth of the radius.
const PIECE: f64 = 0.05;
/// Slopes round a cone are taken over so much, radians.
const NUDGE: f64 = 1e-5;

/// A place where an edge goes through the plane.
#[derive(Clone, Copy)]
struct Through {
    corner: usize,
    place: Point3,
    /// Whether the edge, from its start, rises through the plane.
    rises: bool,
}

struct Cutter<'a> {
    body: &'a Body,
    point: Point3,
    normal: Vector3,
    made: Section,
}

/// What a plane cuts of a body: `normal` is a unit vector.
///
/// # Errors
/// [`Unsupported`] with the faces whose curve in the plane is none that is told exactly: ruled strips, and tori cut aslant.
pub fn section(body: &Body, point: Point3, normal: Vector3) -> Result<Section, Unsupported> {
    let axis = if normal.x.abs() < 0.6 { Vector3::new(1.0, 0.0, 0.0) } else { Vector3::new(0.0, 1.0, 0.0) };
    let across = (axis - normal * axis.dot(normal)).unit();
    let sheet = Body {
        faces: vec![BodyFace {
            name: "section".into(),
            owner: "section".into(),
            surface: Surface::Plane { point, normal, across },
            loops: Vec::new(),
        }],
        ..Body::default()
    };
    let mut cutter = Cutter { body, point, normal, made: Section { sheet, faces: Vec::new() } };
    let through: Vec<Vec<Through>> = (0..body.edges.len()).map(|edge| cutter.through(edge)).collect();
    let mut unsupported = Vec::new();
    for (at, face) in body.faces.iter().enumerate() {
        patience::check();
        if cutter.face(at, face, &through).is_none() {
            unsupported.push(face.name.clone());
        }
    }
    if !unsupported.is_empty() {
        return Err(Unsupported { faces: unsupported });
    }
    cutter.chain();
    Ok(cutter.made)
}

impl Cutter<'_> {
    fn high(&self, place: Point3) -> f64 {
        (place - self.point).dot(self.normal)
    }

    /// The places where an edge goes through the plane, along it.
    fn through(&mut self, index: usize) -> Vec<Through> {
        let edge = &self.body.edges[index];
        let round = self.body.round(index);
        let pieces = match &edge.curve {
            Curve::Cubic(points) => (points.len() - 1) / 3,
            _ => 1,
        };
        let at = |share: f64| -> Point3 {
            match (&edge.curve, &round) {
                (Curve::Cubic(points), _) => {
                    let piece = ((share * pieces as f64) as usize).min(pieces - 1);
                    cubic(&points[3 * piece..3 * piece + 4], share * pieces as f64 - piece as f64).0
                }
                (_, Some(round)) => round.at(round.sweep * share),
                _ => {
                    let (from, to) = (self.body.corners[edge.from], self.body.corners[edge.to]);
                    from + (to - from) * share
                }
            }
        };
        // Between these the height over the plane only rises or only falls.
        let mut turns = vec![0.0];
        match (&edge.curve, &round) {
            (Curve::Cubic(points), _) => {
                for piece in 0..pieces {
                    let own = &points[3 * piece..3 * piece + 4];
                    turns.extend(slope_roots(own, self.normal).map(|t| (piece as f64 + t) / pieces as f64));
                    turns.push((piece + 1) as f64 / pieces as f64);
                }
            }
            (_, Some(round)) => {
                let tip = round.second.dot(self.normal).atan2(round.first.dot(self.normal)) - round.from;
                let tips = [tip, tip + TAU / 2.0].map(|turn| turn.rem_euclid(TAU) / round.sweep);
                turns.extend(tips.into_iter().filter(|share| (0.0..1.0).contains(share)));
                turns.push(1.0);
            }
            _ => turns.push(1.0),
        }
        turns.sort_by(f64::total_cmp);
        // A corner has one height, whichever edge asks.
        let side = |share: f64| {
            let place = if share == 0.0 {
                self.body.corners[edge.from]
            } else if share == 1.0 {
                self.body.corners[edge.to]
            } else {
                at(share)
            };
            self.high(place) > -IN
        };
        let mut found = Vec::new();
        for pair in turns.windows(2) {
            let (before, after) = (side(pair[0]), side(pair[1]));
            if before == after {
                continue;
            }
            let (mut low, mut high) = (pair[0], pair[1]);
            for _ in 0..80 {
                let middle = 0.5 * (low + high);
                if side(middle) == before { low = middle } else { high = middle }
            }
            found.push((at(0.5 * (low + high)), after));
        }
        found
            .into_iter()
            .map(|(place, rises)| {
                self.made.sheet.corners.push(place);
                Through { corner: self.made.sheet.corners.len() - 1, place, rises }
            })
            .collect()
    }

    /// The curves of the plane on one face; `None` where they are of no kind that is told exactly.
    fn face(&mut self, index: usize, face: &BodyFace, through: &[Vec<Through>]) -> Option<()> {
        // With the metal on the left a curve begins where the rim comes down through the plane, and ends where it rises.
        let (mut starts, mut ends) = (Vec::new(), Vec::new());
        for &(edge, ahead) in face.loops.iter().flatten() {
            for one in &through[edge] {
                if one.rises == ahead { ends.push(*one) } else { starts.push(*one) }
            }
        }
        if starts.is_empty() {
            // A slice off the bulge of a torus meets no edge: its tip lies beyond the plane and its rim does not.
            let Some(&(edge, _)) = face.loops.iter().flatten().next() else { return Some(()) };
            let side = |place: Point3| self.high(place) > -IN;
            let rim = side(self.body.corners[self.body.edges[edge].from]);
            let sliced = self.body.torus_tips(face, self.normal, NOTHING).into_iter().any(|tip| side(tip) != rim);
            return (!sliced).then_some(());
        }
        let kind = Kind::of(&face.surface, self.point, self.normal)?;
        // What turns and lengths round a tube are reckoned from.
        let middle = (
            self.body.turns(face).map_or(0.0, |(low, high)| 0.5 * (low + high)),
            self.body.foot(face).unwrap_or_default(),
        );
        let key = |one: &Through| kind.key(&face.surface, self.normal, one.place, middle);
        let mut all: Vec<((bool, f64), Through, bool)> = starts
            .iter()
            .map(|one| (key(one), *one, true))
            .chain(ends.iter().map(|one| (key(one), *one, false)))
            .collect();
        all.sort_by(|a, b| a.0.0.cmp(&b.0.0).then(a.0.1.total_cmp(&b.0.1)).then(b.2.cmp(&a.2)));
        for pair in all.chunks(2) {
            let [(_, start, true), (_, end, false)] = pair else { return None };
            let curve = kind.curve(&face.surface, self.point, self.normal, start.place, end.place, middle.0);
            self.made.sheet.edges.push(BodyEdge { from: start.corner, to: end.corner, curve });
            self.made.faces.push(index);
        }
        Some(())
    }

    /// Chains the edges into loops by the corners that they share.
    fn chain(&mut self) {
        let sheet = &mut self.made.sheet;
        let mut next = std::collections::HashMap::new();
        for (at, edge) in sheet.edges.iter().enumerate() {
            next.insert(edge.from, at);
        }
        let mut walked = vec![false; sheet.edges.len()];
        for start in 0..sheet.edges.len() {
            let mut walk = Vec::new();
            let mut at = start;
            while !walked[at] {
                walked[at] = true;
                walk.push((at, true));
                match next.get(&sheet.edges[at].to) {
                    Some(&following) => at = following,
                    None => break,
                }
            }
            if !walk.is_empty() {
                sheet.faces[0].loops.push(walk);
            }
        }
    }
}

/// What the plane makes of a surface.
enum Kind {
    /// Straight lines; their direction.
    Line(Vector3),
    /// Once round the axis: a round or an ellipse, or on a cone a curve told in cubic pieces. 1 where it runs counter-clockwise
    /// about the surface's axis, else -1.
    Round(f64),
    /// Round the tube of a torus, in a plane through its axis.
    Tube,
}

impl Kind {
    fn of(surface: &Surface, point: Point3, normal: Vector3) -> Option<Kind> {
        let facing = if surface.looks_out() { 1.0 } else { -1.0 };
        match surface {
            Surface::Plane { normal: own, .. } => Some(Kind::Line(normal.cross(*own).unit())),
            Surface::Cylinder { axis, .. } => {
                let lean = axis.dot(normal);
                Some(if lean.abs() < SQUARE { Kind::Line(*axis) } else { Kind::Round(lean.signum() * facing) })
            }
            Surface::Cone { point: own, axis, slope, .. } => {
                let lean = axis.dot(normal);
                let through = (*own - point).dot(normal).abs() < MODELLING_TOLERANCE;
                // Steeper than its side the plane meets each side once: a closed curve.
                if lean.abs() > (1.0 - lean * lean).max(0.0).sqrt() * slope.abs() {
                    Some(Kind::Round(lean.signum() * facing))
                } else if lean.abs() < SQUARE && through {
                    Some(Kind::Line(*axis))
                } else {
                    None
                }
            }
            Surface::Torus { point: own, axis, .. } => {
                let lean = axis.dot(normal);
                if lean.abs() > 1.0 - SQUARE {
                    Some(Kind::Round(lean.signum()))
                } else if lean.abs() < SQUARE && (*own - point).dot(normal).abs() < MODELLING_TOLERANCE {
                    Some(Kind::Tube)
                } else {
                    None
                }
            }
            Surface::Ruled { .. } => None,
        }
    }

    /// Which curve of the surface a place is on, and how far along in the way that the section runs.
    fn key(&self, surface: &Surface, cut: Vector3, place: Point3, middle: (f64, f64)) -> (bool, f64) {
        let turn = surface.turn(place);
        let turn = turn - TAU * ((turn - middle.0) / TAU).round();
        let own = surface.normal_at(place).unwrap_or_default();
        match (self, surface) {
            (Kind::Line(way), Surface::Plane { .. }) => (false, place.from_origin().dot(*way)),
            (Kind::Line(way), _) => {
                // Two lines, one on each side of the axis, run opposite ways.
                let ahead = cut.cross(own).dot(*way).signum();
                (beside_axis(surface, cut, place), ahead * place.from_origin().dot(*way))
            }
            (Kind::Round(sign), Surface::Torus { .. }) => {
                // The outer round and the inner one: their outsides look opposite ways.
                let outer = torus_out(surface, place).dot(own) > 0.0;
                (outer, if outer { *sign } else { -*sign } * turn)
            }
            (Kind::Round(sign), _) => (false, sign * turn),
            (Kind::Tube, _) => {
                // Round the tube by growing v, or back.
                let v = middle.1 + surface.across_from(place, middle.1);
                let by = torus_out(surface, place) * -v.sin() + surface.axis() * v.cos();
                (beside_axis(surface, cut, place), cut.cross(own).dot(by).signum() * v)
            }
        }
    }

    fn curve(&self, surface: &Surface, at: Point3, cut: Vector3, from: Point3, to: Point3, middle: f64) -> Curve {
        match (self, surface) {
            (Kind::Line(_), _) => Curve::Line,
            (Kind::Round(sign), Surface::Cylinder { point, axis, radius, .. }) => {
                let lean = axis.dot(cut);
                let centre = *point + *axis * ((at - *point).dot(cut) / lean);
                let about = cut * (sign * lean.signum());
                if lean.abs() > 1.0 - PARALLEL_COSINE {
                    return Curve::Circle { centre, axis: about, radius: *radius };
                }
                let major = (*axis - cut * lean).unit();
                Curve::Ellipse { centre, axis: about, major, long: radius / lean.abs(), short: *radius }
            }
            (Kind::Round(sign), Surface::Torus { point, axis, .. }) => {
                let centre = *point + *axis * (from - *point).dot(*axis);
                let outer = torus_out(surface, from).dot(surface.normal_at(from).unwrap_or_default()) > 0.0;
                let way = if outer { *sign } else { -*sign };
                Curve::Circle { centre, axis: *axis * way, radius: (from - centre).length() }
            }
            (Kind::Round(sign), Surface::Cone { point, axis, radius, slope, .. }) => {
                let lean = axis.dot(cut);
                if lean.abs() > 1.0 - PARALLEL_COSINE {
                    let centre = *point + *axis * (from - *point).dot(*axis);
                    return Curve::Circle { centre, axis: *axis * *sign, radius: (from - centre).length() };
                }
                let turned = |place: Point3| {
                    let turn = surface.turn(place);
                    turn - TAU * ((turn - middle) / TAU).round()
                };
                let (low, high) = (turned(from), turned(to));
                let pieces = ((high - low).abs() / PIECE).ceil().max(1.0);
                let step = (high - low) / pieces;
                let level = (at - *point).dot(cut);
                // Where the side at a turn meets the plane.
                let place = |turn: f64| {
                    let out = surface.radial(turn);
                    let v = (level - radius * out.dot(cut)) / (lean + slope * out.dot(cut));
                    *point + out * (radius + slope * v) + *axis * v
                };
                let mut points = vec![from];
                let slope_at = |turn: f64| (place(turn + NUDGE) - place(turn - NUDGE)) * (0.5 / NUDGE);
                for piece in 0..pieces as usize {
                    let (a, b) = (low + step * piece as f64, low + step * (piece + 1) as f64);
                    points.push(place(a) + slope_at(a) * (step / 3.0));
                    points.push(place(b) + slope_at(b) * (-step / 3.0));
                    points.push(place(b));
                }
                Curve::Cubic(points)
            }
            (Kind::Tube, Surface::Torus { point, major, minor, .. }) => {
                let out = torus_out(surface, from);
                let centre = *point + out * *major;
                // Seen with the metal on the left: about the cut where the tube is metal, against it where it is bore.
                let way = if surface.looks_out() { 1.0 } else { -1.0 };
                Curve::Circle { centre, axis: cut * way, radius: *minor }
            }
            _ => Curve::Line,
        }
    }
}

/// Square from a torus's axis to a place.
fn torus_out(surface: &Surface, place: Point3) -> Vector3 {
    let Surface::Torus { point, axis, .. } = surface else { return Vector3::default() };
    let arm = place - *point;
    (arm - *axis * arm.dot(*axis)).unit()
}

/// On which side of a round's axis a place lies, in a plane along the axis.
fn beside_axis(surface: &Surface, cut: Vector3, place: Point3) -> bool {
    let (Surface::Cylinder { point, axis, .. }
    | Surface::Cone { point, axis, .. }
    | Surface::Torus { point, axis, .. }) = surface
    else {
        return false;
    };
    (place - *point).dot(axis.cross(cut)) > 0.0
}
