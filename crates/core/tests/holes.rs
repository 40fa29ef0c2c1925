//! Holes by designation and their weights, patterns, corners: published tables, exact volumes, what is refused.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::folded_body;
use steelk_core::space::Mesh;
use steelk_core::stock::{Fit, stock};
use steelk_testing::{base, bend, drill, near, part, piece, probe, sound};

fn plate(width: &str, depth: &str, thickness: &str, more: Vec<Value>) -> Piece {
    let mut operations = vec![steelk_testing::base(width, depth)];
    operations.extend(more);
    let document = json!({
        "steelk": 1, "kind": "plate", "mark": "P-1", "title": "test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": thickness}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

fn cut(name: &str, extra: Value) -> Value {
    let mut fields = json!({"panel": "base"});
    for (key, value) in extra.as_object().expect("an object") {
        fields[key] = value.clone();
    }
    json!({"name": name, "do": {"cut": fields}})
}

fn worked(name: &str, extra: Value) -> Value {
    cut(name, extra)
        .as_object()
        .map(|one| json!({"name": one["name"], "do": {"drill": one["do"]["cut"]}}))
        .expect("an object")
}

fn corner(name: &str, at: &[&str], shape: Value) -> Value {
    json!({"name": name, "do": {"corner": {"panel": "base", "at": at, "shape": shape}}})
}

fn refusal(piece: &Piece) -> String {
    let outcome = evaluate(piece, Options::default());
    let error = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("an error");
    assert!(!error.way_out.is_empty());
    assert!(outcome.part().is_some(), "the plate stands without the bad operation");
    error.message.clone()
}

fn mass(outcome: &Outcome) -> f64 {
    probe(outcome, json!("mass"))
}

/// Volume that an operation takes away, mm3, from the mass of the plate with and without it.
fn taken(more: Vec<Value>, thickness: &str) -> f64 {
    let (bare, cut) =
        (sound(&plate("100 mm", "80 mm", thickness, vec![])), sound(&plate("100 mm", "80 mm", thickness, more)));
    (mass(&bare) - mass(&cut)) / 7850e-9
}

#[test]
fn clearance_holes_are_those_of_the_table() {
    // ISO 273, fine, medium, coarse.
    for (bolt, sizes) in
        [("M6", [6.4, 6.6, 7.0]), ("M8", [8.4, 9.0, 10.0]), ("M12", [13.0, 13.5, 14.5]), ("M20", [21.0, 22.0, 24.0])]
    {
        let found = stock().clearance(bolt).expect("in the table");
        assert_eq!([Fit::Fine, Fit::Medium, Fit::Coarse].map(|fit| found.diameter(fit)), sizes);
    }
    let made = sound(&plate("100 mm", "80 mm", "10 mm", vec![worked("bolt", json!({"clearance": {"bolt": "m12"}}))]));
    near(probe(&made, json!({"diameter": {"hole": "bolt"}})), 13.5, 1e-12);
    let words = &part(&made).flat.holes[0].work;
    assert_eq!((words.words.as_str(), words.source.as_str()), ("clearance M12 medium", "ISO 273"));
    let unknown =
        refusal(&plate("100 mm", "80 mm", "10 mm", vec![worked("bolt", json!({"clearance": {"bolt": "M13"}}))]));
    assert!(unknown.contains("M13"), "{unknown}");
}

#[test]
fn tap_drills_are_those_of_the_tables() {
    // ISO 261 pitches, drill = D - P; ASME B1.1 with drills for 75 % of the thread, in inches; number sizes
    // 0.060 + 0.013 n in.
    for (thread, major, drill) in
        [("M10", 10.0, 8.5), ("M12", 12.0, 10.25), ("M24", 24.0, 21.0), ("M10 x 1.25", 10.0, 8.75)]
    {
        let found = stock().thread(thread).expect("in the table");
        near(found.major, major, 1e-9);
        near(found.tap_drill, drill, 1e-9);
    }
    for (thread, major, drill) in [
        ("#8-32", 0.164, 0.136),
        ("No. 10-24 UNC", 0.19, 0.1495),
        ("1/4-20", 0.25, 0.201),
        ("5/16-18", 0.3125, 0.257),
        ("3/8-16", 0.375, 0.3125),
        ("1/2-13", 0.5, 0.4219),
    ] {
        let found = stock().thread(thread).expect("in the table");
        near(found.major, major * 25.4, 1e-6);
        near(found.tap_drill, drill * 25.4, 1e-6);
    }
    // A 75 % unified thread is 0.9743 / n smaller than the major diameter (ASME B1.1 thread height): usual drills lie
    // within a tenth of a pitch of it; metric ones of D - P lie at about 77 %.
    for thread in &stock().threads {
        let share = (thread.major - thread.tap_drill) / (1.299_04 * thread.pitch);
        assert!((0.60..=0.88).contains(&share), "{}: {:.0} % of the thread", thread.name, share * 100.0);
    }
}

/// Cone, cylinder and frustum volumes (solid geometry).
#[test]
fn drilling_takes_away_exactly_what_it_should() {
    let through = PI / 4.0 * 9.0 * 9.0 * 12.0;
    near(taken(vec![drill("bolt", "base", "9 mm", json!({}))], "12 mm"), through, 1e-6);
    // 90 deg countersink from 9 to 18: a cone of height 9 less its tip of height 4.5, less the cylinder inside it.
    let cone = PI / 3.0 * (9.0f64.powi(3) - 4.5f64.powi(3)) - PI / 4.0 * 81.0 * 4.5;
    near(
        taken(vec![drill("bolt", "base", "9 mm", json!({"countersink": {"diameter": "18 mm"}}))], "12 mm"),
        through + cone,
        1e-6,
    );
    let bore = PI / 4.0 * (15.0 * 15.0 - 81.0) * 8.6;
    near(
        taken(
            vec![drill("bolt", "base", "9 mm", json!({"counterbore": {"diameter": "15 mm", "depth": "8.6 mm"}}))],
            "12 mm",
        ),
        through + bore,
        1e-6,
    );
    // Blind, 118 deg point: cylinder and a cone of height r / tan 59 deg.
    let blind = PI / 4.0 * 8.5 * 8.5 * 20.0 + PI / 3.0 * 4.25f64.powi(3) / 59f64.to_radians().tan();
    let tapped =
        worked("tap", json!({"tapped": {"thread": "M10", "depth": "16 mm"}, "depth": "20 mm", "face": "bottom"}));
    near(taken(vec![tapped.clone()], "25 mm"), blind, 1e-6);
    let made = sound(&plate("100 mm", "80 mm", "25 mm", vec![tapped]));
    assert_eq!(part(&made).blank.pierces(), 1, "a blind hole is not cut");
    near(probe(&made, json!({"diameter": {"hole": "tap"}})), 8.5, 1e-12);
    assert_eq!(part(&made).flat.holes[0].work.words, "tapped M10, 20 mm deep, thread 16 mm deep, from below");
    // Taken from below, so the rest is heavier on top.
    assert!(probe(&made, json!({"centre_of_gravity": {"along": "z"}})) > 12.5);
    assert_eq!(made.rules.iter().find(|one| one.rule == "blind_wall").map(|one| one.broken), Some(0));
}

#[test]
fn drilling_that_does_not_fit_the_sheet_is_said() {
    let one = |extra: Value| refusal(&plate("100 mm", "80 mm", "10 mm", vec![worked("hole", extra)]));
    assert!(one(json!({"diameter": "9 mm", "countersink": {"diameter": "40 mm"}})).contains("goes through"));
    assert!(one(json!({"diameter": "9 mm", "countersink": {"diameter": "8 mm"}})).contains("no larger"));
    assert!(one(json!({"diameter": "9 mm", "depth": "10 mm"})).contains("reaches through"));
    assert!(one(json!({"tapped": {"thread": "M8", "depth": "9 mm"}, "depth": "8 mm"})).contains("do not fit"));
    assert!(one(json!({"tapped": {"thread": "M7"}})).contains("no thread M7"));
    assert!(one(json!({})).contains("0 sizes"));
    assert!(one(json!({"diameter": "9 mm", "tapped": {"thread": "M8"}})).contains("2 sizes"));
    // The point breaking out of the back is a broken rule: the drawing may want it.
    let broken =
        sound(&plate("100 mm", "80 mm", "10 mm", vec![worked("hole", json!({"diameter": "9 mm", "depth": "9 mm"}))]));
    let breach = broken.breaches.iter().find(|one| one.rule == "blind_wall").expect("a breach");
    assert!(breach.message.contains("breaks out of the back by 1.7"), "{}", breach.message);
}

#[test]
fn what_the_cutter_does_is_a_choice() {
    let with = |make: &str| {
        sound(&plate("100 mm", "80 mm", "10 mm", vec![drill("bolt", "base", "9 mm", json!({"make": make}))]))
    };
    let (cut, mark, leave) = (with("cut"), with("mark"), with("leave"));
    near(mass(&cut), mass(&leave), 1e-12);
    assert_eq!([&cut, &mark, &leave].map(|one| probe(one, json!("pierces")) as usize), [2, 1, 1]);
    near(probe(&cut, json!("cut_length")) - probe(&leave, json!("cut_length")), PI * 9.0, 1e-9);
    let strokes = |outcome: &Outcome| {
        let drawing = steelk_core::drawing::blank_drawing(part(outcome), "P-1", steelk_core::quantity::LengthUnit::Mm);
        let of = |wanted| drawing.strokes.iter().filter(|(layer, _)| *layer == wanted).count();
        (of(steelk_core::drawing::Layer::Cut), of(steelk_core::drawing::Layer::Mark))
    };
    assert_eq!([strokes(&cut), strokes(&mark), strokes(&leave)], [(5, 0), (4, 2), (4, 0)]);
}

/// Areas of plane figures.
#[test]
fn cuts_of_every_shape_have_their_area() {
    let one = |extra: Value| taken(vec![cut("hole", extra)], "10 mm") / 10.0;
    near(one(json!({"slot": {"length": "30 mm", "width": "12 mm"}, "turn": "30 deg"})), 30.0 * 12.0 + PI * 36.0, 1e-6);
    // Keyhole: disc, slot from the neck up, half disc; less what the slot's foot shares with the disc.
    let (r, s) = (8.0f64, 4.0f64);
    let neck = (r * r - s * s).sqrt();
    let lens = r * r * (s / r).asin() + s * neck - 2.0 * s * neck;
    near(
        one(json!({"keyhole": {"head": "16 mm", "slot": "8 mm", "travel": "20 mm"}})),
        PI * r * r + 2.0 * s * (20.0 - neck) + PI * s * s / 2.0 - lens,
        1e-6,
    );
    near(one(json!({"outline": {"polygon": {"sides": "6", "size": "20 mm"}}})), 3f64.sqrt() / 2.0 * 400.0, 1e-6);
    // Dog-bone: at each corner the part of the tool's disc outside the rectangle: pi r2 / 2 beyond the chord less the
    // triangle of legs r sqrt(2).
    near(
        one(json!({"width": "40 mm", "height": "30 mm", "open": {"dog_bone": "3 mm"}})),
        1200.0 + 4.0 * (PI * 9.0 / 2.0 - 9.0),
        1e-6,
    );
    near(
        one(json!({"width": "40 mm", "height": "30 mm", "open": {"overcut": "3 mm"}})),
        1200.0 + 4.0 * PI * 9.0 / 2.0,
        1e-6,
    );
    assert!(
        refusal(&plate(
            "100 mm",
            "80 mm",
            "10 mm",
            vec![cut("hole", json!({"width": "8 mm", "height": "30 mm", "open": {"dog_bone": "3 mm"}}))]
        ))
        .contains("does not fit")
    );
    assert!(
        refusal(&plate("100 mm", "80 mm", "10 mm", vec![cut("hole", json!({"width": "8 mm"}))]))
            .contains("height is missing")
    );
}

fn centres(outcome: &Outcome) -> Vec<(f64, f64)> {
    part(outcome).flat.holes.iter().map(|hole| (hole.centre.x, hole.centre.y)).collect()
}

#[test]
fn patterns_put_holes_where_the_drawing_does() {
    let on_circle = sound(&plate(
        "200 mm",
        "200 mm",
        "10 mm",
        vec![drill(
            "bolt",
            "base",
            "11 mm",
            json!({"pattern": {"circle": {"count": "6", "diameter": "120 mm", "start": "30 deg"}}}),
        )],
    ));
    assert_eq!(centres(&on_circle).len(), 6);
    for (at, (x, y)) in centres(&on_circle).into_iter().enumerate() {
        near((x - 100.0).hypot(y - 100.0), 60.0, 1e-9);
        near((y - 100.0).atan2(x - 100.0).to_degrees().rem_euclid(360.0), 30.0 + 60.0 * at as f64, 1e-9);
    }
    // 40 holes along an edge: 39 equal spaces of 20 between insets of 10.
    let row =
        json!({"pattern": {"along": {"edge": "base.front", "distance": "15 mm", "pitch": "20 mm", "inset": "10 mm"}}});
    let along = sound(&plate("800 mm", "100 mm", "6 mm", vec![drill("rivet", "base", "5 mm", row)]));
    assert_eq!(centres(&along).len(), 40);
    near(centres(&along)[39].0, 790.0, 1e-9);
    assert!(along.findings.iter().any(|one| one.message.contains("40 holes, 39 spaces of 20 mm")));
    // In inches a tenth of an inch divides 12 in exactly too, however it is rounded.
    let mut inches = plate(
        "12 in",
        "2 in",
        "0.25 in",
        vec![drill(
            "rivet",
            "base",
            "0.05 in",
            json!({"pattern": {"along": {"edge": "base.front", "distance": "0.5 in", "pitch": "0.1 in", "inset": "0.5 in"}}}),
        )],
    );
    inches.unit = steelk_core::quantity::LengthUnit::In;
    assert_eq!(centres(&sound(&inches)).len(), 111);
    // From another hole, mirrored about both centre lines, one left out.
    let four = json!({"place": {"hole": {"hole": "bore", "x": "30 mm", "y": "20 mm"}}, "mirror": "both", "skip": [2]});
    let made = sound(&plate(
        "100 mm",
        "80 mm",
        "10 mm",
        vec![drill("bore", "base", "20 mm", json!({})), drill("bolt", "base", "6 mm", four)],
    ));
    assert_eq!(
        part(&made).flat.holes[1..].iter().map(|hole| hole.name.as_str()).collect::<Vec<_>>(),
        ["bolt.1", "bolt.3", "bolt.4"]
    );
    let mut found = centres(&made)[1..].to_vec();
    found.sort_by(|a, b| a.partial_cmp(b).expect("finite"));
    assert_eq!(found, [(20.0, 20.0), (80.0, 20.0), (80.0, 60.0)]);
    let points = sound(&plate(
        "100 mm",
        "80 mm",
        "10 mm",
        vec![drill(
            "pin",
            "base",
            "4 mm",
            json!({"pattern": {"points": [{"x": "0", "y": "0"}, {"x": "-12 mm", "y": "7 mm"}]}}),
        )],
    ));
    assert_eq!(centres(&points), [(50.0, 40.0), (38.0, 47.0)]);
    // The same place twice is said, and so is a hole that runs off, by its name.
    let twice = json!({"pattern": {"points": [{"x": "0", "y": "0"}, {"x": "0", "y": "0"}]}});
    assert!(
        refusal(&plate("100 mm", "80 mm", "10 mm", vec![drill("pin", "base", "4 mm", twice)]))
            .contains("pin.1 and pin.2 lie in the same place")
    );
    let off = json!({"pattern": {"circle": {"count": "4", "diameter": "90 mm"}}});
    assert!(refusal(&plate("100 mm", "80 mm", "10 mm", vec![drill("pin", "base", "4 mm", off)])).contains("pin.2"));
}

/// Open area of a hexagonal field: pi d2 / (2 sqrt(3) p2); square: pi d2 / (4 p2) (perforated sheet practice).
#[test]
fn a_fill_is_whole_holes_only() {
    let fill = |rows: &str| {
        sound(&plate(
            "300 mm",
            "200 mm",
            "2 mm",
            vec![drill(
                "perf",
                "base",
                "6 mm",
                json!({"pattern": {"fill": {"rows": rows, "pitch": "10 mm", "margin": "7 mm"}}}),
            )],
        ))
    };
    // Room for centres: 300 - 2 (7 + 3) = 280 and 180: 29 columns, 19 rows.
    let square = fill("square");
    assert_eq!(centres(&square).len(), 29 * 19);
    let hexagonal = fill("hexagonal");
    for (x, y) in centres(&hexagonal) {
        assert!((10.0 - 1e-6..=290.0 + 1e-6).contains(&x) && (10.0 - 1e-6..=190.0 + 1e-6).contains(&y), "{x}, {y}");
    }
    // 180 / (5 sqrt 3) = 20.8: 21 rows, 11 of 29 and 10 of 28.
    assert_eq!(centres(&hexagonal).len(), 11 * 29 + 10 * 28);
    assert!(
        hexagonal.findings.iter().any(|one| one.message.contains("599 whole holes fit, 28.2 % of base is open")),
        "{:?}",
        hexagonal.findings
    );
    assert_eq!(centres(&fill("diagonal")).len(), 19 * 29 + 18 * 28);
    // Round a bore that is there already.
    let bored = sound(&plate(
        "100 mm",
        "100 mm",
        "2 mm",
        vec![
            drill("bore", "base", "30 mm", json!({})),
            drill(
                "perf",
                "base",
                "6 mm",
                json!({"pattern": {"fill": {"rows": "square", "pitch": "10 mm", "margin": "4 mm"}}}),
            ),
        ],
    ));
    for (x, y) in centres(&bored).into_iter().skip(1) {
        assert!((x - 50.0).hypot(y - 50.0) >= 15.0 + 3.0 + 4.0 - 1e-6);
    }
    assert!(
        refusal(&plate(
            "10 mm",
            "10 mm",
            "2 mm",
            vec![drill("perf", "base", "6 mm", json!({"pattern": {"fill": {"pitch": "10 mm", "margin": "7 mm"}}}))]
        ))
        .contains("no whole hole fits")
    );
}

#[test]
fn corners_are_rounded_clipped_and_notched() {
    let area = |operation: Value| part(&sound(&plate("100 mm", "60 mm", "5 mm", vec![operation]))).blank.region.area();
    // A quarter of the square less the disc at each corner.
    near(area(corner("round", &[], json!({"round": "10 mm"}))), 6000.0 - 4.0 * (100.0 - PI * 25.0), 1e-9);
    near(area(corner("round", &["front/right"], json!({"round": "60 mm"}))), 6000.0 - (3600.0 - PI * 900.0), 1e-6);
    near(area(corner("clip", &["right/back"], json!({"chamfer": {"leg": "12 mm"}}))), 6000.0 - 72.0, 1e-9);
    near(
        area(corner("clip", &["back/right"], json!({"chamfer": {"leg": "12 mm", "other": "20 mm"}}))),
        6000.0 - 120.0,
        1e-9,
    );
    // 30 deg to the back, 12 along it: 12 tan 30 on the right edge.
    let clipped = sound(&plate(
        "100 mm",
        "60 mm",
        "5 mm",
        vec![corner("clip", &["back/right"], json!({"chamfer": {"leg": "12 mm", "angle": "30 deg"}}))],
    ));
    near(part(&clipped).blank.region.area(), 6000.0 - 72.0 * 30f64.to_radians().tan(), 1e-9);
    near(probe(&clipped, json!({"edge_length": {"edge": "base.back"}})), 88.0, 1e-9);
    near(probe(&clipped, json!({"edge_length": {"edge": "clip"}})), 12.0 / 30f64.to_radians().cos(), 1e-9);
    near(
        area(corner("notch", &["left/front"], json!({"notch": {"width": "15 mm", "depth": "8 mm"}}))),
        6000.0 - 120.0,
        1e-9,
    );
    near(area(corner("end", &["right"], json!("full_round"))), 6000.0 - 60.0 * 30.0 + PI * 450.0, 1e-9);
    let rounded =
        sound(&plate("100 mm", "60 mm", "5 mm", vec![corner("r", &["front/right"], json!({"round": "10 mm"}))]));
    near(probe(&rounded, json!({"edge_radius": {"edge": "r"}})), 10.0, 1e-9);
    assert!(
        refusal(&plate("100 mm", "60 mm", "5 mm", vec![corner("r", &["front/right"], json!({"round": "61 mm"}))]))
            .contains("61 mm does not fit")
    );
    assert!(
        refusal(&plate("100 mm", "60 mm", "5 mm", vec![corner("r", &["front/back"], json!({"round": "5 mm"}))]))
            .contains("no corner front/back")
    );
    let pierced = vec![
        drill(
            "bolt",
            "base",
            "6 mm",
            json!({"place": {"from": [{"edge": "base.front", "distance": "6 mm"}, {"edge": "base.right", "distance": "6 mm"}]}}),
        ),
        corner("r", &["front/right"], json!({"round": "40 mm"})),
    ];
    assert!(refusal(&plate("100 mm", "60 mm", "5 mm", pierced)).contains("runs into bolt"));
}

/// A corner between a line and an arc: the fillet touches both.
#[test]
fn a_corner_with_an_arc_is_rounded_exactly() {
    let disc = json!({"name": "base", "do": {"lay_down": {"shape": {"run": {"close": true, "legs": [
        {"arc": {"radius": "50 mm", "sweep": "180 deg", "name": "bow"}},
    ]}}}}});
    let document = json!({
        "steelk": 1, "kind": "plate", "mark": "P-1", "title": "half disc", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "5 mm"},
        "operations": [disc, corner("r", &["bow/close"], json!({"round": "8 mm"}))],
    });
    let piece = Piece::read(document.to_string().as_bytes()).expect("a sound document");
    let made = sound(&piece);
    let outline = &part(&made).flat.nodes[0].region.outer;
    let arc =
        outline.segments().find(|(one, _)| !one.is_line() && (one.radius() - 8.0).abs() < 1e-9).expect("the fillet").0;
    // Its centre is 8 from the straight edge and 50 - 8 from the bow's centre.
    let bow = outline.segments().find(|(one, _)| !one.is_line() && one.radius() > 40.0).expect("the bow").0;
    near(arc.centre().distance(bow.centre()), 42.0, 1e-9);
    let line = outline.segments().find(|(one, _)| one.is_line()).expect("the straight edge").0;
    let along = (line.end - line.start).unit();
    near(along.cross(arc.centre() - line.start).abs(), 8.0, 1e-9);
}

#[test]
fn the_hole_table_has_balloons_counts_and_places_from_a_corner() {
    use steelk_core::quantity::LengthUnit;
    use steelk_core::table::{DatumCorner, edge_rows, hole_rows};
    let made = sound(&plate(
        "100 mm",
        "80 mm",
        "10 mm",
        vec![
            drill("bore", "base", "20 mm", json!({})),
            drill(
                "bolt",
                "base",
                "6 mm",
                json!({"place": {"from": [{"edge": "base.front", "distance": "10 mm"}, {"edge": "base.left", "distance": "15 mm"}]}, "mirror": "both"}),
            ),
            worked(
                "pin",
                json!({"diameter": "6 mm", "make": "leave", "place": {"from": [{"edge": "base.back", "distance": "9 mm"}]}}),
            ),
            corner("round", &["front/right"], json!({"round": "8 mm"})),
        ],
    ));
    let rows = hole_rows(part(&made), DatumCorner::UpperRight, LengthUnit::Mm);
    let balloons: Vec<_> = rows.iter().map(|row| (row.balloon.as_str(), row.name.as_str(), row.count)).collect();
    assert_eq!(
        balloons,
        [
            ("A1", "bore", 1),
            ("B1", "bolt.1", 4),
            ("B2", "bolt.2", 4),
            ("B3", "bolt.3", 4),
            ("B4", "bolt.4", 4),
            ("C1", "pin", 1)
        ]
    );
    // The first bolt stands 15 from the left and 10 from the front: 85 and 70 from the upper right.
    assert_eq!((rows[1].x, rows[1].y), (85.0, 70.0));
    assert_eq!((rows[0].size.as_str(), rows[5].work.as_str()), ("diameter 20 mm", "left to the drill press"));
    let edges = edge_rows(part(&made));
    let round = edges.iter().find(|row| row.name == "round").expect("the rounded corner");
    near(round.radius.expect("round"), 8.0, 1e-9);
    near(round.length, 4.0 * PI, 1e-9);
    near(edges.iter().find(|row| row.name == "base.front").expect("the front").length, 92.0, 1e-9);
}

/// What stands where on the mesh of a plate of 10: rims as rounds of the face they are worked from, floors and tips at their depth. Heads
/// that run into each other have no faces: their rims are drawn on the face.
#[test]
fn blind_holes_and_heads_are_in_the_mesh_on_the_face_that_they_are_worked_from() {
    let mesh = |work: Vec<Value>| evaluate(&plate("100 mm", "60 mm", "10 mm", work), Options::default()).mesh;
    let heights = |mesh: &Mesh, name: &str| -> Vec<f64> {
        let own = mesh.owners.iter().zip(&mesh.triangles).filter(|(at, _)| mesh.features[**at as usize] == name);
        let mut all: Vec<f64> =
            own.flat_map(|(_, corners)| corners.map(|at| (mesh.points[at as usize].z * 1e6).round() / 1e6)).collect();
        all.sort_by(f64::total_cmp);
        all.dedup();
        all
    };
    let below = mesh(vec![worked("pin", json!({"diameter": "8 mm", "depth": "4 mm", "face": "bottom"}))]);
    assert!(below.is_watertight());
    assert_eq!(heights(&below, "pin"), [0.0, 4.0]);
    // A point of 118 deg under 8 is 4 / tan 59 deg deep.
    assert_eq!(heights(&below, "pin.point"), [4.0, 4.0 + (4.0 / 59f64.to_radians().tan() * 1e6).round() / 1e6]);
    let bored =
        mesh(vec![worked("pin", json!({"diameter": "6 mm", "counterbore": {"diameter": "12 mm", "depth": "3 mm"}}))]);
    assert!(bored.is_watertight());
    assert_eq!(heights(&bored, "pin.seat"), [7.0]);
    assert_eq!((heights(&bored, "pin.counterbore"), heights(&bored, "pin")), (vec![7.0, 10.0], vec![0.0, 7.0]));
    let sunk = mesh(vec![worked("pin", json!({"diameter": "6 mm", "countersink": {"diameter": "12 mm"}}))]);
    assert_eq!(heights(&sunk, "pin.countersink"), [7.0, 10.0]);
    assert!(heights(&mesh(vec![worked("pin", json!({"diameter": "6 mm"}))]), "pin.countersink").is_empty());
    let near = |name: &str, x: f64| {
        drill(
            name,
            "base",
            "6 mm",
            json!({"countersink": {"diameter": "12 mm"},
            "place": {"from": [{"edge": "base.left", "distance": format!("{x} mm")}]}}),
        )
    };
    let met = mesh(vec![near("one", 40.0), near("two", 50.0)]);
    assert!(met.is_watertight());
    assert!(heights(&met, "one.countersink").is_empty());
    let used: std::collections::HashSet<u32> = met.triangles.iter().flatten().copied().collect();
    let rims = met.lines.iter().filter(|line| !used.contains(&line[0])).map(|line| met.points[line[0] as usize]);
    assert!(rims.clone().count() > 16);
    assert!(
        rims.into_iter().all(|at| (at.x - 40.0).hypot(at.y - 30.0).min((at.x - 50.0).hypot(at.y - 30.0)) < 6.0 + 1e-9)
    );
}

/// Two counterbores that run into each other take what they share once: two cylinders of 20 by 4 deep at 14 apart, less the drills.
#[test]
fn heads_that_overlap_are_taken_once() {
    let two = |apart: f64| {
        let at = |name: &str, x: f64| {
            drill(
                name,
                "base",
                "8 mm",
                json!({"counterbore": {"diameter": "20 mm", "depth": "4 mm"},
                "place": {"from": [{"edge": "base.left", "distance": format!("{x} mm")}, {"edge": "base.front", "distance": "30 mm"}]}}),
            )
        };
        sound(&piece(
            "10 mm",
            "10 mm",
            "0.44",
            json!([base("120 mm", "60 mm"), at("one", 40.0), at("two", 40.0 + apart)]),
        ))
        .figures()
        .cloned()
        .unwrap()
    };
    let each = std::f64::consts::PI * (10.0f64.powi(2) - 4.0f64.powi(2)) * 4.0;
    near(two(40.0).removed, 2.0 * each, 1e-9);
    // Lens of two circles of radius 10 at 14 (standard result).
    let (r, d) = (10.0f64, 14.0f64);
    let lens = 2.0 * r * r * (d / (2.0 * r)).acos() - d / 2.0 * (4.0 * r * r - d * d).sqrt();
    let found = two(14.0);
    near(found.removed, 2.0 * each - lens * 4.0, 1e-6);
    near(
        found.centre_of_gravity.x,
        {
            // Both lie alike about x = 47: by symmetry the plate's middle moves away from there.
            let whole = 120.0 * 60.0 * 10.0;
            let gone = found.removed + 2.0 * std::f64::consts::PI * 16.0 * 10.0;
            (whole * 60.0 - gone * 47.0) / (whole - gone)
        },
        1e-6,
    );
}

/// A counterbore of 20 whose middle lies 7 from the edge takes no more than there is: its round less a segment (standard result). It has
/// no faces of its own there, and the solid says so; so does one over a bend, and one whose drill is opened by a later cut.
#[test]
fn heads_that_run_out_take_what_is_there_and_have_no_solid() {
    let bored = |x: f64| {
        drill(
            "one",
            "base",
            "8 mm",
            json!({"counterbore": {"diameter": "20 mm", "depth": "4 mm"},
            "place": {"from": [{"edge": "base.left", "distance": format!("{x} mm")}, {"edge": "base.back", "distance": "30 mm"}]}}),
        )
    };
    let made = |work: Vec<Value>| {
        let all: Vec<Value> = std::iter::once(base("120 mm", "60 mm")).chain(work).collect();
        sound(&piece("10 mm", "10 mm", "0.44", json!(all)))
    };
    let out = made(vec![bored(7.0)]);
    let segment = 100.0 * 0.7f64.acos() - 7.0 * 51f64.sqrt();
    near(out.figures().unwrap().removed, (PI * (100.0 - 16.0) - segment) * 4.0, 1e-6);
    let fault = folded_body(&part(&out).flat).unwrap_err().to_string();
    assert!(fault.contains("one runs into the edge base.left"), "{fault}");
    // Touching is running into: nothing stands between.
    let fault = folded_body(&part(&made(vec![bored(10.0)])).flat).unwrap_err().to_string();
    assert!(fault.contains("base.left"), "{fault}");
    assert!(folded_body(&part(&made(vec![bored(10.1)])).flat).is_ok());
    // Over a bend that is bent after: metal of the strip counts, and what is taken is the whole round.
    let bent = made(vec![bored(28.0), bend("up", "base.left", "90 deg", "40 mm", json!({}))]);
    let fault = folded_body(&part(&bent).flat).unwrap_err().to_string();
    assert!(fault.contains("one runs into the bend"), "{fault}");
    near(bent.figures().unwrap().removed, PI * (100.0 - 16.0) * 4.0, 1e-6);
    // A slot that cuts the drill open.
    let slot = json!({"name": "slot", "do": {"cut": {"panel": "base", "reach": "flat", "width": "40 mm", "height": "6 mm",
        "place": {"from": [{"edge": "base.left", "distance": "62 mm"}, {"edge": "base.back", "distance": "30 mm"}]}}}});
    let opened = made(vec![bored(60.0), slot]);
    let fault = folded_body(&part(&opened).flat).unwrap_err().to_string();
    assert!(fault.contains("one runs into"), "{fault}");
    // A window that takes a blind hole away whole: nothing is left that it could take.
    let blind = drill("pin", "base", "4 mm", json!({"depth": "3 mm"}));
    let window = json!({"name": "window", "do": {"cut": {"panel": "base", "reach": "flat", "width": "40 mm", "height": "40 mm"}}});
    let gone = made(vec![blind, window]);
    let fault = folded_body(&part(&gone).flat).unwrap_err().to_string();
    assert!(fault.contains("pin runs into a cut that takes its metal away"), "{fault}");
    near(gone.figures().unwrap().removed, 0.0, 1e-12);
    // From both sides, one over the other: at no height do they share anything.
    let below = drill(
        "two",
        "base",
        "4 mm",
        json!({"depth": "3 mm", "face": "bottom", "point": "180 deg",
        "place": {"from": [{"edge": "base.left", "distance": "68 mm"}, {"edge": "base.back", "distance": "30 mm"}]}}),
    );
    let both = made(vec![bored(60.0), below]);
    let body = folded_body(&part(&both).flat).unwrap();
    near(body.mass().volume, both.figures().unwrap().folded_volume, 1e-6);
    near(both.figures().unwrap().removed, PI * (84.0 * 4.0 + 4.0 * 3.0), 1e-9);
}

/// A countersink within a counterbore is taken once: by hand, a bore of 14 by 3, under it what the cone of 90 deg from 12 to 6 leaves.
#[test]
fn a_countersink_and_a_counterbore_together_are_taken_once() {
    let work = vec![worked(
        "pin",
        json!({"diameter": "6 mm", "countersink": {"diameter": "12 mm", "angle": "60 deg"},
        "counterbore": {"diameter": "14 mm", "depth": "3 mm"}}),
    )];
    let outcome = sound(&plate("100 mm", "60 mm", "10 mm", work));
    // The cone is 3 / tan 30 deg = 5.196 deep; at 3 it is 6 - 3 tan 30 deg = 4.268 in radius.
    let (deep, at) = (3.0 * 3f64.sqrt(), 6.0 - 3f64.sqrt());
    let cone = PI * (deep - 3.0) / 3.0 * (at * at + at * 3.0 + 9.0);
    near(outcome.figures().unwrap().removed, PI * 49.0 * 3.0 + cone - PI * 9.0 * deep, 1e-9);
    near(folded_body(&part(&outcome).flat).unwrap().mass().volume, outcome.figures().unwrap().folded_volume, 1e-6);
}

/// A slot 30 long overall and 10 wide is 20 between the centres of its ends: both ways of saying it are one hole, and its area is that
/// of a rectangle and a disc. One that is not longer than it is wide is told, with both figures.
#[test]
fn a_slot_is_overall_or_between_centres() {
    let slot = |length: &str, width: &str, is: &str| {
        cut("slot", json!({"slot": {"length": length, "width": width, "length_is": is}}))
    };
    let area = 20.0 * 10.0 + PI * 25.0;
    near(taken(vec![slot("30 mm", "10 mm", "overall")], "5 mm"), area * 5.0, 1e-6);
    near(taken(vec![slot("20 mm", "10 mm", "centres")], "5 mm"), area * 5.0, 1e-6);
    let overall = sound(&plate("100 mm", "80 mm", "5 mm", vec![slot("30 mm", "10 mm", "overall")]));
    let own = &part(&overall).flat.holes[0];
    near(own.extents.width(), 30.0, 1e-9);
    near(own.extents.height(), 10.0, 1e-9);
    // A document of before says nothing, and means between the centres.
    let before = cut("slot", json!({"slot": {"length": "20 mm", "width": "10 mm"}}));
    near(taken(vec![before], "5 mm"), area * 5.0, 1e-6);
    for (length, width) in [("10 mm", "30 mm"), ("10 mm", "10 mm")] {
        let said = refusal(&plate("100 mm", "80 mm", "5 mm", vec![slot(length, width, "overall")]));
        assert!(said.contains(length) && said.contains(width) && said.contains("not longer than it is wide"), "{said}");
    }
}
