//! Where straight members lie on each other without an end of one being cut to the other: a drawbar under a cross member, two
//! runners side by side. There the shop welds round what touches.

use std::collections::HashSet;

use crate::plane::{Outline, Point, Vector, common_outlines};
use crate::space::{Box3, Point3, Vector3};

use super::member::{Member, heights};

/// Two members that lie on each other.
#[derive(Clone, Debug, PartialEq)]
pub struct Contact {
    /// The members, by index.
    pub members: [usize; 2],
    /// The middle of what touches, about.
    pub place: Point3,
    /// Area that touches, mm2.
    pub area: f64,
    /// Round it, mm.
    pub around: f64,
}

/// Faces nearer than this touch, mm: less than any gap left on purpose.
const TOUCH: f64 = 0.15;
/// How deep a face is looked at for metal, mm: what is nearer to it counts as of the face.
const DEPTH: f64 = 0.01;
/// Less area than this is a corner that touches, mm2.
const LEAST: f64 = 25.0;

/// A flat strip of a member's side.
struct Side {
    normal: Vector3,
    level: f64,
    corners: [Point3; 4],
}

/// The flat strips of the four sides of a section's box, as far as there is metal on them.
fn sides(member: &Member) -> Vec<Side> {
    let around = member.region.extents();
    let basis = &member.start;
    let length = member.lines[0].length();
    let faces = [
        (Vector::new(1.0, 0.0), around.high.x),
        (Vector::new(-1.0, 0.0), -around.low.x),
        (Vector::new(0.0, 1.0), around.high.y),
        (Vector::new(0.0, -1.0), -around.low.y),
    ];
    let mut all = Vec::new();
    for (out, level) in faces {
        let along = out.left();
        let normal = basis.turn_out(Vector3::new(out.x, out.y, 0.0));
        let corner = |across: f64, finish: bool| {
            let at = Point::default() + out * level + along * across;
            // A hair inside, where the end's cut is told.
            let inner = Point::default() + out * (level - DEPTH) + along * across;
            let t = member.cut_reach(finish, inner) + if finish { length } else { 0.0 };
            basis.place(at.x, at.y, t)
        };
        for (from, to) in metal_across(member, out, level - DEPTH) {
            let corners = [corner(from, false), corner(to, false), corner(to, true), corner(from, true)];
            all.push(Side { normal, level: corners[0].from_origin().dot(normal), corners });
        }
    }
    all
}

/// Stretches of metal on a line square to `out` at a level, along `out.left()`, mm.
fn metal_across(member: &Member, out: Vector, level: f64) -> Vec<(f64, f64)> {
    let turn = |at: Point| Point::new(at.x * out.x + at.y * out.y, at.x * out.left().x + at.y * out.left().y);
    let mut all: Vec<f64> = member.region.outlines().flat_map(|one| heights(&one.moved(turn), level)).collect();
    all.sort_by(f64::total_cmp);
    all.chunks_exact(2).map(|two| (two[0], two[1])).collect()
}

/// What two strips share: its area, the length round it, its middle.
fn shared(one: &Side, two: &Side) -> Option<(f64, f64, Point3)> {
    if one.normal.dot(two.normal) > -0.99999 || (one.level + two.level).abs() > TOUCH {
        return None;
    }
    let origin = one.corners[0];
    let across = (one.corners[1] - origin).unit();
    let along = one.normal.cross(across);
    let flat = |side: &Side| {
        let points = side.corners.map(|place| {
            let arm = place - origin;
            (Point::new(arm.dot(across), arm.dot(along)), 0)
        });
        Outline::polygon(&points).counter_clockwise()
    };
    let common = common_outlines(&flat(one), &flat(two));
    let area: f64 = common.iter().map(Outline::area).sum();
    if area < LEAST {
        return None;
    }
    let middle = common[0].extents().centre();
    let round = common.iter().map(Outline::perimeter).sum();
    Some((area, round, origin + across * middle.x + along * middle.y))
}

/// Every pair of straight members that lie on each other and of which neither is cut to the other.
pub fn contacts(members: &[Member]) -> Vec<Contact> {
    let mut joined: HashSet<[usize; 2]> = HashSet::new();
    let pair = |one: usize, two: usize| if one < two { [one, two] } else { [two, one] };
    for (index, member) in members.iter().enumerate() {
        for end in &member.ends {
            let planes = end.planes.iter().flat_map(|cut| cut.to.iter().copied());
            joined.extend(planes.chain(end.copes.iter().map(|cope| cope.to)).map(|to| pair(index, to)));
        }
    }
    let mut boxes: Vec<(Box3, usize)> = members
        .iter()
        .enumerate()
        .filter(|(_, member)| member.is_straight())
        .map(|(index, member)| {
            let around = member.region.extents();
            let mut box3 = Box3::EMPTY;
            let (from, to) = (member.reach(false).0, member.lines[0].length() + member.reach(true).0);
            for u in [around.low.x, around.high.x] {
                for v in [around.low.y, around.high.y] {
                    [from, to].into_iter().for_each(|t| box3.hold(member.start.place(u, v, t)));
                }
            }
            (box3, index)
        })
        .collect();
    boxes.sort_by(|one, two| one.0.low.x.total_cmp(&two.0.low.x));
    let mut known: Vec<Option<Vec<Side>>> = members.iter().map(|_| None).collect();
    let mut all = Vec::new();
    for (at, (around, one)) in boxes.iter().enumerate() {
        for (other, two) in boxes[at + 1..].iter().take_while(|(other, _)| other.low.x <= around.high.x + TOUCH) {
            // Boxes that touch overlap by less than nothing.
            if !around.overlaps(other, -TOUCH) || joined.contains(&pair(*one, *two)) {
                continue;
            }
            for index in [*one, *two] {
                known[index].get_or_insert_with(|| sides(&members[index]));
            }
            let (Some(mine), Some(theirs)) = (&known[*one], &known[*two]) else { continue };
            let found: Vec<(f64, f64, Point3)> =
                mine.iter().flat_map(|side| theirs.iter().filter_map(|face| shared(side, face))).collect();
            let area: f64 = found.iter().map(|(area, ..)| area).sum();
            if let Some((_, _, place)) = found.first() {
                let around = found.iter().map(|(_, around, _)| around).sum();
                all.push(Contact { members: pair(*one, *two), place: *place, area, around });
            }
        }
    }
    all.sort_by_key(|contact| contact.members);
    all
}
