//! Holes of members in their solids: round ones that lie whole in two flat walls. A hole through a curved wall, a corner or a
//! cut is left out of the solid; weights, lists and machine files have it.

use crate::plane::{Segment, Vector};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3};

use super::super::member::{Bore, Member};

/// A wall of an exact solid: the segment of the outline, its way out, its face.
pub struct Wall {
    /// In the section.
    pub segment: Segment,
    /// Out of the metal, for a straight segment.
    pub out: Vector,
    /// Its index among the solid's faces.
    pub face: usize,
}

/// How near a level must be to a wall's, mm.
const NEAR: f64 = 1e-6;

/// The flat wall with this way out and level that holds a stretch along `side` whole.
fn flat_wall(walls: &[Wall], out: Vector, level: f64, side: Vector, stretch: (f64, f64)) -> Option<usize> {
    let found = walls.iter().find(|wall| {
        let at = |point: crate::plane::Point, way: Vector| way.x * point.x + way.y * point.y;
        let (one, two) = (at(wall.segment.start, side), at(wall.segment.end, side));
        wall.segment.is_line()
            && wall.out.dot(out) > 1.0 - 1e-9
            && (at(wall.segment.start, out) - level).abs() < NEAR
            && one.min(two) < stretch.0 - NEAR
            && one.max(two) > stretch.1 + NEAR
    })?;
    Some(found.face)
}

/// Drills a member's holes into its exact solid.
pub fn drill(member: &Member, walls: &[Wall], solid: &mut Body) {
    for bore in &member.bores {
        let found = member.walls(bore);
        let count = if bore.one_wall { 1 } else { found.len() };
        for wall in found.into_iter().take(count) {
            drill_wall(member, bore, wall, walls, solid);
        }
    }
}

fn drill_wall(member: &Member, bore: &Bore, wall: (f64, f64), walls: &[Wall], solid: &mut Body) {
    let radius = bore.diameter / 2.0;
    let side = bore.into.left();
    let middle = member.region.extents().centre();
    let across = side.x * middle.x + side.y * middle.y + bore.off;
    let stretch = (across - radius, across + radius);
    let (Some(near), Some(far)) =
        (flat_wall(walls, -bore.into, -wall.0, side, stretch), flat_wall(walls, bore.into, wall.1, side, stretch))
    else {
        return;
    };
    // All of the drill's width must meet the same wall: beside a web it does not.
    let whole = [-1.0, -0.5, 0.5, 1.0].into_iter().all(|share| {
        member
            .walls_at(bore, share * (radius - NEAR))
            .iter()
            .any(|other| (other.0 - wall.0).abs() < NEAR && (other.1 - wall.1).abs() < NEAR)
    });
    if !whole {
        return;
    }
    let at = |across: f64, level: f64| crate::plane::Point::default() + side * across + bore.into * level;
    let length = member.lines[0].length();
    let clear =
        [wall.0, wall.1].into_iter().flat_map(|level| [at(stretch.0, level), at(stretch.1, level)]).all(|place| {
            member.begins(place) < bore.along - radius - NEAR
                && length + member.finishes(place) > bore.along + radius + NEAR
        });
    if !clear {
        return;
    }
    let basis = &member.start;
    let (axis, arm) = (
        basis.turn_out(Vector3::new(bore.into.x, bore.into.y, 0.0)),
        basis.turn_out(Vector3::new(side.x, side.y, 0.0)),
    );
    let centre = |level: f64| -> Point3 {
        let place = at(across, level);
        basis.place(place.x, place.y, bore.along)
    };
    // Two half turns on each face: from the side's end round to the other, and back.
    let mut rings = [[0usize; 2]; 2];
    let first = solid.corners.len();
    for (which, level) in [wall.0, wall.1].into_iter().enumerate() {
        let centre = centre(level);
        solid.corners.extend([centre + arm * radius, centre + arm * -radius]);
        for half in 0..2 {
            rings[which][half] = solid.edges.len();
            let (from, to) = (first + 2 * which + half, first + 2 * which + 1 - half);
            solid.edges.push(BodyEdge { from, to, curve: Curve::Circle { centre, axis, radius } });
        }
    }
    let straight = [0, 1].map(|half| {
        solid.edges.push(BodyEdge { from: first + half, to: first + 2 + half, curve: Curve::Line });
        solid.edges.len() - 1
    });
    let [lower, upper] = rings;
    solid.faces[near].loops.push(vec![(lower[0], true), (lower[1], true)]);
    solid.faces[far].loops.push(vec![(upper[1], false), (upper[0], false)]);
    for half in 0..2 {
        solid.faces.push(BodyFace {
            name: bore.operation.clone(),
            owner: member.name.clone(),
            surface: Surface::Cylinder { point: centre(wall.0), axis, across: arm, radius, outward: false },
            loops: vec![vec![
                (upper[half], true),
                (straight[1 - half], false),
                (lower[half], false),
                (straight[half], true),
            ]],
        });
    }
}
