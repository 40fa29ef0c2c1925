//! One vocabulary: what a face is called on the body is what it is called on the mesh, in the file and by the measures, and one name
//! is one face. Held on every demo piece and on random ones.

use std::collections::{BTreeMap, BTreeSet};

use steelk_core::frame::FrameMade;
use steelk_core::measure::feature;
use steelk_core::piece::{Made, Options, Piece, evaluate};
use steelk_core::plane::Outline;
use steelk_core::sheet::{Part, folded_body};
use steelk_core::space::{Body, Mesh, Surface};
use steelk_core::work::measure::FrameMeasure;

use steelk_testing::trials;

type Family = (&'static str, fn(u64) -> serde_json::Value);

const FAMILIES: [Family; 4] =
    [("plates", trials::plate), ("sheets", trials::sheet), ("frames", trials::frame), ("joints", trials::joints)];

/// Every demo piece with its variants, and so many of each random family.
fn pieces(random: u64) -> Vec<(String, Piece)> {
    let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    let mut paths: Vec<_> = std::fs::read_dir(demo).unwrap().map(|entry| entry.unwrap().path()).collect();
    paths.sort();
    let mut all = Vec::new();
    for path in paths.iter().filter(|path| path.extension().is_some_and(|end| end == "json")) {
        let piece = Piece::read(&std::fs::read(path).unwrap()).unwrap();
        let variants: Vec<Piece> = piece.variants.iter().filter_map(|one| piece.variant(&one.name)).collect();
        all.extend(std::iter::once(piece).chain(variants).map(|one| (one.mark.clone(), one)));
    }
    assert!(all.len() > 10);
    for (family, make) in &FAMILIES {
        all.extend((0..trials::cases(random)).map(|seed| {
            let document = make(seed).to_string();
            (format!("{family} {seed}"), Piece::read(document.as_bytes()).unwrap())
        }));
    }
    all
}

/// Whether two surfaces are one plane or one round, told here anew.
fn is_one(one: &Surface, two: &Surface) -> bool {
    let near = 1e-5;
    match (one, two) {
        (Surface::Plane { point, normal, .. }, Surface::Plane { point: there, normal: way, .. }) => {
            normal.dot(*way) > 1.0 - 1e-9 && (*there - *point).dot(*normal).abs() < near
        }
        (
            Surface::Cylinder { point, axis, radius, .. },
            Surface::Cylinder { point: there, axis: way, radius: other, .. },
        ) => {
            axis.cross(*way).length() < 1e-7
                && (*there - *point).cross(*axis).length() < near
                && (radius - other).abs() < near
        }
        (Surface::Torus { point, .. }, Surface::Torus { point: there, .. })
        | (Surface::Cone { point, .. }, Surface::Cone { point: there, .. }) => (*there - *point).length() < near,
        _ => false,
    }
}

/// Names that stand for more than one plane or round, each with how many.
fn several(body: &Body) -> Vec<String> {
    let mut known: BTreeMap<&str, Vec<&Surface>> = BTreeMap::new();
    for face in &body.faces {
        let surfaces = known.entry(&face.name).or_default();
        if !surfaces.iter().any(|one| is_one(one, &face.surface)) {
            surfaces.push(&face.surface);
        }
    }
    known
        .into_iter()
        .filter(|(_, surfaces)| surfaces.len() > 1 && surfaces.iter().any(|one| !matches!(one, Surface::Ruled { .. })))
        .map(|(name, surfaces)| format!("{name} is {} faces: {surfaces:?}", surfaces.len()))
        .collect()
}

fn names(body: &Body) -> BTreeSet<&str> {
    body.faces.iter().map(|face| face.name.as_str()).collect()
}

fn of_sheet(part: &Part, mesh: &Mesh, faults: &mut Vec<String>) -> usize {
    let Ok(body) = folded_body(&part.flat) else { return 0 };
    faults.extend(several(&body));
    let on_body = names(&body);
    // A wall aslant across a bend is no plane: it has a name, and is refused in words.
    let twisted = |name: &str| {
        let own = body.faces.iter().filter(|face| face.name == name);
        own.clone().count() > 0 && own.into_iter().all(|face| matches!(face.surface, Surface::Ruled { .. }))
    };
    for name in &on_body {
        match feature(part, name) {
            Err(fault) if !(twisted(name) && fault.message.contains("aslant")) => {
                faults.push(format!("{name}: {fault:?}"))
            }
            // A hole's own name is its axis.
            Ok(_) if twisted(name) && part.flat.holes.iter().all(|hole| hole.name != *name) => {
                faults.push(format!("{name} is twisted, and is measured from"))
            }
            _ => {}
        }
    }
    // The mesh leaves perforations closed; a bend of no radius has an inner face on the mesh alone.
    let closed: Vec<String> = part
        .flat
        .fields()
        .into_iter()
        .flat_map(|(operation, _, holes)| {
            holes.into_iter().map(|at| part.flat.holes[at].name.clone()).chain([operation]).collect::<Vec<_>>()
        })
        .collect();
    let is_closed = |name: &str| closed.iter().any(|hole| name == hole || name.starts_with(&format!("{hole}.side-")));
    let on_mesh: BTreeSet<&str> = mesh.features.iter().map(String::as_str).collect();
    if on_mesh.is_empty() {
        // Told as an error of the piece: nothing is drawn of it.
        return 0;
    }
    faults.extend(
        on_body.difference(&on_mesh).filter(|name| !is_closed(name)).map(|name| format!("{name} is not on the mesh")),
    );
    // And the reverse: what may be cited is there.
    let flat = &part.flat;
    for node in flat.nodes.iter().filter(|node| node.is_panel()) {
        for face in ["top", "bottom"] {
            let name = format!("{}.{face}", node.name);
            if !on_body.contains(name.as_str()) {
                faults.push(format!("{name} may be cited and is not on the body"));
            }
        }
    }
    for edge in flat.edges.iter().filter(|edge| !flat.segments_of(edge.panel, edge.tag).is_empty()) {
        if !on_body.contains(edge.name.as_str()) {
            faults.push(format!("{} may be cited and is not on the body", edge.name));
        }
    }
    for hole in flat.holes.iter().filter(|hole| hole.work.through) {
        // Another cut may have taken all of its rim.
        let has_rim = |outline: &Outline| outline.edges.iter().any(|edge| edge.tag == hole.tag);
        if !flat.nodes.iter().any(|node| node.region.outlines().any(has_rim)) {
            continue;
        }
        let own = |name: &&str| **name == hole.name || name.starts_with(&format!("{}.side-", hole.name));
        if !on_body.iter().any(own) {
            faults.push(format!("{} may be cited and is not on the body", hole.name));
        }
    }
    on_body.len()
}

/// Names of the mesh that no body of any blank has.
fn only_meshed(parts: &[&Part], mesh: &Mesh, faults: &mut Vec<String>) {
    let bodies: Vec<Body> = parts.iter().filter_map(|part| folded_body(&part.flat).ok()).collect();
    if bodies.len() < parts.len() {
        return;
    }
    let on_bodies: BTreeSet<&str> = bodies.iter().flat_map(names).collect();
    let is_sharp = |name: &str| {
        let bend = name.strip_suffix(".bend.top").or_else(|| name.strip_suffix(".bend.bottom"));
        let own = |part: &&&Part| bend.and_then(|bend| part.flat.bend(bend)).is_some();
        let part = parts.iter().find(own);
        part.zip(bend.and_then(|bend| part?.flat.bend(bend)))
            .is_some_and(|(part, bend)| part.flat.strip_of(bend).radius < 1e-9)
    };
    // A hair of a wall where three nodes meet: the body has closed it.
    let area = |name: &str| -> f64 {
        let own = mesh.owners.iter().zip(&mesh.triangles).filter(|(owner, _)| mesh.features[**owner as usize] == name);
        own.map(|(_, corners)| {
            let [a, b, c] = corners.map(|at| mesh.points[at as usize]);
            (b - a).cross(c - a).length() / 2.0
        })
        .sum()
    };
    // Where a strip and a panel meet in a hair's breadth the mesh may have a wall of each, face to face, and the body none.
    let inner = |name: &str| name.contains(".joint.");
    let on_mesh: BTreeSet<&str> = mesh.features.iter().map(String::as_str).collect();
    let left = on_mesh.difference(&on_bodies).filter(|name| !is_sharp(name) && !inner(name) && area(name) > 1e-3);
    faults.extend(left.map(|name| format!("{name} is not on the body")));
}

fn of_frame(made: &FrameMade, mesh: &Mesh, faults: &mut Vec<String>) -> usize {
    let members: Vec<&Body> = (0..made.frame.members.len()).filter_map(|at| made.member_body(at).ok()).collect();
    let whole = members.len() == made.frame.members.len() && made.plate_bodies().iter().all(Result::is_ok);
    let bodies: Vec<&Body> =
        members.into_iter().chain(made.plate_bodies().iter().filter_map(|one| one.as_ref().ok())).collect();
    let mut all: BTreeSet<&str> = BTreeSet::new();
    for body in &bodies {
        faults.extend(several(body));
        let own = names(body);
        faults.extend(own.intersection(&all).map(|name| format!("{name} is of two pieces")));
        all.extend(own);
    }
    for body in &bodies {
        for face in body.faces.iter().filter(|face| !matches!(face.surface, Surface::Ruled { .. })) {
            let of: FrameMeasure =
                serde_json::from_value(serde_json::json!({"faces": {"from": face.name, "to": face.name}})).unwrap();
            if let Err(fault) = made.measure(&of) {
                faults.push(format!("{}: {fault:?}", face.name));
            }
        }
    }
    if whole && !all.is_empty() {
        let on_mesh: BTreeSet<&str> = mesh.features.iter().map(String::as_str).collect();
        // A member whose body is too fine to be meshed is drawn whole, under its own name.
        let whole: Vec<&str> =
            made.frame.members.iter().map(|one| one.name.as_str()).filter(|name| on_mesh.contains(name)).collect();
        let drawn = |name: &str| whole.iter().any(|own| name == *own || name.starts_with(&format!("{own}.")));
        let apart = all.symmetric_difference(&on_mesh).filter(|name| !drawn(name));
        faults.extend(apart.map(|name| format!("{name} is on the body or on the mesh alone")));
    }
    all.len()
}

#[test]
fn one_name_is_one_face_on_body_mesh_and_measures() {
    let (mut named, mut faults) = (0, Vec::new());
    for (what, piece) in pieces(40) {
        let outcome = evaluate(&piece, Options::default());
        let mut own = Vec::new();
        match &outcome.made {
            Some(Made::Sheet(sheets)) => {
                for blank in sheets.blanks() {
                    named += of_sheet(&blank.part, &outcome.mesh, &mut own);
                }
                let parts: Vec<&Part> = sheets.blanks().iter().map(|blank| &blank.part).collect();
                only_meshed(&parts, &outcome.mesh, &mut own);
            }
            Some(Made::Frame(frame)) => named += of_frame(&frame.made, &outcome.mesh, &mut own),
            None => {}
        }
        faults.extend(own.into_iter().map(|fault| format!("{what}: {fault}")));
    }
    println!("{named} names");
    assert!(named > 5000, "{named}");
    assert!(faults.is_empty(), "{} faults:\n{}", faults.len(), faults[..faults.len().min(25)].join("\n"));
}
