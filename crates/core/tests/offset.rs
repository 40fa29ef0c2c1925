//! Laws of parallel offsets: Steiner's formula, circles, there and back, necks that close.

use std::f64::consts::{PI, TAU};

use proptest::prelude::*;
use steelk_core::plane::{Outline, Point, Tag, Vector, offset};

/// A convex polygon with corners on an ellipse, at angles that keep their order.
fn convex(angles: &[f64], wide: f64, high: f64) -> Outline {
    let mut angles: Vec<f64> = angles.to_vec();
    angles.sort_by(f64::total_cmp);
    let corners: Vec<(Point, Tag)> =
        angles.iter().map(|angle| (Point::new(wide * angle.cos(), high * angle.sin()), 0)).collect();
    Outline::polygon(&corners)
}

fn spread() -> impl Strategy<Value = Vec<f64>> {
    // Ten sectors, one corner well within each: no two fall together.
    prop::collection::vec(0.1f64..0.9, 10)
        .prop_map(|parts| parts.iter().enumerate().map(|(at, part)| (at as f64 + part) * TAU / 10.0).collect())
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    /// Steiner: outward by d a convex outline grows by its perimeter times d and a disc of radius d; its perimeter by a
    /// full turn of radius d.
    #[test]
    fn a_convex_outline_grows_by_steiners_formula(angles in spread(), wide in 20.0f64..200.0, high in 20.0f64..200.0, by in 0.05f64..20.0) {
        let outline = convex(&angles, wide, high);
        let grown = offset(&outline, by);
        prop_assert_eq!(grown.len(), 1);
        let area = outline.area() + outline.perimeter() * by + PI * by * by;
        prop_assert!((grown[0].area() / area - 1.0).abs() < 1e-9, "{} against {area}", grown[0].area());
        prop_assert!((grown[0].perimeter() - outline.perimeter() - TAU * by).abs() < 1e-6);
    }

    /// Outward and back inward a convex outline is itself again.
    #[test]
    fn out_and_back_is_the_same(angles in spread(), wide in 20.0f64..200.0, high in 20.0f64..200.0, by in 0.05f64..20.0) {
        let outline = convex(&angles, wide, high);
        let back = offset(&offset(&outline, by)[0], -by);
        prop_assert_eq!(back.len(), 1);
        prop_assert!((back[0].area() / outline.area() - 1.0).abs() < 1e-8);
        prop_assert!((back[0].centroid() - outline.centroid()).length() < 1e-6);
    }

    /// Every place of the offset lies at its distance from the outline, to the right side.
    #[test]
    fn every_place_lies_at_the_distance(angles in spread(), wide in 40.0f64..200.0, high in 40.0f64..200.0, by in -4.0f64..20.0) {
        prop_assume!(by.abs() > 0.05);
        let outline = convex(&angles, wide, high);
        for found in offset(&outline, by) {
            for (one, _) in found.segments() {
                for step in 0..4 {
                    let place = one.at(f64::from(step) / 4.0);
                    let away = outline.segments().map(|(edge, _)| edge.distance_to(place)).fold(f64::INFINITY, f64::min);
                    prop_assert!((away - by.abs()).abs() < 1e-6, "{away} against {by}");
                    prop_assert_eq!(outline.contains(place), by < 0.0);
                }
            }
        }
    }
}

#[test]
fn a_circle_keeps_its_two_arcs_and_vanishes_at_its_radius() {
    let circle = Outline::circle(Point::new(3.0, 4.0), 10.0, 7);
    let grown = offset(&circle, 2.5);
    assert_eq!(grown[0].as_circle(), Some((Point::new(3.0, 4.0), 12.5)));
    assert_eq!(offset(&circle, -9.999)[0].edges.len(), 2);
    assert!(offset(&circle, -10.0).is_empty() && offset(&circle, -30.0).is_empty());
}

#[test]
fn a_slot_keeps_its_round_ends() {
    let slot = Outline::rounded_rectangle(Point::default(), Vector::new(1.0, 0.0), 40.0, 12.0, 6.0, 0);
    let inner = offset(&slot, -1.0);
    assert_eq!(inner.len(), 1);
    // Ends of radius 5 about the same centres: 28 between them.
    assert!((inner[0].area() - (28.0 * 10.0 + PI * 25.0)).abs() < 1e-9);
    assert!(inner[0].segments().filter(|(one, _)| !one.is_line()).all(|(one, _)| (one.radius() - 5.0).abs() < 1e-9));
    assert!(offset(&slot, -6.0).is_empty());
}

#[test]
fn a_neck_closes_into_two_outlines() {
    // Two squares of 20 joined by a neck 4 wide.
    let corners = [
        (0., 0.),
        (20., 0.),
        (20., 8.),
        (30., 8.),
        (30., 0.),
        (50., 0.),
        (50., 20.),
        (30., 20.),
        (30., 12.),
        (20., 12.),
        (20., 20.),
        (0., 20.),
    ];
    let outline = Outline::polygon(&corners.map(|(x, y)| (Point::new(x, y), 0)));
    assert_eq!(offset(&outline, -1.0).len(), 1);
    let parted = offset(&outline, -3.0);
    assert_eq!(parted.len(), 2);
    for one in parted {
        // A square of 14 with sharp corners, and the little that reaches into the neck's mouth.
        assert!(one.area() >= 14.0 * 14.0 - 1e-9 && one.area() < 14.0 * 14.0 + 3.0, "{}", one.area());
    }
}

#[test]
fn which_way_an_outline_is_walked_makes_no_difference() {
    let outline = Outline::rounded_rectangle(Point::default(), Vector::new(0.6, 0.8), 60.0, 30.0, 4.0, 0);
    let (ahead, back) = (offset(&outline, 3.0), offset(&outline.reversed(), 3.0));
    assert!((ahead[0].area() - back[0].area()).abs() < 1e-9);
    assert!(back[0].area() > outline.area());
}
