//! Perforations: thousands of holes are exact in the blank, in weights and measures, and copies in the mesh.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_testing::{base, bend, drill, near, part, probe, sound};

fn perforated(name: &str, panel: &str, pitch: &str) -> Value {
    drill(name, panel, "4 mm", json!({"pattern": {"fill": {"rows": "square", "pitch": pitch, "margin": "3 mm"}}}))
}

#[test]
fn fifteen_thousand_holes_are_counted_weighed_and_drawn() {
    // Room for centres: 1010 - 10 = 1000 and 760 - 10 = 750 at 7 mm: 143 x 108.
    let piece = steelk_testing::piece(
        "2 mm",
        "2 mm",
        "0.44",
        json!([base("1010 mm", "760 mm"), perforated("perf", "base", "7 mm")]),
    );
    let made = sound(&piece);
    assert_eq!(part(&made).flat.holes.len(), 143 * 108);
    near(probe(&made, json!({"hole_count": {"hole": "perf"}})), 15_444.0, 0.0);
    near(probe(&made, json!("net_area")), 1010.0 * 760.0 - 15_444.0 * PI * 4.0, 1e-3);
    near(probe(&made, json!({"distance": {"from": "perf.1", "to": "perf.2"}})), 7.0, 1e-9);
    assert_eq!(part(&made).blank.pierces(), 15_445);
    // The mesh stays that of the plate; the holes are copies on both faces.
    assert_eq!(made.mesh.triangles.len(), 2 * 2 + 4 * 2);
    assert!(made.mesh.is_watertight());
    let field = &made.mesh.fields[0];
    assert_eq!((field.feature.as_str(), field.places.len()), ("perf", 15_444));
    near((field.upper - field.lower).length(), 2.0, 1e-9);
    // Where the blank has them; the plate lies as its blank does.
    let flat = &part(&made).flat;
    for (hole, &away) in flat.holes.iter().zip(&field.places) {
        let place = field.place(field.lower, away);
        near(place.x - field.lower.x, hole.centre.x - flat.holes[0].centre.x, 1e-9);
        near(place.y - field.lower.y, hole.centre.y - flat.holes[0].centre.y, 1e-9);
    }
    // A ring about its own place, of the hole's radius.
    assert!(field.ring.iter().all(|[x, y]| (x.hypot(*y) - 2.0).abs() < 1e-9) && field.ring.len() >= 8);
}

#[test]
fn a_perforated_flange_folds_with_its_holes() {
    let piece = steelk_testing::piece(
        "2 mm",
        "2 mm",
        "0.44",
        json!([
            base("300 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "150 mm", json!({})),
            perforated("perf", "up", "8 mm"),
        ]),
    );
    let made = sound(&piece);
    let field = &made.mesh.fields[0];
    assert!(field.places.len() >= 250);
    // The flange stands upright: its holes' places spread along x and z and lie in one plane across y.
    let flat = &part(&made).flat;
    for (hole, &away) in flat.holes.iter().zip(&field.places) {
        for (first, z) in [(field.lower, 0.0), (field.upper, 2.0)] {
            let place = field.place(first, away);
            near(place.y, first.y, 1e-9);
            near(place.distance(part(&made).folded.apply(hole.panel, hole.centre, z)), 0.0, 1e-9);
        }
    }
    near((field.upper - field.lower).y.abs(), 2.0, 1e-9);
    near(field.along.dot(field.across), 0.0, 1e-12);
    assert!(field.along.cross(field.across).y.abs() > 1.0 - 1e-12);
    // A few holes are triangles as ever.
    let few = steelk_testing::piece(
        "2 mm",
        "2 mm",
        "0.44",
        json!([base("60 mm", "60 mm"), perforated("perf", "base", "8 mm")]),
    );
    assert!(sound(&few).mesh.fields.is_empty());
}
