//! Holes of members in their solids, through flat walls and round ones. A hole that meets a wall's edge, an end's cut or another
//! hole is left out of the solid; weights, lists and machine files have it.

use crate::plane::{Point, Segment, Vector};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Tube, Vector3};

use super::super::member::{Bore, Member};

/// A wall of an exact solid: the edge of the section, its way out, its face.
pub struct Wall {
    /// In the section.
    pub segment: Segment,
    /// Out of the metal, for a straight edge.
    pub out: Vector,
    /// Its index among the solid's faces.
    pub face: usize,
}

/// How near a place must be to a wall, mm.
const NEAR: f64 = 1e-6;
/// Looks across a hole for the wall that it opens in.
const LOOKS: i32 = 8;
/// Places round half a hole that its rim on a round wall goes through.
const ROUND: usize = 12;

/// Drills a member's holes into its exact solid.
pub fn drill(member: &Member, walls: &[Wall], solid: &mut Body) {
    for (at, bore) in member.bores.iter().enumerate() {
        let meets = member.bores[..at].iter().any(|other| member.holes_meet(bore, other));
        if meets || member.hole_leaves(bore).is_some() {
            continue;
        }
        for which in 0..member.drilled(bore).len() {
            drill_wall(member, bore, which, walls, solid);
        }
    }
}

/// Whether a hole is in the member's body: one of its faces goes round the hole's axis.
pub(super) fn is_drilled(member: &Member, bore: &Bore, body: &Body) -> bool {
    let turned = |way: Vector| member.start.turn_out(Vector3::new(way.x, way.y, 0.0));
    let at = bore.into.left() * member.across(bore);
    let place = member.start.place(at.x, at.y, bore.along);
    body.faces.iter().any(|face| match &face.surface {
        Surface::Cylinder { point, axis, radius, outward: false, .. } => {
            (radius - bore.diameter / 2.0).abs() < NEAR
                && axis.cross(turned(bore.into)).length() < NEAR
                && (place - *point).cross(*axis).length() < NEAR
        }
        _ => false,
    })
}

/// The wall that a place of the section lies on.
fn wall_at(walls: &[Wall], at: Point) -> Option<usize> {
    walls.iter().position(|wall| wall.segment.distance_to(at) < NEAR)
}

fn drill_wall(member: &Member, bore: &Bore, which: usize, walls: &[Wall], solid: &mut Body) {
    let radius = bore.diameter / 2.0;
    let (side, across) = (bore.into.left(), member.across(bore));
    let at = |aside: f64, level: f64| Point::default() + side * (across + aside) + bore.into * level;
    // All of the drill's width must go in through one wall's face and out through another's.
    let mut faces: Option<(usize, usize)> = None;
    for look in -LOOKS..=LOOKS {
        let aside = f64::from(look) / f64::from(LOOKS) * (radius + 2.0 * NEAR);
        let Some(&(low, high)) = member.walls_at(bore, aside).get(which) else { return };
        let (Some(near), Some(far)) = (wall_at(walls, at(aside, low)), wall_at(walls, at(aside, high))) else { return };
        if *faces.get_or_insert((near, far)) != (near, far) {
            return;
        }
    }
    let Some((near, far)) = faces else { return };
    let basis = &member.start;
    let turned = |way: Vector| basis.turn_out(Vector3::new(way.x, way.y, 0.0));
    let (axis, arm) = (turned(bore.into), turned(side));
    let place = |aside: f64, level: f64, along: f64| {
        let at = at(aside, level);
        basis.place(at.x, at.y, bore.along + along)
    };
    let drill = Tube { point: place(0.0, 0.0, 0.0), axis, radius };
    // Where the drill at a turn of its own meets the wall's near or far face.
    let on = |turn: f64, far: bool| -> Option<Point3> {
        let aside = radius * turn.cos();
        let wall = *member.walls_at(bore, aside).get(which)?;
        Some(place(aside, if far { wall.1 } else { wall.0 }, radius * turn.sin() * upright(axis, arm, basis.w)))
    };
    // Two half turns on each face: from the side's end round to the other, and back.
    let mut rings = Vec::new();
    for (wall, far) in [(near, false), (far, true)] {
        let segment = &walls[wall].segment;
        let mut ring = Vec::new();
        for half in [0.0, 1.0] {
            let steps: Option<Vec<Point3>> =
                (0..=ROUND).map(|step| on(std::f64::consts::PI * (half + step as f64 / ROUND as f64), far)).collect();
            let Some(steps) = steps else { return };
            let curve = if segment.is_line() {
                drill.cut(turned(walls[wall].out), steps[0], steps[ROUND / 2], steps[ROUND])
            } else {
                let centre = segment.centre();
                let round =
                    Tube { point: basis.place(centre.x, centre.y, 0.0), axis: basis.w, radius: segment.radius() };
                match drill.meet(&round, &steps) {
                    Some(points) => Curve::Cubic(points),
                    None => return,
                }
            };
            ring.push((steps[0], curve));
        }
        rings.push(ring);
    }
    let first = solid.corners.len();
    let mut edges = Vec::new();
    for (which, ring) in rings.into_iter().enumerate() {
        for (half, (place, curve)) in ring.into_iter().enumerate() {
            solid.corners.push(place);
            let (from, to) = (first + 2 * which + half, first + 2 * which + 1 - half);
            solid.edges.push(BodyEdge { from, to, curve });
            edges.push(solid.edges.len() - 1);
        }
    }
    let straight = [0, 1].map(|half| {
        solid.edges.push(BodyEdge { from: first + half, to: first + 2 + half, curve: Curve::Line });
        solid.edges.len() - 1
    });
    // Seen along the drill's way in, a rim runs counter-clockwise about it: an opening of the near face, and back on the far one.
    solid.faces[walls[near].face].loops.push(vec![(edges[0], true), (edges[1], true)]);
    solid.faces[walls[far].face].loops.push(vec![(edges[3], false), (edges[2], false)]);
    for half in 0..2 {
        let walk =
            vec![(edges[2 + half], true), (straight[1 - half], false), (edges[half], false), (straight[half], true)];
        solid.faces.push(BodyFace {
            name: format!("{}.{}", member.name, bore.operation),
            owner: member.name.clone(),
            surface: Surface::Cylinder { point: place(0.0, 0.0, 0.0), axis, across: arm, radius, outward: false },
            loops: vec![walk],
        });
    }
}

/// 1 where turning right-handed about the drill's way in from its left leads along the member, else -1.
fn upright(axis: Vector3, arm: Vector3, along: Vector3) -> f64 {
    axis.cross(arm).dot(along).signum()
}
