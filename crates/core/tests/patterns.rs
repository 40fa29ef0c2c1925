//! Where patterns and places put holes, measured on the outlines that came out with a ruler of points: nothing here knows how a
//! place is found.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::Point;
use steelk_testing::trials::{Dice, cases};
use steelk_testing::{near, part, probe, sound};

fn plate(operations: Vec<Value>) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "sheet", "mark": "P-1", "title": "test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "3 mm"},
        "bending": {"radius": "3 mm", "method": {"k_factor": "0.44"}}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

fn base(width: f64, depth: f64) -> Value {
    json!({"name": "base", "do": {"lay_down": {"shape": {"rectangle":
        {"width": format!("{width} mm"), "depth": format!("{depth} mm")}}}}})
}

/// A length from `low` to `high` mm, not whole.
fn any(dice: &mut Dice, low: usize, high: usize) -> f64 {
    low as f64 + dice.below((high - low) * 64) as f64 / 64.0
}

/// A hole of any shape small enough for a plate of 200 x 160, and the word of its verb.
fn small(dice: &mut Dice) -> (&'static str, Value) {
    let mm = |value: f64| format!("{value} mm");
    let (a, b) = (any(dice, 6, 30), any(dice, 4, 20));
    let turn = format!("{} deg", dice.below(720) as f64 / 2.0);
    match dice.below(5) {
        0 => ("drill", json!({"diameter": mm(a)})),
        1 => ("cut", json!({"width": mm(a), "height": mm(b), "turn": turn})),
        2 => ("cut", json!({"slot": {"length": mm(a), "width": mm(b)}, "turn": turn})),
        3 => {
            ("cut", json!({"keyhole": {"head": mm(b + 4.0), "slot": mm(b / 2.0), "travel": mm(b + 8.0)}, "turn": turn}))
        }
        _ => (
            "cut",
            json!({"outline": {"polygon": {"sides": (3 + dice.below(5)).to_string(), "size": mm(a / 3.0)}}, "turn": turn}),
        ),
    }
}

/// Points all along each hole of an operation, in the order of their numbers.
fn outlines(piece: &Piece, operation: &str) -> Vec<Vec<Point>> {
    let made = sound(piece);
    let holes = part(&made).flat.holes.iter().filter(|hole| hole.operation == operation);
    holes
        .map(|hole| {
            let along = |(segment, _): (steelk_core::plane::Segment, u32)| {
                (0..=400).map(move |at| segment.at(f64::from(at) / 400.0))
            };
            hole.outline.segments().flat_map(along).collect()
        })
        .collect()
}

fn least(points: &[Point], of: impl Fn(&Point) -> f64) -> f64 {
    points.iter().map(of).fold(f64::INFINITY, f64::min)
}

/// How far points stand in from a side of a plate.
fn from_side(side: &str, (width, depth): (f64, f64), at: &Point) -> f64 {
    match side {
        "base.front" => at.y,
        "base.back" => depth - at.y,
        "base.left" => at.x,
        _ => width - at.x,
    }
}

/// A ruler laid on points misses an arc's farthest point by less than this, mm.
const RULER: f64 = 1e-3;

#[test]
fn a_distance_is_to_the_centre_the_near_or_the_far_side_of_the_hole() {
    for seed in 0..cases(200) {
        let mut dice = Dice::new(seed);
        let size = (200.0, 160.0);
        let (verb, mut hole) = small(&mut dice);
        hole["panel"] = json!("base");
        let sides = [*dice.pick(&["base.front", "base.back"]), *dice.pick(&["base.left", "base.right"])];
        let first = dice.below(2);
        let told: Vec<(&str, f64, &str)> = [sides[first], sides[1 - first]]
            .into_iter()
            .take(1 + dice.below(2))
            .map(|side| (side, any(&mut dice, 45, 60), *dice.pick(&["near", "far"])))
            .collect();
        hole["place"]["from"] = told
            .iter()
            .map(|(side, distance, to)| json!({"edge": side, "distance": format!("{distance} mm"), "to": to}))
            .collect();
        let piece = plate(vec![base(size.0, size.1), json!({"name": "h", "do": {verb: hole}})]);
        let all = outlines(&piece, "h");
        for (side, distance, to) in told {
            let found = match to {
                "near" => least(&all[0], |at| from_side(side, size, at)),
                _ => -least(&all[0], |at| -from_side(side, size, at)),
            };
            assert!((found - distance).abs() < RULER, "seed {seed}: {to} side {found} from {side}, told {distance}");
        }
    }
}

#[test]
fn clear_between_is_what_a_rule_held_between_two_neighbours_reads() {
    for seed in 0..cases(200) {
        let mut dice = Dice::new(seed ^ 0xC1EA);
        let size = (400.0, 300.0);
        let (verb, mut hole) = small(&mut dice);
        hole["panel"] = json!("base");
        let side = *dice.pick(&["base.front", "base.back", "base.left", "base.right"]);
        let clear = any(&mut dice, 3, 20);
        hole["place"]["from"] = json!([{"edge": side, "distance": "60 mm"}]);
        hole["repeat"] = json!([{"count": "3", "spacing": format!("{clear} mm"), "spacing_is": "clear"}]);
        let all = outlines(&plate(vec![base(size.0, size.1), json!({"name": "h", "do": {verb: hole}})]), "h");
        let along = |at: &Point| if side == "base.front" || side == "base.back" { at.x } else { at.y };
        let mut spans: Vec<(f64, f64)> =
            all.iter().map(|one| (least(one, along), -least(one, |at| -along(at)))).collect();
        spans.sort_by(|one, two| one.0.total_cmp(&two.0));
        for pair in spans.windows(2) {
            let found = pair[1].0 - pair[0].1;
            assert!((found - clear).abs() < RULER, "seed {seed}: {found} clear, told {clear}");
        }
        // Placed from one edge alone, the row stands in the middle of the plate along it; a keyhole's place is its head.
        if verb == "drill" {
            let middle = if side == "base.front" || side == "base.back" { size.0 / 2.0 } else { size.1 / 2.0 };
            near((spans[0].0 + spans[2].1) / 2.0, middle, RULER);
        }
    }
}

#[test]
fn holes_along_an_edge_stand_in_from_its_ends_and_share_the_rest() {
    for seed in 0..cases(200) {
        let mut dice = Dice::new(seed ^ 0xA106);
        let (width, depth) = (any(&mut dice, 150, 400), any(&mut dice, 100, 200));
        let side = *dice.pick(&["base.front", "base.back", "base.left", "base.right"]);
        let long = if side == "base.front" || side == "base.back" { width } else { depth };
        let (first, last) = (any(&mut dice, 8, 20), any(&mut dice, 8, 40));
        let count = 2 + dice.below(4);
        let ends = !dice.one_in(3);
        let mut row = json!({"edge": side, "distance": "12 mm", "count": count.to_string(),
            "inset": format!("{first} mm"), "ends": ends});
        let same = dice.one_in(3);
        if !same {
            row["last_inset"] = json!(format!("{last} mm"));
        }
        let piece = plate(vec![
            base(width, depth),
            json!({"name": "h", "do": {"drill": {"panel": "base", "diameter": "4 mm", "pattern": {"along": row}}}}),
        ]);
        let made = sound(&piece);
        let centres: Vec<Point> = part(&made).flat.holes.iter().map(|hole| hole.centre).collect();
        assert_eq!(centres.len(), count, "seed {seed}");
        // A person walks round the plate with the metal on the left, from where each edge starts.
        let walked = |at: &Point| match side {
            "base.front" => at.x,
            "base.right" => at.y,
            "base.back" => width - at.x,
            _ => depth - at.y,
        };
        let last = if same { first } else { last };
        let spaces = if ends { count - 1 } else { count + 1 };
        let step = (long - first - last) / spaces as f64;
        for (at, centre) in centres.iter().enumerate() {
            near(from_side(side, (width, depth), centre), 12.0, 1e-9);
            near(walked(centre), first + step * (at + usize::from(!ends)) as f64, 1e-9);
        }
    }
}

#[test]
fn rows_and_columns_stand_between_the_edges() {
    for seed in 0..cases(200) {
        let mut dice = Dice::new(seed ^ 0x6A1D);
        let (width, depth) = (any(&mut dice, 100, 300), any(&mut dice, 80, 200));
        let (columns, rows) = (1 + dice.below(5), 1 + dice.below(4));
        let (distance, other) = (any(&mut dice, 6, 20), any(&mut dice, 6, 20));
        let mut between = json!({"columns": columns.to_string(), "rows": rows.to_string(),
            "distance": format!("{distance} mm")});
        let two = dice.one_in(2);
        if two {
            between["other"] = json!(format!("{other} mm"));
        }
        let made = sound(&plate(vec![
            base(width, depth),
            json!({"name": "h", "do": {"drill": {"panel": "base", "diameter": "4 mm", "pattern": {"between": between}}}}),
        ]));
        let mut found: Vec<(f64, f64)> =
            part(&made).flat.holes.iter().map(|hole| (hole.centre.x, hole.centre.y)).collect();
        let other = if two { other } else { distance };
        let spread = |count: usize, long: f64, inset: f64| -> Vec<f64> {
            if count == 1 {
                return vec![long / 2.0];
            }
            (0..count).map(|at| inset + (long - 2.0 * inset) * at as f64 / (count - 1) as f64).collect()
        };
        let mut wanted: Vec<(f64, f64)> = Vec::new();
        for y in spread(rows, depth, other) {
            wanted.extend(spread(columns, width, distance).into_iter().map(|x| (x, y)));
        }
        // In the order of reading, and none twice.
        assert_eq!(found.len(), wanted.len(), "seed {seed}");
        for (one, two) in found.drain(..).zip(wanted) {
            near(one.0, two.0, 1e-9);
            near(one.1, two.1, 1e-9);
        }
    }
}

#[test]
fn on_a_bent_panel_the_grid_counts_from_the_outside_of_its_bends() {
    // Legs up 50 on the short sides of a base laid 140 long: bent about its own edges, it stays 140 over the legs.
    let leg = |side: &str| json!({"name": side, "do": {"bend": {"edge": format!("base.{side}"), "angle": "90 deg", "leg": "50 mm"}}});
    let between = json!({"columns": "3", "rows": "2", "distance": "20 mm", "other": "15 mm"});
    let made = sound(&plate(vec![
        base(140.0, 80.0),
        leg("left"),
        leg("right"),
        json!({"name": "h", "do": {"drill": {"panel": "base", "diameter": "9 mm", "pattern": {"between": between}}}}),
    ]));
    // Measured on the folded part, from the outside of each leg.
    let over_all = probe(&made, json!({"size": {"along": "x"}}));
    near(over_all, 140.0, 1e-6);
    let apart = |one: &str, two: &str, along: &str| {
        probe(&made, json!({"distance": {"from": one, "to": two, "along": along}})).abs()
    };
    near(apart("h.1", "h.3", "x"), 100.0, 1e-6);
    near(apart("h.1", "h.2", "x"), 50.0, 1e-6);
    near(apart("h.1", "h.4", "y"), 50.0, 1e-6);
}

#[test]
fn in_the_middle_of_a_round_edge() {
    // A lug: its top is half a circle of 25 about (40, 60).
    let lug = json!({"name": "base", "do": {"lay_down": {"shape": {"run": {"close": true, "legs": [
        {"line": {"length": "80 mm", "direction": "0 deg"}},
        {"line": {"length": "60 mm", "direction": "90 deg"}},
        {"arc": {"radius": "40 mm", "sweep": "180 deg"}}]}}}}});
    let made = |place: Value| {
        let drill = json!({"panel": "base", "diameter": "12 mm", "place": {"round": place}});
        plate(vec![lug.clone(), json!({"name": "bore", "do": {"drill": drill}})])
    };
    let plain = sound(&plate(vec![lug.clone()]));
    let round = part(&plain).flat.edges.iter().find(|edge| !edge.line.is_line()).expect("a round edge").name.clone();
    let centre = |piece: &Piece| part(&sound(piece)).flat.holes[0].centre;
    let at_centre = centre(&made(json!({"edge": round})));
    near(at_centre.x, 40.0, 1e-6);
    near(at_centre.y, 60.0, 1e-6);
    let below = centre(&made(json!({"edge": round, "distance": "18 mm"})));
    near(below.x, 40.0, 1e-6);
    near(below.y, 100.0 - 18.0, 1e-6);
    let straight = refusal(&made(json!({"edge": "base.side-1", "distance": "18 mm"})));
    assert!(straight.contains("no round edge called base.side-1"), "{straight}");
    let both = json!({"panel": "base", "diameter": "12 mm",
        "place": {"round": {"edge": round}, "from": [{"edge": "base.side-1", "distance": "5 mm"}]}});
    let both = refusal(&plate(vec![lug.clone(), json!({"name": "bore", "do": {"drill": both}})]));
    assert!(both.contains("takes no other distances"), "{both}");
}

fn refusal(piece: &Piece) -> String {
    let outcome = evaluate(piece, Options::default());
    let error = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("an error");
    assert!(!error.way_out.is_empty());
    assert!(outcome.part().is_some(), "the plate stands without the bad operation");
    format!("{} {}", error.message, error.way_out)
}

/// The area of a plate with an open cut, from its mass, mm2.
fn area(operations: Vec<Value>) -> f64 {
    probe(&sound(&plate(operations)), json!("mass")) / 7850e-9 / 3.0
}

#[test]
fn an_open_cut_takes_what_lies_within_the_plate() {
    for seed in 0..cases(200) {
        let mut dice = Dice::new(seed ^ 0x09E2);
        let (wide, deep) = (any(&mut dice, 5, 40), any(&mut dice, 3, 30));
        // A window in the rim: what it takes is its width by its depth, however far it stands out.
        let out = any(&mut dice, 1, 20);
        let side = *dice.pick(&["base.front", "base.back", "base.left", "base.right"]);
        let cut = json!({"panel": "base", "reach": "open", "width": format!("{wide} mm"),
            "height": format!("{} mm", deep + out),
            "place": {"from": [{"edge": side, "distance": format!("{deep} mm"), "to": "far"}]}});
        let left = area(vec![base(120.0, 90.0), json!({"name": "w", "do": {"cut": cut}})]);
        near(120.0 * 90.0 - left, wide * deep, 1e-6);
        // A round bite: the segment of a circle whose centre stands h inside the edge (mensuration, from memory).
        let (radius, h) = (any(&mut dice, 4, 20), any(&mut dice, 1, 3));
        let drill = json!({"panel": "base", "reach": "open", "diameter": format!("{} mm", 2.0 * radius),
            "place": {"from": [{"edge": side, "distance": format!("{h} mm")}]}});
        let left = area(vec![base(120.0, 90.0), json!({"name": "b", "do": {"drill": drill}})]);
        let whole = std::f64::consts::PI * radius * radius;
        let outside = radius * radius * (h / radius).acos() - h * (radius * radius - h * h).sqrt();
        near(120.0 * 90.0 - left, whole - outside, 1e-6);
    }
}

#[test]
fn an_open_cut_says_what_it_opens() {
    let cut = |reach: &str, edge: &str, distance: &str, to: &str| {
        json!({"name": "w", "do": {"cut": {"panel": "base", "reach": reach, "width": "20 mm", "height": "16 mm",
            "place": {"from": [{"edge": edge, "distance": distance, "to": to}]}}}})
    };
    let leg = json!({"name": "leg", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "40 mm"}}});
    let within = refusal(&plate(vec![base(120.0, 90.0), cut("open", "base.front", "30 mm", "centre")]));
    assert!(within.contains("lies within base: it opens none of its edges"), "{within}");
    let bend = refusal(&plate(vec![base(120.0, 90.0), leg, cut("open", "leg.tangent", "4 mm", "far")]));
    assert!(bend.contains("takes from leg.bend as well"), "{bend}");
    let beside = refusal(&plate(vec![base(120.0, 90.0), cut("open", "base.front", "-20 mm", "centre")]));
    assert!(beside.contains("meets no material"), "{beside}");
    let two = refusal(&plate(vec![
        base(120.0, 90.0),
        json!({"name": "w", "do": {"cut": {"panel": "base", "reach": "open", "width": "20 mm", "height": "100 mm"}}}),
    ]));
    assert!(two.contains("would cut base in two"), "{two}");
    // One that is not said to be open says that it could be.
    let closed = refusal(&plate(vec![base(120.0, 90.0), cut("panel", "base.front", "4 mm", "centre")]));
    assert!(closed.contains("out over the edge"), "{closed}");
}
