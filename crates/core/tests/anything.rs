//! Whatever numbers are typed into shapes, corners and holes: an answer every time, never a panic, and what is built has
//! an area, a mass and a blank inside its box.

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::sheet::figures;

fn size() -> impl Strategy<Value = String> {
    prop_oneof![
        40 => (0.1..160.0f64).prop_map(|value| format!("{value:.2} mm")),
        1 => Just("0".to_string()),
        1 => Just("-5 mm".to_string()),
        1 => Just("1e-7 mm".to_string()),
        6 => Just("40 mm".to_string()),
    ]
}

fn angle() -> impl Strategy<Value = String> {
    prop_oneof![
        (-400.0..400.0f64).prop_map(|value| format!("{value:.1} deg")),
        Just("90 deg".to_string()),
        Just("0 deg".to_string())
    ]
}

fn simple() -> impl Strategy<Value = Value> {
    prop_oneof![
        (size(), size()).prop_map(|(a, b)| json!({"rectangle": {"width": a, "depth": b}})),
        size().prop_map(|a| json!({"circle": {"diameter": a}})),
        (size(), size()).prop_map(|(a, b)| json!({"ring": {"outside": a, "inside": b}})),
        (size(), size()).prop_map(|(a, b)| json!({"obround": {"length": a, "width": b}})),
        (0usize..9, size()).prop_map(|(n, a)| json!({"polygon": {"sides": n.to_string(), "size": a}})),
        (size(), size(), size()).prop_map(|(a, b, c)| json!({"triangle": {"base": a, "height": b, "lean": c}})),
        (size(), size(), size(), size(), size())
            .prop_map(|(a, b, c, d, e)| json!({"gusset": {"width": a, "height": b, "corner": c, "toe": d, "tip": e}})),
        (size(), size(), size(), size())
            .prop_map(|(a, b, c, d)| json!({"lug": {"base": a, "height": b, "radius": c, "hole": d}})),
        (size(), size(), 0usize..8, size(), size(), size()).prop_map(|(a, b, n, c, d, e)| {
            json!({"eared": {"body": a, "bore": b, "ears": n.to_string(), "circle": c, "ear_radius": d, "hole": e}})
        }),
        prop::collection::vec((size(), angle(), any::<bool>()), 1..7).prop_map(|legs| {
            let legs: Vec<Value> = legs
                .into_iter()
                .map(|(a, turn, round)| {
                    if round {
                        json!({"arc": {"radius": a, "sweep": turn}})
                    } else {
                        json!({"line": {"length": a, "turn": turn}})
                    }
                })
                .collect();
            json!({"run": {"close": true, "legs": legs}})
        }),
    ]
}

fn shape() -> impl Strategy<Value = Value> {
    let part = (simple(), prop_oneof![Just("add"), Just("take"), Just("keep")], size(), size(), angle());
    prop_oneof![
        3 => simple(),
        1 => prop::collection::vec(part, 1..4).prop_map(|parts| {
            let parts: Vec<Value> = parts
                .into_iter()
                .enumerate()
                .map(|(at, (shape, act, x, y, turn))| {
                    json!({"name": format!("part{at}"), "shape": shape, "act": act, "x": x, "y": y, "turn": turn})
                })
                .collect();
            json!({"combined": {"parts": parts}})
        }),
    ]
}

fn work() -> impl Strategy<Value = Value> {
    prop_oneof![
        (size(), size()).prop_map(|(a, b)| json!({"drill": {"panel": "base", "diameter": a, "depth": b}})),
        (size(), size(), angle()).prop_map(|(a, b, c)| json!({"drill": {"panel": "base", "diameter": a, "countersink": {"diameter": b, "angle": c}}})),
        (size(), 0usize..30, size(), angle()).prop_map(|(a, n, b, c)| {
            json!({"drill": {"panel": "base", "diameter": a, "pattern": {"circle": {"count": n.to_string(), "diameter": b, "start": c}}}})
        }),
        (size(), size(), size(), prop_oneof![Just("square"), Just("diagonal"), Just("hexagonal")]).prop_map(|(a, b, c, rows)| {
            json!({"drill": {"panel": "base", "diameter": a, "pattern": {"fill": {"rows": rows, "pitch": b, "margin": c}}}})
        }),
        (size(), size(), angle()).prop_map(|(a, b, c)| json!({"cut": {"panel": "base", "slot": {"length": a, "width": b}, "turn": c}})),
        (size(), size(), size()).prop_map(|(a, b, c)| json!({"cut": {"panel": "base", "keyhole": {"head": a, "slot": b, "travel": c}}})),
        (size(), size(), size()).prop_map(|(a, b, c)| json!({"cut": {"panel": "base", "width": a, "height": b, "open": {"dog_bone": c}}})),
        simple().prop_map(|shape| json!({"cut": {"panel": "base", "outline": shape}})),
        size().prop_map(|a| json!({"corner": {"panel": "base", "shape": {"round": a}}})),
        (size(), size()).prop_map(|(a, b)| json!({"corner": {"panel": "base", "shape": {"chamfer": {"leg": a, "other": b}}}})),
        (size(), angle()).prop_map(|(a, b)| json!({"corner": {"panel": "base", "shape": {"chamfer": {"leg": a, "angle": b}}}})),
        (size(), size()).prop_map(|(a, b)| json!({"corner": {"panel": "base", "shape": {"notch": {"width": a, "depth": b}}}})),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(1000))]

    #[test]
    fn any_numbers_give_an_answer(shape in shape(), works in prop::collection::vec(work(), 0..4)) {
        let mut operations = vec![json!({"name": "base", "do": {"lay_down": {"shape": shape}}})];
        operations.extend(works.into_iter().enumerate().map(|(at, work)| json!({"name": format!("step{at}"), "do": work})));
        let document = json!({
            "steelk": 1, "kind": "plate", "mark": "P-1", "title": "any", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275", "thickness": "12 mm"}, "operations": operations,
        });
        let piece = Piece::read(document.to_string().as_bytes()).expect("a document");
        let outcome = evaluate(&piece, Options::default());
        for finding in outcome.findings.iter().filter(|one| one.severity == Severity::Error) {
            prop_assert!(!finding.message.is_empty() && !finding.way_out.is_empty(), "{finding:?}");
        }
        if let Some(part) = outcome.part() {
            let figures = figures(part);
            let box_ = part.blank.extents();
            prop_assert!(figures.net_area > 0.0 && figures.net_area <= box_.width() * box_.height() * (1.0 + 1e-9), "{figures:?}");
            prop_assert!(figures.mass > 0.0 && figures.mass.is_finite());
            prop_assert!(figures.mass <= figures.net_area * 12.0 * 7850e-9 * (1.0 + 1e-9));
            if outcome.mesh.fields.is_empty() && !outcome.mesh.triangles.is_empty() {
                prop_assert!(outcome.mesh.is_watertight());
            }
        }
    }
}
