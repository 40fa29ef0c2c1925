//! Tracing: the scale of a picture and how sure it is, and traced outlines pulled to round numbers whose truth is known.

use serde_json::{Value, json};
use steelk_core::piece::{Options, Outcome, Piece, evaluate, resolve};
use steelk_core::quantity::{Expr, LengthUnit};
use steelk_core::sheet::{Standing, pull_to_round};
use steelk_core::work::Action;
use steelk_core::work::shape::{BaseShape, Drawn};
use steelk_core::work::sheet::LayDown;

fn piece(drawn: Value, unit: &str) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "plate", "mark": "T-1", "title": "traced", "quantity": 1, "unit": unit,
        "stock": {"material": "S275", "thickness": "10 mm"},
        "operations": [{"name": "base", "do": {"lay_down": {"shape": {"drawn": drawn}}}}]
    });
    Piece::read(document.to_string().as_bytes()).expect("a document")
}

fn standing(outcome: &Outcome) -> Standing {
    outcome.resolved.operations[0].1.standing().cloned().expect("a solved outline")
}

/// Five pixels to the millimetre, 750 of them.
fn scale() -> Value {
    json!({"scale": {"from": {"x": 75, "y": 508}, "to": {"x": 825, "y": 508}, "length": "150 mm"}})
}

fn flange(off: f64) -> Value {
    let lean = (22.0f64 / 55.0).acos();
    let (bx, by) = (38.0 * lean.cos(), 38.0 * lean.sin());
    let (ex, ey) = (55.0 + 16.0 * lean.cos(), 16.0 * lean.sin());
    // Bulges: the ears sweep twice the lean, the body what is left of half a turn.
    let (ear, body) = ((lean / 2.0).tan(), ((std::f64::consts::PI - 2.0 * lean) / 4.0).tan());
    let spots = [(ex, -ey), (ex, ey), (bx, by), (-bx, by), (-ex, ey), (-ex, -ey), (-bx, -by), (bx, -by)];
    let corners: Vec<Value> = spots
        .iter()
        .enumerate()
        .map(|(at, (x, y))| {
            // A little off, this way and that.
            let (dx, dy) = (off * ((at * 7 % 5) as f64 / 2.0 - 1.0), off * ((at * 3 % 5) as f64 / 2.0 - 1.0));
            let mut corner =
                json!({"name": format!("p{}", at + 1), "x": x + dx, "y": y + dy, "edge": format!("e{}", at + 1)});
            if at % 2 == 0 {
                corner["bulge"] = json!(if at % 4 == 0 { ear } else { body });
            }
            corner
        })
        .collect();
    json!({"corners": corners, "underlay": scale(), "circles": [
        {"name": "c1", "x": off, "y": 0.0, "radius": 24.0 - off, "cut": true},
        {"name": "c2", "x": -55.0 + off, "y": off, "radius": 5.5, "cut": true},
        {"name": "c3", "x": 55.0, "y": -off, "radius": 5.5 + off / 2.0, "cut": true}]})
}

fn pulled(drawn: &Value, unit: LengthUnit) -> (Piece, Standing) {
    let text = if unit == LengthUnit::Mm { "mm" } else { "in" };
    let mut piece = piece(drawn.clone(), text);
    let names = resolve(&piece, None, unit).names;
    let Action::LayDown(LayDown { shape: BaseShape::Drawn(own), .. }) = &mut piece.operations[0].action else {
        panic!("a drawn base")
    };
    let says = pull_to_round(own, &names, unit).expect("a scale");
    own.says.extend(says);
    let stands = standing(&evaluate(&piece, Options::default()));
    (piece, stands)
}

fn drawn_of(piece: &Piece) -> &Drawn {
    match &piece.operations[0].action {
        Action::LayDown(LayDown { shape: BaseShape::Drawn(own), .. }) => own,
        _ => panic!("a drawn base"),
    }
}

#[test]
fn a_traced_flange_is_pulled_to_the_numbers_of_its_drawing() {
    for off in [0.02, 0.06, 0.1, 0.12] {
        let (piece, stands) = pulled(&flange(off), LengthUnit::Mm);
        let says = &drawn_of(&piece).says;
        assert_eq!(stands.missing, 0, "off by {off}: {:?} {:#?}", stands.loose, says);
        assert!(stands.disagree.is_empty(), "off by {off}");
        let radius = |name: &str| stands.circles.iter().find(|one| one.name == name).expect("a circle").radius;
        assert!((radius("c1") - 24.0).abs() < 1e-6, "off by {off}: bore {}", radius("c1"));
        assert!((radius("c2") - 5.5).abs() < 1e-6 && (radius("c3") - 5.5).abs() < 1e-6);
        assert!((radius("e1") - 16.0).abs() < 1e-6 && (radius("e3") - 38.0).abs() < 1e-6, "off by {off}");
        let at = |name: &str| stands.points.iter().find(|one| one.name == name).expect("a point");
        let apart = (at("c2.centre").x - at("c3.centre").x).hypot(at("c2.centre").y - at("c3.centre").y);
        assert!((apart - 110.0).abs() < 1e-6, "off by {off}: ears {apart} apart");
        for say in says.iter().filter(|one| one.value.is_some()) {
            let text = say.value.as_deref().unwrap();
            assert!(text == "0" || text.ends_with(" mm"), "{text}");
        }
    }
}

fn rectangle(width: f64, height: f64, off: f64) -> Value {
    let spots = [(0.0, off), (width - off, 0.0), (width + off, height), (off, height - off)];
    let corners: Vec<Value> = spots
        .iter()
        .enumerate()
        .map(|(at, (x, y))| json!({"name": format!("p{}", at + 1), "x": x, "y": y, "edge": format!("e{}", at + 1)}))
        .collect();
    json!({"corners": corners, "underlay": scale()})
}

#[test]
fn a_traced_rectangle_is_level_upright_and_round_in_either_unit() {
    let (piece, stands) = pulled(&rectangle(120.0, 45.0, 0.2), LengthUnit::Mm);
    assert_eq!(stands.missing, 0);
    let said: Vec<Expr> = drawn_of(&piece).says.iter().filter_map(|one| one.value.clone()).collect();
    assert_eq!(said, ["120 mm", "45 mm"]);
    // 4 1/2 by 2 in.
    let (piece, stands) = pulled(&rectangle(114.3, 50.8, 0.2), LengthUnit::In);
    assert_eq!(stands.missing, 0);
    let said: Vec<Expr> = drawn_of(&piece).says.iter().filter_map(|one| one.value.clone()).collect();
    assert_eq!(said, ["4 1/2 in", "2 in"]);
}

#[test]
fn the_scale_says_how_sure_it_is() {
    let outcome = evaluate(&piece(rectangle(120.0, 45.0, 0.0), "mm"), Options::default());
    let stands = standing(&outcome);
    let scale = stands.underlay.expect("a scale");
    assert!((scale.per_pixel - 0.2).abs() < 1e-12);
    // Two picks of a pixel each over 750: the root of two in 750.
    assert!((scale.relative - 2.0f64.sqrt() / 750.0).abs() < 1e-12);
    let long = stands.traced.iter().find(|one| one.of == "e1").expect("the front is traced");
    assert!((long.value - 120.0).abs() < 1e-9);
    // 120 mm of that, and two picks at 0.2 mm.
    let expected = (120.0 * 2.0f64.sqrt() / 750.0).hypot(2.0f64.sqrt() * 0.2);
    assert!((long.uncertainty - expected).abs() < 1e-12);
    assert_eq!(long.round, "120 mm");
    // The first scale point lies where it was put, at 0, 0; a pixel 100 up is 20 mm up.
    let place = |x: f64, y: f64| {
        let [a, b, c, d, e, f] = scale.matrix;
        (a * x + c * y + e, b * x + d * y + f)
    };
    assert!(place(75.0, 508.0).0.abs() < 1e-9 && place(75.0, 508.0).1.abs() < 1e-9);
    assert!((place(75.0, 408.0).1 - 20.0).abs() < 1e-9);
}

/// A shallow arc is told badly by three picks: r = c2 / 8s + s / 2.
#[test]
fn a_shallow_arc_is_worth_less_than_a_half_circle() {
    let worth = |bulge: f64| {
        let mut drawn = rectangle(120.0, 45.0, 0.0);
        drawn["corners"][0]["bulge"] = json!(bulge);
        let stands = standing(&evaluate(&piece(drawn, "mm"), Options::default()));
        let arc = stands.traced.iter().find(|one| one.of == "e1").expect("it is traced").clone();
        // What it is pulled to is what it looks like all the same: half a millimetre, and no rounder.
        let round: f64 = arc.round.trim_end_matches(" mm").parse().expect("millimetres");
        assert!((round - arc.value).abs() <= 0.6, "{} for {}", arc.round, arc.value);
        arc.uncertainty / arc.value
    };
    // Chord 120 with a sagitta of 60, 12 and 6 mm (bulge is twice the sagitta over the chord); picks of 0.28 mm.
    assert!((worth(1.0) - (0.2 * 2f64.sqrt() / 60.0).hypot(2f64.sqrt() / 750.0)).abs() < 1e-9);
    for (bulge, sagitta) in [(0.2, 12.0), (0.1, 6.0)] {
        let expected = (0.2 * 2f64.sqrt() / sagitta).hypot(2f64.sqrt() / 750.0);
        assert!((worth(bulge) - expected).abs() < 1e-9, "{} against {expected}", worth(bulge));
    }
}

#[test]
fn a_second_pair_tells_a_skewed_picture() {
    let with = |length: &str| {
        let mut drawn = rectangle(120.0, 45.0, 0.0);
        drawn["underlay"]["check"] = json!({"from": {"x": 842, "y": 480}, "to": {"x": 842, "y": 30}, "length": length});
        evaluate(&piece(drawn, "mm"), Options::default())
    };
    let good = with("90 mm");
    assert!(!standing(&good).underlay.expect("a scale").check_off);
    // 450 pixels at 0.2 are 90 mm; 85 measured is 5.9 % off.
    let bad = with("85 mm");
    let scale = standing(&bad).underlay.expect("a scale");
    assert!(scale.check_off && (scale.relative - (90.0 / 85.0 - 1.0)).abs() < 1e-9, "{scale:?}");
    assert!(scale.check_text.contains("5.88 % off") && scale.check_text.contains("skewed"), "{}", scale.check_text);
    assert!(bad.findings.iter().any(|one| one.message.contains("skewed")));
}

#[test]
fn a_picture_without_a_good_scale_is_told_and_the_outline_stays() {
    for (underlay, words) in [
        (json!({"scale": {"from": {"x": 1, "y": 1}, "to": {"x": 4, "y": 5}, "length": "150 mm"}}), "5 pixels apart"),
        (
            json!({"scale": {"from": {"x": 1, "y": 1}, "to": {"x": 1e300, "y": 5}, "length": "150 mm"}}),
            "beyond any picture",
        ),
        (
            json!({"scale": {"from": {"x": 1, "y": 1}, "to": {"x": 400, "y": 5}, "length": "0 mm"}}),
            "must be above zero",
        ),
        (json!({"scale": {"from": {"x": 1, "y": 1}, "to": {"x": 400, "y": 5}, "length": "20 deg"}}), "is an angle"),
    ] {
        let mut drawn = rectangle(120.0, 45.0, 0.0);
        drawn["underlay"] = underlay;
        let outcome = evaluate(&piece(drawn, "mm"), Options::default());
        assert!(outcome.findings.iter().any(|one| one.message.contains(words)), "{words}: {:?}", outcome.findings);
        assert!(outcome.part().is_some(), "the outline is built all the same");
    }
}
