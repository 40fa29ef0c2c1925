//! A frame as triangles for the screen and for files that are looked at: the meshes of its bodies. Only what has no body is drawn
//! from its section's chords.

use crate::space::{Body, BodyFace, HoleField, Mesh, Motion};

use super::super::body::{add_bores, add_to_mesh};
use super::super::measure::FrameMade;
use super::super::member::Member;
use super::FACETS;
use super::bore::is_drilled;

/// A mesh at a chord bound, or at a finer one where that is too coarse for a face.
pub(super) fn mesh_within<'a>(body: &'a Body, chord: f64, feature: impl Fn(&'a BodyFace) -> &'a str) -> Option<Mesh> {
    (0..4).find_map(|times| body.mesh(chord / f64::from(1 << (2 * times)), &feature).ok())
}

/// A hole is called by what drilled it, so that a click finds it; all else by the member.
pub(super) fn feature<'a>(member: &'a Member, face: &'a BodyFace) -> &'a str {
    hole(member, &face.name).unwrap_or(&member.name)
}

/// What drilled the hole of a face's name.
fn hole<'a>(member: &'a Member, name: &str) -> Option<&'a str> {
    let rest = name.strip_prefix(&member.name)?.strip_prefix('.')?;
    let is_of = |operation: &str| {
        rest.strip_prefix(operation).is_some_and(|count| {
            count.is_empty() || count.strip_prefix('-').is_some_and(|count| count.parse::<usize>().is_ok())
        })
    };
    member.bores.iter().map(|bore| bore.operation.as_str()).find(|operation| is_of(operation))
}

/// Adds a mesh after a motion, its features under names of their own.
fn add(mesh: &mut Mesh, own: &Mesh, motion: &Motion, name: impl Fn(&str) -> String) {
    let base = mesh.points.len() as u32;
    let first = mesh.features.len() as u32;
    mesh.features.extend(own.features.iter().map(|feature| name(feature)));
    mesh.points.extend(own.points.iter().map(|&at| motion.apply(at)));
    mesh.triangles.extend(own.triangles.iter().map(|corners| corners.map(|at| at + base)));
    mesh.owners.extend(own.owners.iter().map(|owner| owner + first));
    mesh.lines.extend(own.lines.iter().map(|ends| ends.map(|at| at + base)));
    mesh.fields.extend(own.fields.iter().map(|field| HoleField {
        feature: name(&field.feature),
        along: motion.direction(field.along),
        across: motion.direction(field.across),
        lower: field.lower.iter().map(|&at| motion.apply(at)).collect(),
        upper: field.upper.iter().map(|&at| motion.apply(at)).collect(),
        ring: field.ring.clone(),
    }));
}

/// Every member and plate of a frame as triangles.
pub fn frame_mesh(made: &FrameMade) -> Mesh {
    let mut mesh = Mesh::default();
    for (at, member) in made.frame.members.iter().enumerate() {
        match made.shown(at) {
            Some((own, motion)) => {
                let first = &made.frame.members[made.first_of_shape(at)].name;
                add(&mut mesh, own, &motion, |name| if name == first { member.name.clone() } else { name.to_string() });
                // A hole that its body has not is drawn on it.
                if let Ok(body) = made.member_body(at) {
                    add_bores(member, &mut mesh, |bore| is_drilled(member, bore, body));
                }
            }
            None => {
                add_to_mesh(member, &mut mesh);
                add_bores(member, &mut mesh, |_| false);
            }
        }
    }
    for (plate, body) in made.frame.plates.iter().zip(made.plate_bodies()) {
        let shown = body.as_ref().ok().and_then(|body| mesh_within(body, FACETS, |_| plate.name.as_str()));
        match shown {
            Some(own) => add(&mut mesh, &own, &Motion::STILL, str::to_string),
            None => {
                // Perforated beyond what a body is made of: from the flat, its holes as copies.
                let part = &plate.part;
                let folded = crate::sheet::folded_mesh(&part.flat, &part.tree, &part.folded, FACETS);
                if let Ok((own, _)) = folded {
                    let own = Mesh { features: own.features.iter().map(|_| plate.name.clone()).collect(), ..own };
                    add(&mut mesh, &own, &plate.basis.motion(), str::to_string);
                }
            }
        }
    }
    mesh
}
