//! Ends of open sections: notches, slots and copes along another section, and which side of a face is kept. Volumes worked by
//! hand from the sections' own sizes; that nothing runs into anything is told by the clash of bodies, which knows nothing of
//! how an end was cut.

use steelk_core::frame::{WeldKind, WeldSides};
use steelk_core::work::frame::OneEnd;
use steelk_testing::law;

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::frame::{Alike, Cut, Member, bodies, piece_picture};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};

fn built(operations: Value) -> Outcome {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default())
}

fn sound(operations: Value) -> Outcome {
    let outcome = built(operations);
    let wrong: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    assert!(wrong.is_empty(), "{wrong:#?}");
    outcome
}

fn member<'a>(outcome: &'a Outcome, name: &str) -> &'a Member {
    outcome.frame().unwrap().made.frame.members.iter().find(|member| member.name == name).expect(name)
}

fn clash(outcome: &Outcome) -> f64 {
    outcome.frame().unwrap().clashes.iter().map(|clash| clash.volume).sum()
}

#[track_caller]
fn near(one: f64, two: f64) {
    assert!((one - two).abs() < 1e-6 * (1.0 + two.abs()), "{one} is not {two}");
}

/// A bar of a section along x, 1000 mm, with work on it.
fn bar(section: &str, more: Value) -> Value {
    let mut all = vec![
        json!({"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}}),
        json!({"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}}),
    ];
    all.extend(more.as_array().unwrap().iter().cloned());
    Value::Array(all)
}

fn notch(at: &str, face: &str, more: Value) -> Value {
    let mut action = json!({"of": ["bar"], "at": at, "face": face});
    action.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    json!({"name": format!("{at}-{face}"), "do": {"end_notch": action}})
}

#[test]
fn notches_and_slots_weigh_what_they_leave() {
    let whole = member(&sound(bar("FL 60x10", json!([]))), "run.1").volume();
    near(whole, 60.0 * 10.0 * 1000.0);
    // A flat lies upright: 10 wide, 60 high. 20 deep, 30 long.
    let taken = |work: Value| whole - member(&sound(bar("FL 60x10", work)), "run.1").volume();
    near(taken(json!([notch("start", "bottom", json!({"depth": "20 mm", "length": "30 mm"}))])), 20.0 * 30.0 * 10.0);
    near(taken(json!([notch("both", "top", json!({"depth": "20 mm", "length": "30 mm"}))])), 2.0 * 20.0 * 30.0 * 10.0);
    // Two notches that lie over each other in one corner take it once: 20 x 30 and 5 x 50, of which 5 x 20 x 30 is common.
    let both = json!([
        notch("start", "bottom", json!({"depth": "20 mm", "length": "30 mm"})),
        notch("start", "left", json!({"depth": "5 mm", "length": "50 mm"})),
    ]);
    near(taken(both), 20.0 * 10.0 * 30.0 + 60.0 * 5.0 * 50.0 - 20.0 * 5.0 * 30.0);
    // A slot of 6 right through, 40 long, off the middle; and one that is only 4 deep.
    let slot = json!([notch("finish", "left", json!({"width": "6 mm", "length": "40 mm", "off": "8 mm"}))]);
    near(taken(slot), 6.0 * 10.0 * 40.0);
    let blind = json!([notch("finish", "left", json!({"width": "6 mm", "depth": "4 mm", "length": "40 mm"}))]);
    near(taken(blind), 6.0 * 4.0 * 40.0);
}

#[test]
fn a_slot_in_a_tube_takes_both_walls() {
    let work = json!([notch("start", "top", json!({"width": "8 mm", "length": "50 mm"}))]);
    let outcome = sound(bar("RHS 80x40x4", work));
    let tube = member(&outcome, "run.1");
    near(tube.section.area() * 1000.0 - tube.volume(), 2.0 * 8.0 * 4.0 * 50.0);
    let lines = &outcome.frame().unwrap().made.list.lines;
    assert_eq!(lines[0].work, "slot 50 long at the start, 8 x 80 of the section");
    assert_eq!(bodies(tube).len(), 4, "two halves of the tube, and the walls in the slot");
}

#[test]
fn a_notch_on_a_slope_follows_it() {
    let work = json!([
        {"name": "cut", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": "30 deg"}}}}},
        notch("finish", "top", json!({"depth": "20 mm", "length": "30 mm"})),
    ]);
    let plain =
        json!([{"name": "cut", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": "30 deg"}}}}}]);
    let (cut, whole) = (sound(bar("FL 60x10", work)), sound(bar("FL 60x10", plain)));
    near(member(&whole, "run.1").volume() - member(&cut, "run.1").volume(), 20.0 * 30.0 * 10.0);
}

#[test]
fn bad_notches_are_told() {
    let told = |work: Value, field: &str, words: &str| {
        let outcome = built(bar("UPE 100", json!([work])));
        let fault = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("an error");
        assert_eq!(fault.field.as_deref(), Some(field), "{fault:?}");
        assert!(fault.message.contains(words), "{fault:?}");
    };
    told(notch("start", "top", json!({"length": "30 mm"})), "depth", "needs a depth");
    told(notch("start", "top", json!({"length": "30 mm", "depth": "5 mm", "off": "3 mm"})), "off", "no middle to move");
    told(notch("start", "top", json!({"length": "30 mm", "depth": "100 mm"})), "depth", "takes all of");
    told(notch("start", "top", json!({"length": "30 mm", "width": "8 mm", "off": "200 mm"})), "off", "takes no metal");
    // Wider than the section and right through it.
    told(notch("start", "top", json!({"length": "30 mm", "width": "400 mm"})), "width", "takes all of");
    told(notch("start", "top", json!({"length": "0 mm", "depth": "5 mm"})), "length", "length");
}

/// A channel runs along y with its open side toward -x; another comes along x into it.
fn channels(one: &str, two: &str, how: Value) -> Value {
    json!([
        {"name": "long", "do": {"path": {"start": {"x": "600 mm", "y": "-400 mm"}, "legs": [{"by": {"y": "800 mm"}}]}}},
        {"name": "cross", "do": {"path": {"start": {}, "legs": [{"by": {"x": "600 mm"}}]}}},
        {"name": "runner", "do": {"member": {"lines": ["long"], "section": two}}},
        {"name": "rail", "do": {"member": {"lines": ["cross"], "section": one}}},
        {"name": "fit", "do": how},
    ])
}

#[test]
fn a_channel_fits_into_a_channel() {
    let how = json!({"end": {"of": ["rail"], "at": "finish", "how": {"cope": {"to": ["runner"]}}}});
    let outcome = sound(channels("UPE 100", "UPE 100", how));
    assert_eq!(clash(&outcome), 0.0);
    let square = json!({"end": {"of": ["rail"], "at": "finish", "how": {"square": {"by": "23 mm"}}}});
    assert!(
        clash(&sound(channels("UPE 100", "UPE 100", square))) > 2.0 * 7.5 * 50.0 * 50.0,
        "as long and not coped it clashes"
    );
    let rail = member(&outcome, "cross.1");
    // UPE 100: 100 high, 55 wide, web 4.5, flange 7.5. The runner's middle is at 600: its open side begins at 600 - 27.5 and its
    // web's inner face lies at 600 + 27.5 - 4.5. The flanges, 7.5 of 100 each side, stop at the first; the web goes to the second.
    near(rail.reach(OneEnd::Finish).0, 27.5 - 4.5);
    near(rail.length(), 600.0 + 23.0);
    let section = rail.section.area();
    // Flange strips (all metal within 7.5 of top and bottom) are 55 x 7.5 each.
    let (flanges, long) = (2.0 * 55.0 * 7.5, 600.0 + 23.0);
    let square = flanges * (600.0 - 27.5) + (section - flanges) * long;
    // The root fillets of the runner take a little more of the web's corners: no more than a square of the radius (10) each.
    let cleared = square - rail.volume();
    assert!(cleared > 0.0, "{cleared}");
    assert!(cleared < 2.0 * 10.0 * 10.0 * 14.5, "{cleared}");
    assert!(rail.volume() < long * section);
}

#[test]
fn a_cope_keeps_its_gap() {
    let how =
        |gap: &str| json!({"end": {"of": ["rail"], "at": "finish", "how": {"cope": {"to": ["runner"], "gap": gap}}}});
    for gap in [0.5, 2.0, 4.0] {
        let outcome = sound(channels("UPE 100", "UPE 120", how(&format!("{gap} mm"))));
        let rail = member(&outcome, "cross.1");
        // UPE 120: 60 wide, web 5.
        near(rail.reach(OneEnd::Finish).0, 30.0 - 5.0 - gap);
        assert_eq!(clash(&outcome), 0.0);
        // From every corner of what is left to the runner's own outline: nowhere less than the gap, and at the web just that.
        let runner = member(&outcome, "long.1");
        let mut nearest = f64::INFINITY;
        for body in bodies(rail).iter() {
            for at in body.region.outer.flatten(0.01) {
                let end = rail.start.place(at.x, at.y, rail.lines[0].length() + body.finishes(at));
                let seen = runner.start.local(end);
                let here = steelk_core::plane::Point::new(seen.x, seen.y);
                let off =
                    runner.region.outer.segments().map(|(one, _)| one.distance_to(here)).fold(f64::INFINITY, f64::min);
                nearest = nearest.min(off);
            }
        }
        assert!((nearest - gap).abs() < 1e-6, "{nearest} and {gap}");
    }
}

#[test]
fn a_joint_of_a_kind_copes_every_tee() {
    let how = json!({"joint": {"at": "tees", "how": {"cope": {}}}});
    let outcome = sound(channels("UPE 80", "IPE 120", how));
    assert_eq!(clash(&outcome), 0.0);
    let rail = member(&outcome, "cross.1");
    // IPE 120: web 4.4. An 80 channel goes between its flanges (120 - 2 x 6.3 = 107.4) to the web.
    near(rail.reach(OneEnd::Finish).0, -2.2);
    assert!(rail.has_cutouts() || rail.ends[1].planes.len() == 1);
    let words = &outcome.frame().unwrap().made.list.lines;
    let line = words.iter().find(|line| line.members.contains(&"cross.1".to_string())).unwrap();
    near(line.length, 600.0 - 2.2);
    // A weld round it, told with both.
    let welds = &outcome.frame().unwrap().welds;
    assert!(welds.iter().any(|weld| weld.parts == ["long.1", "cross.1"]), "{welds:#?}");
}

#[test]
fn what_passes_beside_stops_where_the_outline_begins() {
    // A 160 beam into an 80 channel: its flanges pass over and under, and stop at the channel's open side.
    let how = json!({"end": {"of": ["rail"], "at": "finish", "how": {"cope": {"to": ["runner"]}}}});
    let outcome = sound(channels("IPE 160", "UPE 80", how));
    assert_eq!(clash(&outcome), 0.0);
    let rail = member(&outcome, "cross.1");
    // UPE 80: 50 wide, web 4.
    near(rail.reach(OneEnd::Finish).0, 25.0 - 4.0);
    let least = bodies(rail).iter().map(|body| body.finishes(body.region.centroid())).fold(f64::INFINITY, f64::min);
    near(least, -25.0);
}

#[test]
fn a_cope_that_cannot_be_is_told() {
    let told = |operations: Value, words: &str| {
        let outcome = built(operations);
        let fault = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("an error");
        assert!(fault.message.contains(words), "{fault:?}");
    };
    let how = json!({"end": {"of": ["rail"], "at": "finish", "how": {"cope": {"to": ["runner"]}}}});
    let mut along = channels("UPE 100", "UPE 100", how.clone());
    along[0]["do"]["path"]["legs"][0]["by"] = json!({"x": "800 mm"});
    told(along, "runs along");
    let mut beside = channels("UPE 100", "UPE 100", how);
    beside[0]["do"]["path"]["start"]["z"] = json!("300 mm");
    told(beside, "passes beside");
}

#[test]
fn either_side_of_a_face_is_kept() {
    // A rail runs through a post at 300 of 1000: what lies before it and beyond it, and together all but the post's 40.
    let through = |work: Value| {
        let mut all = bar(
            "RHS 40x20x2",
            json!([
                {"name": "up", "do": {"path": {"start": {"x": "300 mm", "z": "-200 mm"}, "legs": [{"by": {"z": "400 mm"}}]}}},
                {"name": "post", "do": {"member": {"lines": ["up"], "section": "SHS 40x40x3"}}},
            ]),
        );
        all.as_array_mut().unwrap().push(json!({"name": "cut", "do": {"end": work}}));
        sound(all)
    };
    let length = |work: Value| {
        let outcome = through(work);
        assert_eq!(clash(&outcome), 0.0);
        member(&outcome, "run.1").length()
    };
    near(length(json!({"of": ["bar"], "at": "finish", "how": {"trim": {"to": ["post"]}}})), 280.0);
    near(length(json!({"of": ["bar"], "at": "finish", "how": {"trim": {"to": ["post"], "beyond": true}}})), 680.0);
    near(length(json!({"of": ["bar"], "at": "start", "how": {"trim": {"to": ["post"]}}})), 680.0);
    near(
        length(json!({"of": ["bar"], "at": "start", "how": {"trim": {"to": ["post"], "beyond": true, "gap": "2 mm"}}})),
        278.0,
    );
    // A plane, either side.
    let plane = |beyond: bool| json!({"of": ["bar"], "at": "finish", "how": {"plane": {"axis": "x", "at": "450 mm", "beyond": beyond}}});
    let only = |work: Value| {
        let mut all = bar("RHS 40x20x2", json!([]));
        all.as_array_mut().unwrap().push(json!({"name": "cut", "do": {"end": work}}));
        member(&sound(all), "run.1").length()
    };
    near(only(plane(false)), 450.0);
    near(only(plane(true)), 550.0);
    let outcome = built(bar(
        "RHS 40x20x2",
        json!([
            {"name": "cut", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"extend": {"to": ["bar"], "beyond": true}}}}},
        ]),
    ));
    assert!(outcome.findings.iter().any(|one| one.message.contains("made longer")));
}

#[test]
fn a_slot_has_a_hand() {
    // A slot off the middle of a tube's face at one end: its mirror image is another piece, and pairs with it.
    let work = json!([
        {"name": "slot", "do": {"end_notch": {"of": ["bar"], "at": "start", "face": "top", "width": "8 mm", "length": "50 mm", "off": "10 mm"}}},
        {"name": "dot", "do": {"bore": {"of": ["bar"], "face": "top", "diameter": "9 mm", "at": "300 mm", "one_wall": true}}},
    ]);
    let one = sound(bar("SHS 50x50x3", work.clone()));
    let mut other = work;
    other[0]["do"]["end_notch"]["off"] = json!("-10 mm");
    let two = sound(bar("SHS 50x50x3", other));
    let (a, b) = (Cut::of(member(&one, "run.1")), Cut::of(member(&two, "run.1")));
    assert_eq!(a.alike(&a), Alike::Same);
    assert_eq!(a.alike(&b), Alike::Opposite);
    near(member(&one, "run.1").volume(), member(&two, "run.1").volume());
}

proptest! {
    #![proptest_config(law::cases(48))]
    /// Whatever is fitted into whatever, at whatever angle and gap: nothing runs into anything, and no more than the box of
    /// the other section is taken.
    #[test]
    fn a_coped_end_never_clashes(
        one in prop::sample::select(vec!["UPE 80", "UPN 100", "IPE 80", "IPE 120", "L 60x60x6", "RHS 60x40x3", "FL 60x8"]),
        two in prop::sample::select(vec!["UPE 100", "UPN 140", "IPE 120", "HEA 100", "L 80x80x8", "RHS 80x40x4"]),
        turn in prop::sample::select(vec![0, 90, 180, 270]),
        roll in prop::sample::select(vec![0, 90, 180]),
        slant in -250i32..250,
        gap in 0u32..4,
        finish in any::<bool>(),
    ) {
        let operations = json!([
            {"name": "long", "do": {"path": {"start": {"x": "600 mm", "y": "-500 mm"}, "legs": [{"by": {"y": "1000 mm"}}]}}},
            {"name": "cross", "do": {"path": if finish {
                json!({"start": {}, "legs": [{"by": {"x": "600 mm", "y": format!("{slant} mm")}}]})
            } else {
                json!({"start": {"x": "600 mm", "y": format!("{slant} mm")}, "legs": [{"to": {"place": {}}}]})
            }}},
            {"name": "runner", "do": {"member": {"lines": ["long"], "section": two, "roll": format!("{turn} deg")}}},
            {"name": "rail", "do": {"member": {"lines": ["cross"], "section": one, "roll": format!("{roll} deg")}}},
            {"name": "fit", "do": {"end": {"of": ["rail"], "at": if finish { "finish" } else { "start" }, "how": {"cope": {"to": ["runner"], "gap": format!("{gap} mm")}}}}},
        ]);
        let outcome = sound(operations);
        prop_assert!(clash(&outcome) < 1e-9, "{} into {} shares {} mm3", one, two, clash(&outcome));
        let rail = member(&outcome, "cross.1");
        let parts: f64 = bodies(rail).iter().map(|body| body.region.area()).sum();
        prop_assert!((parts - rail.region.area()).abs() < 1e-3, "{} of {}", parts, rail.region.area());
        prop_assert!(rail.volume() > rail.section.area() * 350.0);
    }
}

/// A tube of 40 lies across another of 50 and touches it from above: 40 by 50 less the rounded corners, which do not touch.
#[test]
fn members_that_lie_on_each_other_are_welded_round() {
    let crossing = |up: &str| {
        json!([
            {"name": "low", "do": {"path": {"start": {"y": "-300 mm"}, "legs": [{"by": {"y": "600 mm"}}]}}},
            {"name": "high", "do": {"path": {"start": {"x": "-300 mm", "z": up}, "legs": [{"by": {"x": "600 mm"}}]}}},
            {"name": "under", "do": {"member": {"lines": ["low"], "section": "SHS 50x50x3"}}},
            {"name": "over", "do": {"member": {"lines": ["high"], "section": "SHS 40x40x3"}}},
        ])
    };
    let outcome = sound(crossing("45 mm"));
    assert_eq!(clash(&outcome), 0.0);
    let welds = &outcome.frame().unwrap().welds;
    assert_eq!(welds.len(), 1, "{welds:#?}");
    assert_eq!(welds[0].parts, ["low.1", "high.1"]);
    assert_eq!(welds[0].sides, WeldSides::WhatTouches);
    // Flats between corners of 6, which turn away on every side: 38 and 28.
    near(welds[0].length, 2.0 * (38.0 + 28.0));
    assert_eq!(welds[0].kind, WeldKind::Flare);
    assert!(welds[0].place.distance(steelk_core::space::Point3::new(0.0, 0.0, 25.0)) < 1e-6);
    // Across a gap of 3 mm the leg of 3 grows by it (AWS D1.1, from memory); 8 mm are too far, and that is said; sunk into
    // each other they clash and no weld is told.
    let apart = sound(crossing("48 mm")).into_frame().unwrap().welds;
    near(apart[0].length, 132.0);
    near(apart[0].leg, 6.0);
    let far = sound(crossing("53 mm"));
    assert!(far.frame().unwrap().welds.is_empty());
    assert!(
        far.findings.iter().any(|one| one.message == "low.1 and high.1 stand 8 mm apart: too far to weld"),
        "{:?}",
        far.findings
    );
    let sunk = sound(crossing("43 mm"));
    assert!(clash(&sunk) > 0.0 && sunk.into_frame().unwrap().welds.is_empty());
}

#[test]
fn a_channel_touches_with_its_flange_tips_and_its_back() {
    let beside = |roll: &str, across: &str| {
        json!([
            {"name": "one", "do": {"path": {"start": {}, "legs": [{"by": {"x": "400 mm"}}]}}},
            {"name": "two", "do": {"path": {"start": {"y": across}, "legs": [{"by": {"x": "400 mm"}}]}}},
            {"name": "channel", "do": {"member": {"lines": ["one"], "section": "UPE 100", "roll": roll}}},
            {"name": "bar", "do": {"member": {"lines": ["two"], "section": "FL 120x10"}}},
        ])
    };
    let length = |operations: Value| {
        let outcome = sound(operations);
        let welds = outcome.into_frame().unwrap().welds;
        // Fillets where one goes on, butts at the ends, where both stop.
        welds.iter().map(|weld| weld.length).sum::<f64>()
    };
    // Along x with up upward the section's left is -y: the back touches a flat at -y over 100 x 400, the two flange tips
    // (7.5 each) one at +y.
    let (side, other) = (-(27.5 + 5.0), 27.5 + 5.0);
    near(length(beside("0 deg", &format!("{side} mm"))), 2.0 * (100.0 + 400.0));
    near(length(beside("0 deg", &format!("{other} mm"))), 2.0 * 2.0 * (7.5 + 400.0));
}

#[test]
fn plates_are_held_against_plates_and_bent_ones_against_members() {
    let with = |plates: Value| {
        let mut all = bar("SHS 50x50x3", json!([]));
        all.as_array_mut().unwrap().extend(plates.as_array().unwrap().iter().cloned());
        sound(all)
    };
    let plate = |name: &str, at: &str, width: &str, work: Value| {
        json!({"name": name, "do": {"plate": {"thickness": "6 mm", "work": work, "kind": {"face": {
        "of": ["bar"], "face": "top", "at": at, "shape": {"rectangle": {"width": width, "depth": "80 mm"}}}}}}})
    };
    let told = |outcome: &Outcome| -> Vec<String> {
        outcome.breaches.iter().filter(|one| one.rule == "member_clash").map(|one| one.message.clone()).collect()
    };
    // Side by side they touch and nothing is told; 10 nearer they share 10 x 80 x 6.
    let apart = with(json!([plate("a", "200 mm", "100 mm", json!([])), plate("b", "300 mm", "100 mm", json!([]))]));
    assert!(told(&apart).is_empty(), "{:?}", told(&apart));
    let over = with(json!([plate("a", "200 mm", "100 mm", json!([])), plate("b", "290 mm", "100 mm", json!([]))]));
    assert_eq!(told(&over), ["b runs into a: 4.8 cm3 of both"]);
    // A flange bent down beside the tube, which is 50 wide: from a plate 80 deep it passes it, from one 40 deep it runs into
    // its side.
    let flanged = |depth: &str| {
        let mut all = plate(
            "shoe",
            "500 mm",
            "100 mm",
            json!([
                {"name": "side", "do": {"bend": {"edge": "base.front", "leg": "40 mm", "angle": "90 deg", "direction": "down", "radius": "6 mm"}}},
            ]),
        );
        all["do"]["plate"]["kind"]["face"]["shape"]["rectangle"]["depth"] = json!(depth);
        with(json!([all]))
    };
    let outcome = flanged("80 mm");
    assert_eq!(outcome.frame().unwrap().made.frame.plates[0].part.flat.bends.len(), 1);
    assert!(told(&outcome).is_empty(), "{:?}", told(&outcome));
    let words = told(&flanged("40 mm"));
    assert!(words.len() == 1 && words[0].starts_with("shoe runs into run.1"), "{words:?}");
}

#[test]
fn a_piece_is_pictured_with_its_cutouts() {
    let outcome = sound(bar("UPE 100", json!([notch("start", "top", json!({"depth": "30 mm", "length": "40 mm"}))])));
    let picture = piece_picture(member(&outcome, "run.1"));
    let corners: Vec<(f64, f64)> = picture.outline.iter().map(|at| (at.x, at.y)).collect();
    assert_eq!(corners, [(0.0, 0.0), (1000.0, 0.0), (1000.0, 100.0), (40.0, 100.0), (40.0, 70.0), (0.0, 70.0)]);
    assert_eq!((picture.broken, picture.size), (None, (1000.0, 100.0)));
    // A long one is broken in its plain middle, its ends as they are.
    let slot = json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "4000 mm"}}]}}},
        {"name": "bar", "do": {"member": {"lines": ["run"], "section": "FL 60x10"}}},
        notch("finish", "left", json!({"width": "8 mm", "length": "50 mm"})),
    ]);
    let picture = piece_picture(member(&sound(slot), "run.1"));
    assert_eq!(picture.broken, Some(330.0), "eleven times its depth");
    let far: Vec<f64> = picture.outline.iter().filter(|at| at.y > 20.0 && at.y < 40.0).map(|at| at.x).collect();
    assert_eq!(far, [660.0, 610.0, 610.0, 660.0]);
}

#[test]
fn a_plane_only_shortens_unless_it_is_told_to_grow_and_two_make_a_point() {
    let cut = |name: &str, more: Value| {
        let mut plane = json!({"axis": "x"});
        plane.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        json!({"name": name, "do": {"end": {"of": ["bar"], "at": "finish", "how": {"plane": plane}}}})
    };
    let length = |work: Value| member(&sound(bar("FL 60x10", work)), "run.1").length();
    near(length(json!([cut("a", json!({"at": "800 mm"}))])), 800.0);
    near(length(json!([cut("a", json!({"at": "1200 mm"}))])), 1000.0);
    near(length(json!([cut("a", json!({"at": "1200 mm", "grows": true}))])), 1200.0);
    near(length(json!([cut("a", json!({"at": "800 mm"})), cut("b", json!({"at": "900 mm"}))])), 800.0);
    // A bar that rises at 45 deg, cut level at 500 and upright at 480: a point where the two planes meet.
    let rising = json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "700 mm", "z": "700 mm"}}]}}},
        {"name": "bar", "do": {"member": {"lines": ["run"], "section": "FL 60x10"}}},
        cut("upright", json!({"at": "480 mm"})),
        cut("level", json!({"axis": "z", "at": "480 mm"})),
    ]);
    let outcome = sound(rising);
    let tip = member(&outcome, "run.1");
    assert_eq!(tip.ends[1].planes.len(), 2);
    // Along the bar the tip lies at 480 sqrt 2; its sides at 30 to each side of it are 30 shorter.
    near(tip.reach(OneEnd::Finish).0 + 700.0 * 2f64.sqrt(), 480.0 * 2f64.sqrt());
    near(tip.reach(OneEnd::Finish).0 - tip.reach(OneEnd::Finish).1, 30.0);
    // 10 thick: 60 x the middle's length, less two triangles of 30 by 30.
    assert!((tip.volume() - 10.0 * (60.0 * 480.0 * 2f64.sqrt() - 900.0)).abs() < 1.0, "{}", tip.volume());
}

#[test]
fn a_leg_under_two_rails_is_welded_to_both() {
    // Two rails mitred over a leg that is cut to both their undersides, which lie in one plane.
    let outcome = sound(json!([
        {"name": "rails", "do": {"path": {"start": {"x": "500 mm", "z": "600 mm"}, "legs": [{"by": {"x": "-500 mm"}}, {"by": {"y": "400 mm"}}]}}},
        {"name": "leg", "do": {"path": {"start": {}, "legs": [{"by": {"z": "600 mm"}}]}}},
        {"name": "tubes", "do": {"member": {"lines": ["rails"], "section": "SHS 40x40x3"}}},
        {"name": "post", "do": {"member": {"lines": ["leg"], "section": "SHS 40x40x3"}}},
        {"name": "joint", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}},
    ]));
    let frame = outcome.frame().unwrap();
    let leg = member(&outcome, "leg.1");
    assert_eq!((leg.ends[1].planes.len(), leg.ends[1].planes[0].to.len()), (1, 2));
    let own: Vec<_> = frame.welds.iter().filter(|weld| weld.parts.contains(&"leg.1".into())).collect();
    let others: std::collections::BTreeSet<&str> =
        own.iter().flat_map(|weld| weld.parts.iter().map(String::as_str)).filter(|name| *name != "leg.1").collect();
    assert_eq!(others.len(), 2, "{:#?}", frame.welds);
    // Seen from below, rail A lies along +x with its flat over y from -14 to 14, B along +y, parted by the line x = y. The leg's
    // flats of 28 on the two far sides are fillets; along the rails' flats, which turn away, 6 inside and 34 outside each. The
    // line over the mitre, which both have, is nobody's.
    let of = |kind: WeldKind| own.iter().filter(|weld| weld.kind == kind).map(|weld| weld.length).sum::<f64>();
    near(of(WeldKind::Fillet), 2.0 * 28.0);
    near(of(WeldKind::Flare), 2.0 * (6.0 + 34.0));
    near(of(WeldKind::Butt), 0.0);
}
