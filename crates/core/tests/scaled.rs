//! Trial pieces: variants of other stock and at another scale, by hand and against the piece with every number typed smaller.

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_testing::{law, *};

fn with_variant(mut piece: Piece, variant: Value) -> Piece {
    piece.variants = vec![serde_json::from_value(variant).expect("a variant")];
    piece.check().expect("a sound document");
    piece
}

fn variant(piece: &Piece, name: &str) -> Piece {
    piece.variant(name).expect("the variant")
}

/// A tray's back of 80 on a base of 400 by 240, at 1:4 in card of 0.5 mm with an inside radius of 0.5 mm: legs of 20 and a base of 100 by 60
/// outside, so that the blank is 60 + 20 less the deduction 2 (R + T) - (pi / 2)(R + T / 2) by the handbook; `2*T` is twice the card.
#[test]
fn a_card_model_by_hand() {
    let document = piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "400", "depth": "240 mm"}}}}},
            {"name": "back", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "80 mm"}}},
            {"name": "hole", "do": {"drill": {"panel": "base", "clearance": {"bolt": "M8"}, "place": {"from": [{"edge": "base.front", "distance": "40 mm + 2*T"}]}}}},
        ]),
    );
    let document = with_variant(
        document,
        json!({"name": "card", "trial": true, "quantity": 1, "scale": "1:4", "stock": {"material": "Card", "thickness": "0.5 mm"}, "bending": {"radius": "0.5 mm", "method": {"k_factor": "0.5"}}}),
    );
    let card = variant(&document, "card");
    let outcome = sound(&card);
    let part = &outcome.sheets().expect("sheets").blanks()[0].part;
    let around = part.blank.extents();
    near(around.width(), 100.0, 1e-9);
    near(around.height(), 60.0 + 20.0 - (2.0 * 1.0 - std::f64::consts::FRAC_PI_2 * (0.5 + 0.25)), 1e-9);
    let hole = &part.flat.holes[0];
    // Bolts do not scale: a medium clearance hole for M8 is 9 mm (ISO 273).
    near(hole.extents.width(), 9.0, 1e-9);
    near(hole.centre.y - around.low.y, 10.0 + 2.0 * 0.5, 1e-9);
    // 800 kg/m3.
    near(outcome.figures().expect("figures").mass, outcome.figures().expect("figures").net_area * 0.5 * 800e-9, 1e-9);
    // In no list of the job, and still a piece to look at, with its mark.
    assert_eq!(document.made().len(), 1);
    assert!(card.trial && document.marks().len() == 2);
    assert!(outcome.findings.iter().any(|one| one.message.contains("lengths are 0.25 of what is typed")));
}

#[test]
fn scales_that_are_none_are_refused() {
    let plate = |scale: &str| {
        let base = json!([{"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "400 mm", "depth": "240 mm"}}}}}]);
        with_variant(piece("3 mm", "3 mm", "0.44", base), json!({"name": "small", "scale": scale}))
    };
    for scale in ["1:0", "0", "-1:4", "1:4:2", "1:400", "4 mm", "a"] {
        let outcome = evaluate(&variant(&plate(scale), "small"), Options::default());
        let at = outcome.findings.iter().find(|one| one.field.as_deref() == Some("scale")).map(|one| one.severity);
        assert_eq!(at, Some(steelk_core::finding::Severity::Error), "{scale}: {:?}", outcome.findings);
    }
    // Stock alone: a method measured on other stock goes with it.
    let mut document = plate("1");
    document.bending.method = serde_json::from_value(json!({"deduction": "5 mm"})).expect("a method");
    document.variants[0].stock =
        serde_json::from_value(json!({"material": "S275", "thickness": "1 mm"})).expect("stock");
    assert!(variant(&document, "small").bending.method.is_none());
}

/// What rests in the piece may be made in a variant: the same tray with its back, or as a plate.
#[test]
fn a_variant_makes_what_rests_in_the_piece() {
    let mut document = piece(
        "2 mm",
        "2 mm",
        "0.44",
        json!([
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "100 mm", "depth": "60 mm"}}}}},
            {"name": "back", "rested": true, "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "20 mm"}}},
        ]),
    );
    assert_eq!(sound(&document).figures().expect("one blank").bends, 0);
    document = with_variant(document, json!({"name": "tray", "wakes": ["back"]}));
    assert_eq!(sound(&variant(&document, "tray")).figures().expect("one blank").bends, 1);
    document.variants[0].wakes = vec!["lid".into()];
    assert!(document.check().expect_err("no such operation").message.contains("it wakes lid"));
}

proptest! {
    #![proptest_config(law::cases(60))]

    /// A hood at a scale is the hood with every number typed so: the same blanks, holes at the same places.
    #[test]
    fn to_scale_is_typed_smaller(
        sizes in (200.0..500.0f64, 150.0..400.0f64, 80.0..200.0f64, 80.0..200.0f64, 100.0..300.0f64),
        offset in -60.0..60.0f64,
        scale in 0.2..3.0f64,
        inches in any::<bool>(),
        flange in 20.0..40.0f64,
    ) {
        let (w, d, u, v, h) = sizes;
        let hood = |k: f64| {
            let n = |value: f64| if inches { format!("{} in", value * k / 25.4) } else { format!("{} mm", value * k) };
            let size = |width: f64, depth: f64| json!({"rectangle": {"width": n(width), "depth": n(depth)}});
            let bare = |value: f64| (value * k).to_string();
            let mut document = piece("1 mm", "1 mm", "0.44", json!([
                {"name": "hood", "do": {"transition": {"lower": size(w, d), "upper": size(u, v), "height": n(h), "offset_x": bare(offset), "corners": "seams",
                    "flanges": [{"end": "lower", "width": format!("A + 2*T - {}", n(5.0))}]}}},
                {"name": "row", "do": {"drill": {"panel": "hood.lower-rim-front", "diameter": n(6.0), "pattern": {"rim": {"distance": n(10.0), "spaces": "4"}}}}},
            ]));
            document.callouts = serde_json::from_value(json!([{"name": "A", "value": n(flange)}])).expect("call-outs");
            document
        };
        let small = evaluate(&hood(scale), Options::default());
        let scaled = evaluate(&variant(&with_variant(hood(1.0), json!({"name": "model", "scale": scale.to_string()})), "model"), Options::default());
        let (Some(small), Some(scaled)) = (small.sheets(), scaled.sheets()) else {
            prop_assert_eq!(small.sheets().is_some(), scaled.sheets().is_some());
            return Ok(());
        };
        prop_assert_eq!(small.blanks().len(), scaled.blanks().len());
        for (one, two) in small.blanks().iter().zip(scaled.blanks()) {
            near(one.figures.net_area, two.figures.net_area, 1e-6 * one.figures.net_area);
            prop_assert_eq!(one.part.flat.holes.len(), two.part.flat.holes.len());
            for (hole, other) in one.part.flat.holes.iter().zip(two.part.flat.holes.iter()) {
                near(hole.centre.distance(other.centre), 0.0, 1e-6);
                near(hole.extents.width(), other.extents.width(), 1e-9);
            }
        }
    }
}
