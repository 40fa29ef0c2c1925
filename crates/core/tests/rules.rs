//! Each shop rule broken on purpose and mended, refusals with their words, and measures that must not be fooled.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{OperationState, Options, Outcome, Piece, evaluate};
use steelk_core::proof::{FRAME_RULES, SHEET_RULES, ToleranceClass, Verdict, WhenBroken, angular, linear, when_broken};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::{Family, Grain, stock};
use steelk_testing::*;

fn run(operations: Value) -> Outcome {
    evaluate(&piece("3 mm", "3 mm", "0.44", operations), Options::default())
}

fn broken(outcome: &Outcome) -> Vec<&str> {
    outcome.broken().map(|one| one.rule.as_str()).collect()
}

/// The words of the one error, with its operation and field.
#[track_caller]
fn refusal(outcome: &Outcome) -> (String, String, String) {
    let errors: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    assert_eq!(errors.len(), 1, "{errors:#?}");
    let one = errors[0];
    assert!(!one.way_out.is_empty());
    (one.operation.clone().unwrap_or_default(), one.field.clone().unwrap_or_default(), one.message.clone())
}

fn bracket(more: Vec<Value>) -> Value {
    let mut all = vec![base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "60 mm", json!({}))];
    all.extend(more);
    Value::Array(all)
}

#[test]
fn every_rule_is_broken_by_something_and_names_it() {
    let hole = |distance: &str| {
        drill("bore", "up", "20 mm", json!({"place": {"from": [{"edge": "up.mould-outside", "distance": distance}]}}))
    };
    let tabs = |extra: Value| json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "60 mm", extra)]);
    let cases: Vec<(&str, Value, &str)> = vec![
        ("inside_radius", tabs(json!({"radius": "1 mm"})), "inside radius 1 mm is tighter than 3 mm"),
        // From the inside mould line: 21 - 10 - 3 = 8 mm, and 2T + R = 9 mm.
        ("hole_to_bend", bracket(vec![hole("21 mm")]), "1 mm too near the bend up"),
        (
            "hole_to_edge",
            bracket(vec![drill(
                "bore",
                "base",
                "20 mm",
                json!({"place": {"from": [{"edge": "base.left", "distance": "12 mm"}]}}),
            )]),
            "bore leaves 2 mm of material at base.left; 3 mm needed",
        ),
        // 0.7 x 8 x 3 = 16.8 mm.
        (
            "least_leg",
            json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "15 mm", json!({}))]),
            "16.8 mm needed",
        ),
        // Point of a 2 mm drill: 1 / tan 59 deg = 0.6 mm; 3 - 1.8 - 0.6.
        (
            "blind_wall",
            bracket(vec![drill("pin", "base", "2 mm", json!({"depth": "1.8 mm"}))]),
            "pin leaves a wall of 0.599",
        ),
        // A dimple of 20 whose side lies 12 - 10 from the edge.
        (
            "form_room",
            bracket(vec![json!({"name": "pip", "do": {"form": {"panel": "base",
                "shape": {"dimple": {"diameter": "20 mm", "height": "3 mm"}},
                "place": {"from": [{"edge": "base.left", "distance": "12 mm"}]}}}})]),
            "the form pip lies 2 mm from the edge base.left; 9 mm needed",
        ),
        (
            "form_height",
            bracket(vec![json!({"name": "bead", "do": {"form": {"panel": "base",
                "shape": {"bead": {"length": "60 mm", "width": "30 mm", "height": "10 mm"}}}}})]),
            "the bead bead is 10 mm high; 9 mm (3T) at the most",
        ),
        // 2 mm drills with points of 0.6 mm from both faces of 3 mm: 3 - (0.6 + 0.6) - 2 x 0.6 leaves 0.6.
        (
            "opposite_holes",
            bracket(vec![
                drill("pin", "base", "2 mm", json!({"depth": "0.6 mm"})),
                drill("foot", "base", "2 mm", json!({"depth": "0.6 mm", "face": "bottom"})),
            ]),
            "foot leaves 0.598 mm to pin from the other face; 1.5 mm needed",
        ),
        ("relief_missing", tabs(json!({"set_in": {"left": "20 mm"}})), "ends against material of base at its left end"),
        // Two legs of 50 in a corner of a 60 wide gap overlap in the flat.
        (
            "flat_overlap",
            json!([
                base("200 mm", "200 mm"),
                bend("a", "base.back", "90 deg", "60 mm", json!({})),
                bend("b", "a.left", "90 deg", "60 mm", json!({"position": "bend_outside"})),
                bend("c", "base.left", "90 deg", "60 mm", json!({"set_in": {"back": "10 mm"}})),
                bend("d", "c.back", "90 deg", "60 mm", json!({"position": "bend_outside"}))
            ]),
            "overlap in the flat",
        ),
        // A channel closed by a lip longer than it is wide.
        (
            "folded_clash",
            json!([
                base("120 mm", "60 mm"),
                bend("a", "base.back", "90 deg", "60 mm", json!({})),
                bend("b", "base.front", "90 deg", "60 mm", json!({})),
                bend("lip", "a.end", "90 deg", "80 mm", json!({}))
            ]),
            "run into each other",
        ),
        // A window whose back edge lies 2 past the second tangent line of a bend in 3 mm sheet.
        (
            "cut_across",
            bracket(vec![
                json!({"name": "window", "do": {"cut": {"panel": "base", "width": "20 mm", "height": "30 mm",
                "reach": "flat", "place": {"from": [{"edge": "up.tangent", "distance": "6 mm"}, {"edge": "base.left", "distance": "60 mm"}]}}}}),
            ]),
            "window crosses the bend up and ends",
        ),
        (
            "hem",
            json!([base("120 mm", "80 mm"), {"name": "hem", "do": {"hem": {"edge": "base.back", "style": {"closed": {"length": "10 mm"}}}}}]),
            "a hem of 10 mm is too short for the tool; 12 mm needed",
        ),
        ("grain", tabs(json!({})), "runs 0 deg from the grain"),
        (
            "sharp_corner",
            json!([
                base("120 mm", "80 mm"),
                bend("up", "base.back", "90 deg", "60 mm", json!({"also": ["base.left"]}))
            ]),
            "meet in a sharp corner with no relief",
        ),
        // 40 between the sides, sides of 60: whichever comes last, the other leans over the punch. Inside sizes 34 and 57:
        // (34 - 57) cos 45 deg = -16.26.
        (
            "lip_traps",
            json!([
                base("120 mm", "40 mm"),
                bend("a", "base.back", "90 deg", "60 mm", json!({})),
                bend("b", "base.front", "90 deg", "60 mm", json!({}))
            ]),
            "comes to -16.26",
        ),
        // A box section 60 x 60 with 4 left open.
        (
            "closed_box",
            json!([
                base("120 mm", "60 mm"),
                bend("a", "base.back", "90 deg", "60 mm", json!({})),
                bend("b", "base.front", "90 deg", "56 mm", json!({})),
                bend("lid", "a.end", "90 deg", "57 mm", json!({}))
            ]),
            "close round the punch",
        ),
        (
            "part_on_brake",
            json!([base("3200 mm", "80 mm"), bend("up", "base.back", "90 deg", "60 mm", json!({}))]),
            "3200 mm long",
        ),
        ("stock_sheet", json!([base("3100 mm", "1600 mm")]), "fits no stock sheet"),
        // Holes of 20 at 22: a web of 2 in 3 mm sheet.
        (
            "web_between",
            bracket(vec![drill("row", "base", "20 mm", json!({"repeat": [{"count": "3", "spacing": "22 mm"}]}))]),
            "2 mm between row.1 and row.2; 3 mm needed, and so in 1 places more",
        ),
        (
            "head_room",
            bracket(vec![drill(
                "sink",
                "base",
                "5 mm",
                json!({"countersink": {"diameter": "9 mm"}, "place": {"from": [{"edge": "base.left", "distance": "4 mm"}]}}),
            )]),
            "the head of sink, 9 mm wide, runs out over the edge at base.left",
        ),
        // M12 x 1.75: three turns are 5.25.
        (
            "thread_holds",
            bracket(vec![json!({"name": "tap", "do": {"drill": {"panel": "base", "tapped": {"thread": "M12"}}}})]),
            "tap has 3 mm of M12 thread, 1.7 turns; 5.25 mm needed",
        ),
        // V/6 of 40 is 6.67.
        (
            "tool_radius",
            tabs(json!({})),
            "a die of 40 mm gives an inside radius of about 6.667 mm, and 3 mm is asked for",
        ),
        (
            "one_side",
            json!([
                base("120 mm", "80 mm"),
                drill(
                    "bolt",
                    "base",
                    "9 mm",
                    json!({"repeat": [{"count": "2", "spacing": "80 mm"}, {"count": "2", "spacing": "40 mm"}]})
                ),
                drill(
                    "pin",
                    "base",
                    "5 mm",
                    json!({"place": {"from": [{"edge": "base.left", "distance": "30 mm"}, {"edge": "base.front", "distance": "40 mm"}]}})
                ),
            ]),
            "the blank is alike left and right but for pin",
        ),
        // 20 from the left, three at 25: 70; 50 to the right edge, and 50 - 20 takes one more.
        (
            "short_row",
            json!([
                base("120 mm", "80 mm"),
                drill(
                    "row",
                    "base",
                    "9 mm",
                    json!({"place": {"from": [{"edge": "base.front", "distance": "40 mm"}, {"edge": "base.left", "distance": "20 mm"}]},
                    "repeat": [{"count": "3", "spacing": "25 mm"}]})
                ),
            ]),
            "row ends 20 mm from one edge of base and 50 mm from the other: 1 more would go in at 25 mm",
        ),
        // 90 deg from 10 to 5: 2.5 deep of 3.
        (
            "knife_edge",
            bracket(vec![drill(
                "sink",
                "base",
                "5 mm",
                json!({"countersink": {"diameter": "10 mm", "angle": "90 deg"}}),
            )]),
            "countersunk 2.5 mm deep and leaves 0.5 mm of 3 mm; 0.6 mm needed",
        ),
        // 1 T.
        (
            "least_hole",
            bracket(vec![drill("pin", "base", "2.9 mm", json!({"make": "punch"}))]),
            "the punch wants 3 mm at least",
        ),
        // 2.5 mm and the point of a drill of 4: 2 / tan 59 deg = 1.202 mm.
        (
            "breaks_out",
            bracket(vec![drill("blind", "base", "4 mm", json!({"depth": "2.5 mm"}))]),
            "the point of blind reaches 3.702 mm down and breaks out",
        ),
        // The wall's leg is 60 outside; its tangent line is R + T = 6 from there, so 46 deep leave 8 of 54.
        (
            "notch_to_bend",
            bracket(vec![
                json!({"name": "nick", "do": {"notch": {"edge": "up.end", "shape": {"square": {"width": "20 mm", "depth": "46 mm"}}}}}),
            ]),
            "8 mm from the tangent line of the bend up; 9 mm needed",
        ),
        // 15 and 2 x 45 make 105 of 120: 15 and 16 when it is 44.5.
        (
            "uneven_row",
            json!([
                base("120 mm", "80 mm"),
                drill(
                    "row",
                    "base",
                    "9 mm",
                    json!({"place": {"from": [{"edge": "base.front", "distance": "40 mm"}, {"edge": "base.left", "distance": "15 mm"}]},
                    "repeat": [{"count": "3", "spacing": "44.5 mm"}]})
                ),
            ]),
            "row stands 15 mm from one edge of base and 16 mm from the other",
        ),
        // Three at 20 in the middle of 120, 12 from the front: 40 at each end, and one more would stand 20 from it.
        (
            "row_without_ends",
            json!([
                base("120 mm", "80 mm"),
                drill(
                    "row",
                    "base",
                    "9 mm",
                    json!({"place": {"from": [{"edge": "base.front", "distance": "12 mm"}]}, "repeat": [{"count": "3", "spacing": "20 mm"}]})
                ),
            ]),
            "row leaves 40 mm at each end of base: one more would go in there at 20 mm",
        ),
        (
            "fits_no_screw",
            bracket(vec![drill(
                "sink",
                "base",
                "5.5 mm",
                json!({"countersink": {"diameter": "9 mm", "angle": "90 deg"}}),
            )]),
            "sink has a countersink of 90 deg to 9 mm on a hole of 5.5 mm: no listed screw fits it",
        ),
    ];
    for (rule, operations, words) in &cases {
        let mut made = piece("3 mm", "3 mm", "0.44", operations.clone());
        made.grain = Some(Grain::AlongX);
        if *rule == "tool_radius" {
            made.bending.die = Some("40 mm".into());
        }
        let outcome = evaluate(&made, Options::default());
        let found = outcome.breaches.iter().find(|one| one.rule == *rule);
        let found = found.unwrap_or_else(|| panic!("{rule} not broken: {:?} {:?}", broken(&outcome), outcome.findings));
        assert!(found.message.contains(words), "{rule}: {}", found.message);
        assert!(!found.why.source.is_empty() && !found.why.working.is_empty() && !found.way_out.is_empty());
        assert!(!found.operations.is_empty());
    }
    let covered: Vec<&str> = cases.iter().map(|case| case.0).collect();
    for rule in &SHEET_RULES {
        assert!(covered.contains(&rule.key), "no case breaks {}", rule.key);
    }
}

/// Every rule of frames is broken by something.
#[test]
fn every_rule_of_frames_has_a_case_that_breaks_it() {
    let path =
        |name: &str, start: Value, legs: Value| json!({"name": name, "do": {"path": {"start": start, "legs": legs}}});
    let tube = |lines: Value| json!({"name": "bars", "do": {"member": {"section": "SHS 50x50x3", "lines": lines}}});
    let slanted = |at: &str| json!({"name": format!("cut-{at}"), "do": {"end": {"of": ["bars"], "at": at, "how": {"angle": {"angle": "50 deg"}}}}});
    let straight = |length: &str| path("a", json!({}), json!([{"by": {"x": length}}]));
    let cases: Vec<(&str, &str, Vec<Value>)> = vec![
        (
            "member_clash",
            "S275",
            vec![
                straight("500 mm"),
                path("b", json!({"y": "20 mm"}), json!([{"by": {"x": "500 mm"}}])),
                tube(json!(["a.1", "b.1"])),
            ],
        ),
        (
            "joint_settled",
            "S275",
            vec![path("a", json!({}), json!([{"by": {"x": "500 mm"}}, {"by": {"y": "500 mm"}}])), tube(json!(["a.*"]))],
        ),
        (
            "member_long_enough",
            "S275",
            vec![straight("50 mm"), tube(json!(["a.1"])), slanted("start"), slanted("finish")],
        ),
        (
            "bend_radius",
            "S275",
            vec![
                path(
                    "a",
                    json!({}),
                    json!([{"arc": {"place": {"x": "200 mm"}, "how": {"radius": {"radius": "100 mm", "toward": "away"}}}}]),
                ),
                tube(json!(["a.1"])),
            ],
        ),
        ("bar_long_enough", "S275", vec![straight("7 m"), tube(json!(["a.1"]))]),
        ("short_point", "S275", vec![straight("25 mm"), tube(json!(["a.1"]))]),
        (
            "saw_angle",
            "S275",
            vec![
                straight("500 mm"),
                tube(json!(["a.1"])),
                json!({"name": "cut", "do": {"end": {"of": ["bars"], "at": "start", "how": {"angle": {"angle": "61 deg"}}}}}),
            ],
        ),
        (
            "bore_room",
            "S275",
            vec![
                straight("500 mm"),
                tube(json!(["a.1"])),
                json!({"name": "bolt", "do": {"bore": {"of": ["bars"], "face": "top", "diameter": "11 mm", "at": "10 mm"}}}),
            ],
        ),
        (
            "filler",
            "S275",
            vec![
                path("a", json!({}), json!([{"by": {"x": "500 mm"}}, {"by": {"y": "300 mm"}}])),
                tube(json!(["a.1"])),
                json!({"name": "post", "do": {"member": {"section": "SHS 50x50x3", "lines": ["a.2"], "material": "1.4301"}}}),
                json!({"name": "meet", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}}),
            ],
        ),
        (
            "unlike_metals",
            "S275",
            vec![
                path("a", json!({}), json!([{"by": {"x": "500 mm"}}, {"by": {"y": "300 mm"}}])),
                tube(json!(["a.1"])),
                json!({"name": "post", "do": {"member": {"section": "SHS 50x50x3", "lines": ["a.2"], "material": "6061-T6"}}}),
                json!({"name": "meet", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}}),
            ],
        ),
        (
            "lug_load",
            "S275",
            vec![
                straight("800 mm"),
                tube(json!(["a.1"])),
                json!({"name": "lug", "do": {"plate": {"thickness": "12 mm", "kind": {"face": {"of": ["bars"], "face": "top", "at": "400 mm",
                    "stands": "along", "shape": {"lug": {"base": "80 mm", "height": "45 mm", "radius": "28 mm", "hole": "22 mm"}},
                    "lifts": {"pin": "19 mm", "load": "9000 kg", "yield_strength": "275", "tensile_strength": "410", "design_factor": "3"}}}}}}),
            ],
        ),
        ("vented", "DX51D", vec![straight("500 mm"), tube(json!(["a.1"]))]),
    ];
    for (rule, material, operations) in &cases {
        let document = json!({
            "steelk": 1, "kind": "frame", "mark": "F-1", "title": "rules", "quantity": 1, "unit": "mm",
            "stock": {"material": material}, "operations": operations,
        });
        let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
        let found = outcome.breaches.iter().find(|one| one.rule == *rule);
        let found = found.unwrap_or_else(|| panic!("{rule} not broken: {:?} {:?}", broken(&outcome), outcome.findings));
        assert!(!found.why.source.is_empty() && !found.why.working.is_empty() && !found.way_out.is_empty());
        assert!(!found.operations.is_empty() && !found.features.is_empty());
    }
    let covered: Vec<&str> = cases.iter().map(|case| case.0).collect();
    for rule in &FRAME_RULES {
        assert!(covered.contains(&rule.key), "no case breaks {}", rule.key);
    }
}

/// Both lists: keys of their own, titles, sources; what keeps files back is what a shop would cut wrong.
#[test]
fn every_rule_says_its_source_and_what_comes_of_it() {
    let sheet = SHEET_RULES.iter().map(|rule| (rule.key, rule.title, rule.source, rule.broken));
    let all: Vec<_> =
        sheet.chain(FRAME_RULES.iter().map(|rule| (rule.key, rule.title, rule.source, rule.broken))).collect();
    assert!(all.len() > 20);
    for (at, (key, title, source, broken)) in all.iter().enumerate() {
        assert!(!title.is_empty() && !source.is_empty(), "{key}");
        assert!(all[..at].iter().all(|other| other.0 != *key), "two rules are called {key}");
        assert_eq!(when_broken(key), *broken);
        assert!(key.bytes().all(|one| one.is_ascii_lowercase() || one == b'_'), "{key}");
    }
    let withhold: Vec<&str> = all.iter().filter(|one| one.3 == WhenBroken::Withholds).map(|one| one.0).collect();
    assert_eq!(withhold, ["flat_overlap", "member_clash", "member_long_enough"]);
}

#[test]
fn blind_holes_from_both_faces_meet_only_where_their_depths_do() {
    let pair = |thickness: &str, deep: &str, apart: &str| {
        let operations = json!([
            base("120 mm", "80 mm"),
            drill("pin", "base", "6 mm", json!({"depth": "3 mm", "point": "180 deg"})),
            drill(
                "foot",
                "base",
                "6 mm",
                json!({"depth": deep, "point": "180 deg", "face": "bottom", "place": {"hole": {"hole": "pin", "x": apart}}})
            )
        ]);
        let piece = piece(thickness, "10 mm", "0.44", operations);
        let outcome = evaluate(&piece, Options::default());
        assert!(outcome.findings.iter().all(|one| one.severity != Severity::Error), "{:?}", outcome.findings);
        let said: Vec<String> =
            outcome.breaches.iter().filter(|one| one.rule == "opposite_holes").map(|one| one.message.clone()).collect();
        said
    };
    // 10 - 3 - 5 = 2 mm between them; 10 - 3 - 6 = 1 mm; 10 - 3 - 8 overlap by 1 mm.
    assert!(pair("10 mm", "5 mm", "0").is_empty());
    assert_eq!(pair("10 mm", "6 mm", "0"), ["foot leaves 1 mm to pin from the other face; 1.5 mm needed"]);
    assert_eq!(pair("10 mm", "8 mm", "2 mm"), ["foot meets pin from the other face: they overlap by 1 mm"]);
    // Side by side: 7 mm apart leaves 1 mm across, 8 mm apart leaves 2.
    assert_eq!(pair("10 mm", "8 mm", "7 mm"), ["foot leaves 1 mm to pin from the other face; 1.5 mm needed"]);
    assert!(pair("10 mm", "8 mm", "8 mm").is_empty());
}

#[test]
fn exactly_on_the_limit_holds() {
    // 22 - 10 - 3 = 9 = 2T + R; leg 16.8 = 0.7 x 8T; radius = least.
    let hole =
        drill("bore", "up", "20 mm", json!({"place": {"from": [{"edge": "up.mould-outside", "distance": "22 mm"}]}}));
    assert_eq!(broken(&run(bracket(vec![hole]))), Vec::<&str>::new());
    let short = run(json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "16.8 mm", json!({}))]));
    assert_eq!(broken(&short), Vec::<&str>::new());
    // A lip takes its setback off the flange, but not off the leg that lies across the die.
    let lipped = run(json!([
        base("120 mm", "80 mm"),
        bend("up", "base.back", "90 deg", "18 mm", json!({})),
        bend("lip", "up.end", "90 deg", "20 mm", json!({"direction": "down"}))
    ]));
    assert_eq!(broken(&lipped), Vec::<&str>::new());
}

#[test]
fn a_cut_out_needs_more_than_a_hole() {
    // Straight edge parallel to the bend: 3T + R = 12 mm from the inside mould line.
    let slot = |distance: &str| json!({"name": "slot", "do": {"cut": {"panel": "up", "width": "20 mm", "height": "10 mm", "place": {"from": [{"edge": "up.mould-outside", "distance": distance}]}}}});
    assert_eq!(broken(&run(bracket(vec![slot("19.9 mm")]))), ["hole_to_bend"]);
    assert_eq!(broken(&run(bracket(vec![slot("20 mm")]))), Vec::<&str>::new());
}

#[test]
fn a_relief_mends_a_bend_that_ends_in_material() {
    for shape in ["rectangular", "obround"] {
        let outcome = run(json!([
            base("120 mm", "80 mm"),
            bend(
                "up",
                "base.back",
                "90 deg",
                "60 mm",
                json!({"set_in": {"left": "20 mm", "right": "30 mm"}, "relief": {"shape": shape}})
            )
        ]));
        assert_eq!(broken(&outcome), Vec::<&str>::new());
        let whole = 120.0 * 74.0 + 70.0 * (6.785_840 + 54.0) + 50.0 * 6.0;
        // T wide, from the edge to R + T past the tangent line: 12 mm deep; a round bottom keeps (4 - pi)/8 w^2 of it.
        let taken = 2.0 * if shape == "rectangular" { 36.0 } else { 36.0 - (4.0 - std::f64::consts::PI) / 8.0 * 9.0 };
        near(part(&outcome).blank.region.area(), whole - taken, 1e-3);
    }
}

#[test]
fn operations_that_cannot_be_done_say_why_and_leave_the_rest() {
    let cases: Vec<(Value, &str, &str, &str)> = vec![
        (
            bracket(vec![bend("x", "base.bottom", "90 deg", "20 mm", json!({}))]),
            "x",
            "edge",
            "there is no edge called base.bottom",
        ),
        (bracket(vec![bend("x", "base.back", "90 deg", "20 mm", json!({}))]), "x", "edge", "already bent there by up"),
        (
            bracket(vec![bend("x", "base.front", "181 deg", "20 mm", json!({}))]),
            "x",
            "angle",
            "a bend of 181 deg cannot be made",
        ),
        (
            bracket(vec![bend("x", "base.front", "20 mm", "20 mm", json!({}))]),
            "x",
            "angle",
            "20 mm is a length; a bend angle is needed",
        ),
        (
            bracket(vec![bend("x", "base.front", "90 deg", "45 deg", json!({}))]),
            "x",
            "leg",
            "45 deg is an angle; a leg length is needed",
        ),
        (bracket(vec![bend("x", "base.front", "90 deg", "5 mm", json!({}))]), "x", "leg", "leaves no flat"),
        (bracket(vec![bend("x", "base.front", "90 deg", "-5 mm", json!({}))]), "x", "leg", "must be above zero"),
        (
            bracket(vec![bend("x", "base.front", "90 deg", "20 mm", json!({"set_in": {"top": "5 mm"}}))]),
            "x",
            "set_in.top",
            "has no end called top",
        ),
        (
            bracket(vec![bend(
                "x",
                "base.front",
                "90 deg",
                "20 mm",
                json!({"set_in": {"left": "70 mm", "right": "60 mm"}}),
            )]),
            "x",
            "set_in",
            "leave nothing of base.front",
        ),
        (
            bracket(vec![bend("x", "base.front", "90 deg", "20 mm", json!({"method": {"deduction": "50 mm"}}))]),
            "x",
            "method.deduction",
            "of flat",
        ),
        (bracket(vec![drill("x", "lid", "5 mm", json!({}))]), "x", "panel", "there is no panel called lid"),
        (
            bracket(vec![drill(
                "x",
                "base",
                "5 mm",
                json!({"place": {"from": [{"edge": "base.left", "distance": "1 mm"}]}}),
            )]),
            "x",
            "place",
            "runs out over the edge of base at base.left",
        ),
        (
            bracket(vec![drill(
                "x",
                "base",
                "5 mm",
                json!({"place": {"from": [{"edge": "base.left", "distance": "-40 mm"}]}}),
            )]),
            "x",
            "place",
            "40 mm outside base",
        ),
        (
            bracket(vec![drill(
                "x",
                "up",
                "20 mm",
                json!({"place": {"from": [{"edge": "up.tangent", "distance": "5 mm"}]}}),
            )]),
            "x",
            "place",
            "runs into the bend up",
        ),
        (
            bracket(vec![drill(
                "x",
                "base",
                "5 mm",
                json!({"place": {"from": [{"edge": "base.back", "distance": "9 mm"}]}}),
            )]),
            "x",
            "place.from.0.edge",
            "no longer an edge: operation up bent it",
        ),
        (
            bracket(vec![drill(
                "x",
                "base",
                "5 mm",
                json!({"place": {"from": [{"edge": "base.left", "distance": "9 mm"}, {"edge": "base.right", "distance": "9 mm"}]}}),
            )]),
            "x",
            "place.from",
            "run the same way",
        ),
        (
            bracket(vec![drill("x", "base", "5 mm", json!({"repeat": [{"count": "2.5", "spacing": "9 mm"}]}))]),
            "x",
            "repeat.0.count",
            "is no count",
        ),
        (
            bracket(vec![drill("x", "base", "9 mm", json!({"repeat": [{"count": "3", "spacing": "8 mm"}]}))]),
            "x",
            "place",
            "run into each other",
        ),
        (bracket(vec![drill("x", "base", "400 mm", json!({}))]), "x", "place", "x is larger than base"),
        (
            bracket(vec![drill("x", "base", "9 mm", json!({"repeat": [{"count": "9", "spacing": "20 mm"}]}))]),
            "x",
            "place",
            "x.1 ",
        ),
        (
            bracket(vec![
                base("10 mm", "10 mm")
                    .as_object()
                    .map(|one| {
                        let mut one = one.clone();
                        one["name"] = json!("x");
                        Value::Object(one)
                    })
                    .unwrap(),
            ]),
            "x",
            "",
            "already laid down",
        ),
    ];
    for (operations, operation, field, words) in cases {
        let outcome = run(operations);
        let (of, at, message) = refusal(&outcome);
        assert_eq!((of.as_str(), at.as_str()), (operation, field), "{message}");
        assert!(message.contains(words), "{message}");
        // The good operations stand: the bracket is whole.
        assert_eq!(outcome.states, [OperationState::Made, OperationState::Made, OperationState::Bad]);
        near(outcome.figures().unwrap().blank_height, 134.785_840, 1e-6);
    }
}

#[test]
fn a_bend_over_a_hole_is_refused() {
    let outcome = run(json!([
        base("120 mm", "80 mm"),
        drill("bore", "base", "10 mm", json!({"place": {"from": [{"edge": "base.back", "distance": "8 mm"}]}})),
        bend("up", "base.back", "90 deg", "60 mm", json!({}))
    ]));
    assert!(refusal(&outcome).2.contains("would run over the hole bore"));
}

#[test]
fn a_computed_count_of_22_999999_is_23() {
    let outcome = sound(&piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([
            base("600 mm", "80 mm"),
            drill("row", "base", "5 mm", json!({"repeat": [{"count": "0.1*230 - 0.0000001", "spacing": "20 mm"}]}))
        ]),
    ));
    assert_eq!(outcome.figures().unwrap().holes, 23);
}

fn with_callout(callout: Value) -> Outcome {
    let mut piece = piece(
        "3 mm",
        "3 mm",
        "0.44",
        bracket(vec![drill(
            "bore",
            "up",
            "22 mm",
            json!({"place": {"from": [{"edge": "up.mould-outside", "distance": "36 mm"}]}}),
        )]),
    );
    piece.callouts = vec![serde_json::from_value(callout).unwrap()];
    evaluate(&piece, Options::default())
}

#[test]
fn verdicts_by_each_kind_of_tolerance() {
    let height = json!({"distance": {"from": "bore", "to": "base.bottom"}});
    let cases = [
        (json!({"plus_minus": "0.3 mm"}), "36.3 mm", Verdict::Holds),
        (json!({"plus_minus": "0.3 mm"}), "36.31 mm", Verdict::Off),
        (json!({"deviations": {"upper": "0.2 mm", "lower": "0 mm"}}), "36 mm", Verdict::Holds),
        (json!({"deviations": {"upper": "0.2 mm", "lower": "0 mm"}}), "36.1 mm", Verdict::Off),
        (json!({"limits": {"least": "35.5 mm", "most": "36 mm"}}), "35.7 mm", Verdict::Holds),
        (json!({"iso2768": "m"}), "36.3 mm", Verdict::Holds),
        (json!({"iso2768": "f"}), "36.3 mm", Verdict::Off),
        (Value::Null, "36 mm", Verdict::Holds),
        (Value::Null, "36.01 mm", Verdict::Off),
    ];
    for (tolerance, value, verdict) in cases {
        let outcome = with_callout(json!({"name": "F", "value": value, "tolerance": tolerance, "measure": height}));
        let proof = &outcome.callouts[0];
        assert_eq!(proof.verdict, verdict, "{value} {tolerance}: {}", proof.reason);
        near(proof.measured.unwrap(), 36.0, 1e-9);
        assert!(!proof.why.working.is_empty() && !proof.why.source.is_empty());
    }
    let off = with_callout(
        json!({"name": "F", "value": "35.75 mm", "tolerance": {"plus_minus": "0.1 mm"}, "measure": height}),
    );
    assert_eq!(off.callouts[0].off_by, "+0.25 mm");
}

#[test]
fn callouts_that_nothing_measures_or_uses_are_said() {
    let unused = with_callout(json!({"name": "G", "value": "9 mm"}));
    assert_eq!(unused.callouts[0].verdict, Verdict::Unplaced);
    assert!(unused.findings.iter().any(|one| one.message.contains("nothing uses G and nothing measures it")));
    let lost = with_callout(json!({"name": "G", "value": "9 mm", "measure": {"diameter": {"hole": "gone"}}}));
    assert!(lost.callouts[0].reason.contains("there is no hole called gone"), "{}", lost.callouts[0].reason);
    let wrong = with_callout(json!({"name": "G", "value": "9 deg", "measure": {"diameter": {"hole": "bore"}}}));
    assert!(wrong.callouts[0].reason.contains("G is an angle; a length is needed"), "{}", wrong.callouts[0].reason);
}

#[test]
fn a_callout_that_drives_is_still_measured_on_the_metal() {
    // The leg is driven by A but typed to the inside: the drawing meant outside, and the proof says so.
    let mut wrong = piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "A", json!({"leg_to": "inside"}))]),
    );
    wrong.callouts = vec![serde_json::from_value(json!({"name": "A", "value": "60 mm", "tolerance": {"plus_minus": "0.5 mm"}, "measure": {"leg": {"bend": "up", "to": "outside"}}})).unwrap()];
    let outcome = evaluate(&wrong, Options::default());
    assert_eq!((outcome.callouts[0].verdict, outcome.callouts[0].off_by.as_str()), (Verdict::Off, "+3 mm"));
    assert_eq!(outcome.callouts[0].drives, ["up"]);
}

/// ISO 2768-1:1989, tables 1 and 3.
#[test]
fn iso_2768_values() {
    use ToleranceClass::{C, F, M};
    for (class, size, deviation) in [
        (M, 3.0, Some(0.1)),
        (M, 3.01, Some(0.1)),
        (M, 30.0, Some(0.2)),
        (M, 30.01, Some(0.3)),
        (M, 120.0, Some(0.3)),
        (M, 400.0, Some(0.5)),
        (M, 999.0, Some(0.8)),
        (M, 4000.0, Some(2.0)),
        (F, 60.0, Some(0.15)),
        (F, 3000.0, None),
        (C, 5.0, Some(0.3)),
        (C, 60.0, Some(0.8)),
        (C, 3000.0, Some(4.0)),
        (M, 0.4, None),
        (M, 5000.0, None),
    ] {
        assert_eq!(linear(class, size), deviation, "{class:?} {size}");
    }
    near(angular(M, 10.0).unwrap().to_degrees(), 1.0, 1e-12);
    near(angular(M, 50.0).unwrap().to_degrees(), 0.5, 1e-12);
    near(angular(M, 60.0).unwrap().to_degrees() * 60.0, 20.0, 1e-9);
    near(angular(C, 200.0).unwrap().to_degrees() * 60.0, 15.0, 1e-9);
}

/// Aluminium gauges against the Brown & Sharpe formula t = 0.005 x 92^((36-n)/39) (ASTM B258); the others against
/// single values of the tables that the file names.
#[test]
fn gauges_of_each_family() {
    for gauge in stock().gauges.iter().filter(|one| one.family == steelk_core::stock::Family::Aluminium) {
        let formula = 0.005 * 92f64.powf((36.0 - f64::from(gauge.number)) / 39.0);
        near(gauge.inches, formula, 6e-5);
    }
    let thickness = |material: &str, text: &str| {
        stock()
            .material(material)
            .unwrap()
            .read_thickness(text, &steelk_core::quantity::Names::new(LengthUnit::Mm))
            .map(|one| one.millimetres)
    };
    for (material, inches) in [("S275", 0.0747), ("DX51D", 0.0785), ("1.4301", 0.0781), ("5052-H32", 0.0641)] {
        near(thickness(material, "14 ga").unwrap(), inches * 25.4, 1e-9);
        near(thickness(material, "14 gauge").unwrap(), inches * 25.4, 1e-9);
    }
    assert!(thickness("S275", "13 ga").unwrap_err().way_out.contains("7, 8, 10, 11, 12, 14"));
    assert!(thickness("S275", "0 mm").is_err() && thickness("S275", "45 deg").is_err());
    // The same gauge is another thickness in another family: the blank follows the material.
    let height = |material: &str| {
        let mut one = piece("14 ga", "2 mm", "0.44", bracket(vec![]));
        one.stock.material = material.into();
        sound(&one).figures().unwrap().blank_height
    };
    assert!((height("S275") - height("5052-H32")).abs() > 0.1);
}

#[test]
fn every_material_has_sound_figures() {
    for material in &stock().materials {
        // Timber is for sections, card for trial pieces: light, and with no gauges.
        let light = matches!(material.family, Family::Timber | Family::Card);
        let range = if light { 300.0..1000.0 } else { 2000.0..10_000.0 };
        assert!(range.contains(&material.density), "{}", material.name);
        assert!((0.3..=0.5).contains(&material.k_factor));
        assert!(!material.source.is_empty() && material.least_radius(3.0) > 0.0);
        assert_eq!(stock().gauges.iter().any(|gauge| gauge.family == material.family), !light);
    }
    // Densities of EN 10088-1 and EN 10025 practice.
    assert_eq!(stock().material("1.4301").unwrap().density, 7900.0);
    assert_eq!(stock().material("S275").unwrap().density, 7850.0);
}

/// Mass by hand: 120 x 134.785840 x 3 mm of S275 less nothing = 0.380905 kg.
#[test]
fn mass_volume_and_centre_of_gravity() {
    let outcome = run(bracket(vec![]));
    let figures = outcome.figures().unwrap();
    near(figures.mass, 120.0 * 134.785_839_9 * 3.0 * 7850e-9, 1e-9);
    // Folded solid: 74 + 54 of flat, and a quarter ring of mean radius 4.5: pi/2 x 4.5.
    near(figures.folded_volume, 120.0 * 3.0 * (128.0 + std::f64::consts::FRAC_PI_2 * 4.5), 1e-6);
    // Symmetrical across; mass moments of base, bend and upright about the front and the underside, by hand:
    // the quarter ring's centroid lies 2/3 (6^3 - 3^3)/(6^2 - 3^2) sin 45 / (pi/4) = 4.201690 from its axis.
    near(figures.centre_of_gravity.x, 60.0, 1e-9);
    let reach = 4.201_690 * 0.5f64.sqrt();
    let (a, b, c) = (74.0, 6.785_840, 54.0);
    near(figures.centre_of_gravity.y, (a * 37.0 + b * (74.0 + reach) + c * 78.5) / (a + b + c), 1e-5);
    near(figures.centre_of_gravity.z, (a * 1.5 + b * (6.0 - reach) + c * 33.0) / (a + b + c), 1e-5);
    assert!(outcome.cautions.iter().any(|one| one.contains("licensed engineer")));
}

#[test]
fn heavy_and_galvanised_pieces_carry_their_cautions() {
    let mut heavy = piece("10 mm", "12 mm", "0.44", json!([base("1000 mm", "500 mm")]));
    heavy.stock.material = "DX51D".into();
    let cautions = evaluate(&heavy, Options::default()).cautions.join(" ");
    assert!(cautions.contains("two people or a lift") && cautions.contains("zinc"), "{cautions}");
}

#[test]
fn documents_are_refused_with_the_path_to_the_fault() {
    let sound = include_str!("../../../demo/01-winch-bracket.json");
    let spoil = |pointer: &str, value: Value| {
        let mut document: Value = serde_json::from_str(sound).unwrap();
        let (parent, key) = pointer.rsplit_once('/').unwrap();
        document.pointer_mut(parent).unwrap()[key] = value;
        Piece::read(document.to_string().as_bytes()).map(|_| ()).unwrap_err()
    };
    let cases = [
        ("/steelk", json!(2), "steelk", "version 2"),
        ("/kind", json!("boat"), "kind", "unknown variant"),
        ("/extra", json!(1), "extra", "unknown field"),
        ("/mark", json!(""), "mark", "1 to 40"),
        ("/quantity", json!(0), "quantity", "1 to 1000000"),
        ("/quantity", json!("two"), "quantity", "invalid type"),
        ("/stock/thickness", json!(3), "stock.thickness", "invalid type"),
        ("/operations/1/name", json!("base"), "operations[1].name", "taken by another operation"),
        ("/operations/1/name", json!("Up Right"), "operations[1].name", "no operation name"),
        ("/callouts/1/name", json!("A"), "callouts[1].name", "taken by another call-out"),
        ("/callouts/0/name", json!("T"), "callouts[0].name", "already means something"),
        ("/callouts/0/name", json!("mm"), "callouts[0].name", "already means something"),
        ("/callouts/0/place", json!({"x": 2, "y": 0}), "callouts[0].place", "from 0 to 1"),
    ];
    for (pointer, value, path, words) in cases {
        let fault = spoil(pointer, value);
        assert_eq!(fault.path, path, "{fault}");
        assert!(fault.message.contains(words), "{fault}");
    }
    let mut deep: Value = serde_json::from_str(sound).unwrap();
    deep["operations"][1]["do"]["bend"]["leg"] = json!(60);
    assert_eq!(Piece::read(deep.to_string().as_bytes()).unwrap_err().path, "operations[1].do.bend.leg");
    assert_eq!(Piece::read(b"{").unwrap_err().path, "document");
    assert_eq!(Piece::read(format!("{sound} x").as_bytes()).unwrap_err().path, "document");
    assert!(Piece::read("[".repeat(100_000).as_bytes()).is_err());
    let read = Piece::read(sound.as_bytes()).unwrap();
    assert_eq!(Piece::read(read.write().as_bytes()).unwrap(), read, "written and read again");
}

#[test]
fn the_caret_and_rested_operations() {
    let mut three = piece("3 mm", "3 mm", "0.44", bracket(vec![drill("bore", "up", "22 mm", json!({}))]));
    let at = evaluate(&three, Options { upto: Some(1), ..Options::default() });
    assert_eq!(at.states, [OperationState::Made, OperationState::Ahead, OperationState::Ahead]);
    near(at.figures().unwrap().blank_height, 80.0, 1e-9);
    three.operations[2].rested = true;
    let rested = evaluate(&three, Options::default());
    assert_eq!(rested.states[2], OperationState::Rested);
    assert_eq!(rested.figures().unwrap().holes, 0);
}
