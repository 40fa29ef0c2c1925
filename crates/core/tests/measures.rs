//! Each measure on parts whose answer is known by plain geometry, and each refusal.

use serde_json::{Value, json};
use steelk_core::measure::measure;
use steelk_core::piece::Outcome;
use steelk_core::sheet::folded_extents;
use steelk_core::work::measure::Measure;

use steelk_testing::*;

/// A 100 x 60 base of 2 mm, a 40 mm wall up at the back with a hole, a 30 mm wall down at the right.
fn part_of_two() -> Outcome {
    sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("100 mm", "60 mm"),
            bend("wall", "base.back", "90 deg", "40 mm", json!({"set_in": {"right": "10 mm"}, "relief": {}})),
            bend(
                "skirt",
                "base.right",
                "90 deg",
                "30 mm",
                json!({"direction": "down", "set_in": {"back": "14 mm"}, "relief": {}})
            ),
            drill(
                "eye",
                "wall",
                "10 mm",
                json!({"place": {"from": [{"edge": "wall.mould-outside", "distance": "25 mm"}, {"edge": "wall.left", "distance": "30 mm"}]}})
            ),
            drill(
                "foot",
                "base",
                "6 mm",
                json!({"place": {"from": [{"edge": "base.front", "distance": "15 mm"}, {"edge": "base.left", "distance": "20 mm"}]}, "repeat": [{"count": "3", "spacing": "22 mm"}]})
            ),
            json!({"name": "slot", "do": {"cut": {"panel": "base", "width": "24 mm", "height": "8 mm", "corner": "2 mm", "place": {"from": [{"edge": "base.front", "distance": "35 mm"}]}}}}),
        ]),
    ))
}

#[test]
fn every_measure_of_a_known_part() {
    let made = part_of_two();
    let distance = |from: &str, to: &str| json!({"distance": {"from": from, "to": to}});
    let along = |from: &str, to: &str, axis: &str| json!({"distance": {"from": from, "to": to, "along": axis}});
    let pi = std::f64::consts::PI;
    let cases: Vec<(Value, f64)> = vec![
        (json!("thickness"), 2.0),
        (json!({"size": {"along": "x"}}), 100.0),
        (json!({"size": {"along": "y"}}), 60.0),
        // 40 up from the underside, and 30 down from the upper face: 40 + 28.
        (json!({"size": {"along": "z"}}), 68.0),
        (json!({"leg": {"bend": "wall", "to": "outside"}}), 40.0),
        (json!({"leg": {"bend": "wall", "to": "inside"}}), 38.0),
        (json!({"leg": {"bend": "wall", "to": "mould"}}), 40.0),
        (json!({"leg": {"bend": "wall", "to": "tangent"}}), 36.0),
        (json!({"leg": {"bend": "skirt", "to": "outside"}}), 30.0),
        (json!({"angle": {"from": "base", "to": "wall"}}), pi / 2.0),
        (json!({"angle": {"from": "wall", "to": "skirt"}}), pi / 2.0),
        (json!({"bend_angle": {"bend": "skirt"}}), pi / 2.0),
        (json!({"inside_radius": {"bend": "wall"}}), 2.0),
        (json!({"inside_radius": {"bend": "skirt"}}), 2.0),
        (json!({"diameter": {"hole": "eye"}}), 10.0),
        (json!({"diameter": {"hole": "foot"}}), 6.0),
        (json!({"hole_count": {"hole": "foot"}}), 3.0),
        (json!({"hole_size": {"hole": "slot", "along": "x"}}), 24.0),
        (json!({"hole_size": {"hole": "slot", "along": "y"}}), 8.0),
        (distance("eye", "base.bottom"), 25.0),
        (distance("eye", "base.top"), 23.0),
        (distance("eye", "wall.left"), 30.0),
        (distance("eye", "wall.mould-outside"), 25.0),
        (distance("wall.outside", "base.front"), 60.0),
        (distance("wall.inside", "base.front"), 58.0),
        (distance("wall.mould-outside", "base.front"), 60.0),
        (distance("wall.mould-inside", "base.bottom"), 2.0),
        (distance("skirt.outside", "base.left"), 100.0),
        (distance("skirt.inside", "base.left"), 98.0),
        (distance("foot.1", "foot.3"), 44.0),
        (distance("foot.2", "base.left"), 42.0),
        (along("foot.1", "foot.2", "x"), 22.0),
        (along("foot.1", "eye", "x"), 10.0),
        (along("wall.end", "skirt.end", "z"), 68.0),
        (along("wall.end.top", "base.front", "y"), 58.0),
        (along("wall.end.bottom", "base.front", "y"), 60.0),
        (along("base.bottom", "base.top", "z"), 2.0),
        // Blank: 100 + 30 - (8 - 4.461062), 60 + 40 - (8 - 4.461062).
        (json!({"blank_size": {"along": "x"}}), 126.461_062),
        (json!({"blank_size": {"along": "y"}}), 96.461_062),
        (json!("pierces"), 6.0),
    ];
    for (what, expected) in cases {
        let found = probe(&made, what.clone());
        assert!((found - expected).abs() < 1e-6, "{what}: {found}, expected {expected}");
    }
    let figures = made.figures().unwrap();
    near(probe(&made, json!("net_area")), figures.net_area, 1e-9);
    near(probe(&made, json!("mass")), figures.net_area * 2.0 * 7850e-9, 1e-12);
    near(probe(&made, json!("cut_length")), figures.cut_length, 1e-9);
    near(probe(&made, json!("folded_volume")), figures.folded_volume, 1e-6);
    for axis in ["x", "y", "z"] {
        assert!(probe(&made, json!({"centre_of_gravity": {"along": axis}})).is_finite());
    }
}

/// By hand: a blind hole of 6 by 4 in 10 mm, its point of 118 deg 3 / tan 59 deg more; a countersink of 90 deg from 12 to 6 is 3 deep, one
/// counterbored 5; a dimple of 3 over the lower face; and the plate before any of it.
#[test]
fn heads_floors_and_forms_are_measured() {
    let at = |x: f64| json!({"from": [{"edge": "base.left", "distance": format!("{x} mm")}]});
    let made = sound(&piece(
        "10 mm",
        "10 mm",
        "0.44",
        json!([
            base("200 mm", "80 mm"),
            drill("pin", "base", "6 mm", json!({"depth": "4 mm", "face": "bottom", "place": at(20.0)})),
            drill("sunk", "base", "6 mm", json!({"countersink": {"diameter": "12 mm"}, "place": at(50.0)})),
            drill("bored", "base", "6 mm", json!({"counterbore": {"diameter": "12 mm", "depth": "5 mm"}, "place": at(80.0)})),
            {"name": "pip", "do": {"form": {"panel": "base", "shape": {"dimple": {"diameter": "40 mm", "height": "3 mm"}},
                "out_of": "bottom", "place": at(150.0)}}},
        ]),
    ));
    near(probe(&made, json!({"floor": {"hole": "pin"}})), 10.0 - 4.0 - 3.0 / 59f64.to_radians().tan(), 1e-9);
    near(probe(&made, json!({"head_depth": {"hole": "sunk"}})), 3.0, 1e-9);
    near(probe(&made, json!({"head_depth": {"hole": "bored"}})), 5.0, 1e-9);
    near(probe(&made, json!({"form_height": {"form": "pip"}})), 3.0, 1e-9);
    let drilled = 2.0 * std::f64::consts::PI * 9.0;
    near(probe(&made, json!("undrilled_mass")), (200.0 * 80.0 - drilled) * 10.0 * 7850e-9, 1e-12);
    assert!(probe(&made, json!("mass")) < probe(&made, json!("undrilled_mass")));
    for (what, words) in [
        (json!({"floor": {"hole": "sunk"}}), "no metal under it"),
        (json!({"head_depth": {"hole": "pin"}}), "pin has no head"),
        (json!({"form_height": {"form": "nose"}}), "there is no form called nose"),
    ] {
        let parsed: Measure = serde_json::from_value(what).unwrap();
        let fault = measure(part(&made), &parsed).unwrap_err();
        assert!(fault.message.contains(words) && !fault.way_out.is_empty(), "{fault:?}");
    }
}

/// By hand, on a 100 x 60 base of 2 mm with a flange over the whole back (outside setback 4), a hole of 10 at 30 from the left and 20 from the
/// front, one of 6 24 further right, and a slot; the front left corner off at 45 deg.
#[test]
fn rims_areas_angles_and_setbacks_are_measured() {
    let pi = std::f64::consts::PI;
    let at = |x: f64, y: f64| json!({"from": [{"edge": "base.left", "distance": format!("{x} mm")}, {"edge": "base.front", "distance": format!("{y} mm")}]});
    let made = sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("100 mm", "60 mm"),
            bend("wall", "base.back", "90 deg", "40 mm", json!({})),
            drill("big", "base", "10 mm", json!({"place": at(30.0, 20.0)})),
            drill("small", "base", "6 mm", json!({"place": at(54.0, 20.0)})),
            {"name": "slot", "do": {"cut": {"panel": "base", "slot": {"length": "12 mm", "width": "8 mm"}, "place": at(80.0, 30.0)}}},
            drill("eye", "wall", "8 mm", json!({})),
            {"name": "clip", "do": {"corner": {"panel": "base", "at": ["front/left"], "shape": {"chamfer": {"leg": "10 mm"}}}}},
        ]),
    ));
    let rim = |hole: &str, to: &str| json!({"rim": {"hole": hole, "to": to}});
    let slot = 12.0 * 8.0 + pi * 16.0;
    let panel = 100.0 * 56.0 - 50.0 - 25.0 * pi - 9.0 * pi - slot;
    let cases = [
        (rim("big", "base.left"), 25.0),
        (rim("big", "base.front"), 15.0),
        (rim("big", "small"), 24.0 - 5.0 - 3.0),
        (rim("small", "big"), 24.0 - 5.0 - 3.0),
        // To the tangent line, 56 from the front.
        (rim("big", "wall"), 56.0 - 25.0),
        (rim("big", "wall.bend"), 56.0 - 25.0),
        // The slot runs along the edge that it is placed from first: its near round at 80, 24, from the hole at 54, 20.
        (rim("small", "slot"), 26f64.hypot(4.0) - 3.0 - 4.0),
        // To the cut corner: the line from 10, 0 to 0, 10.
        (rim("big", "clip"), (30.0 + 20.0 - 10.0) / 2f64.sqrt() - 5.0),
        (json!({"hole_area": {"hole": "slot"}}), slot),
        (json!({"hole_cut_length": {"hole": "slot"}}), 24.0 + 8.0 * pi),
        (json!({"hole_area": {"hole": "big"}}), 25.0 * pi),
        (json!({"panel_area": {"panel": "base"}}), panel),
        // The side on the bend is not cut.
        (
            json!({"panel_cut_length": {"panel": "base"}}),
            90.0 + 46.0 + 56.0 + 200f64.sqrt() + 16.0 * pi + 24.0 + 8.0 * pi,
        ),
        (json!({"edge_angle": {"from": "base.front", "to": "base.right"}}), pi / 2.0),
        (json!({"edge_angle": {"from": "base.front", "to": "clip"}}), 0.75 * pi),
        (json!({"edge_angle": {"from": "clip", "to": "base.front"}}), 0.75 * pi),
        (json!({"edge_angle": {"from": "clip", "to": "base.right"}}), pi / 4.0),
        (json!({"setback": {"bend": "wall"}}), 4.0),
    ];
    for (what, expected) in cases {
        let parsed: Measure = serde_json::from_value(what.clone()).unwrap();
        let found = measure(part(&made), &parsed).unwrap_or_else(|fault| panic!("{what}: {fault:?}"));
        assert!((found.value - expected).abs() < 1e-9, "{what}: {}, expected {expected}", found.value);
        if let [place] = found.witnesses[..] {
            near(place.from.distance(place.to), found.value, 1e-9);
        }
    }
    for (what, words) in [
        (rim("big", "eye"), "big and eye lie in different panels"),
        (rim("big", "wall.end"), "different panels"),
        (rim("big", "big"), "no distance to itself"),
        (rim("nose", "big"), "no hole called nose"),
        (json!({"panel_area": {"panel": "roof"}}), "no panel called roof"),
        (json!({"seam_length": {"seam": "joint"}}), "no seam called joint"),
    ] {
        let parsed: Measure = serde_json::from_value(what).unwrap();
        let fault = measure(part(&made), &parsed).unwrap_err();
        assert!(fault.message.contains(words) && !fault.way_out.is_empty(), "{fault:?}");
    }
}

#[test]
fn what_cannot_be_measured_says_why() {
    let made = part_of_two();
    let cases = [
        (json!({"distance": {"from": "base.front", "to": "nose.end"}}), "nothing called nose.end"),
        (json!({"distance": {"from": "base.front", "to": "base.nose"}}), "nothing called base.nose"),
        (json!({"distance": {"from": "foot", "to": "base.front"}}), "foot is several holes"),
        (json!({"distance": {"from": "base.front", "to": "wall.end"}}), "are not parallel: they stand 90 deg apart"),
        (
            json!({"distance": {"from": "base.front", "to": "base.left", "along": "x"}}),
            "base.front runs over 96 mm along x",
        ),
        (json!({"distance": {"from": "base.inside", "to": "base.left"}}), "bent both up and down"),
        (json!({"leg": {"bend": "nose"}}), "there is no bend called nose"),
        (json!({"angle": {"from": "base", "to": "nose"}}), "there is no panel called nose"),
        (json!({"diameter": {"hole": "nose"}}), "there is no hole called nose"),
        (json!({"diameter": {"hole": "slot"}}), "slot is not round"),
        (json!({"hole_count": {"hole": "nose"}}), "there is no hole called nose"),
        (json!({"hole_size": {"hole": "slot", "along": "z"}}), "no size along z"),
        (json!({"blank_size": {"along": "z"}}), "no size along z"),
    ];
    for (what, words) in cases {
        let parsed: Measure = serde_json::from_value(what.clone()).unwrap();
        let fault = measure(part(&made), &parsed).expect_err(&what.to_string());
        assert!(fault.message.contains(words), "{what}: {}", fault.message);
        assert!(!fault.way_out.is_empty());
    }
    // A whole edge that a bend took names the bend and the way out.
    let bracket = sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("50 mm", "40 mm"),
            bend("up", "base.back", "90 deg", "30 mm", json!({})),
            bend("lip", "up.end", "90 deg", "20 mm", json!({}))
        ]),
    ));
    let lost: Measure = serde_json::from_value(json!({"distance": {"from": "base.front", "to": "base.back"}})).unwrap();
    let fault = measure(part(&bracket), &lost).unwrap_err();
    assert!(fault.message.contains("operation up bent it") && fault.way_out.contains("up.outside"), "{fault:?}");
    let leg: Measure = serde_json::from_value(json!({"leg": {"bend": "up"}})).unwrap();
    assert!(measure(part(&bracket), &leg).unwrap_err().message.contains("no free end"));
}

/// Overall size where the widest place is on the bend itself: past 90 deg the round stands furthest out.
#[test]
fn extents_see_the_round_of_a_bend() {
    for (degrees, direction) in [(120.0, "up"), (150.0, "up"), (120.0, "down"), (170.0, "down")] {
        let made = sound(&piece(
            "2 mm",
            "3 mm",
            "0.44",
            json!([
                base("60 mm", "40 mm"),
                bend(
                    "up",
                    "base.back",
                    &format!("{degrees} deg"),
                    "30 mm",
                    json!({"direction": direction, "position": "bend_outside"})
                )
            ]),
        ));
        let around = folded_extents(part(&made));
        // The outermost point lies R + T beyond the tangent line, whatever the angle past 90.
        near(around.high.y, 40.0 + 5.0, 1e-9);
        // The mesh agrees from inside: a chord never reaches past the round.
        let mesh = made.mesh.extents();
        assert!(mesh.high.y <= around.high.y + 1e-9 && around.high.y - mesh.high.y < 0.06);
        assert!(mesh.low.z >= around.low.z - 1e-9 && mesh.low.z - around.low.z < 0.06);
        assert!(mesh.high.z <= around.high.z + 1e-9);
    }
}

/// A dimension line is as long as what it measures.
#[test]
fn spans_are_as_long_as_their_measure() {
    let made = part_of_two();
    for what in [
        json!({"leg": {"bend": "wall", "to": "outside"}}),
        json!({"diameter": {"hole": "eye"}}),
        json!({"distance": {"from": "eye", "to": "base.bottom"}}),
        json!({"distance": {"from": "foot.1", "to": "foot.3"}}),
        json!({"distance": {"from": "wall.end", "to": "skirt.end", "along": "z"}}),
        json!({"size": {"along": "y"}}),
    ] {
        let parsed: Measure = serde_json::from_value(what.clone()).unwrap();
        let found = measure(part(&made), &parsed).unwrap();
        let [place] = found.witnesses[..] else { panic!("{what}: {found:?}") };
        near(place.from.distance(place.to), found.value, 1e-6);
    }
    let none: Measure = serde_json::from_value(json!("mass")).unwrap();
    assert!(measure(part(&made), &none).unwrap().witnesses.is_empty());
}

/// Stable names: an edit upstream does not re-point what is cited downstream.
#[test]
fn names_hold_through_edits_upstream() {
    let with = |width: &str, extra: Vec<Value>| {
        let mut operations = vec![base(width, "60 mm")];
        operations.extend(extra);
        operations.push(bend("wall", "base.back", "90 deg", "40 mm", json!({})));
        operations.push(drill(
            "eye",
            "wall",
            "10 mm",
            json!({"place": {"from": [{"edge": "wall.left", "distance": "15 mm"}]}}),
        ));
        sound(&piece("2 mm", "2 mm", "0.42", Value::Array(operations)))
    };
    let from_left = json!({"distance": {"from": "eye", "to": "wall.left"}});
    for made in [
        with("100 mm", vec![]),
        with("173.5 mm", vec![]),
        with("100 mm", vec![bend("front", "base.front", "45 deg", "25 mm", json!({}))]),
        with("100 mm", vec![drill("other", "base", "12 mm", json!({}))]),
    ] {
        near(probe(&made, from_left.clone()), 15.0, 1e-9);
        near(probe(&made, json!({"distance": {"from": "eye", "to": "base.left"}})), 15.0, 1e-9);
    }
}

#[test]
fn side_names_follow_the_neighbours() {
    let made = sound(&piece(
        "2 mm",
        "2 mm",
        "0.42",
        json!([
            base("100 mm", "60 mm"),
            bend("wall", "base.back", "90 deg", "40 mm", json!({})),
            bend("ear", "wall.left", "90 deg", "20 mm", json!({"set_in": {"near": "6 mm"}})),
            bend(
                "side",
                "base.right",
                "90 deg",
                "20 mm",
                json!({"set_in": {"back": "12 mm"}, "position": "bend_outside"})
            ),
        ]),
    ));
    let names: Vec<&str> = part(&made).flat.edges.iter().map(|edge| edge.name.as_str()).collect();
    for name in
        ["wall.left", "wall.end", "wall.right", "ear.near", "ear.end", "ear.far", "side.front", "side.end", "side.back"]
    {
        assert!(names.contains(&name), "{name} is not in {names:?}");
    }
    // The wall's left side stands over the base's left side.
    near(probe(&made, json!({"distance": {"from": "wall.right", "to": "base.right", "along": "x"}})), 0.0, 1e-9);
}
