//! Laws of the shapes of plates: areas and centroids of textbook figures, tangency, what is refused.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::plane::{Outline, Segment};
use steelk_testing::{part, probe, sound};

fn plate(shape: Value, more: Value) -> Piece {
    let mut operations = vec![json!({"name": "base", "do": {"lay_down": {"shape": shape}}})];
    operations.extend(more.as_array().cloned().unwrap_or_default());
    let document = json!({
        "steelk": 1, "kind": "plate", "mark": "P-1", "title": "test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "10 mm"},
        "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

fn laid(shape: Value) -> Outcome {
    sound(&plate(shape, json!([])))
}

fn refusal(shape: Value) -> String {
    let outcome = evaluate(&plate(shape, json!([])), Options::default());
    let errors: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    assert_eq!(errors.len(), 1, "{errors:#?}");
    assert!(!errors[0].way_out.is_empty());
    errors[0].message.clone()
}

fn outer(outcome: &Outcome) -> &Outline {
    &part(outcome).flat.nodes[0].region.outer
}

fn area(outcome: &Outcome) -> f64 {
    part(outcome).blank.region.area()
}

fn near(found: f64, wanted: f64) {
    assert!((found - wanted).abs() <= 1e-9 * wanted.abs().max(1.0), "{found} is not {wanted}");
}

/// Every joint between a line and an arc of an outline runs on without a corner.
fn corners(outline: &Outline) -> Vec<f64> {
    let segments: Vec<Segment> = outline.segments().map(|(one, _)| one).collect();
    let heading = |one: &Segment, at: f64| {
        let chord = one.end - one.start;
        chord.y.atan2(chord.x) + (at - 0.5) * one.sweep()
    };
    (0..segments.len())
        .map(|at| {
            let (one, two) = (segments[at], segments[(at + 1) % segments.len()]);
            let turn = heading(&two, 0.0) - heading(&one, 1.0);
            (turn + PI).rem_euclid(2.0 * PI) - PI
        })
        .collect()
}

/// Areas and centroids of plane figures: any engineering handbook's table of plane sections (from memory).
#[test]
fn textbook_figures_have_their_textbook_areas() {
    let circle = laid(json!({"circle": {"diameter": "80 mm"}}));
    near(area(&circle), PI * 1600.0);
    let ring = laid(json!({"ring": {"outside": "100 mm", "inside": "60 mm"}}));
    near(area(&ring), PI / 4.0 * (100.0f64.powi(2) - 60.0f64.powi(2)));
    near(part(&ring).blank.pierces() as f64, 2.0);
    let obround = laid(json!({"obround": {"length": "120 mm", "width": "40 mm"}}));
    near(area(&obround), 80.0 * 40.0 + PI * 400.0);
    // Hexagon across flats s: area = sqrt(3)/2 s^2. Across corners d: 3 sqrt(3)/8 d^2.
    let hexagon = laid(json!({"polygon": {"sides": "6", "size": "50 mm"}}));
    near(area(&hexagon), 3f64.sqrt() / 2.0 * 2500.0);
    let corners = laid(json!({"polygon": {"sides": "6", "size": "50 mm", "across": "corners"}}));
    near(area(&corners), 3.0 * 3f64.sqrt() / 8.0 * 2500.0);
    let triangle = laid(json!({"triangle": {"base": "90 mm", "height": "60 mm", "lean": "30 mm"}}));
    near(area(&triangle), 2700.0);
    // Centroid at the mean of the corners.
    let centre = part(&triangle).blank.region.centroid();
    near(centre.x, 40.0);
    near(centre.y, 20.0);
}

#[test]
fn a_gusset_is_its_triangle_less_its_clips() {
    let gusset = laid(
        json!({"gusset": {"width": "150 mm", "height": "200 mm", "corner": "20 mm", "toe": "10 mm", "tip": "15 mm"}}),
    );
    // The quadrilateral (0,0) (150,0) (150,10) (15,200) (0,200) by its trapezia, less the corner.
    let under_slope = 15.0 * 200.0 + (200.0 + 10.0) / 2.0 * 135.0;
    near(area(&gusset), under_slope - 200.0);
    assert_eq!(outer(&gusset).edges.len(), 6);
    let plain = laid(json!({"gusset": {"width": "150 mm", "height": "200 mm"}}));
    near(area(&plain), 15000.0);
    near(probe(&plain, json!({"edge_length": {"edge": "base.slope"}})), 250.0);
    let message = refusal(json!({"gusset": {"width": "30 mm", "height": "200 mm", "corner": "20 mm", "tip": "15 mm"}}));
    assert!(message.contains("35 mm") && message.contains("30 mm"), "{message}");
}

#[test]
fn a_lugs_sides_touch_its_crown() {
    let lug = laid(json!({"lug": {"base": "140 mm", "height": "90 mm", "radius": "45 mm", "hole": "32 mm"}}));
    let turns = corners(outer(&lug));
    // foot, right, crown, left: sharp at the foot's ends, smooth at the crown's.
    assert!(turns[1].abs() < 1e-9 && turns[2].abs() < 1e-9, "{turns:?}");
    near(probe(&lug, json!({"edge_radius": {"edge": "base.crown"}})), 45.0);
    near(probe(&lug, json!({"diameter": {"hole": "base.hole"}})), 32.0);
    near(probe(&lug, json!({"distance": {"from": "base.foot", "to": "base.hole"}})), 90.0);
    near(probe(&lug, json!({"size": {"along": "y"}})), 135.0);
    // Straight-sided: base equals the crown's diameter; a rectangle and a half disc.
    let upright = laid(json!({"lug": {"base": "90 mm", "height": "60 mm", "radius": "45 mm"}}));
    near(area(&upright), 90.0 * 60.0 + PI * 45.0 * 45.0 / 2.0);
    // The hole as high as the crown's radius: a half disc on a half square of 90 by 45, whole.
    let low = laid(json!({"lug": {"base": "90 mm", "height": "45 mm", "radius": "45 mm", "hole": "20 mm"}}));
    near(area(&low), 90.0 * 45.0 + PI * 45.0 * 45.0 / 2.0 - PI * 100.0);
    assert!(refusal(json!({"lug": {"base": "140 mm", "height": "40 mm", "radius": "45 mm"}})).contains("45 mm"));
    assert!(
        refusal(json!({"lug": {"base": "140 mm", "height": "90 mm", "radius": "45 mm", "hole": "95 mm"}}))
            .contains("breaks through")
    );
}

/// A belt round two pulleys, halved about both: body, ears and touching lines; the area from the same drawing done by
/// trapezia and sectors.
#[test]
fn an_eared_flange_is_smooth_wherever_a_line_meets_a_circle() {
    for (ears, body, circle, ear) in
        [(2u32, 80.0f64, 110.0f64, 14.0f64), (3, 90.0, 120.0, 15.0), (4, 60.0, 120.0, 12.0), (6, 150.0, 180.0, 20.0)]
    {
        let flange = laid(json!({"eared": {
            "body": format!("{body} mm"), "bore": "30 mm", "ears": ears.to_string(),
            "circle": format!("{circle} mm"), "ear_radius": format!("{ear} mm"), "hole": "11 mm",
        }}));
        let outline = outer(&flange);
        let segments: Vec<Segment> = outline.segments().map(|(one, _)| one).collect();
        for (at, turn) in corners(outline).iter().enumerate() {
            let both_straight = segments[at].is_line() && segments[(at + 1) % segments.len()].is_line();
            assert!(both_straight || turn.abs() < 1e-9, "{ears} ears, corner {at}: {turn}");
        }
        // Two-centre belt: half the area between axis and line is the trapezium of radii body and ear on the tangent
        // length, with the sectors left over on both circles.
        let (r, q, d) = (body / 2.0, ear, circle / 2.0);
        let lean = ((r - q) / d).acos();
        let half = PI / f64::from(ears);
        if lean < half {
            let reach = (d * d - (r - q) * (r - q)).sqrt();
            let sector = (r + q) / 2.0 * reach + q * q * lean / 2.0 + r * r * (half - lean) / 2.0;
            // The trapezium stands on the tangent line; between the two centres and the axis nothing is added.
            let holes = PI * 15.0 * 15.0 + f64::from(ears) * PI * 5.5 * 5.5;
            near(area(&flange), 2.0 * f64::from(ears) * sector - holes);
        }
        assert_eq!(part(&flange).blank.pierces(), 2 + ears as usize);
    }
    assert!(
        refusal(json!({"eared": {"body": "80 mm", "ears": "2", "circle": "40 mm", "ear_radius": "14 mm"}}))
            .contains("no ear stands out")
    );
    assert!(
        refusal(json!({"eared": {"body": "80 mm", "ears": "12", "circle": "110 mm", "ear_radius": "20 mm"}}))
            .contains("run into each other")
    );
}

#[test]
fn a_run_comes_back_or_says_by_how_much_it_misses() {
    // An obround walked leg by leg.
    let legs = json!([
        {"line": {"length": "80 mm", "direction": "0 deg", "name": "front"}},
        {"arc": {"radius": "20 mm", "sweep": "180 deg"}},
        {"line": {"length": "80 mm"}},
        {"arc": {"radius": "20 mm", "sweep": "180 deg"}},
    ]);
    let round = laid(json!({"run": {"legs": legs}}));
    near(area(&round), 80.0 * 40.0 + PI * 400.0);
    near(probe(&round, json!({"edge_length": {"edge": "base.leg-2"}})), PI * 20.0);
    // The same half circle through its crown; walked clockwise it comes out counter-clockwise all the same.
    let through = laid(json!({"run": {"close": true, "legs": [
        {"arc_through": {"through_x": "20 mm", "through_y": "20 mm", "x": "40 mm", "y": "0"}},
    ]}}));
    near(area(&through), PI * 400.0 / 2.0);
    assert!(area(&through) > 0.0);
    // A major arc: 270 deg through a point, closed by its chord. Segment area = r^2/2 (a - sin a).
    let reach = 10.0 * 2f64.sqrt();
    let major = laid(json!({"run": {"close": true, "legs": [
        {"arc_through": {"through_x": format!("{} mm", reach / 2.0), "through_y": format!("{} mm", -(10.0 + reach / 2.0)), "x": format!("{reach} mm"), "y": "0"}},
    ]}}));
    near(area(&major), 100.0 / 2.0 * (1.5 * PI + 1.0));
    let open = refusal(json!({"run": {"legs": [
        {"line": {"length": "30 mm"}}, {"line": {"length": "40 mm", "turn": "90 deg"}},
    ]}}));
    assert!(open.contains("50 mm") && open.contains("30 mm across") && open.contains("40 mm up"), "{open}");
    let crossed = refusal(json!({"run": {"close": true, "legs": [
        {"line": {"length": "30 mm"}}, {"line": {"length": "30 mm", "turn": "135 deg"}}, {"line": {"length": "50 mm", "turn": "90 deg"}},
        {"line": {"length": "45 mm", "direction": "60 deg"}},
    ]}}));
    assert!(crossed.contains("run into each other"), "{crossed}");
}

#[test]
fn an_open_run_is_a_profile_seen_from_its_end() {
    let legs = json!([
        {"line": {"length": "60 mm", "direction": "0 deg"}},
        {"line": {"length": "40 mm", "turn": "90 deg"}},
    ]);
    let angle = |side: &str| laid(json!({"run": {"legs": legs, "open": {"thickness": "T", "side": side}}}));
    // An angle of 60 by 40 from 10 mm, its legs the outside, the inside and the middle.
    let thickness = 10.0;
    near(area(&angle("left")), thickness * (60.0 + 40.0 - thickness));
    near(area(&angle("right")), thickness * (60.0 + 40.0 + thickness));
    near(area(&angle("middle")), thickness * (60.0 + 40.0));
    near(probe(&angle("right"), json!({"size": {"along": "x"}})), 70.0);
    near(probe(&angle("left"), json!({"edge_length": {"edge": "base.leg-1-left"}})), 50.0);
    near(probe(&angle("left"), json!({"edge_length": {"edge": "base.end"}})), thickness);
    // A U with round corners: straight lengths, and two quarters of a ring.
    let round = laid(json!({"run": {"open": {"thickness": "3 mm", "side": "right"}, "legs": [
        {"line": {"length": "30 mm", "direction": "-90 deg"}}, {"arc": {"radius": "4 mm", "sweep": "90 deg"}},
        {"line": {"length": "50 mm"}}, {"arc": {"radius": "4 mm", "sweep": "90 deg"}}, {"line": {"length": "30 mm"}},
    ]}}));
    near(area(&round), 3.0 * 110.0 + PI / 2.0 * (49.0 - 16.0));
    for (open, legs, words) in [
        (json!({"thickness": "3 mm"}), json!([{"arc": {"radius": "2 mm", "sweep": "90 deg"}}]), "too tight for 3 mm"),
        (
            json!({"thickness": "3 mm"}),
            json!([{"line": {"length": "9 mm"}}, {"arc": {"radius": "20 mm", "sweep": "90 deg", "turn": "30 deg"}}]),
            "meet at a corner",
        ),
        (
            json!({"thickness": "3 mm"}),
            json!([{"line": {"length": "9 mm"}}, {"line": {"length": "9 mm", "turn": "180 deg"}}]),
            "turns straight back",
        ),
        (
            json!({"thickness": "8 mm"}),
            json!([{"line": {"length": "30 mm"}}, {"line": {"length": "10 mm", "turn": "90 deg"}}, {"line": {"length": "30 mm", "turn": "90 deg"}}]),
            "too short for 8 mm",
        ),
        (json!({"thickness": "0 mm"}), json!([{"line": {"length": "30 mm"}}]), "above zero"),
    ] {
        let said = refusal(json!({"run": {"legs": legs, "open": open}}));
        assert!(said.contains(words), "{said}");
    }
}

#[test]
fn shapes_are_put_together_and_taken_away_exactly() {
    // Two discs of one size whose centres are a radius apart: union = 2 pi r^2 - lens, lens = r^2 (2 pi/3 - sqrt(3)/2).
    let disc = |name: &str, x: &str, act: &str| json!({"name": name, "act": act, "x": x, "shape": {"circle": {"diameter": "40 mm"}}});
    let lens = 400.0 * (2.0 * PI / 3.0 - 3f64.sqrt() / 2.0);
    let disc_area = PI * 400.0;
    for (act, wanted) in [("add", 2.0 * disc_area - lens), ("take", disc_area - lens), ("keep", lens)] {
        let made = laid(json!({"combined": {"parts": [disc("one", "0", "add"), disc("two", "20 mm", act)]}}));
        near(area(&made), wanted);
        assert!(part(&made).flat.edges.iter().any(|edge| edge.name.starts_with("base.one-rim")));
    }
    let apart = refusal(json!({"combined": {"parts": [disc("one", "0", "add"), disc("two", "60 mm", "add")]}}));
    assert!(apart.contains("two does not meet"), "{apart}");
    // A window taken from inside is a hole with the part's name.
    let framed = laid(json!({"combined": {"parts": [
        {"name": "plate", "shape": {"rectangle": {"width": "100 mm", "depth": "60 mm"}}},
        {"name": "window", "act": "take", "turn": "30 deg", "shape": {"rectangle": {"width": "40 mm", "depth": "20 mm"}}},
    ]}}));
    near(area(&framed), 6000.0 - 800.0);
    near(
        probe(&framed, json!({"hole_size": {"hole": "base.window", "along": "x"}})),
        40.0 * (PI / 6.0).cos() + 20.0 * 0.5,
    );
}

#[test]
fn holes_and_distances_use_the_edges_of_any_shape() {
    let drill = json!([{"name": "bolt", "do": {"drill": {"panel": "base", "diameter": "12 mm", "place": {"from": [
        {"edge": "base.foot", "distance": "25 mm"}, {"edge": "base.upright", "distance": "30 mm"},
    ]}}}}]);
    let gusset = json!({"gusset": {"width": "150 mm", "height": "200 mm"}});
    let made = sound(&plate(gusset.clone(), drill));
    near(probe(&made, json!({"distance": {"from": "base.upright", "to": "bolt"}})), 30.0);
    // Distance to the slope from the line 200 x + 150 y = 30000.
    let wanted = (30000.0 - 200.0 * 30.0 - 150.0 * 25.0) / 250.0;
    near(probe(&made, json!({"distance": {"from": "base.slope", "to": "bolt"}})), wanted);
    let from_round = json!([{"name": "bolt", "do": {"drill": {"panel": "base", "diameter": "6 mm", "place": {"from": [
        {"edge": "base.rim", "distance": "9 mm"}]}}}}]);
    let outcome = evaluate(&plate(json!({"circle": {"diameter": "80 mm"}}), from_round), Options::default());
    let fault = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("refused");
    assert!(
        fault.message.contains("base.rim is round") && fault.field.as_deref() == Some("place.from.0.edge"),
        "{fault:?}"
    );
    // A plate is not bent.
    let bend = json!([{"name": "up", "do": {"bend": {"edge": "base.foot", "angle": "90 deg", "leg": "30 mm"}}}]);
    let outcome = evaluate(&plate(gusset, bend), Options::default());
    assert!(outcome.findings.iter().any(|one| one.message.contains("is a plate")));
    assert!(outcome.part().is_some(), "the plate itself stands");
}

#[test]
fn a_triangular_base_bends_along_its_slope() {
    // The sheet kernel takes any outline: a flange on a slanting edge, square ends, leg measured back.
    let piece = steelk_testing::piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([
            {"name": "base", "do": {"lay_down": {"shape": {"polygon": {"sides": "6", "size": "200 mm"}}}}},
            steelk_testing::bend("flap", "base.side-2", "60 deg", "40 mm", json!({})),
        ]),
    );
    let made = sound(&piece);
    near(probe(&made, json!({"angle": {"from": "base", "to": "flap"}})), PI - PI / 3.0);
    near(probe(&made, json!({"leg": {"bend": "flap"}})), 40.0);
}
