//! Every measure names where it was measured: the way between its places is its value, and the places lie on what it names.

use std::collections::BTreeMap;

use serde_json::{Value, json};
use steelk_core::measure::{Witness, WitnessOn, measure};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::{Part, folded_body};
use steelk_core::space::{Body, Point3, Surface};
use steelk_core::work::measure::{FrameMeasure, Measure};

use steelk_testing::trials;

fn outcome(document: &Value) -> Outcome {
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default())
}

/// How far a place is from the surface of a face that is called so, mm: the nearest of all that are.
fn off(body: &Body, name: &str, at: Point3) -> f64 {
    let own = body.faces.iter().filter(|face| face.name == name);
    own.map(|face| match &face.surface {
        Surface::Plane { point, normal, .. } => (at - *point).dot(*normal).abs(),
        // A round is measured from its axis.
        Surface::Cylinder { point, axis, .. } => (at - *point).cross(*axis).length(),
        _ => f64::INFINITY,
    })
    .fold(f64::INFINITY, f64::min)
}

fn of(key: &str, fields: Value) -> Measure {
    serde_json::from_value(json!({key: fields})).unwrap()
}

fn one(witnesses: &[Witness]) -> Witness {
    assert_eq!(witnesses.len(), 1, "{witnesses:?}");
    witnesses[0]
}

/// Counts what was seen of each measure, and holds the way between the places against the value.
fn hold(seen: &mut BTreeMap<String, usize>, part: &Part, key: &str, fields: Value, told: impl Fn(&[Witness]) -> f64) {
    let what = of(key, fields);
    let Ok(found) = measure(part, &what) else { return };
    let way = told(&found.witnesses);
    assert!((way - found.value).abs() < 1e-6, "{what:?}: {way} for {}: {:?}", found.value, found.witnesses);
    *seen.entry(key.to_string()).or_default() += 1;
}

#[test]
fn the_way_between_the_witnesses_of_a_sheet_is_what_was_measured() {
    let mut seen = BTreeMap::new();
    for (family, make) in [("plate", trials::plate as fn(u64) -> Value), ("sheet", trials::sheet)] {
        for seed in 0..trials::cases(200) {
            let outcome = outcome(&make(seed));
            let Some(part) = outcome.part() else { continue };
            let length = |witnesses: &[Witness]| one(witnesses).length().abs();
            let sum = |witnesses: &[Witness]| witnesses.iter().map(|one| one.length().abs()).sum();
            for axis in ["x", "y", "z"] {
                hold(&mut seen, part, "size", json!({"along": axis}), length);
                hold(&mut seen, part, "blank_size", json!({"along": axis}), length);
                hold(&mut seen, part, "centre_of_gravity", json!({"along": axis}), |all| one(all).length());
            }
            for bend in &part.flat.bends {
                hold(&mut seen, part, "inside_radius", json!({"bend": bend.name}), length);
                for to in ["outside", "inside", "mould", "tangent"] {
                    hold(&mut seen, part, "leg", json!({"bend": bend.name, "to": to}), length);
                }
            }
            for hole in part.flat.holes.iter() {
                hold(&mut seen, part, "diameter", json!({"hole": hole.name}), length);
                for axis in ["x", "y"] {
                    hold(&mut seen, part, "hole_size", json!({"hole": hole.name, "along": axis}), length);
                }
            }
            for edge in &part.flat.edges {
                hold(&mut seen, part, "edge_radius", json!({"edge": edge.name}), length);
                let straight = part.flat.segments_of(edge.panel, edge.tag).iter().all(|one| one.is_line());
                if straight {
                    hold(&mut seen, part, "edge_length", json!({"edge": edge.name}), sum);
                }
            }
            // Distances of everything from everything: the places stand on the features.
            let Ok(body) = folded_body(&part.flat) else { continue };
            let mut names: Vec<String> = part.flat.holes.iter().map(|hole| hole.name.clone()).collect();
            names.extend(body.faces.iter().map(|face| face.name.clone()));
            names.sort();
            names.dedup();
            names.truncate(24);
            for from in &names {
                for to in &names {
                    let what = of("distance", json!({"from": from, "to": to}));
                    let Ok(found) = measure(part, &what) else { continue };
                    let place = one(&found.witnesses);
                    assert_eq!(place.on, WitnessOn::Made);
                    assert!(
                        (place.length().abs() - found.value).abs() < 1e-6,
                        "{family} {seed} {from} {to}: {found:?}"
                    );
                    // One of them stands on its feature; the other opposite to it, on the other's plane or axis.
                    let (one, two) = (off(&body, from, place.from), off(&body, to, place.to));
                    let on = |off: f64| off < 1e-6 || off.is_infinite();
                    assert!(on(one) && on(two), "{family} {seed} {from} {to}: {one} {two} {place:?}");
                    *seen.entry("distance".into()).or_default() += 1;
                }
            }
        }
    }
    println!("{seen:?}");
    for key in ["size", "blank_size", "leg", "diameter", "hole_size", "edge_length", "inside_radius", "distance"] {
        assert!(seen.get(key).is_some_and(|&count| count > 20), "{key}: {seen:?}");
    }
}

#[test]
fn the_way_between_the_witnesses_of_a_frame_is_what_was_measured() {
    let mut seen: BTreeMap<&str, usize> = BTreeMap::new();
    for (family, make) in [("frame", trials::frame as fn(u64) -> Value), ("joints", trials::joints)] {
        for seed in 0..trials::cases(40) {
            let outcome = outcome(&make(seed));
            let Some(frame) = outcome.frame() else { continue };
            let made = &frame.made;
            let mut hold = |key: &'static str, fields: Value, straight: bool| {
                let what: FrameMeasure = serde_json::from_value(json!({key: fields})).unwrap();
                let Ok(found) = made.measure(&what) else { return };
                let place = one(&found.witnesses);
                let away = (place.length().abs() - found.value.abs()).abs();
                if straight {
                    assert!(away < 1e-6, "{family} {seed} {what:?}: {found:?}");
                } else {
                    // A chord is no longer than what it spans, but for what the grip takes.
                    assert!(place.length() < found.value + 1e-6, "{family} {seed} {what:?}: {found:?}");
                }
                assert!((place.along.length() - 1.0).abs() < 1e-9 || found.value < 1e-9, "{what:?} {place:?}");
                *seen.entry(key).or_default() += 1;
            };
            for axis in ["x", "y", "z"] {
                hold("overall", json!({"along": axis}), true);
                hold("frame_centre", json!({"along": axis}), true);
            }
            for member in &made.frame.members {
                hold("member_length", json!({"member": member.name}), member.is_straight());
                hold("short_length", json!({"member": member.name}), member.is_straight());
            }
            for (at, one) in made.frame.members.iter().enumerate() {
                for other in &made.frame.members[..at] {
                    hold("opening", json!({"from": one.name, "to": other.name}), true);
                }
            }
            for pair in made.frame.skeleton.nodes.windows(2) {
                hold("nodes", json!({"from": pair[0].name, "to": pair[1].name}), true);
                hold("nodes", json!({"from": pair[0].name, "to": pair[1].name, "along": "y"}), true);
            }
            let name = |at: usize, face: &str| format!("{}.{face}", made.frame.members[at].name);
            for at in 1..made.frame.members.len().min(12) {
                for face in ["top", "left", "start"] {
                    hold("faces", json!({"from": name(at - 1, face), "to": name(at, face)}), true);
                }
            }
        }
    }
    println!("{seen:?}");
    for key in ["overall", "member_length", "short_length", "opening", "nodes", "faces"] {
        assert!(seen.get(key).is_some_and(|&count| count > 10), "{key}: {seen:?}");
    }
}

/// A dimension line that was wrong: two holes at different depths were spanned aslant, though they are measured square.
#[test]
fn holes_of_two_panels_are_spanned_square() {
    let bracket = json!({
        "steelk": 1, "kind": "sheet", "mark": "W-1", "title": "step", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "3 mm"}, "bending": {"radius": "3 mm"},
        "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "100 mm", "depth": "80 mm"}}}}},
            {"name": "step", "do": {"joggle": {"edge": "base.back", "offset": "20 mm", "leg": "40 mm"}}},
            {"name": "low", "do": {"drill": {"panel": "base", "diameter": "9 mm",
                "place": {"from": [{"edge": "base.left", "distance": "30 mm"}, {"edge": "base.front", "distance": "20 mm"}]}}}},
            {"name": "high", "do": {"drill": {"panel": "step", "diameter": "9 mm",
                "place": {"from": [{"edge": "step.left", "distance": "30 mm"}, {"edge": "step.end", "distance": "15 mm"}]}}}},
        ],
    });
    let outcome = outcome(&bracket);
    let part = outcome.part().unwrap_or_else(|| panic!("{:?}", outcome.findings));
    let found = measure(part, &of("distance", json!({"from": "low", "to": "high"}))).unwrap();
    let place = one(&found.witnesses);
    assert!((place.from.z - place.to.z).abs() < 1e-9, "{place:?}");
    assert!((place.from.distance(place.to) - found.value).abs() < 1e-9, "{place:?} {}", found.value);
}
/// Two faces square to each other have no distance: rounding made the sine of their angle more than one, its angle no number, and the
/// measure a length.
#[test]
fn faces_that_are_square_have_no_distance() {
    let mut refused = 0;
    for turn in 0..90 {
        let plate = json!({
            "steelk": 1, "kind": "plate", "mark": "W-2", "title": "turned", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275", "thickness": "3 mm"},
            "operations": [
                {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "235 mm", "depth": "158 mm"}}}}},
                {"name": "slot", "do": {"cut": {"panel": "base", "width": "15 mm", "height": "15 mm", "turn": format!("{turn} deg")}}},
            ],
        });
        let outcome = outcome(&plate);
        let part = outcome.part().unwrap_or_else(|| panic!("{:?}", outcome.findings));
        let what = of("distance", json!({"from": "slot.side-1.base", "to": "slot.side-2.base"}));
        let fault = measure(part, &what).expect_err("square faces");
        assert!(fault.message.contains("not parallel"), "{fault:?}");
        let across = of("distance", json!({"from": "slot.side-1.base", "to": "slot.side-3.base"}));
        assert!((measure(part, &across).unwrap().value - 15.0).abs() < 1e-9);
        refused += 1;
    }
    assert_eq!(refused, 90);
}

/// The end of a bend is a wall too: its normal was shorter than one, and a distance from it by as much too small.
#[test]
fn the_end_of_a_bend_is_as_far_as_the_edge_beside_it() {
    let bracket = json!({
        "steelk": 1, "kind": "sheet", "mark": "W-3", "title": "bracket", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "2 mm"}, "bending": {"radius": "4 mm"},
        "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "180 mm", "depth": "76 mm"}}}}},
            {"name": "wall", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "40 mm"}}},
            {"name": "eye", "do": {"drill": {"panel": "base", "diameter": "9 mm",
                "place": {"from": [{"edge": "base.left", "distance": "90 mm"}, {"edge": "base.front", "distance": "30 mm"}]}}}},
        ],
    });
    let outcome = outcome(&bracket);
    let part = outcome.part().unwrap_or_else(|| panic!("{:?}", outcome.findings));
    for wall in ["base.left", "wall.left", "wall.bend.left"] {
        let found = measure(part, &of("distance", json!({"from": "eye", "to": wall}))).unwrap();
        assert!((found.value - 90.0).abs() < 1e-9, "{wall}: {}", found.value);
    }
}

/// A hole whose middle is in a bend: its axis stands square to the metal there, and not where its panel would run on.
#[test]
fn the_axis_of_a_hole_in_a_bend_stands_on_the_bend() {
    let bracket = json!({
        "steelk": 1, "kind": "sheet", "mark": "W-4", "title": "bracket", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "2 mm"}, "bending": {"radius": "20 mm"},
        "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "180 mm", "depth": "76 mm"}}}}},
            {"name": "wall", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "60 mm"}}},
            {"name": "eye", "do": {"cut": {"panel": "base", "outline": {"circle": {"diameter": "6 mm"}}, "reach": "flat",
                "place": {"from": [{"edge": "base.left", "distance": "90 mm"}, {"edge": "wall.tangent", "distance": "-16 mm"}]}}}},
        ],
    });
    let outcome = outcome(&bracket);
    let part = outcome.part().unwrap_or_else(|| panic!("{:?}", outcome.findings));
    let strip = part.flat.nodes.iter().position(|node| !node.is_panel()).unwrap();
    let hole = &part.flat.holes[0];
    assert!(part.flat.nodes[strip].region.outer.contains(hole.centre), "{:?}", hole.centre);
    let steelk_core::measure::Feature::Line { ends, direction, .. } =
        steelk_core::measure::feature(part, "eye").unwrap()
    else {
        panic!("an axis")
    };
    // The bend's own axis: R 20 over the inner face, which is the upper one; the hole's axis runs through it.
    let bend = part.flat.strip_of(&part.flat.bends[0]);
    let turned = bend.local(hole.centre).1 / bend.width * bend.angle;
    assert!(turned > 0.2 && turned < 1.4, "{turned}");
    assert!((direction.z.abs() - turned.cos()).abs() < 1e-9, "{direction:?} {turned}");
    assert!((direction.y.abs() - turned.sin()).abs() < 1e-9, "{direction:?} {turned}");
    assert!((ends[1].distance(ends[0]) - 2.0).abs() < 1e-9);
}
