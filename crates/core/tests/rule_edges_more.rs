//! More rules at their edges: notches beside bends, points and threads that break out, rows, lugs; and notches anywhere against plain
//! arithmetic.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::proof::{Breach, Level};
use steelk_testing::trials::Dice;
use steelk_testing::*;

/// What a rule says of a piece; the piece itself must be sound.
#[track_caller]
fn told(piece: &Piece, rule: &str) -> Vec<Breach> {
    let outcome: Outcome = evaluate(piece, Options::default());
    assert!(outcome.findings.iter().all(|one| one.severity != Severity::Error), "{:?}", outcome.findings);
    assert!(outcome.rules.iter().any(|one| one.rule == rule), "no rule is called {rule}");
    outcome.breaches.into_iter().filter(|one| one.rule == rule).collect()
}

fn of(operations: Vec<Value>) -> Piece {
    piece("3 mm", "3 mm", "0.44", Value::Array(operations))
}

fn notch(name: &str, edge: &str, shape: Value, at: &str) -> Value {
    json!({"name": name, "do": {"notch": {"edge": edge, "shape": shape, "at": at}}})
}

/// A wall of 60 outside: its tangent line is R + T = 6 from the outside, so 54 of it are straight. As cut-outs: 3T beside a straight
/// edge, 2T beside a round one (common practice).
#[test]
fn a_notch_keeps_off_a_bend_as_a_cut_out_does() {
    let wall = |shape: Value| {
        of(vec![
            base("120 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "60 mm", json!({})),
            notch("nick", "up.end", shape, "60 mm"),
        ])
    };
    let square = |depth: f64| wall(json!({"square": {"width": "20 mm", "depth": format!("{depth} mm")}}));
    assert!(told(&square(45.0), "notch_to_bend").is_empty());
    let near = told(&square(45.01), "notch_to_bend");
    assert_eq!(near.len(), 1, "{near:?}");
    assert!(near[0].message.contains("8.99 mm from the tangent line of the bend up; 9 mm needed"), "{near:?}");
    assert_eq!(near[0].operations, ["nick", "up"]);
    // Half a round of 48: 6 mm of metal, 2T; and a vee's tip has straight sides.
    let round = |radius: f64| told(&wall(json!({"round": format!("{radius} mm")})), "notch_to_bend").len();
    assert_eq!([round(48.0), round(48.1)], [0, 1]);
    let vee = |depth: f64| {
        told(&wall(json!({"vee": {"width": "20 mm", "depth": format!("{depth} mm")}})), "notch_to_bend").len()
    };
    assert_eq!([vee(45.0), vee(45.1)], [0, 1]);
}

/// On the base beside the bend's line: the notch's own side that is nearest counts, on either of the bend's sides.
#[test]
fn a_notch_beside_a_bend_counts_from_its_nearest_side() {
    // The bend takes 6 of the outside from the base's back: its tangent line lies at 80 - 6 = 74. A notch of 20 from the left edge with its
    // middle `at` from the edge's start ends 10 beyond.
    let side = |at: f64| {
        of(vec![
            base("120 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "60 mm", json!({})),
            notch("nick", "base.right", json!({"square": {"width": "20 mm", "depth": "15 mm"}}), &format!("{at} mm")),
        ])
    };
    assert!(told(&side(55.0), "notch_to_bend").is_empty(), "ends at 65, 9 mm before it");
    let near = told(&side(56.0), "notch_to_bend");
    assert!(near.len() == 1 && near[0].message.contains("8 mm from"), "{near:?}");
}

/// What is cut for the bend is no notch beside it: reliefs, corners of a tray, a cut that crosses the bend whole.
#[test]
fn what_is_made_for_the_bend_is_none() {
    let tray = of(vec![
        base("200 mm", "150 mm"),
        json!({"name": "wall", "do": {"bend": {"edge": "base.back", "also": ["base.left", "base.right", "base.front"], "angle": "90 deg", "leg": "40 mm"}}}),
    ]);
    assert!(told(&tray, "notch_to_bend").is_empty());
    let set_in = of(vec![
        base("120 mm", "80 mm"),
        bend(
            "up",
            "base.back",
            "90 deg",
            "60 mm",
            json!({"set_in": {"left": "20 mm", "right": "30 mm"}, "relief": {"width": "4 mm", "depth": "8 mm"}}),
        ),
    ]);
    assert!(told(&set_in, "notch_to_bend").is_empty());
    let window = |distance: &str| {
        of(vec![
            base("120 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "60 mm", json!({})),
            json!({"name": "slot", "do": {"cut": {"panel": "base", "reach": "flat", "width": "10 mm", "height": "40 mm",
                "place": {"from": [{"edge": "up.tangent", "distance": distance}]}}}}),
        ])
    };
    // Across the bend with 14 mm and more past either tangent line: it has a rule of its own, and keeps it.
    assert!(told(&window("0 mm"), "notch_to_bend").is_empty() && told(&window("0 mm"), "cut_across").is_empty());
}

/// An open cut, drawn over the edge, is a notch by another name.
#[test]
fn an_open_cut_beside_a_bend_is_told_too() {
    let open = |depth: f64| {
        of(vec![
            base("120 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "60 mm", json!({})),
            json!({"name": "slot", "do": {"cut": {"panel": "up", "reach": "flat", "width": "20 mm", "height": format!("{} mm", 2.0 * depth),
                "place": {"from": [{"edge": "up.end", "distance": "0 mm"}]}}}}),
        ])
    };
    assert!(told(&open(45.0), "notch_to_bend").is_empty());
    let near = told(&open(46.0), "notch_to_bend");
    assert!(near.len() == 1 && near[0].message.contains("8 mm from the tangent line"), "{near:?}");
    assert_eq!(near[0].operations[0], "slot");
}

/// Notches anywhere on the three free sides of a wall and of its base, against plain arithmetic in the flat that shares nothing with
/// the rule: straight notches only, in millimetres and inches, bent up and down, of either hand.
#[test]
fn random_notches_are_told_as_plain_arithmetic_has_them() {
    let (mut sound, mut near) = (0, 0);
    for seed in 0..trials::cases(200) {
        let mut dice = Dice::new(seed + 41_000_000);
        let mut random = |low: f64, high: f64| {
            let share = dice.below(10_001) as f64 / 10_000.0;
            ((low + (high - low) * share) * 100.0).round() / 100.0
        };
        let thickness = [1.0, 2.0, 3.0, 5.0][(seed % 4) as usize];
        let radius = [1.0, 3.0, 8.0][(seed % 3) as usize];
        let (width, leg) = (random(80.0, 160.0), random(40.0, 90.0));
        let inches = seed % 5 == 0;
        let say = |value: f64| if inches { format!("{} in", value / 25.4) } else { format!("{value} mm") };
        // The straight of the wall: the outside leg less the setback of a square bend.
        let straight = leg - (radius + thickness);
        let (along, deep) = (random(5.0, 20.0), random(5.0, straight * 0.9));
        let on_side = seed % 2 == 0;
        // From a side the notch runs in across the wall; from the end, down toward the bend.
        let (edge, long) = if on_side { ("up.left", straight) } else { ("up.end", width) };
        let at = random(along / 2.0 + 0.1, long - along / 2.0 - 0.1);
        let down = seed % 3 == 0;
        let direction = if down { "down" } else { "up" };
        let mut made = piece(
            &format!("{thickness} mm"),
            &format!("{radius} mm"),
            "0.44",
            json!([
                base(&say(width), "80 mm"),
                bend("up", "base.back", "90 deg", &say(leg), json!({"direction": direction})),
                notch(
                    "nick",
                    edge,
                    json!({"square": {"width": say(along), "depth": say(if on_side { deep.min(width * 0.8) } else { deep })}}),
                    &say(at)
                ),
            ]),
        );
        made.opposite_hand = seed % 7 == 0;
        let outcome = evaluate(&made, Options::default());
        if outcome.findings.iter().any(|one| one.severity == Severity::Error) {
            continue;
        }
        sound += 1;
        // From the bend's tangent line to the notch. Along a side it is not said from which end `at` counts: whichever, it is one of two.
        let off: Vec<f64> =
            if on_side { vec![at - along / 2.0, straight - at - along / 2.0] } else { vec![straight - deep] };
        let wanted = 3.0 * thickness;
        if off.iter().any(|off| (off - wanted).abs() < 1e-4) {
            continue;
        }
        let found: Vec<&Breach> = outcome.breaches.iter().filter(|one| one.rule == "notch_to_bend").collect();
        let expected: Vec<bool> = off.iter().map(|off| *off < wanted).collect();
        // The same side for every seed: told once below.
        let is = expected[if on_side { SIDE_COUNTS_FROM } else { 0 }];
        assert_eq!(!found.is_empty(), is, "{seed}: {off:?} of {wanted}: {found:?}");
        assert!(found.len() <= 1, "{found:?}");
        near += usize::from(is);
    }
    println!("{sound} walls, {near} notches too near");
    assert!(sound > 100 && near > 20, "{sound} {near}");
}

/// Which of the two ways of counting along a wall's left side is the bend's: its edges run with the metal on the left, so the left side of
/// a wall runs from its end back to the bend, and `at` counts from the wall's end.
const SIDE_COUNTS_FROM: usize = 1;

/// The point of a drill of d is d / (2 tan 59 deg) high (118 deg).
#[test]
fn a_blind_point_stays_in_the_metal() {
    let blind = |depth: f64| {
        let hole = drill("h", "base", "8 mm", json!({"depth": format!("{depth} mm")}));
        told(&piece("10 mm", "10 mm", "0.44", json!([base("80 mm", "60 mm"), hole])), "breaks_out").len()
    };
    // 4 / tan 59 deg = 2.4034 mm.
    assert_eq!([blind(7.59), blind(7.6)], [0, 1]);
    let flat = drill("h", "base", "8 mm", json!({"depth": "9.5 mm", "point": "180 deg"}));
    assert!(told(&piece("10 mm", "10 mm", "0.44", json!([base("80 mm", "60 mm"), flat])), "breaks_out").is_empty());
}

/// M10, pitch 1.5 (ISO 261): from its major diameter of 10 at least a pitch of metal, to an edge and to another opening.
#[test]
fn a_thread_leaves_a_pitch_of_metal_beside_it() {
    let tapped = |x: f64, more: Vec<Value>| {
        let place = json!({"from": [{"edge": "base.left", "distance": format!("{x} mm")}]});
        let mut all = vec![
            base("80 mm", "60 mm"),
            json!({"name": "t", "do": {"drill": {"panel": "base", "tapped": {"thread": "M10"}, "place": place}}}),
        ];
        all.extend(more);
        told(&of(all), "breaks_out")
    };
    assert!(tapped(6.5, vec![]).is_empty());
    let edge = tapped(6.4, vec![]);
    assert!(
        edge.len() == 1 && edge[0].message.contains("leaves 1.4 mm to base.left; 1.5 mm, a pitch, needed"),
        "{edge:?}"
    );
    let beside = |x: f64| {
        let place = json!({"from": [{"edge": "base.left", "distance": format!("{x} mm")}]});
        tapped(30.0, vec![drill("other", "base", "6 mm", json!({"place": place}))])
    };
    // 30 + 5 + 1.5 + 3.
    assert!(beside(39.5).is_empty());
    let near = beside(39.4);
    assert!(near.len() == 1 && near[0].features == ["t", "other"], "{near:?}");
}

fn row(count: usize, pitch: f64, from: Value) -> Vec<Breach> {
    let mut all = Vec::new();
    let repeat = json!([{"count": count.to_string(), "spacing": format!("{pitch} mm")}]);
    let made = of(vec![
        base("120 mm", "80 mm"),
        drill("row", "base", "6 mm", json!({"place": {"from": from}, "repeat": repeat})),
    ]);
    for rule in ["uneven_row", "row_without_ends", "short_row"] {
        all.extend(told(&made, rule));
    }
    assert!(all.iter().all(|one| one.level == Level::Hint));
    all
}

fn rules(found: &[Breach]) -> Vec<&str> {
    found.iter().map(|one| one.rule.as_str()).collect()
}

/// What people forget, and what is simply so. Hints, never faults.
#[test]
fn rows_that_may_have_been_meant_otherwise() {
    let along = |x: &str, y: &str| json!([{"edge": "base.front", "distance": y}, {"edge": "base.left", "distance": x}]);
    // 15 and 15; 15 and 16; 15 and 25, a quarter of 40: on purpose.
    assert!(row(3, 45.0, along("15 mm", "12 mm")).is_empty());
    let uneven = row(3, 44.5, along("15 mm", "12 mm"));
    assert_eq!(rules(&uneven), ["uneven_row"]);
    assert!(uneven[0].way_out.contains("15.5 mm each"), "{uneven:?}");
    assert_eq!(uneven[0].features, ["row.1", "row.3"]);
    assert!(row(3, 40.0, along("15 mm", "12 mm")).is_empty(), "15 and 25");
    // A tenth is what a shop drills to.
    assert!(row(3, 44.95, along("15 mm", "12 mm")).is_empty(), "15 and 15.1");
    // In the middle, 12 from the front: three at 20 leave 40 at each end, and one more would stand 20 from it.
    let middle = |y: &str| json!([{"edge": "base.front", "distance": y}]);
    assert_eq!(rules(&row(3, 20.0, middle("12 mm"))), ["row_without_ends"]);
    // At 30 there are 30 left, and one more would stand on the edge.
    assert!(row(3, 30.0, middle("12 mm")).is_empty());
    // A row across the middle of the plate is along no edge.
    assert!(row(3, 20.0, middle("40 mm")).is_empty());
    // Four at 28: 18 at each end.
    assert!(row(4, 28.0, middle("12 mm")).is_empty());
    // Two are no row.
    assert!(row(2, 20.0, middle("12 mm")).is_empty());
    // The same, told from the other side and up the plate.
    let up = json!([{"edge": "base.right", "distance": "10 mm"}, {"edge": "base.front", "distance": "11 mm"}]);
    let repeat = json!([{"count": "3", "spacing": "29.5 mm"}]);
    let made = of(vec![
        base("120 mm", "80 mm"),
        drill("row", "base", "6 mm", json!({"place": {"from": up}, "repeat": repeat})),
    ]);
    let turned = told(&made, "uneven_row");
    // 11 + 59 = 70 of 80.
    assert!(turned.len() == 1 && turned[0].way_out.contains("10.5 mm each"), "{turned:?}");
}

/// ASME BTH-1 3-3.3 (from memory): 12 thick, pin 19, Fy 275, Nd 3: bearing 26.125 kN. The other figures of this lug are larger.
#[test]
fn a_lug_is_held_to_the_least_of_its_figures() {
    let lug = |load: &str, pin: &str| {
        let document = json!({
            "steelk": 1, "kind": "frame", "mark": "F-1", "title": "lug", "quantity": 1, "unit": "mm", "stock": {"material": "S275"},
            "operations": [
                {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}},
                {"name": "bar", "do": {"member": {"lines": ["run"], "section": "SHS 60x60x4"}}},
                {"name": "lug", "do": {"plate": {"thickness": "12 mm", "kind": {"face": {"of": ["bar"], "face": "top", "at": "400 mm", "stands": "along",
                    "shape": {"lug": {"base": "80 mm", "height": "60 mm", "radius": "40 mm", "hole": "22 mm"}},
                    "lifts": {"pin": pin, "load": load, "yield_strength": "275", "tensile_strength": "410", "design_factor": "3"}}}}}},
            ],
        });
        told(&Piece::read(document.to_string().as_bytes()).unwrap(), "lug_load")
    };
    // 26.125 kN / 9.80665 = 2664.0 kg.
    assert!(lug("2663 kg", "19 mm").is_empty());
    let over = lug("2665 kg", "19 mm");
    assert!(over.len() == 1 && over[0].message.contains("bearing of the pin allows 26.12 kN"), "{over:?}");
    assert!(over[0].why.source.contains("licensed engineer"));
    // A thinner pin bears less.
    assert_eq!(lug("2663 kg", "18 mm").len(), 1);
}

/// A number of the wrong kind is told where it is typed; two numbers for one thing, and one that nobody uses, by name.
#[test]
fn numbers_of_the_drawing_that_go_wrong_are_named() {
    let with = |callouts: Value, operations: Value| {
        let document = json!({
            "steelk": 1, "kind": "sheet", "mark": "X-1", "title": "numbers", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275", "thickness": "3 mm"}, "callouts": callouts, "operations": operations,
        });
        evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default())
    };
    let plate = |depth: &str| json!([base("120 mm", depth)]);
    let chain =
        json!([{"name": "A", "value": "30 deg"}, {"name": "E", "value": "2 * A"}, {"name": "B", "value": "80 mm"}]);
    for depth in ["A", "E", "E * 1", "-E"] {
        let outcome = with(chain.clone(), plate(depth));
        let error = outcome.findings.iter().find(|one| one.severity == Severity::Error).unwrap();
        assert_eq!(error.callout.as_deref(), Some("A"), "{depth}: {error:?}");
        assert!(error.way_out.starts_with("A is typed as 30 deg: mend it there"), "{error:?}");
        assert_eq!(error.operation.as_deref(), Some("base"));
    }
    // Where two give it their kind, and where it is typed in the step itself, it is the step's.
    for depth in ["A + 10 deg + A", "45 deg", "B * B"] {
        let outcome = with(chain.clone(), plate(depth));
        let error = outcome.findings.iter().find(|one| one.severity == Severity::Error).unwrap();
        let named = error.callout.as_deref();
        assert!(
            named.is_none() || (depth.starts_with('A') && named == Some("A")) || depth == "B * B",
            "{depth}: {error:?}"
        );
    }
    let measure = json!({"distance": {"from": "base.left", "to": "base.right"}});
    let twice = json!([
        {"name": "A", "value": "120 mm", "measure": measure}, {"name": "B", "value": "120 mm", "measure": measure}, {"name": "C", "value": "3"},
    ]);
    let outcome = with(twice, json!([base("B", "80 mm")]));
    let told: Vec<(&str, &str)> =
        outcome.findings.iter().filter_map(|one| Some((one.callout.as_deref()?, one.message.as_str()))).collect();
    assert_eq!(told, [("C", "nothing uses C and nothing measures it"), ("A", "A measures the same as B")]);
}

/// Tapped and plain holes anywhere on a plate, against plain arithmetic between centres: a thread whose flank comes out at an edge or
/// in another hole is told, once a hole, and no other.
#[test]
fn random_threads_break_out_as_plain_arithmetic_has_them() {
    // Major diameter, pitch, tap drill (ISO 261).
    let threads = [("M5", 5.0, 0.8, 4.2), ("M6", 6.0, 1.0, 5.0), ("M10", 10.0, 1.5, 8.5), ("M12", 12.0, 1.75, 10.25)];
    let (mut sound, mut out) = (0, 0);
    for seed in 0..trials::cases(200) {
        let mut dice = Dice::new(seed + 43_000_000);
        let mut random = |low: f64, high: f64| {
            let share = dice.below(10_001) as f64 / 10_000.0;
            ((low + (high - low) * share) * 100.0).round() / 100.0
        };
        let (width, depth) = (random(60.0, 120.0), random(50.0, 90.0));
        let inches = seed % 5 == 0;
        let say = |value: f64| if inches { format!("{} in", value / 25.4) } else { format!("{value} mm") };
        // x, y, the radius that is drilled, the thread's own and its pitch.
        let holes: Vec<(f64, f64, f64, Option<(f64, f64)>, Value)> = (0..2 + seed % 4)
            .map(|at| {
                let (name, major, pitch, drill) = threads[((seed + at) % 4) as usize];
                let threaded = random(0.0, 3.0) < 2.0;
                let radius = if threaded { drill / 2.0 } else { random(2.0, 8.0) };
                let (x, y) = (random(radius, width - radius), random(radius, depth - radius));
                let place = json!({"from": [{"edge": "base.left", "distance": say(x)}, {"edge": "base.front", "distance": say(y)}]});
                let size = if threaded { json!({"thread": name}) } else { json!(say(2.0 * radius)) };
                let key = if threaded { "tapped" } else { "diameter" };
                let operation = json!({"name": format!("h{at}"), "do": {"drill": {"panel": "base", key: size, "place": place}}});
                (x, y, radius, threaded.then_some((major / 2.0, pitch)), operation)
            })
            .collect();
        let mut operations = vec![base(&say(width), &say(depth))];
        operations.extend(holes.iter().map(|hole| hole.4.clone()));
        let mut made = piece("12 mm", "12 mm", "0.44", Value::Array(operations));
        made.opposite_hand = seed % 7 == 0;
        let outcome = evaluate(&made, Options::default());
        if outcome.findings.iter().any(|one| one.severity == Severity::Error) {
            continue;
        }
        sound += 1;
        let left: Vec<Option<f64>> = holes
            .iter()
            .enumerate()
            .map(|(at, (x, y, _, thread, _))| {
                let (major, pitch) = (*thread)?;
                let edge = x.min(width - x).min(*y).min(depth - y);
                let others = holes.iter().enumerate().filter(|(other, _)| *other != at);
                let nearest = others.map(|(_, (a, b, radius, ..))| (a - x).hypot(b - y) - radius).fold(edge, f64::min);
                Some(nearest - major - pitch)
            })
            .collect();
        if left.iter().flatten().any(|left| left.abs() < 1e-5) {
            continue;
        }
        let mut expected: Vec<String> = Vec::new();
        expected.extend(
            left.iter()
                .enumerate()
                .filter(|(_, left)| left.is_some_and(|left| left < 0.0))
                .map(|(at, _)| format!("h{at}")),
        );
        let mut found: Vec<String> =
            outcome.breaches.iter().filter(|one| one.rule == "breaks_out").map(|one| one.features[0].clone()).collect();
        found.sort();
        assert_eq!(found, expected, "{seed}: {holes:?} on {width} x {depth}");
        out += expected.len();
    }
    println!("{sound} plates, {out} threads that break out");
    assert!(sound > 80 && out > 15, "{sound} {out}");
}
