//! Holes of members in their solids, through flat walls, round ones and over the corners between them. A hole that meets an end's
//! cut or another hole, or that runs along a face or into a bend, is left out of the solid; weights, lists and machine files have it.

use crate::frame::end::End;
use crate::plane::Vector;
use crate::space::{Body, BodyEdge, BodyFace, Curve, Surface, Vector3, Walked};
use crate::work::frame::OneEnd;

use super::super::member::{Basis, Bore, Member};
use super::super::skeleton::CentreLine;
use super::rim::{Drill, Rim};
use super::stations::Straight;
use super::wall::{NEAR, Wall};

/// A straight stretch as a member of its own, with the holes that lie whole in it.
fn alone(member: &Member, stretch: &Straight) -> Member {
    let end = |which: OneEnd| {
        let at = which.at();
        if stretch.has_end[at] { member.ends[at].clone() } else { End::default() }
    };
    let lies_in = |bore: &Bore| {
        let (radius, from) = (bore.diameter / 2.0, bore.along - stretch.from);
        (stretch.has_end[0] || from - radius > NEAR) && (stretch.has_end[1] || from + radius < stretch.length - NEAR)
    };
    let own = member.bores.iter().filter(|bore| lies_in(bore));
    let ahead = stretch.basis.place(0.0, 0.0, stretch.length);
    Member {
        start: stretch.basis,
        finish: Basis { origin: ahead, ..stretch.basis },
        lines: vec![CentreLine::straight(member.name.clone(), stretch.basis.origin, ahead)],
        ends: OneEnd::BOTH.map(end),
        bores: own.map(|bore| Bore { along: bore.along - stretch.from, ..bore.clone() }).collect(),
        kept_bodies: None,
        ..member.clone()
    }
}

/// Drills the holes of a straight stretch of a member into its exact solid: each through all of its walls, or not at all.
pub fn drill(member: &Member, mut stretch: Straight, solid: &mut Body) {
    if member.bores.is_empty() {
        return;
    }
    let own;
    let member = if member.is_straight() {
        member
    } else {
        own = alone(member, &stretch);
        &own
    };
    let walls = stretch.walls.as_mut_slice();
    for (at, bore) in member.bores.iter().enumerate() {
        let meets = member.bores[..at].iter().any(|other| member.holes_meet(bore, other));
        if meets || member.hole_leaves(bore).is_some() {
            continue;
        }
        let rims: Option<Vec<[Rim; 2]>> = (0..member.drilled(bore).len())
            .map(|which| Drill { member, bore, which, walls: &*walls, solid: &*solid }.rims())
            .collect();
        let Some(rims) = rims else { continue };
        let long: Vec<usize> = rims.iter().flatten().flat_map(|rim| rim.crossings.iter().map(|one| one.edge)).collect();
        if long.iter().enumerate().any(|(at, edge)| long[..at].contains(edge)) {
            continue;
        }
        // Over a corner faces are walked anew: should they not close, nothing was drilled.
        let before = (!long.is_empty()).then(|| (solid.clone(), walls.iter().map(pieces).collect::<Vec<_>>()));
        let done = rims.into_iter().all(|rims| cut(member, bore, rims, walls, solid).is_some());
        if let Some((solid_before, walls_before)) = before.filter(|_| !done) {
            *solid = solid_before;
            for (wall, (faces, parted)) in walls.iter_mut().zip(walls_before) {
                (wall.faces, wall.parted) = (faces, parted);
            }
        }
    }
}

fn pieces(wall: &Wall) -> (Vec<usize>, Vec<f64>) {
    (wall.faces.clone(), wall.parted.clone())
}

/// Whether a hole is in the member's body, through each of its walls: two half rounds a wall lie on the hole's own round.
pub fn is_drilled(member: &Member, bore: &Bore, body: &Body) -> bool {
    let basis = member.basis_along(bore.along);
    let turned = |way: Vector| basis.turn_out(Vector3::new(way.x, way.y, 0.0));
    let at = bore.into.left() * member.across(bore);
    let place = basis.place(at.x, at.y, 0.0);
    let own = body.faces.iter().filter(|face| match &face.surface {
        Surface::Cylinder { point, axis, radius, outward: false, .. } => {
            (radius - bore.diameter / 2.0).abs() < NEAR
                && axis.cross(turned(bore.into)).length() < NEAR
                && (place - *point).cross(*axis).length() < NEAR
        }
        _ => false,
    });
    own.count() >= 2 * member.drilled(bore).len()
}

/// Cuts one wall between its two rims.
fn cut(member: &Member, bore: &Bore, rims: [Rim; 2], walls: &mut [Wall], solid: &mut Body) -> Option<()> {
    let mut made: Vec<(Vec<usize>, Vec<usize>, usize)> = Vec::new();
    for (far, rim) in rims.iter().enumerate() {
        let first = solid.corners.len();
        solid.corners.extend(&rim.places);
        let count = rim.places.len();
        let corners: Vec<usize> = (first..first + count).collect();
        let edges: Vec<usize> = rim
            .pieces
            .iter()
            .enumerate()
            .map(|(at, (_, curve))| {
                add(solid, BodyEdge { from: corners[at], to: corners[(at + 1) % count], curve: curve.clone() })
            })
            .collect();
        // Seen along the drill's way in, a rim runs counter-clockwise about it: an opening of the near face, back on the far one.
        open(rim, &corners, &edges, far == 0, bore, walls, solid)?;
        made.push((corners, edges, rim.half));
    }
    let [(near, near_edges, near_half), (far, far_edges, far_half)] = made.try_into().ok()?;
    let straight = [(near[0], far[0]), (near[near_half], far[far_half])]
        .map(|(from, to)| add(solid, BodyEdge { from, to, curve: Curve::Line }));
    let halves = |edges: &[usize], half: usize| [edges[..half].to_vec(), edges[half..].to_vec()];
    let (near_edges, far_edges) = (halves(&near_edges, near_half), halves(&far_edges, far_half));
    let surface = rims.into_iter().next()?.round;
    for half in 0..2 {
        let mut walk: Vec<Walked> = far_edges[half].iter().map(|&edge| (edge, true)).collect();
        walk.push((straight[1 - half], false));
        walk.extend(near_edges[half].iter().rev().map(|&edge| (edge, false)));
        walk.push((straight[half], true));
        solid.faces.push(BodyFace {
            name: format!("{}.{}", member.name, bore.operation),
            owner: member.name.clone(),
            surface: surface.clone(),
            loops: vec![walk],
        });
    }
    Some(())
}

fn add(solid: &mut Body, edge: BodyEdge) -> usize {
    solid.edges.push(edge);
    solid.edges.len() - 1
}

/// Opens the faces that a rim lies on.
fn open(
    rim: &Rim,
    corners: &[usize],
    edges: &[usize],
    ahead: bool,
    bore: &Bore,
    walls: &mut [Wall],
    solid: &mut Body,
) -> Option<()> {
    let directed = |own: &[usize]| -> Vec<Walked> { own.iter().map(|&edge| (edge, ahead)).collect() };
    if rim.crossings.is_empty() {
        let wall = &walls[rim.pieces[0].0];
        let mut walk = directed(edges);
        if !ahead {
            walk.reverse();
        }
        solid.faces[wall.faces[wall.at(bore.along)]].loops.push(walk);
        return Some(());
    }
    for crossing in &rim.crossings {
        part(solid, crossing.edge, crossing.nodes.map(|node| corners[node]));
    }
    let mut touched: Vec<usize> = rim.pieces.iter().map(|(wall, _)| *wall).collect();
    touched.sort_unstable();
    touched.dedup();
    for wall in touched {
        let own: Vec<usize> = (0..edges.len()).filter(|&at| rim.pieces[at].0 == wall).map(|at| edges[at]).collect();
        let wall = &mut walls[wall];
        let piece = wall.at(bore.along);
        let face = wall.faces[piece];
        let mut all = directed(&own);
        all.extend(&solid.faces[face].loops[0]);
        let mut loops = solid.chained(&all, Vector3::default())?;
        let level = |solid: &Body, walk: &[Walked]| -> f64 {
            let places = walk.iter().map(|&one| solid.corners[solid.ends_of(one).0]);
            places.map(|place| rim.along(place)).sum::<f64>() / walk.len() as f64
        };
        let openings = solid.faces[face].loops.split_off(1);
        match loops.len() {
            1 => {
                solid.faces[face].loops = loops;
                solid.faces[face].loops.extend(openings);
            }
            2 => {
                loops.sort_by(|one, two| level(solid, one).total_cmp(&level(solid, two)));
                if level(solid, &loops[0]) > bore.along || level(solid, &loops[1]) < bore.along {
                    return None;
                }
                let (low, high): (Vec<_>, Vec<_>) =
                    openings.into_iter().partition(|walk| level(solid, walk) < bore.along);
                let upper = loops.pop()?;
                let mut next = BodyFace { loops: vec![upper], ..solid.faces[face].clone() };
                next.loops.extend(high);
                solid.faces[face].loops = loops;
                solid.faces[face].loops.extend(low);
                wall.faces.insert(piece + 1, solid.faces.len());
                wall.parted.insert(piece, bore.along);
                solid.faces.push(next);
            }
            _ => return None,
        }
    }
    Some(())
}

/// Takes the stretch between two corners out of a straight edge.
fn part(solid: &mut Body, edge: usize, corners: [usize; 2]) {
    let (from, to) = (solid.edges[edge].from, solid.edges[edge].to);
    let start = solid.corners[from];
    let [mut first, mut second] = corners;
    if solid.corners[first].distance(start) > solid.corners[second].distance(start) {
        (first, second) = (second, first);
    }
    solid.edges[edge].to = first;
    let rest = add(solid, BodyEdge { from: second, to, curve: Curve::Line });
    for walk in solid.faces.iter_mut().flat_map(|face| face.loops.iter_mut()) {
        if let Some(at) = walk.iter().position(|&(own, _)| own == edge) {
            let ahead = walk[at].1;
            walk.insert(if ahead { at + 1 } else { at }, (rest, ahead));
        }
    }
}
