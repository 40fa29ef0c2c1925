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

/// A bar with one to three holes, one in three of them bent once or twice.
pub fn drilled(seed: u64) -> Value {
    let mut dice = Dice::new(seed + 9_000_000);
    let share = |dice: &mut Dice| dice.below(2001) as f64 / 1000.0 - 1.0;
    let inch = dice.one_in(4);
    let length = |mm: f64| if inch { format!("{:.5} in", mm / 25.4) } else { format!("{mm:.3} mm") };
    let section = *dice.pick(&SECTIONS);
    let by = json!({"x": length(share(&mut dice) * 300.0 + 400.0), "y": length(share(&mut dice) * 300.0), "z": length(share(&mut dice) * 200.0)});
    let mut legs = vec![json!({"by": by})];
    let bends = if dice.one_in(3) { 1 + dice.below(2) } else { 0 };
    for _ in 0..bends {
        let by = json!({"x": length(share(&mut dice) * 500.0), "y": length(share(&mut dice) * 300.0), "z": length(900.0 + share(&mut dice) * 200.0)});
        legs.push(json!({"by": by}));
    }
    let mut operations = vec![json!({"name": "run", "do": {"path": {"start": {}, "legs": legs}}})];
    let mut lines = vec!["run".to_string()];
    for at in 0..bends {
        let radius = length(180.0 + dice.below(120) as f64);
        operations.push(json!({"name": format!("soft{at}"), "do": {"round": {"node": format!("run.n{}", at + 2), "radius": radius}}}));
        lines.push(format!("soft{at}"));
    }
    operations.push(json!({"name": "bar", "do": {"member": {"lines": lines, "section": section, "roll": format!("{} deg", dice.below(360))}}}));
    if dice.one_in(2) {
        operations.push(json!({"name": "cut", "do": {"end": {"of": ["bar"], "at": *dice.pick(&["start", "finish"]), "how": {"angle": {
            "angle": format!("{} deg", dice.below(60) as i64 - 30), "tilt": format!("{} deg", dice.below(40) as i64 - 20)}}}}}));
    }
    for at in 0..=dice.below(3) {
        // Whole sizes now and then, so that rims touch the corners' tangents.
        let off = if dice.one_in(3) { dice.below(41) as f64 - 20.0 } else { share(&mut dice) * 25.0 };
        let diameter = 3.0 + dice.below(40) as f64 / if dice.one_in(2) { 1.0 } else { 2.0 };
        operations.push(json!({"name": format!("hole{at}"), "do": {"bore": {"of": ["bar"], "face": *dice.pick(&FACES),
            "diameter": length(diameter), "at": length((70.0 + 60.0 * at as f64) * if bends > 0 { 4.0 } else { 1.0 }), "off": length(off), "one_wall": dice.one_in(3)}}}));
    }
    json!({"steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Drilled bar", "quantity": 1, "unit": if inch { "in" } else { "mm" },
        "stock": {"material": "S275"}, "operations": operations})
}

const TUBES: [&str; 5] = ["CHS 33.7x2.6", "CHS 48.3x3.2", "CHS 60.3x3.2", "RD 30", "CHS 42.4x2.6"];

/// Two or three diagonals from a place of a round chord, each cut to the chord and to those before it.
pub fn two_rounds(seed: u64) -> Value {
    let mut dice = Dice::new(seed + 11_000_000);
    let one = |dice: &mut Dice| (*dice.pick(&TUBES)).to_string();
    let chord = one(&mut dice);
    // Of one size as often as not: then their curves are flat and cross each other.
    let other = match dice.below(4) {
        0 | 1 => chord.clone(),
        2 => one(&mut dice),
        // Straight edges beside round ones.
        _ => (*dice.pick(&["SHS 40x40x3", "FL 50x8", "RHS 60x40x3"])).to_string(),
    };
    let mut operations = vec![
        json!({"name": "p", "do": {"path": {"start": {}, "legs": [{"by": {"name": "l", "x": "900 mm"}}]}}}),
        json!({"name": "n", "do": {"node": {"on": {"line": "p.l", "distance": "450 mm"}}}}),
    ];
    let mut lines = Vec::new();
    for at in 0..2 + usize::from(dice.one_in(4)) {
        let (x, y) =
            (dice.below(600) as f64 - 300.0, if dice.one_in(3) { 0.0 } else { dice.below(500) as f64 - 250.0 });
        operations.push(json!({"name": format!("d{at}"), "do": {"path": {"start": {"from": "n"},
            "legs": [{"by": {"name": "b", "x": format!("{x} mm"), "y": format!("{y} mm"), "z": "500 mm"}}]}}}));
        lines.push(format!("d{at}.b"));
    }
    operations.push(json!({"name": "c", "do": {"member": {"lines": ["p"], "section": chord.clone()}}}));
    // The first is a tube of its own, so that what is cut to it meets two rounds whatever its section is.
    let first = if dice.one_in(2) { chord.clone() } else { one(&mut dice) };
    operations.push(json!({"name": "f", "do": {"member": {"lines": [lines.remove(0)], "section": first}}}));
    operations.push(json!({"name": "m", "do": {"member": {"lines": lines, "section": other}}}));
    let gap = ["0 mm", "1.5 mm"][dice.below(2)];
    operations.push(json!({"name": "j", "do": {"joint": {"at": "tees", "how": {"trim": {"gap": gap}}}}}));
    json!({"steelk": 1, "kind": "frame", "mark": "FR-2", "title": "Node of tubes", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations})
}
