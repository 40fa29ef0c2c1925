//! Heads, blind and tapped holes in the STEP against a solid kernel, which drills the same part without them by its own tools, told where
//! a person sets them. `STEELK_CASES=200 cargo test -p steelk-formats --test all heads:: -- --nocapture` for the long run.

use serde_json::{Value, json};
use steelk_core::piece::Piece;
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, piece};

use crate::kernel_trial::{KernelTrial, between};

/// Tap drills, mm: D - P (common practice).
const TAPPED: [(&str, f64); 4] = [("M5", 4.2), ("M6", 5.0), ("M8", 6.75), ("M10", 8.5)];

/// A hole on a panel as a piece says it, and what a person sets and drives in.
fn hole(dice: &mut Dice, name: &str, panel: &str, thickness: f64, at: [f64; 2]) -> (Value, Value) {
    let from_top = !dice.one_in(3);
    let [left, within] = at;
    let edges = if panel == "base" { ["base.left", "base.back"] } else { ["flange.left", "flange.end"] };
    let mut fields = json!({
        "panel": panel, "face": if from_top { "top" } else { "bottom" },
        "place": {"from": [
            {"edge": edges[0], "distance": dice.text(left)}, {"edge": edges[1], "distance": dice.text(within)},
        ]},
    });
    let mut drill = between(dice, 3.0, 9.0);
    if dice.one_in(4) {
        let (size, tap) = *dice.pick(&TAPPED);
        drill = tap;
        fields["tapped"] = json!({"thread": size});
    } else {
        fields["diameter"] = json!(dice.text(drill));
    }
    let half = drill / 2.0;
    let mut turned = Vec::new();
    let mut under_head = 0.0f64;
    let head = dice.below(4);
    if head == 1 || head == 3 {
        let angle: f64 = *dice.pick(&[60.0, 82.0, 90.0, 100.0, 120.0]);
        let slope = (angle / 2.0).to_radians().tan();
        let wide = (half + between(dice, 0.5, 5.0)).min(half + slope * thickness * 0.8);
        let deep = (wide - half) / slope;
        under_head = under_head.max(deep);
        fields["countersink"] = json!({"diameter": dice.text(2.0 * wide), "angle": format!("{angle} deg")});
        turned.push(json!([wide, half, 0.0, deep]));
    }
    if head == 2 || head == 3 {
        let (wide, deep) = (half + between(dice, 0.5, 6.0), thickness * between(dice, 0.1, 0.8));
        under_head = under_head.max(deep);
        fields["counterbore"] = json!({"diameter": dice.text(2.0 * wide), "depth": dice.text(deep)});
        turned.push(json!([wide, wide, 0.0, deep]));
    }
    let is_blind = dice.one_in(2);
    if is_blind {
        let depth = under_head + (thickness - under_head) * between(dice, 0.1, 0.95);
        let point = *dice.pick(&[118.0, 118.0, 135.0, 180.0, 90.0]);
        fields["depth"] = json!(dice.text(depth));
        if point != 118.0 {
            fields["point"] = json!(format!("{point} deg"));
        }
        turned.push(json!([half, half, 0.0, depth]));
        if point < 180.0 {
            // The whole point: what of it comes out of the back takes nothing there.
            turned.push(json!([half, 0.0, depth, depth + half / (point / 2.0f64).to_radians().tan()]));
        }
    } else {
        turned.push(json!([half, half, 0.0, thickness + 1.0]));
    }
    let told = json!({"panel": panel, "x": left, "in": within, "from_top": from_top, "turned": turned});
    (json!({"name": name, "do": {"drill": fields}}), told)
}

/// A part without its holes, with them, and what the kernel is told.
fn random(dice: &mut Dice) -> (Piece, Piece, Value) {
    let thickness = between(dice, 3.0, 14.0);
    let (across, up) = (2 + dice.below(3), 2 + dice.below(2));
    // A cell of 36 mm for each: heads keep apart.
    let (width, depth) = (36.0 * across as f64 + 40.0, 36.0 * up as f64 + 60.0);
    let flange = dice.below(3);
    let down = flange == 2;
    let mut plain = vec![base(&format!("{width} mm"), &format!("{depth} mm"))];
    if flange > 0 {
        let way = json!({"direction": if down { "down" } else { "up" }});
        plain.push(bend("flange", "base.front", "90 deg", "90 mm", way));
    }
    let (mut work, mut holes) = (plain.clone(), Vec::new());
    let mut panels = vec![("base", across, up)];
    if flange > 0 {
        panels.push(("flange", across, 1));
    }
    for (panel, columns, rows) in panels {
        for (column, row) in (0..columns).flat_map(|column| (0..rows).map(move |row| (column, row))) {
            if dice.one_in(3) {
                continue;
            }
            let spot = [20.0 + 18.0 + 36.0 * column as f64, 20.0 + 36.0 * row as f64];
            let spot = spot.map(|at| at + between(dice, -2.0, 2.0));
            let (said, told) = hole(dice, &format!("h{}", holes.len() + 1), panel, thickness, spot);
            work.push(said);
            holes.push(told);
        }
    }
    let radius = format!("{thickness} mm");
    let made = |work: Vec<Value>| piece(&radius, &radius, "0.44", json!(work));
    let opposite = dice.one_in(3);
    let told = json!({"thickness": thickness, "down": down, "opposite": opposite, "holes": holes});
    let mut ours = made(work);
    ours.opposite_hand = opposite;
    (made(plain), ours, told)
}

#[test]
fn random_heads_and_blind_holes_against_the_solid_kernel() {
    let mut trial = KernelTrial::new("ask_heads.py");
    for seed in 0..trials::cases(25) {
        let (plain, ours, told) = random(&mut Dice::new(seed + 1800));
        assert!(trial.add(seed, (&plain, &ours), told), "seed {seed} is refused");
    }
    trial.ask();
}
