//! Parts of a section in which an end is cut in a way of its own: notches, slots for plates, copes along another section.
//! The bodies that such a member is made of are plain ones, side by side.

use std::sync::Arc as Shared;

use crate::plane::{Outline, Point, Region, Vector, subtract};

use super::member::{Bore, CutPlane, Member};

/// What a cutout is called in the shop.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CutoutKind {
    /// Everything from one face to a depth.
    Notch,
    /// A strip of a width, for a plate.
    Slot,
    /// One strip of an end that is fitted into another section's outline.
    Cope,
}

/// How far a cutout goes along the member.
#[derive(Clone, Debug, PartialEq)]
pub enum CutoutDepth {
    /// So far behind the end as it is cut, mm.
    Behind(f64),
    /// To a plane of its own, in the end's frame.
    To(CutPlane),
}

/// A part of the section in which an end is cut further back than the rest.
#[derive(Clone, Debug, PartialEq)]
pub struct Cutout {
    /// What it is.
    pub kind: CutoutKind,
    /// The part: where `way . place >= level` for all of these, mm; each way a unit vector of the section.
    pub sides: Vec<(Vector, f64)>,
    /// How far along.
    pub depth: CutoutDepth,
}

impl Cutout {
    /// Whether a place of the section lies in it.
    pub fn holds(&self, at: Point) -> bool {
        self.sides.iter().all(|(way, level)| way.x * at.x + way.y * at.y >= *level)
    }

    /// What it takes of a region.
    pub fn part_of(&self, region: &Region) -> Vec<Region> {
        self.sides.iter().fold(vec![region.clone()], |parts, &(way, level)| {
            parts.iter().flat_map(|part| within(part, way, level)).collect()
        })
    }
}

/// A square as large as needed that holds everything of a region beyond a level along a direction.
fn beyond(region: &Region, way: Vector, level: f64) -> Outline {
    let around = region.extents();
    let far = around.width() + around.height() + level.abs() + around.centre().distance(Point::default());
    let across = way.left();
    let middle = Point::default() + way * (level + far);
    Outline::polygon(&[
        (middle + way * -far + across * -far, 0),
        (middle + way * far + across * -far, 0),
        (middle + way * far + across * far, 0),
        (middle + way * -far + across * far, 0),
    ])
    .counter_clockwise()
}

/// Where a region lies along a direction: least and greatest, mm.
pub(super) fn span(region: &Region, way: Vector) -> (f64, f64) {
    let mut found = (f64::INFINITY, f64::NEG_INFINITY);
    for (one, _) in region.outer.segments() {
        let mut hold = |at: Point| {
            let level = way.x * at.x + way.y * at.y;
            found = (found.0.min(level), found.1.max(level));
        };
        hold(one.start);
        if !one.is_line() {
            for out in [way, -way] {
                let at = one.centre() + out * one.radius();
                if one.sweeps_over(at) {
                    hold(at);
                }
            }
        }
    }
    found
}

/// Less than this is a film of rounding, mm and mm2.
const FILM: f64 = 1e-6;

/// The part of a region where `way . place >= level`.
fn within(region: &Region, way: Vector, level: f64) -> Vec<Region> {
    let (low, high) = span(region, way);
    if level <= low + FILM {
        return vec![region.clone()];
    }
    if level >= high - FILM {
        return Vec::new();
    }
    let parts = subtract(region, &beyond(region, -way, -level));
    parts.into_iter().filter(|part| part.area() > FILM).collect()
}

/// The plain bodies that a member is made of, side by side: what its cutouts leave alone, and what they cut back. The member
/// itself where it has none. Where cutouts lie over each other, what is left is what all of them leave.
pub fn bodies(member: &Member) -> Shared<[Member]> {
    member.kept_bodies.clone().unwrap_or_else(|| made_bodies(member))
}

/// Keeps the bodies of a member whose ends are final: mesh, clashes, weights and rules ask for them, and each strip of a cope is
/// a boolean of the section.
pub(super) fn keep_bodies(member: &mut Member) {
    member.kept_bodies = member.has_cutouts().then(|| made_bodies(member));
}

fn made_bodies(member: &Member) -> Shared<[Member]> {
    let mut all = vec![Member { kept_bodies: None, ..member.clone() }];
    all[0].ends.iter_mut().for_each(|end| end.cutouts.clear());
    for (which, end) in member.ends.iter().enumerate() {
        for cutout in &end.cutouts {
            all = all.into_iter().flat_map(|body| parted(member, body, which, cutout)).collect();
        }
    }
    for body in &mut all {
        body.tidy_ends();
        body.bores = bores_of(member, body);
    }
    all.into()
}

/// The holes of a member that go through one of its bodies: told from the middle of that body's own box, and one that goes through
/// the first wall alone only where that wall, or a part of it, is.
fn bores_of(member: &Member, body: &Member) -> Vec<Bore> {
    let by = member.region.extents().centre() - body.region.extents().centre();
    let moved = |bore: &Bore| Bore { off: bore.off + bore.into.left().dot(by), ..bore.clone() };
    let first = |of: &Member, bore: &Bore| of.walls(bore).first().copied();
    member
        .bores
        .iter()
        .map(|bore| (bore, moved(bore)))
        .filter(|(bore, own)| match (first(member, bore), first(body, own)) {
            (Some(whole), Some(part)) => !bore.one_wall || (part.0 > whole.0 - FILM && part.1 < whole.1 + FILM),
            _ => false,
        })
        .map(|(_, own)| own)
        .collect()
}

fn parted(member: &Member, body: Member, which: usize, cutout: &Cutout) -> Vec<Member> {
    let mut taken = vec![body.region.clone()];
    let mut all = Vec::new();
    for &(way, level) in &cutout.sides {
        for region in &taken {
            let kept = within(region, -way, -level);
            all.extend(kept.into_iter().map(|region| Member { region, ..body.clone() }));
        }
        taken = taken.iter().flat_map(|region| within(region, way, level)).collect();
    }
    for region in taken {
        let mut part = Member { region, ..body.clone() };
        let end = &mut part.ends[which];
        match &cutout.depth {
            CutoutDepth::To(plane) => end.planes.push(plane.clone()),
            CutoutDepth::Behind(length) => {
                let back = if which == 1 { -length } else { *length };
                let own = &member.ends[which];
                end.planes.extend(own.planes.iter().map(|cut| {
                    let level = cut.level + cut.normal.z * back;
                    CutPlane { level, ..cut.clone() }
                }));
                end.copes.extend(own.copes.iter().map(|cope| {
                    let mut moved = cope.clone();
                    moved.point.z += back;
                    moved
                }));
            }
        }
        all.push(part);
    }
    all
}
