//! What the cut list says of slanted ends of sections whose sides differ, held against where the metal reaches furthest.

use serde_json::{Value, json};
use steelk_core::frame::{Member, end_words};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::Point;
use steelk_core::work::frame::OneEnd;

fn members(operations: Value) -> (Vec<Member>, Vec<String>) {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
    let made = outcome.into_frame().unwrap().made;
    let between = made.list.line_of.iter().map(|&line| made.list.lines[line].between.clone()).collect();
    (made.frame.members, between)
}

fn bar(section: &str, more: Vec<Value>) -> (Vec<Member>, Vec<String>) {
    let mut operations = vec![
        json!({"name": "p", "do": {"path": {"start": {}, "legs": [{"by": {"name": "l", "x": "600 mm"}}]}}}),
        json!({"name": "m", "do": {"member": {"lines": ["p"], "section": section}}}),
    ];
    operations.extend(more);
    members(Value::Array(operations))
}

fn cut(at: &str, angle: i32, tilt: i32) -> Value {
    json!({"name": format!("e-{at}"), "do": {"end": {"of": ["m"], "at": at, "how": {"angle": {"angle": format!("{angle} deg"), "tilt": format!("{tilt} deg")}}}}})
}

/// How far the metal goes out of an end on the fibre at a share of the section's box.
fn reach(member: &Member, finish: bool, x: f64, y: f64) -> f64 {
    let around = member.region.extents();
    let at = Point::new(around.low.x + around.width() * x, around.low.y + around.height() * y);
    if finish { member.finishes(at) } else { -member.begins(at) }
}

#[test]
fn a_channels_long_point_is_told_by_web_and_toes() {
    for mirrored in [false, true] {
        for (at, angle) in [("start", 30), ("start", -30), ("finish", 30), ("finish", -30)] {
            let mut more = vec![cut(at, angle, 0)];
            if mirrored {
                more.insert(0, json!({"name": "c", "do": {"copy": {"of": ["p"], "how": {"mirror": {"axis": "y", "at": "500 mm"}}}}}));
                more.insert(1, json!({"name": "m2", "do": {"member": {"lines": ["c"], "section": "UPE 100"}}}));
            }
            let (all, _) = bar("UPE 100", more);
            for member in all.iter().filter(|member| member.ends.iter().any(|end| end.planes[0].angle() > 0.1)) {
                let finish = at == "finish";
                // The web is where the section's box has metal half way up.
                let around = member.region.extents();
                let web_left = member.region.contains(Point::new(around.low.x + 1.0, around.centre().y));
                let web = if web_left { 0.0 } else { 1.0 };
                let side = if reach(member, finish, web, 0.5) > reach(member, finish, 1.0 - web, 0.5) {
                    "the web"
                } else {
                    "the toes"
                };
                let text = end_words(member, OneEnd::finish(finish), 0.0, steelk_core::quantity::LengthUnit::Mm).text;
                assert_eq!(text, format!("30 deg, long point at {side}"), "{at} {angle} {mirrored}");
            }
        }
    }
}

#[test]
fn an_angles_long_point_is_told_by_its_legs() {
    let corners = [
        ("the heel", 0.0, 0.0),
        ("the toe of the level leg", 1.0, 0.0),
        ("the toe of the upright leg", 0.0, 1.0),
        ("the side away from the heel", 1.0, 1.0),
    ];
    for at in ["start", "finish"] {
        for (angle, tilt) in [(30, 20), (30, -20), (-30, 20), (-30, -20)] {
            let (all, _) = bar("L 60x60x6", vec![cut(at, angle, tilt)]);
            let (member, finish) = (&all[0], at == "finish");
            let side = corners
                .iter()
                .max_by(|one, two| reach(member, finish, one.1, one.2).total_cmp(&reach(member, finish, two.1, two.2)))
                .unwrap()
                .0;
            let text = end_words(member, OneEnd::finish(finish), 0.0, steelk_core::quantity::LengthUnit::Mm).text;
            assert!(
                text.ends_with(&format!("long point at {side}")),
                "{at} {angle} {tilt}: {text}, furthest at {side}"
            );
        }
    }
    let (all, _) = bar("SHS 50x50x3", vec![cut("start", 30, 0)]);
    assert_eq!(
        end_words(&all[0], OneEnd::Start, 0.0, steelk_core::quantity::LengthUnit::Mm).text,
        "30 deg",
        "a square tube has no side of its own"
    );
}

/// Ends turned to either hand are two pieces, and their words say which: looking along the member from its start, with up up,
/// what lies across lies to the left.
#[test]
fn the_turn_between_two_ends_has_a_hand() {
    let words =
        |angle: i32, tilt: i32| bar("SHS 50x50x3", vec![cut("start", 30, 0), cut("finish", angle, tilt)]).1.remove(0);
    let (one, two) = (words(0, 30), words(0, -30));
    assert_ne!(one, two);
    for (text, tilt) in [(one, 30), (two, -30)] {
        let (all, _) = bar("SHS 50x50x3", vec![cut("start", 30, 0), cut("finish", 0, tilt)]);
        let member = &all[0];
        // Which way from the start's long side to the finish's, as a person sees them who looks along +w: u points to the left.
        let long = |finish: bool| {
            let side = |x: f64, y: f64| reach(member, finish, x, y);
            (side(1.0, 0.5) - side(0.0, 0.5), side(0.5, 1.0) - side(0.5, 0.0))
        };
        let (a, b) = (long(false), long(true));
        // On what is seen, x runs to the right: minus u.
        let cross = -a.0 * b.1 + a.1 * b.0;
        let way = if cross < 0.0 { "clockwise" } else { "anticlockwise" };
        assert_eq!(text, format!("turned 90 deg {way}, seen from the start"));
    }
}
