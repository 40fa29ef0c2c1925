//! The bent-sheet vocabulary: every construct's folded sizes against the numbers it was built from, and against other
//! ways to build the same part.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::piece::{Options, Outcome, evaluate};
use steelk_testing::{base, bend, near, part, piece, probe, sound};

fn profile(legs: Value, extra: Value) -> Value {
    let mut fields = json!({"legs": legs, "width": "200 mm"});
    for (key, value) in extra.as_object().expect("an object") {
        fields[key] = value.clone();
    }
    json!({"name": "p", "do": {"profile": fields}})
}

fn line(name: &str, length: &str, turn: &str) -> Value {
    json!({"line": {"length": length, "turn": turn, "name": name}})
}

fn blank(outcome: &Outcome) -> (f64, f64) {
    let size = part(outcome).blank.extents();
    (size.width(), size.height())
}

fn distance(outcome: &Outcome, from: &str, to: &str, along: &str) -> f64 {
    probe(outcome, json!({"distance": {"from": from, "to": to, "along": along}}))
}

/// A lipped channel 40 x 100 x 40 with lips of 15, outside sizes: overall folded size is the drawing's, and the blank
/// is the sum of outside legs less the deductions (handbook: BD = 2 (R + T) - BA at 90 deg).
#[test]
fn lipped_channel_from_its_profile() {
    let legs = json!([
        line("lip", "15 mm", "0 deg"),
        line("side", "40 mm", "90 deg"),
        line("web", "100 mm", "90 deg"),
        line("other", "40 mm", "90 deg"),
        line("last", "15 mm", "90 deg")
    ]);
    let outcome = sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs, json!({}))])));
    let ba = PI / 2.0 * (3.0 + 0.4 * 2.0);
    let bd = 2.0 * 5.0 - ba;
    near(blank(&outcome).0, 15.0 + 40.0 + 100.0 + 40.0 + 15.0 - 4.0 * bd, 1e-9);
    near(blank(&outcome).1, 200.0, 1e-9);
    near(probe(&outcome, json!({"size": {"along": "x"}})), 100.0, 1e-9);
    near(probe(&outcome, json!({"size": {"along": "z"}})), 40.0, 1e-9);
    near(probe(&outcome, json!({"size": {"along": "y"}})), 200.0, 1e-9);
    near(probe(&outcome, json!({"leg": {"bend": "p.last"}})), 15.0, 1e-9);
    near(probe(&outcome, json!({"bend_angle": {"bend": "p.side"}})).to_degrees(), 90.0, 1e-9);
    // Between the lips: 100 less two lips.
    near(distance(&outcome, "p.lip.start", "p.last.end", "x"), 70.0, 1e-9);
}

/// The same channel by profile, by flanges on a base, and by lines drawn on its blank, has one blank to 1e-9.
#[test]
fn profile_flanges_and_creases_agree() {
    let legs =
        json!([line("left", "30 mm", "0 deg"), line("web", "80 mm", "60 deg"), line("right", "50 mm", "120 deg")]);
    // Outside sizes above 90 deg go to the outermost tangent.
    let by_profile = sound(&piece("3 mm", "4 mm", "0.42", json!([profile(legs, json!({"stays": "web"}))])));
    // The same lengths from the flanges: the web's flat is what the setbacks leave of 80.
    let t60 = 7.0 * (PI / 6.0).tan();
    let web = 80.0 - t60 - 7.0;
    let by_flanges = sound(&piece(
        "3 mm",
        "4 mm",
        "0.42",
        json!([
            base(&format!("{web} mm"), "200 mm"),
            bend("left", "base.left", "60 deg", "30 mm", json!({"position": "bend_outside"})),
            bend("right", "base.right", "120 deg", "50 mm", json!({"position": "bend_outside"})),
        ]),
    ));
    let whole = blank(&by_profile).0;
    near(blank(&by_flanges).0, whole, 1e-9);
    let left = 30.0 - t60 + PI / 3.0 * (4.0 + 0.42 * 3.0) / 2.0;
    let right = 50.0 - 7.0 + 2.0 * PI / 3.0 * (4.0 + 0.42 * 3.0) / 2.0;
    let by_creases = sound(&piece(
        "3 mm",
        "4 mm",
        "0.42",
        json!([
            base(&format!("{whole} mm"), "200 mm"),
            {"name": "left", "do": {"crease": {"panel": "base", "edge": "base.left", "distance": format!("{left} mm"), "angle": "60 deg"}}},
            {"name": "right", "do": {"crease": {"panel": "base", "edge": "base.right", "distance": format!("{right} mm"), "angle": "120 deg"}}},
        ]),
    ));
    near(blank(&by_creases).0, whole, 1e-9);
    for (one, two) in [(&by_profile, &by_flanges), (&by_profile, &by_creases)] {
        let (a, b) = (part(one).blank.region.area(), part(two).blank.region.area());
        near(a, b, 1e-7);
        for along in ["x", "y", "z"] {
            let size = json!({"size": {"along": along}});
            near(probe(one, size.clone()), probe(two, size), 1e-7);
        }
    }
    let legs = |outcome: &Outcome, names: [&str; 2]| names.map(|name| probe(outcome, json!({"leg": {"bend": name}})));
    for (name, found) in
        [("flanges", legs(&by_flanges, ["left", "right"])), ("profile", legs(&by_profile, ["p.left", "p.right"]))]
    {
        near(found[0], 30.0, 1e-9);
        near(found[1], 50.0, 1e-9);
        assert!(!name.is_empty());
    }
}

/// A Z to each of its sizes: inside, middle and one face give the blanks that their setbacks say.
#[test]
fn profile_sizes_of_a_z() {
    let legs = json!([line("a", "40 mm", "0 deg"), line("b", "60 mm", "90 deg"), line("c", "40 mm", "-90 deg")]);
    let ba = PI / 2.0 * (3.0 + 0.4 * 2.0);
    // What each bend takes of its two legs: outside R + T, inside R, middle R + T/2; on a face the bend that turns
    // toward the metal is outside, the other inside.
    for (sizes, first, second) in [
        ("outside", 5.0, 5.0),
        ("inside", 3.0, 3.0),
        ("middle", 4.0, 4.0),
        ("metal_left", 5.0, 3.0),
        ("metal_right", 3.0, 5.0),
    ] {
        let outcome = sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs.clone(), json!({"sizes": sizes}))])));
        near(blank(&outcome).0, 140.0 - 2.0 * first - 2.0 * second + 2.0 * ba, 1e-9);
    }
    let outside =
        sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs.clone(), json!({"sizes": "outside", "stays": "a"}))])));
    near(probe(&outside, json!({"size": {"along": "z"}})), 60.0, 1e-9);
    let middle = sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs, json!({"sizes": "middle", "stays": "a"}))])));
    near(probe(&middle, json!({"size": {"along": "z"}})), 62.0, 1e-9);
    near(probe(&middle, json!({"size": {"along": "x"}})), 80.0, 1e-9);
}

/// Rolled arcs: the developed length is the arc of the middle of the metal (DIN 6935: from R/T = 5 the neutral axis
/// lies in the middle), whichever face the radius is given to; a chord gives its angle by c = 2 r sin(A/2).
#[test]
fn rolled_arcs_develop_to_their_middle() {
    let roll = |fields: Value| {
        let mut given = json!({"radius": "300 mm", "span": {"angle": "120 deg"}, "width": "400 mm"});
        for (key, value) in fields.as_object().expect("an object") {
            given[key] = value.clone();
        }
        sound(&piece("2 mm", "2 mm", "0.4", json!([{"name": "guard", "do": {"roll": given}}])))
    };
    let third = 2.0 * PI / 3.0;
    near(blank(&roll(json!({}))).0, third * 301.0, 1e-9);
    near(blank(&roll(json!({"to": "middle"}))).0, third * 300.0, 1e-9);
    near(blank(&roll(json!({"to": "outside"}))).0, third * 299.0, 1e-9);
    near(blank(&roll(json!({"span": {"arc": "600 mm"}}))).0, 2.0 * 301.0, 1e-9);
    near(blank(&roll(json!({"to": "outside", "span": {"arc": "600 mm"}}))).0, 2.0 * 299.0, 1e-9);
    // A chord of r is a sixth of a turn.
    near(blank(&roll(json!({"span": {"chord": "300 mm"}}))).0, PI / 3.0 * 301.0, 1e-9);
    let led = roll(json!({"lead_in": "50 mm", "lead_out": "80 mm"}));
    near(blank(&led).0, third * 301.0 + 130.0, 1e-9);
    near(probe(&led, json!({"bend_angle": {"bend": "guard"}})).to_degrees(), 120.0, 1e-9);
    near(probe(&led, json!({"inside_radius": {"bend": "guard"}})), 300.0, 1e-7);
    near(probe(&led, json!({"angle": {"from": "guard.lead-in", "to": "guard.lead-out"}})).to_degrees(), 60.0, 1e-9);
    // A whole tube: its outside diameter either way, its seam as wide as said, its blank less the seam's share.
    let tube = roll(json!({"to": "outside", "radius": "60.3 mm", "span": {"tube": "3 mm"}}));
    near(probe(&tube, json!({"size": {"along": "z"}})), 120.6, 1e-6);
    let inside = 58.3;
    let angle = 2.0 * PI - 2.0 * (1.5f64 / inside).asin();
    near(blank(&tube).0, angle * 59.3, 1e-9);
    near(probe(&tube, json!({"bend_angle": {"bend": "guard"}})), angle, 1e-9);
    let closed = roll(json!({"to": "middle", "radius": "50 mm", "span": {"tube": "0 mm"}}));
    near(blank(&closed).0, 100.0 * PI, 1e-9);
    near(probe(&closed, json!("folded_volume")), 100.0 * PI * 400.0 * 2.0, 1e-4);
}

/// A tray whose four walls are one operation. Closed: the walls' inside edges come within the gap of each other at the
/// plane between them; overlapped: the earlier named runs to the other's outside face; open: each ends at its
/// neighbour's tangent line.
fn tray(corners: Value, angle: &str) -> Outcome {
    sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("200 mm", "120 mm"),
            bend(
                "wall",
                "base.front",
                angle,
                "40 mm",
                json!({"also": ["base.back", "base.left", "base.right"], "corners": corners})
            ),
        ]),
    ))
}

#[test]
fn corners_of_one_operation() {
    let open = tray(json!({"open": {}}), "90 deg");
    // R + T = 4 is the neighbour's tangent line.
    near(probe(&open, json!({"edge_length": {"edge": "wall.front.end"}})), 200.0 - 8.0, 1e-9);
    near(probe(&open, json!({"edge_length": {"edge": "wall.left.end"}})), 120.0 - 8.0, 1e-9);
    near(probe(&open, json!({"size": {"along": "x"}})), 200.0, 1e-9);
    near(probe(&open, json!({"size": {"along": "z"}})), 40.0, 1e-9);
    assert_eq!(open.broken().next(), None);

    let closed = tray(json!({"closed": {"gap": "0.5 mm"}}), "90 deg");
    // The inside corners stand opposite each other across the plane: each end is the inside face and half the gap over
    // cos 45 deg in from the outside.
    let ends_at = 2.0 + 0.25 * 2f64.sqrt();
    near(probe(&closed, json!({"edge_length": {"edge": "wall.front.end"}})), 200.0 - 2.0 * ends_at, 1e-9);
    near(probe(&closed, json!({"edge_length": {"edge": "wall.right.end"}})), 120.0 - 2.0 * ends_at, 1e-9);
    assert_eq!(closed.broken().next(), None);
    // Mitred does the same to walls that stand square.
    let mitred = tray(json!({"mitred": {"gap": "0.5 mm"}}), "90 deg");
    near(part(&mitred).blank.region.area(), part(&closed).blank.region.area(), 1e-6);

    let over = tray(json!({"overlapped": {"gap": "0.3 mm"}}), "90 deg");
    near(probe(&over, json!({"edge_length": {"edge": "wall.front.end"}})), 200.0, 1e-9);
    near(probe(&over, json!({"edge_length": {"edge": "wall.left.end"}})), 120.0 - 2.0 * 2.3, 1e-9);
    assert_eq!(over.broken().next(), None);

    // Reliefs at the corners are cut out of the blank: a circle about the place where the tangent lines cross.
    let round = tray(json!({"closed": {"gap": "0.5 mm", "relief": {"round": "5 mm"}}}), "90 deg");
    assert!(part(&round).blank.region.area() < part(&closed).blank.region.area() - 4.0 * 4.0);
    assert_eq!(round.broken().next(), None);
}

/// Walls that lean out by 45 deg, mitred, meet along the plane between them with the gap held from foot to top.
#[test]
fn leaning_walls_mitred_hold_their_gap() {
    let outcome = tray(json!({"mitred": {"gap": "1 mm"}}), "45 deg");
    assert_eq!(outcome.broken().next(), None);
    let found = part(&outcome);
    // Every corner of the front and right walls keeps half the gap from the plane x = y through the outer corner.
    let (front, right) =
        (found.flat.panel("wall.front").expect("front"), found.flat.panel("wall.right").expect("right"));
    let plane = |point: steelk_core::space::Point3| ((200.0 - point.x) - point.y) / 2f64.sqrt();
    let least = |panel: usize, sign: f64| {
        let corners = found.flat.nodes[panel].region.outer.edges.iter();
        corners
            .flat_map(|edge| [0.0, 2.0].map(|z| sign * plane(found.folded.apply(panel, edge.start, z))))
            .fold(f64::INFINITY, f64::min)
    };
    near(least(front, 1.0), 0.5, 1e-9);
    near(least(right, -1.0), 0.5, 1e-9);
    // The top edge is longer than the foot: the walls lean out.
    assert!(probe(&outcome, json!({"edge_length": {"edge": "wall.front.end"}})) > 200.0);
}

/// Lips on the walls of a tray, mitred: 45 deg in their own plane, the gap held.
#[test]
fn lips_on_walls_mitred() {
    let make = |corners: Value, leg: &str| {
        sound(&piece(
            "2 mm",
            "2 mm",
            "0.4",
            json!([
                base("200 mm", "120 mm"),
                bend(
                    "wall",
                    "base.front",
                    "90 deg",
                    "40 mm",
                    json!({"also": ["base.back", "base.left", "base.right"], "corners": {"closed": {"gap": "0.5 mm"}}})
                ),
                bend(
                    "lip",
                    "wall.front.end",
                    "90 deg",
                    leg,
                    json!({"also": ["wall.back.end", "wall.left.end", "wall.right.end"], "corners": corners})
                ),
            ]),
        ))
    };
    let outcome = make(json!({"mitred": {"gap": "0.5 mm"}}), "20 mm");
    assert!(
        outcome.breaches.iter().all(|one| one.rule != "folded_clash" && one.rule != "flat_overlap"),
        "{:#?}",
        outcome.breaches
    );
    near(probe(&outcome, json!({"size": {"along": "z"}})), 40.0, 1e-9);
    // The lip's tip stands 20 from the outside face; on the mitre its end is as far from the corner along as across,
    // less the gap's share.
    let tip = probe(&outcome, json!({"edge_length": {"edge": "lip.front.end"}}));
    near(tip, 200.0 - 2.0 * (20.0 + 0.25 * 2f64.sqrt()), 1e-6);
    let open = make(json!({"open": {}}), "20 mm");
    assert!(open.breaches.iter().all(|one| one.rule != "folded_clash"), "{:#?}", open.breaches);
    near(probe(&open, json!({"edge_length": {"edge": "lip.front.end"}})), 160.0, 1e-6);
}

/// Hems: folded sizes and blanks. Closed: R 0, so the fold's flat is pi K T; the edge's place is its fold's outside.
#[test]
fn hems_fold_to_their_sizes() {
    let hem = |style: Value| {
        sound(&piece(
            "1 mm",
            "1 mm",
            "0.4",
            json!([
                base("100 mm", "60 mm"), {"name": "hem", "do": {"hem": {"edge": "base.back", "style": style}}},
            ]),
        ))
    };
    let closed = hem(json!({"closed": {"length": "8 mm"}}));
    near(blank(&closed).1, 60.0 - 1.0 + PI * 0.4 + 7.0, 1e-9);
    near(probe(&closed, json!({"size": {"along": "y"}})), 60.0, 1e-9);
    near(probe(&closed, json!({"size": {"along": "z"}})), 2.0, 1e-9);
    near(probe(&closed, json!({"leg": {"bend": "hem"}})), 8.0, 1e-9);
    assert!(closed.breaches.iter().all(|one| one.rule != "folded_clash"), "{:#?}", closed.breaches);

    let open = hem(json!({"open": {"length": "9 mm", "gap": "1.5 mm"}}));
    near(probe(&open, json!({"size": {"along": "z"}})), 3.5, 1e-9);
    near(probe(&open, json!({"leg": {"bend": "hem"}})), 9.0, 1e-9);
    near(distance(&open, "base.top", "hem.top", "z"), 1.5, 1e-9);

    let drop = hem(json!({"teardrop": {"length": "12 mm", "radius": "2 mm"}}));
    // Its tip's inside comes down onto the sheet, and it is as long over all as said.
    let found = part(&drop);
    let hem_at = found.flat.panel("hem").expect("the hem");
    let tip: Vec<_> = found.flat.nodes[hem_at]
        .region
        .outer
        .edges
        .iter()
        .map(|edge| found.folded.apply(hem_at, edge.start, 1.0))
        .collect();
    near(tip.iter().map(|point| point.z).fold(f64::INFINITY, f64::min), 1.0, 1e-9);
    near(tip.iter().map(|point| point.y).fold(f64::INFINITY, f64::min), 60.0 - 12.0, 1e-9);
    near(probe(&drop, json!({"size": {"along": "y"}})), 60.0, 1e-6);
    assert!(probe(&drop, json!({"bend_angle": {"bend": "hem"}})) > PI);

    let rolled = hem(json!({"rolled": {"radius": "3 mm"}}));
    near(blank(&rolled).1, 60.0 - 4.0 + 1.5 * PI * 3.4, 1e-9);
    near(probe(&rolled, json!({"size": {"along": "z"}})), 8.0, 1e-6);
    near(probe(&rolled, json!({"bend_angle": {"bend": "hem"}})).to_degrees(), 270.0, 1e-6);
}

/// A joggle sets its far panel off by its offset, square or slanted, and comes back parallel.
#[test]
fn joggles_set_off() {
    for (angle, radius) in [("90 deg", "2 mm"), ("45 deg", "3 mm"), ("60 deg", "1 mm")] {
        let outcome = sound(&piece(
            "1.5 mm",
            radius,
            "0.42",
            json!([
                base("80 mm", "50 mm"),
                {"name": "step", "do": {"joggle": {"edge": "base.back", "offset": "12 mm", "angle": angle, "leg": "25 mm"}}},
            ]),
        ));
        near(distance(&outcome, "base.top", "step.top", "z"), 12.0, 1e-9);
        near(probe(&outcome, json!({"angle": {"from": "base", "to": "step"}})).to_degrees(), 180.0, 1e-9);
        assert!(outcome.bends().len() == 2);
    }
    // Down and at the least offset the two bends follow each other with nothing between.
    let outcome = sound(&piece(
        "2 mm",
        "3 mm",
        "0.4",
        json!([
            base("80 mm", "50 mm"),
            {"name": "step", "do": {"joggle": {"edge": "base.back", "offset": "8 mm", "leg": "25 mm", "direction": "down"}}},
        ]),
    ));
    near(distance(&outcome, "base.top", "step.top", "z"), 8.0, 1e-9);
    assert_eq!(part(&outcome).flat.nodes.iter().filter(|node| node.is_panel()).count(), 2);
}

/// Angles by included angle, and by another panel; legs up to a face, an edge and a corner.
#[test]
fn angles_and_legs_by_reference() {
    let frame = |more: Vec<Value>| {
        let mut work = vec![
            base("100 mm", "60 mm"),
            bend("slope", "base.back", "", "50 mm", json!({"angle": "120 deg", "angle_is": "included"})),
        ];
        work.extend(more);
        sound(&piece("2 mm", "3 mm", "0.4", Value::Array(work)))
    };
    let sloping = frame(vec![]);
    near(probe(&sloping, json!({"bend_angle": {"bend": "slope"}})).to_degrees(), 60.0, 1e-9);
    near(probe(&sloping, json!({"angle": {"from": "base", "to": "slope"}})).to_degrees(), 120.0, 1e-9);
    // A lip on the slope that lies parallel to the base turns back by the slope's own 60 deg; a square one by 30 up.
    let flat = frame(vec![bend(
        "lip",
        "slope.end",
        "",
        "20 mm",
        json!({"stands": {"parallel": "base"}, "direction": "down"}),
    )]);
    near(probe(&flat, json!({"bend_angle": {"bend": "lip"}})).to_degrees(), 60.0, 1e-9);
    let square = frame(vec![bend("lip", "slope.end", "", "20 mm", json!({"stands": {"square": "base"}}))]);
    near(probe(&square, json!({"bend_angle": {"bend": "lip"}})).to_degrees(), 30.0, 1e-9);
    // A wall at the front as high as the slope's end, then as far as its corner; a shelf up to the front wall's face.
    let level = frame(vec![bend("front", "base.front", "90 deg", "", json!({"up_to": {"feature": "slope.end"}}))]);
    let end = part(&level).flat.panel("front").expect("front");
    let top = |outcome: &Outcome, panel: usize| {
        let found = part(outcome);
        let edges = found.flat.nodes[panel].region.outer.edges.iter();
        edges
            .flat_map(|edge| [0.0, 2.0].map(|z| found.folded.apply(panel, edge.start, z).z))
            .fold(f64::NEG_INFINITY, f64::max)
    };
    let slope = part(&level).flat.panel("slope").expect("slope");
    near(top(&level, end), top(&level, slope), 1e-9);
    let corner = frame(vec![bend(
        "front",
        "base.front",
        "90 deg",
        "",
        json!({"up_to": {"feature": "slope.end/left", "gap": "3 mm"}}),
    )]);
    near(top(&corner, end), top(&corner, slope) - 3.0, 1e-9);
    let shelf = sound(&piece(
        "2 mm",
        "3 mm",
        "0.4",
        json!([
            base("100 mm", "60 mm"),
            bend("back", "base.back", "90 deg", "40 mm", json!({})),
            bend("front", "base.front", "90 deg", "40 mm", json!({})),
            bend("shelf", "back.end", "90 deg", "", json!({"up_to": {"feature": "front.top", "gap": "0.5 mm"}})),
        ]),
    ));
    near(distance(&shelf, "shelf.end", "front.top", "y"), 0.5, 1e-9);
}

/// A bend along a line that is not parallel to an edge, and one that leaves edges on both sides of it.
#[test]
fn creases_keep_names_and_take_any_direction() {
    let outcome = sound(&piece(
        "2 mm",
        "3 mm",
        "0.4",
        json!([
            base("120 mm", "80 mm"),
            steelk_testing::drill("near", "base", "6 mm", json!({"place": {"from": [{"edge": "base.back", "distance": "10 mm"}, {"edge": "base.left", "distance": "60 mm"}]}})),
            {"name": "ear", "do": {"crease": {"panel": "base", "edge": "base.back", "distance": "30 mm", "turn": "20 deg", "angle": "90 deg"}}},
        ]),
    ));
    // The blank is as it was laid down.
    near(blank(&outcome).0, 120.0, 1e-9);
    near(blank(&outcome).1, 80.0, 1e-9);
    near(part(&outcome).blank.region.area(), 120.0 * 80.0 - PI * 9.0, 1e-6);
    near(probe(&outcome, json!({"angle": {"from": "base", "to": "ear"}})).to_degrees(), 90.0, 1e-9);
    // The back went with the part that moved, the sides are parted, the hole went along.
    let flat = &part(&outcome).flat;
    let ear = flat.panel("ear").expect("the ear");
    assert_eq!(flat.edges.iter().find(|edge| edge.name == "base.back").expect("the back").panel, ear);
    assert!(flat.edges.iter().any(|edge| edge.name == "ear.left" && edge.panel == ear));
    assert!(flat.edges.iter().any(|edge| edge.name == "base.left" && edge.panel == 0));
    assert_eq!(flat.holes[0].panel, ear);
    near(probe(&outcome, json!({"diameter": {"hole": "near"}})), 6.0, 1e-9);
    // Material inside: the ear's outside face stands on the line, at 30 from the back as laid down.
    let square = sound(&piece(
        "2 mm",
        "3 mm",
        "0.4",
        json!([
            base("120 mm", "80 mm"),
            {"name": "ear", "do": {"crease": {"panel": "base", "edge": "base.back", "distance": "30 mm", "angle": "90 deg", "position": "material_inside"}}},
        ]),
    ));
    near(distance(&square, "base.front", "ear.outside", "y"), 50.0, 1e-9);
}

/// Cuts: across a bend in the flat, straight through two flanges, one row on four walls, notches, tabs and slots.
#[test]
fn cuts_of_every_reach() {
    let across = sound(&piece(
        "2 mm",
        "3 mm",
        "0.4",
        json!([
            base("100 mm", "60 mm"), bend("up", "base.back", "90 deg", "40 mm", json!({})),
            {"name": "window", "do": {"cut": {"panel": "base", "width": "30 mm", "height": "30 mm", "reach": "flat",
                "place": {"from": [{"edge": "up.tangent", "distance": "-2 mm"}, {"edge": "base.left", "distance": "50 mm"}]}}}},
        ]),
    ));
    let solid = 100.0 * (60.0 + 40.0 - 10.0 + PI / 2.0 * 3.8);
    near(part(&across).blank.region.area(), solid - 900.0, 1e-6);
    assert_eq!(part(&across).blank.region.holes.len(), 1);

    let through = sound(&piece(
        "2 mm",
        "3 mm",
        "0.4",
        json!([
            base("100 mm", "60 mm"),
            bend("front", "base.front", "90 deg", "40 mm", json!({})),
            bend("back", "base.back", "90 deg", "40 mm", json!({})),
            steelk_testing::drill(
                "pin",
                "front",
                "8 mm",
                json!({"reach": "through", "place": {"from": [{"edge": "front.end", "distance": "15 mm"}, {"edge": "front.left", "distance": "30 mm"}]}})
            ),
        ]),
    ));
    assert_eq!(part(&through).flat.holes.len(), 2);
    near(distance(&through, "pin.1", "pin.2", "x"), 0.0, 1e-9);
    near(distance(&through, "pin.1", "pin.2", "z"), 0.0, 1e-9);

    let rows = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("200 mm", "120 mm"),
            bend("wall", "base.front", "90 deg", "40 mm", json!({"also": ["base.back", "base.left", "base.right"]})),
            steelk_testing::drill(
                "vent",
                "wall.front",
                "5 mm",
                json!({"also": ["wall.back", "wall.left", "wall.right"],
            "pattern": {"along": {"edge": "wall.front.end", "distance": "12 mm", "spaces": "4", "inset": "15 mm"}}})
            ),
        ]),
    ));
    assert_eq!(part(&rows).flat.holes.len(), 20);
    for (wall, hole) in [("front", 1), ("back", 6), ("left", 11), ("right", 16)] {
        near(distance(&rows, &format!("wall.{wall}.end"), &format!("vent.{hole}"), "z"), 12.0, 1e-9);
    }

    let notched = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("100 mm", "60 mm"),
            {"name": "vee", "do": {"notch": {"edge": "base.front", "shape": {"vee": {"width": "12 mm", "depth": "8 mm"}}, "count": "2", "spacing": "40 mm"}}},
            {"name": "mouse", "do": {"notch": {"edge": "base.back", "shape": {"round": "6 mm"}}}},
            {"name": "slit", "do": {"notch": {"edge": "base.left", "shape": {"square": {"width": "4 mm", "depth": "10 mm"}}, "at": "20 mm"}}},
        ]),
    ));
    near(part(&notched).blank.region.area(), 6000.0 - 2.0 * 48.0 - PI * 18.0 - 40.0, 1e-6);
}

/// By hand: what a round leaves standing in a corner of a notch, (1 - pi/4) R2 where it is square and R2 (1/tan a - (pi/2 - a)) in a tip of
/// twice a (standard plane geometry).
#[test]
fn notches_with_round_corners() {
    let cut = |shape: Value| {
        let work = json!([base("100 mm", "60 mm"), {"name": "notch", "do": {"notch": {"edge": "base.front", "shape": shape}}}]);
        piece("2 mm", "2 mm", "0.4", work)
    };
    let off = |shape: Value| 6000.0 - part(&sound(&cut(shape))).blank.region.area();
    let square = |corner: &str| json!({"square": {"width": "12 mm", "depth": "10 mm", "corner": corner}});
    near(off(square("3 mm")), 120.0 - 2.0 * (1.0 - PI / 4.0) * 9.0, 1e-9);
    // Half of its width: one round floor.
    near(off(square("6 mm")), 12.0 * 4.0 + PI * 18.0, 1e-6);
    let half = (6.0f64 / 8.0).atan();
    let tip = 4.0 * (1.0 / half.tan() - (PI / 2.0 - half));
    near(off(json!({"vee": {"width": "12 mm", "depth": "8 mm", "corner": "2 mm"}})), 48.0 - tip, 1e-9);
    for shape in [square("7 mm"), json!({"vee": {"width": "12 mm", "depth": "8 mm", "corner": "9 mm"}})] {
        let fault = evaluate(&cut(shape), Options::default()).findings;
        assert!(fault.iter().any(|one| one.message.contains("does not fit the corners of the notch")), "{fault:?}");
    }
    let corner = |radius: &str| {
        let shape = json!({"notch": {"width": "15 mm", "depth": "8 mm", "corner": radius}});
        let work = json!([base("100 mm", "60 mm"), {"name": "off", "do": {"corner": {"panel": "base", "at": ["front/right", "back/left"], "shape": shape}}}]);
        piece("2 mm", "2 mm", "0.4", work)
    };
    near(6000.0 - part(&sound(&corner("4 mm"))).blank.region.area(), 2.0 * (120.0 - (1.0 - PI / 4.0) * 16.0), 1e-9);
    let fault = evaluate(&corner("9 mm"), Options::default()).findings;
    assert!(fault.iter().any(|one| one.message.contains("within the notch does not fit")), "{fault:?}");
}

/// A lid's tabs stand in slots of the wall with the clearance all round, wherever the lid comes to.
#[test]
fn tabs_fit_their_slots() {
    let outcome = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("100 mm", "60 mm"),
            bend("front", "base.front", "90 deg", "50 mm", json!({})),
            bend("back", "base.back", "90 deg", "30 mm", json!({})),
            bend("lid", "back.end", "90 deg", "", json!({"up_to": {"feature": "front.top", "gap": "0 mm"}})),
            {"name": "ears", "do": {"tab": {"edge": "lid.end", "width": "12 mm", "height": "4 mm", "count": "2", "spacing": "50 mm"}}},
            {"name": "ear-holes", "do": {"slots": {"tabs": "ears", "panel": "front", "clearance": "0.2 mm"}}},
        ]),
    ));
    assert!(outcome.breaches.iter().all(|one| one.rule != "folded_clash"), "{:#?}", outcome.breaches);
    near(probe(&outcome, json!({"hole_size": {"hole": "ear-holes.1", "along": "x"}})), 12.4, 1e-9);
    near(probe(&outcome, json!({"hole_size": {"hole": "ear-holes.1", "along": "y"}})), 2.4, 1e-9);
    // The slot's middle is the tab's.
    near(distance(&outcome, "ear-holes.2", "lid.top", "z"), 1.0, 1e-9);
}

/// Work made again: the mirror image of a flange and its holes stands on the other side; the part is symmetric.
#[test]
fn mirrored_work_is_symmetric() {
    let outcome = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("120 mm", "80 mm"),
            bend("lip", "base.left", "75 deg", "30 mm", json!({"set_in": {"front": "10 mm"}, "relief": {}})),
            steelk_testing::drill("eye", "lip", "6 mm", json!({"place": {"from": [{"edge": "lip.end", "distance": "10 mm"}, {"edge": "lip.back", "distance": "12 mm"}]}})),
            {"name": "other", "do": {"again": {"of": ["lip", "eye"], "how": {"mirror": {"panel": "base"}}}}},
        ]),
    ));
    let figures = outcome.figures().expect("figures");
    near(figures.centre_of_gravity.x, 60.0, 1e-9);
    near(probe(&outcome, json!({"leg": {"bend": "other.lip"}})), 30.0, 1e-9);
    near(distance(&outcome, "eye", "base.front", "y"), distance(&outcome, "other.eye", "base.front", "y"), 1e-9);
    let again = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("120 mm", "80 mm"),
            steelk_testing::drill("hole", "base", "6 mm", json!({"place": {"from": [{"edge": "base.left", "distance": "20 mm"}, {"edge": "base.front", "distance": "20 mm"}]}})),
            {"name": "row", "do": {"again": {"of": ["hole"], "how": {"shift": {"count": "4", "x": "25 mm"}}}}},
        ]),
    ));
    assert_eq!(part(&again).flat.holes.len(), 4);
    near(distance(&again, "hole", "row.3.hole", "x"), 75.0, 1e-9);
}

fn refused(work: Value) -> (String, String) {
    let outcome = steelk_core::piece::evaluate(&piece("2 mm", "2 mm", "0.4", work), Default::default());
    let errors: Vec<_> =
        outcome.findings.iter().filter(|one| one.severity == steelk_core::finding::Severity::Error).collect();
    assert_eq!(errors.len(), 1, "{errors:#?}");
    assert!(!errors[0].way_out.is_empty());
    (errors[0].field.clone().unwrap_or_default(), errors[0].message.clone())
}

/// What cannot be made is refused with its field, in words, and the part before it stands.
#[test]
fn refusals_name_the_field() {
    let after = |name: &str, action: Value| json!([base("100 mm", "60 mm"), bend("wall", "base.back", "90 deg", "40 mm", json!({})), {"name": name, "do": action}]);
    let profile_of = |legs: Value| json!([profile(legs, json!({}))]);
    let cases: Vec<(Value, &str, &str)> = vec![
        (
            profile_of(json!([
                line("a", "60 mm", "0 deg"),
                line("b", "50 mm", "90 deg"),
                line("c", "60 mm", "90 deg"),
                line("d", "80 mm", "90 deg")
            ])),
            "legs",
            "the profile runs into itself: p.d meets p.a",
        ),
        (
            profile_of(json!([line("a", "3 mm", "0 deg"), line("b", "50 mm", "90 deg")])),
            "legs.0",
            "is too short: its bends take 4 mm",
        ),
        (profile_of(json!([line("a", "30 mm", "0 deg"), line("b", "50 mm", "0 deg")])), "legs.1", "goes straight on"),
        (profile_of(json!([])), "legs", "no legs"),
        (
            json!([profile(json!([line("a", "30 mm", "0 deg"), line("b", "50 mm", "90 deg")]), json!({"stays": "c"}))]),
            "stays",
            "no straight leg called c",
        ),
        (
            json!([{"name": "r", "do": {"roll": {"radius": "1 mm", "to": "outside", "span": {"angle": "90 deg"}, "width": "50 mm"}}}]),
            "radius",
            "leaves no inside",
        ),
        (
            json!([{"name": "r", "do": {"roll": {"radius": "100 mm", "span": {"chord": "250 mm"}, "width": "50 mm"}}}]),
            "span.chord",
            "longer than the circle is wide",
        ),
        (
            json!([{"name": "r", "do": {"roll": {"radius": "100 mm", "span": {"arc": "700 mm"}, "width": "50 mm"}}}]),
            "span.arc",
            "cannot be rolled",
        ),
        (
            after("x", json!({"hem": {"edge": "wall.end", "style": {"closed": {"length": "1.5 mm"}}}})),
            "style.closed.length",
            "too short",
        ),
        (
            after("x", json!({"joggle": {"edge": "base.front", "offset": "3 mm", "leg": "20 mm"}})),
            "offset",
            "set the sheet off by 6 mm at least",
        ),
        (
            after(
                "x",
                json!({"bend": {"edge": "base.front", "angle": "90 deg", "leg": "9 mm", "stands": {"square": "wall"}}}),
            ),
            "angle",
            "not both",
        ),
        (
            after("x", json!({"bend": {"edge": "base.front", "leg": "20 mm", "stands": {"parallel": "base"}}})),
            "stands.parallel",
            "no bend along this edge",
        ),
        (
            after("x", json!({"bend": {"edge": "base.front", "angle": "90 deg", "up_to": {"feature": "lid.top"}}})),
            "up_to.feature",
            "nothing called lid.top",
        ),
        (
            after(
                "x",
                json!({"bend": {"edge": "base.front", "also": ["base.front"], "angle": "90 deg", "leg": "20 mm"}}),
            ),
            "also.0",
            "named twice",
        ),
        (
            after(
                "x",
                json!({"crease": {"panel": "base", "edge": "base.front", "distance": "200 mm", "angle": "90 deg"}}),
            ),
            "distance",
            "does not leave a part",
        ),
        (
            after(
                "x",
                json!({"crease": {"panel": "base", "edge": "base.left", "distance": "50 mm", "angle": "90 deg"}}),
            ),
            "distance",
            "runs through the bend wall",
        ),
        (
            after("x", json!({"notch": {"edge": "base.front", "shape": {"round": "5 mm"}, "at": "3 mm"}})),
            "at",
            "runs out over base.front",
        ),
        (
            after("x", json!({"slots": {"tabs": "ears", "panel": "base", "clearance": "0.2 mm"}})),
            "tabs",
            "no tabs called ears",
        ),
        (
            after("x", json!({"again": {"of": ["gone"], "how": {"mirror": {"panel": "base"}}}})),
            "of.0",
            "no operation called gone",
        ),
        (
            after("x", json!({"again": {"of": ["wall"], "how": {"shift": {"count": "2", "x": "0 mm"}}}})),
            "how.shift.x",
            "in the same place",
        ),
        (
            after("x", json!({"cut": {"panel": "base", "width": "300 mm", "height": "5 mm", "reach": "flat"}})),
            "place",
            "would cut base in two",
        ),
        (
            after("x", json!({"drill": {"panel": "wall", "diameter": "5 mm", "reach": "through", "depth": "1 mm"}})),
            "reach",
            "worked from the face",
        ),
    ];
    for (work, field, words) in cases {
        let (at, message) = refused(work);
        assert!(message.contains(words), "{message}");
        assert_eq!(at, field, "{message}");
    }
}

/// A part and its opposite hand: blanks are mirror images, measures are the same, the centre of gravity changes sides.
#[test]
fn opposite_hand_is_the_mirror_image() {
    let work = json!([
        base("120 mm", "80 mm"),
        bend("lip", "base.left", "75 deg", "30 mm", json!({"set_in": {"front": "10 mm"}, "relief": {"shape": "obround"}})),
        bend("up", "base.back", "90 deg", "40 mm", json!({"direction": "down", "set_in": {"left": "15 mm"}, "relief": {}})),
        {"name": "hem", "do": {"hem": {"edge": "lip.end", "style": {"teardrop": {"length": "12 mm", "radius": "2 mm"}}}}},
        steelk_testing::drill("eye", "up", "6 mm", json!({"place": {"from": [{"edge": "up.end", "distance": "10 mm"}, {"edge": "up.left", "distance": "12 mm"}]}})),
    ]);
    let own = piece("2 mm", "2 mm", "0.4", work);
    let mut turned = own.clone();
    turned.opposite_hand = true;
    let (one, two) = (sound(&own), sound(&turned));
    let (a, b) = (one.figures().expect("figures"), two.figures().expect("figures"));
    near(a.mass, b.mass, 1e-12);
    near(a.centre_of_gravity.x, -b.centre_of_gravity.x, 1e-9);
    near(a.centre_of_gravity.y, b.centre_of_gravity.y, 1e-9);
    near(a.centre_of_gravity.z, b.centre_of_gravity.z, 1e-9);
    near(part(&one).blank.region.area(), part(&two).blank.region.area(), 1e-9);
    for (which, corner) in part(&one).blank.region.outer.edges.iter().enumerate() {
        let image = steelk_core::plane::Point::new(-corner.start.x, corner.start.y);
        let found = part(&two).blank.region.outer.edges.iter().any(|edge| edge.start.distance(image) < 1e-9);
        assert!(found, "corner {which} has no image");
    }
    for what in [
        json!({"leg": {"bend": "hem"}}),
        json!({"bend_angle": {"bend": "hem"}}),
        json!({"distance": {"from": "eye", "to": "base.right", "along": "x"}}),
    ] {
        near(probe(&one, what.clone()), probe(&two, what), 1e-9);
    }
    assert_eq!(one.breaches.len(), two.breaches.len());
    // And folding takes every point back, strips past half a turn included.
    for outcome in [&one, &two] {
        let found = part(outcome);
        for (at, node) in found.flat.nodes.iter().enumerate() {
            for edge in &node.region.outer.edges {
                let (flat, z) = found.folded.unfold(at, found.folded.apply(at, edge.start, 0.7));
                near(flat.distance(edge.start), 0.0, 1e-9);
                near(z, 0.7, 1e-9);
            }
        }
    }
}

/// A measured table wins over the formula, says so, interpolates in words, and is refused past its rows and for another
/// family or thickness.
#[test]
fn measured_tables_win_and_know_their_bounds() {
    let csv = "# air bend, die 16\n# measured on the example brake\nfamily,thickness_mm,radius_mm,angle_deg,deduction_mm\nmild_steel,2,2,45,1.2\nmild_steel,2,2,90,3.6\nmild_steel,2,4,90,4.4\nmild_steel,2,4,45,1.5\n";
    let table = steelk_core::stock::BendTable::read_csv(csv, "t").expect("a table");
    assert_eq!(table.name, "air bend, die 16");
    assert_eq!(steelk_core::stock::BendTable::read_csv(&table.write_csv(), "u").expect("again"), table);
    let with = |thickness: &str, radius: &str, angle: &str| {
        let mut made = piece(
            thickness,
            radius,
            "0.4",
            json!([base("100 mm", "60 mm"), bend("up", "base.back", angle, "40 mm", json!({}))]),
        );
        made.bending.table = Some(table.clone());
        steelk_core::piece::evaluate(&made, Default::default())
    };
    let square = with("2 mm", "2 mm", "90 deg");
    near(blank(&square).1, 60.0 + 40.0 - 3.6, 1e-9);
    assert!(square.bends()[0].why.source.contains("air bend, die 16"), "{:?}", square.bends()[0].why);
    // In proportion: half way from 45 to 90 deg at R 2; half way from R 2 to R 4 at 90.
    let between = with("2 mm", "2 mm", "67.5 deg");
    near(between.bends()[0].deduction, 2.4, 1e-9);
    assert!(between.bends()[0].why.working.contains("in proportion between 45 deg"), "{:?}", between.bends()[0].why);
    near(with("2 mm", "3 mm", "90 deg").bends()[0].deduction, 4.0, 1e-9);
    let words =
        |outcome: &Outcome| outcome.findings.iter().map(|one| one.message.clone()).collect::<Vec<_>>().join("; ");
    assert!(words(&with("2 mm", "2 mm", "120 deg")).contains("120 deg is past them"));
    assert!(words(&with("2 mm", "8 mm", "90 deg")).contains("8 mm is past them"));
    assert!(words(&with("3 mm", "3 mm", "90 deg")).contains("no rows for 3 mm"));
    let mut aluminium = piece("2 mm", "2 mm", "0.4", json!([base("100 mm", "60 mm")]));
    aluminium.bending.table = Some(table.clone());
    aluminium.stock.material = "5052-H32".into();
    let outcome = steelk_core::piece::evaluate(&aluminium, Default::default());
    assert!(words(&outcome).contains("is for mild steel, and the part is aluminium"), "{}", words(&outcome));
    // A bend's own figure still stands over the table.
    let mut own = piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("100 mm", "60 mm"),
            bend("up", "base.back", "90 deg", "40 mm", json!({"method": {"deduction": "3 mm"}}))
        ]),
    );
    own.bending.table = Some(table);
    near(blank(&sound(&own)).1, 97.0, 1e-9);
    for bad in [
        "",
        "family,thickness_mm\n",
        "family,thickness_mm,radius_mm,angle_deg,deduction_mm\nsteelish,2,2,90,3\n",
        "family,thickness_mm,radius_mm,angle_deg,deduction_mm\nmild_steel,two,2,90,3\n",
        "family,thickness_mm,radius_mm,angle_deg,deduction_mm\nmild_steel,2,2,90,3\nmild_steel,2,2,90,4\n",
        "family,thickness_mm,radius_mm,angle_deg,deduction_mm\nmild_steel,2,2,270,3\n",
    ] {
        assert!(steelk_core::stock::BendTable::read_csv(bad, "x").is_err(), "{bad}");
    }
}

/// A row that nobody measured says so wherever it is read, goes out as CSV so and comes back so.
#[test]
fn made_up_rows_are_told() {
    let csv = "family,thickness_mm,radius_mm,angle_deg,deduction_mm,made_up\nmild_steel,2,2,45,1.2,no\nmild_steel,2,2,90,3.6,yes\n";
    let table = steelk_core::stock::BendTable::read_csv(csv, "t").expect("a table");
    assert_eq!(table.rows.iter().map(|row| row.made_up).collect::<Vec<_>>(), [false, true]);
    assert_eq!(steelk_core::stock::BendTable::read_csv(&table.write_csv(), "t").expect("again"), table);
    let words = |angle: f64| {
        let family = steelk_core::stock::Family::MildSteel;
        table.read(family, 2.0, None, 2.0, angle, steelk_core::quantity::LengthUnit::Mm).unwrap().words
    };
    assert!(words(90.0).ends_with("90 deg: BD 3.6, made up"), "{}", words(90.0));
    assert!(words(45.0).ends_with("45 deg: BD 1.2"), "{}", words(45.0));
    assert!(words(60.0).ends_with("45 deg (BD 1.2) and 90 deg (BD 3.6, made up)"), "{}", words(60.0));
    // Every row of the example that ships is one.
    assert!(steelk_core::stock::example_bend_table().rows.iter().all(|row| row.made_up));
    let doubtful = csv.replace(",yes", ",perhaps");
    let fault = steelk_core::stock::BendTable::read_csv(&doubtful, "t").unwrap_err();
    assert_eq!(fault.message, "line 3: made_up is \"perhaps\"");
}

/// K by R/T: in proportion between points, nothing past them; DIN 6935's own points give its own K there (r/s = 1 gives
/// k = 0.65, r/s = 2 gives k = 0.80, half of each as K).
#[test]
fn k_by_ratio() {
    let with = |radius: &str| {
        piece(
            "2 mm",
            radius,
            "0.4",
            json!([
                base("100 mm", "60 mm"),
                bend(
                    "up",
                    "base.back",
                    "90 deg",
                    "40 mm",
                    json!({"method": {"k_curve": [{"ratio": "1", "k": "0.325"}, {"ratio": "2", "k": "0.4005"}]}})
                )
            ]),
        )
    };
    near(sound(&with("2 mm")).bends()[0].k_factor, 0.325, 1e-9);
    near(sound(&with("3 mm")).bends()[0].k_factor, 0.36275, 1e-9);
    let past = steelk_core::piece::evaluate(&with("5 mm"), Default::default());
    assert!(
        past.findings.iter().any(|one| one.message.contains("R/T is 2.5; the curve goes from 1 to 2")),
        "{:?}",
        past.findings
    );
}

/// Variants are derived: an operation rested, a call-out changed, the hand turned; each has a mark, blank and mass.
#[test]
fn variants_are_pieces_of_their_own() {
    let mut made = piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("A", "60 mm"),
            bend("up", "base.left", "90 deg", "40 mm", json!({})),
            steelk_testing::drill("drain", "base", "6 mm", json!({"repeat": [{"count": "3", "spacing": "20 mm"}]})),
        ]),
    );
    made.callouts = serde_json::from_value(json!([{"name": "A", "value": "100 mm"}])).expect("call-outs");
    made.variants = serde_json::from_value(json!([
        {"name": "light", "rest": ["drain"], "quantity": 2}, {"name": "long", "set": {"A": "150 mm"}}, {"name": "left", "opposite_hand": true, "mark": "X-1L"}
    ])).expect("variants");
    made.check().expect("sound");
    let light = made.variant("light").expect("light");
    assert_eq!((light.mark.as_str(), light.quantity), ("X-1-light", 2));
    near(
        sound(&light).figures().expect("figures").net_area - sound(&made).figures().expect("figures").net_area,
        27.0 * PI,
        1e-6,
    );
    near(blank(&sound(&made.variant("long").expect("long"))).0 - blank(&sound(&made)).0, 50.0, 1e-9);
    let left = made.variant("left").expect("left");
    assert!(left.opposite_hand && left.mark == "X-1L");
    assert_eq!(made.made().len(), 2, "those with a quantity are made");
    for (bad, path) in [
        (json!([{"name": "light", "rest": ["gone"]}]), "variants[0].rest"),
        (json!([{"name": "light", "set": {"Z": "1 mm"}}]), "variants[0].set"),
        (json!([{"name": "light"}, {"name": "light"}]), "variants[1].name"),
        (json!([{"name": "light", "mark": "X-1"}]), "variants[0].mark"),
    ] {
        let mut wrong = made.clone();
        wrong.variants = serde_json::from_value(bad).expect("variants");
        assert_eq!(wrong.check().unwrap_err().path, path);
    }
}

/// Walls of unequal angle and length meet on the plane between them: the gap is held from foot to top on both.
#[test]
fn unequal_walls_are_mitred() {
    let outcome = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("200 mm", "120 mm"),
            bend(
                "wall",
                "base.front",
                "60 deg",
                "40 mm",
                json!({"also": ["base.right"], "corners": {"mitred": {"gap": "1 mm"}},
                "own": {"base.right": {"angle": "90 deg", "leg": "25 mm"}}})
            ),
        ]),
    ));
    assert!(
        outcome.breaches.iter().all(|one| !one.rule.contains("clash") && one.rule != "flat_overlap"),
        "{:#?}",
        outcome.breaches
    );
    near(probe(&outcome, json!({"bend_angle": {"bend": "wall.front"}})).to_degrees(), 60.0, 1e-9);
    near(probe(&outcome, json!({"bend_angle": {"bend": "wall.right"}})).to_degrees(), 90.0, 1e-9);
    near(probe(&outcome, json!({"leg": {"bend": "wall.right"}})), 25.0, 1e-9);
    // The inside faces cross in one line; the plane that bisects them keeps half the gap to either wall.
    let found = part(&outcome);
    let corners = |name: &str| -> Vec<steelk_core::space::Point3> {
        let panel = found.flat.panel(name).expect("a wall");
        let edges = found.flat.nodes[panel].region.outer.edges.iter();
        edges.flat_map(|edge| [0.0, 2.0].map(|z| found.folded.apply(panel, edge.start, z))).collect()
    };
    // Inward normals: of the front wall leaning out by 30 deg from upright, and of the right wall upright.
    let (lean, cosine) = (30f64.to_radians().sin(), 30f64.to_radians().cos());
    let front = |p: steelk_core::space::Point3| (p.y * cosine + p.z * lean, p);
    let right = |p: steelk_core::space::Point3| 200.0 - p.x;
    // Distances from the outside faces, which pass through the outer mould lines at y = 0 and x = 200.
    let off = |p: steelk_core::space::Point3| (front(p).0 - right(p)) / (2.0f64 - 0.0).sqrt();
    let one = corners("wall.front").into_iter().map(off).fold(f64::NEG_INFINITY, f64::max);
    let two = corners("wall.right").into_iter().map(off).fold(f64::INFINITY, f64::min);
    near(one, -0.5, 1e-6);
    near(two, 0.5, 1e-6);
}

/// A flange repeated along its own edge stands further on by the step; past the edge's end it is refused.
#[test]
fn flanges_repeat_along_their_edge() {
    let with = |count: &str| {
        piece(
            "2 mm",
            "2 mm",
            "0.4",
            json!([
                base("200 mm", "80 mm"),
                bend("ear", "base.back", "90 deg", "30 mm", json!({"position": "bend_outside", "set_in": {"right": "10 mm", "left": "160 mm"}})),
                {"name": "row", "do": {"again": {"of": ["ear"], "how": {"shift": {"count": count, "x": "-60 mm"}}}}},
            ]),
        )
    };
    let three = sound(&with("3"));
    near(distance(&three, "ear.left", "row.2.ear.left", "x"), 120.0, 1e-9);
    assert_eq!(three.bends().len(), 3);
    let four = steelk_core::piece::evaluate(&with("5"), Default::default());
    assert!(four.findings.iter().any(|one| one.message.contains("which is 200 mm long")), "{:?}", four.findings);
}

/// Corners that are left on a folded flange are rounded and clipped like any other, and stay measurable.
#[test]
fn corners_of_flanges_are_rounded() {
    let outcome = sound(&piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("120 mm", "80 mm"),
            bend("wall", "base.front", "90 deg", "40 mm", json!({"also": ["base.right"], "corners": {"closed": {"gap": "0.5 mm"}}})),
            {"name": "soft", "do": {"corner": {"panel": "wall.front", "at": ["left/end"], "shape": {"round": "8 mm"}}}},
            {"name": "clip", "do": {"corner": {"panel": "wall.right", "at": ["back/end"], "shape": {"chamfer": {"leg": "10 mm"}}}}},
        ]),
    ));
    near(probe(&outcome, json!({"edge_radius": {"edge": "soft"}})), 8.0, 1e-9);
    near(probe(&outcome, json!({"edge_length": {"edge": "clip"}})), 10.0 * 2f64.sqrt(), 1e-9);
}

/// Corners that each fit their own edges and together leave nothing, or cross each other, are refused in words: a panel
/// of no area has no middle for its label.
#[test]
fn corners_that_meet_are_refused() {
    let notches = |width: &str, depth: &str, at: Value, panel: &str| json!({"name": "ears", "do": {"corner": {"panel": panel, "at": at, "shape": {"notch": {"width": width, "depth": depth}}}}});
    let flange = steelk_testing::piece(
        "1.5 mm",
        "1.5 mm",
        "0.42",
        json!([
            steelk_testing::base("70 mm", "110 mm"),
            steelk_testing::bend("flange", "base.front", "90 deg", "25 mm", json!({})),
            notches("35 mm", "25 mm - R - T", json!(["end/left", "end/right"]), "flange"),
        ]),
    );
    let crossed = steelk_testing::piece(
        "3 mm",
        "3 mm",
        "0.42",
        json!([
            steelk_testing::base("100 mm", "100 mm"),
            notches("60 mm", "60 mm", json!(["front/left", "back/right"]), "base")
        ]),
    );
    for (piece, words) in [(flange, "leaves nothing of flange"), (crossed, "the outline crosses itself")] {
        let outcome = evaluate(&piece, Options::default());
        let said: Vec<&str> = outcome.findings.iter().map(|one| one.message.as_str()).collect();
        assert!(said.iter().any(|one| one.contains(words)), "{said:?}");
    }
}
