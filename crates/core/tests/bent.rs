//! The bent-sheet vocabulary: every construct's folded sizes against the numbers it was built from, and against other
//! ways to build the same part.

mod common;

use std::f64::consts::PI;

use common::{base, bend, near, part, piece, probe, sound};
use serde_json::{Value, json};
use steelk_core::piece::Outcome;

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

/// A lipped channel 40 x 100 x 40 with lips of 15, outside sizes: overall folded size is the drawing's, and the blank is
/// the sum of outside legs less the deductions (handbook: BD = 2 (R + T) - BA at 90 deg).
#[test]
fn lipped_channel_from_its_profile() {
    let legs = json!([
        line("lip", "15 mm", "0 deg"), line("side", "40 mm", "90 deg"), line("web", "100 mm", "90 deg"),
        line("other", "40 mm", "90 deg"), line("last", "15 mm", "90 deg")
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
    let legs = json!([line("left", "30 mm", "0 deg"), line("web", "80 mm", "60 deg"), line("right", "50 mm", "120 deg")]);
    // Outside sizes above 90 deg go to the outermost tangent.
    let by_profile = sound(&piece("3 mm", "4 mm", "0.42", json!([profile(legs, json!({"stays": "web"}))])));
    // The same lengths from the flanges: the web's flat is what the setbacks leave of 80.
    let t60 = 7.0 * (PI / 6.0).tan();
    let web = 80.0 - t60 - 7.0;
    let by_flanges = sound(&piece("3 mm", "4 mm", "0.42", json!([
        base(&format!("{web} mm"), "200 mm"),
        bend("left", "base.left", "60 deg", "30 mm", json!({"position": "bend_outside"})),
        bend("right", "base.right", "120 deg", "50 mm", json!({"position": "bend_outside"})),
    ])));
    let whole = blank(&by_profile).0;
    near(blank(&by_flanges).0, whole, 1e-9);
    let left = 30.0 - t60 + PI / 3.0 * (4.0 + 0.42 * 3.0) / 2.0;
    let right = 50.0 - 7.0 + 2.0 * PI / 3.0 * (4.0 + 0.42 * 3.0) / 2.0;
    let by_creases = sound(&piece("3 mm", "4 mm", "0.42", json!([
        base(&format!("{whole} mm"), "200 mm"),
        {"name": "left", "do": {"crease": {"panel": "base", "edge": "base.left", "distance": format!("{left} mm"), "angle": "60 deg"}}},
        {"name": "right", "do": {"crease": {"panel": "base", "edge": "base.right", "distance": format!("{right} mm"), "angle": "120 deg"}}},
    ])));
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
    for (name, found) in [("flanges", legs(&by_flanges, ["left", "right"])), ("profile", legs(&by_profile, ["p.left", "p.right"]))] {
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
    // What each bend takes of its two legs: outside R + T, inside R, middle R + T/2; on a face the bend that turns toward
    // the metal is outside, the other inside.
    for (sizes, first, second) in
        [("outside", 5.0, 5.0), ("inside", 3.0, 3.0), ("middle", 4.0, 4.0), ("metal_left", 5.0, 3.0), ("metal_right", 3.0, 5.0)]
    {
        let outcome = sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs.clone(), json!({"sizes": sizes}))])));
        near(blank(&outcome).0, 140.0 - 2.0 * first - 2.0 * second + 2.0 * ba, 1e-9);
    }
    let outside = sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs.clone(), json!({"sizes": "outside", "stays": "a"}))])));
    near(probe(&outside, json!({"size": {"along": "z"}})), 60.0, 1e-9);
    let middle = sound(&piece("2 mm", "3 mm", "0.4", json!([profile(legs, json!({"sizes": "middle", "stays": "a"}))])));
    near(probe(&middle, json!({"size": {"along": "z"}})), 62.0, 1e-9);
    near(probe(&middle, json!({"size": {"along": "x"}})), 80.0, 1e-9);
}

/// Rolled arcs: the developed length is the arc of the middle of the metal (DIN 6935: from R/T = 5 the neutral axis lies
/// in the middle), whichever face the radius is given to; a chord gives its angle by c = 2 r sin(A/2).
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
