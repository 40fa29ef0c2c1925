//! The whole frame as bodies and as a mesh.

use std::collections::{BTreeMap, HashMap};

use crate::sheet::heads_left_out;
use crate::space::{Body, HoleField, Mesh, Motion};

use super::body::{add_bores, add_to_mesh};
use super::made::FrameMade;
use super::member::Bore;
use super::solid::{BodyFault, FACETS, drilled_by, facets, is_drilled, mesh_within, renamed};

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
        let left_out = heads_left_out(&plate.part.flat).map(|fault| fault.to_string());
        match (body, left_out) {
            (_, Some(fault)) => missing.push(format!("{}: {fault}", plate.name)),
            (Ok(body), None) => all.push((plate.name.clone(), body.clone())),
            (Err(fault), None) => missing.push(format!("{}: {fault}", plate.name)),
        }
    }
    (all, missing)
}

/// Adds a mesh after a motion, its features under names of their own.
pub(super) fn add(mesh: &mut Mesh, own: &Mesh, motion: &Motion, name: impl Fn(&str) -> String) {
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
        lower: motion.apply(field.lower),
        upper: motion.apply(field.upper),
        places: field.places.clone(),
        ring: field.ring.clone(),
    }));
}

/// Every member and plate of a frame as triangles.
pub fn frame_mesh(made: &FrameMade) -> Mesh {
    let mut mesh = Mesh::default();
    for (at, member) in made.frame.members.iter().enumerate() {
        match made.shown(at) {
            Some((own, motion)) => {
                let first = &made.frame.members[made.first_of_shape(at)];
                add(&mut mesh, own, &motion, |name| renamed(name, first, member));
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
        let shown = body.as_ref().ok().and_then(|body| mesh_within(body, FACETS, |face| &face.name));
        match shown {
            Some(own) => add(&mut mesh, &own, &Motion::STILL, str::to_string),
            None => {
                // Perforated beyond what a body is made of: from the flat, its holes as copies.
                let part = &plate.part;
                let folded = crate::sheet::folded_mesh(&part.flat, &part.tree, &part.folded, FACETS);
                if let Ok((own, _)) = folded {
                    add(&mut mesh, &own, &plate.basis.motion(), |name| format!("{}.{name}", plate.name));
                }
            }
        }
    }
    mesh
}

/// Members that have no exact body and are told in facets: for each reason, in order, which.
pub fn in_facets(made: &FrameMade) -> Vec<(BodyFault, Vec<String>)> {
    let mut found: Vec<(BodyFault, Vec<String>)> = Vec::new();
    for (at, member) in made.frame.members.iter().enumerate() {
        // Ends that cross are refused elsewhere, with what to do.
        let Err(fault) = made.member_body(at) else { continue };
        if fault == BodyFault::Crossed {
            continue;
        }
        match found.iter_mut().find(|(known, _)| *known == fault) {
            Some((_, members)) => members.push(member.name.clone()),
            None => found.push((fault, vec![member.name.clone()])),
        }
    }
    found
}

/// Holes that the members' bodies have not: for each operation, in order, the members.
pub fn undrilled(made: &FrameMade) -> Vec<(String, Vec<String>)> {
    let mut found: Vec<(String, Vec<String>)> = Vec::new();
    let mut of_shape: HashMap<usize, Vec<bool>> = HashMap::new();
    for (at, member) in made.frame.members.iter().enumerate().filter(|(_, member)| !member.bores.is_empty()) {
        let missing = of_shape.entry(made.first_of_shape(at)).or_insert_with(|| {
            let body = made.member_body(at);
            let in_it = |bore: &Bore| body.as_ref().is_ok_and(|body| is_drilled(member, bore, body));
            member.bores.iter().map(|bore| !in_it(bore)).collect()
        });
        for (bore, _) in member.bores.iter().zip(missing).filter(|(_, missing)| **missing) {
            let members = match found.iter().position(|(operation, _)| *operation == bore.operation) {
                Some(known) => &mut found[known].1,
                None => {
                    found.push((bore.operation.clone(), Vec::new()));
                    let last = found.len() - 1;
                    &mut found[last].1
                }
            };
            if members.last() != Some(&member.name) {
                members.push(member.name.clone());
            }
        }
    }
    found
}

/// What drilled each hole of the members, by what the hole is called: a click on it finds the work.
pub fn holes_made_by(made: &FrameMade) -> BTreeMap<String, String> {
    let mut all = BTreeMap::new();
    for (at, member) in made.frame.members.iter().enumerate().filter(|(_, member)| !member.bores.is_empty()) {
        // Those that the body has not are drawn on it.
        all.extend(
            member.bores.iter().map(|bore| (format!("{}.{}", member.name, bore.operation), bore.operation.clone())),
        );
        for face in made.member_body(at).map(|body| body.faces.as_slice()).unwrap_or_default() {
            if let Some(operation) = drilled_by(member, &face.name) {
                all.insert(face.name.clone(), operation.to_string());
            }
        }
    }
    all
}
