//! A piece parted into blanks: no folded place moves, no metal is lost or won, and what is said of seams is what lies there.

use std::collections::HashSet;
use std::f64::consts::PI;

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::measure::measure_sheets;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::{Part, Sheets, folded_body};
use steelk_core::space::query::{Probe, clash, clearance};
use steelk_testing::{law, *};

fn split_line(name: &str, panel: &str, edge: &str, distance: &str, extra: Value) -> Value {
    let mut line = json!({"panel": panel, "edge": edge, "distance": distance});
    for (key, value) in extra.as_object().expect("an object") {
        line[key] = value.clone();
    }
    json!({"name": name, "do": {"split": {"at": {"line": line}}}})
}

fn split_bend(name: &str, bend: &str, strip: &str) -> Value {
    json!({"name": name, "do": {"split": {"at": {"bend": {"bend": bend, "strip": strip}}}}})
}

fn tray(opposite: bool, more: Vec<Value>) -> Piece {
    let mut all = vec![base("300 mm", "200 mm")];
    for (name, leg, ends) in [
        ("front", "40 mm", ["left", "right"]),
        ("right", "55 mm", ["front", "back"]),
        ("back", "40 mm", ["left", "right"]),
        ("left", "30 mm", ["front", "back"]),
    ] {
        let set_in = json!({"set_in": {ends[0]: "8 mm", ends[1]: "8 mm"}});
        all.push(bend(name, &format!("base.{name}"), "90 deg", leg, set_in));
    }
    all.extend(more);
    let mut piece = piece("2 mm", "3 mm", "0.42", Value::Array(all));
    piece.opposite_hand = opposite;
    piece
}

fn sheets(outcome: &Outcome) -> &Sheets {
    outcome.sheets().expect("sheets")
}

/// Every corner of every blank, where it is folded to, lies where the whole piece has that place of its flat: the flats keep their
/// coordinates when a piece is parted.
fn nothing_moved(whole: &Part, parted: &Sheets) {
    let thickness = whole.flat.thickness;
    for blank in parted.blanks() {
        for (at, node) in blank.part.flat.nodes.iter().enumerate() {
            for edge in &node.region.outer.edges {
                let place = edge.start;
                for z in [0.0, thickness * 0.4, thickness] {
                    let here = blank.part.folded.apply(at, place, z);
                    let near = |other: &usize| {
                        let region = &whole.flat.nodes[*other].region;
                        region.contains(place)
                            || region.outer.segments().any(|(segment, _)| segment.distance_to(place) < 1e-6)
                    };
                    let least = (0..whole.flat.nodes.len())
                        .filter(near)
                        .map(|other| whole.folded.apply(other, place, z).distance(here))
                        .fold(f64::INFINITY, f64::min);
                    assert!(least < 1e-8, "{} moved by {least} at {place:?}", node.name);
                }
            }
        }
    }
}

fn nothing_lost(whole: &Sheets, parted: &Sheets) {
    let (one, all) = (whole.whole(), parted.whole());
    near(all.net_area, one.net_area, 1e-6 * one.net_area);
    near(all.mass, one.mass, 1e-9 * one.mass);
    near(all.folded_volume, one.folded_volume, 1e-7 * one.folded_volume);
    near(all.centre_of_gravity.distance(one.centre_of_gravity), 0.0, 1e-6);
    near((all.folded_size + one.folded_size * -1.0).length(), 0.0, 1e-6);
}

/// Each body is closed, has the volume that is told, names of its own, and shares nothing with the others.
fn bodies_apart(parted: &Sheets) {
    let mut names = HashSet::new();
    let bodies: Vec<_> = parted
        .blanks()
        .iter()
        .map(|blank| {
            let body = folded_body(&blank.part.flat).expect("a solid");
            near(body.mass().volume, blank.figures.folded_volume, 1e-5 * blank.figures.folded_volume);
            for face in &body.faces {
                names.insert(face.name.clone());
            }
            body
        })
        .collect();
    let own: usize =
        bodies.iter().map(|body| body.faces.iter().map(|face| &face.name).collect::<HashSet<_>>().len()).sum();
    assert_eq!(own, names.len(), "a name stands on two blanks");
    let probes: Vec<Probe> = bodies.iter().map(|body| Probe::new(body).expect("a mesh")).collect();
    for one in 0..probes.len() {
        for two in one + 1..probes.len() {
            let found = clash(&probes[one], &probes[two], 0.05);
            assert!(found.is_none(), "{one} and {two} share metal: {found:?}");
        }
    }
}

/// A tray 300 x 200 cut into four by its two centre lines: four blanks of one bend corner each, every wall where it was. By hand: the
/// first line is 200 less two setbacks long on the base, and crosses two flanges and their strips.
#[test]
fn a_tray_cut_into_four() {
    let halves = split_line("half", "base", "left.mould-outside", "150 mm", json!({}));
    let quarters = [
        split_line("low", "base", "front.mould-outside", "100 mm", json!({})),
        split_line("high", "half", "half.front.mould-outside", "100 mm", json!({})),
    ];
    for opposite in [false, true] {
        let whole = sound(&tray(opposite, vec![]));
        let parted = sound(&tray(opposite, std::iter::once(halves.clone()).chain(quarters.clone()).collect()));
        let (one, four) = (sheets(&whole), sheets(&parted));
        assert_eq!(four.blanks().len(), 4);
        nothing_moved(&one.blanks()[0].part, four);
        nothing_lost(one, four);
        bodies_apart(four);
        // Front and back are alike, left and right are not: four blanks, no two the same, in pairs of opposite hands.
        let lines = four.lines();
        assert_eq!(lines.len(), 4, "{lines:?}");
        assert_eq!(lines.iter().filter(|line| line.hand_of.is_some()).count(), 2);
        let letters: Vec<String> = (0..4).map(Sheets::letter).collect();
        assert_eq!(letters, ["A", "B", "C", "D"]);
        for seam in four.seams() {
            near(seam.gap, 0.0, 1e-9);
            near(seam.angle, PI, 1e-9);
            near(seam.groove, 0.0, 1e-9);
        }
        // Along the first line: the base between its tangents, 200 - 2 (R + T), both flanges past theirs, 40 - (R + T), and the strips by
        // their allowance, at the neutral line.
        let panels = 190.0 + 35.0 + 35.0 + 2.0 * PI / 2.0 * (3.0 + 0.42 * 2.0);
        let along: f64 = four.seams().iter().filter(|seam| seam.name.starts_with("half")).map(|seam| seam.length).sum();
        near(along, panels, 1e-6);
    }
}

/// At a tangent line: the strip stays with the side that is told, and the wall that is left is measured by its name.
#[test]
fn parted_at_a_tangent_line() {
    let whole = sound(&tray(false, vec![]));
    for (strip, bends) in [("parent", [4, 0]), ("flange", [3, 1])] {
        let parted = sound(&tray(false, vec![split_bend("off", "right", strip)]));
        let two = sheets(&parted);
        assert_eq!(two.blanks().len(), 2);
        nothing_moved(&sheets(&whole).blanks()[0].part, two);
        nothing_lost(sheets(&whole), two);
        bodies_apart(two);
        let own: Vec<usize> = two.blanks().iter().map(|blank| blank.figures.bends).collect();
        assert_eq!(own, bends);
        let [seam] = two.seams() else { panic!("one seam") };
        near(seam.gap, 0.0, 1e-9);
        near(seam.angle, PI, 1e-9);
        // As long as the bend's line.
        let flat = &sheets(&whole).blanks()[0].part.flat;
        let long = flat.strip_of(flat.bend("right").expect("a bend")).length;
        near(seam.length, long, 1e-6);
        // A call-out of it: welded from outside alone.
        for what in ["seam_length", "weld_length"] {
            let what = serde_json::from_value(json!({what: {"seam": "off"}})).unwrap();
            near(measure_sheets(two, &what).unwrap().value, long, 1e-6);
        }
    }
}

/// What is measured across blanks is what the whole piece measures.
#[test]
fn measured_across_blanks() {
    let what = [
        json!({"distance": {"from": "left.outside", "to": "right.outside", "along": "x"}}),
        json!({"distance": {"from": "front.outside", "to": "back.outside", "along": "y"}}),
        json!({"size": {"along": "z"}}),
        json!({"centre_of_gravity": {"along": "x"}}),
        json!("mass"),
        json!("net_area"),
    ];
    let units = ["1 mm", "1 mm", "1 mm", "1 mm", "1 kg", "1 mm2"];
    let said: Vec<Value> = what
        .iter()
        .enumerate()
        .map(|(at, what)| json!({"name": format!("M{at}"), "value": units[at], "measure": what}))
        .collect();
    let measured = |more: Vec<Value>| -> Vec<f64> {
        let mut piece = tray(false, more);
        piece.callouts = serde_json::from_value(Value::Array(said.clone())).expect("call-outs");
        let outcome = evaluate(&piece, Options::default());
        outcome.callouts.iter().map(|one| one.measured.unwrap_or(f64::NAN)).collect()
    };
    let whole = measured(vec![]);
    let parted = measured(vec![split_line("half", "base", "left.mould-outside", "120 mm", json!({"turn": "10 deg"}))]);
    for (one, two) in whole.iter().zip(&parted) {
        near(*two, *one, 1e-6 * one.abs().max(1.0));
    }
}

fn refused(more: Vec<Value>) -> String {
    let outcome = evaluate(&tray(false, more), Options::default());
    let last = outcome.findings.iter().find(|one| one.severity == steelk_core::finding::Severity::Error);
    last.map(|one| format!("{}. {}", one.message, one.way_out)).unwrap_or_default()
}

#[test]
fn refused_in_words() {
    let hole = drill(
        "bore",
        "base",
        "20 mm",
        json!({"place": {"from": [{"edge": "left.mould-outside", "distance": "150 mm"}]}}),
    );
    for (more, words) in [
        (
            vec![split_line("half", "base", "left.mould-outside", "400 mm", json!({}))],
            "does not leave a part of base on both its sides",
        ),
        (
            vec![split_line("half", "base", "left.mould-outside", "150 mm", json!({"reach": "panel"}))],
            "still hangs together past the line",
        ),
        (vec![split_bend("off", "lid", "parent")], "no bend called lid"),
        (vec![hole, split_line("half", "base", "left.mould-outside", "150 mm", json!({}))], "half runs through bore"),
        (vec![split_line("half", "base", "base.end", "10 mm", json!({}))], "base.end"),
    ] {
        let said = refused(more);
        assert!(said.contains(words), "{said}");
    }
}

/// A seam that is said between edges: the corner of a tray whose flanges end 1 mm apart.
#[test]
fn a_corner_joined() {
    let mut all = vec![base("300 mm", "200 mm")];
    all.push(json!({"name": "sides", "do": {"bend": {"edge": "base.front", "also": ["base.right", "base.back", "base.left"], "angle": "90 deg", "leg": "40 mm", "corners": {"mitred": {"gap": "1 mm"}}}}}));
    let join = |from: &str, to: &str, lay: &str| json!({"name": "join", "do": {"seam": {"from": from, "to": to, "seam": {"lay": lay}}}});
    let outcome = evaluate(&piece("2 mm", "3 mm", "0.42", Value::Array(all.clone())), Options::default());
    let part = outcome.part().expect("a part");
    let ends: Vec<String> =
        part.flat.edges.iter().map(|edge| edge.name.clone()).filter(|name| name.starts_with("sides")).collect();
    // The two edges that lie together at the corner of front and right, found by where they are.
    let found =
        ends.iter().flat_map(|one| ends.iter().map(move |two| (one, two))).filter(|(one, two)| one < two).find_map(
            |(one, two)| {
                let mut tried = all.clone();
                tried.push(join(one, two, "edge_to_edge"));
                let outcome = evaluate(&piece("2 mm", "3 mm", "0.42", Value::Array(tried)), Options::default());
                let seam = outcome.sheets()?.seams().first().cloned()?;
                Some((one.clone(), two.clone(), seam))
            },
        );
    let (one, two, seam) = found.expect("a corner");
    near(seam.gap, 1.0, 1e-6);
    near(seam.angle, PI / 2.0, 1e-9);
    near(seam.groove, PI / 2.0, 1e-9);
    // Said twice, each over the other: refused.
    let mut twice = all.clone();
    twice.push(join(&one, &two, "first_covers"));
    let mut second = join(&two, &one, "first_covers");
    second["name"] = json!("again");
    twice.push(second);
    let outcome = evaluate(&piece("2 mm", "3 mm", "0.42", Value::Array(twice)), Options::default());
    assert!(
        outcome.findings.iter().any(|one| one.message.contains("would each cover the other")),
        "{:?}",
        outcome.findings
    );
    // And two edges that are far from each other.
    let mut far = all;
    far.push(join("sides.front.end", "sides.back.end", "edge_to_edge"));
    let outcome = evaluate(&piece("2 mm", "3 mm", "0.42", Value::Array(far)), Options::default());
    assert!(outcome.findings.iter().any(|one| one.message.contains("do not lie together")), "{:?}", outcome.findings);
}

/// One random parting of a random tray.
#[derive(Clone, Debug)]
struct Parting {
    angles: [f64; 4],
    legs: [f64; 4],
    ups: [bool; 4],
    radius: f64,
    thickness: f64,
    line: (f64, f64),
    second: Option<(f64, f64)>,
    tangent: Option<(usize, bool)>,
    opposite: bool,
}

fn parting() -> impl Strategy<Value = Parting> {
    (
        [15.0..140.0f64, 15.0..140.0, 15.0..140.0, 15.0..140.0],
        [20.0..70.0f64, 20.0..70.0, 20.0..70.0, 20.0..70.0],
        any::<[bool; 4]>(),
        (0.5..5.0f64, 0.8..4.0f64),
        (70.0..230.0f64, -25.0..25.0f64),
        prop::option::of((60.0..140.0f64, -20.0..20.0f64)),
        prop::option::of((0usize..4, any::<bool>())),
        any::<bool>(),
    )
        .prop_map(|(angles, legs, ups, (radius, thickness), line, second, tangent, opposite)| Parting {
            angles,
            legs,
            ups,
            radius,
            thickness,
            line,
            second,
            tangent,
            opposite,
        })
}

fn parted(recipe: &Parting) -> (Piece, Piece) {
    let mm = |value: f64| format!("{value} mm");
    let mut all = vec![base("300 mm", "200 mm")];
    let clear = mm(3.0 * (recipe.radius + recipe.thickness) + 2.0);
    for (at, (side, ends)) in [
        ("front", ["left", "right"]),
        ("right", ["front", "back"]),
        ("back", ["right", "left"]),
        ("left", ["back", "front"]),
    ]
    .iter()
    .enumerate()
    {
        let way = if recipe.ups[at] { "up" } else { "down" };
        all.push(bend(
            side,
            &format!("base.{side}"),
            &format!("{} deg", recipe.angles[at]),
            &mm(recipe.legs[at]),
            json!({"direction": way, "leg_to": "tangent", "set_in": {ends[0]: clear, ends[1]: clear}}),
        ));
    }
    let whole = all.clone();
    let turned = |turn: f64| json!({"turn": format!("{turn} deg")});
    all.push(split_line("half", "base", "left.mould-outside", &mm(recipe.line.0), turned(recipe.line.1)));
    if let Some((distance, turn)) = recipe.second {
        all.push(split_line("low", "base", "front.mould-outside", &mm(distance), turned(turn)));
    }
    if let Some((at, flange)) = recipe.tangent {
        let bend = ["front", "right", "back", "left"][at];
        all.push(split_bend("off", bend, if flange { "flange" } else { "parent" }));
    }
    let document = |all: Vec<Value>| {
        let mut piece = piece(&mm(recipe.thickness), &mm(recipe.radius), "0.42", Value::Array(all));
        piece.opposite_hand = recipe.opposite;
        piece
    };
    (document(whole), document(all))
}

proptest! {
    #![proptest_config(law::cases(60))]

    /// Parting moves no folded place, loses no metal, and leaves closed bodies that share none.
    #[test]
    fn parting_moves_nothing(recipe in parting()) {
        let (whole, parts) = parted(&recipe);
        let one = sound(&whole);
        // Flanges that run into each other do so in whatever blanks they are.
        if one.breaches.iter().any(|breach| breach.rule == "folded_clash") {
            return Ok(());
        }
        let outcome = evaluate(&parts, Options::default());
        // A line that ends on a flange's corner or leaves a sliver is refused in words; what is made stands.
        let Some(many) = outcome.sheets() else { return Ok(()) };
        prop_assert!(many.blanks().len() > 1, "{:?}", outcome.findings);
        nothing_moved(&sheets(&one).blanks()[0].part, many);
        nothing_lost(sheets(&one), many);
        bodies_apart(many);
        prop_assert!(outcome.audit.faults().is_empty(), "{:?}", outcome.audit.faults());
        for seam in many.seams() {
            prop_assert!(seam.gap < 1e-9 && (seam.angle - PI).abs() < 1e-7, "{seam:?}");
        }
    }
}

/// The gap of a seam is the clearance of the two bodies: by the query that assemblies will use, which knows nothing of seams.
#[test]
fn the_gap_is_the_clearance_of_the_bodies() {
    let parted = sound(&tray(false, vec![split_line("half", "base", "left.mould-outside", "150 mm", json!({}))]));
    let many = sheets(&parted);
    let probe = |at: usize| Probe::new(&folded_body(&many.blanks()[at].part.flat).expect("a solid")).expect("a mesh");
    let found = clearance(&probe(0), &probe(1)).expect("told").expect("near");
    near(found.distance, many.seams().iter().map(|seam| seam.gap).fold(f64::INFINITY, f64::min), 1e-6);
}
