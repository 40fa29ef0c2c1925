//! Frames against sizes worked out by hand.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::frame::WeldKind;
use steelk_core::frame::{FrameLine, cut_perimeter};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::work::frame::OneEnd;
use steelk_core::work::measure::{FrameMeasure, OfEnd};

fn frame(operations: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

#[track_caller]
fn built(operations: Value) -> Outcome {
    let outcome = evaluate(&frame(operations), Options::default());
    let errors: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    assert!(errors.is_empty(), "{errors:?}");
    outcome
}

fn lines(outcome: &Outcome) -> &[FrameLine] {
    &outcome.frame().unwrap().made.list.lines
}

#[track_caller]
fn line<'a>(outcome: &'a Outcome, member: &str) -> &'a FrameLine {
    let found = lines(outcome).iter().find(|line| line.members.iter().any(|name| name == member));
    found.unwrap_or_else(|| panic!("no line has {member}: {:?}", lines(outcome)))
}

fn clash_free(outcome: &Outcome) {
    let frame = outcome.frame().unwrap();
    assert!(frame.clashes.is_empty(), "{:?}", frame.clashes);
}

fn near(one: f64, two: f64) {
    assert!((one - two).abs() < 1e-6, "{one} is not {two}");
}

fn rectangle(joint: Value) -> Value {
    json!([
        {"name": "rect", "do": {"ready": {"kind": "rectangle", "sizes": {"width": "1000 mm", "depth": "600 mm"}}}},
        {"name": "sides", "do": {"member": {"lines": ["rect"], "section": "SHS 50x50x3"}}},
        {"name": "corners", "do": {"joint": joint}},
    ])
}

#[test]
fn a_mitred_rectangle() {
    let outcome = built(rectangle(json!({"at": "corners", "how": {"mitre": {}}})));
    assert_eq!(lines(&outcome).len(), 2);
    let front = line(&outcome, "rect.front");
    assert_eq!(front.quantity, 2);
    // Centre line and half the section at each end; the inside is as much shorter.
    near(front.length, 1050.0);
    near(front.short_length, 950.0);
    near(front.centroid_length, 1000.0);
    near(front.ends[0].angle.to_degrees(), 45.0);
    near(front.ends[1].angle.to_degrees(), 45.0);
    assert_eq!(front.between, "long points on one side");
    assert_eq!(front.ends[0].text, "45 deg");
    // EN 10219-2: 5.41 cm2, 4.25 kg/m.
    assert!((front.mass_each - 4.25).abs() < 0.01, "{}", front.mass_each);
    clash_free(&outcome);
}

#[test]
fn a_butted_rectangle_either_way() {
    let outcome = built(rectangle(json!({"at": "corners", "how": {"butt": {"through": ["rect.front", "rect.back"]}}})));
    near(line(&outcome, "rect.front").length, 1050.0);
    near(line(&outcome, "rect.right").length, 550.0);
    assert_eq!(line(&outcome, "rect.front").ends[0].text, "square");
    clash_free(&outcome);
    let other = built(rectangle(
        json!({"at": "corners", "how": {"butt": {"through": ["rect.right", "rect.left"], "gap": "2 mm"}}}),
    ));
    near(line(&other, "rect.front").length, 1000.0 - 50.0 - 4.0);
    near(line(&other, "rect.right").length, 650.0);
    clash_free(&other);
}

#[test]
fn a_mitre_of_unequal_depths_takes_both_whole() {
    // RHS 100x50 lying: 50 wide in the plane; the right side is 100 wide in the plane.
    let outcome = built(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}, {"by": {"y": "800 mm"}}]}}},
        {"name": "thin", "do": {"member": {"lines": ["run.1"], "section": "RHS 100x50x4"}}},
        {"name": "thick", "do": {"member": {"lines": ["run.2"], "section": "RHS 100x50x4", "roll": "90 deg"}}},
        {"name": "corner", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}},
    ]));
    let (thin, thick) = (line(&outcome, "run.1"), line(&outcome, "run.2"));
    // The cut runs from corner to corner: tan = 100 / 50 across the thin one.
    near(thin.ends[1].angle.to_degrees(), 2f64.atan().to_degrees());
    near(thick.ends[0].angle.to_degrees(), 0.5f64.atan().to_degrees());
    near(thin.length, 1050.0);
    near(thick.length, 825.0);
    clash_free(&outcome);
}

#[test]
fn an_unsettled_corner_is_told_and_clashes() {
    let mut operations = rectangle(json!({"at": "corners", "how": {"mitre": {}}}));
    operations.as_array_mut().unwrap().pop();
    let outcome = built(operations);
    let broken: Vec<&str> = outcome.breaches.iter().map(|breach| breach.rule.as_str()).collect();
    assert_eq!(broken.iter().filter(|rule| **rule == "member_clash").count(), 4);
    assert_eq!(broken.iter().filter(|rule| **rule == "joint_settled").count(), 4);
    // Two tubes of 50 x 3 that end at a node share their two walls' crossing inside a quarter of 25 x 25:
    // known by another way: sample the quarter's height.
    let clash = &outcome.frame().unwrap().clashes[0];
    let within = |u: f64, v: f64| {
        let (a, b) = (u.abs(), v.abs());
        let corner = |half: f64, radius: f64| {
            let (x, y) = (a - (half - radius), b - (half - radius));
            a <= half && b <= half && (x <= 0.0 || y <= 0.0 || x.hypot(y) <= radius)
        };
        corner(25.0, 6.0) && !corner(22.0, 3.0)
    };
    // Members fill x from the node inward (25 mm of the other), y likewise; both have the same z.
    let (steps, mut sum) = (100, 0.0);
    let cell = 25.0 / f64::from(steps);
    for i in 0..steps {
        for j in 0..steps {
            for k in 0..(2 * steps) {
                let at = |n: i32| (f64::from(n) + 0.5) * cell;
                let (x, y, z) = (at(i), at(j), -25.0 + at(k));
                if within(y, z) && within(x, z) {
                    sum += cell.powi(3);
                }
            }
        }
    }
    assert!((clash.volume - sum).abs() / sum < 0.01, "{} {sum}", clash.volume);
}

#[test]
fn a_table_has_its_legs_under_its_top() {
    let outcome = built(json!([
        {"name": "table", "do": {"ready": {"kind": "table", "sizes": {"width": "1200 mm", "depth": "700 mm", "height": "850 mm", "rail": "150 mm"}}}},
        {"name": "top", "do": {"member": {"lines": ["table.top*"], "section": "SHS 40x40x3"}}},
        {"name": "legs", "do": {"member": {"lines": ["table.leg*"], "section": "SHS 40x40x3"}}},
        {"name": "rails", "do": {"member": {"lines": ["table.rail*"], "section": "SHS 30x30x2"}}},
        {"name": "corners", "do": {"joint": {"at": "all", "how": {"mitre": {}}}}},
    ]));
    clash_free(&outcome);
    assert_eq!(lines(&outcome).len(), 5, "{:#?}", lines(&outcome));
    near(line(&outcome, "table.leg-1").length, 850.0 - 20.0);
    assert_eq!(line(&outcome, "table.leg-1").quantity, 4);
    near(line(&outcome, "table.rail-front").length, 1200.0 - 40.0);
    near(line(&outcome, "table.top-front").length, 1240.0);
    assert!(outcome.breaches.is_empty(), "{:?}", outcome.breaches);
}

#[test]
fn a_pitched_truss_by_trigonometry() {
    let (span, rise) = (4000.0f64, 1000.0f64);
    let outcome = built(json!([
        {"name": "truss", "do": {"ready": {"kind": "pitched_truss", "lies": "across", "sizes": {"span": "4000 mm", "rise": "1000 mm", "bays": "1"}}}},
        {"name": "chords", "do": {"member": {"lines": ["truss.left", "truss.right"], "section": "SHS 60x60x3"}}},
        {"name": "tie", "do": {"member": {"lines": ["truss.tie"], "section": "SHS 60x60x3"}}},
        {"name": "king", "do": {"member": {"lines": ["truss.king"], "section": "SHS 60x60x3"}}},
        {"name": "corners", "do": {"joint": {"at": "all", "how": {"mitre": {}}}}},
    ]));
    let slope = rise.atan2(span / 2.0);
    let length = (span / 2.0).hypot(rise);
    let chord = line(&outcome, "truss.left");
    assert_eq!(chord.quantity, 2);
    // At the foot it mitres with the tie: half of the slope from square is 90 - slope / 2; at the peak: 90 - (90 - slope).
    near(chord.ends[0].angle, std::f64::consts::FRAC_PI_2 - slope / 2.0);
    near(chord.ends[1].angle, slope);
    // The long points are on the outside at both ends.
    near(chord.length, length + 30.0 / (slope / 2.0).tan() + 30.0 * slope.tan());
    near(chord.short_length, length - 30.0 / (slope / 2.0).tan() - 30.0 * slope.tan());
    // The king stands on the tie and is pointed under the two chords.
    let king = line(&outcome, "truss.king");
    assert!(king.ends[1].text.starts_with("point"), "{}", king.ends[1].text);
    near(king.length, rise - 30.0 - 30.0 / slope.cos());
    near(king.ends[1].angle, slope);
    near(line(&outcome, "truss.tie").length, span + 2.0 * 30.0 / (slope / 2.0).tan());
    clash_free(&outcome);
}

#[test]
fn a_pyramid_meets_at_its_peak_in_compound_mitres() {
    // Four hips of a square pyramid: a = half of the base's diagonal, h high. Each is cut by the planes to its two
    // neighbours. For neighbours at 90 deg in plan, the plane between bisects the plan angle: its normal is level, at
    // 45 deg to the hip's plan direction; from the hip's axis it stands at acos(cos(hip) / sqrt 2) from square
    // (compound mitre: dihedral of a plan bisector, standard geometry).
    let outcome = built(json!([
        {"name": "peak", "do": {"node": {"at": {"x": "0 mm", "y": "0 mm", "z": "800 mm"}}}},
        {"name": "hips", "do": {"path": {"start": {"x": "600 mm"}, "legs": [{"to": {"place": {"from": "peak"}}}]}}},
        {"name": "round", "do": {"copy": {"of": ["hips"], "how": {"turn": {"axis": "z", "angle": "90 deg", "count": "3"}}}}},
        {"name": "bars", "do": {"member": {"lines": ["hips", "round"], "section": "SQ 40"}}},
        {"name": "top", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}},
    ]));
    clash_free(&outcome);
    let hip = 800f64.atan2(600.0);
    assert_eq!(lines(&outcome).len(), 1, "{:#?}", lines(&outcome));
    let bar = &lines(&outcome)[0];
    assert_eq!(bar.quantity, 4);
    let wanted = (hip.cos() / 2f64.sqrt()).acos();
    near(bar.ends[1].angle, wanted);
    // Mitre and tilt of that plane in the section's own axes: across tan = cos 45 / (cos hip cos 45), up tan = tan hip.
    near(bar.ends[1].mitre.abs(), (1.0 / hip.cos()).atan());
    near(bar.ends[1].tilt.abs(), hip.tan().atan());
    near(bar.centroid_length, 1000.0);
    // A square bar cut to a ridge by two planes that meet over its middle: area x length less what the two slopes take,
    // of which the mean over the section is E|u| / cos(hip) beyond ... counted from the centre line: 40 / 4 / cos(hip).
    let volume = bar.mass_each / 7850e-9;
    let tip = 10.0 / hip.cos();
    let lateral = 0.0;
    assert!((volume - 1600.0 * (1000.0 - tip - lateral)).abs() / volume < 1e-5, "{volume}");
}

#[test]
fn a_tube_coped_on_a_tube_by_the_closed_formula() {
    let (small, large) = (48.3 / 2.0, 60.3 / 2.0);
    for degrees in [90.0, 60.0, 45.0f64] {
        let a = degrees.to_radians();
        let outcome = built(json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}},
            {"name": "mid", "do": {"divide": {"line": "run.1", "into": "2"}}},
            {"name": "branch", "do": {"path": {"start": {"from": "mid.1"}, "legs": [
                {"by": {"x": format!("500 mm * cos({degrees} deg)"), "z": format!("500 mm * sin({degrees} deg)")}}]}}},
            {"name": "rail", "do": {"member": {"lines": ["run"], "section": "CHS 60.3x3.2"}}},
            {"name": "post", "do": {"member": {"lines": ["branch"], "section": "CHS 48.3x3.2"}}},
            {"name": "tee", "do": {"joint": {"at": "tees", "how": {"trim": {}}}}},
        ]));
        clash_free(&outcome);
        let members = &outcome.frame().unwrap().made.frame.members;
        let branch = members.iter().find(|member| member.name == "branch.1").unwrap();
        // z(p) = r cos p / tan a + sqrt(R^2 - r^2 sin^2 p) / sin a along the branch, p from the crotch's side.
        let mut most = f64::NEG_INFINITY;
        for step in 0..36 {
            let p = f64::from(step) * 10f64.to_radians();
            let z = small * p.cos() / a.tan() + (large * large - (small * p.sin()).powi(2)).sqrt() / a.sin();
            // p = 0 looks along the run on the sharp side.
            let run = steelk_core::space::Vector3::new(1.0, 0.0, 0.0);
            let basis = branch.start;
            let toward = (run - basis.w * run.dot(basis.w)).unit();
            let beside = basis.w.cross(toward);
            let arm = toward * (small * p.cos()) + beside * (small * p.sin());
            let at = steelk_core::plane::Point::new(arm.dot(basis.u), arm.dot(basis.v));
            assert!((branch.begins(at) - z).abs() < 1e-9, "{degrees} {step}: {} {z}", branch.begins(at));
            most = most.max(z);
        }
        assert!(cut_perimeter(branch, OneEnd::Start) > std::f64::consts::PI * 48.3);
        assert!(line(&outcome, "branch.1").ends[0].text.starts_with("cope on dia 60.3"));
    }
}

#[test]
fn a_bent_hoop_is_as_long_as_its_centroid_arc() {
    let outcome = built(json!([
        {"name": "hoop", "do": {"path": {"start": {"x": "-300 mm"}, "legs": [
            {"by": {"z": "200 mm"}},
            {"arc": {"place": {"x": "300 mm", "z": "200 mm"}, "how": {"radius": {"radius": "300 mm", "toward": "up"}}}},
            {"by": {"z": "-200 mm"}}]}}},
        {"name": "pipe", "do": {"member": {"lines": ["hoop"], "section": "CHS 33.7x2.6", "grip": "100 mm"}}},
    ]));
    assert_eq!(lines(&outcome).len(), 1, "{:#?}", lines(&outcome));
    let hoop = &lines(&outcome)[0];
    near(hoop.length, 400.0 + std::f64::consts::PI * 300.0 + 200.0);
    near(hoop.centroid_length, 400.0 + std::f64::consts::PI * 300.0);
    assert!(hoop.work.contains("bent R300 through 180 deg") && hoop.work.contains("grip 100 mm"), "{}", hoop.work);
    // Pappus: the section's area times the way of its centroid.
    let area = std::f64::consts::PI * (33.7 - 2.6) * 2.6;
    assert!((hoop.mass_each - area * hoop.centroid_length * 7850e-9).abs() < 1e-9);
    // Drawn volume, by chords, within a hundredth.
    let drawn = outcome.mesh.volume();
    assert!((drawn - area * hoop.centroid_length).abs() / drawn < 0.01, "{drawn}");
    assert!(outcome.breaches.is_empty(), "{:?}", outcome.breaches);
}

#[test]
fn a_fillet_between_lines_makes_one_bent_member() {
    let outcome = built(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "500 mm"}}, {"by": {"y": "400 mm"}}]}}},
        {"name": "soft", "do": {"round": {"node": "run.n2", "radius": "150 mm"}}},
        {"name": "rail", "do": {"member": {"lines": ["run", "soft"], "section": "CHS 42.4x2.6"}}},
    ]));
    assert_eq!(lines(&outcome).len(), 1);
    near(lines(&outcome)[0].length, 350.0 + 250.0 + 150.0 * std::f64::consts::FRAC_PI_2);
}

#[test]
fn mirrored_halves_join_and_hands_are_told() {
    // An angle on a slope, mirrored about x: opposite hand, since no turn brings one onto the other.
    let outcome = built(json!([
        {"name": "half", "do": {"path": {"start": {"x": "0 mm"}, "legs": [{"by": {"x": "500 mm"}}, {"by": {"x": "100 mm", "y": "300 mm"}}]}}},
        {"name": "bar", "do": {"member": {"lines": ["half.1"], "section": "SHS 40x40x3"}}},
        {"name": "arm", "do": {"member": {"lines": ["half.2"], "section": "L 60x40x5"}}},
        {"name": "angled", "do": {"end": {"of": ["half.2"], "at": "finish", "how": {"angle": {"angle": "20 deg"}}}}},
        {"name": "both", "do": {"copy": {"how": {"mirror": {"axis": "x"}}}}},
        {"name": "angled-too", "do": {"end": {"of": ["both.half-2"], "at": "finish", "how": {"angle": {"angle": "-20 deg"}}}}},
    ]));
    // The bar crosses the plane and is one, 1000 long.
    near(line(&outcome, "half.1").length, 1000.0);
    assert_eq!(line(&outcome, "half.1").quantity, 1);
    let (one, two) = (line(&outcome, "half.2"), line(&outcome, "both.half-2"));
    assert_ne!(one.mark, two.mark);
    assert_eq!(one.opposite_of.as_deref(), Some(two.mark.as_str()));
    assert_eq!(two.opposite_of.as_deref(), Some(one.mark.as_str()));
    near(one.mass_each, two.mass_each);
}

#[test]
fn plates_sit_where_their_members_are() {
    let outcome = built(json!([
        {"name": "post", "do": {"path": {"start": {}, "legs": [{"by": {"z": "1000 mm"}}, {"by": {"x": "600 mm"}}]}}},
        {"name": "tube", "do": {"member": {"lines": ["post"], "section": "SHS 60x60x4"}}},
        {"name": "corner", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}},
        {"name": "gusset", "do": {"plate": {"thickness": "6 mm", "kind": {"gusset": {"between": ["post.1", "post.2"], "first": "100 mm", "second": "120 mm", "corner": "15 mm", "tips": "10 mm"}}}}},
        {"name": "foot", "do": {"plate": {"thickness": "10 mm", "kind": {"base": {"of": ["post.1"], "at": "start", "within": true, "shape": {"rectangle": {"width": "140 mm", "depth": "140 mm"}}}},
            "work": [{"name": "bolts", "do": {"drill": {"panel": "base", "diameter": "14 mm", "place": {"from": [{"edge": "base.left", "distance": "20 mm"}, {"edge": "base.front", "distance": "20 mm"}]}, "repeat": [{"count": "2", "spacing": "100 mm"}, {"count": "2", "spacing": "100 mm"}]}}}]}}},
        {"name": "cap", "do": {"end": {"of": ["post.2"], "at": "finish", "how": {"cap": {"thickness": "4 mm"}}}}},
    ]));
    let frame = &outcome.frame().unwrap().made.frame;
    assert_eq!(frame.plates.len(), 3);
    let gusset = &frame.plates[0];
    // Legs 120 x 100, less the triangle of the corner, less what the blunt tips change: a polygon by hand.
    let corners = [(15.0, 0.0), (100.0, 0.0), (100.0, 10.0), (10.0, 120.0), (0.0, 120.0), (0.0, 15.0)];
    let area: f64 = (0..6)
        .map(|at| {
            let ((a, b), (c, d)): ((f64, f64), (f64, f64)) = (corners[at], corners[(at + 1) % 6]);
            (a * d - b * c) / 2.0
        })
        .sum();
    near(gusset.part.blank.region.area(), area);
    // In the inner corner: below the upper bar, right of the post, in the middle of both.
    let place = gusset.centre_of_gravity();
    assert!(place.x > 30.0 && place.x < 150.0 && place.z < 970.0 && place.z > 850.0, "{place:?}");
    near(place.y, 0.0);
    let foot = &frame.plates[1];
    let at = foot.centre_of_gravity();
    near(at.z, 5.0);
    near(at.x, 0.0);
    // The post is shorter by its foot.
    near(line(&outcome, "post.1").length, 1030.0 - 10.0);
    near(frame.plates[2].centre_of_gravity().x, 602.0);
    let plates = frame_plates(&outcome);
    assert_eq!(plates, vec!["gusset", "base plate", "end cap"]);
    let welds = &outcome.frame().unwrap().welds;
    assert!(welds.iter().any(|weld| weld.kind == WeldKind::ButtOnMitre));
    assert!(welds.iter().all(|weld| weld.length > 0.0 && weld.leg >= 3.0));
}

fn frame_plates(outcome: &Outcome) -> Vec<&str> {
    lines(outcome).iter().filter(|line| line.kind.word() != "member").map(|line| line.kind.word()).collect()
}

#[test]
fn a_panel_fills_the_opening_with_its_clearance() {
    let mut operations = rectangle(json!({"at": "corners", "how": {"mitre": {}}}));
    operations.as_array_mut().unwrap().push(json!(
        {"name": "floor", "do": {"plate": {"thickness": "3 mm", "kind": {"panel": {"between": ["rect.front", "rect.right", "rect.back", "rect.left"], "clearance": "2 mm"}}}}}
    ));
    let outcome = built(operations);
    let plate = &outcome.frame().unwrap().made.frame.plates[0];
    let around = plate.part.blank.extents();
    near(around.width(), 1000.0 - 50.0 - 4.0);
    near(around.height(), 600.0 - 50.0 - 4.0);
    near(plate.centre_of_gravity().z, 0.0);
}

#[test]
fn a_plate_as_thick_as_a_house_is_refused_with_its_value() {
    let mut operations = rectangle(json!({"at": "corners", "how": {"mitre": {}}}));
    operations.as_array_mut().unwrap().push(json!(
        {"name": "floor", "do": {"plate": {"thickness": "3 mm", "kind": {"panel": {"between": ["rect.front", "rect.right", "rect.back", "rect.left"], "clearance": "2 mm"}}}}}
    ));
    for (thickness, said) in [("1000 m", "1000000 mm"), ("201 mm", "201 mm")] {
        operations.as_array_mut().unwrap().last_mut().unwrap()["do"]["plate"]["thickness"] = json!(thickness);
        let outcome = evaluate(&frame(operations.clone()), Options::default());
        let wanted = format!("a thickness of {said} is no plate: up to 200 mm is");
        assert!(outcome.findings.iter().any(|one| one.message == wanted), "{:?}", outcome.findings);
        assert!(outcome.into_frame().unwrap().made.frame.plates.is_empty());
    }
}

#[test]
fn holes_and_notches_are_weighed_and_listed() {
    let plain = json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}},
        {"name": "bar", "do": {"member": {"lines": ["run"], "section": "RHS 60x40x3"}}},
    ]);
    let whole = line(&built(plain.clone()), "run.1").mass_each;
    let mut operations = plain;
    operations.as_array_mut().unwrap().push(json!(
        {"name": "bolts", "do": {"bore": {"of": ["bar"], "face": "top", "diameter": "11 mm", "at": "50 mm", "count": "3", "spacing": "100 mm"}}}
    ));
    let outcome = built(operations);
    let bored = line(&outcome, "run.1");
    // Three holes through two walls of 3 mm each.
    near(whole - bored.mass_each, 3.0 * 2.0 * 3.0 * std::f64::consts::PI * 11.0 * 11.0 / 4.0 * 7850e-9);
    assert_eq!(bored.work, "3 x dia 11 hole through");
}

#[test]
fn measures_are_of_what_is_built() {
    let mut piece = frame(rectangle(json!({"at": "corners", "how": {"mitre": {}}})));
    let call = |name: &str, value: &str, measure: Value| json!({"name": name, "text": name, "value": value, "measure": {"frame": measure}});
    piece.callouts = serde_json::from_value(json!([
        call("A", "1050 mm", json!({"overall": {"along": "x"}})),
        call("B", "650 mm", json!({"overall": {"along": "y"}})),
        call("C", "0 mm", json!({"diagonals": {"one": ["rect.n1", "rect.n3"], "two": ["rect.n2", "rect.n4"]}})),
        call("D", "550 mm", json!({"opening": {"from": "rect.front", "to": "rect.back"}})),
        call("E", "90 deg", json!({"between": {"from": "rect.front", "to": "rect.right"}})),
        call("F", "1051 mm", json!({"member_length": {"member": "rect.front"}})),
    ]))
    .unwrap();
    let outcome = evaluate(&piece, Options::default());
    let verdicts: Vec<String> = outcome.callouts.iter().map(|proof| format!("{:?}", proof.verdict)).collect();
    assert_eq!(verdicts, ["Holds", "Holds", "Holds", "Holds", "Holds", "Off"], "{:#?}", outcome.callouts);
    let made = &outcome.frame().unwrap().made;
    let angle = made.measure(&FrameMeasure::EndAngle(OfEnd { member: "rect.front".into(), finish: true })).unwrap();
    near(angle.value.to_degrees(), 45.0);
    assert!(made.measure(&FrameMeasure::EndAngle(OfEnd { member: "rect.none".into(), finish: true })).is_err());
}

#[test]
fn mistakes_are_told_with_their_place() {
    let fault = |operations: Value| {
        let outcome = evaluate(&frame(operations), Options::default());
        outcome.findings.into_iter().find(|one| one.severity == Severity::Error).expect("an error")
    };
    let none = fault(json!([{"name": "m", "do": {"member": {"lines": ["x"], "section": "SHS 50x50x3"}}}]));
    assert!(none.message.contains("no line called x"), "{none:?}");
    let rect = json!({"name": "rect", "do": {"ready": {"kind": "rectangle", "sizes": {"width": "1000 mm", "depth": "600 mm"}}}});
    let bad = fault(json!([rect, {"name": "m", "do": {"member": {"lines": ["rect"], "section": "SHS 50"}}}]));
    assert_eq!(bad.field.as_deref(), Some("section"));
    let angle = fault(
        json!([{"name": "rect", "do": {"ready": {"kind": "rectangle", "sizes": {"width": "90 deg", "depth": "600 mm"}}}}]),
    );
    assert_eq!(angle.field.as_deref(), Some("sizes.width"));
    let sheet = fault(
        json!([{"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "10 mm", "depth": "10 mm"}}}}}]),
    );
    assert!(sheet.message.contains("this is a frame"), "{sheet:?}");
    let tight = fault(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "100 mm"}}, {"by": {"y": "400 mm"}}]}}},
        {"name": "soft", "do": {"round": {"node": "run.n2", "radius": "150 mm"}}},
    ]));
    assert!(tight.message.contains("needs 150.000 mm"), "{tight:?}");
}

#[test]
fn welds_are_as_long_as_the_sections_round() {
    let outcome = built(rectangle(json!({"at": "corners", "how": {"mitre": {}}})));
    let welds = &outcome.frame().unwrap().welds;
    // One weld a corner, not two; the section's outline on a plane at 45 deg: two sides as they are, two longer by sqrt 2,
    // and the four corners as quarters of ellipses.
    assert_eq!(welds.len(), 4);
    let (flat, corner) = (50.0 - 2.0 * 6.0, 6.0);
    let quarter: f64 = (0..100_000)
        .map(|at| {
            let p = (f64::from(at) + 0.5) / 100_000.0 * std::f64::consts::FRAC_PI_2;
            (1.0 + p.sin().powi(2)).sqrt() * corner * std::f64::consts::FRAC_PI_2 / 100_000.0
        })
        .sum();
    let around = 2.0 * flat + 2.0 * flat * 2f64.sqrt() + 4.0 * quarter;
    assert!((welds[0].length - around).abs() < 0.01, "{} {around}", welds[0].length);
    // Through a wall of 3 mm.
    assert_eq!((welds[0].leg, welds[0].symbol.as_str()), (3.0, "s3 butt on the mitre all round"));
    // AWS D1.1 practice: the thicker part decides, the thinner edge limits (handbook).
    for (thicker, thinner, leg) in
        [(3.0, 3.0, 3.0), (6.0, 4.0, 3.0), (10.0, 8.0, 5.0), (20.0, 12.0, 6.0), (25.0, 10.0, 8.0), (12.0, 2.0, 2.0)]
    {
        assert_eq!(
            steelk_core::frame::fillet_leg(thicker, thinner, steelk_core::quantity::LengthUnit::Mm),
            leg,
            "{thicker} {thinner}"
        );
    }
}

#[test]
fn a_lug_has_its_review_figures_by_hand() {
    // A lug 12 thick, hole 22, crown R 28, pin 19, Fy 275, Fu 410, Nd 3 (handbook, ASME BTH-1 3-3.3, from memory).
    let outcome = built(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}},
        {"name": "bar", "do": {"member": {"lines": ["run"], "section": "SHS 60x60x4"}}},
        {"name": "lug", "do": {"plate": {"thickness": "12 mm", "kind": {"face": {"of": ["bar"], "face": "top", "at": "400 mm", "stands": "along",
            "shape": {"lug": {"base": "80 mm", "height": "45 mm", "radius": "28 mm", "hole": "22 mm"}},
            "lifts": {"pin": "19 mm", "load": "250 kg", "yield_strength": "275", "tensile_strength": "410", "design_factor": "3"}}}}}},
    ]));
    let plate = &outcome.frame().unwrap().made.frame.plates[0];
    let lug = plate.lug.as_ref().unwrap();
    // Beside the hole the crown is 28 from its centre: be 17; beff is the least of 48, 17 and 0.6 x 17 x 410/275 x sqrt(22/17).
    let effective = (0.6 * 17.0 * 410.0 / 275.0 * (22.0f64 / 17.0).sqrt()).min(17.0);
    let cr = 1.0 - 0.275 * (1.0 - (19.0f64 / 22.0).powi(2)).sqrt();
    let base = 410.0 / (1.2 * 3.0);
    near(lug.load, 250.0 * 9.80665 / 1000.0);
    assert!((lug.tension - cr * base * 2.0 * 12.0 * effective / 1000.0).abs() < 0.05, "{}", lug.tension);
    let fracture = cr * base * (1.13 * 17.0 + 0.92 * 17.0 / (1.0 + 17.0 / 22.0)) * 12.0 / 1000.0;
    assert!((lug.fracture - fracture).abs() < 0.05, "{} {fracture}", lug.fracture);
    let phi = (55.0f64 * 19.0 / 22.0).to_radians();
    let shear = 0.7 * base * 2.0 * (17.0 + 9.5 * (1.0 - phi.cos())) * 12.0 / 1000.0;
    assert!((lug.shear - shear).abs() < 0.05, "{} {shear}", lug.shear);
    // Bearing: 1.25 Fy Dp t / Nd.
    near(lug.bearing, 1.25 * 275.0 * 19.0 * 12.0 / 3.0 / 1000.0);
    assert!(lug.whys.len() == 4 && lug.whys[3].working.contains("26.12 kN"), "{:?}", lug.whys[3]);
    assert!(lug.whys.iter().all(|why| why.source.contains("licensed engineer")));
    // It stands on the top face in the middle of the bar.
    let at = plate.centre_of_gravity();
    near(at.x, 400.0);
    near(at.y, 0.0);
    assert!(at.z > 30.0 + 20.0);
    assert!(outcome.cautions.iter().any(|caution| caution.contains("for review by a licensed engineer")));
}

#[test]
fn every_rule_of_frames_is_broken_by_something() {
    let broken = |operations: Value, settings: Value| {
        let mut piece = frame(operations);
        piece.frame = Some(serde_json::from_value(settings).unwrap());
        let outcome = evaluate(&piece, Options::default());
        outcome.breaches.iter().map(|breach| breach.rule.clone()).collect::<Vec<_>>()
    };
    let run = |length: &str| json!({"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": length}}]}}});
    let bar = |section: &str| json!({"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}});
    assert!(broken(json!([run("7 m"), bar("SHS 50x50x3")]), json!({})).contains(&"bar_long_enough".into()));
    assert!(
        broken(json!([run("5990 mm"), bar("SHS 50x50x3")]), json!({"end_trim": "10 mm"}))
            .contains(&"bar_long_enough".into())
    );
    assert!(
        !broken(json!([run("7 m"), bar("SHS 50x50x3")]), json!({"bars": [{"length": "12 m"}]}))
            .contains(&"bar_long_enough".into())
    );
    let short = json!([run("40 mm"), bar("SHS 50x50x3"), {"name": "c", "do": {"end": {"of": ["bar"], "how": {"angle": {"angle": "60 deg"}}}}}]);
    assert!(broken(short, json!({})).contains(&"member_long_enough".into()));
    // A hoop that ends in its arc and is cut to a post: the cut would run into the bend.
    let hoop = json!([
        {"name": "post", "do": {"path": {"start": {"x": "-300 mm", "z": "-500 mm"}, "legs": [{"by": {"z": "1 m"}}]}}},
        {"name": "hoop", "do": {"path": {"start": {"x": "-300 mm"}, "legs": [{"arc": {"place": {"x": "300 mm"}, "how": {"radius": {"radius": "500 mm", "toward": "up"}}}}]}}},
        {"name": "posts", "do": {"member": {"lines": ["post"], "section": "SHS 60x60x4"}}},
        {"name": "bar", "do": {"member": {"lines": ["hoop"], "section": "CHS 48.3x3.2"}}},
        {"name": "tee", "do": {"joint": {"at": "tees", "how": {"trim": {}}}}},
    ]);
    assert!(broken(hoop, json!({})).contains(&"member_long_enough".into()));
    let tight = json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "500 mm"}}, {"by": {"y": "500 mm"}}]}}},
        {"name": "soft", "do": {"round": {"node": "run.n2", "radius": "100 mm"}}},
        {"name": "bar", "do": {"member": {"lines": ["run", "soft"], "section": "CHS 48.3x3.2"}}},
    ]);
    assert!(broken(tight, json!({})).contains(&"bend_radius".into()));
    let dipped = json!([run("1 m"), {"name": "bar", "do": {"member": {"lines": ["run"], "section": "SHS 50x50x3", "material": "DX51D"}}}]);
    assert!(broken(dipped, json!({})).contains(&"vented".into()));
}

#[test]
fn ready_frames_have_their_lines() {
    for (kind, sizes, lines) in [
        ("rectangle", json!({"width": "1 m", "depth": "600 mm"}), 4),
        ("box", json!({"width": "1 m", "depth": "600 mm", "height": "800 mm"}), 12),
        ("table", json!({"width": "1 m", "depth": "600 mm", "height": "800 mm"}), 8),
        ("trestle", json!({"length": "1 m", "spread": "600 mm", "height": "800 mm", "rail": "200 mm"}), 7),
        ("a_frame", json!({"width": "1 m", "height": "800 mm", "bar": "300 mm"}), 3),
        ("flat_truss", json!({"length": "4 m", "height": "500 mm", "bays": "4"}), 2 + 5 + 4),
        ("pitched_truss", json!({"span": "4 m", "rise": "1 m", "bays": "3"}), 4 + 2 * 2 * 2),
        ("ladder", json!({"length": "2 m", "width": "400 mm", "rungs": "6"}), 8),
        ("stair", json!({"rise": "180 mm", "going": "250 mm", "width": "800 mm", "steps": "5"}), 2 + 4),
    ] {
        let outcome = built(json!([{"name": "f", "do": {"ready": {"kind": kind, "sizes": sizes}}}]));
        let skeleton = &outcome.frame().unwrap().made.frame.skeleton;
        assert_eq!(skeleton.lines.len(), lines, "{kind}");
        let mut missing = frame(json!([{"name": "f", "do": {"ready": {"kind": kind, "sizes": {}}}}]));
        missing.mark = "X".into();
        assert!(
            evaluate(&missing, Options::default()).findings.iter().any(|one| one.message.contains("is missing")),
            "{kind}"
        );
    }
}

#[test]
fn a_braced_ladder_frame_gives_way_in_order() {
    // Chords run on; posts are cut to them; diagonals to chords, and to posts where they would share space.
    let outcome = built(json!([
        {"name": "truss", "do": {"ready": {"kind": "flat_truss", "lies": "across", "sizes": {"length": "3 m", "height": "600 mm", "bays": "3"}}}},
        {"name": "chords", "do": {"member": {"lines": ["truss.top", "truss.bottom"], "section": "SHS 60x60x3"}}},
        {"name": "posts", "do": {"member": {"lines": ["truss.post*"], "section": "SHS 40x40x3"}}},
        {"name": "webs", "do": {"member": {"lines": ["truss.diagonal*"], "section": "SHS 40x40x3"}}},
        {"name": "tees", "do": {"joint": {"at": "tees", "how": {"trim": {}}}}},
        {"name": "ends", "do": {"joint": {"at": "corners", "how": {"butt": {"through": ["chords"]}}}}},
    ]));
    clash_free(&outcome);
    near(line(&outcome, "truss.post-2").length, 600.0 - 60.0);
    let web = line(&outcome, "truss.diagonal-1");
    assert!(web.ends.iter().any(|end| end.text.starts_with("point")), "{:?}", web.ends);
    assert!(outcome.breaches.is_empty(), "{:?}", outcome.breaches);
}

#[test]
fn a_plate_that_runs_into_a_member_is_told() {
    let post = |within: bool, at: &str| {
        json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"z": "500 mm"}}]}}},
            {"name": "post", "do": {"member": {"lines": ["run"], "section": "SHS 60x60x4"}}},
            {"name": "foot", "do": {"plate": {"thickness": "10 mm", "kind": {"base": {"of": ["post"], "at": "start", "within": within, "shape": {"rectangle": {"width": "120 mm", "depth": "120 mm"}}}}}}},
            {"name": "side", "do": {"plate": {"thickness": "8 mm", "kind": {"face": {"of": ["post"], "face": "top", "at": at, "shape": {"rectangle": {"width": "100 mm", "depth": "60 mm"}}}}}}},
        ])
    };
    // Beyond the end or within the length, and flat on a face: they touch.
    for within in [false, true] {
        let outcome = built(post(within, "250 mm"));
        assert!(outcome.breaches.is_empty(), "{:?}", outcome.breaches);
    }
    // A gusset wider than its corner's members are apart runs into a third one.
    let outcome = built(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "300 mm"}}, {"by": {"y": "300 mm"}}, {"by": {"x": "-300 mm"}}]}}},
        {"name": "bars", "do": {"member": {"lines": ["run"], "section": "SHS 40x40x3"}}},
        {"name": "corners", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}},
        {"name": "web", "do": {"plate": {"thickness": "5 mm", "kind": {"gusset": {"between": ["run.1", "run.2"], "first": "120 mm", "second": "290 mm"}}}}},
    ]));
    let clash: Vec<&str> = outcome.breaches.iter().map(|breach| breach.message.as_str()).collect();
    assert!(clash.len() == 1 && clash[0].starts_with("web runs into run.3"), "{clash:?}");
}
