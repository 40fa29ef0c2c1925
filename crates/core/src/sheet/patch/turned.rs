//! The faces of what is turned about a hole's axis: heads, drilled walls, seats and floors, each in two halves as round holes are.

use crate::quantity::tolerance::ROUNDING;
use crate::sheet::flat::{Flat, Hole};
use crate::sheet::hole::{HolePart, Stretch};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3, Walked};

use super::model::Patch;

const UP: Vector3 = Vector3::new(0.0, 0.0, 1.0);
const ACROSS: Vector3 = Vector3::new(1.0, 0.0, 0.0);

/// What the face of a part of a hole is called.
fn face_name(hole: &str, part: HolePart) -> String {
    match part {
        HolePart::Drill => hole.to_string(),
        HolePart::Countersink => format!("{hole}.countersink"),
        HolePart::Counterbore => format!("{hole}.counterbore"),
        HolePart::Point => format!("{hole}.point"),
    }
}

/// What the flat face at the end of a part of a hole is called.
fn floor_name(hole: &str, part: HolePart) -> String {
    match part {
        HolePart::Countersink | HolePart::Counterbore => format!("{hole}.seat"),
        HolePart::Drill | HolePart::Point => format!("{hole}.floor"),
    }
}

/// A face of a hole besides its drilled wall.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum HoleFace {
    /// Round about the hole's axis.
    Round,
    /// A seat or a floor at a depth under the face that the hole is worked from, with its radius, mm.
    Flat {
        /// How deep it lies.
        depth: f64,
        /// Its radius.
        radius: f64,
    },
}

/// The face of a hole that is called so: `countersink`, `counterbore`, `seat`, `floor`, `point`; with the hole's place in the flat's list.
pub fn hole_face(flat: &Flat, name: &str) -> Option<(usize, HoleFace)> {
    let (stem, _) = name.rsplit_once('.')?;
    let at = flat.holes.iter().position(|hole| hole.name == stem)?;
    let hole = &flat.holes[at];
    let profile = &hole.work.profile;
    if profile.iter().any(|own| face_name(stem, own.part) == name) {
        return Some((at, HoleFace::Round));
    }
    let next = profile.iter().skip(1).map(Some).chain([None]);
    let ends = profile.iter().zip(next).filter(|(own, next)| match next {
        Some(next) => own.far - next.near > ROUNDING,
        // What reaches the other face has no floor.
        None => own.far > ROUNDING && flat.thickness - own.to > ROUNDING,
    });
    let flat_end = ends.map(|(own, _)| own).find(|own| floor_name(stem, own.part) == name)?;
    Some((at, HoleFace::Flat { depth: flat_end.to, radius: flat_end.far }))
}

/// A round of the profile at one height: a circle in two halves, each from the side of +x or to it, or the tip of a cone.
#[derive(Clone, Copy)]
struct Round {
    radius: f64,
    height: f64,
    /// Its corners at +x and at -x; the tip twice.
    corners: [usize; 2],
    /// Its halves, counter-clockwise seen from above.
    halves: Option<[usize; 2]>,
}

struct Turning<'a> {
    hole: &'a Hole,
    owner: String,
    body: Body,
}

/// The patch of a hole that is whole in its panel.
///
/// # Errors
/// A hole that ends just in the other face, in words.
pub(super) fn patch(flat: &Flat, hole: &Hole) -> Result<Patch, String> {
    let thickness = flat.thickness;
    let mut turning = Turning { hole, owner: flat.nodes[hole.panel].name.clone(), body: Body::default() };
    let mut openings: [Vec<Vec<Walked>>; 2] = [Vec::new(), Vec::new()];
    let opens = |openings: &mut [Vec<Vec<Walked>>; 2], round: &Round, top: bool| {
        let Some([first, second]) = round.halves else { return };
        // Clockwise seen from outside the metal.
        openings[usize::from(top)].push(match top {
            true => vec![(second, false), (first, false)],
            false => vec![(first, true), (second, true)],
        });
    };
    let top = hole.height(0.0, thickness) > thickness / 2.0;
    let mut last: Option<(Round, HolePart)> = None;
    for stretch in &hole.work.profile {
        let from = hole.height(stretch.from, thickness);
        let near = match last {
            Some((round, _)) if (round.radius - stretch.near).abs() < ROUNDING => round,
            Some((round, part)) => {
                let next = turning.round(stretch.near, from);
                turning.flat_face(&round, Some(&next), part, top);
                next
            }
            None => {
                let first = turning.round(stretch.near, from);
                opens(&mut openings, &first, top);
                first
            }
        };
        let far = turning.round(stretch.far, hole.height(stretch.to, thickness));
        turning.wall(&near, &far, stretch);
        last = Some((far, stretch.part));
    }
    let Some((end, part)) = last else { return Err(format!("{} takes nothing", hole.name)) };
    let other = if top { 0.0 } else { thickness };
    match ((end.height - other).abs() < ROUNDING, end.halves.is_some()) {
        (true, true) => opens(&mut openings, &end, !top),
        (true, false) => return Err(format!("{} ends just in the other face", hole.name)),
        (false, true) => turning.flat_face(&end, None, part, top),
        (false, false) => {}
    }
    let replaces = hole.work.through.then_some(hole.tag);
    Ok(Patch { of: hole.name.clone(), node: hole.panel, replaces, body: turning.body, openings })
}

impl Turning<'_> {
    fn place(&self, out: f64, height: f64) -> Point3 {
        Point3::new(self.hole.centre.x + out, self.hole.centre.y, height)
    }

    fn round(&mut self, radius: f64, height: f64) -> Round {
        let body = &mut self.body;
        let at = body.corners.len();
        let centre = Point3::new(self.hole.centre.x, self.hole.centre.y, height);
        if radius < ROUNDING {
            body.corners.push(centre);
            return Round { radius: 0.0, height, corners: [at; 2], halves: None };
        }
        let (right, left) = (centre + ACROSS * radius, centre + ACROSS * -radius);
        body.corners.extend([right, left]);
        let edge = body.edges.len();
        let curve = Curve::Circle { centre, axis: UP, radius };
        body.edges.push(BodyEdge { from: at, to: at + 1, curve: curve.clone() });
        body.edges.push(BodyEdge { from: at + 1, to: at, curve });
        Round { radius, height, corners: [at, at + 1], halves: Some([edge, edge + 1]) }
    }

    /// The wall between two rounds, seen from the axis.
    fn wall(&mut self, near: &Round, far: &Round, stretch: &Stretch) {
        let (low, high) = if near.height < far.height { (near, far) } else { (far, near) };
        let wide = if near.radius >= far.radius { near } else { far };
        let point = Point3::new(self.hole.centre.x, self.hole.centre.y, wide.height);
        let (axis, across, radius, outward) = (UP, ACROSS, wide.radius, false);
        let surface = if (near.radius - far.radius).abs() < ROUNDING {
            Surface::Cylinder { point, axis, across, radius, outward }
        } else {
            let slope = (high.radius - low.radius) / (high.height - low.height);
            Surface::Cone { point, axis, across, radius, slope, outward }
        };
        // Up at +x and at -x.
        let rises = [0, 1].map(|side| {
            self.body.edges.push(BodyEdge { from: low.corners[side], to: high.corners[side], curve: Curve::Line });
            self.body.edges.len() - 1
        });
        let name = face_name(&self.hole.name, stretch.part);
        for half in 0..2 {
            let mut walk: Vec<Walked> = Vec::new();
            walk.extend(low.halves.map(|halves| (halves[half], false)));
            walk.push((rises[half], true));
            walk.extend(high.halves.map(|halves| (halves[half], true)));
            walk.push((rises[1 - half], false));
            let (name, owner, surface) = (name.clone(), self.owner.clone(), surface.clone());
            self.body.faces.push(BodyFace { name, owner, surface, loops: vec![walk] });
        }
    }

    /// The flat face at the end of a stretch: a ring about the next one, or a whole floor. It looks at the worked face.
    fn flat_face(&mut self, outer: &Round, inner: Option<&Round>, part: HolePart, top: bool) {
        let walk = |round: &Round, ahead: bool| -> Vec<Walked> {
            let Some([first, second]) = round.halves else { return Vec::new() };
            if ahead { vec![(first, true), (second, true)] } else { vec![(second, false), (first, false)] }
        };
        let loops = std::iter::once(walk(outer, top)).chain(inner.map(|round| walk(round, !top))).collect();
        let normal = if top { UP } else { -UP };
        let surface = Surface::Plane { point: self.place(outer.radius, outer.height), normal, across: ACROSS };
        let name = floor_name(&self.hole.name, part);
        self.body.faces.push(BodyFace { name, owner: self.owner.clone(), surface, loops });
    }
}
