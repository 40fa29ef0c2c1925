//! Random drilled bars: any section, any face, holes off the middle by anything.

use serde_json::{Value, json};

use crate::trials::Dice;

const SECTIONS: [&str; 14] = [
    "SHS 50x50x3",
    "RHS 80x40x4",
    "RHS 60x40x3",
    "CHS 48.3x3.2",
    "CHS 33.7x2.6",
    "UPE 100",
    "UPN 140",
    "IPE 120",
    "IPE 160",
    "L 60x40x5",
    "L 50x50x5",
    "FL 50x8",
    "SHS 40x40x3",
    "UPE 120",
];
const FACES: [&str; 4] = ["top", "bottom", "left", "right"];

/// A bar with one to three holes.
pub fn drilled(seed: u64) -> Value {
    let mut dice = Dice::new(seed + 9_000_000);
    let share = |dice: &mut Dice| dice.below(2001) as f64 / 1000.0 - 1.0;
    let inch = dice.one_in(4);
    let length = |mm: f64| if inch { format!("{:.5} in", mm / 25.4) } else { format!("{mm:.3} mm") };
    let section = *dice.pick(&SECTIONS);
    let by = json!({"x": length(share(&mut dice) * 300.0 + 400.0), "y": length(share(&mut dice) * 300.0), "z": length(share(&mut dice) * 200.0)});
    let mut operations = vec![
        json!({"name": "run", "do": {"path": {"start": {}, "legs": [{"by": by}]}}}),
        json!({"name": "bar", "do": {"member": {"lines": ["run"], "section": section, "roll": format!("{} deg", dice.below(360))}}}),
    ];
    if dice.one_in(2) {
        operations.push(json!({"name": "cut", "do": {"end": {"of": ["bar"], "at": *dice.pick(&["start", "finish"]), "how": {"angle": {
            "angle": format!("{} deg", dice.below(60) as i64 - 30), "tilt": format!("{} deg", dice.below(40) as i64 - 20)}}}}}));
    }
    for at in 0..=dice.below(3) {
        // Whole sizes now and then, so that rims touch the corners' tangents.
        let off = if dice.one_in(3) { dice.below(41) as f64 - 20.0 } else { share(&mut dice) * 25.0 };
        let diameter = 3.0 + dice.below(40) as f64 / if dice.one_in(2) { 1.0 } else { 2.0 };
        operations.push(json!({"name": format!("hole{at}"), "do": {"bore": {"of": ["bar"], "face": *dice.pick(&FACES),
            "diameter": length(diameter), "at": length(70.0 + 60.0 * at as f64), "off": length(off), "one_wall": dice.one_in(3)}}}));
    }
    json!({"steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Drilled bar", "quantity": 1, "unit": if inch { "in" } else { "mm" },
        "stock": {"material": "S275"}, "operations": operations})
}
