//! Where the numbers of a plate tell it to lie, reckoned from the faces of the members alone: not from the frame that the
//! plate is laid in, so that the audit can hold the one against the other.

use crate::plane::Outline;
use crate::quantity::tolerance::PARALLEL;
use crate::space::{Point3, Vector3};
use crate::work::frame::MemberFace;

use super::end_at::{EndAt, basis_at, faces};
use super::laid_plate::{Extreme, Told};
use super::member::{Basis, Member};
use super::model::Frame;

/// How far a chord may lie off the arc that it stands for, mm.
const CHORD: f64 = 1e-4;

fn level(place: Point3, along: Vector3) -> f64 {
    place.from_origin().dot(along)
}

/// The level of the face of a member whose normal is nearest to a direction, and that normal.
fn face_toward(member: &Member, basis: &Basis, way: Vector3) -> (Vector3, f64) {
    faces(member, basis)
        .into_iter()
        .max_by(|one, two| one.0.dot(way).total_cmp(&two.0.dot(way)))
        .unwrap_or((way, level(basis.origin, way)))
}

/// The plane of an end's cut and the plate's own directions on it; `None` where the end is no single plane.
fn cut_of(frame: &Frame, end: EndAt) -> Option<(Vector3, f64, [Vector3; 2])> {
    let member = &frame.members[end.member];
    let basis = member.basis(end.which);
    let own = &member.ends[end.which.at()];
    let [cut] = own.planes.as_slice() else { return None };
    if !own.copes.is_empty() {
        return None;
    }
    let out = basis.turn_out(cut.normal);
    // Up as near to the section's as it can be on the cut, across square to that.
    let up = (basis.v - out * basis.v.dot(out)).unit();
    Some((out, level(basis.origin, out) + cut.level, [up.cross(out), up]))
}

/// A plate across an end: it begins on the cut, its middle on the middle of the section's box.
pub(super) fn across(frame: &Frame, end: EndAt) -> Vec<Told> {
    let Some((out, plane, ways)) = cut_of(frame, end) else { return Vec::new() };
    let member = &frame.members[end.member];
    let basis = member.basis(end.which);
    let name = &member.name;
    let mut told = vec![Told::new(format!("its face on the end of {name}"), out, Extreme::Least, plane)];
    // Along the fibre through the middle of the box to the plane.
    let middle = member.region.extents().centre();
    let fibre = basis.place(middle.x, middle.y, 0.0);
    let on = fibre + basis.w * ((plane - level(fibre, out)) / basis.w.dot(out));
    for (word, way) in ["across", "up"].into_iter().zip(ways) {
        told.push(Told::new(format!("its middle {word} on the end of {name}"), way, Extreme::Middle, level(on, way)));
    }
    told
}

/// A cap over an end: it covers the section's outline as the cut has it, beginning `sunk` beyond the cut (inside the member where
/// below zero).
pub(super) fn over_end(frame: &Frame, end: EndAt, outline: &Outline, sunk: f64) -> Vec<Told> {
    let Some((out, plane, ways)) = cut_of(frame, end) else { return Vec::new() };
    let member = &frame.members[end.member];
    let basis = member.basis(end.which);
    let name = &member.name;
    let mut told = vec![Told::new(format!("its face on the end of {name}"), out, Extreme::Least, plane + sunk)];
    let rim: Vec<Point3> = outline
        .flatten(CHORD)
        .into_iter()
        .map(|at| {
            let fibre = basis.place(at.x, at.y, 0.0);
            fibre + basis.w * ((plane - level(fibre, out)) / basis.w.dot(out))
        })
        .collect();
    for (word, way) in ["right", "top", "left", "bottom"].into_iter().zip([ways[0], ways[1], -ways[0], -ways[1]]) {
        let least = rim.iter().map(|&place| level(place, way)).fold(f64::INFINITY, f64::min);
        told.push(Told::new(format!("its {word} edge on the end of {name}"), way, Extreme::Least, least));
    }
    told
}

/// A plate on a face: it begins on the face, its middle at a distance along and off the middle of the face, up or to the right.
pub(super) fn on_face(member: &Member, face: MemberFace, distance: f64, off: f64) -> Vec<Told> {
    if !member.is_straight() {
        return Vec::new();
    }
    let basis = &member.start;
    // Right on the drawn section is left on a mirror image.
    let right = if member.mirrored { -basis.u } else { basis.u };
    let (out, side) = match face {
        MemberFace::Top => (basis.v, right),
        MemberFace::Bottom => (-basis.v, right),
        MemberFace::Left => (-right, basis.v),
        MemberFace::Right => (right, basis.v),
    };
    let (normal, at) = face_toward(member, basis, out);
    let (_, one) = face_toward(member, basis, side);
    let (_, other) = face_toward(member, basis, -side);
    let name = &member.name;
    vec![
        Told::new(format!("its face on {name}"), normal, Extreme::Least, at),
        Told::new(
            format!("its middle along {name}"),
            basis.w,
            Extreme::Middle,
            level(basis.origin, basis.w) + distance,
        ),
        Told::new(format!("its middle not on that of {name}"), side, Extreme::Middle, (one - other) / 2.0 + off),
    ]
}

/// A gusset in the corner of two members: an edge on the near face of each, its middle plane off the first one's middle.
pub(super) fn gusset(
    frame: &Frame,
    (one, inner_one): (usize, Vector3),
    (two, inner_two): (usize, Vector3),
    (square, off): (Vector3, f64),
    place: Point3,
) -> Vec<Told> {
    let mut told = Vec::new();
    for (member, inner) in [(one, inner_one), (two, inner_two)] {
        let member = &frame.members[member];
        let basis = basis_at(member, place);
        let (normal, at) = face_toward(member, &basis, inner);
        // A section that is rolled shows a corner and no face to the gusset's edge.
        if normal.dot(inner) > 1.0 - PARALLEL {
            told.push(Told::new(format!("its edge on {}", member.name), normal, Extreme::Least, at));
        }
    }
    let member = &frame.members[one];
    let basis = basis_at(member, place);
    let (normal, high) = face_toward(member, &basis, square);
    let (_, low) = face_toward(member, &basis, -square);
    if normal.dot(square) > 1.0 - PARALLEL {
        let middle = (high - low) / 2.0 + off;
        told.push(Told::new(format!("its middle plane in {}", member.name), square, Extreme::Middle, middle));
    }
    told
}

/// A panel between members: from the near face of each (or out to the far one, on top) by the clearance, in their middle or
/// on top of them.
pub(super) fn panel(
    frame: &Frame,
    members: &[usize],
    normal: Vector3,
    middle: Point3,
    (on_top, clearance): (bool, f64),
) -> Vec<Told> {
    let mut told = Vec::new();
    let (mut top, mut low) = (f64::NEG_INFINITY, f64::INFINITY);
    for &index in members {
        let member = &frame.members[index];
        let basis = &member.start;
        let mut inward = normal.cross(basis.w).unit();
        if (middle - basis.origin).dot(inward) < 0.0 {
            inward = -inward;
        }
        let (up, above) = face_toward(member, basis, normal);
        let (_, below) = face_toward(member, basis, -normal);
        let (near_way, near) = face_toward(member, basis, inward);
        let (_, far) = face_toward(member, basis, -inward);
        if up.dot(normal) < 1.0 - PARALLEL || near_way.dot(inward) < 1.0 - PARALLEL {
            // A rolled section: its box has no face toward the panel.
            return Vec::new();
        }
        top = top.max(above);
        low = low.min(-below);
        let edge = if on_top { -far + clearance } else { near + clearance };
        told.push(Told::new(format!("its edge along {}", member.name), inward, Extreme::Least, edge));
    }
    if on_top {
        told.push(Told::new("its face on the members", normal, Extreme::Least, top));
    } else {
        told.push(Told::new("its middle between the members' faces", normal, Extreme::Middle, (top + low) / 2.0));
    }
    told
}
