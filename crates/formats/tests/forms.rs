//! Pressed forms in the STEP against a solid kernel, which makes each of half spaces and cones, told what a drawing tells.
//! `STEELK_CASES=200 cargo test -p steelk-formats --test all forms:: -- --nocapture` for the long run.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, audit_fully, evaluate};
use steelk_core::sheet::folded_body;
use steelk_testing::python::answers;
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, piece};

/// Between two sizes, in hundredths.
fn between(dice: &mut Dice, low: f64, high: f64) -> f64 {
    low + dice.below(((high - low) * 100.0) as usize + 1) as f64 / 100.0
}

/// A form as a piece says it, and in numbers. It fits a square of 44 mm.
fn shape(dice: &mut Dice, thickness: f64) -> (Value, Value) {
    let side: f64 = *dice.pick(&[30.0, 45.0, 60.0, 75.0, 90.0]);
    let degrees = format!("{side} deg");
    let height = thickness * between(dice, 0.3, 1.2);
    match dice.below(6) {
        0 => {
            let (width, high) = (between(dice, 10.0, 18.0), thickness * between(dice, 1.7, 2.6));
            let (side, toward) = (side.max(60.0), dice.one_in(2));
            let said = json!({"louvre": {"length": dice.text(40.0), "width": dice.text(width), "height": dice.text(high),
                "opens": if toward { "toward" } else { "away" }, "side": format!("{side} deg")}});
            let told = json!({"kind": "louvre", "length": 40.0, "width": width, "height": high, "side": side, "toward": toward});
            (said, told)
        }
        1 => {
            let (length, width) = (between(dice, 30.0, 42.0), between(dice, 18.0, 24.0));
            let said = json!({"bead": {"length": dice.text(length), "width": dice.text(width), "height": dice.text(height),
                "side": degrees}});
            (said, json!({"kind": "bead", "length": length, "width": width, "height": height, "side": side}))
        }
        2 => {
            let diameter = between(dice, 20.0, 40.0);
            let said =
                json!({"dimple": {"diameter": dice.text(diameter), "height": dice.text(height), "side": degrees}});
            (said, json!({"kind": "dimple", "diameter": diameter, "height": height, "side": side}))
        }
        5 => {
            let (diameter, high) = (between(dice, 12.0, 40.0), thickness * between(dice, 0.2, 0.9));
            let said = json!({"knock_out": {"diameter": dice.text(diameter), "height": dice.text(high)}});
            (said, json!({"kind": "knock_out", "diameter": diameter, "height": high}))
        }
        3 => {
            let (diameter, high, wall) =
                (between(dice, 12.0, 30.0), thickness * between(dice, 0.5, 1.5), thickness * between(dice, 0.3, 0.9));
            let said = json!({"extruded": {"diameter": dice.text(diameter), "height": dice.text(high), "wall": dice.text(wall)}});
            (said, json!({"kind": "extruded", "diameter": diameter, "height": high, "wall": wall}))
        }
        _ => {
            let (width, depth) = (between(dice, 26.0, 40.0), between(dice, 26.0, 40.0));
            let outline = json!({"rectangle": {"width": dice.text(width), "depth": dice.text(depth)}});
            let said = json!({"raised": {"outline": outline, "height": dice.text(height), "side": degrees}});
            (said, json!({"kind": "field", "width": width, "depth": depth, "height": height, "side": side}))
        }
    }
}

/// A part without its forms, with them, and what the kernel is told.
fn random(dice: &mut Dice) -> (Piece, Piece, Value) {
    let thickness = between(dice, 0.8, 3.0);
    let flange = dice.below(3);
    let down = flange == 2;
    let mut plain = vec![base("190 mm", "140 mm")];
    if flange > 0 {
        let way = json!({"direction": if down { "down" } else { "up" }});
        plain.push(bend("flange", "base.front", "90 deg", "70 mm", way));
    }
    let (mut work, mut forms) = (plain.clone(), Vec::new());
    let mut places = vec![("base", 40.0, 40.0), ("base", 130.0, 40.0), ("base", 90.0, 95.0)];
    if flange > 0 {
        places.push(("flange", 80.0, 30.0));
    }
    for (panel, x, inward) in places {
        let (said, mut told) = shape(dice, thickness);
        let (x, inward) = (x + between(dice, -5.0, 5.0), inward + between(dice, -2.0, 2.0));
        let (turn, from_top) = (90.0 * dice.below(4) as f64, dice.one_in(2));
        let edges = if panel == "base" { ["base.back", "base.left"] } else { ["flange.end", "flange.left"] };
        work.push(json!({"name": format!("f{}", forms.len() + 1), "do": {"form": {
            "panel": panel, "shape": said, "out_of": if from_top { "top" } else { "bottom" }, "turn": format!("{turn} deg"),
            "place": {"from": [{"edge": edges[0], "distance": dice.text(inward)}, {"edge": edges[1], "distance": dice.text(x)}]},
        }}}));
        for (key, value) in [
            ("panel", json!(panel)),
            ("x", json!(x)),
            ("in", json!(inward)),
            ("turn", json!(turn)),
            ("from_top", json!(from_top)),
        ] {
            told[key] = value;
        }
        forms.push(told);
    }
    let sheet = format!("{thickness} mm");
    let opposite = dice.one_in(3);
    let told = json!({"thickness": thickness, "down": down, "opposite": opposite, "forms": forms});
    let mut ours = piece(&sheet, &sheet, "0.44", json!(work));
    ours.opposite_hand = opposite;
    (piece(&sheet, &sheet, "0.44", json!(plain)), ours, told)
}

#[test]
fn random_forms_against_the_solid_kernel() {
    let folder = std::env::temp_dir().join(format!("steelk-forms-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let (mut asked, mut ours, mut seed, mut unmade) = (Vec::new(), Vec::new(), 0, 0);
    while (asked.len() as u64) < trials::cases(25) {
        seed += 1;
        let (plain, pressed, mut told) = random(&mut Dice::new(seed + 2600));
        let (plain, mut outcome) = (evaluate(&plain, Options::default()), evaluate(&pressed, Options::default()));
        if outcome.findings.iter().any(|one| one.severity == Severity::Error) {
            unmade += 1;
            continue;
        }
        audit_fully(&mut outcome);
        let audit = &outcome.audit;
        let off: Vec<String> = audit.pairs.iter().filter(|pair| !pair.agrees()).map(|pair| pair.words()).collect();
        assert!(off.is_empty() && audit.left_out.is_empty(), "seed {seed}: {off:?} {:?}", audit.left_out);
        for (key, one) in [("plain", &plain), ("ours", &outcome)] {
            let body = folded_body(&one.part().unwrap().flat).unwrap_or_else(|fault| panic!("seed {seed}: {fault}"));
            let path = folder.join(format!("{seed}-{key}.step"));
            std::fs::write(&path, steelk_formats::step::write(&body, "trial", &Default::default())).unwrap();
            told[key] = json!(path);
        }
        asked.push(told);
        ours.push((seed, outcome));
    }
    assert!(unmade < 2 * asked.len(), "{unmade} of {} could not be made", unmade + asked.len());
    let found = answers("ask_forms.py", [] as [&str; 0], &json!(asked).to_string());
    std::fs::remove_dir_all(&folder).unwrap();
    assert_eq!(found.len(), ours.len());
    for ((found, asked), (seed, outcome)) in found.iter().zip(&asked).zip(&ours) {
        let value = |key: &str| found[key].as_f64().unwrap_or_else(|| panic!("seed {seed}: no {key} in {found}"));
        let volume = value("volume");
        assert_eq!(
            (found["valid"].as_bool(), found["solids"].as_u64(), found["shells"].as_u64()),
            (Some(true), Some(1), Some(1)),
            "seed {seed}: {asked}"
        );
        assert!((value("ours") / volume - 1.0).abs() < 1e-6, "seed {seed}: {found} {asked}");
        assert!(value("apart") < 1e-4, "seed {seed}: {found} {asked}");
        assert!(value("more").max(value("less")) < 1e-5 * volume, "seed {seed}: {found} {asked}");
        let size = outcome.figures().unwrap().folded_size;
        for (axis, own) in [size.x, size.y, size.z].into_iter().enumerate() {
            let theirs = found["size"][axis].as_f64().unwrap();
            assert!((own - theirs).abs() < 2e-5, "seed {seed}: {own} {theirs} along {axis} {asked}");
        }
    }
}
