//! Drawn outlines as documents: every thing that can be said, what names and sayings are refused, how a shape stands.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate, resolve};
use steelk_core::plane::{Outline, Point};
use steelk_core::sheet::{SayingRole, Standing, read_path, write_path};
use steelk_testing::near;

fn outline(corners: Value, circles: Value, guides: Value, says: Value, callouts: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "plate", "mark": "P-1", "title": "drawn", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "10 mm"},
        "callouts": callouts,
        "operations": [{"name": "base", "do": {"lay_down": {"shape": {"drawn": {
            "corners": corners, "circles": circles, "guides": guides, "says": says,
        }}}}}],
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

/// A rough four-sided shape about 100 by 60 with two circles and a guide down its middle.
fn rough(says: Value) -> Piece {
    outline(
        json!([
            {"name": "p1", "x": 1.0, "y": -2.0, "edge": "e1"},
            {"name": "p2", "x": 98.0, "y": 1.0, "edge": "e2"},
            {"name": "p3", "x": 101.0, "y": 58.0, "edge": "e3"},
            {"name": "p4", "x": -1.0, "y": 61.0, "edge": "e4"},
        ]),
        json!([
            {"name": "c1", "x": 28.0, "y": 31.0, "radius": 9.0, "cut": true},
            {"name": "c2", "x": 71.0, "y": 29.0, "radius": 7.0, "cut": true},
        ]),
        json!([{"name": "g1", "x1": 50.0, "y1": -10.0, "x2": 51.0, "y2": 70.0}]),
        says,
        json!([]),
    )
}

fn standing(piece: &Piece) -> Standing {
    let resolved = resolve(piece, None, piece.unit);
    resolved.operations[0].1.standing().cloned().expect("a solved outline")
}

fn at(standing: &Standing, name: &str) -> Point {
    let found = standing.points.iter().find(|one| one.name == name).unwrap_or_else(|| panic!("no {name}"));
    Point::new(found.x, found.y)
}

fn radius(standing: &Standing, name: &str) -> f64 {
    standing.circles.iter().find(|one| one.name == name).expect("a circle").radius
}

fn errors(piece: &Piece) -> Vec<String> {
    let outcome: Outcome = evaluate(piece, Options::default());
    outcome.findings.into_iter().filter(|one| one.severity == Severity::Error).map(|one| one.message).collect()
}

#[test]
fn whatever_is_said_is_so_afterwards() {
    let say = |what: &str, of: &[&str], value: &str| match value {
        "" => json!({"what": what, "of": of}),
        value => json!({"what": what, "of": of, "value": value}),
    };
    let solved = |says: &[Value]| {
        let stands = standing(&rough(json!(says)));
        assert!(stands.disagree.is_empty(), "{:?}", stands.disagree);
        assert!(stands.sayings.iter().all(|one| one.role == SayingRole::Drives), "{:?}", stands.sayings);
        stands
    };
    let edge = |stands: &Standing, from: &str, to: &str| at(stands, to) - at(stands, from);

    let one = solved(&[say("length", &["e1"], "100 mm")]);
    near(edge(&one, "p1", "p2").length(), 100.0, 1e-8);
    let one = solved(&[say("across", &["p1", "p3"], "90 mm"), say("up", &["c1", "c2"], "5 mm")]);
    near(edge(&one, "p1", "p3").x, 90.0, 1e-8);
    // Down as it is drawn: the second circle stands lower than the first.
    near(edge(&one, "c1.centre", "c2.centre").y, -5.0, 1e-8);
    let one = solved(&[say("angle", &["e1", "e2"], "80 deg")]);
    let (back, on) = (-edge(&one, "p1", "p2"), edge(&one, "p2", "p3"));
    near(back.cross(on).atan2(back.dot(on)).abs(), 80f64.to_radians(), 1e-9);
    let one = solved(&[say("radius", &["c1"], "12 mm"), say("diameter", &["c2"], "11 mm")]);
    near(radius(&one, "c1"), 12.0, 1e-9);
    near(radius(&one, "c2"), 5.5, 1e-9);
    let one = solved(&[say("gap", &["c1", "c2"], "20 mm")]);
    near(edge(&one, "c1.centre", "c2.centre").length() - radius(&one, "c1") - radius(&one, "c2"), 20.0, 1e-8);
    let one = solved(&[say("equal", &["c1", "c2"], ""), say("equal", &["e2", "e4"], "")]);
    near(radius(&one, "c1"), radius(&one, "c2"), 1e-8);
    near(edge(&one, "p2", "p3").length(), edge(&one, "p4", "p1").length(), 1e-8);
    let one = solved(&[say("parallel", &["e1", "e3"], ""), say("square", &["e1", "e2"], "")]);
    near(edge(&one, "p1", "p2").unit().cross(edge(&one, "p3", "p4").unit()), 0.0, 1e-9);
    near(edge(&one, "p1", "p2").unit().dot(edge(&one, "p2", "p3").unit()), 0.0, 1e-9);
    let one = solved(&[say("level", &["e3"], ""), say("upright", &["g1"], "")]);
    near(edge(&one, "p3", "p4").y, 0.0, 1e-9);
    near(edge(&one, "g1.start", "g1.end").x, 0.0, 1e-9);
    let one = solved(&[say("tangent", &["e4", "c1"], ""), say("tangent", &["c1", "c2"], "")]);
    let side = edge(&one, "p4", "p1").unit();
    near(side.cross(at(&one, "c1.centre") - at(&one, "p4")).abs(), radius(&one, "c1"), 1e-8);
    near(edge(&one, "c1.centre", "c2.centre").length(), radius(&one, "c1") + radius(&one, "c2"), 1e-8);
    let one = solved(&[say("concentric", &["c1", "c2"], "")]);
    near(edge(&one, "c1.centre", "c2.centre").length(), 0.0, 1e-8);
    let one = solved(&[say("on", &["c1", "g1"], ""), say("middle", &["c2", "e2"], "")]);
    near(edge(&one, "g1.start", "g1.end").unit().cross(at(&one, "c1.centre") - at(&one, "g1.start")), 0.0, 1e-8);
    near((at(&one, "c2.centre") - at(&one, "p2").toward(at(&one, "p3"), 0.5)).length(), 0.0, 1e-8);
    let one = solved(&[say("symmetric", &["c1", "c2", "g1"], "")]);
    let (line, apart) = (edge(&one, "g1.start", "g1.end").unit(), edge(&one, "c1.centre", "c2.centre"));
    near(line.dot(apart), 0.0, 1e-8);
    let middle = at(&one, "c1.centre").toward(at(&one, "c2.centre"), 0.5);
    near(line.cross(middle - at(&one, "g1.start")), 0.0, 1e-8);
}

#[test]
fn names_and_sayings_that_do_not_fit_are_refused_and_the_rest_stands() {
    let one = |saying: Value| {
        let piece = rough(json!([saying, {"what": "length", "of": ["e1"], "value": "100 mm"}]));
        let stands = standing(&piece);
        assert_eq!((stands.sayings[0].role, stands.sayings[1].role), (SayingRole::Unread, SayingRole::Drives));
        near((at(&stands, "p2") - at(&stands, "p1")).length(), 100.0, 1e-8);
        errors(&piece).into_iter().find(|message| !message.contains("still missing")).expect("an error")
    };
    assert!(one(json!({"what": "radius", "of": ["e1"], "value": "5 mm"})).contains("a circle or a round edge"));
    assert!(one(json!({"what": "length", "of": ["e9"], "value": "5 mm"})).contains("said of e9"));
    assert!(one(json!({"what": "parallel", "of": ["e1"]})).contains("two straight edges"));
    assert!(one(json!({"what": "symmetric", "of": ["p1", "p2"]})).contains("two points and the edge"));
    assert!(one(json!({"what": "length", "of": ["e2"]})).contains("has no number yet"));
    assert!(one(json!({"what": "level", "of": ["e2"], "value": "5 mm"})).contains("carries no number"));
    assert!(one(json!({"what": "length", "of": ["e2"], "value": "45 deg"})).contains("is an angle"));
    assert!(one(json!({"what": "length", "of": ["e2"], "value": "0"})).contains("must be above zero"));
    assert!(one(json!({"what": "angle", "of": ["e1", "e2"], "value": "200 deg"})).contains("below 180 deg"));
    let twice = outline(
        json!([
            {"name": "p1", "x": 0.0, "y": 0.0, "edge": "e1"},
            {"name": "p1", "x": 50.0, "y": 0.0, "edge": "e2"},
            {"name": "p3", "x": 50.0, "y": 50.0, "edge": "e3"},
        ]),
        json!([]),
        json!([]),
        json!([]),
        json!([]),
    );
    assert!(errors(&twice)[0].contains("p1 names two things"));
    let crossed = outline(
        json!([
            {"name": "p1", "x": 0.0, "y": 0.0, "edge": "e1"},
            {"name": "p2", "x": 50.0, "y": 50.0, "edge": "e2"},
            {"name": "p3", "x": 50.0, "y": 0.0, "edge": "e3"},
            {"name": "p4", "x": 0.0, "y": 50.0, "edge": "e4"},
        ]),
        json!([]),
        json!([]),
        json!([]),
        json!([]),
    );
    assert!(
        errors(&crossed).iter().any(|message| message.contains("e1 and e3 run into each other")),
        "{:?}",
        errors(&crossed)
    );
}

#[test]
fn a_callout_shapes_the_outline_and_a_redundant_one_is_proved() {
    let square = json!([
        {"name": "p1", "x": 0.0, "y": 0.0, "edge": "e1"},
        {"name": "p2", "x": 70.0, "y": 2.0, "edge": "e2"},
        {"name": "p3", "x": 73.0, "y": 50.0, "edge": "e3"},
        {"name": "p4", "x": 1.0, "y": 52.0, "edge": "e4"},
    ]);
    let with = |diagonal: &str| {
        outline(
            square.clone(),
            json!([]),
            json!([]),
            json!([
                {"what": "level", "of": ["e1"]}, {"what": "upright", "of": ["e2"]}, {"what": "level", "of": ["e3"]},
                {"what": "upright", "of": ["e4"]}, {"what": "length", "of": ["e1"], "value": "A"},
                {"what": "length", "of": ["e2"], "value": "B"}, {"what": "length", "of": ["p1", "p3"], "value": "C"},
            ]),
            json!([{"name": "A", "value": "80 mm"}, {"name": "B", "value": "60 mm"}, {"name": "C", "value": diagonal}]),
        )
    };
    let good = with("100 mm");
    let stands = standing(&good);
    assert_eq!((stands.missing, stands.sayings[6].role), (0, SayingRole::Implied));
    near(stands.sayings[6].measured.expect("a number"), 100.0, 1e-8);
    assert!(errors(&good).is_empty(), "{:?}", errors(&good));
    let bad = with("103 mm");
    let message = &errors(&bad)[0];
    assert!(message.starts_with("these numbers disagree by 3 mm"), "{message}");
    for part in ["e1 = A", "e2 = B", "p1, p3 = C"] {
        assert!(message.contains(part), "{message}");
    }
    // The shape follows the others.
    near(evaluate(&bad, Options::default()).into_part().expect("a part").blank.region.area(), 4800.0, 1e-6);
}

#[test]
fn paths_come_back_digit_for_digit_and_bad_ones_say_where() {
    let circle = Outline::circle(Point::new(1.0 / 3.0, PI), 7.0 / 9.0, 0);
    assert_eq!(read_path(&write_path(&circle), 1.0).expect("a path"), circle);
    let inches = read_path("M 0 0 L 1 0 L 1 1 Z", 25.4).expect("a path");
    near(inches.area(), 25.4 * 25.4 / 2.0, 1e-9);
    for (text, word, says) in [
        ("M 0 0 L 1 0", 4, "Z is missing"),
        ("L 0 0 Z", 1, "begins with one M"),
        ("M 0 0 Q 1 1 Z", 4, "none of M, L, A and Z"),
        ("M 0 zero L 1 1 Z", 2, "two numbers"),
        ("M 0 0 A 1 Z", 5, "two numbers"),
        ("M 0 0 L 1 1 Z Z", 8, "follows the closing Z"),
    ] {
        let fault = read_path(text, 1.0).expect_err(text);
        assert!(fault.message.contains(says), "{text}: {fault:?}");
        assert!(fault.word <= word + 1, "{text}: {fault:?}");
    }
}
