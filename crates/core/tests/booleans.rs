//! Booleans of outlines against another library (`i_overlay`, polygons only) and against the laws of areas, on shapes that like
//! to touch: sizes on a grid, tangent arcs, shared edges, turned and mirrored copies.

use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;
use proptest::prelude::*;
use steelk_core::plane::{Edge, Outline, Point, Region, Vector, common, common_area, subtract, unite};

/// How near chords lie to their arcs, mm.
const CHORD: f64 = 1e-4;

fn polygon(outline: &Outline) -> Vec<[f64; 2]> {
    outline.flatten(CHORD).into_iter().map(|at| [at.x, at.y]).collect()
}

fn by_library(one: &[Outline], two: &Outline, rule: OverlayRule) -> f64 {
    let one: Vec<Vec<[f64; 2]>> = one.iter().map(polygon).collect();
    let shapes = one.overlay(&vec![polygon(two)], rule, FillRule::EvenOdd);
    let area = |ring: &Vec<[f64; 2]>| {
        (0..ring.len())
            .map(|at| {
                let ([ax, ay], [bx, by]) = (ring[at], ring[(at + 1) % ring.len()]);
                ax * by - bx * ay
            })
            .sum::<f64>()
            / 2.0
    };
    shapes.iter().flatten().map(area).sum::<f64>().abs()
}

/// A tangent-cornered wedge as a drawing has it: a slope, an arc that runs over into a straight, and back.
fn wedge(width: f64, rise: f64, radius: f64) -> Option<Outline> {
    let slope = rise.atan2(width);
    let trim = radius * ((std::f64::consts::FRAC_PI_2 - slope) / 2.0).tan();
    let long = width.hypot(rise) - trim;
    (long > 1.0 && trim < rise * 4.0).then(|| {
        let from = Point::new(long * slope.cos(), long * slope.sin());
        let sweep = std::f64::consts::FRAC_PI_2 - slope;
        let corner = |at: Point, bulge: f64| Edge { start: at, bulge, tag: 3 };
        Outline {
            edges: vec![
                corner(Point::new(0.0, 0.0), 0.0),
                corner(from, (sweep / 4.0).tan()),
                corner(Point::new(width, rise + trim), 0.0),
                corner(Point::new(width, 0.0), 0.0),
            ],
        }
        .counter_clockwise()
    })
}

/// Sizes and places on a grid of 5 mm, so that edges coincide and arcs touch as often as they can.
fn grid(low: i32, high: i32) -> impl Strategy<Value = f64> {
    (low..=high).prop_map(|at| f64::from(at) * 5.0)
}

fn shape() -> impl Strategy<Value = Outline> {
    let plain = prop_oneof![
        (grid(1, 8), grid(1, 8), 0usize..4).prop_map(|(w, h, corner)| {
            let corner = [0.0, 2.5, 5.0, w.min(h) / 2.0][corner].min(w.min(h) / 2.0);
            Outline::rounded_rectangle(Point::new(w / 2.0, h / 2.0), Vector::new(1.0, 0.0), w, h, corner, 1)
        }),
        (grid(1, 6)).prop_map(|d| Outline::circle(Point::new(0.0, 0.0), d / 2.0, 2)),
        (grid(4, 12), grid(1, 5), grid(1, 2)).prop_filter_map("a wedge", |(w, r, radius)| wedge(w, r, radius)),
    ];
    // A quarter turned at odd angles; the rest on the grid, turned by quarters, mirrored half the time.
    (plain, grid(-4, 12), grid(-4, 12), 0usize..16, any::<bool>(), 0.0..std::f64::consts::TAU).prop_map(
        |(outline, x, y, turn, mirrored, odd)| {
            let angle = if turn < 12 { (turn % 4) as f64 * std::f64::consts::FRAC_PI_2 } else { odd };
            let (sine, cosine) = match turn % 4 {
                0 if turn < 12 => (0.0, 1.0),
                1 if turn < 12 => (1.0, 0.0),
                2 if turn < 12 => (0.0, -1.0),
                3 if turn < 12 => (-1.0, 0.0),
                _ => angle.sin_cos(),
            };
            let mut moved = outline.moved(|at| {
                let at = if mirrored { Point::new(-at.x, at.y) } else { at };
                Point::new(at.x * cosine - at.y * sine + x, at.x * sine + at.y * cosine + y)
            });
            if mirrored {
                moved.edges.iter_mut().for_each(|edge| edge.bulge = -edge.bulge);
            }
            moved.counter_clockwise()
        },
    )
}

fn areas(regions: &[Region]) -> f64 {
    regions.iter().map(Region::area).sum()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: cases(), ..ProptestConfig::default() })]

    #[test]
    fn cuts_agree_with_the_other_library((plate, holes, tool) in (shape(), prop::collection::vec(shape(), 0..3), shape())) {
        // Holes are cut first, one after the other, so that the region is one that cuts really make.
        let mut region = Region::solid(plate);
        for hole in &holes {
            match subtract(&region, hole).into_iter().next() {
                Some(left) => region = left,
                None => return Ok(()),
            }
        }
        let all: Vec<Outline> = region.outlines().cloned().collect();
        let rim: f64 = region.perimeter() + tool.perimeter();
        let near = 4.0 * CHORD * rim + 1e-5;
        let left = subtract(&region, &tool);
        let shared = common(&region, &tool);
        let (less, both) = (by_library(&all, &tool, OverlayRule::Difference), by_library(&all, &tool, OverlayRule::Intersect));
        prop_assert!((areas(&left) - less).abs() < near, "left {} and {less}", areas(&left));
        prop_assert!((areas(&shared) - both).abs() < near, "shared {} and {both}", areas(&shared));
        // What is taken and what is left make the whole, exactly.
        prop_assert!((areas(&left) + areas(&shared) - region.area()).abs() < 2e-5 * rim);
        // Every edge keeps the name of an edge that was given.
        for outline in left.iter().flat_map(Region::outlines) {
            prop_assert!(outline.edges.iter().all(|edge| (1..=3).contains(&edge.tag)));
            prop_assert!(outline.area() > 0.0);
        }
    }

    #[test]
    fn joining_agrees_with_the_other_library((one, two) in (shape(), shape())) {
        let (outer, holes) = unite(&one, &two);
        let area = outer.iter().map(Outline::area).sum::<f64>() - holes.iter().map(Outline::area).sum::<f64>();
        let near = 4.0 * CHORD * (one.perimeter() + two.perimeter()) + 1e-5;
        let library = by_library(std::slice::from_ref(&one), &two, OverlayRule::Union);
        prop_assert!((area - library).abs() < near, "{area} and {library}");
        prop_assert!((area + common_area(&one, &two) - one.area() - two.area()).abs() < near);
        prop_assert!((common_area(&one, &two) - common_area(&two, &one)).abs() < near);
    }
}

/// Cases of each family: STEELK_CASES for the long command.
fn cases() -> u32 {
    std::env::var("STEELK_CASES").ok().and_then(|text| text.parse().ok()).unwrap_or(200)
}

/// The three ways in which a tangent arc was lost: a cut that met nothing, took all, or was not made in one panel.
#[test]
fn arcs_that_touch_an_edge_of_the_plate() {
    let plate =
        Region::solid(Outline::rounded_rectangle(Point::new(50.0, 30.0), Vector::new(1.0, 0.0), 100.0, 60.0, 0.0, 1));
    // A circle that touches the edge from within leaves a hole that touches; from without takes nothing.
    let within = subtract(&plate, &Outline::circle(Point::new(50.0, 10.0), 10.0, 2));
    assert!((areas(&within) - (6000.0 - 100.0 * std::f64::consts::PI)).abs() < 1e-6);
    let without = subtract(&plate, &Outline::circle(Point::new(50.0, -10.0), 10.0, 2));
    assert!((areas(&without) - 6000.0).abs() < 1e-9 && without.len() == 1);
    // A wedge whose arc runs into the plate's own side.
    let tool = wedge(100.0, 20.0, 10.0).unwrap();
    let left = subtract(&plate, &tool);
    assert!((areas(&left) - (6000.0 - tool.area())).abs() < 1e-6, "{} {}", areas(&left), tool.area());
}
