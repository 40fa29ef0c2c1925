//! A member in chords, for what has no exact body. Nothing that is cut is computed from it.

use crate::plane::{Point, Region, Vector, triangulate};
use crate::quantity::tolerance::{LEVEL, MODELLING_TOLERANCE};
use crate::space::{HoleField, Mesh, Vector3};

use super::end::{creases, crossings};
use super::member::{Bore, Member, Piece};

/// How far a chord may stray from its arc on the screen, mm.
const FINE: f64 = 0.1;

/// How far apart points of a straight side are where the end is coped, mm.
const COPE_STEP: f64 = 1.5;

/// A section's outlines as chords, with what of it can be kept from one member to the next.
struct Rings {
    points: Vec<Point>,
    loops: Vec<Vec<usize>>,
    triangles: Vec<[usize; 3]>,
}

fn rings(region: &Region, lines: &[(Vector, f64)], fine: f64) -> Rings {
    let mut points = Vec::new();
    let mut loops = Vec::new();
    for outline in region.outlines() {
        let from = points.len();
        for (one, _) in outline.segments() {
            let mut run = Vec::new();
            one.flatten(fine, &mut run);
            // A coped end curves along a straight side too.
            if fine < FINE && one.is_line() {
                let steps = (one.length() / COPE_STEP).ceil().max(1.0) as usize;
                run.extend((1..steps).map(|at| one.at(at as f64 / steps as f64)));
            }
            let mut corners = run.clone();
            corners.push(one.end);
            for pair in corners.windows(2) {
                points.push(pair[0]);
                let mut met = Vec::new();
                crossings(&crate::plane::Segment::line(pair[0], pair[1]), lines, &mut met);
                met.sort_by(|a, b| pair[0].distance(*a).total_cmp(&pair[0].distance(*b)));
                points.extend(met);
            }
        }
        loops.push((from..points.len()).collect());
    }
    let mut inner = Vec::new();
    for (way, level) in lines {
        let mut on: Vec<(f64, usize)> = points
            .iter()
            .enumerate()
            .filter(|(_, at)| (way.x * at.x + way.y * at.y - level).abs() < LEVEL)
            .map(|(index, at)| (way.left().x * at.x + way.left().y * at.y, index))
            .collect();
        on.sort_by(|one, two| one.0.total_cmp(&two.0));
        for pair in on.windows(2) {
            let middle = points[pair[0].1].toward(points[pair[1].1], 0.5);
            if pair[1].0 - pair[0].0 > MODELLING_TOLERANCE && region.contains(middle) {
                inner.push([pair[0].1, pair[1].1]);
            }
        }
    }
    let found = triangulate(&points, &loops, &inner).or_else(|_| triangulate(&points, &loops, &[]));
    Rings { triangles: found.map(|all| all.corners).unwrap_or_default(), points, loops }
}

fn rings_of(member: &Member, piece: &Piece) -> Rings {
    let mut lines = Vec::new();
    if piece.first {
        lines.extend(creases(&member.ends[0]));
    }
    if piece.last {
        lines.extend(creases(&member.ends[1]));
    }
    let coped = member.ends.iter().any(|end| !end.copes.is_empty());
    rings(&member.region, &lines, if coped { 0.004 } else { FINE })
}

/// Adds a member to a mesh under its own name.
pub fn add_to_mesh(member: &Member, mesh: &mut Mesh) {
    let owner = mesh.features.len() as u32;
    mesh.features.push(member.name.clone());
    if member.has_cutouts() {
        super::plain::bodies(member).iter().for_each(|body| add_body(body, owner, mesh));
    } else {
        add_body(member, owner, mesh);
    }
}

/// Adds a member without cutouts under a name that the mesh has.
fn add_body(member: &Member, owner: u32, mesh: &mut Mesh) {
    for piece in member.pieces() {
        let rings = rings_of(member, &piece);
        let base = mesh.points.len() as u32;
        for &at in &rings.points {
            mesh.points.extend(member.fibre(&piece, at));
        }
        let point = |at: usize, upper: bool| base + 2 * at as u32 + u32::from(upper);
        let mut add = |triangle: [u32; 3]| {
            mesh.triangles.push(triangle);
            mesh.owners.push(owner);
        };
        for [a, b, c] in &rings.triangles {
            // Triangles come counter-clockwise from the library; a cap at the start looks back.
            if piece.last {
                add([point(*a, true), point(*b, true), point(*c, true)]);
            }
            if piece.first {
                add([point(*a, false), point(*c, false), point(*b, false)]);
            }
        }
        for (which, ring) in rings.loops.iter().enumerate() {
            for (at, &here) in ring.iter().enumerate() {
                let next = ring[(at + 1) % ring.len()];
                // A hole's wall looks inward.
                let (a, b) = if which == 0 { (here, next) } else { (next, here) };
                add([point(a, false), point(b, false), point(b, true)]);
                add([point(a, false), point(b, true), point(a, true)]);
            }
        }
        for ring in &rings.loops {
            for (at, &here) in ring.iter().enumerate() {
                let (before, next) = (ring[(at + ring.len() - 1) % ring.len()], ring[(at + 1) % ring.len()]);
                if piece.first {
                    mesh.lines.push([point(here, false), point(next, false)]);
                }
                if piece.last {
                    mesh.lines.push([point(here, true), point(next, true)]);
                }
                let (into, out) = (
                    (rings.points[here] - rings.points[before]).unit(),
                    (rings.points[next] - rings.points[here]).unit(),
                );
                if into.cross(out).abs() > 0.55 {
                    mesh.lines.push([point(here, false), point(here, true)]);
                }
            }
        }
    }
}

/// Holes of a member that `is_drawn` leaves, drawn as rounds on the faces that they open in.
pub fn add_bores(member: &Member, mesh: &mut Mesh, is_drawn: impl Fn(&Bore) -> bool) {
    for bore in member.bores.iter().filter(|bore| !is_drawn(bore)) {
        let walls = member.walls(bore);
        let (Some(first), Some(last)) = (walls.first(), walls.last()) else { continue };
        let side = Vector::new(-bore.into.y, bore.into.x);
        let middle = member.region.extents().centre();
        let across = side.x * middle.x + side.y * middle.y + bore.off;
        let basis = member.basis_along(bore.along);
        // Levels run along `into` from the section's own zero.
        let place = |level: f64| {
            let at = side * across + bore.into * level;
            basis.place(at.x, at.y, 0.0)
        };
        let ring = (0..24)
            .map(|at| {
                let turned = std::f64::consts::TAU * f64::from(at) / 24.0;
                [turned.cos() * bore.diameter / 2.0, turned.sin() * bore.diameter / 2.0]
            })
            .collect();
        let (lower, upper) = (place(first.0), place(if bore.one_wall { first.0 } else { last.1 }));
        mesh.fields.push(HoleField {
            feature: format!("{}.{}", member.name, bore.operation),
            ring,
            along: basis.w,
            across: basis.turn_out(Vector3::new(side.x, side.y, 0.0)),
            lower,
            upper,
            places: vec![[0.0, 0.0]],
        });
    }
}
