//! Members as closed solids: planes, cylinders, cones, tori, with the curves where they meet. Straight and bent members with ends
//! of planes, points, copes and cutouts are exact, with the holes in them. What is told in facets only says so.

mod bodies;
mod bore;
mod ends;
mod path;
mod rim;
mod shell;
mod shown;
mod split;
mod stations;
mod surface;
mod trace;

use std::collections::HashMap;

use crate::space::{Body, BodyEdge, BodyFace, Curve, Mesh, Surface};

use super::body::add_to_mesh;
use super::measure::FrameMade;
use super::member::Member;
use super::plate::FramePlate;

pub use bodies::{FrameBodies, in_facets};
pub use bore::{is_drilled, undrilled};
pub use shown::frame_mesh;

/// How near facets are to the round, mm.
pub const FACETS: f64 = 0.1;

/// Why a member has no exact body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum BodyFault {
    /// Something cut out of an end on several rounds, or surfaces that all but touch.
    #[error("an end on several rounds with a cut in it, or with rounds that all but touch, is told in facets")]
    End,
    /// A cut into a bend.
    #[error("a cut that runs into a bend is told in facets")]
    Bend,
    /// Cuts of both ends meet.
    #[error("cuts of its two ends meet, so it comes apart")]
    Crossed,
}

/// The exact body of a member.
///
/// # Errors
/// [`BodyFault`] where something of it is told in facets only.
pub fn member_body(member: &Member) -> Result<Body, BodyFault> {
    let (mut body, stretches) = shell::shell(member)?;
    for stretch in stretches {
        bore::drill(member, stretch, &mut body);
    }
    number(&mut body);
    Ok(body)
}

/// Tells faces of one name apart that are not one plane or one round: `rail.finish`, `rail.finish-2`, as they come.
fn number(body: &mut Body) {
    let mut known: HashMap<String, Vec<Surface>> = HashMap::new();
    for face in &mut body.faces {
        let surfaces = known.entry(face.name.clone()).or_default();
        let at = surfaces.iter().position(|surface| surface.goes_on(&face.surface, 1e-6)).unwrap_or_else(|| {
            surfaces.push(face.surface.clone());
            surfaces.len() - 1
        });
        if at > 0 {
            face.name = format!("{}-{}", face.name, at + 1);
        }
    }
}

/// A member as a solid: exact where it can be, in facets otherwise.
pub fn member_solid(member: &Member) -> Body {
    member_body(member).unwrap_or_else(|_| facets(member))
}

/// A member in facets, [`FACETS`] mm near.
pub(in crate::frame) fn facets(member: &Member) -> Body {
    let mut mesh = Mesh::default();
    add_to_mesh(member, &mut mesh);
    from_mesh(&mesh, &member.name)
}

/// A closed mesh as a solid of triangles; points that fall together are one.
pub fn from_mesh(mesh: &Mesh, name: &str) -> Body {
    let mut solid = Body::default();
    let mut known: HashMap<[i64; 3], usize> = HashMap::new();
    let corners: Vec<usize> = mesh
        .points
        .iter()
        .map(|&place| {
            let key = [place.x, place.y, place.z].map(|at| (at * 1e5).round() as i64);
            *known.entry(key).or_insert_with(|| {
                solid.corners.push(place);
                solid.corners.len() - 1
            })
        })
        .collect();
    let mut edges: HashMap<(usize, usize), usize> = HashMap::new();
    for triangle in &mesh.triangles {
        let [a, b, c] = triangle.map(|at| corners[at as usize]);
        if a == b || b == c || c == a {
            continue;
        }
        let [p, q, r] = [a, b, c].map(|at| solid.corners[at]);
        let normal = (q - p).cross(r - p);
        if normal.length() < 1e-10 {
            continue;
        }
        let walk = [(a, b), (b, c), (c, a)]
            .into_iter()
            .map(|(from, to)| {
                let key = (from.min(to), from.max(to));
                let edge = *edges.entry(key).or_insert_with(|| {
                    solid.edges.push(BodyEdge { from: key.0, to: key.1, curve: Curve::Line });
                    solid.edges.len() - 1
                });
                (edge, from < to)
            })
            .collect();
        solid.faces.push(BodyFace {
            name: name.to_string(),
            owner: name.to_string(),
            surface: Surface::Plane { point: p, normal: normal.unit(), across: (q - p).unit() },
            loops: vec![walk],
        });
    }
    solid
}

/// The exact body of a plate or a bent piece where it lies.
///
/// # Errors
/// Why it cannot be folded into one, in words.
pub fn plate_body(plate: &FramePlate) -> Result<Body, String> {
    let own = |name: &str| format!("{}.{name}", plate.name);
    crate::sheet::folded_body(&plate.part.flat)
        .map(|body| body.moved(&plate.basis.motion(), own))
        .map_err(|fault| fault.to_string())
}

/// Every member and plate of a frame as a solid, each with its name. What has no closed solid is left out and named.
pub fn frame_solids(made: &FrameMade) -> (Vec<(String, Body)>, Vec<String>) {
    let members = made.frame.members.iter().enumerate();
    let (mut all, mut missing) = (Vec::new(), Vec::new());
    for (at, member) in members {
        match made.member_body(at) {
            Ok(body) => all.push((member.name.clone(), body.clone())),
            Err(fault) => {
                // Facets stand for it, where they close.
                let solid = facets(member);
                if solid.is_closed() {
                    all.push((member.name.clone(), solid));
                } else {
                    missing.push(format!("{}: {fault}", member.name));
                }
            }
        }
    }
    for (plate, body) in made.frame.plates.iter().zip(made.plate_bodies()) {
        match body {
            Ok(body) => all.push((plate.name.clone(), body.clone())),
            Err(fault) => missing.push(format!("{}: {fault}", plate.name)),
        }
    }
    (all, missing)
}
