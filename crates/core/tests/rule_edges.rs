//! Rules at their edges: what just holds, and what just breaks, with the source's figure beside it.

use serde_json::{Value, json};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::proof::{Breach, Level};
use steelk_core::stock::{Grain, stock};
use steelk_testing::*;

/// What a rule says of a piece; the piece itself must be sound.
#[track_caller]
fn said<'a>(outcome: &'a Outcome, rule: &str) -> Vec<&'a Breach> {
    assert!(
        outcome.findings.iter().all(|one| one.severity != steelk_core::finding::Severity::Error),
        "{:?}",
        outcome.findings
    );
    assert!(outcome.rules.iter().any(|one| one.rule == rule), "no rule is called {rule}");
    outcome.breaches.iter().filter(|one| one.rule == rule).collect()
}

#[track_caller]
fn holds(piece: &Piece, rule: &str) {
    let outcome = evaluate(piece, Options::default());
    let found = said(&outcome, rule);
    assert!(found.is_empty(), "{found:#?}");
}

#[track_caller]
fn breaks(piece: &Piece, rule: &str, words: &str) {
    let outcome = evaluate(piece, Options::default());
    let found = said(&outcome, rule);
    assert!(!found.is_empty(), "{rule} holds");
    assert!(found.iter().all(|one| one.level == Level::Broken), "{found:#?}");
    let told: Vec<&String> =
        found.iter().map(|one| &one.message).chain(found.iter().map(|one| &one.why.working)).collect();
    assert!(told.iter().any(|one| one.contains(words)), "{told:#?}");
}

fn angle(material: &str, thickness: &str, radius: &str, long: &str, bent: &str, leg: &str) -> Piece {
    let mut made =
        piece(thickness, radius, "0.44", json!([base(long, "120 mm"), bend("up", "base.back", bent, leg, json!({}))]));
    made.stock.material = material.into();
    made
}

/// F = 1.42 Rm T^2 / V for each length (common practice), V = 8 T: 1.42 Rm T / 8. With 1000 kN and T = 8 mm the longest bend is
/// 704.2 m MPa / Rm: S355 630 MPa 1117.8 mm, S275 560 MPa 1257.5 mm, S690 940 MPa 749.2 mm (upper values of EN 10025, from memory).
#[test]
fn the_brake_is_asked_for_each_steels_own_strength() {
    for (material, longest, radius) in [("S355", 1117, "20 mm"), ("S275", 1257, "16 mm"), ("S690", 749, "24 mm")] {
        let of = |long: i32| angle(material, "8 mm", radius, &format!("{long} mm"), "90 deg", "90 mm");
        holds(&of(longest), "part_on_brake");
        breaks(&of(longest + 1), "part_on_brake", "1000 kN");
    }
    // Thin S355 is stronger: 680 MPa to 3 mm. 1000 kN / (1.42 x 680 x 3 / 8) = 2761.7 mm.
    let thin = |long: &str| angle("S355", "3 mm", "3 mm", long, "90 deg", "60 mm");
    holds(&thin("2761 mm"), "part_on_brake");
    breaks(&thin("2762 mm"), "part_on_brake", "680 MPa");
    // A wider die presses more easily: V = 100 at T = 8, S355: 1000 kN / (1.42 x 630 x 64 / 100) = 1746.6 mm.
    let wide = |long: &str| {
        let mut one = angle("S355", "8 mm", "20 mm", long, "90 deg", "90 mm");
        one.bending.die = Some("100 mm".into());
        one
    };
    holds(&wide("1746 mm"), "part_on_brake");
    breaks(&wide("1747 mm"), "part_on_brake", "V of this piece");
}

/// EN 10025-2, table of least inside radii for cold flanging (from memory): S355 and S275 above 7 to 8 mm 16 across and 20 along the rolling
/// direction; above 12 to 14 mm S275 28 and 36.
#[test]
fn thick_steel_is_bent_by_the_standards_table() {
    // The bend runs along x: grain along x is along it.
    for (material, thickness, across, along, leg) in [
        ("S355", "8 mm", 16.0, 20.0, "90 mm"),
        ("S275", "8 mm", 16.0, 20.0, "90 mm"),
        ("S275", "14 mm", 28.0, 36.0, "160 mm"),
    ] {
        let of = |radius: f64, grain: Option<Grain>| {
            let mut one = angle(material, thickness, &format!("{radius} mm"), "300 mm", "90 deg", leg);
            one.grain = grain;
            one
        };
        for (grain, least, words) in [
            (None, across, "across the rolling direction"),
            (Some(Grain::AlongY), across, "across the rolling direction"),
            (Some(Grain::AlongX), along, "along the rolling direction"),
        ] {
            holds(&of(least, grain), "inside_radius");
            breaks(&of(least - 0.1, grain), "inside_radius", words);
            // One rule tells of it, not two.
            holds(&of(least, grain), "grain");
        }
    }
}

/// Up to 6 mm shops bend tighter (common practice: S275 1 T, S355 1.5 T from 3 to 6 mm); that the table has more is worth knowing.
#[test]
fn thin_steel_is_bent_by_practice_and_the_table_is_a_hint() {
    let levels = |piece: &Piece| {
        let outcome = evaluate(piece, Options::default());
        said(&outcome, "inside_radius").iter().map(|one| one.level).collect::<Vec<_>>()
    };
    let of =
        |material: &str, thickness: &str, radius: &str| angle(material, thickness, radius, "300 mm", "90 deg", "90 mm");
    // EN 10025-2 (from memory): S275 5 mm 8, S355 4 mm 6, 6 mm 10.
    assert_eq!(levels(&of("S275", "5 mm", "8 mm")), []);
    assert_eq!(levels(&of("S275", "5 mm", "7.9 mm")), [Level::Hint]);
    assert_eq!(levels(&of("S275", "5 mm", "5 mm")), [Level::Hint]);
    assert_eq!(levels(&of("S275", "5 mm", "4.9 mm")), [Level::Broken]);
    assert_eq!(levels(&of("S355", "4 mm", "6 mm")), []);
    assert_eq!(levels(&of("S355", "4 mm", "5.9 mm")), [Level::Broken]);
    assert_eq!(levels(&of("S355", "6 mm", "9 mm")), [Level::Hint]);
    // No table, no hint.
    assert_eq!(levels(&of("1.4301", "3 mm", "3 mm")), []);
    // What is the same for several bends is told once.
    let both = json!([
        base("300 mm", "120 mm"),
        bend("up", "base.back", "90 deg", "90 mm", json!({"also": ["base.front", "base.left"]}))
    ]);
    let both = evaluate(&piece("5 mm", "5 mm", "0.44", both), Options::default());
    let told = said(&both, "inside_radius");
    assert_eq!((told.len(), told[0].features.len(), told[0].level), (1, 3, Level::Hint));
    assert!(told[0].message.contains(" and 2 more bends: inside radius 5 mm is tighter"), "{}", told[0].message);
    // A hint is no fault: nothing is counted as broken.
    let hinted = evaluate(&of("S275", "5 mm", "5 mm"), Options::default());
    assert_eq!(hinted.broken().count(), 0);
    let rule = hinted.rules.iter().find(|one| one.rule == "inside_radius").expect("it is there");
    assert_eq!((rule.broken, rule.doubtful, rule.hints), (0, 0, 1));
}

#[test]
fn the_tables_of_steels_are_whole() {
    // EN 10025-2, a few of each column, from memory: thickness, across, along.
    for (steel, thickness, across, along) in [
        ("S235", 1.5, 1.6, 1.6),
        ("S235", 20.0, 40.0, 45.0),
        ("S275", 3.0, 4.0, 4.0),
        ("S275", 10.0, 20.0, 25.0),
        ("S355", 2.5, 4.0, 4.0),
        ("S355", 4.0, 6.0, 8.0),
        ("S355", 20.0, 50.0, 63.0),
    ] {
        let row = stock().cold_flanging.iter().find(|row| row.steel == steel && row.up_to == thickness);
        let row = row.unwrap_or_else(|| panic!("no row of {steel} up to {thickness}"));
        assert_eq!((row.across, row.along), (across, along), "{steel} {thickness}");
    }
    for steel in ["S235", "S275", "S355"] {
        let rows: Vec<_> = stock().cold_flanging.iter().filter(|row| row.steel == steel).collect();
        assert_eq!(rows.len(), 14, "{steel}");
        // Thicker is never tighter, along the grain never tighter than across it.
        assert!(
            rows.windows(2).all(|two| two[0].up_to < two[1].up_to
                && two[0].across <= two[1].across
                && two[0].along <= two[1].along)
        );
        assert!(rows.iter().all(|row| row.across <= row.along));
    }
    let s355 = stock().material("S355").expect("it is there");
    // Between two rows the next one serves; past the last there is none.
    assert_eq!(s355.cold_flanging(8.5).map(|row| row.across), Some(20.0));
    assert!(
        s355.cold_flanging(25.0).is_none()
            && stock().material("S690").expect("it is there").cold_flanging(8.0).is_none()
    );
    for material in &stock().materials {
        assert!(
            material.tensile_strength(3.0) >= material.tensile_strength(10.0) && material.tensile_strength(3.0) > 0.0
        );
    }
}

/// Common practice: 0.7 V at 90 deg; the leg lies on the die's shoulder at every angle.
#[test]
fn a_leg_reaches_across_the_die_that_its_radius_and_angle_want() {
    let of = |radius: &str, bent: &str, leg: f64, die: Option<&str>| {
        let mut one = angle("1.4301", "3 mm", radius, "200 mm", bent, &format!("{leg} mm"));
        one.bending.die = die.map(Into::into);
        one
    };
    for (radius, bent, least, die) in [
        // V = 8 T = 24: 16.8.
        ("3 mm", "90 deg", 16.8, None),
        // V = sqrt(2) (30 + 3) + 6 = 52.67: 36.87.
        ("30 mm", "90 deg", 36.868, None),
        // The piece's own die.
        ("3 mm", "90 deg", 28.0, Some("40 mm")),
        // 0.7 x 24 x cos 45 / cos 22.5 = 12.858.
        ("3 mm", "45 deg", 12.858, None),
        // / cos 67.5 = 31.042 from where the outsides meet, 6 tan 67.5 = 14.485 past the tangent line; past 90 deg legs are told to 6.
        ("3 mm", "135 deg", 31.042 - 14.485 + 6.0, None),
    ] {
        holds(&of(radius, bent, least + 0.01, die), "least_leg");
        breaks(&of(radius, bent, least - 0.01, die), "least_leg", "needed");
    }
}

/// Common practice: 2 T of a round hole, 3 T of a straight edge, clear of the tangent line: at 90 deg 2 T + R and 3 T + R from the
/// inside mould line, and no more where the bend is shallow or its radius large.
#[test]
fn holes_keep_clear_of_what_a_bend_deforms() {
    for (radius, bent, clear) in [
        ("3 mm", "90 deg", 6.0),
        ("3 mm", "20 deg", 6.0),
        ("30 mm", "90 deg", 6.0),
        ("30 mm", "12 deg", 6.0),
        ("3 mm", "135 deg", 6.0),
    ] {
        let of = |centre: f64| {
            let at = json!({"place": {"from": [{"edge": "up.tangent", "distance": format!("{centre} mm")}]}});
            let operations = json!([
                base("200 mm", "120 mm"),
                bend("up", "base.back", bent, "120 mm", json!({})),
                drill("bore", "base", "10 mm", at)
            ]);
            let mut one = piece("3 mm", radius, "0.44", operations);
            one.stock.material = "1.4301".into();
            one
        };
        // Radius 5 of the hole.
        holds(&of(5.0 + clear + 0.001), "hole_to_bend");
        breaks(
            &of(5.0 + clear - 0.1),
            "hole_to_bend",
            &format!("{} mm needed", steelk_core::quantity::decimal(clear, 3)),
        );
    }
    let window = |centre: f64| {
        let cut = json!({"name": "window", "do": {"cut": {"panel": "base", "width": "20 mm", "height": "10 mm",
            "place": {"from": [{"edge": "up.tangent", "distance": format!("{centre} mm")}, {"edge": "base.left", "distance": "60 mm"}]}}}});
        piece(
            "3 mm",
            "3 mm",
            "0.44",
            json!([base("200 mm", "120 mm"), bend("up", "base.back", "90 deg", "60 mm", json!({})), cut]),
        )
    };
    holds(&window(14.0), "hole_to_bend");
    breaks(&window(13.9), "hole_to_bend", "8.9 mm from its tangent line, 9 mm needed");
}

/// A shell is rolled with its holes in it.
#[test]
fn holes_in_a_roll_are_no_fault() {
    let given = json!({"radius": "150 mm", "to": "outside", "span": {"angle": "120 deg"}, "width": "80 mm", "lead_in": "40 mm"});
    let of = |places: Value| {
        let hole = drill("bore", "guard.lead-in", "12 mm", json!({"reach": "flat", "pattern": {"points": places}}));
        piece("2 mm", "2 mm", "0.4", json!([{"name": "guard", "do": {"roll": given}}, hole]))
    };
    // About the middle of the lead-in, 20: at 36, across the tangent line at 40, and two in the roll.
    let one = of(json!([{"x": "16 mm", "y": "0"}, {"x": "80 mm", "y": "0"}, {"x": "140 mm", "y": "0"}]));
    let outcome = evaluate(&one, Options::default());
    assert_eq!(outcome.figures().map(|figures| figures.holes), Some(3), "{:?}", outcome.findings);
    holds(&one, "cut_across");
    holds(&one, "hole_to_bend");
}

/// The grain runs along a sheet's length (common practice): a blank whose grain is fixed is not turned on it. 3000 x 1500 less 10 mm
/// all round is 2980 x 1480.
#[test]
fn a_blank_with_its_grain_fixed_is_not_turned_on_the_sheet() {
    let of = |width: &str, depth: &str, grain: Option<Grain>| {
        let mut one = piece("3 mm", "3 mm", "0.44", json!([base(width, depth)]));
        one.grain = grain;
        one
    };
    holds(&of("1480 mm", "2980 mm", None), "stock_sheet");
    holds(&of("1480 mm", "2980 mm", Some(Grain::AlongY)), "stock_sheet");
    breaks(&of("1480 mm", "2980 mm", Some(Grain::AlongX)), "stock_sheet", "across the grain");
    holds(&of("2980 mm", "1480 mm", Some(Grain::AlongX)), "stock_sheet");
    breaks(&of("2980 mm", "1480 mm", Some(Grain::AlongY)), "stock_sheet", "across the grain");
    breaks(&of("1530 mm", "2980 mm", Some(Grain::AlongY)), "stock_sheet", "fits no stock sheet");
}

/// Cut: 1 T up to 6 mm, above it half of T and 6 mm at least (common practice). Drilled: 0.7 d, which sets the centre 1.2 d0 in
/// (EN 1993-1-8, table 3.3).
#[test]
fn holes_keep_their_metal_at_an_edge_by_how_they_are_made() {
    let of = |thickness: &str, diameter: f64, metal: f64, make: &str| {
        let from = format!("{} mm", metal + diameter / 2.0);
        let at = json!({"make": make, "place": {"from": [{"edge": "base.left", "distance": from}]}});
        piece(
            thickness,
            "20 mm",
            "0.44",
            json!([base("200 mm", "200 mm"), drill("bore", "base", &format!("{diameter} mm"), at)]),
        )
    };
    for (thickness, diameter, least, make) in [
        ("3 mm", 14.0, 3.0, "cut"),
        ("6 mm", 14.0, 6.0, "cut"),
        ("10 mm", 14.0, 6.0, "cut"),
        ("20 mm", 14.0, 10.0, "cut"),
        // Thick drilled plate: 0.7 x 14 = 9.8, not 40.
        ("40 mm", 14.0, 9.8, "leave"),
        ("40 mm", 14.0, 9.8, "mark"),
        // Not more than a thickness, and a drill's own least.
        ("3 mm", 14.0, 3.0, "leave"),
        ("5 mm", 2.0, 2.0, "leave"),
    ] {
        holds(&of(thickness, diameter, least, make), "hole_to_edge");
        breaks(&of(thickness, diameter, least - 0.1, make), "hole_to_edge", "needed");
    }
}

/// A cut that runs out over the edge leaves no web there: it is meant to be open.
#[test]
fn a_cut_that_is_open_at_the_edge_is_no_hole_near_it() {
    let of = |from: &str| {
        let cut = json!({"name": "gap", "do": {"cut": {"panel": "base", "width": "20 mm", "height": "30 mm", "reach": "flat",
            "place": {"from": [{"edge": "base.left", "distance": from}, {"edge": "base.front", "distance": "60 mm"}]}}}});
        piece("3 mm", "3 mm", "0.44", json!([base("200 mm", "120 mm"), cut]))
    };
    holds(&of("4 mm"), "hole_to_edge");
    holds(&of("13 mm"), "hole_to_edge");
    // 30 across: at 17 it is closed, with 2 left.
    holds(&of("18 mm"), "hole_to_edge");
    breaks(&of("17 mm"), "hole_to_edge", "leaves 2 mm");
}

/// Common practice of galvanising: air out at one end, zinc in at the other.
#[test]
fn a_tube_that_is_dipped_has_a_hole_at_each_end() {
    let of = |material: &str, holes: &[&str]| {
        let mut operations = vec![
            json!({"name": "a", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}}),
            json!({"name": "bar", "do": {"member": {"section": "SHS 50x50x3", "lines": ["a.1"]}}}),
        ];
        operations.extend(holes.iter().enumerate().map(|(at, along)| {
            json!({"name": format!("h{at}"), "do": {"bore": {"of": ["bar"], "face": "top", "diameter": "10 mm", "at": along}}})
        }));
        let document = json!({
            "steelk": 1, "kind": "frame", "mark": "F-1", "title": "vents", "quantity": 1, "unit": "mm",
            "stock": {"material": material}, "operations": operations,
        });
        Piece::read(document.to_string().as_bytes()).expect("a sound document")
    };
    breaks(&of("DX51D", &[]), "vented", "no hole for air and zinc");
    breaks(&of("DX51D", &["30 mm"]), "vented", "no hole towards its finish");
    breaks(&of("DX51D", &["770 mm", "700 mm"]), "vented", "no hole towards its start");
    holds(&of("DX51D", &["30 mm", "770 mm"]), "vented");
    holds(&of("S275", &[]), "vented");
}

/// What breaks for a reason is told with its reason: every breach names what can be shown.
#[test]
fn what_breaks_names_what_can_be_shown() {
    let all: Vec<Value> = vec![
        json!([base("200 mm", "120 mm"), bend("up", "base.back", "90 deg", "10 mm", json!({"radius": "1 mm"}))]),
        json!([
            base("200 mm", "120 mm"),
            drill("bore", "base", "10 mm", json!({"place": {"from": [{"edge": "base.left", "distance": "6 mm"}]}}))
        ]),
    ];
    for operations in all {
        let outcome = evaluate(&piece("3 mm", "3 mm", "0.44", operations), Options::default());
        assert!(outcome.broken().count() > 0);
        let mut known: Vec<String> = outcome.mesh.features.clone();
        let flat = &part(&outcome).flat;
        known.extend(flat.bends.iter().map(|bend| bend.name.clone()));
        known.extend(flat.holes.iter().map(|hole| hole.name.clone()));
        known.extend(flat.edges.iter().map(|edge| edge.name.clone()));
        for breach in &outcome.breaches {
            for feature in &breach.features {
                assert!(known.contains(feature), "{}: {feature} is nowhere", breach.rule);
            }
        }
    }
}

/// As much as a hole leaves to an edge: 1 T to 6 mm, above it half of T and 6 mm at least (common practice), round, straight and aslant,
/// in one operation and in two, across a bend.
#[test]
fn webs_between_openings_hold_to_the_last_tenth() {
    let pair = |thickness: &str, second: Value| {
        let first = drill(
            "bore",
            "base",
            "20 mm",
            json!({"place": {"from": [{"edge": "base.left", "distance": "60 mm"}, {"edge": "base.front", "distance": "60 mm"}]}}),
        );
        piece(thickness, "20 mm", "0.44", json!([base("200 mm", "160 mm"), first, second]))
    };
    let beside = |x: f64, y: f64| {
        drill(
            "next",
            "base",
            "10 mm",
            json!({"place": {"hole": {"hole": "bore", "x": format!("{x} mm"), "y": format!("{y} mm")}}}),
        )
    };
    for (thickness, wanted) in [("3 mm", 3.0), ("6 mm", 6.0), ("10 mm", 6.0), ("20 mm", 10.0)] {
        // From centre to centre: radii of 10 and 5, and the web; aslant by 3:4.
        let apart = 15.0 + wanted;
        holds(&pair(thickness, beside(apart, 0.0)), "web_between");
        breaks(&pair(thickness, beside(apart - 0.1, 0.0)), "web_between", "needed");
        holds(&pair(thickness, beside(-0.6 * apart, 0.8 * apart)), "web_between");
        breaks(&pair(thickness, beside(-0.6 * (apart - 0.1), 0.8 * (apart - 0.1))), "web_between", "needed");
    }
    let window = |from: f64| {
        json!({"name": "window", "do": {"cut": {"panel": "base", "width": "20 mm", "height": "20 mm",
        "place": {"from": [{"edge": "base.left", "distance": format!("{from} mm")}, {"edge": "base.front", "distance": "60 mm"}]}}}})
    };
    // The bore ends at 70, the window begins 10 before its centre.
    holds(&pair("3 mm", window(83.0)), "web_between");
    breaks(&pair("3 mm", window(82.9)), "web_between", "2.9 mm between bore and window; 3 mm needed");
    // A row tells its thinnest web once, with how many there are.
    let row = |spacing: &str| {
        piece(
            "3 mm",
            "3 mm",
            "0.44",
            json!([
                base("200 mm", "160 mm"),
                drill(
                    "row",
                    "base",
                    "10 mm",
                    json!({"repeat": [{"count": "4", "spacing": spacing}, {"count": "3", "spacing": "30 mm"}]})
                )
            ]),
        )
    };
    holds(&row("13 mm"), "web_between");
    let outcome = evaluate(&row("12.9 mm"), Options::default());
    let found = said(&outcome, "web_between");
    assert_eq!(found.len(), 1);
    // Three webs in each of three rows.
    assert!(found[0].message.ends_with("3 mm needed, and so in 8 places more"), "{}", found[0].message);
}

/// The head lies whole on flat metal of its own face (common practice).
#[test]
fn heads_have_room() {
    let sink = |name: &str, more: Value| {
        let mut given = json!({"countersink": {"diameter": "20 mm"}});
        for (key, value) in more.as_object().expect("an object") {
            given[key] = value.clone();
        }
        drill(name, "base", "8 mm", given)
    };
    let of = |holes: Vec<Value>| {
        let mut all = vec![base("200 mm", "120 mm"), bend("up", "base.back", "90 deg", "90 mm", json!({}))];
        all.extend(holes);
        piece("8 mm", "12 mm", "0.44", Value::Array(all))
    };
    let from =
        |edge: &str, distance: f64| json!({"place": {"from": [{"edge": edge, "distance": format!("{distance} mm")}]}});
    holds(&of(vec![sink("one", from("base.left", 10.0))]), "head_room");
    breaks(&of(vec![sink("one", from("base.left", 9.9))]), "head_room", "runs out over the edge at base.left");
    holds(&of(vec![sink("one", from("up.tangent", 10.0))]), "head_room");
    breaks(&of(vec![sink("one", from("up.tangent", 9.9))]), "head_room", "runs into the bend up");
    let two = |apart: f64, face: &str| {
        let place = json!({"hole": {"hole": "one", "x": format!("{apart} mm")}});
        of(vec![sink("one", json!({})), sink("two", json!({"place": place, "face": face}))])
    };
    holds(&two(20.0, "top"), "head_room");
    breaks(&two(19.9, "top"), "head_room", "runs into two");
    // From the other face a head meets the hole only: 10 and 4.
    holds(&two(14.0, "bottom"), "head_room");
    breaks(&two(13.9, "bottom"), "head_room", "runs into");
    let plain = |apart: f64| {
        let place = json!({"place": {"hole": {"hole": "one", "x": format!("{apart} mm")}}});
        of(vec![sink("one", json!({})), drill("two", "base", "6 mm", place)])
    };
    holds(&plain(13.0), "head_room");
    breaks(&plain(12.9), "head_room", "runs into two");
}

/// A fifth of the sheet is left straight (common practice): 90 deg from 8 to 8 + 2 x 0.8 T.
#[test]
fn a_countersink_leaves_no_knife_edge() {
    let of = |head: f64| {
        let sink = json!({"countersink": {"diameter": format!("{head} mm"), "angle": "90 deg"}});
        piece("5 mm", "5 mm", "0.44", json!([base("200 mm", "120 mm"), drill("sink", "base", "8 mm", sink)]))
    };
    holds(&of(16.0), "knife_edge");
    breaks(&of(16.2), "knife_edge", "1 mm needed");
    // A counterbore is no cone.
    let bored = json!({"counterbore": {"diameter": "16 mm", "depth": "4.5 mm"}});
    holds(
        &piece("5 mm", "5 mm", "0.44", json!([base("200 mm", "120 mm"), drill("bolt", "base", "8 mm", bored)])),
        "knife_edge",
    );
}

fn frame(operations: Vec<Value>) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "edges", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

fn bar(section: &str, length: f64, more: Vec<Value>) -> Piece {
    let mut all = vec![
        json!({"name": "a", "do": {"path": {"start": {}, "legs": [{"by": {"x": format!("{length} mm")}}]}}}),
        json!({"name": "bar", "do": {"member": {"section": section, "lines": ["a.1"]}}}),
    ];
    all.extend(more);
    frame(all)
}

/// Mitre saws reach 60 deg from square; a short point under about 30 mm cannot be held (common practice).
#[test]
fn the_saw_turns_and_holds_so_far() {
    let cut = |at: &str, angle: &str| json!({"name": format!("cut-{at}"), "do": {"end": {"of": ["bar"], "at": at, "how": {"angle": {"angle": angle}}}}});
    for at in ["start", "finish"] {
        for sign in ["", "-"] {
            holds(&bar("SHS 50x50x3", 600.0, vec![cut(at, &format!("{sign}60 deg"))]), "saw_angle");
            breaks(
                &bar("SHS 50x50x3", 600.0, vec![cut(at, &format!("{sign}60.1 deg"))]),
                "saw_angle",
                &format!("the {at} of"),
            );
        }
    }
    holds(&bar("SHS 50x50x3", 30.0, vec![]), "short_point");
    breaks(&bar("SHS 50x50x3", 29.9, vec![]), "short_point", "29.9 mm from short point to short point");
    // The short side counts: a mitre at each end of 50 takes half of the section off each.
    let mitred = |length: f64| bar("SHS 50x50x3", length, vec![cut("start", "45 deg"), cut("finish", "45 deg")]);
    let short = |piece: &Piece| {
        evaluate(piece, Options::default()).frame().expect("a frame").made.frame.members[0].short_length()
    };
    let taken = 200.0 - short(&mitred(200.0));
    holds(&mitred(30.0 + taken), "short_point");
    breaks(&mitred(29.9 + taken), "short_point", "29.9 mm");
}

/// EN 1993-1-8, table 3.3 (from memory): 1.2 d0 from the centre to an end and an edge. EN 10219-2: the corner of SHS 50x50x3 is
/// 2 T = 6 outside, so its flat is 19 each side of the middle.
#[test]
fn bores_keep_clear_of_ends_edges_and_corners() {
    let bore = |more: Value| {
        let mut given = json!({"of": ["bar"], "face": "top", "diameter": "10 mm", "at": "300 mm"});
        for (key, value) in more.as_object().expect("an object") {
            given[key] = value.clone();
        }
        vec![json!({"name": "bolt", "do": {"bore": given}})]
    };
    for (section, face) in [("SHS 50x50x3", "top"), ("FL 100x10", "left"), ("FL 100x10", "right")] {
        let at =
            |at: &str, purpose: &str| bar(section, 600.0, bore(json!({"at": at, "face": face, "purpose": purpose})));
        holds(&at("12 mm", "bolt"), "bore_room");
        breaks(&at("11.9 mm", "bolt"), "bore_room", "is near the start");
        holds(&at("-12 mm", "bolt"), "bore_room");
        breaks(&at("-11.9 mm", "bolt"), "bore_room", "is near the finish");
        // A vent stands where the air is: nothing bears on it.
        holds(&at("8 mm", "vent"), "bore_room");
    }
    // A flat of 100: 38 off its middle is 12 from its edge, either side.
    for sign in ["", "-"] {
        let off = |off: &str| bar("FL 100x10", 600.0, bore(json!({"off": format!("{sign}{off} mm"), "face": "left"})));
        holds(&off("38"), "bore_room");
        breaks(&off("38.1"), "bore_room", "is near the edge");
    }
    for sign in ["", "-"] {
        holds(&bar("SHS 50x50x3", 600.0, bore(json!({"off": format!("{sign}14 mm")}))), "bore_room");
        breaks(
            &bar("SHS 50x50x3", 600.0, bore(json!({"off": format!("{sign}14.1 mm")}))),
            "bore_room",
            "corner's rounding",
        );
        for one_wall in [true, false] {
            for face in ["top", "bottom", "left", "right"] {
                let given =
                    |off: &str| bore(json!({"off": format!("{sign}{off} mm"), "face": face, "one_wall": one_wall}));
                holds(&bar("RHS 80x40x3", 600.0, given("9")), "bore_room");
            }
        }
    }
    // A round tube has no corner, and no flat to keep to.
    holds(&bar("CHS 48.3x3.2", 600.0, bore(json!({}))), "bore_room");
}

/// Stainless and carbon steel want a filler of their own; aluminium and steel get no weld at all (common practice).
#[test]
fn steels_that_are_unlike_ask_for_their_filler() {
    let of = |one: &str, two: &str| {
        frame(vec![
            json!({"name": "a", "do": {"path": {"start": {}, "legs": [{"by": {"x": "500 mm"}}, {"by": {"y": "300 mm"}}]}}}),
            json!({"name": "bar", "do": {"member": {"section": "SHS 50x50x3", "lines": ["a.1"], "material": one}}}),
            json!({"name": "post", "do": {"member": {"section": "SHS 50x50x3", "lines": ["a.2"], "material": two}}}),
            json!({"name": "meet", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}}),
        ])
    };
    for (one, two) in
        [("S275", "S355"), ("1.4301", "1.4401"), ("S275", "DX51D"), ("5052-H32", "6061-T6"), ("S275", "5052-H32")]
    {
        holds(&of(one, two), "filler");
    }
    for (one, two) in [("1.4301", "S275"), ("S355", "1.4401"), ("DX51D", "1.4301")] {
        let outcome = evaluate(&of(one, two), Options::default());
        let found = said(&outcome, "filler");
        assert_eq!(found.iter().map(|one| one.level).collect::<Vec<_>>(), [Level::Doubtful]);
        assert!(found[0].way_out.contains("309L") && outcome.broken().all(|one| one.rule != "filler"));
    }
    let apart = evaluate(&of("S275", "5052-H32"), Options::default());
    assert!(apart.frame().expect("a frame").welds.is_empty());
    let asked = said(&apart, "unlike_metals");
    assert!(asked.len() == 1 && asked[0].level == Level::Doubtful, "{asked:?}");
    assert!(asked[0].message.contains("mild steel is not welded to aluminium"), "{asked:?}");
    // Timber on steel is bolted every day: the finding says that it gets no weld, and no rule asks.
    holds(&of("S275", "Pine C24"), "unlike_metals");
}

/// What people forget: caught where it was, quiet where a part is simply so. Hints, never faults.
#[test]
fn one_side_that_was_forgotten_is_told() {
    let four = || {
        drill(
            "bolt",
            "base",
            "9 mm",
            json!({"repeat": [{"count": "2", "spacing": "80 mm"}, {"count": "2", "spacing": "40 mm"}]}),
        )
    };
    let at = |name: &str, diameter: &str, x: &str, y: &str| {
        drill(
            name,
            "base",
            diameter,
            json!({"place": {"from": [{"edge": "base.left", "distance": x}, {"edge": "base.front", "distance": y}]}}),
        )
    };
    let of = |holes: Vec<Value>| {
        let mut all = vec![base("120 mm", "80 mm")];
        all.extend(holes);
        piece("3 mm", "3 mm", "0.44", Value::Array(all))
    };
    let told = |piece: &Piece| {
        let outcome = evaluate(piece, Options::default());
        let found = said(&outcome, "one_side");
        assert!(found.iter().all(|one| one.level == Level::Hint));
        found.iter().map(|one| one.message.clone()).collect::<Vec<_>>()
    };
    assert_eq!(
        told(&of(vec![four(), at("pin", "5 mm", "30 mm", "40 mm")])),
        ["the blank is alike left and right but for pin"]
    );
    assert_eq!(
        told(&of(vec![four(), at("pin", "5 mm", "60 mm", "20 mm")])),
        ["the blank is alike front and back but for pin"]
    );
    // Made on both sides, on the middle line, or with a hole of another size for a twin.
    assert!(
        told(&of(vec![four(), at("pin", "5 mm", "30 mm", "40 mm"), at("pin-2", "5 mm", "90 mm", "40 mm")])).is_empty()
    );
    assert!(told(&of(vec![four(), at("pin", "5 mm", "60 mm", "40 mm")])).is_empty());
    let unlike = told(&of(vec![four(), at("pin", "5 mm", "30 mm", "40 mm"), at("pin-2", "6 mm", "90 mm", "40 mm")]));
    assert!(unlike.is_empty(), "two of six have none: {unlike:?}");
    // Too few to say what was meant.
    assert!(told(&of(vec![at("a", "9 mm", "20 mm", "20 mm"), at("b", "9 mm", "20 mm", "60 mm")])).is_empty());
    assert!(told(&of(vec![at("a", "9 mm", "20 mm", "20 mm")])).is_empty());
}

#[test]
fn a_row_that_stops_short_is_told() {
    let told = |along_x: bool, first: f64, count: u32, spacing: f64| {
        // It runs along the first edge that places it, from the place on.
        let (edge, other) = if along_x { ("base.front", "base.left") } else { ("base.left", "base.front") };
        let repeat = json!([{"count": count.to_string(), "spacing": format!("{spacing} mm")}]);
        let begins = format!("{first} mm");
        let place = json!({"from": [{"edge": edge, "distance": "50 mm"}, {"edge": other, "distance": begins}]});
        let operations =
            json!([base("200 mm", "200 mm"), drill("row", "base", "6 mm", json!({"place": place, "repeat": repeat}))]);
        let outcome = evaluate(&piece("3 mm", "3 mm", "0.44", operations), Options::default());
        let found = said(&outcome, "short_row");
        assert!(found.iter().all(|one| one.level == Level::Hint));
        found.len()
    };
    for along_x in [true, false] {
        // From 20 by 30: five end at 140, 60 from the edge, and 60 - 20 takes one more; six end at 170.
        assert_eq!(told(along_x, 20.0, 5, 30.0), 1);
        assert_eq!(told(along_x, 20.0, 6, 30.0), 0);
        // The other way about.
        assert_eq!(told(along_x, 60.0, 5, 30.0), 1);
        // 180 - 4 s - 20 >= s up to 32.
        assert_eq!(told(along_x, 20.0, 5, 32.0), 1);
        assert_eq!(told(along_x, 20.0, 5, 32.1), 0);
        // In the middle; two are no row.
        assert_eq!(told(along_x, 85.0, 3, 15.0), 0);
        assert_eq!(told(along_x, 20.0, 2, 30.0), 0);
    }
}

#[test]
fn a_die_that_gives_another_radius_is_told() {
    let told = |material: &str, radius: &str, die: Option<&str>| {
        let mut one = angle(material, "2 mm", radius, "200 mm", "90 deg", "60 mm");
        one.bending.die = die.map(Into::into);
        let outcome = evaluate(&one, Options::default());
        let found = said(&outcome, "tool_radius");
        assert!(found.iter().all(|one| one.level == Level::Hint));
        found.len()
    };
    // V = 24: about 4 in mild steel, 4.8 in stainless, 3 in aluminium; three quarters of it is near enough.
    assert_eq!([told("S275", "3 mm", Some("24 mm")), told("S275", "2.9 mm", Some("24 mm"))], [0, 1]);
    assert_eq!([told("1.4301", "3.6 mm", Some("24 mm")), told("1.4301", "3.5 mm", Some("24 mm"))], [0, 1]);
    assert_eq!([told("5052-H32", "2.25 mm", Some("24 mm")), told("5052-H32", "2.2 mm", Some("24 mm"))], [0, 1]);
    // Where no die is named the shop takes one that gives it.
    assert_eq!(told("S275", "2 mm", None), 0);
}

/// Round holes anywhere on a plate, some with heads, against plain arithmetic between centres that shares nothing with the rules.
#[test]
fn random_plates_are_told_as_plain_arithmetic_has_them() {
    let (mut webs, mut edges, mut heads, mut sound) = (0, 0, 0, 0);
    for seed in 0..trials::cases(200) {
        let mut next = seed.wrapping_mul(0x9e37_79b9_7f4a_7c15) | 1;
        let mut random = |low: f64, high: f64| {
            next = next.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            // To a hundredth, as drawings say it: many are just on a limit.
            ((low + (high - low) * (next >> 11) as f64 / (1u64 << 53) as f64) * 100.0).round() / 100.0
        };
        let thickness = [2.0, 3.0, 5.0, 6.0, 8.0, 12.0][(seed % 6) as usize];
        let (width, depth) = (random(60.0, 160.0), random(60.0, 120.0));
        let inches = seed % 5 == 0;
        // x, y, radius, radius of the head.
        let holes: Vec<[f64; 4]> = (0..2 + seed % 5)
            .map(|_| {
                let radius = random(2.0, 8.0);
                let head = if random(0.0, 3.0) < 1.0 { radius + random(0.5, 0.5 + 0.4 * thickness) } else { 0.0 };
                [random(radius, width - radius), random(radius, depth - radius), radius, head]
            })
            .collect();
        let say = |value: f64| if inches { format!("{} in", value / 25.4) } else { format!("{value} mm") };
        let mut operations = vec![base(&say(width), &say(depth))];
        operations.extend(holes.iter().enumerate().map(|(at, [x, y, radius, head])| {
            let place = json!({"from": [{"edge": "base.left", "distance": say(*x)}, {"edge": "base.front", "distance": say(*y)}]});
            let mut more = json!({"place": place});
            if *head > 0.0 {
                more["countersink"] = json!({"diameter": say(2.0 * head), "angle": "90 deg"});
            }
            drill(&format!("h{at}"), "base", &say(2.0 * radius), more)
        }));
        let outcome =
            evaluate(&piece(&format!("{thickness} mm"), "20 mm", "0.44", Value::Array(operations)), Options::default());
        if outcome.findings.iter().any(|one| one.severity == steelk_core::finding::Severity::Error) {
            // Holes that meet or run off the plate are refused.
            continue;
        }
        sound += 1;
        let least = if thickness > 6.0 { f64::max(thickness / 2.0, 6.0) } else { thickness };
        let apart = |a: &[f64; 4], b: &[f64; 4]| (a[0] - b[0]).hypot(a[1] - b[1]);
        let to_edge = |hole: &[f64; 4]| hole[0].min(width - hole[0]).min(hole[1]).min(depth - hole[1]);
        // Nearer to the limit than rounding tells.
        let limit = 1e-5;
        let pairs = || holes.iter().enumerate().flat_map(|(at, a)| holes[..at].iter().map(move |b| (a, b)));
        let mut close = false;
        let mut count = |values: &mut dyn Iterator<Item = f64>| {
            values
                .filter(|off| {
                    close |= off.abs() < limit;
                    *off < 0.0
                })
                .count()
        };
        let web = count(&mut pairs().map(|(a, b)| apart(a, b) - a[2] - b[2] - least));
        let edge = count(&mut holes.iter().map(|hole| to_edge(hole) - hole[2] - least));
        let off = count(&mut holes.iter().filter(|hole| hole[3] > 0.0).map(|hole| to_edge(hole) - hole[3]));
        let into = count(&mut pairs().flat_map(|(a, b)| {
            let between = apart(a, b);
            match (a[3] > 0.0, b[3] > 0.0) {
                (true, true) => Some(between - a[3] - b[3]),
                (true, false) => Some(between - a[3] - b[2]),
                (false, true) => Some(between - b[3] - a[2]),
                (false, false) => None,
            }
        }));
        if close {
            continue;
        }
        let found = |rule: &str| outcome.breaches.iter().filter(|one| one.rule == rule).count();
        assert_eq!(found("web_between"), web, "{seed}: {holes:?} in {thickness}");
        assert_eq!(found("hole_to_edge"), edge, "{seed}: {holes:?} in {width} x {depth} x {thickness}");
        assert_eq!(found("head_room"), off + into, "{seed}: {holes:?} in {width} x {depth}");
        webs += web;
        edges += edge;
        heads += off + into;
    }
    println!("{sound} plates: {webs} webs, {edges} edges, {heads} heads");
    assert!(sound > 60 && webs > 10 && edges > 20 && heads > 5, "{sound}: {webs} {edges} {heads}");
}

/// A perforation that is countersunk too wide throughout: all are counted, the first are told, and the answer is there at once.
#[test]
fn hundreds_of_faults_are_counted_and_not_all_told() {
    let fill = json!({"countersink": {"diameter": "7 mm", "angle": "90 deg"},
        "pattern": {"fill": {"rows": "square", "pitch": "6.5 mm", "margin": "8 mm"}}});
    let outcome = evaluate(
        &piece("3 mm", "3 mm", "0.44", json!([base("90 mm", "90 mm"), drill("perf", "base", "3 mm", fill)])),
        Options::default(),
    );
    let (told, rule) = (said(&outcome, "head_room").len(), outcome.rules.iter().find(|one| one.rule == "head_room"));
    let holes = outcome.figures().expect("it is built").holes;
    let counted = rule.expect("it is there").broken;
    // Each head meets its neighbours across and up: about two a hole, less the last column and row.
    assert!(told == 200 && counted > holes && counted < 2 * holes, "{told} told, {counted} counted of {holes}");
}

/// Three full threads at the very least, 1 d in steel and 1.5 d in aluminium for all of the screw's strength (common practice). Pitches
/// of ISO 261: M6 1, M10 1.5.
#[test]
fn threads_are_as_long_as_they_have_to_be() {
    let levels = |material: &str, thickness: &str, tapped: Value| {
        let tap = json!({"name": "tap", "do": {"drill": tapped}});
        let mut one = piece(thickness, "40 mm", "0.44", json!([base("200 mm", "120 mm"), tap]));
        one.stock.material = material.into();
        let outcome = evaluate(&one, Options::default());
        said(&outcome, "thread_holds").iter().map(|one| one.level).collect::<Vec<_>>()
    };
    let through = |thread: &str| json!({"panel": "base", "tapped": {"thread": thread}});
    assert_eq!(levels("S275", "2.9 mm", through("M6")), [Level::Broken]);
    assert_eq!(levels("S275", "3 mm", through("M6")), [Level::Hint]);
    assert_eq!(levels("S275", "5.9 mm", through("M6")), [Level::Hint]);
    assert_eq!(levels("S275", "6 mm", through("M6")), []);
    assert_eq!(levels("5052-H32", "8.9 mm", through("M6")), [Level::Hint]);
    assert_eq!(levels("5052-H32", "9 mm", through("M6")), []);
    // Blind: what is tapped counts, not the sheet; a head takes its depth off.
    let blind = |depth: &str| json!({"panel": "base", "tapped": {"thread": "M10", "depth": depth}, "depth": "18 mm"});
    assert_eq!(levels("S275", "25 mm", blind("10 mm")), []);
    assert_eq!(levels("S275", "25 mm", blind("9.9 mm")), [Level::Hint]);
    assert_eq!(levels("S275", "25 mm", blind("4.4 mm")), [Level::Broken]);
    let sunk =
        json!({"panel": "base", "tapped": {"thread": "M10"}, "counterbore": {"diameter": "18 mm", "depth": "3 mm"}});
    assert_eq!(levels("S275", "12.9 mm", sunk.clone()), [Level::Hint]);
    assert_eq!(levels("S275", "13 mm", sunk), []);
}
