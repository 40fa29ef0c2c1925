//! What the shop's rules go by: every figure turns its own rule and no other, and every rule says what it goes by.

use std::path::Path;

use serde_json::{Value, json};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::proof::{By, Level, all_rules};
use steelk_core::stock::{ShopRules, Workshop, example_cutters, shipped_rules};
use steelk_testing::*;

/// How often a rule is broken in a shop.
fn broken(piece: &Piece, rules: &ShopRules, rule: &str) -> usize {
    let shop = Workshop { rules, cutters: example_cutters() };
    let outcome = evaluate(piece, Options { shop, ..Options::default() });
    assert!(outcome.findings.iter().all(|one| one.severity != steelk_core::finding::Severity::Error));
    outcome.rules.iter().find(|one| one.rule == rule).unwrap_or_else(|| panic!("no rule is called {rule}")).broken
}

/// The shipped rules with one figure set, by its path.
fn with(path: &str, value: f64) -> ShopRules {
    let mut all = serde_json::to_value(shipped_rules()).unwrap();
    *all.pointer_mut(&format!("/{}", path.replace('.', "/"))).unwrap_or_else(|| panic!("no figure at {path}")) =
        json!(value);
    serde_json::from_value(all).unwrap()
}

fn plate(thickness: &str, cutter: &str, make: &str, in_by: &str) -> Piece {
    let hole = drill(
        "h",
        "base",
        "20 mm",
        json!({"make": make, "place": {"from": [{"edge": "base.left", "distance": in_by}]}}),
    );
    let mut made = piece(thickness, "3 mm", "0.44", json!([base("120 mm", "80 mm"), hole]));
    made.cutting = Some(serde_json::from_value(json!({"cutter": cutter})).unwrap());
    made
}

fn frame(operations: Vec<Value>) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "settings", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn bent(leg: &str, more: Vec<Value>) -> Piece {
    let mut all = vec![base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", leg, json!({}))];
    all.extend(more);
    piece("3 mm", "3 mm", "0.44", Value::Array(all))
}

/// For each figure a part that holds with it as it is, just holds at one value, and breaks beyond. T = 3 mm and R = 3 mm.
#[test]
fn every_figure_turns_its_rule() {
    let place = |distance: &str| json!({"place": {"from": [{"edge": "up.mould-outside", "distance": distance}]}});
    let slot = |distance: &str| {
        json!({"name": "s", "do": {"cut": {"panel": "up", "width": "20 mm", "height": "6 mm",
        "place": {"from": [{"edge": "up.mould-outside", "distance": distance}]}}}})
    };
    let u = json!([
        base("60 mm", "100 mm"),
        bend("one", "base.left", "90 deg", "26 mm", json!({})),
        bend("two", "base.right", "90 deg", "26 mm", json!({})),
    ]);
    let hem = |length: &str| json!([base("100 mm", "80 mm"), {"name": "hem", "do": {"hem": {"edge": "base.back", "style": {"open": {"gap": "3 mm", "length": length}}}}}]);
    let straight = |length: &str| json!({"name": "a", "do": {"path": {"start": {}, "legs": [{"by": {"x": length}}]}}});
    let tube = json!({"name": "bars", "do": {"member": {"section": "SHS 50x50x3", "lines": ["a.1"]}}});
    let aslant =
        json!({"name": "cut", "do": {"end": {"of": ["bars"], "at": "start", "how": {"angle": {"angle": "55 deg"}}}}});
    // What just holds and what breaks; the part; its rule.
    let cases: Vec<(&str, f64, f64, Piece, &str)> = vec![
        // 16 mm in: 6 mm of metal, two thicknesses.
        ("asks.edge.laser", 2.0, 2.01, plate("3 mm", "laser-example", "cut", "16 mm"), "hole_to_edge"),
        ("asks.edge.plasma", 2.0, 2.01, plate("3 mm", "plasma-example", "cut", "16 mm"), "hole_to_edge"),
        ("asks.edge.waterjet", 2.0, 2.01, plate("3 mm", "waterjet-example", "cut", "16 mm"), "hole_to_edge"),
        // In 12 mm half of it, 6 mm at least, and so much times more.
        ("asks.edge.oxy_fuel", 1.5, 1.51, plate("12 mm", "oxy-fuel-example", "cut", "19 mm"), "hole_to_edge"),
        ("asks.edge.punch", 2.0, 2.01, plate("3 mm", "laser-example", "punch", "16 mm"), "hole_to_edge"),
        ("asks.punched_hole", 20.0 / 3.0, 6.7, plate("3 mm", "laser-example", "punch", "40 mm"), "least_hole"),
        // Up to its tangent line 20 - 5 - 6 = 9 mm.
        ("asks.bend", 3.0, 3.01, bent("60 mm", vec![drill("h", "up", "10 mm", place("20 mm"))]), "hole_to_bend"),
        ("asks.slot_bend", 3.0, 3.01, bent("60 mm", vec![slot("18 mm")]), "hole_to_bend"),
        // V = 24: a leg of 24 is one V.
        ("asks.leg_of_die", 1.0, 1.01, bent("24 mm", vec![]), "least_leg"),
        ("asks.hem", 5.0, 5.01, piece("2 mm", "2 mm", "0.44", hem("10 mm")), "hem"),
        ("asks.trim_mm", 50.0, 50.1, piece("3 mm", "3 mm", "0.44", json!([base("2948 mm", "1424 mm")])), "stock_sheet"),
        ("brake.length_mm", 120.0, 119.9, bent("60 mm", vec![]), "part_on_brake"),
        // 1.42 x 580 x 9 / 24 x 0.12 m = 37.06 kN (S275 to 3 mm, 580 MPa).
        ("brake.force_kn", 37.1, 37.0, bent("60 mm", vec![]), "part_on_brake"),
        // Between the walls' insides 54, legs 23 inside: (54 - 23) sin 45 = 21.92 mm from the other's plane, half a punch.
        ("brake.punch_mm", 43.8, 43.9, piece("3 mm", "3 mm", "0.44", u), "lip_traps"),
        ("saw.angle_deg", 55.0, 54.9, frame(vec![straight("500 mm"), tube.clone(), aslant]), "saw_angle"),
        ("saw.hold_mm", 500.0, 500.1, frame(vec![straight("500 mm"), tube]), "short_point"),
    ];
    for (path, holds, breaks, piece, rule) in &cases {
        assert_eq!(broken(piece, &with(path, *holds), rule), 0, "{path} {holds}");
        assert!(broken(piece, &with(path, *breaks), rule) > 0, "{path} {breaks}");
        let told = all_rules().into_iter().find(|one| one.rule == *rule).unwrap();
        assert!(told.settings.iter().any(|own| path.starts_with(own)), "{rule} does not say that it goes by {path}");
    }
    // Only a sheet long enough takes it.
    let long = piece("3 mm", "3 mm", "0.44", json!([base("3900 mm", "900 mm")]));
    let mut rules = shipped_rules().clone();
    assert!(broken(&long, &rules, "stock_sheet") > 0);
    rules.sheets[0].length_mm = 4000.0;
    assert_eq!(broken(&long, &rules, "stock_sheet"), 0);
    // Every figure has a case.
    fn figures(value: &Value, path: &str, all: &mut Vec<String>) {
        match value {
            Value::Object(fields) => {
                fields.iter().for_each(|(key, value)| figures(value, &format!("{path}.{key}"), all))
            }
            Value::Number(_) => all.push(path.trim_start_matches('.').to_string()),
            _ => {}
        }
    }
    let mut all = Vec::new();
    figures(&serde_json::to_value(shipped_rules()).unwrap(), "", &mut all);
    for path in all {
        assert!(cases.iter().any(|case| case.0 == path), "no part turns on {path}");
    }
}

/// A figure of one process leaves what another makes as it is.
#[test]
fn a_process_has_its_own_figure() {
    for (cutter, own) in [("laser-example", "laser"), ("plasma-example", "plasma"), ("waterjet-example", "waterjet")] {
        let made = plate("3 mm", cutter, "cut", "16 mm");
        for other in ["laser", "plasma", "waterjet", "oxy_fuel", "punch"] {
            let told = broken(&made, &with(&format!("asks.edge.{other}"), 3.0), "hole_to_edge");
            assert_eq!(told > 0, own == other, "{cutter} {other}");
        }
    }
    // A drilled hole keeps its own formula, whatever cuts the rest: 0.7 x 3 is 2.1 mm and at most T.
    let drilled = |in_by: &str| {
        broken(&plate("3 mm", "laser-example", "leave", in_by), &with("asks.edge.laser", 9.0), "hole_to_edge")
    };
    assert!(drilled("13 mm") > 0, "20 mm wide it is as a cut one: 0.7 d is more than T");
}

/// Common practice (HANDBOOK): punched 1T at least, 2T to an edge; cut 1T.
#[test]
fn punched_holes_want_more() {
    let shop = shipped_rules();
    let of = |make: &str, in_by: &str| broken(&plate("3 mm", "laser-example", make, in_by), shop, "hole_to_edge");
    assert_eq!([of("cut", "13 mm"), of("punch", "13 mm"), of("punch", "15.9 mm"), of("punch", "16 mm")], [0, 1, 1, 0]);
    let small = |diameter: &str| {
        let hole = drill("h", "base", diameter, json!({"make": "punch"}));
        broken(&piece("8 mm", "8 mm", "0.44", json!([base("120 mm", "80 mm"), hole])), shop, "least_hole")
    };
    assert_eq!([small("8 mm"), small("7.9 mm")], [0, 1]);
}

/// By laser as small as half its thickness (common practice and the example's table): less is marked and drilled, which is a hint.
#[test]
fn what_the_cutter_cannot_cut_is_a_hint() {
    let hints = |diameter: &str, make: &str| {
        let hole = drill("h", "base", diameter, json!({"make": make, "repeat": [{"count": "3", "spacing": "20 mm"}]}));
        let made = piece("8 mm", "8 mm", "0.44", json!([base("120 mm", "80 mm"), hole]));
        let outcome = evaluate(&made, Options::default());
        let own: Vec<_> = outcome.breaches.iter().filter(|one| one.rule == "least_hole").collect();
        assert!(own.iter().all(|one| one.level == Level::Hint && one.message.contains("and so 2 more")), "{own:?}");
        own.len()
    };
    assert_eq!([hints("4 mm", "cut"), hints("3.9 mm", "cut"), hints("3.9 mm", "leave")], [0, 1, 0]);
}

#[test]
fn figures_that_cannot_be_are_refused_with_their_path() {
    for (path, value) in [
        ("asks.edge.laser", -1.0),
        ("asks.edge.punch", f64::NAN),
        ("asks.leg_of_die", 0.4),
        ("asks.trim_mm", 501.0),
        ("brake.length_mm", 0.0),
        ("brake.force_kn", f64::INFINITY),
        ("saw.angle_deg", 90.0),
        ("saw.hold_mm", -0.1),
    ] {
        let mut rules = shipped_rules().clone();
        match path {
            "asks.edge.laser" => rules.asks.edge.laser = value,
            "asks.edge.punch" => rules.asks.edge.punch = value,
            "asks.leg_of_die" => rules.asks.leg_of_die = value,
            "asks.trim_mm" => rules.asks.trim_mm = value,
            "brake.length_mm" => rules.brake.length_mm = value,
            "brake.force_kn" => rules.brake.force_kn = value,
            "saw.angle_deg" => rules.saw.angle_deg = value,
            _ => rules.saw.hold_mm = value,
        }
        assert_eq!(rules.check().unwrap_err().path, path);
    }
    let mut none = shipped_rules().clone();
    none.sheets.clear();
    assert_eq!(none.check().unwrap_err().path, "sheet");
    let mut unnamed = shipped_rules().clone();
    unnamed.sheets[1].name = " ".into();
    assert_eq!(unnamed.check().unwrap_err().path, "sheet[1].name");
    let mut small = shipped_rules().clone();
    small.sheets[1].width_mm = 1.0;
    assert_eq!(small.check().unwrap_err().path, "sheet[1].width_mm");
    assert!(ShopRules::read("asks = 3").is_err());
    assert!(ShopRules::read(&format!("{}\nnews = 1", shipped_rules().write())).is_err());
}

#[test]
fn a_file_of_rules_says_the_same_again() {
    let mut rules = with("asks.edge.punch", 2.5);
    rules.sheets.truncate(2);
    assert_eq!(ShopRules::read(&rules.write()).unwrap(), rules);
    shipped_rules().check().unwrap();
}

/// A file for each rule, called as it is, and every setting that it names is there.
#[test]
fn every_rule_has_its_file_and_its_settings() {
    let source = Path::new(env!("CARGO_MANIFEST_DIR")).join("src/proof/rules");
    let settings = serde_json::to_value(shipped_rules()).unwrap();
    for rule in all_rules() {
        let own = ["sheet", "frame"].iter().any(|list| source.join(list).join(format!("{}.rs", rule.rule)).exists());
        // Two lists have a rule of the same file name where they say the same of another thing.
        assert!(own, "{} has no file", rule.rule);
        assert!(!rule.levels.is_empty(), "{} says nothing", rule.rule);
        for path in rule.settings {
            assert!(settings.pointer(&format!("/{}", path.replace('.', "/"))).is_some(), "{}: {path}", rule.rule);
        }
    }
    let by = |key: &str| all_rules().into_iter().find(|one| one.rule == key).unwrap().by;
    assert_eq!(by("saw_angle"), [By::Saw]);
    assert!(by("hole_to_edge").contains(&By::Punch) && by("hole_to_bend").is_empty());
}
