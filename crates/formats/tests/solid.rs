//! Folded parts against a general-purpose solid kernel (`cadquery-ocp-novtk` of the Python registry): it builds twenty
//! parts of its own from their sections, and it opens our STEP files as one valid closed solid.

use serde_json::{Value, json};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::folded_body;
use steelk_testing::python::judged;

fn piece(thickness: &str, radius: &str, operations: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "sheet", "mark": "X-1", "title": "test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": thickness},
        "bending": {"radius": radius, "method": {"k_factor": "0.42"}},
        "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn made(thickness: &str, radius: &str, operations: Value) -> Outcome {
    let outcome = evaluate(&piece(thickness, radius, operations), Options::default());
    let errors: Vec<_> =
        outcome.findings.iter().filter(|one| one.severity == steelk_core::finding::Severity::Error).collect();
    assert!(errors.is_empty(), "{errors:#?}");
    outcome
}

/// Writes STEP files of parts and opens them in the kernel.
fn opened(name: &str, parts: &[Outcome]) -> Vec<Value> {
    let folder = std::env::temp_dir().join(format!("steelk-step-{name}-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let mut paths = Vec::new();
    for (at, outcome) in parts.iter().enumerate() {
        let solid = folded_body(&outcome.part().unwrap().flat).unwrap_or_else(|fault| panic!("{name} {at}: {fault}"));
        let path = folder.join(format!("{at:02}.step"));
        std::fs::write(&path, steelk_formats::step::write(&solid, &format!("{name} {at}"), &Default::default()))
            .unwrap();
        paths.push(path);
    }
    let found = judged("read_step.py", &paths);
    std::fs::remove_dir_all(&folder).unwrap();
    found
}

/// One valid closed solid with the volume that we state.
#[track_caller]
fn check(found: &Value, outcome: &Outcome, name: &str) {
    assert_eq!(
        (found["solids"].as_u64(), found["valid"].as_bool(), found["closed"].as_bool()),
        (Some(1), Some(true), Some(true)),
        "{name}"
    );
    let figures = outcome.figures().unwrap();
    let (volume, stated) = (found["volume"].as_f64().unwrap(), figures.folded_volume + figures.formed);
    assert!((volume / stated - 1.0).abs() < 1e-6, "{name}: {volume} in the file, {stated} stated");
}

/// A part from its profile, and its chain worked out by hand from the drawing's numbers: straights after setbacks
/// (handbook: (R + T) tan(A/2) to 90 deg, R + T above), bends as angle, inside radius and way.
fn by_profile(thickness: f64, radius: f64, legs: &[(f64, f64)]) -> (Outcome, Value) {
    let text: Vec<Value> = legs
        .iter()
        .map(|(length, turn)| json!({"line": {"length": format!("{length} mm"), "turn": format!("{turn} deg")}}))
        .collect();
    let outcome = made(
        &format!("{thickness} mm"),
        &format!("{radius} mm"),
        json!([{"name": "p", "do": {"profile": {"legs": text, "width": "80 mm", "stays": "leg-1"}}}]),
    );
    let setback = |turn: f64| {
        let half = (turn.abs() / 2.0).to_radians();
        if turn == 0.0 {
            0.0
        } else if turn.abs() > 90.0 {
            radius + thickness
        } else {
            (radius + thickness) * half.tan()
        }
    };
    let mut chain = Vec::new();
    for (at, (length, turn)) in legs.iter().enumerate() {
        if at > 0 {
            chain.push(json!(["a", turn.abs(), radius, if *turn > 0.0 { "up" } else { "down" }]));
        }
        let next = legs.get(at + 1).map_or(0.0, |leg| leg.1);
        let before = if at > 0 { setback(*turn) } else { 0.0 };
        chain.push(json!(["s", length - before - setback(next)]));
    }
    (outcome, json!({"thickness": thickness, "width": 80.0, "chain": chain}))
}

#[test]
fn twenty_parts_built_independently_agree() {
    let mut parts: Vec<(Outcome, Value)> = Vec::new();
    // Angles, acute and obtuse, up and down; channels, lipped channel, Z, hat, a spiral of many bends.
    for (thickness, radius, legs) in [
        (2.0, 3.0, vec![(60.0, 0.0), (40.0, 90.0)]),
        (3.0, 3.0, vec![(80.0, 0.0), (50.0, 45.0)]),
        (1.5, 2.0, vec![(60.0, 0.0), (40.0, 120.0)]),
        (4.0, 6.0, vec![(90.0, 0.0), (70.0, -60.0)]),
        (2.0, 2.0, vec![(60.0, 0.0), (40.0, 150.0)]),
        (1.0, 1.0, vec![(40.0, 0.0), (80.0, 90.0), (40.0, 90.0)]),
        (2.0, 3.0, vec![(15.0, 0.0), (40.0, 90.0), (100.0, 90.0), (40.0, 90.0), (15.0, 90.0)]),
        (2.0, 2.0, vec![(40.0, 0.0), (60.0, 90.0), (40.0, -90.0)]),
        (1.5, 1.5, vec![(25.0, 0.0), (40.0, 90.0), (60.0, -90.0), (40.0, -90.0), (25.0, 90.0)]),
        (2.0, 4.0, vec![(50.0, 0.0), (60.0, 30.0), (50.0, 30.0), (60.0, 30.0), (40.0, 30.0)]),
        (6.0, 9.0, vec![(120.0, 0.0), (90.0, 75.0), (60.0, -40.0)]),
        (2.0, 2.0, vec![(40.0, 0.0), (30.0, 135.0), (50.0, -110.0)]),
    ] {
        parts.push(by_profile(thickness, radius, &legs));
    }
    // Rolled arcs, with and without leads; a tube with a seam.
    let third = std::f64::consts::FRAC_PI_3;
    for (roll, chain) in [
        (
            json!({"radius": "300 mm", "span": {"angle": "120 deg"}, "width": "80 mm"}),
            json!([["a", 120.0, 300.0, "up"]]),
        ),
        (
            json!({"radius": "100 mm", "to": "outside", "span": {"chord": "98 mm"}, "width": "80 mm", "lead_in": "30 mm", "lead_out": "40 mm"}),
            json!([["s", 30.0], ["a", 2.0 * (0.49f64).asin().to_degrees(), 98.0, "up"], ["s", 40.0]]),
        ),
        (
            json!({"radius": "61 mm", "to": "middle", "span": {"arc": format!("{} mm", 61.0 * third)}, "width": "80 mm", "direction": "down"}),
            json!([["a", 60.0, 60.0, "down"]]),
        ),
        (
            json!({"radius": "50 mm", "span": {"tube": "4 mm"}, "width": "80 mm"}),
            json!([["a", 360.0 - 2.0 * (0.04f64).asin().to_degrees(), 50.0, "up"]]),
        ),
    ] {
        let outcome = made("2 mm", "3 mm", json!([{"name": "r", "do": {"roll": roll}}]));
        parts.push((outcome, json!({"thickness": 2.0, "width": 80.0, "chain": chain})));
    }
    // Flanges on a base, an open hem, a joggle, holes in web and flange: laid along y, so the reference is laid there too.
    let base =
        json!({"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "60 mm", "depth": "80 mm"}}}}});
    let on_right = |action: Value| made("2 mm", "3 mm", json!([base, {"name": "x", "do": action}]));
    parts.push((
        on_right(json!({"bend": {"edge": "base.right", "angle": "70 deg", "leg": "45 mm", "position": "bend_outside"}})),
        json!({"thickness": 2.0, "width": 80.0, "chain": [["s", 60.0], ["a", 70.0, 3.0, "up"], ["s", 45.0 - 5.0 * 35f64.to_radians().tan()]]}),
    ));
    parts.push((
        on_right(json!({"hem": {"edge": "base.right", "style": {"open": {"length": "20 mm", "gap": "6 mm"}}}})),
        json!({"thickness": 2.0, "width": 80.0, "chain": [["s", 55.0], ["a", 180.0, 3.0, "up"], ["s", 15.0]]}),
    ));
    parts.push((
        on_right(json!({"joggle": {"edge": "base.right", "offset": "20 mm", "angle": "90 deg", "leg": "30 mm", "direction": "down"}})),
        json!({"thickness": 2.0, "width": 80.0, "chain": [["s", 60.0], ["a", 90.0, 3.0, "down"], ["s", 12.0], ["a", 90.0, 3.0, "up"], ["s", 30.0]]}),
    ));
    parts.push((
        made(
            "2 mm",
            "3 mm",
            json!([base,
                {"name": "x", "do": {"bend": {"edge": "base.right", "angle": "90 deg", "leg": "50 mm", "position": "bend_outside"}}},
                {"name": "eye", "do": {"drill": {"panel": "x", "diameter": "12 mm", "place": {"from": [{"edge": "x.end", "distance": "20 mm"}, {"edge": "x.front", "distance": "30 mm"}]}}}},
                {"name": "foot", "do": {"drill": {"panel": "base", "diameter": "9 mm", "place": {"from": [{"edge": "base.left", "distance": "15 mm"}, {"edge": "base.front", "distance": "15 mm"}]}}}}
            ]),
        ),
        json!({"thickness": 2.0, "width": 80.0, "chain": [["s", 60.0], ["a", 90.0, 3.0, "up"], ["s", 45.0]], "holes": [
            {"from": [60.0, 30.0, 30.0], "way": [1.0, 0.0, 0.0], "diameter": 12.0, "length": 20.0},
            {"from": [15.0, 15.0, -5.0], "way": [0.0, 0.0, 1.0], "diameter": 9.0, "length": 20.0}
        ]}),
    ));
    assert_eq!(parts.len(), 20);
    let (outcomes, references): (Vec<Outcome>, Vec<Value>) = parts.into_iter().unzip();
    let file = std::env::temp_dir().join(format!("steelk-parts-{}.json", std::process::id()));
    std::fs::write(&file, Value::Array(references.clone()).to_string()).unwrap();
    let built = judged("read_step.py", ["--build".as_ref(), file.as_os_str()]);
    std::fs::remove_file(&file).unwrap();
    let ours = opened("twenty", &outcomes);
    for at in 0..20 {
        let name = format!("part {at}");
        check(&ours[at], &outcomes[at], &name);
        let figures = outcomes[at].figures().unwrap();
        assert_eq!(built[at]["valid"], true, "{name}");
        for field in ["volume", "area"] {
            let (one, two) = (ours[at][field].as_f64().unwrap(), built[at][field].as_f64().unwrap());
            assert!((one / two - 1.0).abs() < 1e-6, "{name}: {field} {one}, the kernel's own part has {two}");
        }
        let stated = figures.folded_volume;
        assert!((built[at]["volume"].as_f64().unwrap() / stated - 1.0).abs() < 1e-6, "{name}: {stated} stated");
        for axis in 0..3 {
            let (one, two) = (&ours[at]["centre"][axis], &built[at]["centre"][axis]);
            let off = (one.as_f64().unwrap() - two.as_f64().unwrap()).abs();
            assert!(off < 1e-5, "{name}: centre {one} against {two}");
        }
        // The last straight stands where its angles turn it: a plane of its size with its normal is in our solid.
        let chain = references[at]["chain"].as_array().unwrap();
        let Some(length) = chain.last().filter(|last| last[0] == "s").map(|last| last[1].as_f64().unwrap()) else {
            continue;
        };
        let heading: f64 = chain
            .iter()
            .filter(|piece| piece[0] == "a")
            .map(|piece| piece[1].as_f64().unwrap().to_radians() * if piece[3] == "up" { 1.0 } else { -1.0 })
            .sum();
        let holes = if at == 19 { std::f64::consts::PI * 36.0 } else { 0.0 };
        let stands = ours[at]["planes"].as_array().unwrap().iter().any(|plane| {
            let n = |axis: usize| plane[axis].as_f64().unwrap();
            let along = (n(0) * -heading.sin() + n(2) * heading.cos()).abs();
            (along - 1.0).abs() < 1e-9 && (n(3) - (length * 80.0 - holes)).abs() < 1e-3
        });
        assert!(stands, "{name}: no plane of {length} x 80 at {} deg", heading.to_degrees());
    }
}

/// Parts whose shells are hard: a closed hem, a teardrop, a tube closed on itself, cuts across bends, tears with no
/// relief, mitred lips, slanted cuts, the opposite hand.
#[test]
fn hard_shells_are_valid_and_closed() {
    let base =
        json!({"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "120 mm", "depth": "80 mm"}}}}});
    let hem = |style: Value| json!([base, {"name": "hem", "do": {"hem": {"edge": "base.back", "style": style}}}]);
    let wall = |corners: Value| {
        json!({"name": "wall", "do": {"bend": {"edge": "base.front", "angle": "90 deg", "leg": "30 mm",
        "also": ["base.back", "base.left", "base.right"], "corners": corners}}})
    };
    let up = json!({"name": "up", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "40 mm"}}});
    let works = vec![
        hem(json!({"closed": {"length": "10 mm"}})),
        hem(json!({"teardrop": {"length": "14 mm", "radius": "2 mm"}})),
        hem(json!({"rolled": {"radius": "4 mm"}})),
        json!([{"name": "tube", "do": {"roll": {"radius": "40 mm", "span": {"tube": "0 mm"}, "width": "60 mm"}}}]),
        json!([base, up, {"name": "slot", "do": {"cut": {"panel": "base", "width": "20 mm", "height": "40 mm", "corner": "6 mm", "reach": "flat",
            "turn": "25 deg", "place": {"from": [{"edge": "up.tangent", "distance": "0 mm"}, {"edge": "base.left", "distance": "60 mm"}]}}}}]),
        json!([base, {"name": "up", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "40 mm", "set_in": {"left": "20 mm"}, "position": "bend_outside"}}}]),
        json!([base, wall(json!({"open": {"relief": {"round": "5 mm"}}}))]),
        json!([base, wall(json!({"closed": {"gap": "0.5 mm"}})), {"name": "lip", "do": {"bend": {"edge": "wall.front.end", "angle": "90 deg", "leg": "12 mm",
            "also": ["wall.back.end", "wall.left.end", "wall.right.end"], "corners": {"mitred": {"gap": "0.5 mm"}}}}}]),
        json!([base, {"name": "lean", "do": {"bend": {"edge": "base.back", "angle": "50 deg", "leg": "40 mm"}}},
            {"name": "pin", "do": {"drill": {"panel": "base", "diameter": "10 mm", "reach": "through", "place": {"from": [{"edge": "base.front", "distance": "40 mm"}]}}}}]),
        json!([base, {"name": "ear", "do": {"crease": {"panel": "base", "edge": "base.back", "distance": "30 mm", "turn": "20 deg", "angle": "90 deg"}}}]),
    ];
    let mut outcomes: Vec<Outcome> = works.iter().map(|work| made("2 mm", "2 mm", work.clone())).collect();
    outcomes
        .push(evaluate(&Piece { opposite_hand: true, ..piece("2 mm", "2 mm", works[7].clone()) }, Options::default()));
    for (at, (found, outcome)) in opened("hard", &outcomes).iter().zip(&outcomes).enumerate() {
        check(found, outcome, &format!("hard shell {at}"));
    }
}

/// Every demo piece, its variants included.
#[test]
fn demo_pieces_open_as_one_valid_solid() {
    let mut outcomes = Vec::new();
    let mut names = Vec::new();
    for piece in steelk_testing::demo_pieces() {
        if piece.kind == steelk_core::piece::Kind::Frame {
            // Of a frame its plates, each a piece of its own.
            for plate in piece.frame_plates(&evaluate(&piece, Options::default())) {
                names.push(plate.mark.clone());
                outcomes.push(evaluate(&plate, Options::default()));
            }
            continue;
        }
        let variants: Vec<Piece> = piece.variants.iter().filter_map(|variant| piece.variant(&variant.name)).collect();
        for one in std::iter::once(piece).chain(variants) {
            for (own, outcome) in steelk_testing::blank_by_blank(one) {
                names.push(own.mark);
                outcomes.push(outcome);
            }
        }
    }
    assert!(names.len() >= 8);
    for ((found, outcome), name) in opened("demo", &outcomes).iter().zip(&outcomes).zip(&names) {
        check(found, outcome, name);
    }
}
