//! Strokes of a file become one profile, and every change is said.

use proptest::prelude::*;
use steelk_core::plane::tidy::{Stroke, TidyError, Tolerances, fit_arcs, tidy};
use steelk_core::plane::{Point, Segment};

fn ring(corners: &[(f64, f64)]) -> Vec<Stroke> {
    (0..corners.len())
        .map(|at| {
            let (from, to) = (corners[at], corners[(at + 1) % corners.len()]);
            Stroke::Segment(Segment::line(Point::new(from.0, from.1), Point::new(to.0, to.1)))
        })
        .collect()
}

#[test]
fn doubles_bits_gaps_and_strays_are_mended_and_said() {
    let mut strokes = ring(&[(0.0, 0.0), (100.0, 0.0), (100.0, 60.0), (0.0, 60.0)]);
    // One edge once more, the other way round; a bit; a corner that gapes by 0.03; a stray line.
    strokes.push(Stroke::Segment(Segment::line(Point::new(100.0, 0.0), Point::new(0.0, 0.0))));
    strokes.push(Stroke::Segment(Segment::line(Point::new(5.0, 5.0), Point::new(5.0, 5.0))));
    if let Stroke::Segment(one) = &mut strokes[2] {
        one.start.x += 0.03;
    }
    strokes.push(Stroke::Segment(Segment::line(Point::new(200.0, 0.0), Point::new(230.0, 40.0))));
    // Two holes, an island in one of them, the other twice; a contour beside the plate.
    strokes.extend(ring(&[(10.0, 10.0), (40.0, 10.0), (40.0, 40.0), (10.0, 40.0)]));
    strokes.push(Stroke::Circle(Point::new(25.0, 25.0), 5.0));
    strokes.push(Stroke::Circle(Point::new(70.0, 30.0), 8.0));
    strokes.push(Stroke::Circle(Point::new(70.0, 30.0), 8.0));
    strokes.push(Stroke::Circle(Point::new(150.0, 30.0), 8.0));
    let made = tidy(&strokes, Tolerances::default()).expect("a profile");
    assert_eq!(made.region.holes.len(), 2);
    let area = 6000.0 - 900.0 - std::f64::consts::PI * 64.0;
    assert!((made.region.area() - area).abs() < 1.0, "{}", made.region.area());
    assert_eq!(
        made.changes,
        [
            "1 bit without length taken out",
            "2 strokes drawn twice taken once",
            "1 gap closed, the widest 0.0300 mm",
            "1 stroke that closes nothing left out, 50.0 mm in all",
            "1 contour outside the largest left out",
            "1 contour within a hole left out",
        ]
    );
}

#[test]
fn what_gives_no_profile_is_said() {
    let default = Tolerances::default();
    assert_eq!(tidy(&[], default), Err(TidyError::Empty));
    let open = &ring(&[(0.0, 0.0), (100.0, 0.0), (100.0, 60.0)])[..2];
    assert!(matches!(tidy(open, default), Err(TidyError::Open(gap)) if (gap - 100f64.hypot(60.0)).abs() < 1e-9));
    assert!(matches!(tidy(&[Stroke::Circle(Point::new(f64::NAN, 0.0), 4.0)], default), Err(TidyError::Place(..))));
}

/// Squares in squares, each set beside the others: those that lie in the plate and in nothing else are its holes, deeper ones are
/// left out, and so are those beside the plate. Their strokes come in any order, run either way and begin at any corner.
fn squares_in_squares(depths: &[usize], outside: usize, seed: u64) -> (Vec<Stroke>, Vec<(f64, f64)>) {
    let mut next = seed;
    let mut chance = |below: usize| {
        next = next.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (next >> 33) as usize % below
    };
    let mut strokes = Vec::new();
    let mut square = |x: f64, y: f64, half: f64, turn: usize, back: bool| {
        let mut corners = vec![(x - half, y - half), (x + half, y - half), (x + half, y + half), (x - half, y + half)];
        corners.rotate_left(turn);
        if back {
            corners.reverse();
        }
        strokes.extend(ring(&corners));
    };
    let mut holes = Vec::new();
    square(0.0, 0.0, 100.0, chance(4), chance(2) == 1);
    for (at, &depth) in depths.iter().enumerate() {
        let (x, y) = (-75.0 + 50.0 * (at % 4) as f64, -75.0 + 50.0 * (at / 4) as f64);
        for deep in 0..depth {
            square(x, y, 20.0 - 3.0 * deep as f64, chance(4), chance(2) == 1);
        }
        if depth > 0 {
            holes.push((x, y));
        }
    }
    for at in 0..outside {
        square(200.0 + 50.0 * at as f64, 0.0, 20.0, chance(4), chance(2) == 1);
    }
    for at in (1..strokes.len()).rev() {
        strokes.swap(at, chance(at + 1));
    }
    (strokes, holes)
}

proptest! {
    #[test]
    fn what_lies_in_what_is_told_however_it_is_drawn(
        depths in prop::collection::vec(0usize..5, 0..16), outside in 0usize..4, seed in any::<u64>()
    ) {
        let (strokes, mut wanted) = squares_in_squares(&depths, outside, seed);
        let made = tidy(&strokes, Tolerances::default()).expect("a profile");
        let mut found: Vec<(f64, f64)> = made
            .region
            .holes
            .iter()
            .map(|hole| {
                prop_assert_eq!(hole.area(), 1600.0);
                let centre = hole.extents().centre();
                Ok((centre.x, centre.y))
            })
            .collect::<Result<_, TestCaseError>>()?;
        wanted.sort_by(|one, two| one.partial_cmp(two).expect("numbers"));
        found.sort_by(|one, two| one.partial_cmp(two).expect("numbers"));
        prop_assert_eq!(found, wanted);
        let deeper: usize = depths.iter().map(|depth| depth.saturating_sub(1)).sum();
        let told = |count: usize, words: &str| count == 0 || made.changes.iter().any(|one| one.starts_with(&format!("{count} {words}")));
        prop_assert!(told(deeper, "contour") && told(outside, "contour"), "{:?}", made.changes);
        prop_assert_eq!(made.changes.len(), usize::from(deeper > 0) + usize::from(outside > 0));
        prop_assert!(made.open.is_empty());
    }
}

proptest! {
    /// Arcs stay within the tolerance of the curve that they stand for, and a circle comes back as itself.
    #[test]
    fn fitted_arcs_stay_near(a in 5.0..200.0f64, ratio in 0.15..1.0f64, tolerance in 0.002..0.2f64) {
        let b = a * ratio;
        let points: Vec<Point> = (0..=2000)
            .map(|at| {
                let (sin, cos) = (std::f64::consts::TAU * f64::from(at) / 2000.0).sin_cos();
                Point::new(a * cos, b * sin)
            })
            .collect();
        let fitted = fit_arcs(&points, tolerance);
        prop_assert_eq!(fitted[0].start, points[0]);
        prop_assert!(fitted.windows(2).all(|pair| pair[0].end == pair[1].start));
        for point in points.iter().step_by(7) {
            let near = fitted.iter().map(|one| one.distance_to(*point)).fold(f64::INFINITY, f64::min);
            prop_assert!(near <= tolerance + 1e-9, "{near}");
        }
        // Far fewer pieces than chords would need for the same: an ellipse of 4:1 takes some dozens.
        prop_assert!(fitted.len() < 200, "{} pieces", fitted.len());
        let circle: Vec<Point> = points.iter().map(|point| Point::new(point.x, point.y / ratio)).collect();
        prop_assert!(fit_arcs(&circle, tolerance).len() <= 3);
    }
}
