//! The outline solver: shapes whose truth is known, numbers in any order, redundant ones added, one falsified;
//! degenerate input comes back in bounded time.

use proptest::prelude::*;
use steelk_core::plane::solve::{
    Circle, Edge, Loose, Role, Sketch, Solution, Statement, StatementKind as Say, measured, solve,
};
use steelk_core::plane::{Point, Vector};

/// A true shape: a polygon with a circle or two inside, and everything that can be said of it.
#[derive(Clone, Debug)]
struct Truth {
    sketch: Sketch,
    /// Enough to define it, each needed.
    enough: Vec<Say>,
    /// True as well, and implied by the others.
    more: Vec<Say>,
}

/// A convex-ish polygon from steps round a middle, no two neighbouring edges nearly on one line.
fn truth(radii: &[f64], hole: (f64, f64)) -> Truth {
    let count = radii.len();
    let points: Vec<Point> = radii
        .iter()
        .enumerate()
        .map(|(at, radius)| {
            let angle = std::f64::consts::TAU * at as f64 / count as f64;
            Point::new(radius * angle.cos(), radius * angle.sin())
        })
        .collect();
    let mut sketch = Sketch { points, ..Sketch::default() };
    for at in 0..count {
        sketch.edges.push(Edge { from: at, to: (at + 1) % count, circle: None });
    }
    sketch.points.push(Point::new(hole.0, hole.1));
    sketch.circles.push(Circle { centre: count, radius: 7.5 });
    let with = |say: Say, sketch: &Sketch| {
        let value = measured(sketch, &say);
        match say {
            Say::Distance(a, b, _) => Say::Distance(a, b, value),
            Say::Across(a, b, _) => Say::Across(a, b, value),
            Say::Up(a, b, _) => Say::Up(a, b, value),
            Say::FromEdge(a, b, _) => Say::FromEdge(a, b, value),
            Say::Angle(a, b, _) => Say::Angle(a, b, value),
            Say::Diameter(a, _) => Say::Diameter(a, value),
            other => other,
        }
    };
    // Every corner from the first, across and up; the hole's place and size.
    let mut enough = Vec::new();
    for at in 1..=count {
        enough.push(with(Say::Across(0, at, 0.0), &sketch));
        enough.push(with(Say::Up(0, at, 0.0), &sketch));
    }
    enough.push(with(Say::Diameter(0, 0.0), &sketch));
    let mut more = Vec::new();
    for at in 0..count {
        more.push(with(Say::Distance(at, (at + 1) % count, 0.0), &sketch));
        more.push(with(Say::Angle(at, (at + 1) % count, 0.0), &sketch));
    }
    more.push(with(Say::FromEdge(count, 0, 0.0), &sketch));
    Truth { sketch, enough, more }
}

fn sketch_of(truth: &Truth, rough: &[(f64, f64)], says: &[Say]) -> Sketch {
    let mut sketch = drawn_by_hand(truth, rough);
    sketch.circles[0].radius = 11.0;
    sketch.statements = says.iter().map(|&kind| Statement { name: format!("{kind:?}"), kind }).collect();
    sketch
}

/// The true shape off by some millimetres, as a hand draws it: on the right side of everything, or the numbers would
/// speak of another shape.
fn drawn_by_hand(truth: &Truth, rough: &[(f64, f64)]) -> Sketch {
    let count = truth.sketch.edges.len();
    let sides = |sketch: &Sketch| -> Vec<bool> {
        let p = &sketch.points;
        let corner = |at: usize| {
            let (a, b, c) = (p[at], p[(at + 1) % count], p[(at + 2) % count]);
            (b - a).cross(c - b) > 0.0
        };
        (1..=count).flat_map(|at| [p[at].x > p[0].x, p[at].y > p[0].y]).chain((0..count).map(corner)).collect()
    };
    let wanted = sides(&truth.sketch);
    (0..20)
        .map(|halved| {
            let mut sketch = truth.sketch.clone();
            for (point, by) in sketch.points.iter_mut().zip(rough) {
                *point = *point + Vector::new(by.0, by.1) * 0.5f64.powi(halved);
            }
            sketch
        })
        .find(|sketch| sides(sketch) == wanted)
        .unwrap_or_else(|| truth.sketch.clone())
}

/// How far two sketches are apart once the first corners lie on each other, mm.
fn apart(one: &Sketch, two: &Sketch) -> f64 {
    let origin = |sketch: &Sketch| sketch.points[0];
    let (a, b) = (origin(one), origin(two));
    one.points
        .iter()
        .zip(&two.points)
        .map(|(p, q)| ((*p - a) - (*q - b)).length())
        .chain(one.circles.iter().zip(&two.circles).map(|(p, q)| (p.radius - q.radius).abs()))
        .fold(0.0, f64::max)
}

fn worst(solution: &Solution) -> f64 {
    solution
        .sketch
        .statements
        .iter()
        .filter_map(|one| Some((measured(&solution.sketch, &one.kind) - one.kind.number()?).abs()))
        .fold(0.0, f64::max)
}

fn shapes() -> impl Strategy<Value = (Truth, Vec<(f64, f64)>)> {
    (4usize..=14).prop_flat_map(|count| {
        (
            prop::collection::vec(60.0..140.0f64, count),
            (-15.0..15.0f64, -15.0..15.0f64),
            prop::collection::vec((-4.0..4.0f64, -4.0..4.0f64), count + 1),
        )
            .prop_map(|(radii, hole, rough)| (truth(&radii, hole), rough))
    })
}

proptest! {
    // 200 generated outlines in all over the four laws below.
    #![proptest_config(ProptestConfig::with_cases(50))]

    #[test]
    fn numbers_in_any_order_find_the_true_shape((truth, rough) in shapes(), order in any::<u64>()) {
        let mut says: Vec<Say> = truth.enough.iter().chain(&truth.more).copied().collect();
        shuffle(&mut says, order);
        let solution = solve(&sketch_of(&truth, &rough, &says));
        prop_assert!(solution.conflicts.is_empty(), "{:?}", solution.conflicts);
        prop_assert_eq!(solution.missing, 0);
        prop_assert!(apart(&solution.sketch, &truth.sketch) < 1e-5, "{}", apart(&solution.sketch, &truth.sketch));
        // The freedom is what the unknowns are less the three ways to lay a shape, two of which (shifts) stay free:
        // across and up hold its turn. So many numbers shape it; the rest are proofs.
        let drives = solution.roles.iter().filter(|role| **role == Role::Drives).count();
        prop_assert_eq!(drives, truth.sketch.unknowns() - 2);
        let implied = solution.roles.iter().filter(|role| **role == Role::Implied).count();
        prop_assert_eq!(drives + implied, says.len());
    }

    #[test]
    fn what_is_left_out_is_counted((truth, rough) in shapes(), order in any::<u64>(), taken in 1usize..5) {
        let mut says = truth.enough.clone();
        shuffle(&mut says, order);
        says.truncate(says.len() - taken);
        // One across or up must stay, or the turn would be free too and laid as it is: not a number that is missing.
        prop_assume!(says.iter().any(|say| matches!(say, Say::Across(..) | Say::Up(..))));
        let solution = solve(&sketch_of(&truth, &rough, &says));
        prop_assert!(solution.conflicts.is_empty());
        prop_assert_eq!(solution.missing, taken);
        prop_assert!(!solution.loose.is_empty());
        prop_assert!(worst(&solution) < 1e-6);
    }

    #[test]
    fn one_false_number_is_named((truth, rough) in shapes(), order in any::<u64>(), which in any::<prop::sample::Index>(), off in 2.0..20.0f64) {
        let mut says: Vec<Say> = truth.enough.iter().chain(&truth.more).copied().collect();
        shuffle(&mut says, order);
        let numbers: Vec<usize> = (0..says.len()).filter(|&at| matches!(says[at], Say::Distance(..) | Say::Across(..) | Say::Up(..))).collect();
        let false_one = numbers[which.index(numbers.len())];
        says[false_one] = match says[false_one] {
            Say::Distance(a, b, value) => Say::Distance(a, b, value + off),
            Say::Across(a, b, value) => Say::Across(a, b, value + off),
            Say::Up(a, b, value) => Say::Up(a, b, value + off),
            other => other,
        };
        let solution = solve(&sketch_of(&truth, &rough, &says));
        prop_assert!(!solution.conflicts.is_empty());
        prop_assert!(solution.conflicts.iter().any(|one| one.statements.contains(&false_one)), "{:?} without {false_one}", solution.conflicts);
        prop_assert_eq!(solution.roles[false_one], Role::Conflicts);
        // Taking the false one out settles all of it.
        says.remove(false_one);
        prop_assert!(solve(&sketch_of(&truth, &rough, &says)).conflicts.is_empty());
    }

    /// Coincident points, zero sizes, numbers that cannot be: an answer every time, every figure finite.
    #[test]
    fn degenerate_input_comes_back(
        points in prop::collection::vec((prop_oneof![Just(0.0), -5.0..5.0f64], prop_oneof![Just(0.0), -5.0..5.0f64]), 3..9),
        says in prop::collection::vec((0usize..12, 0usize..8, 0usize..8, prop_oneof![Just(0.0), Just(1e-9), 0.0..50.0f64, Just(1e6)]), 0..24),
    ) {
        let count = points.len();
        let mut sketch = Sketch { points: points.iter().map(|&(x, y)| Point::new(x, y)).collect(), ..Sketch::default() };
        for at in 0..count {
            sketch.edges.push(Edge { from: at, to: (at + 1) % count, circle: None });
        }
        sketch.circles.push(Circle { centre: 0, radius: 1e-9 });
        sketch.circles.push(Circle { centre: 1, radius: 3.0 });
        for (kind, a, b, value) in says {
            let (a, b) = (a % count, b % count);
            let kind = match kind {
                0 => Say::Distance(a, b, value),
                1 => Say::Across(a, b, value),
                2 => Say::Up(a, b, value),
                3 => Say::FromEdge(a, b, value),
                4 => Say::Angle(a, b, value.min(3.0)),
                5 => Say::Diameter(a % 2, value),
                6 => Say::Gap(0, 1, value),
                7 => Say::Parallel(a, b),
                8 => Say::TangentLine(a, b % 2),
                9 => Say::Collinear(a, b),
                10 => Say::Middle(a, b),
                _ => Say::EqualLength(a, b),
            };
            sketch.statements.push(Statement { name: String::new(), kind });
        }
        let solution = solve(&sketch);
        prop_assert_eq!(solution.roles.len(), sketch.statements.len());
        prop_assert!(solution.sketch.points.iter().all(|point| point.x.is_finite() && point.y.is_finite()));
        prop_assert!(solution.left.is_finite());
    }
}

/// Fisher and Yates, by a small linear generator so that a failing case can be told again.
fn shuffle(says: &mut [Say], mut seed: u64) {
    for at in (1..says.len()).rev() {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        says.swap(at, (seed >> 33) as usize % (at + 1));
    }
}

/// A slotted link: two arcs and two tangent lines, as traced; centre distance and radii from the drawing.
#[test]
fn arcs_keep_their_circles_and_touch_their_lines() {
    let mut sketch = Sketch {
        points: vec![
            Point::new(3.0, -19.0),
            Point::new(98.0, -11.0),
            Point::new(101.0, 13.0),
            Point::new(-2.0, 21.0),
            Point::new(1.0, 1.0),
            Point::new(99.0, -1.0),
        ],
        ..Sketch::default()
    };
    sketch.circles = vec![Circle { centre: 4, radius: 18.0 }, Circle { centre: 5, radius: 14.0 }];
    sketch.edges = vec![
        Edge { from: 0, to: 1, circle: None },
        Edge { from: 1, to: 2, circle: Some(1) },
        Edge { from: 2, to: 3, circle: None },
        Edge { from: 3, to: 0, circle: Some(0) },
    ];
    let says = [
        Say::Radius(0, 20.0),
        Say::Radius(1, 12.0),
        Say::Distance(4, 5, 100.0),
        Say::TangentLine(0, 0),
        Say::TangentLine(0, 1),
        Say::TangentLine(2, 0),
        Say::TangentLine(2, 1),
    ];
    sketch.statements = says.iter().map(|&kind| Statement { name: String::new(), kind }).collect();
    let solution = solve(&sketch);
    assert_eq!((solution.missing, solution.conflicts.len()), (0, 0), "{:?}", solution.loose);
    // Length of the line that touches two circles from outside: sqrt(d^2 - (r1 - r2)^2).
    let wanted = (100.0f64 * 100.0 - 8.0 * 8.0).sqrt();
    for (a, b) in [(0, 1), (2, 3)] {
        let found = solution.sketch.points[a].distance(solution.sketch.points[b]);
        assert!((found - wanted).abs() < 1e-8, "{found} is not {wanted}");
    }
    // A fourth corner of a rectangle that nothing holds up yet: it and its neighbour may move up and down, no more.
    let mut plate = Sketch {
        points: vec![Point::new(0.0, 0.0), Point::new(50.0, 0.0), Point::new(50.0, 30.0), Point::new(0.0, 30.0)],
        ..Sketch::default()
    };
    plate.edges = (0..4).map(|at| Edge { from: at, to: (at + 1) % 4, circle: None }).collect();
    let says = [Say::Level(0), Say::Upright(1), Say::Level(2), Say::Upright(3), Say::Distance(0, 1, 50.0)];
    plate.statements = says.iter().map(|&kind| Statement { name: String::new(), kind }).collect();
    let open = solve(&plate);
    assert_eq!(open.missing, 1);
    let ways: Vec<(usize, bool)> = open
        .loose
        .iter()
        .map(|one| match one {
            Loose::Along(at, way) => (*at, way.x.abs() < 1e-9),
            other => panic!("{other:?}"),
        })
        .collect();
    assert_eq!(ways, [(2, true), (3, true)]);
    // Without one radius that is what may change.
    sketch.statements.remove(1);
    let loose = solve(&sketch);
    assert_eq!(loose.missing, 1);
    assert!(loose.loose.contains(&Loose::Radius(1)), "{:?}", loose.loose);
}

/// 2 + 2 = 5: the smallest set is the three that form the chain, not a fourth that hangs beside it.
#[test]
fn the_set_that_disagrees_is_as_small_as_can_be() {
    let mut sketch = Sketch {
        points: (0..5).map(|at| Point::new(20.0 * f64::from(at), f64::from(at % 2))).collect(),
        ..Sketch::default()
    };
    for at in 0..4 {
        sketch.edges.push(Edge { from: at, to: at + 1, circle: None });
    }
    let says = [
        Say::Across(0, 1, 20.0),
        Say::Across(1, 2, 20.0),
        Say::Across(2, 3, 25.0),
        Say::Across(0, 2, 50.0),
        Say::Up(0, 1, 3.0),
    ];
    sketch.statements = says.iter().map(|&kind| Statement { name: String::new(), kind }).collect();
    let solution = solve(&sketch);
    assert_eq!(solution.conflicts.len(), 1);
    assert_eq!(solution.conflicts[0].statements, [0, 1, 3]);
    assert_eq!(solution.conflicts[0].measured, 3);
    assert!((solution.conflicts[0].off_by + 10.0).abs() < 1e-9, "{}", solution.conflicts[0].off_by);
}

/// A step of 1.5 drawn the wrong way by a shaky hand: the numbers are true, so they do not disagree.
#[test]
fn a_small_number_on_the_wrong_side_is_understood() {
    let truth = [(0.0, 0.0), (100.0, 1.5), (100.0, 60.0), (0.0, 61.5)];
    let mut sketch = Sketch {
        points: vec![Point::new(0.0, 0.0), Point::new(99.0, -2.0), Point::new(101.0, 62.0), Point::new(1.0, 60.0)],
        ..Sketch::default()
    };
    sketch.edges = (0..4).map(|at| Edge { from: at, to: (at + 1) % 4, circle: None }).collect();
    let says = [
        Say::Across(0, 1, 100.0),
        Say::Up(0, 1, 1.5),
        Say::Across(0, 2, 100.0),
        Say::Up(0, 2, 60.0),
        Say::Upright(3),
        Say::Up(0, 3, 61.5),
        // Along the slope from the second corner to the fourth: only the true side of the step has this length.
        Say::Distance(1, 3, 100f64.hypot(60.0)),
    ];
    sketch.statements = says.iter().map(|&kind| Statement { name: String::new(), kind }).collect();
    let solution = solve(&sketch);
    assert!(solution.conflicts.is_empty(), "{:?}", solution.conflicts);
    assert_eq!(solution.missing, 0);
    for (found, wanted) in solution.sketch.points.iter().zip(truth) {
        let off = (*found - solution.sketch.points[0]) - Vector::new(wanted.0, wanted.1);
        assert!(off.length() < 1e-7, "{found:?} is not {wanted:?}");
    }
    assert_eq!(solution.sketch.statements, sketch.statements, "what was said stays as it was said");
}
