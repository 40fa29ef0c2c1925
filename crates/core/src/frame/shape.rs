//! Members of one and the same shape, told in their own frames: what is worked out for the first of them holds for all, moved to where
//! each lies. Frames are mostly copies.

use std::collections::HashMap;

use super::cut_plane::CutPlane;
use super::cutout::CutoutDepth;
use super::member::{Basis, Member};

/// Places nearer than this are one, mm, and directions within a thousandth of it.
const SAME: f64 = 1e-7;

fn place(value: f64) -> i64 {
    (value / SAME).round() as i64
}

fn way(value: f64) -> i64 {
    (value / SAME * 1e3).round() as i64
}

fn plane(cut: &CutPlane, key: &mut Vec<i64>) {
    key.extend([way(cut.normal.x), way(cut.normal.y), way(cut.normal.z), place(cut.level)]);
}

/// What a straight member's shape hangs on, in its own frame; `None` for those that are looked at one by one.
fn key(member: &Member) -> Option<Vec<i64>> {
    if !member.is_straight() {
        return None;
    }
    let around = member.region.extents();
    let mut key = vec![
        i64::from(member.mirrored),
        place(member.lines[0].length()),
        place(member.grip),
        place(around.low.x),
        place(around.low.y),
    ];
    for end in &member.ends {
        key.push(end.planes.len() as i64);
        end.planes.iter().for_each(|cut| plane(cut, &mut key));
        key.push(end.copes.len() as i64);
        for cope in &end.copes {
            key.extend([cope.point.x, cope.point.y, cope.point.z, cope.radius].map(place));
            key.extend([cope.axis.x, cope.axis.y, cope.axis.z].map(way));
        }
        key.push(end.cutouts.len() as i64);
        for cutout in &end.cutouts {
            key.push(cutout.sides.len() as i64);
            key.extend(cutout.sides.iter().flat_map(|(side, level)| [way(side.x), way(side.y), place(*level)]));
            match &cutout.depth {
                CutoutDepth::Behind(depth) => key.extend([0, place(*depth)]),
                CutoutDepth::To(cut) => {
                    key.push(1);
                    plane(cut, &mut key);
                }
            }
        }
    }
    key.push(member.bores.len() as i64);
    for bore in &member.bores {
        key.extend([place(bore.off), place(bore.along), place(bore.diameter), way(bore.into.x), way(bore.into.y)]);
        key.push(i64::from(bore.one_wall));
    }
    Some(key)
}

/// For each member the first that has its shape: itself where none before it has.
pub(super) fn firsts(members: &[Member]) -> Vec<usize> {
    let mut known: HashMap<(*const crate::section::Section, Vec<i64>), usize> = HashMap::new();
    members
        .iter()
        .enumerate()
        .map(|(at, member)| match key(member) {
            // Members of one operation share their section; its names of holes go with them.
            Some(key) => {
                let first = *known.entry((std::sync::Arc::as_ptr(&member.section), key)).or_insert(at);
                let same_holes =
                    members[first].bores.iter().zip(&member.bores).all(|(one, two)| one.operation == two.operation);
                if same_holes { first } else { at }
            }
            None => at,
        })
        .collect()
}

/// Where one member lies in the frame of another, as a key.
pub(super) fn relative(one: &Basis, two: &Basis) -> [i64; 12] {
    let (at, u, v, w) = (one.local(two.origin), one.turn_in(two.u), one.turn_in(two.v), one.turn_in(two.w));
    let [a, b, c] = [at.x, at.y, at.z].map(place);
    let [d, e, f] = [u.x, u.y, u.z].map(way);
    let [g, h, i] = [v.x, v.y, v.z].map(way);
    let [j, k, l] = [w.x, w.y, w.z].map(way);
    [a, b, c, d, e, f, g, h, i, j, k, l]
}
