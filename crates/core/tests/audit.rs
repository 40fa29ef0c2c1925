//! The audit finds what is wrong by itself: each test spoils one thing of a sound part and insists that the check which stands for
//! it says so, and no other.

use std::sync::Arc;

use serde_json::json;
use steelk_core::audit::{Audit, full_sheet, light_sheet};
use steelk_core::piece::{Outcome, audit_fully};
use steelk_core::release::ready;
use steelk_core::sheet::{Part, figures};
use steelk_core::space::Mesh;

use steelk_testing::{base, bend, drill, piece, sound};

/// A bracket with a flange, a slot cut across the bend in the flat, and a hole mirrored to the other side.
fn bracket() -> Outcome {
    let slot = json!({"name": "slot", "do": {"cut": {"panel": "base", "reach": "flat", "slot": {"length": "40 mm", "width": "12 mm"}, "turn": "90 deg",
        "place": {"from": [{"edge": "up.tangent", "distance": "0 mm"}]}}}});
    let eye = drill(
        "eye",
        "base",
        "9 mm",
        json!({"place": {"from": [{"edge": "base.left", "distance": "20 mm"}, {"edge": "base.front", "distance": "15 mm"}]}, "mirror": "across"}),
    );
    sound(&piece(
        "3 mm",
        "3 mm",
        "0.42",
        json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "50 mm", json!({})), slot, eye]),
    ))
}

fn part(outcome: &Outcome) -> Part {
    outcome.part().cloned().unwrap()
}

fn light(part: &Part) -> Audit {
    light_sheet(part, &figures(part), &Mesh::default(), 0.05)
}

/// Keys of the checks that differ.
fn differing(audit: &Audit) -> Vec<String> {
    let mut keys: Vec<String> = audit.disagreements().map(|pair| pair.check.clone()).collect();
    keys.dedup();
    keys
}

#[test]
fn a_sound_part_agrees_with_itself() {
    let mut outcome = bracket();
    audit_fully(&mut outcome);
    assert_eq!(outcome.audit.faults(), Vec::<String>::new());
    assert!(outcome.audit.pairs.len() > 20 && outcome.audit.left_out.is_empty(), "{:?}", outcome.audit.left_out);
}

#[test]
fn a_cut_that_one_panel_was_spared() {
    let mut part = part(&bracket());
    // The flange as it was before the slot.
    let spared = part.flat.cuts[0].nodes.iter().position(|node| node.node == "up").unwrap();
    let mut record = (*part.flat.cuts[0]).clone();
    record.nodes[spared].after = vec![record.nodes[spared].before.clone()];
    part.flat.cuts[0] = Arc::new(record);
    let audit = light(&part);
    assert_eq!(differing(&audit), ["cut_took", "cut_left"]);
    let words = audit.disagreements().next().unwrap().words();
    assert!(words.contains("area taken of up by slot") && words.contains("0 mm2 as it was cut"), "{words}");
}

#[test]
fn a_cut_of_the_right_area_in_the_wrong_place() {
    let mut part = part(&bracket());
    let mut record = (*part.flat.cuts[0]).clone();
    // Every area stays; the hole in the panel stands 2 mm further over.
    let shift = |outline: &mut steelk_core::plane::Outline| {
        outline.edges.iter_mut().for_each(|edge| edge.start.x += 2.0);
    };
    for node in &mut record.nodes {
        for region in &mut node.after {
            shift(&mut region.outer);
            region.holes.iter_mut().for_each(shift);
        }
    }
    part.flat.cuts[0] = Arc::new(record);
    assert_eq!(differing(&light(&part)), ["cut_left"]);
}

#[test]
fn a_mirrored_hole_that_was_only_shifted() {
    let triangle = json!({"name": "tri", "do": {"cut": {"panel": "base", "outline": {"triangle": {"base": "40 mm", "height": "20 mm", "lean": "40 mm"}},
        "place": {"from": [{"edge": "base.front", "distance": "25 mm"}, {"edge": "base.left", "distance": "50 mm"}]}, "mirror": "up"}}});
    let outcome = sound(&piece("3 mm", "3 mm", "0.42", json!([base("200 mm", "100 mm"), triangle])));
    let mut part = part(&outcome);
    assert!(differing(&light(&part)).is_empty());
    let centre = part.flat.holes[1].centre;
    let first = part.flat.holes[0].clone();
    std::sync::Arc::make_mut(&mut part.flat.holes)[1].outline = first.outline.moved(|at| at + (centre - first.centre));
    assert_eq!(differing(&light(&part)), ["copy"]);
}

#[test]
fn a_blank_that_is_mirrored_or_moved_keeps_every_area() {
    let mut part = part(&bracket());
    let mirrored = |outline: &steelk_core::plane::Outline| {
        let mut turned = outline.moved(|at| steelk_core::plane::Point::new(at.x, 90.0 - at.y));
        turned.edges.iter_mut().for_each(|edge| edge.bulge = -edge.bulge);
        turned.counter_clockwise()
    };
    let region = &mut part.blank.region;
    region.outer = mirrored(&region.outer);
    region.holes = region.holes.iter().map(mirrored).collect();
    let found = differing(&light(&part));
    assert!(!found.contains(&"blank_area".into()) && found.contains(&"blank_first_y".into()), "{found:?}");
}

#[test]
fn a_size_that_counts_what_is_not_there() {
    let outcome = bracket();
    let part = part(&outcome);
    let mut wrong = figures(&part);
    wrong.folded_size.y += 7.0;
    let audit = light_sheet(&part, &wrong, &outcome.mesh, 0.05);
    assert_eq!(differing(&audit), ["size_mesh"]);
    assert_eq!(differing(&full_sheet(&part, &wrong)), ["size_body"]);
    // A volume that is a strip short, and a centre that is not where the metal is.
    let mut light_one = figures(&part);
    light_one.folded_volume *= 0.999;
    assert_eq!(differing(&full_sheet(&part, &light_one)), ["folded_volume"]);
}

#[test]
fn what_no_part_can_have_and_what_differs_is_withheld() {
    let document = piece("3 mm", "3 mm", "0.42", json!([base("120 mm", "80 mm")]));
    let mut outcome = sound(&document);
    assert!(ready(&document, &outcome).is_ok());
    let figures = figures(outcome.part().unwrap());
    let part = outcome.part().cloned().unwrap();
    for spoil in [
        |one: &mut steelk_core::sheet::Figures| one.mass = -1.0,
        |one: &mut steelk_core::sheet::Figures| one.net_area = f64::NAN,
        |one: &mut steelk_core::sheet::Figures| one.cut_length = 0.0,
        |one: &mut steelk_core::sheet::Figures| one.centre_of_gravity.x = f64::INFINITY,
    ] {
        let mut wrong = figures.clone();
        spoil(&mut wrong);
        outcome.audit = light_sheet(&part, &wrong, &Mesh::default(), 0.05);
        let withheld = ready(&document, &outcome).unwrap_err();
        assert_eq!(withheld.title, "Two figures differ");
        assert!(
            withheld.detail.starts_with("X-1: ") && withheld.detail.contains("send us the piece file"),
            "{withheld}"
        );
    }
}
