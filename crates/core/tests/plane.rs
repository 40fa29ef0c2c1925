//! Plane geometry against closed forms of textbooks, and laws.

use proptest::prelude::*;
use std::f64::consts::PI;
use steelk_core::plane::{
    Edge, Outline, Point, Region, Segment, Vector, common_area, outline_distance, segment_distance, subtract,
    triangulate, unite,
};

fn near(one: f64, two: f64, tolerance: f64) -> bool {
    (one - two).abs() <= tolerance
}

fn rectangle(x: f64, y: f64, w: f64, h: f64) -> Outline {
    let at = |dx, dy| (Point::new(x + dx, y + dy), 1);
    Outline::polygon(&[at(0.0, 0.0), at(w, 0.0), at(w, h), at(0.0, h)])
}

#[test]
fn circle_and_obround_closed_forms() {
    let circle = Outline::circle(Point::new(100.0, -40.0), 11.0, 0);
    assert!(near(circle.area(), PI * 121.0, 1e-9));
    assert!(near(circle.perimeter(), 22.0 * PI, 1e-9));
    assert!(circle.centroid().distance(Point::new(100.0, -40.0)) < 1e-9);
    assert_eq!(circle.as_circle().map(|(_, r)| r), Some(11.0));
    // Obround 90 x 12: rectangle 78 x 12 and a full circle of 12.
    let slot = Outline::rounded_rectangle(Point::new(5.0, 5.0), Vector::new(0.0, 1.0), 90.0, 12.0, 6.0, 0);
    assert!(near(slot.area(), 78.0 * 12.0 + 36.0 * PI, 1e-9));
    assert!(near(slot.perimeter(), 156.0 + 12.0 * PI, 1e-9));
    assert!(near(slot.extents().height(), 90.0, 1e-9) && near(slot.extents().width(), 12.0, 1e-9));
    assert_eq!(slot.as_circle(), None);
}

#[test]
fn half_disc_centroid() {
    // 4 r / (3 pi) from the flat side (standard table of centroids).
    let half = Outline { edges: Outline::circle(Point::default(), 30.0, 0).edges[..1].to_vec() };
    let mut half = half;
    half.edges.push(steelk_core::plane::Edge { start: Point::new(-30.0, 0.0), bulge: 0.0, tag: 0 });
    assert!(near(half.area(), PI * 450.0, 1e-9));
    assert!(half.centroid().distance(Point::new(0.0, 4.0 * 30.0 / (3.0 * PI))) < 1e-9);
    assert!(
        half.contains(Point::new(0.0, 29.9))
            && !half.contains(Point::new(0.0, -0.1))
            && !half.contains(Point::new(25.0, 25.0))
    );
}

#[test]
fn a_region_less_its_hole() {
    let region = Region {
        outer: rectangle(0.0, 0.0, 100.0, 50.0),
        holes: vec![Outline::circle(Point::new(80.0, 25.0), 10.0, 2)],
    };
    let area = 5000.0 - 100.0 * PI;
    assert!(near(region.area(), area, 1e-9));
    // Moments: (5000 x 50 - 100 pi x 80) / area.
    assert!(near(region.centroid().x, (250_000.0 - 8000.0 * PI) / area, 1e-9));
    assert!(region.contains(Point::new(65.0, 25.0)) && !region.contains(Point::new(75.0, 25.0)));
}

/// On the very chord between two half circles, and at the centre, a point is inside all the same.
#[test]
fn points_on_the_chord_of_a_circle_are_inside() {
    let circle = Outline::circle(Point::new(7.0, 3.0), 10.0, 0);
    for (x, inside) in [(7.0, true), (-2.9, true), (16.9, true), (-3.1, false), (17.1, false)] {
        assert_eq!(circle.contains(Point::new(x, 3.0)), inside, "{x}");
        assert_eq!(circle.reversed().contains(Point::new(x, 3.0)), inside, "{x} the other way round");
    }
    let slot = Outline::rounded_rectangle(Point::default(), Vector::new(1.0, 0.0), 40.0, 10.0, 5.0, 0);
    for (x, y, inside) in
        [(0.0, 0.0, true), (15.0, 4.9, true), (19.9, 0.0, true), (19.0, 4.0, false), (0.0, 5.1, false)]
    {
        assert_eq!(slot.contains(Point::new(x, y)), inside, "{x} {y}");
    }
}

/// Random outlines of lines and arcs, less and more than half round, on a coarse grid so that points stand level with corners:
/// inside is where the angles seen add up to a turn, over chords so fine that only the rim itself is left out.
#[test]
fn inside_is_where_the_outline_winds_round() {
    let mut seed = 7_u64;
    let mut below = move |most: u64| {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (seed >> 33) % most
    };
    let (mut tried, mut inside) = (0, 0);
    for case in 0..600 {
        let count = 3 + below(5) as usize;
        let corners: Vec<(f64, f64)> = (0..count)
            .map(|at| {
                let turn = std::f64::consts::TAU * at as f64 / count as f64;
                let far = 4.0 + below(5) as f64;
                ((far * turn.cos()).round(), (far * turn.sin()).round())
            })
            .collect();
        let edges: Vec<Edge> = corners
            .iter()
            .map(|&(x, y)| {
                let bulge = [0.0, 0.0, 0.3, -0.3, 1.0, -1.0, 1.8, -0.05][below(8) as usize];
                Edge { start: Point::new(x, y), bulge, tag: 0 }
            })
            .collect();
        if (0..count).any(|at| edges[at].start == edges[(at + 1) % count].start) {
            continue;
        }
        let outline = Outline { edges };
        let fine: Vec<Point> =
            outline.segments().flat_map(|(one, _)| (0..400).map(move |at| one.at(at as f64 / 400.0))).collect();
        for _ in 0..40 {
            let point = Point::new(below(41) as f64 / 2.0 - 10.0, below(41) as f64 / 2.0 - 10.0);
            let near = outline.segments().any(|(one, _)| one.distance_to(point) < 0.02);
            if near {
                continue;
            }
            let turned: f64 = (0..fine.len())
                .map(|at| {
                    let (a, b) = (fine[at] - point, fine[(at + 1) % fine.len()] - point);
                    a.cross(b).atan2(a.dot(b))
                })
                .sum();
            let expected = turned.abs() > PI;
            assert_eq!(outline.contains(point), expected, "{case}: {point:?} {outline:?}");
            assert_eq!(
                outline.reversed().contains(point),
                expected,
                "{case} the other way round: {point:?} {outline:?}"
            );
            tried += 1;
            inside += usize::from(expected);
        }
    }
    assert!(tried > 10_000 && inside > 2_000, "{tried} {inside}");
}

proptest! {
    /// A circle of two half turns takes a way of its own: held against the same circle of three arcs, which takes the
    /// one of any outline, apart, crossing, touching and one within the other.
    #[test]
    fn circles_of_two_halves_are_circles(
        x in -500.0..500.0f64, y in -500.0..500.0f64, r1 in 0.5..60.0f64, r2 in 0.5..60.0f64,
        gap in prop_oneof![0.0..150.0f64, Just(0.0)], touching in 0..4usize, turn in 0.0..2.0 * PI, back in any::<bool>(),
    ) {
        let gap = match touching { 0 => r1 + r2, 1 => (r1 - r2).abs(), _ => gap };
        let (first, second) = (Point::new(x, y), Point::new(x, y) + Vector::new(turn.cos(), turn.sin()) * gap);
        let halves = |centre: Point, radius: f64, by: f64| {
            let arm = Vector::new(by.cos(), by.sin()) * radius;
            let made = Outline { edges: [centre + arm, centre - arm].map(|start| Edge { start, bulge: 1.0, tag: 0 }).to_vec() };
            if back { made.reversed() } else { made }
        };
        let thirds = |centre: Point, radius: f64| Outline {
            edges: [0.3f64, 0.3 + PI / 1.5, 0.3 + PI / 0.75]
                .map(|at| Edge { start: centre + Vector::new(at.cos(), at.sin()) * radius, bulge: (PI / 6.0).tan(), tag: 0 })
                .to_vec(),
        };
        let (one, two) = (halves(first, r1, turn), Outline::circle(second, r2, 0));
        let expected = outline_distance(&thirds(first, r1), &thirds(second, r2));
        let found = outline_distance(&one, &two);
        // Where they touch, roots of what is nearly nothing are taken on the way of any outline.
        prop_assert!(near(found, expected, 1e-9) || (touching < 2 && found < 1e-9 && expected < 1e-4), "{found} {expected}");
        prop_assert!(near(outline_distance(&two, &one), found, 1e-12));
        let (own, other) = (one.extents(), thirds(first, r1).extents());
        prop_assert!(own.low.distance(other.low) < 1e-9 && own.high.distance(other.high) < 1e-9);
        let (centre, radius) = one.as_circle().expect("a circle");
        prop_assert!(centre.distance(first) < 1e-9 && near(radius, r1, 1e-9));
    }
}

#[test]
fn distances_between_lines_and_arcs() {
    let line = Segment::line(Point::new(0.0, 0.0), Point::new(100.0, 0.0));
    assert_eq!(segment_distance(&line, &Segment::line(Point::new(0.0, 7.0), Point::new(50.0, 9.0))), 7.0);
    assert_eq!(segment_distance(&line, &Segment::line(Point::new(50.0, -5.0), Point::new(50.0, 5.0))), 0.0);
    let circle = Outline::circle(Point::new(50.0, 20.0), 8.0, 0);
    let edge = Outline::polygon(&[(line.start, 0), (line.end, 0), (Point::new(50.0, -60.0), 0)]);
    assert!(near(outline_distance(&circle, &edge), 12.0, 1e-12));
    let other = Outline::circle(Point::new(80.0, 60.0), 12.0, 0);
    assert!(near(outline_distance(&circle, &other), 30.0, 1e-9), "3-4-5: centres 50 apart less 8 and 12");
    let inner = Outline::circle(Point::new(50.0, 20.0), 3.0, 0);
    assert!(near(outline_distance(&circle, &inner), 5.0, 1e-9));
}

#[test]
fn booleans_keep_names_and_area() {
    let plate = Region {
        outer: rectangle(0.0, 0.0, 100.0, 60.0),
        holes: vec![Outline::circle(Point::new(20.0, 20.0), 5.0, 7)],
    };
    let mut cutter = rectangle(70.0, 40.0, 50.0, 50.0);
    cutter.edges.iter_mut().for_each(|edge| edge.tag = 9);
    let pieces = subtract(&plate, &cutter);
    assert_eq!(pieces.len(), 1);
    assert!(near(pieces[0].area(), 6000.0 - 600.0 - 25.0 * PI, 1e-6));
    let tags: Vec<u32> = pieces[0].outer.segments().map(|(_, tag)| tag).collect();
    assert_eq!(tags.iter().filter(|tag| **tag == 9).count(), 2, "two sides of the notch: {tags:?}");
    assert_eq!(pieces[0].holes.len(), 1);
    // A cut right across parts the plate in two; a cut over a hole takes the hole's rest along.
    assert_eq!(subtract(&plate, &rectangle(40.0, -1.0, 10.0, 70.0)).len(), 2);
    let open = subtract(&plate, &rectangle(-1.0, 15.0, 21.0, 10.0));
    assert_eq!((open.len(), open[0].holes.len()), (1, 0));
    assert!(near(open[0].area(), 6000.0 - 200.0 - 12.5 * PI, 1e-6));
    assert!(near(common_area(&plate.outer, &cutter), 600.0, 1e-6));
    let (joined, holes) = unite(&rectangle(0.0, 0.0, 10.0, 10.0), &rectangle(5.0, 5.0, 10.0, 10.0));
    assert_eq!((joined.len(), holes.len()), (1, 0));
    assert!(near(joined[0].area(), 175.0, 1e-6));
}

#[test]
fn crossing_and_wild_outlines_are_refused_not_drawn() {
    let bow = [Point::new(0.0, 0.0), Point::new(10.0, 10.0), Point::new(10.0, 0.0), Point::new(0.0, 10.0)];
    assert!(triangulate(&bow, &[vec![0, 1, 2, 3]], &[]).is_err());
    let wild = [Point::new(0.0, 0.0), Point::new(f64::NAN, 1.0), Point::new(1.0, 1.0)];
    assert!(triangulate(&wild, &[vec![0, 1, 2]], &[]).is_err());
}

proptest! {
    /// Triangles of a star-shaped polygon with a hole fill its area and no more.
    #[test]
    fn triangles_fill_the_area(radii in prop::collection::vec(20.0f64..50.0, 5..24)) {
        let count = radii.len();
        let mut points: Vec<Point> = radii.iter().enumerate().map(|(at, r)| {
            let (sine, cosine) = (at as f64 / count as f64 * 2.0 * PI).sin_cos();
            Point::new(r * cosine, r * sine)
        }).collect();
        let hole = Outline::circle(Point::default(), 8.0, 0).flatten(0.01);
        let rings = vec![(0..count).collect(), (count..count + hole.len()).collect()];
        points.extend(&hole);
        let shoelace = |ring: &[Point]| (0..ring.len()).map(|at| {
            let (a, b) = (ring[at], ring[(at + 1) % ring.len()]);
            a.x * b.y - b.x * a.y
        }).sum::<f64>() / 2.0;
        let expected = shoelace(&points[..count]) - shoelace(&hole);
        let triangles = triangulate(&points, &rings, &[]).unwrap();
        let filled: f64 = triangles.corners.iter().map(|c| (points[c[1]] - points[c[0]]).cross(points[c[2]] - points[c[0]]) / 2.0).sum();
        prop_assert!((filled - expected).abs() < 1e-6, "{} {}", filled, expected);
    }

    /// Moving and turning an outline keeps its area and perimeter; its centroid moves along.
    #[test]
    fn rigid_moves_keep_measures(x in -1e4f64..1e4, y in -1e4f64..1e4, turn in 0.0f64..6.3, w in 1.0f64..500.0, h in 1.0f64..500.0, c in 0.0f64..0.5) {
        let (sine, cosine) = turn.sin_cos();
        let along = Vector::new(cosine, sine);
        let corner = c * w.min(h);
        let moved = Outline::rounded_rectangle(Point::new(x, y), along, w, h, corner, 0);
        let still = Outline::rounded_rectangle(Point::default(), Vector::new(1.0, 0.0), w, h, corner, 0);
        prop_assert!((moved.area() - still.area()).abs() < 1e-6 * still.area());
        prop_assert!((moved.perimeter() - still.perimeter()).abs() < 1e-9 * still.perimeter() + 1e-9);
        prop_assert!(moved.centroid().distance(Point::new(x, y)) < 1e-6);
        prop_assert!((still.area() - (w * h - (4.0 - PI) * corner * corner)).abs() < 1e-6 * w * h);
    }
}
