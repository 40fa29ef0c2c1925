//! Hand-worked blanks, bend by bend. Every expected figure was worked outside this program from the formula named.

use serde_json::json;
use steelk_core::sheet::bending;
use steelk_testing::*;

/// Sum of outside legs less bend deductions, BD = 2 (R + T) tan(A/2) - A (R + K T)
/// (the deduction identity printed in every sheet-metal handbook; worked by hand calculator).
#[test]
fn l_brackets_from_outside_legs() {
    // (T, R, K, angle, base depth, leg, expected blank)
    let worked = [
        ("3 mm", "3 mm", "0.44", "90 deg", 80.0, 60.0, 134.785840), // 140 - 12 + 6.785840
        ("2 mm", "2 mm", "0.42", "90 deg", 50.0, 30.0, 76.461062),  // 80 - 8 + 4.461062
        ("1.5 mm", "1.5 mm", "0.33", "90 deg", 40.0, 25.0, 62.133738), // 65 - 6 + 3.133738
        ("2 mm", "3 mm", "0.44", "30 deg", 60.0, 40.0, 99.352071),  // 100 - 2.679492 + 2.031563
        ("2 mm", "3 mm", "0.44", "45 deg", 60.0, 40.0, 98.905209),  // 100 - 4.142136 + 3.047345
        ("4 mm", "6 mm", "0.45", "60 deg", 100.0, 80.0, 176.621136), // 180 - 11.547005 + 8.168141
    ];
    for (t, r, k, angle, depth, leg, expected) in worked {
        let (tn, rn, kn): (f64, f64, f64) = (
            t.trim_end_matches(" mm").parse().unwrap(),
            r.trim_end_matches(" mm").parse().unwrap(),
            k.parse().unwrap(),
        );
        let a: f64 = angle.trim_end_matches(" deg").parse::<f64>().unwrap().to_radians();
        // The worked figure and the identity agree before the program is asked.
        let identity = depth + leg - (2.0 * (rn + tn) * (a / 2.0).tan() - a * (rn + kn * tn));
        near(identity, expected, 2e-6);
        let made = sound(&piece(
            t,
            r,
            k,
            json!([
                base("120 mm", &format!("{depth} mm")),
                bend("up", "base.back", angle, &format!("{leg} mm"), json!({}))
            ]),
        ));
        near(probe(&made, json!({"blank_size": {"along": "y"}})), identity, 1e-9);
        near(probe(&made, json!({"blank_size": {"along": "x"}})), 120.0, 1e-9);
        // And folded it measures what the drawing said.
        near(probe(&made, json!({"leg": {"bend": "up", "to": "outside"}})), leg, 1e-9);
        near(probe(&made, json!({"bend_angle": {"bend": "up"}})), a, 1e-12);
    }
}

/// Above 90 deg the outside leg is taken to the outermost tangent, setback R + T (common practice):
/// blank = depth + leg - 2 (R + T) + A (R + K T).
#[test]
fn past_square_by_tangent() {
    // 120 deg: 70 + 40 - 2 x 4 + 2.0943951 x 2.84 = 107.948082; 150 deg: 70 + 40 - 8 + 2.6179939 x 2.84 = 109.435103
    for (angle, expected) in [("120 deg", 107.948_082), ("150 deg", 109.435_103)] {
        let made = sound(&piece(
            "2 mm",
            "2 mm",
            "0.42",
            json!([base("100 mm", "70 mm"), bend("up", "base.back", angle, "40 mm", json!({}))]),
        ));
        near(probe(&made, json!({"blank_size": {"along": "y"}})), expected, 2e-6);
        near(probe(&made, json!({"leg": {"bend": "up", "to": "outside"}})), 40.0, 1e-9);
        near(probe(&made, json!({"leg": {"bend": "up", "to": "inside"}})), 38.0, 1e-9);
        // Material inside: the bend's outermost point stands on the 70 mm line.
        near(probe(&made, json!({"size": {"along": "y"}})), 70.0, 1e-9);
    }
}

/// The same 120 deg leg typed to the mould line: setback (R + T) tan 60 deg = 6.928203, so the straight is 33.071797.
#[test]
fn past_square_by_mould_line() {
    let made = sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("100 mm", "70 mm"),
            bend("up", "base.back", "120 deg", "40 mm", json!({"leg_to": "mould", "position": "bend_outside"}))
        ]),
    ));
    near(probe(&made, json!({"leg": {"bend": "up", "to": "tangent"}})), 33.071_797, 1e-6);
    near(probe(&made, json!({"leg": {"bend": "up", "to": "mould"}})), 40.0, 1e-9);
    // 70 + 2.0943951 x 2.84 + 33.071797
    near(probe(&made, json!({"blank_size": {"along": "y"}})), 109.019_879, 2e-6);
}

/// Inside legs: outside = inside + T at 90 deg (plane geometry).
#[test]
fn inside_legs() {
    let made = sound(&piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "57 mm", json!({"leg_to": "inside"}))]),
    ));
    near(probe(&made, json!({"blank_size": {"along": "y"}})), 134.785_840, 1e-6);
    near(probe(&made, json!({"leg": {"bend": "up", "to": "inside"}})), 57.0, 1e-9);
    near(probe(&made, json!({"leg": {"bend": "up", "to": "outside"}})), 60.0, 1e-9);
}

/// Where the bend sits: inside, the 80 mm stays overall; outside, the inside face is on the line (80 + T overall);
/// bend outside, 80 flat + R + T overall.
#[test]
fn bend_positions() {
    for (position, overall, blank) in [
        ("material_inside", 80.0, 134.785_840),
        ("material_outside", 83.0, 137.785_840),
        ("bend_outside", 86.0, 140.785_840),
    ] {
        let made = sound(&piece(
            "3 mm",
            "3 mm",
            "0.44",
            json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "60 mm", json!({"position": position}))]),
        ));
        near(probe(&made, json!({"size": {"along": "y"}})), overall, 1e-9);
        near(probe(&made, json!({"size": {"along": "z"}})), 60.0, 1e-9);
        near(probe(&made, json!({"blank_size": {"along": "y"}})), blank, 1e-6);
    }
}

/// A lip on a flange: three legs, two bends. 80 + 60 + 20 - 2 x (12 - 6.785840) = 149.571681.
#[test]
fn lip_on_a_flange() {
    let made = sound(&piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([
            base("120 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "60 mm", json!({})),
            bend("lip", "up.end", "90 deg", "20 mm", json!({})),
        ]),
    ));
    near(probe(&made, json!({"blank_size": {"along": "y"}})), 149.571_681, 2e-6);
    // Up then up again: the lip comes back over the base, 20 in from the back, at 60 high.
    near(probe(&made, json!({"size": {"along": "z"}})), 60.0, 1e-9);
    near(probe(&made, json!({"distance": {"from": "lip.end", "to": "up.outside"}})), 20.0, 1e-9);
    near(probe(&made, json!({"distance": {"from": "lip.bottom", "to": "base.bottom"}})), 60.0, 1e-9);
}

/// A Z: up then down. Same blank as the U; the lip stands away from the base.
#[test]
fn z_bracket() {
    let made = sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("60 mm", "40 mm"),
            bend("web", "base.back", "90 deg", "50 mm", json!({})),
            bend("foot", "web.end", "90 deg", "30 mm", json!({"direction": "down"})),
        ]),
    ));
    // 40 + 50 + 30 - 2 x (8 - 4.461062) = 112.922124
    near(probe(&made, json!({"blank_size": {"along": "y"}})), 112.922_124, 2e-6);
    // Overall: 40 base, then the foot's 30 from the web's other face: 40 - 2 + 30.
    near(probe(&made, json!({"size": {"along": "y"}})), 68.0, 1e-9);
    // The web's leg is 50 outside of the first bend; the foot's far face stands at that height.
    near(probe(&made, json!({"size": {"along": "z"}})), 50.0, 1e-9);
}

/// Two 45 deg bends make a square corner: the second leg stands upright.
#[test]
fn two_half_bends() {
    let made = sound(&piece(
        "2 mm",
        "3 mm",
        "0.44",
        json!([
            base("60 mm", "40 mm"),
            bend("slope", "base.back", "45 deg", "30 mm", json!({})),
            bend("wall", "slope.end", "45 deg", "25 mm", json!({})),
        ]),
    ));
    // 95 - 2 x (4.142136 - 3.047345) = 92.810419
    near(probe(&made, json!({"blank_size": {"along": "y"}})), 92.810_418, 2e-6);
    near(probe(&made, json!({"angle": {"from": "base", "to": "wall"}})).to_degrees(), 90.0, 1e-9);
    // Mould lines: 40 along, then 30 at 45 deg, then 25 up: overall height 30 sin 45 + 25, depth 40 + 30 cos 45.
    near(probe(&made, json!({"size": {"along": "z"}})), 30.0 * 0.5f64.sqrt() + 25.0, 1e-9);
    near(probe(&made, json!({"size": {"along": "y"}})), 40.0 + 30.0 * 0.5f64.sqrt(), 1e-9);
}

/// A tray with all four sides: each way 2 x 25 + size - 2 x (8 - 4.461062).
#[test]
fn all_four_sides() {
    let relief = json!({"set_in": {}, "relief": {"shape": "rectangular"}});
    let side = |name: &str, edge: &str, a: &str, b: &str| {
        let mut extra = relief.clone();
        extra["set_in"] = json!({a: "8 mm", b: "8 mm"});
        bend(name, edge, "90 deg", "25 mm", extra)
    };
    let made = sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("200 mm", "120 mm"),
            side("front", "base.front", "left", "right"),
            side("right", "base.right", "front", "back"),
            side("back", "base.back", "left", "right"),
            side("left", "base.left", "front", "back"),
        ]),
    ));
    near(probe(&made, json!({"blank_size": {"along": "x"}})), 242.922_124, 2e-6);
    near(probe(&made, json!({"blank_size": {"along": "y"}})), 162.922_124, 2e-6);
    near(probe(&made, json!({"size": {"along": "x"}})), 200.0, 1e-9);
    near(probe(&made, json!({"size": {"along": "y"}})), 120.0, 1e-9);
    near(probe(&made, json!({"size": {"along": "z"}})), 25.0, 1e-9);
    near(probe(&made, json!({"distance": {"from": "left.outside", "to": "right.outside"}})), 200.0, 1e-9);
    near(probe(&made, json!({"distance": {"from": "front.inside", "to": "back.inside"}})), 116.0, 1e-9);
    // Area worked by hand: the base inside its tangent lines, 192 x 112, less a 4 x 4 notch at each corner, plus
    // flanges (184 + 104) x 2 long and 21 + 4.461062 wide: 21504 - 64 + 14665.571712.
    near(part(&made).blank.region.area(), 21_504.0 - 64.0 + 14_665.571_712, 1e-3);
    assert_eq!(made.broken().next(), None, "a tray with open, relieved corners breaks no rule");
}

/// Machinery's Handbook, straight length of a 90 deg bend: 0.55T + 1.57R, 0.64T + 1.57R, 0.71T + 1.57R. The book's
/// constants are rounded to two figures, so K = constant x 2/pi agrees to the rounding of 1.57.
#[test]
fn machinerys_handbook_straight_lengths() {
    for (constant, k) in [(0.55, 0.35), (0.64, 0.41), (0.71, 0.45)] {
        for (t, r) in [(1.0, 1.0), (2.0, 3.0), (3.0, 1.5), (6.0, 10.0)] {
            let book = constant * t + 1.57 * r;
            let ours = bending::allowance(std::f64::consts::FRAC_PI_2, r, k, t);
            near(ours, book, 0.006 * t + 0.001 * r);
        }
    }
}

/// DIN 6935: k and v worked by hand from the standard's formulas. r/s = 1: k = 0.65; r/s = 2: k = 0.80051;
/// r/s = 6: k = 1. v for s 2, r 2, 90 deg: pi/2 (2 + 0.65) - 8 = -3.837394; s 3, r 6, 90 deg:
/// pi/2 (6 + 1.200772) - 18 = -6.689052; s 2, r 12, 60 deg bend (included 120): 1.047198 x 13 - 28 tan 30 = -2.552232.
#[test]
fn din_6935_values() {
    for (s, r, degrees, v) in
        [(2.0, 2.0, 90.0, -3.837_394), (3.0, 6.0, 90.0, -6.689_053), (2.0, 12.0, 60.0, -2.552_238)]
    {
        let angle = f64::to_radians(degrees);
        let allowance = bending::din_6935_allowance(angle, r, s);
        let setback = if degrees < 90.0 { (r + s) * (angle / 2.0).tan() } else { r + s };
        near(allowance - 2.0 * setback, v, 2e-5);
    }
    // Above 165 deg of included angle the correction is nothing.
    let angle = 10f64.to_radians();
    near(bending::din_6935_allowance(angle, 2.0, 2.0) - 2.0 * bending::mould_setback(angle, 2.0, 2.0), 0.0, 1e-12);
}

/// Allowance, deduction and K are one another's inverses (identities).
#[test]
fn identities() {
    for degrees in [15.0, 30.0, 60.0, 90.0] {
        let a = f64::to_radians(degrees);
        let allowance = bending::allowance(a, 3.0, 0.44, 2.5);
        near(bending::k_from_allowance(allowance, a, 3.0, 2.5), 0.44, 1e-12);
        let setback = bending::mould_setback(a, 3.0, 2.5);
        near(2.0 * setback - bending::deduction(setback, allowance), allowance, 1e-12);
    }
}

/// A bend given by its own allowance or deduction, and a piece by the same at 90 deg, all give one blank.
#[test]
fn three_schools_one_blank() {
    let blank = |method: serde_json::Value, of_bend: bool| {
        let extra = if of_bend { json!({"method": method}) } else { json!({}) };
        let mut made = piece(
            "3 mm",
            "3 mm",
            "0.3",
            json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "60 mm", extra)]),
        );
        if !of_bend {
            made.bending.method = serde_json::from_value(method).unwrap();
        }
        probe(&sound(&made), json!({"blank_size": {"along": "y"}}))
    };
    for of_bend in [true, false] {
        let by_k = blank(json!({"k_factor": "0.44"}), of_bend);
        near(by_k, 134.785_840, 1e-6);
        near(blank(json!({"allowance": "pi/2 * (R + 0.44 T)".replace("0.44 T", "0.44*T")}), of_bend), by_k, 1e-9);
        near(blank(json!({"deduction": "2*(R + T) - pi/2 * (R + 0.44*T)"}), of_bend), by_k, 1e-9);
    }
}
