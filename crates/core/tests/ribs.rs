//! Ribs across bends: by hand, what is refused, and random ones against their formulas, their faces and their mirror images.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::sheet::{RibPart, RibPiece, RibZone, folded_body};
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, near, part, piece, probe, sound};

use crate::formed::{audited, differs, refused};

fn rib(extra: Value) -> Value {
    let mut fields = json!({"bend": "wall", "panel_leg": "25 mm", "flange_leg": "25 mm", "width": "12 mm"});
    for (key, value) in extra.as_object().expect("an object") {
        if value.is_null() {
            fields.as_object_mut().expect("an object").remove(key);
        } else {
            fields[key] = value.clone();
        }
    }
    json!({"name": "rib", "do": {"rib": fields}})
}

/// A bracket of 2 mm, 120 wide, base 80 and a wall of 60, with what is done to it.
fn bracket(angle: &str, way: Value, work: Vec<Value>) -> Piece {
    let mut all = vec![base("120 mm", "80 mm"), bend("wall", "base.back", angle, "60 mm", way)];
    all.extend(work);
    piece("2 mm", "3 mm", "0.44", json!(all))
}

/// Upright sides over a square bend, 2 mm and R3, legs of 25 from the outside: inside the corner the triangle of 23 by 23 less what the
/// round fills, times 12; under it the same a thickness further in (standard plane geometry).
#[test]
fn an_upright_flat_rib_is_two_prisms() {
    let outcome = audited(&bracket("90 deg", json!({}), vec![rib(json!({"draft": "0 deg"}))]));
    let filled = |radius: f64| (1.0 - std::f64::consts::FRAC_PI_4) * radius * radius;
    let inner = 23.0f64 * 23.0 / 2.0 - filled(3.0);
    // The outer corner lies 2 root 2 beyond the inner one and the ridge over it 2 below: the triangle's height grows by the difference.
    let leg = 2.0f64.sqrt() * (23.0 / 2.0f64.sqrt() + 2.0 * 2.0f64.sqrt() - 2.0);
    let outer = leg * leg / 2.0 - filled(5.0);
    near(differs(&outcome), 12.0 * inner - (12.0 - 4.0) * outer, 1e-6);
    let plain = sound(&bracket("90 deg", json!({}), vec![]));
    let (one, two) = (outcome.figures().unwrap(), plain.figures().unwrap());
    // Neither blank, mass nor overall size know of it.
    near(one.mass, two.mass, 1e-12);
    near(one.cut_length, two.cut_length, 1e-12);
    assert_eq!((one.blank_width, one.folded_size), (two.blank_width, two.folded_size));
}

/// A ridge is the straight from leg to leg: its face holds the middle between their ends, 25 from the mould line on either leg.
#[test]
fn a_ridge_lies_where_its_legs_say() {
    for (direction, inside) in [("up", 2.0), ("down", 0.0)] {
        let outcome = audited(&bracket("90 deg", json!({"direction": direction}), vec![rib(json!({}))]));
        let flat = &part(&outcome).flat;
        let body = folded_body(flat).unwrap();
        let ridge = body.faces.iter().find(|face| face.name == "rib.ridge").expect("a ridge");
        let steelk_core::space::Surface::Plane { point, normal, .. } = &ridge.surface else { panic!("no plane") };
        // On the base's inner face 25 from the wall's outside, on the wall's 25 from the base's outside.
        let sign = if direction == "up" { 1.0 } else { -1.0 };
        let outside = inside - sign * 2.0;
        for (y, z) in [(80.0 - 25.0, inside), (78.0, outside + sign * 25.0)] {
            near((y - point.y) * normal.y + (z - point.z) * normal.z, 0.0, 1e-9);
        }
        // It looks into the corner's open side, at 45 deg to both legs.
        near(normal.y, -(0.5f64.sqrt()), 1e-12);
        near(normal.z, sign * 0.5f64.sqrt(), 1e-12);
        // Its faces can be measured to by name: a side leans by its draft, 6 from the middle at the ridge; the hollow lies a thickness under it.
        near(probe(&outcome, json!({"distance": {"from": "rib.ridge", "to": "rib.hollow-ridge"}})), 2.0, 1e-9);
        near(probe(&outcome, json!({"distance": {"from": "rib.side-left", "to": "rib.hollow-side-left"}})), 2.0, 1e-9);
    }
}

/// One leg of 20 and 60 deg to the panel: on the flange, from the outside mould point, 2 + (20 - 2) tan 60.
#[test]
fn a_leg_by_the_ridges_angle() {
    let said = |extra| bracket("90 deg", json!({}), vec![rib(extra)]);
    let by_angle = audited(&said(json!({"panel_leg": "20 mm", "flange_leg": null, "angle": "60 deg"})));
    let legs = part(&by_angle).flat.ribs[0].legs;
    near(legs[0], 20.0, 1e-12);
    near(legs[1], 2.0 + 18.0 * 3.0f64.sqrt(), 1e-9);
}

#[test]
fn rows_stand_where_they_are_said() {
    let middles = |extra: Value| -> Vec<f64> {
        let mut fields = json!({"width": "6 mm", "panel_leg": "12 mm", "flange_leg": "12 mm"});
        extra.as_object().unwrap().iter().for_each(|(key, value)| fields[key] = value.clone());
        let outcome = audited(&bracket("90 deg", json!({}), vec![rib(fields)]));
        part(&outcome).flat.ribs.iter().map(|rib| (rib.centre.x * 1e6).round() / 1e6).collect()
    };
    assert_eq!(middles(json!({})), [60.0]);
    assert_eq!(middles(json!({"from": "left", "at": "20 mm"})), [20.0]);
    // To its edge: half its width further.
    assert_eq!(middles(json!({"from": "right", "at": "20 mm", "at_is": "edge"})), [97.0]);
    assert_eq!(middles(json!({"from": "left", "count": "3", "at": "20 mm", "last": "30 mm"})), [20.0, 55.0, 90.0]);
    assert_eq!(middles(json!({"from": "left", "count": "3", "at": "20 mm"})), [20.0, 60.0, 100.0]);
    assert_eq!(middles(json!({"from": "left", "count": "3", "pitch": "30 mm"})), [30.0, 60.0, 90.0]);
    assert_eq!(middles(json!({"from": "left", "count": "3"})), [20.0, 60.0, 100.0]);
    // As few equal spaces as keep within the pitch: 80 in two of 40.
    assert_eq!(middles(json!({"from": "left", "pitch": "50 mm", "at": "20 mm"})), [20.0, 60.0, 100.0]);
    assert_eq!(middles(json!({"from": "left", "count": "3", "skip": [2]})), [20.0, 100.0]);
    // A length that is a whole number of pitches in inches is no space more.
    assert_eq!(middles(json!({"from": "left", "pitch": "1 in", "at": "9.2 mm"})).len(), 5);
}

#[test]
fn what_cannot_be_pressed_is_told() {
    let told = |angle: &str, extra: Value| refused(&bracket(angle, json!({}), vec![rib(extra)]));
    assert!(told("90 deg", json!({"bend": "flap"})).contains("no bend called flap"));
    assert!(told("90 deg", json!({"panel_leg": "4 mm"})).contains("short of the bend's tangent line"));
    // Past the tangent line on the inner face, before it on the outer one.
    assert!(told("90 deg", json!({"panel_leg": "5.2 mm"})).contains("short of the bend's tangent line"));
    assert!(told("90 deg", json!({"flange_leg": "70 mm"})).contains("runs into wall.end"));
    assert!(told("90 deg", json!({"width": "3 mm"})).contains("by its own thickness"));
    assert!(told("90 deg", json!({"width": "3 mm", "ridge": "round"})).contains("by its own thickness"));
    assert!(told("90 deg", json!({"at": "5 mm"})).contains("runs into"));
    assert!(told("90 deg", json!({"at": "130 mm"})).contains("leaves the bend, which is 120 mm long"));
    assert!(told("90 deg", json!({"count": "3", "pitch": "15 mm"})).contains("runs into rib.1"));
    assert!(told("90 deg", json!({"from": "top"})).contains("no end called top"));
    assert!(told("90 deg", json!({"skip": [2]})).contains("no rib 2"));
    assert!(told("90 deg", json!({"angle": "45 deg"})).contains("two legs, or one and an angle"));
    assert!(told("90 deg", json!({"flange_leg": null, "angle": "95 deg"})).contains("does not meet the flange"));
    assert!(told("90 deg", json!({"pitch": "20 mm"})).contains("does not say where"));
    assert!(told("10 deg", json!({})).contains("15 to 150 deg"));
    assert!(told("160 deg", json!({"panel_leg": "25 mm"})).contains("15 to 150 deg"));
    assert!(told("150 deg", json!({"panel_leg": "60 mm", "flange_leg": "9 mm"})).contains("stands at 141"));
}

/// Steps that come later keep clear of a rib: a hole, a window over the bend, a corner cut, a form.
#[test]
fn what_would_run_into_a_rib_is_refused() {
    let with = |step: Value| refused(&bracket("90 deg", json!({}), vec![rib(json!({})), step]));
    let from = |x: &str, y: &str| json!({"from": [{"edge": "base.left", "distance": x}, {"edge": "base.front", "distance": y}]});
    let hole = json!({"name": "bore", "do": {"drill": {"panel": "base", "diameter": "8 mm", "place": from("60 mm", "65 mm")}}});
    assert!(with(hole).contains("the rib rib runs into bore"));
    let dimple = json!({"name": "pip", "do": {"form": {"panel": "base", "shape": {"dimple": {"diameter": "12 mm", "height": "1 mm"}},
        "place": from("60 mm", "62 mm")}}});
    assert!(with(dimple).contains("the rib rib runs into pip"));
    // A rib before the bend that it is across is one across nothing.
    let early = piece("2 mm", "3 mm", "0.44", json!([base("120 mm", "80 mm"), rib(json!({}))]));
    assert!(refused(&early).contains("no bend called wall"));
}

/// A piece that is parted beside a rib keeps it on the blank that has its bend; a line through it, or along its tangent line, is refused.
#[test]
fn a_parted_piece_keeps_its_ribs() {
    let rib = || rib(json!({"from": "left", "at": "80 mm"}));
    let parted =
        |at: Value| bracket("90 deg", json!({}), vec![rib(), json!({"name": "off", "do": {"split": {"at": at}}})]);
    let line = |distance: &str| json!({"line": {"panel": "base", "edge": "base.left", "distance": distance}});
    let outcome = audited(&parted(line("30 mm")));
    let sheets = outcome.sheets().unwrap();
    let ribs: Vec<usize> = sheets.blanks().iter().map(|blank| blank.part.flat.ribs.len()).collect();
    assert_eq!(ribs.iter().sum::<usize>(), 1, "{ribs:?}");
    for blank in sheets.blanks() {
        let flat = &blank.part.flat;
        assert!(folded_body(flat).unwrap().is_closed());
        for rib in flat.ribs.iter() {
            assert!(flat.nodes[rib.strip].strip().is_some() && flat.nodes[rib.strip].region.contains(rib.centre));
        }
    }
    assert!(refused(&parted(line("80 mm"))).contains("rib"));
    assert!(refused(&parted(json!({"bend": {"bend": "wall"}}))).contains("no flat metal under it"));
}

/// Openings in a bend between its ribs stay in the face that they are in: in the solid each stretch of the bend has its own.
#[test]
fn a_bend_with_openings_falls_apart_between_its_ribs() {
    let window = |name: &str, x: &str, high: &str| {
        json!({"name": name, "do": {"cut": {"panel": "base", "reach": "flat", "width": "6 mm", "height": high,
            "place": {"from": [{"edge": "wall.tangent", "distance": "-2 mm"}, {"edge": "base.left", "distance": x}]}}}})
    };
    let work = vec![
        rib(json!({"from": "left", "at": "35 mm", "last": "35 mm", "count": "2"})),
        window("one", "10 mm", "2 mm"),
        window("two", "60 mm", "2 mm"),
        window("three", "110 mm", "30 mm"),
    ];
    let outcome = audited(&bracket("90 deg", json!({}), work));
    let body = folded_body(&part(&outcome).flat).unwrap();
    for side in ["top", "bottom"] {
        let name = format!("wall.bend.{side}");
        let faces: Vec<_> = body.faces.iter().filter(|face| face.name == name).collect();
        let mut loops: Vec<usize> = faces.iter().map(|face| face.loops.len()).collect();
        loops.sort_unstable();
        // Left of the ribs one with its window, between them one with its own, right of them two beside the long one.
        assert_eq!(loops, [1, 1, 2, 2], "{side}");
        for face in faces {
            let across = |loop_: &Vec<(usize, bool)>| {
                let xs = loop_.iter().map(|&(edge, _)| body.corners[body.edges[edge].from].x);
                xs.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), x| (low.min(x), high.max(x)))
            };
            let spans: Vec<(f64, f64)> = face.loops.iter().map(across).collect();
            // An opening lies within the rim that it is an opening of.
            assert!(spans[1..].iter().all(|one| spans[0].0 < one.0 && one.1 < spans[0].1), "{side}: {spans:?}");
        }
    }
    assert!(outcome.mesh.is_watertight());
}

/// Made again across the base onto the opposite bend, each leg on the panel that it was said for.
#[test]
fn mirrored_onto_the_opposite_bend() {
    let work = json!([
        base("120 mm", "80 mm"),
        bend("wall", "base.back", "90 deg", "60 mm", json!({})),
        bend("other", "base.front", "90 deg", "60 mm", json!({})),
        rib(json!({"panel_leg": "20 mm", "flange_leg": "30 mm", "from": "left", "at": "30 mm"})),
        {"name": "twin", "do": {"again": {"of": ["rib"], "how": {"mirror": {"panel": "base", "along": "y"}}}}},
    ]);
    let outcome = audited(&piece("2 mm", "3 mm", "0.44", work.clone()));
    let ribs = &part(&outcome).flat.ribs;
    assert_eq!(ribs.len(), 2);
    assert_eq!(ribs[1].bend, "other");
    assert_eq!(ribs[0].legs, ribs[1].legs);
    near(ribs[1].centre.x, 30.0, 1e-9);
    near(ribs[0].centre.y + ribs[1].centre.y, 80.0, 1e-9);
    // The solid is its own mirror image front to back.
    near(folded_body(&part(&outcome).flat).unwrap().mass().centre.y, 40.0, 1e-6);
    let mut alone = work.as_array().unwrap().clone();
    alone.remove(2);
    assert!(refused(&piece("2 mm", "3 mm", "0.44", json!(alone))).contains("there is no bend of the same angle"));
}

/// Random ribs: formula against faces, the mesh that is seen closed and as large, the blank as it was, the other hand the same metal.
#[test]
fn random_ribs_agree_with_themselves() {
    let (mut made, mut curved) = (0, 0);
    let wanted = trials::cases(200);
    for seed in 0.. {
        if made == wanted {
            break;
        }
        assert!(seed < 4 * wanted, "only {made} of {seed} could be made");
        let mut dice = Dice::new(seed + 900);
        let angle = 15.0 + dice.below(1351) as f64 / 10.0;
        let radius = 1.0 + dice.below(600) as f64 / 100.0;
        let reach = (radius + 2.0) * if angle > 90.0 { 1.0 } else { (angle / 2.0f64).to_radians().tan() };
        let mut leg = || reach + 3.0 + dice.below(2500) as f64 / 100.0;
        let (one, two) = (leg(), leg());
        let width = 4.5 + dice.below(1200) as f64 / 100.0;
        let fields = json!({
            "panel_leg": dice.text(one), "flange_leg": dice.text(two), "width": dice.text(width),
            "ridge": if dice.one_in(2) { "round" } else { "flat" }, "draft": format!("{} deg", dice.below(50)),
        });
        let way = json!({"direction": if dice.one_in(2) { "down" } else { "up" }});
        let work = vec![
            base("160 mm", "80 mm"),
            bend("wall", "base.back", &format!("{angle} deg"), "60 mm", way),
            rib(fields),
        ];
        let radius = format!("{radius} mm");
        let ours = piece("2 mm", &radius, "0.44", json!(work));
        let outcome = evaluate(&ours, Options::default());
        if outcome.findings.iter().any(|one| one.severity == Severity::Error) {
            continue;
        }
        let outcome = audited(&ours);
        let flat = &part(&outcome).flat;
        let plain = sound(&piece("2 mm", &radius, "0.44", json!(work[..2])));
        let (figures, without) = (outcome.figures().unwrap(), plain.figures().unwrap());
        near(figures.mass, without.mass, 1e-12);
        assert_eq!(figures.cut_length, without.cut_length, "seed {seed}");
        assert_eq!(figures.pierces, without.pierces, "seed {seed}");
        for (with, plain) in [
            (figures.folded_size.x, without.folded_size.x),
            (figures.folded_size.y, without.folded_size.y),
            (figures.folded_size.z, without.folded_size.z),
        ] {
            near(with, plain, 1e-9);
        }
        assert!(outcome.mesh.is_watertight(), "seed {seed}");
        let volume = figures.folded_volume + figures.formed;
        assert!((outcome.mesh.volume() / volume - 1.0).abs() < 0.02, "seed {seed}: {} {volume}", outcome.mesh.volume());
        let [inner, _] = flat.ribs[0].shells(flat).unwrap();
        // Its footprint strays from its rim by less than what is left free about it.
        let (rib, strip) = (&flat.ribs[0], flat.nodes[flat.ribs[0].strip].strip().unwrap());
        let footprint = rib.footprint(flat).unwrap();
        let middle = strip.local(rib.centre).0;
        for piece in inner.pieces.iter().filter(|one| one.part != RibPart::Bend) {
            for step in 0..=40 {
                let at = piece.from + (piece.to - piece.from) * f64::from(step) / 40.0;
                let across = if piece.part == RibPart::First { -at } else { strip.width + at };
                let half = inner.half_at(inner.depth(piece.part, at));
                let place = strip.place(middle + half, across);
                let off = footprint.segments().map(|(one, _)| one.distance_to(place)).fold(f64::INFINITY, f64::min);
                assert!(off < 0.05, "seed {seed}: {off} at {at} of {piece:?}");
            }
        }
        let is_curved = |piece: &RibPiece| piece.part == RibPart::Bend && piece.zone == RibZone::Ridge;
        curved += usize::from(inner.pieces.iter().any(is_curved));
        let mut twin = ours.clone();
        twin.opposite_hand = true;
        near(audited(&twin).figures().unwrap().formed, figures.formed, 1e-9);
        made += 1;
    }
    // Round ridges that run into the bend's round have rims of their own kind.
    assert!(curved as u64 * 20 > made, "{curved} of {made}");
}
