//! What is tried of the insides, by itself: each is a test of one file.
//!
//! Core has no tests in its source: it would be compiled a second time for them.

use std::f64::consts::PI;
use std::panic::catch_unwind;

use steelk_core::frame::{CentreLine, Skeleton};
use steelk_core::nest::knapsack::{Item, fill, sort};
use steelk_core::patience::{Stopped, check, with};
use steelk_core::piece::mark_key;
use steelk_core::plane::Point;
use steelk_core::quantity::{EdgeName, Expr, FeatureName};
use steelk_core::sheet::heads::union_of;
use steelk_core::space::{Point3, Vector3};
use steelk_core::toolpath::order::{Stop, shorten, travel};

#[test]
fn an_arc_past_a_point_runs_past_it() {
    let (from, past, to) = (Point3::new(10.0, 0.0, 5.0), Point3::new(0.0, 10.0, 5.0), Point3::new(-10.0, 0.0, 5.0));
    let line = CentreLine::through("a", from, past, to);
    let arc = line.arc.unwrap();
    assert!(arc.centre.distance(Point3::new(0.0, 0.0, 5.0)) < 1e-9, "{arc:?}");
    assert!((line.length() - std::f64::consts::PI * 10.0).abs() < 1e-9);
    assert!(line.at(line.length() / 2.0).distance(past) < 1e-9);
    assert!((line.distance_of(past).unwrap() - line.length() / 2.0).abs() < 1e-9);
    let back = line.reversed();
    assert!(back.at(line.length() / 2.0).distance(past) < 1e-9);
    let other = line.mirrored(Point3::default(), Vector3::new(1.0, 0.0, 0.0));
    assert!(other.at(other.length() / 2.0).distance(past) < 1e-9 && other.from.distance(to) < 1e-9);
}

#[test]
fn lines_across_a_mirror_become_one() {
    let mut skeleton = Skeleton::default();
    let half = CentreLine::straight("half", Point3::new(0.0, 0.0, 0.0), Point3::new(50.0, 0.0, 0.0));
    let normal = Vector3::new(1.0, 0.0, 0.0);
    let twin = half.mirrored(Point3::default(), normal);
    skeleton.add_line(half).unwrap();
    skeleton.add_line(CentreLine { name: "twin".into(), ..twin }).unwrap();
    skeleton.join_across(Point3::default(), normal);
    assert_eq!(skeleton.lines.len(), 1);
    assert!((skeleton.lines[0].length() - 100.0).abs() < 1e-9);
}

fn counted(turns: u32) -> u32 {
    (0..turns).inspect(|_| check()).sum()
}

#[test]
fn work_ends_where_it_is_told_to_and_not_before() {
    let after = |most: u32| {
        let mut left = most;
        move || {
            left = left.saturating_sub(1);
            left > 0
        }
    };
    assert_eq!(with(after(5), || counted(4)), Ok(6));
    assert_eq!(with(after(4), || counted(4)), Err(Stopped));
    // Nobody asks: it goes on.
    assert_eq!(counted(10), 45);
    // The outer asker is asked within the inner work too, and ends both.
    let nested = with(after(6), || (with(|| false, || counted(3)), counted(3)));
    assert_eq!(nested, Ok((Err(Stopped), 3)));
    assert_eq!(with(after(2), || (with(|| true, || counted(3)), counted(3))), Err(Stopped));
    assert_eq!(with(after(3), || with(|| true, || counted(3))), Ok(Err(Stopped)));
    assert_eq!(counted(10), 45);
}

#[test]
fn a_panic_is_not_taken_for_an_end() {
    let silent = std::panic::take_hook();
    std::panic::set_hook(Box::new(|_| {}));
    let thrown = catch_unwind(|| with(|| true, || -> u32 { panic!("unforeseen") }));
    std::panic::set_hook(silent);
    assert!(thrown.is_err());
    assert_eq!(counted(10), 45);
}

#[test]
fn marks_that_look_alike_share_a_key() {
    for alike in
        ["WB-02", "wb-02", " WB-02 ", "WB\u{2013}02", "W\u{412}-02", "\u{ff37}B-02", "WB-\u{200b}02", "WB\u{2212}02"]
    {
        assert_eq!(mark_key(alike), "wb-02", "{alike:?}");
    }
    assert_eq!(mark_key("A\u{30a} 1"), mark_key("\u{c5}  1"), "one letter, written in two ways");
    for apart in [("WB-02", "WB-20"), ("O1", "01"), ("L1", "I1"), ("WB 02", "WB02"), ("\u{df}1", "B1")] {
        assert_ne!(mark_key(apart.0), mark_key(apart.1), "{apart:?}");
    }
}

#[test]
fn a_name_tells_its_part_and_its_operation() {
    let name = |text: &str| -> FeatureName { text.into() };
    let told = |text: &str| {
        let name = name(text);
        (name.part().map(str::to_string), name.within().to_string(), name.operation().to_string())
    };
    let own = |part: Option<&str>, within: &str, operation: &str| {
        (part.map(str::to_string), within.to_string(), operation.to_string())
    };
    assert_eq!(told("base"), own(None, "base", "base"));
    assert_eq!(told("wall.front.mould-outside"), own(None, "wall.front.mould-outside", "wall"));
    assert_eq!(told("wall/left"), own(None, "wall/left", "wall"));
    assert_eq!(told("tray:base.top"), own(Some("tray"), "base.top", "base"));
    assert_eq!(told("box:tray:base.top"), own(Some("box:tray"), "base.top", "base"));
}

#[test]
fn texts_are_plain_strings_on_the_wire() {
    let name: EdgeName = serde_json::from_str("\"base.left\"").unwrap();
    assert_eq!(serde_json::to_string(&name).unwrap(), "\"base.left\"");
    let value: Expr = serde_json::from_str("\"A - 2*T\"").unwrap();
    assert_eq!(serde_json::to_string(&value).unwrap(), "\"A - 2*T\"");
    let keyed = std::collections::BTreeMap::from([(name, value)]);
    assert_eq!(serde_json::to_string(&keyed).unwrap(), "{\"base.left\":\"A - 2*T\"}");
}

#[test]
fn fills_as_well_as_trying_everything() {
    let mut seed = 7u64;
    let mut next = move |most: u64| {
        seed = seed.wrapping_mul(6364136223846793005).wrapping_add(1442695040888963407);
        (seed >> 33) % most
    };
    for _ in 0..200 {
        let mut items: Vec<Item> = (0..4)
            .map(|piece| Item {
                piece,
                size: 5 + next(40) as i64,
                value: 1.0 + next(50) as f64,
                most: 1 + next(4) as usize,
            })
            .collect();
        let room = 20 + next(90) as i64;
        sort(&mut items);
        let found = fill(&items, room);
        let mut truth = 0.0f64;
        for a in 0..=items[0].most {
            for b in 0..=items[1].most {
                for c in 0..=items[2].most {
                    for d in 0..=items[3].most {
                        let counts = [a, b, c, d];
                        let size: i64 = counts.iter().zip(&items).map(|(n, item)| *n as i64 * item.size).sum();
                        let value: f64 = counts.iter().zip(&items).map(|(n, item)| *n as f64 * item.value).sum();
                        if size <= room {
                            truth = truth.max(value);
                        }
                    }
                }
            }
        }
        assert!((found.value - truth).abs() < 1e-9, "{} {truth}", found.value);
        assert!(found.bound >= truth - 1e-9);
    }
}

#[test]
fn two_circles_make_a_lens_less() {
    // Lens of two circles of 10 at 12: 2 r^2 acos(d / 2r) - d / 2 sqrt(4 r^2 - d^2) (standard result).
    let (r, d) = (10.0f64, 12.0f64);
    let lens = 2.0 * r * r * (d / (2.0 * r)).acos() - d / 2.0 * (4.0 * r * r - d * d).sqrt();
    let (area, first) = union_of(&[(Point::new(3.0, -2.0), r), (Point::new(3.0 + d, -2.0), r)]);
    assert!((area - (2.0 * PI * r * r - lens)).abs() < 1e-9);
    assert!((first.0 / area - (3.0 + d / 2.0)).abs() < 1e-9 && (first.1 / area + 2.0).abs() < 1e-9);
    // One within another counts once, two alike as one.
    let small = union_of(&[(Point::new(0.0, 0.0), 5.0), (Point::new(1.0, 1.0), 2.0), (Point::new(0.0, 0.0), 5.0)]);
    assert!((small.0 - 25.0 * PI).abs() < 1e-9);
}

fn stop(x: f64, y: f64) -> Stop {
    let at = Point::new(x, y);
    Stop { come: at, leave: at }
}

/// Every order of a few stops: the naive oracle.
fn best(home: Point, stops: &[Stop]) -> f64 {
    fn go(home: Point, stops: &[Stop], order: &mut Vec<usize>, least: &mut f64) {
        if order.len() == stops.len() {
            *least = least.min(travel(home, stops, order));
            return;
        }
        for at in 0..stops.len() {
            if !order.contains(&at) {
                order.push(at);
                go(home, stops, order, least);
                order.pop();
            }
        }
    }
    let mut least = f64::INFINITY;
    go(home, stops, &mut Vec::new(), &mut least);
    least
}

#[test]
fn every_stop_is_visited_once_and_the_way_is_near_the_best() {
    let home = Point::default();
    // A fixed, uneven scatter.
    let mut seed = 7_u64;
    let mut next = move || {
        seed = seed.wrapping_mul(6364136223846793005).wrapping_add(1442695040888963407);
        (seed >> 33) as f64 / f64::from(1 << 23)
    };
    for _ in 0..40 {
        let stops: Vec<Stop> = (0..7).map(|_| stop(next(), next())).collect();
        let order = shorten(home, &stops);
        let mut sorted = order.clone();
        sorted.sort_unstable();
        assert_eq!(sorted, (0..7).collect::<Vec<_>>());
        assert!(travel(home, &stops, &order) <= best(home, &stops) * 1.25 + 1e-9);
    }
}

#[test]
fn a_grid_is_walked_without_long_jumps() {
    let stops: Vec<Stop> = (0..900).map(|at| stop(f64::from(at * 7 % 30) * 10.0, f64::from(at / 30) * 10.0)).collect();
    let order = shorten(Point::default(), &stops);
    // 899 steps of at least 10 mm, and the way home.
    assert!(travel(Point::default(), &stops, &order) < 1.25 * 9000.0 + 420.0);
}

#[test]
fn stops_in_one_place_are_no_trouble() {
    let stops = vec![stop(5.0, 5.0); 20];
    assert_eq!(shorten(Point::default(), &stops).len(), 20);
}
