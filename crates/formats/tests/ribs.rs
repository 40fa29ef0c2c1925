//! Ribs across bends in the STEP against a solid kernel, which lays straight prisms into the filled sheet, told what a drawing tells.
//! `STEELK_CASES=200 cargo test -p steelk-formats --test all ribs:: -- --nocapture` for the long run.

use serde_json::{Value, json};
use steelk_core::piece::Piece;
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, piece};

use crate::kernel_trial::{KernelTrial, between};

/// A part without its ribs, with them, and what the kernel is told.
fn random(dice: &mut Dice) -> (Piece, Piece, Value) {
    let thickness = between(dice, 0.8, 4.0);
    let radius = thickness * between(dice, 0.8, 3.0);
    let angle = match dice.below(4) {
        0 => 90.0,
        1 => *dice.pick(&[15.0, 30.0, 45.0, 120.0, 135.0, 150.0]),
        _ => (15 + dice.below(136)) as f64,
    };
    let (down, front) = (dice.one_in(2), dice.one_in(2));
    let edge = if front { "base.front" } else { "base.back" };
    let way = json!({"direction": if down { "down" } else { "up" }});
    let mut plain = vec![base("300 mm", "120 mm"), bend("wall", edge, &format!("{angle} deg"), "90 mm", way)];
    let outside = radius + thickness;
    let setback = if angle > 90.0 { outside } else { outside * (angle / 2.0f64).to_radians().tan() };
    let mut ribs = Vec::new();
    let (is_round, draft) = (dice.one_in(2), *dice.pick(&[0.0, 5.0, 15.0, 30.0, 45.0]));
    let width = thickness * between(dice, 2.2, 7.0);
    let leg = setback + between(dice, 1.5, 12.0) * thickness + 0.3 * radius;
    let other = if dice.one_in(3) { leg } else { (leg - setback) * between(dice, 0.7, 1.4) + setback };
    let mut fields = json!({
        "bend": "wall", "panel_leg": dice.text(leg), "flange_leg": dice.text(other), "width": dice.text(width),
        "ridge": if is_round { "round" } else { "flat" }, "draft": format!("{draft} deg"),
    });
    // Where they stand, from the left: one, or a row with its end distances or its pitch.
    let places = match dice.below(4) {
        0 => vec![150.0],
        1 => {
            let at = between(dice, 60.0, 200.0);
            fields["from"] = json!("left");
            fields["at"] = json!(dice.text(at));
            vec![at]
        }
        2 => {
            let (at, last) = (between(dice, 60.0, 70.0), between(dice, 60.0, 80.0));
            (fields["from"], fields["count"]) = (json!("right"), json!("2"));
            (fields["at"], fields["last"]) = (json!(dice.text(at)), json!(dice.text(last)));
            vec![300.0 - at, last]
        }
        _ => {
            (fields["count"], fields["pitch"]) = (json!("2"), json!("140 mm"));
            vec![80.0, 220.0]
        }
    };
    // Now and then a window over the bend, or one within it, clear of the ribs: the bend's faces fall apart beside it.
    if dice.one_in(2) {
        let x = if places.len() == 2 { 150.0 } else { 270.0 };
        let strip = f64::to_radians(angle) * (radius + 0.44 * thickness);
        let high = if dice.one_in(2) { strip * 0.4 } else { strip + 10.0 };
        plain.push(json!({"name": "window", "do": {"cut": {"panel": "base", "reach": "flat", "width": "9 mm",
            "height": format!("{high} mm"), "place": {"from": [{"edge": "wall.tangent", "distance": format!("{} mm", -strip / 2.0)},
                {"edge": "base.left", "distance": format!("{x} mm")}]}}}}));
    }
    let mut work = plain.clone();
    for x in places {
        ribs.push(json!({"x": x, "panel": leg, "flange": other, "width": width, "round": is_round, "draft": draft}));
    }
    work.push(json!({"name": "rib", "do": {"rib": fields}}));
    let opposite = dice.one_in(3);
    let told = json!({"thickness": thickness, "radius": radius, "angle": angle, "down": down, "front": front,
        "opposite": opposite, "size": [300.0, 120.0], "ribs": ribs});
    let made = |work: Vec<Value>| piece(&format!("{thickness} mm"), &format!("{radius} mm"), "0.44", json!(work));
    let mut ours = made(work);
    ours.opposite_hand = opposite;
    (made(plain), ours, told)
}

#[test]
fn random_ribs_against_the_solid_kernel() {
    let (mut trial, mut seed) = (KernelTrial::new("ask_ribs.py"), 0);
    let wanted = trials::cases(25);
    while (trial.count() as u64) < wanted {
        seed += 1;
        let (plain, ours, told) = random(&mut Dice::new(seed + 3100));
        trial.add(seed, (&plain, &ours), told);
    }
    assert!(seed < 4 * wanted, "{seed} tried for {wanted} that could be made");
    trial.ask();
}
