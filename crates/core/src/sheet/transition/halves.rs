//! Halves of space that sheets keep to at their edges: seen from an edge, between two panels that are cut apart.

use crate::finding::Finding;
use crate::quantity::angle_text;
use crate::quantity::tolerance::PARALLEL;
use crate::space::{Point3, Vector3};
use crate::work::sheet::SeamLay;

use super::faces::{Face, FacePart, Surface};
use super::numbers::TransitionNumbers;

/// Of a sheet's two faces over the surface, toward the inside, mm.
pub(super) type Heights = (f64, f64);

/// Flatter than this a neighbour's face is not met edge to face, radians: 10 deg.
pub(super) const TOO_FLAT: f64 = 10.0 * std::f64::consts::PI / 180.0;

/// The frame of one edge of a face: along it, into the face, toward the inside.
pub(super) struct Frame {
    pub from: Point3,
    pub along: Vector3,
    pub inward: Vector3,
    pub up: Vector3,
}

impl Frame {
    pub fn new(surface: &Surface, face: &Face, k: usize) -> Frame {
        let count = face.corners.len();
        let (from, to) = (surface.points[face.corners[k]], surface.points[face.corners[(k + 1) % count]]);
        let along = (to - from).unit();
        let up = -face.outward;
        // Counter-clockwise seen from within: metal on the left.
        Frame { from, along, inward: up.cross(along), up }
    }

    /// How far the metal stands back from the edge so that all of it between two heights keeps to a half of space: the side of a
    /// plane through the edge, shifted by `by`, that `normal` points to. `None` where the sheet lies along the plane.
    pub fn stands_back(&self, normal: Vector3, by: f64, (low, high): (f64, f64)) -> Option<f64> {
        let (into, over) = (normal.dot(self.inward), normal.dot(self.up));
        if into < PARALLEL {
            return None;
        }
        Some((by - (over * low).min(over * high)) / into)
    }
}

/// From the edge into the neighbour, in its plane: it walks the edge the other way.
pub(super) fn into_neighbour(frame: &Frame, next: &Face) -> Vector3 {
    (-next.outward).cross(-frame.along)
}

/// Unit normal of the plane that halves the corner of two faces, toward the first.
pub(super) fn bisector(next: &Face, frame: &Frame) -> Vector3 {
    (frame.inward + -into_neighbour(frame, next)).unit()
}

/// The half of space that a sheet keeps to at an edge that it is cut apart from its neighbour at.
pub(super) fn apart_half(
    surface: &Surface,
    (at, next): (usize, usize),
    frame: &Frame,
    (own, other): (Heights, Heights),
    given: &TransitionNumbers,
) -> Result<(Vector3, f64), Finding> {
    let (face, beside) = (&surface.faces[at], &surface.faces[next]);
    // Sheets on two sides of the surface meet edge to face: the one that lies outside covers the other.
    let owner = given.edges.iter().find_map(|edge| {
        let names = [&face.name, &beside.name];
        let both = edge.between.iter().all(|name| names.contains(&name));
        edge.owner.filter(|_| both).map(|owner| edge.between[owner] == face.name)
    });
    let flanges = [face, beside].iter().all(|face| matches!(face.part, FacePart::Flange(_)));
    let covers = match (own == other, owner, given.seam.lay) {
        (false, ..) => Some(own.0 < other.0),
        (true, Some(owns), _) => Some(owns),
        // Flanges of one rim lie in one plane: neither can cover the other.
        (true, None, _) if flanges => None,
        (true, None, SeamLay::EdgeToEdge) => None,
        (true, None, SeamLay::FirstCovers) => Some(at < next),
        (true, None, SeamLay::SecondCovers) => Some(at > next),
    };
    let Some(covers) = covers else {
        return Ok((bisector(beside, frame), given.gap / 2.0));
    };
    let angle = face.outward.angle_to(beside.outward);
    if !(TOO_FLAT..=std::f64::consts::PI - TOO_FLAT).contains(&angle) {
        return Err(Finding::error(
            format!(
                "{} and {} turn by {}: neither can cover the edge of the other",
                face.name,
                beside.name,
                angle_text(angle)
            ),
            "Let them meet edge to edge.",
        )
        .at_field("seam.lay"));
    }
    // The neighbour's plane, inward: the covered sheet ends at the face of the cover that looks at it, the cover at the far face of the
    // other.
    let inward = -beside.outward;
    let by = if covers { other.0 } else { other.1 + given.gap };
    Ok((inward, by))
}
