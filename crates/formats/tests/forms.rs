//! Pressed forms in the STEP against a solid kernel, which makes each of half spaces and cones, told what a drawing tells.
//! `STEELK_CASES=200 cargo test -p steelk-formats --test all forms:: -- --nocapture` for the long run.

use serde_json::{Value, json};
use steelk_core::piece::Piece;
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, piece};

use crate::kernel_trial::{KernelTrial, between};

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
    let (mut trial, mut seed) = (KernelTrial::new("ask_forms.py"), 0);
    let wanted = trials::cases(25);
    while (trial.count() as u64) < wanted {
        seed += 1;
        let (plain, ours, told) = random(&mut Dice::new(seed + 2600));
        trial.add(seed, (&plain, &ours), told);
    }
    assert!(seed < 3 * wanted, "{seed} tried for {wanted} that could be made");
    trial.ask();
}
