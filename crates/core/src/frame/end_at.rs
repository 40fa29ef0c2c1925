//! An end of a member where it meets others, and how another member cuts it.

use crate::finding::Finding;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::space::{Point3, Vector3};
use crate::work::frame::OneEnd;

use super::cut_plane::{CutBy, CutPlane};
use super::end::{Cope, End};
use super::member::{Basis, Member};

/// Sine of how steeply a way must run at a face to end on it: flatter than 1 in 1000 it runs along it.
const GRAZED: f64 = 1e-3;

/// An end of a member at a node.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EndAt {
    /// The member.
    pub member: usize,
    /// Its finish, or its start.
    pub which: OneEnd,
}

/// Members that come together in one place.
#[derive(Clone, Debug, PartialEq)]
pub struct Meeting {
    /// The place, mm.
    pub place: Point3,
    /// Ends there, in the order of the work.
    pub ends: Vec<EndAt>,
    /// Members that run on through it.
    pub passing: Vec<usize>,
}

/// The way from a node into a member.
pub fn inward(member: &Member, which: OneEnd) -> Vector3 {
    if which.is_finish() { -member.finish.w } else { member.start.w }
}

/// The four faces of a section's box in space: outward normal and level, mm. At a place along a bent member the frame
/// there is needed; `basis` is it.
pub fn faces(member: &Member, basis: &Basis) -> [(Vector3, f64); 4] {
    let around = member.region.extents();
    [(basis.v, around.high.y), (-basis.v, -around.low.y), (-basis.u, -around.low.x), (basis.u, around.high.x)]
        .map(|(normal, out)| (normal, basis.origin.from_origin().dot(normal) + out))
}

/// The frame of a member at the place nearest to a point on its lines.
pub fn basis_at(member: &Member, place: Point3) -> Basis {
    let mut basis = member.start;
    for line in &member.lines {
        if let Some(distance) = line.distance_of(place) {
            return super::member::part_way(basis, line, distance.clamp(0.0, line.length()));
        }
        basis = super::member::along(basis, line);
    }
    // Off its lines: the nearer end's frame.
    if member.start.origin.distance(place) < member.finish.origin.distance(place) {
        member.start
    } else {
        member.finish
    }
}

/// The face of `other` through which a ray leaves it; the face on the far side where `far`. `None` where the ray runs
/// along it.
pub fn face_met(other: &Member, place: Point3, way: Vector3, far: bool) -> Option<(Vector3, f64)> {
    let basis = basis_at(other, place);
    let mut best: Option<(f64, (Vector3, f64))> = None;
    for (normal, level) in faces(other, &basis) {
        let rate = normal.dot(way) * if far { -1.0 } else { 1.0 };
        if rate < GRAZED {
            continue;
        }
        let distance = (level - place.from_origin().dot(normal)) / rate;
        if best.is_none_or(|(known, _)| distance < known - ROUNDING) {
            best = Some((distance, (normal, level)));
        }
    }
    best.map(|(_, face)| face)
}

/// A plane in space as a cut of an end: metal is kept where `normal . x <= level`.
///
/// # Errors
/// A plane that runs along the member.
pub fn cut_by(
    member: &Member,
    which: OneEnd,
    normal: Vector3,
    level: f64,
    by: CutBy,
    to: Option<usize>,
) -> Result<CutPlane, Finding> {
    let basis = member.basis(which);
    let local = basis.turn_in(normal);
    let along = if which.is_finish() { local.z } else { -local.z };
    if along < 0.05 {
        let angle = local.z.abs().min(1.0).acos().to_degrees();
        return Err(Finding::error(
            format!(
                "{} cannot be cut by the {by}: it would lie {angle:.1} deg from square, along the member",
                member.name
            ),
            "Let the other member be cut instead, or cut this end in its own way.",
        ));
    }
    Ok(CutPlane {
        normal: local,
        level: level - basis.origin.from_origin().dot(normal),
        by,
        to: to.into_iter().collect(),
    })
}

/// A round member as a cope of an end.
pub(super) fn cope_on(
    member: &Member,
    which: OneEnd,
    other: &Member,
    to: usize,
    place: Point3,
    gap: f64,
) -> Option<Cope> {
    let round = other.section.is_round().then(|| other.region.extents().width() / 2.0)?;
    let there = basis_at(other, place);
    let middle = other.region.extents().centre();
    let basis = member.basis(which);
    let axis = basis.turn_in(there.w);
    if axis.z.abs() > 0.999 {
        return None;
    }
    Some(Cope { point: basis.local(there.place(middle.x, middle.y, 0.0)), axis, radius: round + gap, to })
}

/// Cuts an end to a member: its near face, or a cope where it is round.
///
/// # Errors
/// As [`cut_by`]; a member that runs along the one that it would be cut to.
pub fn cut_to(members: &[Member], end: EndAt, to: usize, place: Point3, gap: f64, far: bool) -> Result<End, Finding> {
    let (member, other) = (&members[end.member], &members[to]);
    if !far && let Some(cope) = cope_on(member, end.which, other, to, place, gap) {
        if member.region.extents().width().min(member.region.extents().height())
            > 2.0 * cope.radius + MODELLING_TOLERANCE
        {
            return Err(Finding::error(
                format!("{} is wider than {}, on which it would be coped", member.name, other.name),
                "Let the thinner member be cut.",
            ));
        }
        return Ok(End { copes: vec![cope], ..End::default() });
    }
    let way = inward(member, end.which);
    let Some((normal, level)) = face_met(other, place, way, far) else {
        return Err(Finding::error(
            format!("{} runs along {}, so no face of it cuts {}", member.name, other.name, member.name),
            "Cut this end in its own way.",
        ));
    };
    let outward = if far { normal } else { -normal };
    let level = if far { level - gap } else { -(level + gap) };
    let cut = cut_by(member, end.which, outward, level, CutBy::Face(other.name.clone()), Some(to))?;
    Ok(End { planes: vec![cut], ..End::default() })
}
