//! A member or a plate as a closed body.

use std::collections::{HashMap, HashSet};

use crate::frame::body::add_to_mesh;
use crate::frame::laid_plate::FramePlate;
use crate::frame::member::Member;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::space::{Body, BodyEdge, BodyFace, Curve, Mesh, Surface};

use super::fault::BodyFault;
use super::{bore, shell};

/// Twice the area of a triangle that has none, mm2.
const SLIVER: f64 = 1e-10;

/// How near facets are to the round, mm.
pub const FACETS: f64 = 0.1;

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
pub(super) fn number(body: &mut Body) {
    let mut taken: HashSet<String> = body.faces.iter().map(|face| face.name.clone()).collect();
    let mut known: HashMap<String, Vec<(Surface, String)>> = HashMap::new();
    for face in &mut body.faces {
        let surfaces = known.entry(face.name.clone()).or_default();
        let at = surfaces
            .iter()
            .position(|(surface, _)| surface.goes_on(&face.surface, MODELLING_TOLERANCE))
            .unwrap_or_else(|| {
                // A hole may have been called as the second of another would be.
                let numbered = (surfaces.len() + 1..).map(|count| format!("{}-{count}", face.name));
                let fresh = |name: &String| !taken.contains(name);
                let own = if surfaces.is_empty() {
                    face.name.clone()
                } else {
                    numbered.into_iter().find(fresh).unwrap_or_default()
                };
                taken.insert(own.clone());
                surfaces.push((face.surface.clone(), own));
                surfaces.len() - 1
            });
        face.name.clone_from(&surfaces[at].1);
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
        if normal.length() < SLIVER {
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

/// The exact body of a plate or a bent piece where it lies; heads that run into something are left out of it.
///
/// # Errors
/// Why it cannot be folded into one, in words.
pub fn plate_body(plate: &FramePlate) -> Result<Body, String> {
    let own = |name: &str| format!("{}.{name}", plate.name);
    crate::sheet::body_to_ask(&plate.part.flat)
        .map(|body| body.moved(&plate.basis.motion(), own))
        .map_err(|fault| fault.to_string())
}
