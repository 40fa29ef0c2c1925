//! Welds from where metal lies on metal, against lengths worked by hand: saddles of coped tubes, points, notched ends.

use serde_json::{Value, json};
use steelk_core::frame::WeldKind;
use steelk_core::piece::{FrameOutcome, Options, Piece, audit_fully, evaluate};

fn frame(operations: Value) -> FrameOutcome {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let mut outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
    audit_fully(&mut outcome);
    assert!(outcome.audit.faults().is_empty(), "{:?}", outcome.audit.faults());
    outcome.into_frame().unwrap()
}

fn tee(chord: &str, brace: &str, place: Value, how: Value) -> FrameOutcome {
    frame(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}},
        {"name": "n", "do": {"node": {"on": {"line": "run.1", "distance": "500 mm"}}}},
        {"name": "up", "do": {"path": {"start": {"from": "n"}, "legs": [{"by": place}]}}},
        {"name": "chord", "do": {"member": {"lines": ["run"], "section": chord}}},
        {"name": "brace", "do": {"member": {"lines": ["up"], "section": brace}}},
        {"name": "tee", "do": {"joint": {"at": "tees", "how": how}}},
    ]))
}

/// The curve in which a tube of radius `r` meets one of radius `big` under an angle, its axis meeting the other's: walked by
/// places on the tube, in steps far below any tolerance.
fn saddle(r: f64, big: f64, angle: f64) -> f64 {
    let place = |turn: f64| {
        // Across both axes y; along the chord x. The brace's own frame: y across, s along it.
        let (y, aside) = (r * turn.sin(), r * turn.cos());
        let z = (big * big - y * y).sqrt();
        // The brace's axis runs (cos, 0, sin); its other way across is (sin, 0, -cos).
        let along = (z + aside * angle.cos()) / angle.sin();
        [along * angle.cos() + aside * angle.sin(), y, along * angle.sin() - aside * angle.cos()]
    };
    let steps = 400_000;
    let at = |step: i32| place(std::f64::consts::TAU * f64::from(step) / f64::from(steps));
    (0..steps)
        .map(|step| {
            let (a, b) = (at(step), at(step + 1));
            ((a[0] - b[0]).powi(2) + (a[1] - b[1]).powi(2) + (a[2] - b[2]).powi(2)).sqrt()
        })
        .sum()
}

#[test]
fn a_coped_tube_is_welded_round_its_saddle() {
    for (degrees, brace, small) in
        [(90.0f64, "CHS 48.3x3.2", 24.15), (60.0, "CHS 33.7x3.2", 16.85), (45.0, "CHS 48.3x4", 24.15)]
    {
        let place = json!({"x": format!("400 mm * cos({degrees} deg)"), "z": format!("400 mm * sin({degrees} deg)")});
        let frame = tee("CHS 60.3x3.2", brace, place, json!({"cope": {}}));
        assert_eq!(frame.welds.len(), 1, "{degrees}");
        let weld = &frame.welds[0];
        assert_eq!(weld.kind, WeldKind::Fillet);
        let wanted = saddle(small, 30.15, degrees.to_radians());
        assert!((weld.length - wanted).abs() < 0.02, "{degrees}: {} and {wanted}", weld.length);
    }
}

#[test]
fn a_gap_under_a_cope_is_still_welded_and_too_wide_a_one_is_not() {
    let at =
        |gap: &str| tee("CHS 60.3x3.2", "CHS 48.3x3.2", json!({"z": "400 mm"}), json!({"cope": {"gap": gap}})).welds;
    // The saddle lies on a round that is larger by the gap.
    assert!((at("1 mm")[0].length - saddle(24.15, 31.15, std::f64::consts::FRAC_PI_2)).abs() < 0.02);
    assert_eq!(at("1 mm")[0].leg, 3.0);
    assert_eq!(at("4 mm")[0].leg, 3.0 + 4.0, "above 2 mm a leg grows by the gap");
    assert!(at("6 mm").is_empty());
}

#[test]
fn two_diagonals_pointed_on_a_chord_are_welded_to_it_and_to_each_other() {
    let frame = frame(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}},
        {"name": "n", "do": {"node": {"on": {"line": "run.1", "distance": "500 mm"}}}},
        {"name": "a", "do": {"path": {"start": {"from": "n"}, "legs": [{"by": {"x": "300 mm", "z": "300 mm"}}]}}},
        {"name": "b", "do": {"path": {"start": {"from": "n"}, "legs": [{"by": {"x": "-300 mm", "z": "300 mm"}}]}}},
        {"name": "chord", "do": {"member": {"lines": ["run"], "section": "SHS 60x60x4"}}},
        {"name": "brace", "do": {"member": {"lines": ["a", "b"], "section": "SQ 25"}}},
        {"name": "tee", "do": {"joint": {"at": "tees", "how": {"mitre": {}}}}},
    ]));
    let of = |one: &str, two: &str| {
        let named = |name: &String| name.starts_with(one) || name.starts_with(two);
        frame
            .welds
            .iter()
            .filter(|weld| weld.parts.iter().all(named))
            .map(|weld| (weld.kind.words().to_string(), weld.length))
            .collect::<Vec<_>>()
    };
    // At 45 deg a bar of 25 stands on the chord over 25 sqrt 2 along it, 17.678 to either side of its own middle; its middle
    // meets the face of 30 above the axis 30 along, so nothing of the mitre at x = 0 reaches the chord.
    let foot = 2.0 * 25.0 + 2.0 * 25.0 * 2f64.sqrt();
    for brace in ["a", "b"] {
        let [(kind, length)] = of("run", brace).try_into().unwrap();
        assert_eq!(kind, "fillet");
        assert!((length - foot).abs() < 1e-3, "{length} and {foot}");
    }
    assert!(of("a", "b").is_empty(), "they stand clear of each other: {:?}", of("a", "b"));
}

/// A notched end lies on its chord by what is left of it.
#[test]
fn a_notched_end_is_welded_where_it_still_touches() {
    let frame = frame(json!([
        {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "1000 mm"}}]}}},
        {"name": "n", "do": {"node": {"on": {"line": "run.1", "distance": "500 mm"}}}},
        {"name": "up", "do": {"path": {"start": {"from": "n"}, "legs": [{"by": {"z": "400 mm"}}]}}},
        {"name": "chord", "do": {"member": {"lines": ["run"], "section": "SHS 80x80x4"}}},
        {"name": "brace", "do": {"member": {"lines": ["up"], "section": "SQ 25"}}},
        {"name": "tee", "do": {"joint": {"at": "tees", "how": {"trim": {}}}}},
        {"name": "notch", "do": {"end_notch": {"of": ["brace"], "at": "start", "face": "left", "depth": "10 mm", "length": "20 mm"}}},
    ]));
    assert_eq!(frame.welds.len(), 1);
    // 15 of 25 are left: the rim of a rectangle 15 x 25.
    assert!((frame.welds[0].length - 2.0 * (15.0 + 25.0)).abs() < 1e-6, "{}", frame.welds[0].length);
}

/// A tube that stands at a slant on a plate is welded all round its ellipse: chords of a curve are one stretch, however short.
#[test]
fn a_slanted_tube_on_a_plate_is_welded_round_its_ellipse() {
    let frame = frame(json!([
        {"name": "up", "do": {"path": {"start": {}, "legs": [{"by": {"x": "200 mm", "z": "346.410161514 mm"}}]}}},
        {"name": "post", "do": {"member": {"lines": ["up"], "section": "CHS 60.3x3.2"}}},
        {"name": "foot", "do": {"end": {"of": ["post"], "at": "start", "how": {"plane": {"axis": "z", "grows": true}}}}},
        {"name": "base", "do": {"plate": {"kind": {"base": {"of": ["post"], "at": "start", "shape": {"rectangle": {"width": "150 mm", "depth": "150 mm"}}}}, "thickness": "10 mm"}}},
    ]));
    // Leaning by 30 deg: halves of 30.15 and 30.15 / cos 30. Ramanujan's second formula is good to 1e-9 there.
    let (a, b) = (30.15 / 30f64.to_radians().cos(), 30.15);
    let h = ((a - b) / (a + b)).powi(2);
    let round = std::f64::consts::PI * (a + b) * (1.0 + 3.0 * h / (10.0 + (4.0 - 3.0 * h).sqrt()));
    assert_eq!(frame.welds.len(), 1, "{:?}", frame.welds);
    assert!((frame.welds[0].length - round).abs() < 0.02, "{} and {round}", frame.welds[0].length);
}
