//! Pressed forms: by hand, what is refused, and random ones against their formulas, their faces and their mirror images.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::{Pressed, folded_body};
use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, drill, near, part, piece, sound};

use crate::formed::{audited, differs, refused};

fn form(name: &str, panel: &str, shape: Value, extra: Value) -> Value {
    let mut fields = json!({"panel": panel, "shape": shape});
    for (key, value) in extra.as_object().expect("an object") {
        fields[key] = value.clone();
    }
    json!({"name": name, "do": {"form": fields}})
}

fn plate(work: Vec<Value>) -> Piece {
    let all: Vec<Value> = std::iter::once(base("200 mm", "160 mm")).chain(work).collect();
    piece("2 mm", "2 mm", "0.44", json!(all))
}

/// A dimple of 20 by 3 with upright sides: a disc of 10 more over the face, one of 8 less under it (the wall is as thick as the sheet).
#[test]
fn an_upright_dimple_is_two_cylinders() {
    let shape = json!({"dimple": {"diameter": "20 mm", "height": "3 mm", "side": "90 deg"}});
    let outcome = audited(&plate(vec![form("pip", "base", shape, json!({}))]));
    near(differs(&outcome), PI * (100.0 - 64.0) * 3.0, 1e-9);
    let figures = outcome.figures().unwrap();
    // The blank and its mass stay; the overall height is that of the crown.
    near(figures.mass, 200.0 * 160.0 * 2.0 * 7.85e-6, 1e-12);
    near(figures.folded_size.z, 2.0 + 3.0, 1e-9);
    assert_eq!(figures.pierces, 1);
}

/// At 45 deg the walls lean in as much as they rise, and the hollow's mouth stands in by T tan 22.5 deg: two frustums.
#[test]
fn a_dimple_is_as_thick_as_its_sheet_all_over() {
    let shape = json!({"dimple": {"diameter": "30 mm", "height": "4 mm"}});
    let outcome = audited(&plate(vec![form("pip", "base", shape, json!({"out_of": "bottom"}))]));
    let in_by = 2.0 * 22.5f64.to_radians().tan();
    let frustum = |a: f64, b: f64| PI * 4.0 / 3.0 * (a * a + a * b + b * b);
    near(differs(&outcome), frustum(15.0, 11.0) - frustum(15.0 - in_by, 11.0 - in_by), 1e-9);
    let body = folded_body(&part(&outcome).flat).unwrap();
    // Out of the lower face: the crown is the lowest, the upper face stays where it is.
    near(body.extents().low.z, -4.0, 1e-9);
    near(body.extents().high.z, 2.0, 1e-9);
}

/// A collar of 1 by 3 round a hole of 20 in 2: it has pi (11^2 - 10^2) 3 of metal, and so has the ring from the pilot to the hole.
#[test]
fn an_extruded_holes_pilot_has_the_metal_of_its_collar() {
    let shape = json!({"extruded": {"diameter": "20 mm", "height": "3 mm", "wall": "1 mm"}});
    let outcome = audited(&plate(vec![form("neck", "base", shape, json!({}))]));
    let pilot = (100.0f64 - 21.0 * 3.0 / 2.0).sqrt();
    near(outcome.figures().unwrap().net_area, 200.0 * 160.0 - PI * pilot * pilot, 1e-9);
    near(differs(&outcome), 0.0, 1e-9);
    near(folded_body(&part(&outcome).flat).unwrap().mass().volume, outcome.figures().unwrap().folded_volume, 1e-6);
    // For tapping: the inside is the tap drill.
    let shape = json!({"extruded": {"thread": "M8", "height": "1.5 mm"}});
    let outcome = audited(&plate(vec![form("neck", "base", shape, json!({}))]));
    assert!(matches!(part(&outcome).flat.forms[0].shape, Pressed::Extruded { inside, .. } if inside == 6.75));
    let too_high = json!({"extruded": {"diameter": "20 mm", "height": "40 mm", "wall": "1 mm"}});
    let said = refused(&plate(vec![form("neck", "base", too_high, json!({}))]));
    assert!(said.contains("takes more metal than a hole of 20 mm has"), "{said}");
}

/// A knock-out stands out of one face by what is gone from the other: half of the sheet where nothing is said.
#[test]
fn a_knock_out_neither_takes_nor_makes_metal() {
    let made = |extra: Value| {
        let mut shape = json!({"diameter": "20.5 mm"});
        for (key, value) in extra.as_object().unwrap() {
            shape[key] = value.clone();
        }
        plate(vec![form("gland", "base", json!({"knock_out": shape}), json!({"out_of": "bottom"}))])
    };
    let outcome = audited(&made(json!({})));
    near(differs(&outcome), 0.0, 1e-9);
    let body = folded_body(&part(&outcome).flat).unwrap();
    near(body.extents().low.z, -1.0, 1e-9);
    let hollow = body.faces.iter().find(|face| face.name == "gland.hollow").unwrap();
    near(body.face_area(hollow), PI * 10.25 * 10.25, 1e-6);
    assert!(refused(&made(json!({"height": "2 mm"}))).contains("falls out"));
}

/// The opening of a louvre lies on the side away from the edge that it is placed from, or to it: read from where its body is highest.
#[test]
fn a_louvre_opens_where_it_is_said_to() {
    let louvre = |opens: &str, extra: Value| {
        let shape = json!({"louvre": {"length": "60 mm", "width": "16 mm", "height": "6 mm", "opens": opens}});
        let mut place = json!({"place": {"from": [{"edge": "base.front", "distance": "50 mm"}]}});
        for (key, value) in extra.as_object().unwrap() {
            place[key] = value.clone();
        }
        audited(&plate(vec![form("vent", "base", shape, place)]))
    };
    let lips = |outcome: &Outcome| -> Vec<f64> {
        let body = folded_body(&part(outcome).flat).unwrap();
        let top = body.extents();
        // What stands out of the lower face is the lowest.
        let lip = if top.low.z < -1e-9 { top.low.z } else { top.high.z };
        let far = |z: f64| (z - lip).abs() < 1e-9;
        let mut all: Vec<f64> =
            body.corners.iter().filter(|at| far(at.z)).map(|at| (at.y * 1e6).round() / 1e6).collect();
        all.sort_by(f64::total_cmp);
        all.dedup();
        all
    };
    assert_eq!(lips(&louvre("away", json!({}))), [58.0]);
    assert_eq!(lips(&louvre("toward", json!({}))), [42.0]);
    assert_eq!(lips(&louvre("away", json!({"out_of": "bottom"}))), [58.0]);
    // Mirrored up the panel its image opens toward the edge.
    assert_eq!(lips(&louvre("away", json!({"mirror": "up"}))), [58.0, 102.0]);
    assert_eq!(lips(&louvre("away", json!({"turn": "180 deg"}))), [42.0]);
    // Its metal by hand: the prism of its roof less its ends over the face, less the hollow's.
    let roof = (6.0f64 / 16.0).atan();
    let hood = |long: f64, wide: f64| {
        let high = wide * roof.tan();
        long * wide * high / 2.0 - high * high * wide / (3.0 * 60f64.to_radians().tan())
    };
    let hollow = hood(60.0 - 4.0 * 30f64.to_radians().tan(), 16.0 - 2.0 * (roof / 2.0).tan());
    near(differs(&louvre("away", json!({}))), hood(60.0, 16.0) - hollow, 1e-9);
}

#[test]
fn what_cannot_be_pressed_is_told() {
    let bead = |length: &str, width: &str, height: &str| {
        let shape = json!({"bead": {"length": length, "width": width, "height": height}});
        refused(&plate(vec![form("bead", "base", shape, json!({}))]))
    };
    assert!(bead("10 mm", "20 mm", "2 mm").contains("not longer than it is wide"));
    assert!(bead("60 mm", "6 mm", "5 mm").contains("rounds are too small"));
    assert!(bead("300 mm", "20 mm", "2 mm").contains("runs out over the edge"));
    let shape = json!({"louvre": {"length": "60 mm", "width": "16 mm", "height": "1 mm"}});
    assert!(refused(&plate(vec![form("vent", "base", shape, json!({}))])).contains("does not open"));
    let shape = json!({"dimple": {"diameter": "20 mm", "height": "3 mm", "side": "5 deg"}});
    assert!(refused(&plate(vec![form("pip", "base", shape, json!({}))])).contains("cannot be pressed"));
    // A hole where a form is, and a form where a hole is.
    let pip = || form("pip", "base", json!({"dimple": {"diameter": "20 mm", "height": "3 mm"}}), json!({}));
    let hole = || drill("bore", "base", "10 mm", json!({}));
    assert!(refused(&plate(vec![pip(), hole()])).contains("pip and bore"));
    assert!(refused(&plate(vec![hole(), pip()])).contains("bore and pip"));
    // A flange whose bend would run over it.
    let low = form(
        "pip",
        "base",
        json!({"dimple": {"diameter": "20 mm", "height": "3 mm"}}),
        json!({"place": {"from": [{"edge": "base.left", "distance": "11 mm"}]}}),
    );
    let said = refused(&plate(vec![low, bend("up", "base.left", "90 deg", "30 mm", json!({}))]));
    assert!(said.contains("over the form pip"), "{said}");
}

/// A slot cut through a dimple after it was pressed: the piece is made, its solid says so.
#[test]
fn a_cut_through_a_form_withholds_the_solid_in_words() {
    let pip = form("pip", "base", json!({"dimple": {"diameter": "20 mm", "height": "3 mm"}}), json!({}));
    let slot =
        json!({"name": "slot", "do": {"cut": {"panel": "base", "reach": "flat", "width": "40 mm", "height": "6 mm"}}});
    let outcome = sound(&plate(vec![pip, slot]));
    let fault = folded_body(&part(&outcome).flat).unwrap_err().to_string();
    assert!(fault.contains("pip runs into slot"), "{fault}");
    // A window around it takes it away whole.
    let pip = form("pip", "base", json!({"dimple": {"diameter": "20 mm", "height": "3 mm"}}), json!({}));
    let window = json!({"name": "window", "do": {"cut": {"panel": "base", "reach": "flat", "width": "60 mm", "height": "60 mm"}}});
    let gone = sound(&plate(vec![pip, window]));
    let fault = folded_body(&part(&gone).flat).unwrap_err().to_string();
    assert!(fault.contains("pip lies where the sheet is cut away"), "{fault}");
    // It is drawn as a line on its face.
    let used: std::collections::HashSet<u32> = outcome.mesh.triangles.iter().flatten().copied().collect();
    let rim = outcome.mesh.lines.iter().filter(|line| !used.contains(&line[0])).count();
    assert!(rim >= 12, "{rim} lines of its rim");
}

/// A random form that fits a square of 44 mm, on sheet of a thickness.
fn random(dice: &mut Dice, thickness: f64) -> Value {
    let size =
        |dice: &mut Dice, low: f64, high: f64| low + dice.below(((high - low) * 100.0) as usize + 1) as f64 / 100.0;
    let side: f64 = [30.0, 45.0, 60.0, 75.0, 90.0][dice.below(5)];
    let height = thickness * size(dice, 0.3, 1.2);
    match dice.below(6) {
        0 => {
            let (width, high) = (size(dice, 10.0, 18.0), thickness * size(dice, 1.6, 2.6));
            let opens = *dice.pick(&["away", "toward"]);
            json!({"louvre": {"length": dice.text(40.0), "width": dice.text(width), "height": dice.text(high),
                "opens": opens, "side": format!("{} deg", side.max(60.0))}})
        }
        1 => {
            let (length, width) = (size(dice, 30.0, 42.0), size(dice, 18.0, 24.0));
            json!({"bead": {"length": dice.text(length), "width": dice.text(width), "height": dice.text(height),
                "side": format!("{side} deg")}})
        }
        2 => {
            let diameter = size(dice, 20.0, 40.0);
            json!({"dimple": {"diameter": dice.text(diameter), "height": dice.text(height), "side": format!("{side} deg")}})
        }
        5 => json!({"knock_out": {"diameter": dice.text(24.0), "height": dice.text(thickness * 0.6)}}),
        3 => {
            let (diameter, high) = (size(dice, 12.0, 30.0), thickness * size(dice, 0.5, 1.5));
            json!({"extruded": {"diameter": dice.text(diameter), "height": dice.text(high)}})
        }
        _ => {
            let (a, b) = (size(dice, 26.0, 40.0), size(dice, 26.0, 40.0));
            let outline = match dice.below(3) {
                0 => json!({"rectangle": {"width": dice.text(a), "depth": dice.text(b)}}),
                1 => json!({"polygon": {"sides": (3 + dice.below(5)).to_string(), "size": dice.text(a)}}),
                _ => json!({"obround": {"length": dice.text(a.max(b) + 1.0), "width": dice.text(a.min(b))}}),
            };
            json!({"raised": {"outline": outline, "height": dice.text(height), "side": format!("{side} deg")}})
        }
    }
}

/// Random forms on plates and on flanges of boxes, both faces, turned, mirrored, opposite hands: formula, faces and mesh agree; the blank is
/// that of the sheet without them but for the pilots; a mirrored one stands opposite.
#[test]
fn random_forms_agree_with_themselves() {
    let mut made = 0;
    for seed in 0..trials::cases(200) {
        let dice = &mut Dice::new(seed + 900);
        let thickness = 0.8 + dice.below(20) as f64 / 10.0;
        let mut plain = vec![base("220 mm", "170 mm")];
        if dice.one_in(2) {
            let angle = format!("{} deg", 30 + dice.below(100));
            plain.push(bend("wall", "base.back", &angle, "70 mm", json!({"direction": dice.pick(&["up", "down"])})));
        }
        let mut work = plain.clone();
        for (panel, at) in [("base", 60.0), ("base", 160.0), ("wall", 110.0)] {
            if panel == "wall" && plain.len() < 2 {
                continue;
            }
            let edges = if panel == "base" { ["base.left", "base.front"] } else { ["wall.left", "wall.end"] };
            let deep = if panel == "base" { 45.0 } else { 30.0 };
            let mut extra = json!({"out_of": dice.pick(&["top", "bottom"]), "place": {"from": [
                {"edge": edges[1], "distance": dice.text(deep)}, {"edge": edges[0], "distance": dice.text(at)}]}});
            if dice.one_in(3) {
                extra["turn"] = json!(format!("{} deg", 90 * dice.below(4)));
            }
            if panel == "base" && dice.one_in(3) {
                extra["mirror"] = json!("up");
            }
            work.push(form(&format!("f{}", work.len()), panel, random(dice, thickness), extra));
        }
        let sheet = format!("{thickness} mm");
        let mut own = piece(&sheet, &sheet, "0.44", json!(work));
        let outcome = evaluate(&own, Options::default());
        let errors: Vec<&str> = outcome
            .findings
            .iter()
            .filter(|one| one.severity == Severity::Error)
            .map(|one| one.message.as_str())
            .collect();
        if !errors.is_empty() {
            // What does not fit its sheet is told; nothing else is refused.
            let told = ["sides meet", "rounds are too small", "no room between", "does not open", "takes more metal"];
            assert!(errors.iter().all(|one| told.iter().any(|words| one.contains(words))), "seed {seed}: {errors:?}");
            continue;
        }
        made += 1;
        let outcome = audited(&own);
        assert!(outcome.mesh.is_watertight(), "seed {seed}");
        let bare = sound(&piece(&sheet, &sheet, "0.44", json!(plain)));
        let (with, without) = (outcome.figures().unwrap(), bare.figures().unwrap());
        let pilots: f64 = part(&outcome)
            .flat
            .forms
            .iter()
            .map(|one| match one.shape {
                Pressed::Extruded { pilot, .. } => PI * pilot * pilot / 4.0,
                _ => 0.0,
            })
            .sum();
        near(with.net_area, without.net_area - pilots, 1e-6);
        near(with.mass, without.mass - pilots * thickness * 7.85e-6, 1e-9);
        own.opposite_hand = true;
        let other = audited(&own);
        let (one, two) = (folded_body(&part(&outcome).flat).unwrap(), folded_body(&part(&other).flat).unwrap());
        near(one.mass().volume, two.mass().volume, 1e-6);
        let (a, b) = (one.mass().centre, two.mass().centre);
        assert!(
            (a.x + b.x).abs() < 1e-6 && (a.y - b.y).abs() < 1e-6 && (a.z - b.z).abs() < 1e-6,
            "seed {seed}: {a:?} {b:?}"
        );
        for (here, there) in part(&outcome).flat.forms.iter().zip(part(&other).flat.forms.iter()) {
            assert!((here.ways[1].x + there.ways[1].x).abs() < 1e-9 && (here.ways[1].y - there.ways[1].y).abs() < 1e-9);
            assert_eq!(here.up, there.up);
        }
    }
    assert!(made as u64 > trials::cases(200) / 2, "{made} made");
}
