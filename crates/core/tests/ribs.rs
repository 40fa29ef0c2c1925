//! Ribs across bends: by hand, what is refused, and random ones against their formulas, their faces and their mirror images.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, audit_fully, evaluate};
use steelk_core::sheet::folded_body;
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, near, part, piece, sound};

fn rib(extra: Value) -> Value {
    let mut fields = json!({"bend": "wall", "panel_leg": "25 mm", "flange_leg": "25 mm", "width": "12 mm"});
    for (key, value) in extra.as_object().expect("an object") {
        if value.is_null() {
            fields.as_object_mut().expect("an object").remove(key);
        } else {
            fields[key] = value.clone();
        }
    }
    json!({"name": "rib", "do": {"rib": fields}})
}

/// A bracket of 2 mm, 120 wide, base 80 and a wall of 60, with what is done to it.
fn bracket(angle: &str, way: Value, work: Vec<Value>) -> Piece {
    let mut all = vec![base("120 mm", "80 mm"), bend("wall", "base.back", angle, "60 mm", way)];
    all.extend(work);
    piece("2 mm", "3 mm", "0.44", json!(all))
}

fn audited(piece: &Piece) -> Outcome {
    let mut outcome = sound(piece);
    audit_fully(&mut outcome);
    let off: Vec<String> = outcome.audit.pairs.iter().filter(|one| !one.agrees()).map(|one| one.words()).collect();
    assert!(off.is_empty() && outcome.audit.left_out.is_empty(), "{off:?} {:?}", outcome.audit.left_out);
    outcome
}

fn refused(piece: &Piece) -> String {
    let outcome = evaluate(piece, Options::default());
    let errors: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    assert_eq!(errors.len(), 1, "{errors:?}");
    assert!(!errors[0].way_out.is_empty());
    errors[0].message.clone()
}

#[test]
fn a_flat_rib_across_a_square_bend() {
    let outcome = audited(&bracket("90 deg", json!({}), vec![rib(json!({}))]));
    let plain = sound(&bracket("90 deg", json!({}), vec![]));
    let (one, two) = (outcome.figures().unwrap(), plain.figures().unwrap());
    near(one.mass, two.mass, 1e-12);
    near(one.folded_size.z, two.folded_size.z, 1e-9);
    assert!(one.formed > 0.0);
    let body = folded_body(&part(&outcome).flat).unwrap();
    assert!(body.is_closed());
}

#[test]
fn a_round_rib_across_a_square_bend() {
    let outcome = audited(&bracket("90 deg", json!({"direction": "down"}), vec![rib(json!({"ridge": "round"}))]));
    assert!(folded_body(&part(&outcome).flat).unwrap().is_closed());
}

#[test]
fn zz_combos() {
    for dir in ["up", "down"] { for ridge in ["flat", "round"] { for draft in ["0 deg", "15 deg"] {
        let p = bracket("90 deg", json!({"direction": dir}), vec![rib(json!({"ridge": ridge, "draft": draft}))]);
        let mut outcome = sound(&p);
        audit_fully(&mut outcome);
        let off: Vec<String> = outcome.audit.pairs.iter().filter(|one| !one.agrees()).map(|one| one.words()).collect();
        println!("{dir} {ridge} {draft} {off:?}");
    }}}
}
