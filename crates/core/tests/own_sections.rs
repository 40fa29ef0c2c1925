//! Sections of the shop's own: what members of them weigh, what bars they come from, what is refused.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::frame::{odd_mass, own_sections, read_own_section};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::quantity::Names;
use steelk_core::work::frame::OwnSection;
use steelk_testing::{near, trials};

fn rail(more: Value) -> Value {
    // A tee of 40 by 30, 4 thick: 4 x 40 + 4 x 26 = 264 mm2.
    let mut section = json!({"name": "Tee rail 40", "outline": {"run": {"close": true, "legs": [
        {"line": {"length": "40 mm", "direction": "0 deg"}}, {"line": {"length": "4 mm", "direction": "90 deg"}},
        {"line": {"length": "18 mm", "direction": "180 deg"}}, {"line": {"length": "26 mm", "direction": "90 deg"}},
        {"line": {"length": "4 mm", "direction": "180 deg"}}, {"line": {"length": "26 mm", "direction": "270 deg"}},
        {"line": {"length": "18 mm", "direction": "180 deg"}}]}}});
    for (key, value) in more.as_object().unwrap() {
        section[key] = value.clone();
    }
    section
}

fn frame(sections: Value, section: &str, length: f64) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "own", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "frame": {"sections": sections},
        "operations": [
            {"name": "spine", "do": {"path": {"start": {}, "legs": [{"by": {"x": format!("{length} mm")}}]}}},
            {"name": "rail", "do": {"member": {"lines": ["spine"], "section": section}}},
        ],
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn errors(outcome: &Outcome) -> Vec<(String, String)> {
    let bad = outcome.findings.iter().filter(|one| one.severity == Severity::Error);
    bad.map(|one| (one.field.clone().unwrap_or_default(), one.message.clone())).collect()
}

fn mass(outcome: &Outcome) -> f64 {
    outcome.frame().unwrap().made.list.lines[0].mass_each
}

#[test]
fn a_member_weighs_what_its_outline_makes_or_what_is_stated() {
    for seed in 0..trials::cases(60) {
        let mut dice = trials::Dice::new(seed ^ 0x0715);
        let length = dice.size(20, 400);
        let plain = evaluate(&frame(json!([rail(json!({}))]), "Tee rail 40", length), Options::default());
        assert_eq!(errors(&plain), []);
        near(mass(&plain), 264.0 * length * 7850e-9, 1e-9);
        // Named as people write it.
        let stated = 2.0 + dice.below(200) as f64 / 1000.0;
        let own = json!([rail(json!({"mass_per_metre": stated}))]);
        let weighed = evaluate(&frame(own, "tee RAIL 40 ", length), Options::default());
        assert_eq!(errors(&weighed), []);
        near(mass(&weighed), stated * length / 1000.0, 1e-9);
        assert_eq!(weighed.frame().unwrap().made.list.lines[0].section, "Tee rail 40");
        assert!(weighed.audit.faults().is_empty(), "{:?}", weighed.audit.faults());
    }
}

#[test]
fn a_stated_mass_far_from_the_outline_is_told() {
    let said = |stated: f64| {
        let own: OwnSection = serde_json::from_value(rail(json!({"mass_per_metre": stated}))).unwrap();
        let section = read_own_section(&own, &Names::default()).unwrap();
        odd_mass(&section, "S275", 7850.0).map(|finding| finding.message)
    };
    // 264 mm2 of steel are 2.0724 kg/m; EN 10219-2 allows 6 %.
    assert_eq!(said(2.0724), None);
    assert_eq!(said(2.18), None);
    let told = said(2.3).unwrap();
    assert!(told.contains("2.3 kg/m") && told.contains("2.072 kg/m of S275"), "{told}");
}

#[test]
fn its_bars_are_those_that_it_comes_in() {
    let own = json!([rail(json!({"bars": ["3100 mm", "120 in"]}))]);
    let outcome = evaluate(&frame(own, "Tee rail 40", 900.0), Options::default());
    let stock: Vec<f64> = outcome.frame().unwrap().bars[0].problem.stock.iter().map(|bar| bar.length).collect();
    assert_eq!(stock, [3100.0, 3048.0]);
    let none = evaluate(&frame(json!([rail(json!({}))]), "Tee rail 40", 900.0), Options::default());
    assert_eq!(none.frame().unwrap().bars[0].problem.stock[0].length, 6000.0);
}

#[test]
fn a_section_whose_sides_are_told_apart_is_never_turned_over() {
    let turns = |symmetry: &str| {
        let square = json!({"name": "Grooved", "symmetry": symmetry,
            "outline": {"rectangle": {"width": "30 mm", "depth": "30 mm"}}});
        let own: OwnSection = serde_json::from_value(square).unwrap();
        read_own_section(&own, &Names::default()).unwrap().symmetries().len()
    };
    assert_eq!((turns("of_outline"), turns("none")), (8, 1));
}

#[test]
fn what_is_no_section_is_said_where_it_is() {
    let said = |sections: Value, section: &str| errors(&evaluate(&frame(sections, section, 500.0), Options::default()));
    let first = |list: Vec<(String, String)>| list.into_iter().next().expect("an error");
    let (field, words) = first(said(json!([rail(json!({"name": "SHS 50x50x3"}))]), "SHS 50x50x3"));
    assert!(field == "frame.sections.0.name" && words.contains("is a section of the standards"), "{field}: {words}");
    let (field, words) = first(said(json!([rail(json!({})), rail(json!({"name": "TEE RAIL 40"}))]), "Tee rail 40"));
    assert!(field == "frame.sections.1.name" && words.contains("two sections"), "{field}: {words}");
    let (field, words) = first(said(json!([rail(json!({"mass_per_metre": 0.0}))]), "Tee rail 40"));
    assert!(field == "frame.sections.0.mass_per_metre" && words.contains("cannot weigh 0 kg"), "{field}: {words}");
    let flat = json!({"name": "Flat", "outline": {"rectangle": {"width": "0 mm", "depth": "30 mm"}}});
    let (field, _) = first(said(json!([flat]), "SHS 50x50x3"));
    assert!(field.starts_with("frame.sections.0.outline"), "{field}");
    let (field, words) = first(said(json!([rail(json!({}))]), "Tee rail 50"));
    assert!(field == "section" && !words.is_empty(), "{field}: {words}");
    let mut findings = Vec::new();
    assert!(own_sections(&[], &Names::default(), &mut findings).is_empty() && findings.is_empty());
}
