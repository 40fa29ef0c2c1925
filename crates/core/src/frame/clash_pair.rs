//! Whether two members share metal.

use crate::space::query::{DEEP, Probe, clash, parted_by_a_face};

use super::member::Member;
use super::solid::{FACETS, facets, member_body};

/// Boxes that share less than this only touch, mm.
pub(super) const SKIN: f64 = 0.05;

/// Whether two members by themselves share metal.
pub(super) fn members_clash(one: &Member, two: &Member) -> bool {
    let mut deep = DEEP;
    let [one, two] = [one, two].map(|member| {
        member_body(member).unwrap_or_else(|_| {
            deep += FACETS;
            facets(member)
        })
    });
    if !one.extents().overlaps(&two.extents(), SKIN) || parted_by_a_face(&one, &two, deep) {
        return false;
    }
    match (Probe::new(&one), Probe::new(&two)) {
        (Ok(one), Ok(two)) => clash(&one, &two, deep).is_some(),
        // What cannot be looked at is not mitred for it.
        _ => true,
    }
}
