//! A member with cutouts as plain bodies side by side.

use std::sync::Arc as Shared;

use super::cut_plane::CutPlane;
use super::cutout::{Cutout, CutoutDepth, FILM, within};
use super::member::{Bore, Member};

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

pub(super) fn made_bodies(member: &Member) -> Shared<[Member]> {
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
pub(super) fn bores_of(member: &Member, body: &Member) -> Vec<Bore> {
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

pub(super) fn parted(member: &Member, body: Member, which: usize, cutout: &Cutout) -> Vec<Member> {
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
