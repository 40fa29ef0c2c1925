//! Short ways to write a piece for a test.

use serde_json::{Value, json};
use steelk_core::measure::measure;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::Part;
use steelk_core::work::measure::Measure;

/// A piece in S275 of this thickness, radius and K, with these operations.
pub fn piece(thickness: &str, radius: &str, k: &str, operations: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "sheet", "mark": "X-1", "title": "test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": thickness},
        "bending": {"radius": radius, "method": {"k_factor": k}},
        "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

pub fn base(width: &str, depth: &str) -> Value {
    json!({"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": width, "depth": depth}}}}})
}

/// A bend with extra fields merged in.
pub fn bend(name: &str, edge: &str, angle: &str, leg: &str, extra: Value) -> Value {
    let mut fields = json!({"edge": edge, "angle": angle, "leg": leg});
    for (key, value) in extra.as_object().expect("an object") {
        fields[key] = value.clone();
    }
    json!({"name": name, "do": {"bend": fields}})
}

pub fn drill(name: &str, panel: &str, diameter: &str, extra: Value) -> Value {
    let mut fields = json!({"panel": panel, "diameter": diameter});
    for (key, value) in extra.as_object().expect("an object") {
        fields[key] = value.clone();
    }
    json!({"name": name, "do": {"drill": fields}})
}

/// Evaluates and insists that nothing was refused.
pub fn sound(piece: &Piece) -> Outcome {
    let outcome = evaluate(piece, Options::default());
    let errors: Vec<_> =
        outcome.findings.iter().filter(|one| one.severity == steelk_core::finding::Severity::Error).collect();
    assert!(errors.is_empty(), "refused: {errors:#?}");
    assert!(outcome.sheets().is_some());
    outcome
}

pub fn part(outcome: &Outcome) -> &Part {
    outcome.part().expect("a part")
}

/// Measures with the measure given as JSON.
pub fn probe(outcome: &Outcome, what: Value) -> f64 {
    let what: Measure = serde_json::from_value(what).expect("a measure");
    measure(part(outcome), &what).unwrap_or_else(|fault| panic!("{what:?}: {fault}")).value
}
