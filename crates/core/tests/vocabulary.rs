//! Every word of bent sheet with each of its choices, against figures worked out by hand from the handbook's formulas:
//! BA = A (R + K T), setbacks (R + T) tan(A/2) to 90 deg and R + T above it.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, evaluate};
use steelk_testing::{base, bend, drill, near, part, piece, probe, sound};

/// 2 mm, R 3, K 0.4 throughout.
const T: f64 = 2.0;
const R: f64 = 3.0;

fn ba(angle: f64) -> f64 {
    angle.to_radians() * (R + 0.4 * T)
}

fn outside(angle: f64) -> f64 {
    if angle > 90.0 { R + T } else { (R + T) * (angle / 2.0).to_radians().tan() }
}

fn inside(angle: f64) -> f64 {
    if angle > 90.0 { R } else { R * (angle / 2.0).to_radians().tan() }
}

fn part_of(work: Vec<Value>) -> Outcome {
    sound(&piece("2 mm", "3 mm", "0.4", Value::Array(work)))
}

fn on_base(action: Value) -> Outcome {
    part_of(vec![base("100 mm", "60 mm"), json!({"name": "x", "do": action})])
}

fn height(outcome: &Outcome) -> f64 {
    part(outcome).blank.extents().height()
}

fn width(outcome: &Outcome) -> f64 {
    part(outcome).blank.extents().width()
}

/// Where the bend sits: material inside keeps 60 over all, material outside adds T, bend outside keeps the flat of 60.
#[test]
fn positions_of_every_angle() {
    for angle in [15.0, 45.0, 90.0, 120.0, 165.0, 180.0] {
        let leg = 40.0;
        for (position, back) in
            [("material_inside", outside(angle)), ("material_outside", inside(angle)), ("bend_outside", 0.0)]
        {
            let outcome = on_base(
                json!({"bend": {"edge": "base.back", "angle": format!("{angle} deg"), "leg": "40 mm", "position": position}}),
            );
            near(height(&outcome), 60.0 - back + ba(angle) + leg - outside(angle), 1e-9);
            near(probe(&outcome, json!({"leg": {"bend": "x"}})), leg, 1e-9);
            near(probe(&outcome, json!({"bend_angle": {"bend": "x"}})).to_degrees(), angle, 1e-6);
            near(probe(&outcome, json!({"inside_radius": {"bend": "x"}})), R, 1e-7);
        }
    }
}

/// What a leg is measured to, up and down, measured back from the folded part.
#[test]
fn legs_of_every_kind() {
    for direction in ["up", "down"] {
        for angle in [30.0, 90.0, 135.0] {
            for (to, setback) in [("outside", outside(angle)), ("inside", inside(angle)), ("tangent", 0.0)] {
                let outcome = on_base(
                    json!({"bend": {"edge": "base.right", "angle": format!("{angle} deg"), "leg": "35 mm", "leg_to": to, "direction": direction}}),
                );
                near(width(&outcome), 100.0 - outside(angle) + ba(angle) + 35.0 - setback, 1e-9);
                near(probe(&outcome, json!({"leg": {"bend": "x", "to": to}})), 35.0, 1e-9);
            }
        }
        let mould = on_base(
            json!({"bend": {"edge": "base.right", "angle": "120 deg", "leg": "35 mm", "leg_to": "mould", "direction": direction}}),
        );
        let setback = (R + T) * 60f64.to_radians().tan();
        near(width(&mould), 100.0 - 5.0 + ba(120.0) + 35.0 - setback, 1e-9);
        near(probe(&mould, json!({"leg": {"bend": "x", "to": "mould"}})), 35.0, 1e-9);
    }
    let flat = evaluate(
        &piece(
            "2 mm",
            "3 mm",
            "0.4",
            json!([base("100 mm", "60 mm"), bend("x", "base.back", "180 deg", "30 mm", json!({"leg_to": "mould"}))]),
        ),
        Options::default(),
    );
    assert!(flat.findings.iter().any(|one| one.message.contains("no mould line")), "{:?}", flat.findings);
}

/// Published blanks of DIN 6935: legs a + b + v with v = pi (180 - b)/180 (r + k s/2) - 2 (r + s) at 90 deg. For s = 2,
/// r = 3: k = 0.65 + 0.5 log10(1.5) = 0.738046, v = 1.570796 (3 + 0.738046) - 10 = -4.12829.
#[test]
fn din_6935_by_profile_and_by_flange() {
    let legs = json!([
        {"line": {"length": "50 mm", "name": "a"}}, {"line": {"length": "80 mm", "turn": "90 deg", "name": "b"}},
        {"line": {"length": "50 mm", "turn": "90 deg", "name": "c"}}
    ]);
    let v = PI / 2.0 * (3.0 + (0.65 + 0.5 * 1.5f64.log10()) * 2.0 / 2.0) - 10.0;
    near(v, -4.128_29, 1e-5);
    let by_profile =
        part_of(vec![json!({"name": "p", "do": {"profile": {"legs": legs, "width": "30 mm", "method": "din6935"}}})]);
    near(width(&by_profile), 180.0 + 2.0 * v, 1e-9);
    let by_flange =
        on_base(json!({"bend": {"edge": "base.back", "angle": "90 deg", "leg": "50 mm", "method": "din6935"}}));
    near(height(&by_flange), 110.0 + v, 1e-9);
    // Above R/T = 5 the neutral axis lies in the middle: the arc of the middle of the metal.
    let rolled = part_of(vec![
        json!({"name": "r", "do": {"roll": {"radius": "40 mm", "span": {"angle": "90 deg"}, "width": "30 mm", "method": "din6935"}}}),
    ]);
    near(width(&rolled), PI / 2.0 * 41.0, 1e-9);
}

/// Methods of a bend's own: K, allowance, deduction, and the piece's for the others.
#[test]
fn a_bend_has_its_own_method() {
    let with = |method: Value| {
        height(&on_base(json!({"bend": {"edge": "base.back", "angle": "90 deg", "leg": "40 mm", "method": method}})))
    };
    near(with(json!({"k_factor": "0.5"})), 100.0 - 10.0 + PI / 2.0 * 4.0, 1e-9);
    near(with(json!({"allowance": "6 mm"})), 96.0, 1e-9);
    near(with(json!({"deduction": "3.7 mm"})), 96.3, 1e-9);
    near(
        with(json!({"k_curve": [{"ratio": "1", "k": "0.3"}, {"ratio": "2", "k": "0.5"}]})),
        90.0 + PI / 2.0 * (3.0 + 0.4 * 2.0),
        1e-9,
    );
}

/// A hat, a Z and a stepped profile have the heights and widths of their drawings, whichever leg stays put.
#[test]
fn profiles_of_every_shape() {
    let line = |name: &str, length: f64, turn: f64| json!({"line": {"name": name, "length": format!("{length} mm"), "turn": format!("{turn} deg")}});
    let made = |legs: Vec<Value>, stays: &str, extra: Value| {
        let mut fields = json!({"legs": legs, "width": "150 mm", "stays": stays});
        for (key, value) in extra.as_object().expect("an object") {
            fields[key] = value.clone();
        }
        part_of(vec![json!({"name": "p", "do": {"profile": fields}})])
    };
    let hat = || {
        vec![
            line("foot", 25.0, 0.0),
            line("side", 50.0, 90.0),
            line("top", 70.0, -90.0),
            line("other", 50.0, -90.0),
            line("toe", 25.0, 90.0),
        ]
    };
    for stays in ["foot", "top", "toe"] {
        let outcome = made(hat(), stays, json!({}));
        near(width(&outcome), 220.0 - 4.0 * (10.0 - ba(90.0)), 1e-9);
        near(probe(&outcome, json!({"size": {"along": "z"}})), 50.0, 1e-9);
        // Feet outside to outside: the top, and each foot less the side's thickness that both count.
        near(probe(&outcome, json!({"size": {"along": "x"}})), 70.0 + 2.0 * (25.0 - T), 1e-9);
        near(probe(&outcome, json!({"size": {"along": "y"}})), 150.0, 1e-9);
    }
    // Half to each side of the origin.
    let centred = made(hat(), "top", json!({"width_from": "centre"}));
    near(part(&centred).blank.extents().low.y, -75.0, 1e-9);
    // A drawn arc is a bend of its own radius: outside 30 is 28 inside, and it takes nothing of its neighbours.
    let arc = json!({"arc": {"name": "bow", "radius": "30 mm", "sweep": "90 deg"}});
    let bow = made(vec![line("a", 40.0, 0.0), arc.clone(), line("b", 20.0, 0.0)], "a", json!({}));
    near(width(&bow), 60.0 + PI / 2.0 * (28.0 + 0.4 * T), 1e-9);
    near(probe(&bow, json!({"inside_radius": {"bend": "p.bow"}})), 28.0, 1e-7);
    near(probe(&bow, json!({"size": {"along": "z"}})), 50.0, 1e-9);
    for (sizes, inner) in [("inside", 30.0), ("middle", 29.0), ("metal_left", 28.0), ("metal_right", 30.0)] {
        let outcome = made(vec![line("a", 40.0, 0.0), arc.clone(), line("b", 20.0, 0.0)], "a", json!({"sizes": sizes}));
        near(probe(&outcome, json!({"inside_radius": {"bend": "p.bow"}})), inner, 1e-7);
    }
    // Two bends that follow each other with nothing flat between share a tangent line.
    let setback = outside(90.0);
    let tight = made(vec![line("a", 40.0, 0.0), line("b", 2.0 * setback, 90.0), line("c", 40.0, 90.0)], "a", json!({}));
    assert_eq!(part(&tight).flat.nodes.iter().filter(|node| node.is_panel()).count(), 2);
    near(probe(&tight, json!({"size": {"along": "z"}})), 2.0 * setback, 1e-9);
    // A hem by its profile: straight back is a half turn.
    let hem = made(vec![line("a", 40.0, 0.0), line("b", 20.0, 180.0)], "a", json!({"radius": "1 mm"}));
    near(probe(&hem, json!({"size": {"along": "z"}})), 2.0 * T + 2.0, 1e-9);
}

/// Joggles by every direction and position: the panel past it lies off by the offset and as far out as its sums say.
#[test]
fn joggles_of_every_position() {
    for (direction, sign) in [("up", 1.0), ("down", -1.0)] {
        for (angle, offset) in [(45.0f64, 8.0), (60.0, 15.0), (90.0, 20.0)] {
            let outcome = on_base(
                json!({"joggle": {"edge": "base.back", "offset": format!("{offset} mm"), "angle": format!("{angle} deg"), "leg": "30 mm", "direction": direction}}),
            );
            let (s, c) = angle.to_radians().sin_cos();
            let web = (offset - (2.0 * R + T) * (1.0 - c)) / s;
            near(height(&outcome), 60.0 + 2.0 * ba(angle) + web + 30.0, 1e-9);
            let place = |z: f64| {
                part(&outcome).folded.apply(
                    part(&outcome).flat.panel("x").expect("x"),
                    part(&outcome).flat.nodes[part(&outcome).flat.panel("x").expect("x")].laid.centre(),
                    z,
                )
            };
            near(place(0.0).z, sign * offset, 1e-9);
            // Out by the two bends' arcs and the web's share.
            near(
                probe(&outcome, json!({"distance": {"from": "base.front", "to": "x.end", "along": "y"}})),
                60.0 + (2.0 * R + T) * s + web * c + 30.0,
                1e-9,
            );
        }
    }
}

/// Hems on set-in stretches, down, with relief, and by their own method.
#[test]
fn hems_of_every_kind_and_place() {
    let down = on_base(
        json!({"hem": {"edge": "base.front", "style": {"open": {"length": "14 mm", "gap": "4 mm"}}, "direction": "down"}}),
    );
    near(probe(&down, json!({"distance": {"from": "base.bottom", "to": "x.bottom", "along": "z"}})), 4.0, 1e-9);
    near(height(&down), 60.0 - 4.0 + PI * (2.0 + 0.8) + 10.0, 1e-9);
    let own = on_base(
        json!({"hem": {"edge": "base.front", "style": {"closed": {"length": "10 mm"}}, "method": {"allowance": "1.8 mm"}}}),
    );
    near(height(&own), 60.0 - 2.0 + 1.8 + 8.0, 1e-9);
    let part_way = on_base(
        json!({"hem": {"edge": "base.front", "style": {"closed": {"length": "10 mm"}}, "set_in": {"left": "20 mm", "right": "30 mm"}, "relief": {"shape": "obround"}}}),
    );
    near(probe(&part_way, json!({"edge_length": {"edge": "x.end"}})), 50.0, 1e-9);
    assert!(part_way.breaches.iter().all(|one| one.rule != "relief_missing"), "{:?}", part_way.breaches);
    for (position, back) in [("material_outside", 2.0), ("bend_outside", 0.0)] {
        let outcome = on_base(
            json!({"hem": {"edge": "base.back", "style": {"open": {"length": "14 mm", "gap": "4 mm"}}, "position": position}}),
        );
        near(height(&outcome), 60.0 - back + PI * 2.8 + 10.0, 1e-9);
    }
    let curl =
        on_base(json!({"hem": {"edge": "base.back", "style": {"rolled": {"radius": "4 mm", "angle": "320 deg"}}}}));
    near(height(&curl), 60.0 - 6.0 + 320f64.to_radians() * 4.8, 1e-9);
    near(probe(&curl, json!({"bend_angle": {"bend": "x"}})).to_degrees(), 320.0, 1e-6);
}

/// Creases: which part moves, where the line stands relative to the bend, up and down.
#[test]
fn creases_of_every_position() {
    for (position, back) in
        [("centred", ba(90.0) / 2.0), ("material_inside", outside(90.0)), ("material_outside", inside(90.0))]
    {
        for moves in ["near", "far"] {
            let outcome = on_base(
                json!({"crease": {"panel": "base", "edge": "base.front", "distance": "25 mm", "angle": "90 deg", "moves": moves, "position": position}}),
            );
            near(height(&outcome), 60.0, 1e-9);
            // What moves is what lies past the bend's second tangent line.
            let past = if moves == "near" { 25.0 } else { 35.0 };
            near(probe(&outcome, json!({"leg": {"bend": "x", "to": "tangent"}})), past + back - ba(90.0), 1e-9);
            let panels = part(&outcome).flat.nodes.iter().filter(|node| node.is_panel()).count();
            assert_eq!(panels, 2);
        }
    }
    // Two lines across each other's parts fold one after the other.
    let twice = part_of(vec![
        base("100 mm", "60 mm"),
        json!({"name": "one", "do": {"crease": {"panel": "base", "edge": "base.front", "distance": "15 mm", "angle": "90 deg"}}}),
        json!({"name": "two", "do": {"crease": {"panel": "base", "edge": "base.back", "distance": "15 mm", "angle": "45 deg", "direction": "down"}}}),
        json!({"name": "three", "do": {"crease": {"panel": "two", "edge": "base.back", "distance": "6 mm", "angle": "30 deg"}}}),
    ]);
    near(part(&twice).blank.region.area(), 6000.0, 1e-6);
    assert_eq!(twice.bends().len(), 3);
    // A U: one line, two prongs that move, each a panel of its own.
    let prongs = part_of(vec![
        base("100 mm", "60 mm"),
        json!({"name": "gap", "do": {"notch": {"edge": "base.back", "shape": {"square": {"width": "30 mm", "depth": "40 mm"}}}}}),
        json!({"name": "ears", "do": {"crease": {"panel": "base", "edge": "base.back", "distance": "25 mm", "angle": "90 deg"}}}),
    ]);
    let flat = &part(&prongs).flat;
    assert!(flat.panel("ears.1").is_some() && flat.panel("ears.2").is_some() && flat.panel("ears").is_none());
    near(part(&prongs).blank.region.area(), 6000.0 - 1200.0, 1e-6);
}

/// Cuts across bends: a round hole on the bend line stays a hole of the blank, and its metal is gone from panel, strip and
/// flange alike; a slanted slot too.
#[test]
fn cuts_across_bends_take_from_all() {
    let hole = |action: Value| {
        part_of(vec![
            base("100 mm", "60 mm"),
            bend("up", "base.back", "90 deg", "40 mm", json!({})),
            json!({"name": "x", "do": action}),
        ])
    };
    let whole = 100.0 * (100.0 - 10.0 + ba(90.0));
    let round = hole(
        json!({"drill": {"panel": "base", "diameter": "20 mm", "reach": "flat", "place": {"from": [{"edge": "up.tangent", "distance": format!("{} mm", -ba(90.0) / 2.0)}]}}}),
    );
    near(part(&round).blank.region.area(), whole - PI * 100.0, 1e-6);
    let pieces: f64 = part(&round).flat.nodes.iter().map(|node| node.region.area()).sum();
    near(pieces, whole - PI * 100.0, 1e-6);
    assert_eq!(part(&round).flat.nodes.iter().filter(|node| !node.is_panel()).count(), 2, "the strip is parted");
    let slot = hole(
        json!({"cut": {"panel": "base", "slot": {"length": "30 mm", "width": "8 mm"}, "turn": "35 deg", "reach": "flat", "place": {"from": [{"edge": "up.tangent", "distance": "0 mm"}]}}}),
    );
    near(part(&slot).blank.region.area(), whole - 240.0 - PI * 16.0, 1e-6);
    let (mesh, _) = steelk_core::sheet::folded_mesh(&part(&slot).flat, &part(&slot).tree, &part(&slot).folded, 0.05)
        .expect("a mesh");
    assert!(mesh.is_watertight());
}

/// One row on many panels is placed from each panel's own edges; its holes are numbered on; a panel that lacks the edge is
/// named.
#[test]
fn rows_on_many_panels() {
    let tray = |hole: Value| {
        piece(
            "2 mm",
            "3 mm",
            "0.4",
            json!([
                base("200 mm", "120 mm"),
                bend(
                    "wall",
                    "base.front",
                    "90 deg",
                    "40 mm",
                    json!({"also": ["base.back", "base.left", "base.right"]})
                ),
                hole,
            ]),
        )
    };
    let also = json!(["wall.back", "wall.left", "wall.right"]);
    let keyholes = sound(&tray(
        json!({"name": "x", "do": {"cut": {"panel": "wall.front", "also": also, "keyhole": {"head": "9 mm", "slot": "4 mm", "travel": "6 mm"},
        "place": {"from": [{"edge": "wall.front.end", "distance": "18 mm"}]}, "repeat": [{"count": "2", "spacing": "50 mm"}]}}}),
    ));
    let holes = &part(&keyholes).flat.holes;
    assert_eq!(holes.len(), 8);
    for (at, wall) in ["front", "back", "left", "right"].iter().enumerate() {
        let panel = part(&keyholes).flat.panel(&format!("wall.{wall}")).expect("a wall");
        assert!(holes[2 * at..2 * at + 2].iter().all(|hole| hole.panel == panel));
        near(
            probe(
                &keyholes,
                json!({"distance": {"from": format!("x.{}", 2 * at + 1), "to": format!("x.{}", 2 * at + 2)}}),
            ),
            50.0,
            1e-9,
        );
    }
    let missing = evaluate(
        &tray(
            json!({"name": "x", "do": {"drill": {"panel": "wall.front", "also": ["base"], "diameter": "5 mm", "place": {"from": [{"edge": "wall.front.end", "distance": "18 mm"}]}}}}),
        ),
        Options::default(),
    );
    let fault = missing.findings.iter().find(|one| one.severity == Severity::Error).expect("a refusal");
    assert!(fault.message.starts_with("on base:"), "{}", fault.message);
    assert_eq!(fault.field.as_deref(), Some("also.0"));
}

/// Straight through: bolts through a box's two sides line up; a slanted panel takes the tool's outline from its own side.
#[test]
fn straight_through_everything() {
    let channel = json!({"name": "c", "do": {"profile": {"legs": [
        {"line": {"name": "a", "length": "40 mm"}}, {"line": {"name": "web", "length": "60 mm", "turn": "90 deg"}}, {"line": {"name": "b", "length": "40 mm", "turn": "90 deg"}}
    ], "width": "120 mm"}}});
    let bolts = part_of(vec![
        channel,
        json!({"name": "bolt", "do": {"drill": {"panel": "c.a", "clearance": {"bolt": "M8"}, "reach": "through",
            "place": {"from": [{"edge": "c.a.start", "distance": "15 mm"}, {"edge": "c.a.front", "distance": "30 mm"}]}, "repeat": [{"count": "2", "spacing": "60 mm", "along": "c.a.start"}]}}}),
    ]);
    // Two bolts through two sides, clearance by ISO 273 medium: 9 mm.
    assert_eq!(part(&bolts).flat.holes.len(), 4);
    for hole in ["bolt.1", "bolt.2", "bolt.3", "bolt.4"] {
        near(probe(&bolts, json!({"diameter": {"hole": hole}})), 9.0, 1e-9);
    }
    let flat = &part(&bolts).flat;
    let place = |at: usize| part(&bolts).folded.apply(flat.holes[at].panel, flat.holes[at].centre, T / 2.0);
    for pair in [(0, 1), (2, 3)] {
        let (a, b) = (place(pair.0), place(pair.1));
        near(a.y, b.y, 1e-9);
        near(a.z, b.z, 1e-9);
    }
    let lean = part_of(vec![
        base("100 mm", "60 mm"),
        bend("over", "base.back", "130 deg", "70 mm", json!({})),
        json!({"name": "pin", "do": {"drill": {"panel": "base", "diameter": "10 mm", "reach": "through", "place": {"from": [{"edge": "over.mould-outside", "distance": "20 mm"}]}}}}),
    ]);
    // On the leaning panel a circle of 10 is 10 wide and 10 / cos 50 deg long on either face; from face to face the shaft moves
    // on by T tan 50 deg along the panel, and walls square to the sheet must let all of it through.
    let slant = 50f64.to_radians();
    near(probe(&lean, json!({"hole_size": {"hole": "pin.2", "along": "x"}})), 10.0, 0.01);
    near(
        probe(&lean, json!({"hole_size": {"hole": "pin.2", "along": "y"}})),
        10.0 / slant.cos() + T * slant.tan(),
        0.01,
    );
    let on_bend = evaluate(
        &piece(
            "2 mm",
            "3 mm",
            "0.4",
            json!([
                base("100 mm", "60 mm"),
                bend("up", "base.back", "90 deg", "40 mm", json!({})),
                drill(
                    "x",
                    "up",
                    "6 mm",
                    json!({"reach": "through", "place": {"from": [{"edge": "up.tangent", "distance": "-1 mm"}]}})
                )
            ]),
        ),
        Options::default(),
    );
    assert!(
        on_bend.findings.iter().any(|one| one.message.contains("would run through the bend up")),
        "{:?}",
        on_bend.findings
    );
}

/// Rows of notches and tabs stand where they are said; one that runs off or into its neighbour is refused.
#[test]
fn rows_along_an_edge() {
    let tabs = on_base(
        json!({"tab": {"edge": "base.right", "width": "10 mm", "height": "5 mm", "at": "15 mm", "count": "2", "spacing": "30 mm"}}),
    );
    near(part(&tabs).blank.region.area(), 6000.0 + 100.0, 1e-9);
    near(probe(&tabs, json!({"distance": {"from": "x.1", "to": "base.left", "along": "x"}})), 105.0, 1e-9);
    near(probe(&tabs, json!({"edge_length": {"edge": "x.2"}})), 10.0, 1e-9);
    let even = on_base(json!({"tab": {"edge": "base.right", "width": "6 mm", "height": "5 mm", "count": "3"}}));
    // Three in equal shares of 60: middles at 10, 30 and 50.
    let middles: Vec<f64> = part(&even).flat.tabs.iter().map(|tab| (tab.root.start.y + tab.root.end.y) / 2.0).collect();
    for (found, wanted) in middles.iter().zip([10.0, 30.0, 50.0]) {
        near(*found, wanted, 1e-9);
    }
    for (action, words) in [
        (
            json!({"tab": {"edge": "base.right", "width": "10 mm", "height": "5 mm", "at": "58 mm"}}),
            "runs out over base.right",
        ),
        (
            json!({"tab": {"edge": "base.right", "width": "10 mm", "height": "5 mm", "at": "15 mm", "count": "2"}}),
            "has no spacing",
        ),
        (
            json!({"notch": {"edge": "base.right", "shape": {"round": "8 mm"}, "count": "2", "spacing": "12 mm"}}),
            "run into each other",
        ),
        (json!({"notch": {"edge": "base.gone", "shape": {"round": "8 mm"}}}), "no edge called base.gone"),
    ] {
        let outcome = evaluate(
            &piece("2 mm", "3 mm", "0.4", json!([base("100 mm", "60 mm"), {"name": "x", "do": action}])),
            Options::default(),
        );
        assert!(outcome.findings.iter().any(|one| one.message.contains(words)), "{words}: {:?}", outcome.findings);
    }
}

/// A plate bends nothing, and says which operation would.
#[test]
fn a_plate_bends_nothing() {
    for action in [
        json!({"roll": {"radius": "100 mm", "span": {"angle": "90 deg"}, "width": "50 mm"}}),
        json!({"profile": {"legs": [{"line": {"length": "50 mm"}}], "width": "50 mm"}}),
        json!({"hem": {"edge": "base.front", "style": {"closed": {"length": "10 mm"}}}}),
        json!({"joggle": {"edge": "base.front", "offset": "9 mm", "leg": "20 mm"}}),
        json!({"crease": {"panel": "base", "edge": "base.front", "distance": "20 mm", "angle": "90 deg"}}),
    ] {
        let mut plate = piece("2 mm", "3 mm", "0.4", json!([{"name": "x", "do": action}]));
        plate.kind = steelk_core::piece::Kind::Plate;
        let outcome = evaluate(&plate, Options::default());
        assert!(
            outcome.findings.iter().any(|one| one.message.contains("x bends sheet, and X-1 is a plate")),
            "{:?}",
            outcome.findings
        );
    }
}

/// Legs name panels: each a name of its own that can be cited.
#[test]
fn legs_have_names_of_their_own() {
    let with = |one: &str, two: &str| {
        let legs = json!([{"line": {"name": one, "length": "40 mm"}}, {"line": {"name": two, "length": "40 mm", "turn": "90 deg"}}]);
        evaluate(
            &piece("2 mm", "3 mm", "0.4", json!([{"name": "p", "do": {"profile": {"legs": legs, "width": "50 mm"}}}])),
            Options::default(),
        )
    };
    let message = |outcome: Outcome| outcome.findings.into_iter().map(|one| one.message).collect::<Vec<_>>().join("; ");
    assert!(message(with("web", "web")).contains("two legs are called web"));
    assert!(message(with("web", "the lip")).contains("is no name of a leg"));
    assert!(message(with("web.x", "lip")).contains("is no name of a leg"));
    assert!(with("web", "lip").part().is_some());
    // A bend with a bend on either side is called by the operation too.
    let legs = json!([
        {"line": {"name": "a", "length": "40 mm"}}, {"line": {"name": "b", "length": "10 mm", "turn": "90 deg"}}, {"line": {"name": "c", "length": "40 mm", "turn": "90 deg"}}
    ]);
    let tight = part_of(vec![json!({"name": "p", "do": {"profile": {"legs": legs, "width": "50 mm", "stays": "a"}}})]);
    let bends = tight.bends();
    let names: Vec<&str> = bends.iter().map(|bend| bend.name.as_str()).collect();
    assert_eq!(names, ["p.bend-2", "p.c"]);
}

/// A rolled hem of less than a right angle keeps the edge's place by the rule of every bend.
#[test]
fn a_slight_curl_keeps_its_place() {
    let outcome =
        on_base(json!({"hem": {"edge": "base.back", "style": {"rolled": {"radius": "4 mm", "angle": "60 deg"}}}}));
    near(height(&outcome), 60.0 - 6.0 * 30f64.to_radians().tan() + PI / 3.0 * 4.8, 1e-9);
}

/// "4x 15 from the edges": on a plate, on a base whose sides are bent (from the outside), on a flange (from the outside of its own
/// bend), in the order round the panel.
#[test]
fn holes_at_the_corners_are_from_the_edges_of_the_drawing() {
    let at = |outcome: &Outcome| -> Vec<(f64, f64)> {
        let holes = &part(outcome).flat.holes;
        holes.iter().map(|hole| (hole.centre.x, hole.centre.y)).collect()
    };
    let close = |found: &[(f64, f64)], wanted: &[(f64, f64)]| {
        assert_eq!(found.len(), wanted.len());
        for (a, b) in found.iter().zip(wanted) {
            assert!((a.0 - b.0).abs() < 1e-9 && (a.1 - b.1).abs() < 1e-9, "{found:?}, not {wanted:?}");
        }
    };
    let corners = |panel: &str, more: Value| json!({"name": "bolt", "do": {"drill": {"panel": panel, "diameter": "9 mm", "pattern": {"corners": more}}}});
    let of = |operations: Value| sound(&piece("3 mm", "3 mm", "0.44", operations));
    let plate = of(json!([base("140 mm", "80 mm"), corners("base", json!({"distance": "15 mm"}))]));
    close(&at(&plate), &[(15.0, 15.0), (125.0, 15.0), (125.0, 65.0), (15.0, 65.0)]);
    let two = of(json!([base("140 mm", "80 mm"), corners("base", json!({"distance": "15 mm", "other": "20 mm"}))]));
    close(&at(&two), &[(15.0, 20.0), (125.0, 20.0), (125.0, 60.0), (15.0, 60.0)]);
    // The U bracket of a drawing: legs up on the short sides, the holes still 15 from the outside.
    let bent = of(json!([
        base("140 mm", "80 mm"),
        bend("leg", "base.left", "90 deg", "50 mm", json!({})),
        bend("arm", "base.right", "90 deg", "50 mm", json!({})),
        corners("base", json!({"distance": "15 mm"})),
    ]));
    close(&at(&bent), &[(15.0, 15.0), (125.0, 15.0), (125.0, 65.0), (15.0, 65.0)]);
    // On the leg 50 outside: 12 from its end and from the outside of its bend, so 26 apart; 10 from its sides, 60 apart.
    let leg = of(json!([
        base("140 mm", "80 mm"),
        bend("leg", "base.front", "90 deg", "50 mm", json!({})),
        corners("leg", json!({"distance": "10 mm", "other": "12 mm"})),
    ]));
    let holes = at(&leg);
    let apart = |one: usize, two: usize| (holes[one].0 - holes[two].0).hypot(holes[one].1 - holes[two].1);
    for (one, two, wanted) in [(0, 1, 120.0), (1, 2, 26.0), (2, 3, 120.0), (3, 0, 26.0)] {
        assert!((apart(one, two) - wanted).abs() < 1e-9, "{holes:?}");
    }
    // A tab on a side is no side, and a notch takes none away.
    let tabbed = of(json!([
        base("140 mm", "80 mm"),
        {"name": "ear", "do": {"tab": {"edge": "base.back", "width": "20 mm", "height": "10 mm"}}},
        {"name": "nick", "do": {"notch": {"edge": "base.front", "shape": {"square": {"width": "20 mm", "depth": "6 mm"}}}}},
        corners("base", json!({"distance": "15 mm"})),
    ]));
    close(&at(&tabbed), &[(15.0, 15.0), (125.0, 15.0), (125.0, 65.0), (15.0, 65.0)]);
    // Inches, and a count of the drawing's own kind.
    let inches = of(json!([base("6 in", "4 in"), corners("base", json!({"distance": "1/2 in"}))]));
    close(&at(&inches), &[(12.7, 12.7), (139.7, 12.7), (139.7, 88.9), (12.7, 88.9)]);
    let refused = |operations: Value| {
        let outcome = evaluate(&piece("3 mm", "3 mm", "0.44", operations), Options::default());
        let error = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("it is refused").clone();
        (error.field.unwrap_or_default(), error.message)
    };
    let disc = json!({"name": "base", "do": {"lay_down": {"shape": {"circle": {"diameter": "100 mm"}}}}});
    let (field, words) = refused(json!([disc, corners("base", json!({"distance": "15 mm"}))]));
    assert!(field.ends_with("pattern.corners") && words.contains("no rectangle"), "{field} {words}");
    let mut placed = corners("base", json!({"distance": "15 mm"}));
    placed["do"]["drill"]["place"] = json!({"from": [{"edge": "base.left", "distance": "10 mm"}]});
    let (field, _) = refused(json!([base("140 mm", "80 mm"), placed]));
    assert!(field.ends_with("place"), "{field}");
    // So far in that they run into each other.
    refused(json!([base("140 mm", "80 mm"), corners("base", json!({"distance": "38 mm"}))]));
}
