//! What the walls of a member are called: by the side of its section that they are on.

use std::f64::consts::PI;

use crate::plane::{Box2, Segment, Vector};

use super::super::member::Member;
use super::ends::section_loops;

/// How near a wall must be to the side of the section, mm.
const NEAR: f64 = 1e-6;

/// The sides, each with its way out of the section, as holes and notches name them.
const SIDES: [(&str, Vector); 4] = [
    ("top", Vector { x: 0.0, y: 1.0 }),
    ("right", Vector { x: 1.0, y: 0.0 }),
    ("bottom", Vector { x: 0.0, y: -1.0 }),
    ("left", Vector { x: -1.0, y: 0.0 }),
];

/// What the walls of a member are called, by the number of its section's edge, without the member's own name: documents of
/// before walls were called by their sides cite them as `rail.wall-3`.
pub fn member_wall_names(member: &Member) -> Vec<String> {
    wall_names(&section_loops(&member.region))
}

/// The names of the walls over a section's edges, in their order. A flat wall on a side is called by it, `top`; the flat walls in
/// a tube `inside-top`, `inside-left`: the one on the metal of that side. The round of a pipe is `outside`, its bore `inside`. All
/// else is `wall-N`, by the number of the edge. Walls of one name lie in one plane or on one round.
pub(super) fn wall_names(loops: &[Vec<Segment>]) -> Vec<String> {
    let mut names = Vec::new();
    for (which, walk) in loops.iter().enumerate() {
        let inner = which > 0;
        let around = walk.iter().fold(Box2::EMPTY, |mut around, one| {
            around.hold(one.start);
            around
        });
        let round = is_round(walk);
        for one in walk {
            let own = if round && inner {
                "inside".to_string()
            } else if round {
                "outside".to_string()
            } else {
                match (side(one, &around, inner), inner) {
                    (Some(side), false) => side.to_string(),
                    (Some(side), true) => format!("inside-{side}"),
                    (None, _) => format!("wall-{}", names.len() + 1),
                }
            };
            names.push(own);
        }
    }
    names
}

/// Whether a walk is one circle.
fn is_round(walk: &[Segment]) -> bool {
    let Some(first) = walk.first().filter(|one| !one.is_line()) else { return false };
    let (centre, radius) = (first.centre(), first.radius());
    let on_it =
        |one: &Segment| !one.is_line() && one.centre().distance(centre) < NEAR && (one.radius() - radius).abs() < NEAR;
    walk.iter().all(on_it) && (walk.iter().map(Segment::sweep).sum::<f64>().abs() - 2.0 * PI).abs() < NEAR
}

/// The side of the section that a flat wall is on: it lies in the box's side and looks along it.
fn side(one: &Segment, around: &Box2, inner: bool) -> Option<&'static str> {
    if !one.is_line() {
        return None;
    }
    let along = (one.end - one.start).unit();
    SIDES.into_iter().find_map(|(name, out)| {
        let level = |at: crate::plane::Point| at.x * out.x + at.y * out.y;
        let limit = level(around.low).max(level(around.high));
        // The metal is on the left of every walk, so a wall looks to the right: out of the section, and in a bore across it.
        let looks = along.right().dot(out) * if inner { -1.0 } else { 1.0 };
        ((level(one.start) - limit).abs() < NEAR && looks > 1.0 - NEAR).then_some(name)
    })
}
