//! Random pieces from a number each: the same number gives the same piece, here and in the tests of files. They use whatever the
//! vocabulary has, with signs, hands, skew, copies, tangent and touching cuts, and inches. What cannot be built is refused in
//! words by the program; what is built must agree with itself.

use serde_json::{Value, json};

/// A plain generator (Knuth's multiplier), so that a case is its seed.
pub struct Dice(u64);

impl Dice {
    pub fn new(seed: u64) -> Dice {
        let mut dice = Dice(seed.wrapping_mul(0x9E37_79B9_7F4A_7C15) ^ 0x51_7CC1_B727_220A);
        for _ in 0..4 {
            dice.next();
        }
        dice
    }

    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        self.0 >> 33
    }

    pub fn below(&mut self, most: usize) -> usize {
        (self.next() % most as u64) as usize
    }

    pub fn one_in(&mut self, times: usize) -> bool {
        self.below(times) == 0
    }

    /// A whole number of fives, so that edges coincide and arcs touch; an odd size now and then.
    pub fn size(&mut self, low: usize, high: usize) -> f64 {
        let plain = (low + self.below(high - low + 1)) as f64 * 5.0;
        if self.one_in(4) { plain + self.below(4900) as f64 / 1000.0 } else { plain }
    }

    pub fn pick<'a, T>(&mut self, all: &'a [T]) -> &'a T {
        &all[self.below(all.len())]
    }

    /// A length as somebody types it: mostly mm, now and then inches.
    pub fn text(&mut self, millimetres: f64) -> String {
        if self.one_in(6) { format!("{} in", millimetres / 25.4) } else { format!("{millimetres} mm") }
    }
}

/// A closed shape to cut or to lay down.
fn shape(dice: &mut Dice, low: usize, high: usize) -> Value {
    let (a, b) = (dice.size(low, high), dice.size(low, high));
    match dice.below(6) {
        0 => json!({"circle": {"diameter": dice.text(a)}}),
        1 => json!({"obround": {"length": dice.text(a + b), "width": dice.text(b)}}),
        2 => json!({"triangle": {"base": dice.text(a), "height": dice.text(b), "lean": dice.text(a / 2.0 - 10.0)}}),
        3 => {
            // A slope whose upper end runs over an arc into an upright, as sides of brackets do.
            let (base, rise, radius) = (a + 30.0, b.min(40.0), 5.0);
            let slope = (rise / base).atan();
            let turn = std::f64::consts::FRAC_PI_2 - slope;
            let trim = radius * (turn / 2.0).tan();
            let long = base.hypot(rise) - trim;
            json!({"run": {"close": true, "legs": [
                {"line": {"length": format!("{long} mm"), "direction": format!("{} deg", slope.to_degrees())}},
                {"arc": {"radius": format!("{radius} mm"), "sweep": format!("{} deg", turn.to_degrees())}},
                {"line": {"length": format!("{} mm", rise + trim), "direction": "270 deg"}}]}})
        }
        4 => json!({"polygon": {"sides": (3 + dice.below(5)).to_string(), "size": dice.text(a)}}),
        _ => json!({"rectangle": {"width": dice.text(a), "depth": dice.text(b)}}),
    }
}

/// A hole or a cut, from one line or two that are not parallel (none: the middle).
fn hole(dice: &mut Dice, panel: &str, lines: &[[&str; 2]; 2], reach: &str) -> Value {
    let mut from = Vec::new();
    for pair in lines.iter().take(dice.below(3)) {
        let edge = *dice.pick(pair);
        if !edge.is_empty() {
            let at = dice.size(0, 14);
            let to = *dice.pick(&["centre", "centre", "near", "far"]);
            from.push(json!({"edge": edge, "distance": dice.text(at), "to": to}));
        }
    }
    let mut fields = json!({"panel": panel, "reach": reach, "place": {"from": from}});
    let kind = dice.below(4);
    if kind > 0 {
        let own = shape(dice, 1, 6);
        fields["outline"] = own;
        if dice.one_in(3) {
            fields["turn"] = json!(format!("{} deg", dice.below(360)));
        }
    } else {
        let diameter = dice.size(1, 4);
        fields["diameter"] = json!(dice.text(diameter));
    }
    if dice.one_in(3) {
        fields["mirror"] = json!(dice.pick(&["across", "up", "both"]));
    }
    if dice.one_in(5) {
        let spacing = dice.size(2, 8);
        let is = *dice.pick(&["centres", "clear"]);
        fields["repeat"] = json!([{"count": "2", "spacing": dice.text(spacing), "spacing_is": is}]);
    }
    if kind > 0 { json!({"cut": fields}) } else { json!({"drill": fields}) }
}

fn document(kind: &str, thickness: f64, operations: Vec<Value>, dice: &mut Dice) -> Value {
    json!({
        "steelk": 1, "kind": kind, "mark": "TR-1", "title": "trial", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": format!("{thickness} mm")},
        "bending": {"radius": format!("{} mm", thickness * [0.5, 1.0, 1.5, 3.0][dice.below(4)]), "method": {"k_factor": "0.42"}},
        "opposite_hand": dice.one_in(4),
        "operations": operations,
    })
}

/// A plate: a shape, holes that overlap its edges in the flat, corners.
pub fn plate(seed: u64) -> Value {
    let mut dice = Dice::new(seed);
    let square = !dice.one_in(3);
    let base = if square {
        let (a, b) = (dice.size(20, 50), dice.size(16, 40));
        json!({"rectangle": {"width": dice.text(a), "depth": dice.text(b)}})
    } else {
        shape(&mut dice, 24, 50)
    };
    let mut operations = vec![json!({"name": "base", "do": {"lay_down": {"shape": base}}})];
    let lines = if square { [["base.front", "base.back"], ["base.left", "base.right"]] } else { [["", ""], ["", ""]] };
    for at in 0..1 + dice.below(4) {
        let reach = *dice.pick(&["panel", "flat", "flat", "open"]);
        operations.push(json!({"name": format!("h{at}"), "do": hole(&mut dice, "base", &lines, reach)}));
    }
    if dice.one_in(3) {
        let radius = dice.size(1, 4);
        operations
            .push(json!({"name": "round", "do": {"corner": {"panel": "base", "shape": {"round": dice.text(radius)}}}}));
    }
    if dice.one_in(3) {
        operations.push(json!({"name": "more", "do": {"again": {"of": ["h0"], "how": {"mirror": {"panel": "base", "along": dice.pick(&["x", "y"])}}}}}));
    }
    let thickness = *dice.pick(&[3.0, 5.0, 8.0, 12.0, 6.35]);
    document("plate", thickness, operations, &mut dice)
}

/// A bent part: a base of any shape, flanges round it, lips, hems, cuts across bends and through, all made again.
pub fn sheet(seed: u64) -> Value {
    let mut dice = Dice::new(seed ^ 0xBEEF);
    let many = dice.below(4);
    let (base, sides): (Value, Vec<String>) = if many == 0 {
        let count = 3 + dice.below(5);
        let size = dice.size(20, 50);
        (
            json!({"polygon": {"sides": count.to_string(), "size": dice.text(size)}}),
            (1..=count).map(|at| format!("base.side-{at}")).collect(),
        )
    } else {
        let (a, b) = (dice.size(14, 50), dice.size(14, 40));
        (
            json!({"rectangle": {"width": dice.text(a), "depth": dice.text(b)}}),
            ["front", "right", "back", "left"].iter().map(|side| format!("base.{side}")).collect(),
        )
    };
    let mut operations = vec![json!({"name": "base", "do": {"lay_down": {"shape": base}}})];
    let walls = 1 + dice.below(sides.len());
    let start = dice.below(sides.len());
    let chosen: Vec<String> = (0..walls).map(|at| sides[(start + at) % sides.len()].clone()).collect();
    let angle = *dice.pick(&[90.0, 90.0, 45.0, 60.0, 30.0, 120.0, 135.0, 72.5]);
    let leg = dice.size(4, 12) + 15.0;
    let gap = json!({"gap": "0.6 mm"});
    let corners = [json!({"open": {}}), json!({"closed": gap}), json!({"mitred": gap}), json!({"overlapped": gap})]
        [dice.below(4)]
    .clone();
    operations.push(
        json!({"name": "wall", "do": {"bend": {"edge": chosen[0], "also": chosen[1..], "angle": format!("{angle} deg"),
        "leg": dice.text(leg), "corners": corners, "direction": dice.pick(&["up", "up", "down"])}}}),
    );
    let wall = if walls == 1 { "wall".to_string() } else { format!("wall.{}", chosen[0].trim_start_matches("base.")) };
    if dice.one_in(3) {
        operations.push(json!({"name": "lip", "do": {"bend": {"edge": format!("{wall}.end"), "angle": "90 deg", "leg": "22 mm", "set_in": {"left": "12 mm", "right": "12 mm"}}}}));
    }
    let lines = if many == 0 {
        [["wall.tangent", ""], ["", ""]]
    } else {
        [["base.front", "base.back"], ["base.left", "base.right"]]
    };
    let lines = if walls == 1 && dice.one_in(2) { [["wall.tangent", "wall.tangent"], ["", ""]] } else { lines };
    for at in 0..dice.below(4) {
        let reach = *dice.pick(&["flat", "flat", "flat", "flat", "open", "panel", "through"]);
        let panel = if dice.one_in(4) { wall.clone() } else { "base".into() };
        operations.push(json!({"name": format!("h{at}"), "do": hole(&mut dice, &panel, &lines, reach)}));
    }
    if dice.one_in(4) {
        operations.push(json!({"name": "more", "do": {"again": {"of": ["h0"], "how": {"mirror": {"panel": "base", "along": dice.pick(&["x", "y"])}}}}}));
    }
    let thickness = *dice.pick(&[1.0, 1.5, 2.0, 3.0, 3.175]);
    document("sheet", thickness, operations, &mut dice)
}

/// A frame: a path through space with arcs, any section rolled any way, mirrored or turned copies, joints, ends, holes, plates.
pub fn frame(seed: u64) -> Value {
    let mut dice = Dice::new(seed ^ 0xF00D);
    let sections = [
        "SHS 50x50x3",
        "RHS 80x40x3",
        "CHS 48.3x4",
        "L 60x60x6",
        "L 80x60x7",
        "UPE 100",
        "UPN 100",
        "IPE 120",
        "FL 60x10",
        "RD 30",
        "SQ 25",
    ];
    let section = *dice.pick(&sections);
    let mut legs = Vec::new();
    for at in 0..1 + dice.below(3) {
        let mut by = json!({"name": format!("l{at}")});
        for axis in ["x", "y", "z"] {
            if dice.one_in(2) || axis == ["x", "y", "z"][at % 3] {
                let sign = if dice.one_in(2) { -1.0 } else { 1.0 };
                let length = sign * (dice.size(60, 160));
                by[axis] = json!(dice.text(length));
            }
        }
        legs.push(json!({"by": by}));
    }
    let count = legs.len();
    let start = json!({"x": dice.text(150.0), "y": dice.text(-200.0)});
    let mut operations = vec![json!({"name": "p", "do": {"path": {"start": start, "legs": legs}}})];
    if count > 1 && dice.one_in(3) {
        operations.push(json!({"name": "soft", "do": {"round": {"node": "p.n2", "radius": "180 mm"}}}));
    }
    let lines = if operations.len() > 1 { vec!["p", "soft"] } else { vec!["p"] };
    let roll = *dice.pick(&["0 deg", "0 deg", "90 deg", "180 deg", "30 deg", "-45 deg"]);
    let align = *dice.pick(&["centre", "centroid", "top", "bottom_left", "right"]);
    operations.push(
        json!({"name": "m", "do": {"member": {"lines": lines, "section": section, "roll": roll, "align": align}}}),
    );
    if dice.one_in(2) {
        let how = match dice.below(3) {
            0 => json!({"mirror": {"axis": dice.pick(&["x", "y", "z"]), "at": "-900 mm"}}),
            1 => json!({"shift": {"x": "2500 mm", "z": "300 mm", "count": "1"}}),
            _ => {
                json!({"turn": {"axis": dice.pick(&["x", "y", "z"]), "about": {"x": "2000 mm", "y": "2000 mm", "z": "-1500 mm"}, "angle": "37 deg", "count": "1"}})
            }
        };
        operations.push(json!({"name": "c", "do": {"copy": {"of": lines, "how": how}}}));
    }
    let gap = if dice.one_in(2) { json!({}) } else { json!({"gap": "2 mm"}) };
    let how = [json!({"mitre": gap}), json!({"butt": gap}), json!({"mitre": {}})][dice.below(3)].clone();
    operations.push(json!({"name": "j", "do": {"joint": {"at": "corners", "how": how}}}));
    if dice.one_in(3) {
        let (angle, tilt) =
            (dice.below(90) as f64 - 45.0, if dice.one_in(2) { 0.0 } else { dice.below(60) as f64 - 30.0 });
        operations.push(json!({"name": "e", "do": {"end": {"of": ["m"], "at": dice.pick(&["start", "finish"]), "how": {"angle": {"angle": format!("{angle} deg"), "tilt": format!("{tilt} deg")}}}}}));
    }
    if dice.one_in(3) {
        let at = dice.size(12, 30);
        operations.push(json!({"name": "b", "do": {"bore": {"of": ["p.l0"], "face": dice.pick(&["top", "bottom", "left", "right"]), "diameter": "9 mm",
            "at": dice.text(at), "off": format!("{} mm", dice.below(9) as f64 - 4.0), "one_wall": dice.one_in(2)}}}));
    }
    if dice.one_in(4) {
        operations.push(json!({"name": "n", "do": {"end_notch": {"of": ["p.l0"], "at": "start", "face": dice.pick(&["top", "left", "right", "bottom"]), "depth": "12 mm", "length": "30 mm"}}}));
    }
    for at in 0..dice.below(3) {
        let face = *dice.pick(&["top", "bottom", "left", "right"]);
        let plate_shape = shape(&mut dice, 6, 16);
        let kind = match dice.below(4) {
            0 => {
                json!({"base": {"of": ["p.l0"], "at": dice.pick(&["start", "finish"]), "shape": plate_shape, "within": dice.one_in(2)}})
            }
            1 if count > 1 => {
                json!({"gusset": {"between": ["p.l0", "p.l1"], "first": "60 mm", "second": "75 mm", "corner": dice.pick(&["0 mm", "12 mm"]), "tips": dice.pick(&["0 mm", "8 mm"]), "off": "3 mm"}})
            }
            _ => {
                let mut own = json!({"of": ["m"], "face": face, "at": dice.pick(&["120 mm", "-130 mm"]), "off": dice.pick(&["0 mm", "6 mm", "-4 mm"]), "shape": plate_shape});
                if dice.one_in(3) {
                    own["stands"] = json!(dice.pick(&["along", "across"]));
                }
                json!({"face": own})
            }
        };
        operations.push(json!({"name": format!("plate{at}"), "do": {"plate": {"thickness": dice.pick(&["6 mm", "1/4 in", "10 mm"]), "kind": kind}}}));
    }
    if dice.one_in(4) {
        operations.push(json!({"name": "cap", "do": {"end": {"of": ["p.l0"], "at": "start", "how": {"cap": {"thickness": "4 mm"}}}}}));
    }
    json!({
        "steelk": 1, "kind": "frame", "mark": "TR-2", "title": "trial", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    })
}

/// A chord with braces on it: copes on rounds and on open sections, points, mitres between braces, notches and slots at both ends.
pub fn joints(seed: u64) -> Value {
    let mut dice = Dice::new(seed ^ 0xBEAD);
    let round = ["CHS 60.3x3.2", "CHS 48.3x4", "CHS 33.7x3.2", "RD 30", "CHS 60.3x3.2"];
    let other = ["SHS 50x50x3", "RHS 80x40x3", "FL 60x10", "IPE 120", "UPE 100", "L 60x60x6", "SQ 25", "UPN 100"];
    let chord = if dice.one_in(2) { *dice.pick(&round) } else { *dice.pick(&other) };
    let brace = if dice.one_in(2) { *dice.pick(&round) } else { *dice.pick(&other) };
    let mut operations = vec![
        json!({"name": "p", "do": {"path": {"start": {}, "legs": [{"by": {"name": "l", "x": "900 mm"}}]}}}),
        json!({"name": "n", "do": {"node": {"on": {"line": "p.l", "distance": dice.text(450.0)}}}}),
    ];
    let count = 1 + dice.below(3);
    for at in 0..count {
        let mut by = json!({"name": "b", "z": "400 mm"});
        for axis in ["x", "y"] {
            if dice.one_in(2) {
                by[axis] = json!(format!("{} mm", dice.below(700) as f64 - 350.0));
            }
        }
        if dice.one_in(4) {
            by["z"] = json!("-380 mm");
        }
        operations
            .push(json!({"name": format!("d{at}"), "do": {"path": {"start": {"from": "n"}, "legs": [{"by": by}]}}}));
    }
    let braces: Vec<String> = (0..count).map(|at| format!("d{at}.b")).collect();
    let roll = *dice.pick(&["0 deg", "0 deg", "90 deg", "30 deg"]);
    operations.push(json!({"name": "c", "do": {"member": {"lines": ["p"], "section": chord, "roll": roll}}}));
    let roll = *dice.pick(&["0 deg", "0 deg", "90 deg", "180 deg", "-20 deg"]);
    let align = *dice.pick(&["centre", "centre", "centroid", "top", "left"]);
    operations.push(
        json!({"name": "m", "do": {"member": {"lines": braces, "section": brace, "roll": roll, "align": align}}}),
    );
    let gap = *dice.pick(&["0 mm", "0 mm", "1.5 mm"]);
    let joint = |how: Value| json!({"name": "j", "do": {"joint": {"at": "tees", "how": how}}});
    let end = |how: Value| json!({"name": "e", "do": {"end": {"of": ["m"], "at": "start", "how": how}}});
    operations.push(match dice.below(5) {
        0 => joint(json!({"cope": {"gap": gap}})),
        1 => joint(json!({"trim": {"gap": gap}})),
        2 => joint(json!({"mitre": {"gap": gap}})),
        3 => end(json!({"cope": {"to": ["c"], "gap": gap}})),
        _ => joint(json!({"butt": {"gap": gap}})),
    });
    let face = |dice: &mut Dice| *dice.pick(&["top", "left", "right", "bottom"]);
    for at in 0..dice.below(4) {
        let mut own = json!({"of": [dice.pick(&["m", "c"])], "at": dice.pick(&["start", "finish", "both"]), "face": face(&mut dice),
            "length": dice.pick(&["30 mm", "12 mm", "44 mm"])});
        if dice.one_in(2) {
            own["depth"] = json!(dice.pick(&["12 mm", "5 mm", "20 mm"]));
        }
        if dice.one_in(2) {
            own["width"] = json!(dice.pick(&["8 mm", "14 mm"]));
            own["off"] = json!(format!("{} mm", dice.below(11) as f64 - 5.0));
        }
        if own.get("depth").is_some() || own.get("width").is_some() {
            operations.push(json!({"name": format!("k{at}"), "do": {"end_notch": own}}));
        }
    }
    if dice.one_in(3) {
        operations.push(json!({"name": "e2", "do": {"end": {"of": ["m"], "at": "finish", "how": {"angle": {"angle": format!("{} deg", dice.below(80) as f64 - 40.0)}}}}}));
    }
    for at in 0..dice.below(3) {
        operations.push(
            json!({"name": format!("h{at}"), "do": {"bore": {"of": [dice.pick(&["m", "c"])], "face": face(&mut dice),
            "diameter": dice.pick(&["9 mm", "14 mm"]), "at": dice.pick(&["120 mm", "80 mm", "150 mm"]),
            "off": format!("{} mm", dice.below(13) as f64 - 6.0), "one_wall": dice.one_in(2)}}}),
        );
    }
    if dice.one_in(3) {
        let how = json!({"mirror": {"axis": dice.pick(&["x", "y"]), "at": "-1500 mm"}});
        operations.insert(2 + count, json!({"name": "cp", "do": {"copy": {"of": ["p"], "how": how}}}));
    }
    json!({
        "steelk": 1, "kind": "frame", "mark": "TR-3", "title": "trial", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    })
}

/// A ready frame of one section or two, its members mitred or butted all round: corners of three members come to points.
pub fn ready(seed: u64) -> Value {
    let mut dice = Dice::new(seed ^ 0x7AB1E);
    let kinds: [(&str, &[(&str, usize, usize)]); 6] = [
        ("rectangle", &[("width", 60, 150), ("depth", 60, 150)]),
        ("box", &[("width", 60, 150), ("depth", 60, 150), ("height", 60, 150)]),
        ("table", &[("width", 60, 150), ("depth", 60, 150), ("height", 70, 150)]),
        ("trestle", &[("length", 80, 150), ("spread", 60, 120), ("height", 70, 150)]),
        ("a_frame", &[("width", 60, 120), ("height", 80, 150)]),
        ("ladder", &[("length", 150, 250), ("width", 40, 60)]),
    ];
    let (kind, wanted) = *dice.pick(&kinds);
    let mut sizes = serde_json::Map::new();
    for (name, low, high) in wanted {
        let size = dice.size(*low, *high);
        sizes.insert(name.to_string(), json!(dice.text(size)));
    }
    match kind {
        "ladder" => sizes.insert("rungs".into(), json!("4")),
        "table" | "trestle" if dice.one_in(2) => sizes.insert("rail".into(), json!("150 mm")),
        _ => None,
    };
    let sections =
        ["SHS 50x50x3", "RHS 80x40x3", "SHS 40x40x4", "CHS 48.3x4", "L 60x60x6", "UPE 100", "FL 60x10", "SQ 25"];
    let (section, roll) = (*dice.pick(&sections), *dice.pick(&["0 deg", "0 deg", "90 deg", "45 deg"]));
    let gap = if dice.one_in(2) { json!({}) } else { json!({"gap": "1.5 mm"}) };
    let how = [json!({"mitre": gap}), json!({"mitre": gap}), json!({"butt": gap})][dice.below(3)].clone();
    let at = *dice.pick(&["all", "all", "corners"]);
    let mut operations = vec![
        json!({"name": "r", "do": {"ready": {"kind": kind, "sizes": sizes}}}),
        json!({"name": "m", "do": {"member": {"lines": ["r"], "section": section, "roll": roll}}}),
        json!({"name": "j", "do": {"joint": {"at": at, "how": how}}}),
    ];
    if dice.one_in(3) {
        let own = json!({"of": ["m"], "face": dice.pick(&["top", "left", "bottom"]), "diameter": "9 mm", "at": "120 mm", "one_wall": dice.one_in(2)});
        operations.push(json!({"name": "b", "do": {"bore": own}}));
    }
    json!({
        "steelk": 1, "kind": "frame", "mark": "TR-4", "title": "trial", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    })
}

/// How many cases of a family: STEELK_CASES for the long command.
pub fn cases(usual: u64) -> u64 {
    std::env::var("STEELK_CASES").ok().and_then(|text| text.parse().ok()).unwrap_or(usual)
}
