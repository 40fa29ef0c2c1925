//! Questions asked of bodies, over random pieces: the mesh closes and comes to the body's volume; a section comes to the area of
//! the same plane through the mesh; what clashes is what random places find in both. The long run:
//! `STEELK_CASES=2000 cargo test --release -p steelk-core --test all queries:: -- --nocapture`.

use serde_json::Value;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::folded_body;
use steelk_core::space::query::section;
use steelk_core::space::{Body, Mesh, Point3, Surface, Vector3};

use steelk_testing::trials;
use steelk_testing::trials::Dice;

fn outcome(document: &Value) -> Outcome {
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default())
}

/// The bodies of a random piece, whatever it is.
fn bodies(document: &Value) -> Vec<Body> {
    let outcome = outcome(document);
    if let Some(part) = outcome.part() {
        return folded_body(&part.flat).into_iter().collect();
    }
    let Some(frame) = outcome.frame() else { return Vec::new() };
    let members = (0..frame.made.frame.members.len()).filter_map(|at| frame.made.member_body(at).ok());
    members.chain(frame.made.plate_bodies().iter().filter_map(|body| body.as_ref().ok())).cloned().collect()
}

type Family = (&'static str, fn(u64) -> Value);
const FAMILIES: [Family; 4] =
    [("plates", trials::plate), ("sheets", trials::sheet), ("frames", trials::frame), ("joints", trials::joints)];

const CHORD: f64 = 0.05;
const FINE: f64 = 0.01;

fn meshed(body: &Body) -> Mesh {
    body.mesh(CHORD, |face| face.name.as_str()).unwrap_or_else(|fault| panic!("{fault}"))
}

#[test]
fn meshes_close_and_come_to_the_body() {
    let mut looked = 0;
    for (name, family) in FAMILIES {
        for seed in 0..trials::cases(30) {
            for body in bodies(&family(seed)) {
                let mesh = body
                    .mesh(CHORD, |face| face.name.as_str())
                    .unwrap_or_else(|fault| panic!("{name} {seed}: {fault} {}", family(seed)));
                let exact = body.mass();
                assert!(mesh.is_watertight(), "{name} {seed} {} {}", body.faces[0].owner, family(seed));
                // Chords leave out at most a film of their bound over the whole surface.
                let film = exact.area * CHORD;
                let volume = mesh.volume();
                assert!((volume - exact.volume).abs() < film, "{name} {seed}: {volume} {} mm3", exact.volume);
                let (around, own) = (mesh.extents(), body.extents());
                for (a, b) in [(around.low, own.low), (around.high, own.high)] {
                    assert!((a - b).length() < 3.0 * CHORD, "{name} {seed}: {a:?} {b:?}");
                }
                looked += 1;
            }
        }
    }
    println!("{looked} bodies meshed");
    assert!(looked > 100);
}

#[test]
fn metal_thinner_than_a_chord_strays_is_drawn_with_finer_ones() {
    // Two hundredths of a millimetre between an arc and a corner of another opening; chords stray five.
    let document = trials::plate(304);
    let outcome = outcome(&document);
    assert!(outcome.findings.is_empty(), "{:?}", outcome.findings);
    let body = &bodies(&document)[0];
    let (mesh, exact) = (meshed(body), body.mass());
    assert!(mesh.is_watertight());
    assert!((mesh.volume() - exact.volume).abs() < exact.area * CHORD);
}

/// Area of a plane through a closed mesh: each triangle's line in it, turned by its own normal, adds half of its moment.
fn mesh_section(mesh: &Mesh, point: Point3, normal: Vector3) -> f64 {
    let high = |place: Point3| (place - point).dot(normal);
    let mut sum = 0.0;
    for corners in &mesh.triangles {
        let [a, b, c] = corners.map(|at| mesh.points[at as usize]);
        let mut met = Vec::new();
        for (p, q) in [(a, b), (b, c), (c, a)] {
            let (h, k) = (high(p), high(q));
            if (h > 0.0) != (k > 0.0) {
                met.push(p + (q - p) * (h / (h - k)));
            }
        }
        let [p, q] = met.as_slice() else { continue };
        let way = normal.cross((b - a).cross(c - a));
        let (p, q) = if (*q - *p).dot(way) >= 0.0 { (*p, *q) } else { (*q, *p) };
        sum += (p - point).cross(q - point).dot(normal) / 2.0;
    }
    sum
}

#[test]
fn sections_come_to_the_area_of_the_mesh_in_the_same_plane() {
    let (mut cut, mut unsupported, mut worst) = (0, 0, 0.0f64);
    for (name, family) in FAMILIES {
        for seed in 0..trials::cases(20) {
            let mut dice = Dice::new(seed + 77);
            for body in bodies(&family(seed)) {
                let around = body.extents();
                let [coarse, mesh] =
                    [4.0 * FINE, FINE].map(|chord| body.mesh(chord, |face| face.name.as_str()).unwrap());
                for _ in 0..3 {
                    let share = |dice: &mut Dice| dice.below(1000) as f64 / 999.0;
                    let size = around.size();
                    let point = around.low
                        + Vector3::new(size.x * share(&mut dice), size.y * share(&mut dice), size.z * share(&mut dice));
                    // Along an axis half of the time: square to members and bends.
                    let normal = match dice.below(6) {
                        0 => Vector3::new(1.0, 0.0, 0.0),
                        1 => Vector3::new(0.0, 1.0, 0.0),
                        2 => Vector3::new(0.0, 0.0, -1.0),
                        _ => {
                            let at = |dice: &mut Dice| dice.below(2001) as f64 / 1000.0 - 1.0;
                            let way = Vector3::new(at(&mut dice), at(&mut dice), at(&mut dice));
                            if way.length() < 0.1 { Vector3::new(0.0, 0.0, 1.0) } else { way.unit() }
                        }
                    };
                    match section(&body, point, normal) {
                        Ok(found) => {
                            let naive = mesh_section(&mesh, point, normal);
                            let lengths: f64 = found
                                .sheet
                                .edges
                                .iter()
                                .map(|edge| found.sheet.corners[edge.from].distance(found.sheet.corners[edge.to]))
                                .sum();
                            let away = (found.area() - naive).abs();
                            // A plane that all but lies in a face makes much of a chord there: as the coarser mesh shows.
                            let chord = (mesh_section(&coarse, point, normal) - naive).abs();
                            let allowed = 2.0 * chord + FINE * 2.0 * (lengths + 10.0);
                            assert!(
                                away < allowed,
                                "{name} {seed}: {} {naive} mm2 at {point:?} {normal:?}",
                                found.area()
                            );
                            // Closed: every corner is left as often as it is reached.
                            let ends: usize = found.sheet.faces[0].loops.iter().map(Vec::len).sum();
                            assert_eq!(ends, found.sheet.edges.len());
                            worst = worst.max(away);
                            cut += usize::from(naive > 0.0);
                        }
                        Err(_) => unsupported += 1,
                    }
                }
            }
        }
    }
    println!("{cut} sections, {unsupported} not told exactly, worst {worst} mm2");
    assert!(cut > 200 && unsupported * 4 < cut);
}

/// Every face of a frame's member or plate is measured by its name: from itself it is nothing away. The nearest places of two pieces
/// are as far apart as the kernel of the queries says, whichever is named first.
#[test]
fn every_face_of_a_frame_is_measured_by_its_name() {
    use steelk_core::work::measure::FrameMeasure;
    let measure = |key: &str, from: &str, to: &str| -> FrameMeasure {
        serde_json::from_value(serde_json::json!({key: {"from": from, "to": to}})).unwrap()
    };
    let (mut faces, mut faults, mut apart) = (0, Vec::new(), 0);
    for (family, make) in &FAMILIES[2..] {
        for seed in 0..trials::cases(60) {
            let Some(frame) = outcome(&make(seed)).into_frame() else { continue };
            let made = &frame.made;
            let names: std::collections::BTreeSet<String> = (0..made.frame.members.len())
                .filter_map(|at| made.member_body(at).ok())
                .chain(made.plate_bodies().iter().filter_map(|body| body.as_ref().ok()))
                .flat_map(|body| body.faces.iter().filter(|face| !matches!(face.surface, Surface::Ruled { .. })))
                .map(|face| face.name.clone())
                .collect();
            for name in names {
                match made.measure(&measure("faces", &name, &name)) {
                    Ok(found) if found.value < 1e-9 => faces += 1,
                    other => faults.push(format!("{family} {seed} {name}: {other:?}")),
                }
            }
            // Searching takes its time in a build without optimisation: a few of them.
            let few = if seed % 10 == 0 { 2 } else { 0 };
            let pieces: Vec<&str> = made.frame.members.iter().map(|member| member.name.as_str()).take(few).collect();
            for pair in pieces.windows(2) {
                let there = made.measure(&measure("clearance", pair[0], pair[1]));
                let back = made.measure(&measure("clearance", pair[1], pair[0]));
                if let (Ok(there), Ok(back)) = (there, back) {
                    assert!((there.value - back.value).abs() < 1e-6, "{family} {seed} {pair:?}: {there:?} {back:?}");
                    apart += 1;
                }
            }
        }
    }
    println!("{faces} faces, {apart} clearances");
    assert!(
        faults.is_empty() && faces > 500 && apart > 3,
        "{} {}",
        faults.len(),
        faults[..faults.len().min(12)].join("\n")
    );
}

/// Every hole of a member is to be seen: in its body's mesh, or, where it meets a corner of its section, as a round on it.
#[test]
fn every_hole_of_a_frame_is_drawn() {
    let (mut in_bodies, mut on_them) = (0, 0);
    for seed in 0..trials::cases(200) {
        let outcome = outcome(&trials::joints(seed));
        let Some(frame) = outcome.frame() else { continue };
        for member in &frame.made.frame.members {
            for bore in &member.bores {
                let meshed = outcome.mesh.features.contains(&format!("{}.{}", member.name, bore.operation));
                let drawn = outcome
                    .mesh
                    .fields
                    .iter()
                    .any(|field| field.feature == format!("{}.{}", member.name, bore.operation));
                assert!(meshed || drawn, "{seed}: {} of {}", bore.operation, member.name);
                in_bodies += usize::from(meshed);
                on_them += usize::from(drawn);
            }
        }
    }
    println!("{in_bodies} in bodies, {on_them} drawn on them");
    assert!(in_bodies > 20 && on_them > 0);
}
