//! Ready frames told to the outside: what is built is as large as was typed, and nothing starts broken.

use serde_json::{Value, json};
use steelk_core::frame::FrameMade;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::space::Box3;
use steelk_testing::trials;

fn frame(operations: Value, settings: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "ready", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "frame": settings, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn ready(kind: &str, sizes: &Value, section: &str, joints: &str, more: Value) -> Value {
    let mut action = json!({"kind": kind, "sizes": sizes, "section": section, "sizes_to": "outside", "joints": joints});
    for (key, value) in more.as_object().unwrap() {
        action[key] = value.clone();
    }
    json!([{"name": "own", "do": {"ready": action}}])
}

fn made(outcome: &Outcome) -> &FrameMade {
    &outcome.frame().unwrap().made
}

/// The box around the metal, from the corners of the mesh: it shares nothing with how sizes were brought to the lines.
fn around(outcome: &Outcome) -> Box3 {
    outcome.mesh.extents()
}

fn sound(piece: &Piece) -> Outcome {
    let outcome = evaluate(piece, Options::default());
    let said: Vec<&String> = outcome
        .findings
        .iter()
        .filter(|one| one.severity == steelk_core::finding::Severity::Error)
        .map(|one| &one.message)
        .collect();
    assert!(said.is_empty(), "{said:?}");
    outcome
}

/// The lowest metal of the members whose lines are called so, mm.
fn lowest(outcome: &Outcome, part: &str) -> f64 {
    let frame = made(outcome);
    let own = frame.frame.members.iter().enumerate().filter(|(_, one)| one.name.contains(part));
    own.map(|(at, _)| frame.member_extents(at).unwrap().low.z).fold(f64::INFINITY, f64::min)
}

/// A table of any section is as wide, deep and high as was typed, stands on the floor, has its rails where they were told, every joint
/// settled, nothing in anything else.
#[test]
fn frames_are_as_large_outside_as_was_typed() {
    let sections = ["SHS 50x50x3", "RHS 60x40x3", "SHS 25x25x2", "RHS 100x50x4"];
    let mut dice = trials::Dice::new(7);
    for case in 0..trials::cases(24) {
        let section = *dice.pick(&sections);
        let joints = *dice.pick(&["mitred_ring", "legs_through"]);
        let (w, d, h) = (dice.size(500, 2000), dice.size(500, 2000), dice.size(500, 1500));
        let mm = |value: f64| format!("{value} mm");
        let rail = 200.0;
        let (kind, sizes, wanted) = match case % 4 {
            0 => ("table", json!({"width": mm(w), "depth": mm(d), "height": mm(h), "rail": mm(rail)}), [w, d, h]),
            1 => ("box", json!({"width": mm(w), "depth": mm(d), "height": mm(h)}), [w, d, h]),
            2 => ("rectangle", json!({"width": mm(w), "depth": mm(d)}), [w, d, 0.0]),
            _ => ("ladder", json!({"length": mm(w), "width": mm(d), "rungs": "4"}), [d, w, 0.0]),
        };
        let said = format!("{kind} {w} x {d} x {h} of {section}, {joints}");
        let outcome = sound(&frame(ready(kind, &sizes, section, joints, json!({})), json!({})));
        let size = around(&outcome).size();
        for (axis, (found, wanted)) in [size.x, size.y, size.z].into_iter().zip(wanted).enumerate() {
            if wanted > 0.0 {
                assert!((found - wanted).abs() < 1e-3, "{said}: {found} along axis {axis}");
            }
        }
        let low = around(&outcome).low;
        assert!(low.x.abs() < 1e-3 && low.y.abs() < 1e-3, "{said}: begins at {low:?}");
        if wanted[2] > 0.0 {
            assert!(low.z.abs() < 1e-3, "{said}: stands at {}", low.z);
        }
        if kind == "table" {
            let under = lowest(&outcome, ".rail-");
            assert!((under - rail).abs() < 1e-3, "{said}: rails {under} from the floor");
        }
        let frame = outcome.frame().unwrap();
        assert!(frame.made.frame.unsettled.is_empty(), "{said}");
        assert!(frame.clashes.is_empty(), "{said}: {:?}", frame.clashes);
    }
}

/// Under a mitred ring the legs end at its underside; legs that run through reach the top, and the ring lies between them.
#[test]
fn legs_are_under_the_ring_or_run_through() {
    let sizes = json!({"width": "1200 mm", "depth": "700 mm", "height": "800 mm"});
    let long = |joints: &str, part: &str| {
        let outcome = sound(&frame(ready("table", &sizes, "SHS 50x50x3", joints, json!({})), json!({})));
        let own = made(&outcome).frame.members.iter().find(|one| one.name.contains(part)).unwrap().length();
        (own * 1e3).round() / 1e3
    };
    assert_eq!(long("mitred_ring", ".leg-1"), 750.0);
    assert_eq!(long("mitred_ring", ".top-front"), 1200.0);
    assert_eq!(long("legs_through", ".leg-1"), 800.0);
    assert_eq!(long("legs_through", ".top-front"), 1100.0);
}

/// Marks read as a shop's, and a second frame in the same piece has its own.
#[test]
fn marks_are_letters_of_what_a_member_is() {
    let sizes = json!({"width": "1200 mm", "depth": "700 mm", "height": "800 mm", "rail": "200 mm"});
    let mut operations = ready("table", &sizes, "SHS 50x50x3", "mitred_ring", json!({}));
    let marks = |operations: &Value| {
        let outcome = sound(&frame(operations.clone(), json!({})));
        let mut all: Vec<String> = made(&outcome).list.lines.iter().map(|line| line.mark.clone()).collect();
        all.sort();
        all
    };
    let first = marks(&operations);
    assert_eq!(first, ["L1", "R1", "R2", "T1", "T2"]);
    let mut second = operations[0].clone();
    second["name"] = json!("other");
    second["do"]["ready"]["at"] = json!({"x": "3000 mm"});
    second["do"]["ready"]["sizes"]["width"] = json!("900 mm");
    operations.as_array_mut().unwrap().push(second);
    let both = marks(&operations);
    let mut own = both.clone();
    own.dedup();
    assert_eq!(both, own, "a mark stands twice");
}

/// What cannot be told to the outside says so, and what is typed is never taken for something else.
#[test]
fn what_has_no_outside_says_so() {
    let refused = |operations: Value| {
        let outcome = evaluate(&frame(operations, json!({})), Options::default());
        let one = outcome.findings.iter().find(|one| one.operation.as_deref() == Some("own")).unwrap().clone();
        (one.field.unwrap_or_default(), one.message)
    };
    let trestle = json!({"length": "1000 mm", "spread": "600 mm", "height": "700 mm"});
    let (field, said) = refused(ready("trestle", &trestle, "SHS 50x50x3", "mitred_ring", json!({})));
    assert!(field == "sizes_to" && said.contains("slanted"), "{field}: {said}");
    let narrow = json!({"width": "40 mm", "depth": "700 mm"});
    let (field, said) = refused(ready("rectangle", &narrow, "SHS 50x50x3", "mitred_ring", json!({})));
    assert!(field == "sizes.width" && said.contains("40 mm"), "{field}: {said}");
    let bare = json!([{"name": "own", "do": {"ready": {"kind": "rectangle", "sizes_to": "outside",
        "sizes": {"width": "800 mm", "depth": "700 mm"}}}}]);
    let (field, said) = refused(bare);
    assert!(field == "sizes_to" && said.contains("no section"), "{field}: {said}");
}

/// With the piece's usual joints a section put on bare lines leaves nothing open: corners of two and of three, tees, straight ones
/// and slanted. A step that says otherwise is done as it says.
#[test]
fn usual_joints_settle_what_no_step_does() {
    for usual in ["mitre", "butt"] {
        for (kind, sizes) in [
            ("rectangle", json!({"width": "800 mm", "depth": "500 mm"})),
            ("box", json!({"width": "800 mm", "depth": "500 mm", "height": "600 mm"})),
            ("table", json!({"width": "800 mm", "depth": "500 mm", "height": "600 mm", "rail": "200 mm"})),
            ("ladder", json!({"length": "2000 mm", "width": "500 mm", "rungs": "4"})),
        ] {
            let operations = json!([
                {"name": "lines", "do": {"ready": {"kind": kind, "sizes": sizes}}},
                {"name": "all", "do": {"member": {"lines": ["lines"], "section": "SHS 40x40x3"}}},
            ]);
            let outcome = sound(&frame(operations.clone(), json!({"usual_joints": usual})));
            let own = outcome.frame().unwrap();
            assert!(own.made.frame.unsettled.is_empty(), "{usual} {kind}");
            assert!(own.clashes.is_empty(), "{usual} {kind}: {:?}", own.clashes);
            // Without it they are open, as in every piece of before.
            let open = sound(&frame(operations, json!({})));
            assert!(!open.frame().unwrap().made.frame.unsettled.is_empty(), "{kind}");
        }
    }
    let two = |joint: Option<&str>| {
        let mut operations = json!([
            {"name": "lines", "do": {"ready": {"kind": "rectangle", "sizes": {"width": "800 mm", "depth": "500 mm"}}}},
            {"name": "all", "do": {"member": {"lines": ["lines"], "section": "SHS 40x40x3"}}},
        ]);
        if let Some(joint) = joint {
            let step = json!({"name": "how", "do": {"joint": {"at": "corners", "how": {joint: {}}}}});
            operations.as_array_mut().unwrap().push(step);
        }
        let outcome = sound(&frame(operations, json!({"usual_joints": "mitre"})));
        let lengths: Vec<f64> = made(&outcome).frame.members.iter().map(|one| one.length().round()).collect();
        lengths
    };
    assert_eq!(two(None), [840.0, 540.0, 840.0, 540.0]);
    assert_eq!(two(Some("butt")).iter().sum::<f64>(), 840.0 * 2.0 + 460.0 * 2.0);
}

/// A rod that runs through a bore made for it is put so: nothing clashes and nothing is welded by the bore's walls; one that does not
/// lie wholly in the bore clashes. Where the bore lies is told from the face, so of two bores off the middle either way one has the rod.
#[test]
fn a_rod_runs_through_a_bore() {
    let mut through = 0;
    for seed in 0..trials::cases(60) {
        let mut dice = trials::Dice::new(seed ^ 0xB03E);
        let any = |dice: &mut trials::Dice, low: i64, high: i64| {
            low as f64 + dice.below(((high - low) * 8) as usize) as f64 / 8.0
        };
        let (x, up, rod) = (any(&mut dice, 100, 900), any(&mut dice, 0, 12), any(&mut dice, 8, 16));
        let slack = any(&mut dice, 0, 4);
        let aside = if dice.one_in(2) { 0.0 } else { any(&mut dice, 0, 4) };
        let mm = |value: f64| format!("{value} mm");
        let far = if dice.one_in(2) { 300.0 } else { -300.0 };
        let section = *dice.pick(&["RD", "CHS"]);
        let section = if section == "RD" { format!("RD {rod}") } else { format!("CHS {rod}x1.5") };
        let face = *dice.pick(&["left", "right"]);
        let with = |off: f64| {
            sound(&frame(
                json!([
                    {"name": "spine", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}},
                    {"name": "cross", "do": {"path": {"start": {"x": mm(x), "y": mm(-far / 2.0), "z": mm(up)},
                        "legs": [{"by": {"y": mm(far)}}]}}},
                    {"name": "tube", "do": {"member": {"lines": ["spine"], "section": "SHS 50x50x3"}}},
                    {"name": "rod", "do": {"member": {"lines": ["cross"], "section": section}}},
                    {"name": "hole", "do": {"bore": {"of": ["tube"], "face": face, "diameter": mm(rod + 2.0 * slack),
                        "at": mm(x + aside), "off": mm(off)}}}
                ]),
                json!({"usual_joints": "mitre"}),
            ))
        };
        let stands = |outcome: &Outcome| {
            let own = outcome.frame().unwrap();
            (own.clashes.is_empty(), own.welds.len())
        };
        let (one, two) = (stands(&with(up)), stands(&with(-up)));
        // In the plane of the faces: the rod's middle to the bore's, and what is left round it.
        let clear = |off: f64| (up - off).hypot(aside) <= slack;
        if clear(up) {
            assert!(one == (true, 0) || two == (true, 0), "seed {seed}: {one:?} {two:?}");
            through += 1;
        } else {
            assert!(!one.0 && !two.0, "seed {seed}: {one:?} {two:?}");
        }
    }
    assert!(through > 10, "{through}");
}
