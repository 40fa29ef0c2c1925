//! What is to be cut from bars.

use std::collections::BTreeMap;

use crate::frame::{FrameMade, LineKind, Member};
use crate::nest::{BarPiece, BarProblem};
use crate::piece::made::BarGroup;
use crate::quantity::tolerance::{NO_TURN, ROUNDING};

use super::settings::Settings;

/// Radians that a saw is not turned for.
const CUT_SQUARE: f64 = 1e-4;

/// The members of the cut list by section and material.
pub(super) fn bar_groups(made: &FrameMade, settings: &Settings) -> Vec<BarGroup> {
    let mut groups: BTreeMap<(String, String), BarGroup> = BTreeMap::new();
    for (index, line) in made.list.lines.iter().enumerate().filter(|(_, line)| line.kind == LineKind::Member) {
        let Some(member) = made.member_of_line(index) else { continue };
        let group = groups.entry((line.section.clone(), line.material.clone())).or_insert_with(|| BarGroup {
            section: line.section.clone(),
            material: line.material.clone(),
            mass_per_metre: member.section.mass_per_metre(member.material.density),
            problem: BarProblem {
                stock: settings.stock(&line.section),
                kerf: settings.kerf,
                end_trim: settings.end_trim,
                grip: settings.grip,
                pieces: Vec::new(),
            },
        });
        group.problem.pieces.push(BarPiece {
            mark: line.mark.clone(),
            length: line.length,
            quantity: line.quantity,
            shared: shared_slant(member, settings.kerf),
        });
    }
    groups.into_values().collect()
}

/// How much of a member's length a turned neighbour takes over: both ends one plain mitre of the same angle, leaning along the
/// same axis of the section. The saw cut of a slant is longer than the kerf along the bar; that is taken off. mm.
fn shared_slant(member: &Member, kerf: f64) -> f64 {
    let lean = |finish: usize| match (member.ends[finish].planes.as_slice(), member.ends[finish].copes.as_slice()) {
        ([cut], []) if cut.angle() > CUT_SQUARE => Some((cut.normal.x / cut.normal.z, cut.normal.y / cut.normal.z)),
        _ => None,
    };
    let (Some(one), Some(two)) = (lean(0), lean(1)) else { return 0.0 };
    let plain = |lean: (f64, f64)| lean.0.abs() < NO_TURN || lean.1.abs() < NO_TURN;
    let same = (one.0.abs() - two.0.abs()).abs() < NO_TURN && (one.1.abs() - two.1.abs()).abs() < NO_TURN;
    if !plain(one) || !same || !member.is_straight() {
        return 0.0;
    }
    // The neighbour lies in the bar with its slant the other way: a section that cannot be brought onto itself so would give
    // another piece.
    let way = if one.0.abs() > NO_TURN { [1.0, 0.0] } else { [0.0, 1.0] };
    let turns = |matrix: &[[f64; 2]; 2]| {
        let to = [matrix[0][0] * way[0] + matrix[0][1] * way[1], matrix[1][0] * way[0] + matrix[1][1] * way[1]];
        (to[0] + way[0]).abs() < ROUNDING && (to[1] + way[1]).abs() < ROUNDING
    };
    if !member.section.is_round() && !member.section.symmetries().iter().any(turns) {
        return 0.0;
    }
    let around = member.region.extents();
    let (depth, slope) =
        if one.0.abs() > NO_TURN { (around.width(), one.0.abs()) } else { (around.height(), one.1.abs()) };
    (depth * slope - kerf * (slope.hypot(1.0) - 1.0)).max(0.0)
}
