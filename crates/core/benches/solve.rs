//! How long an outline of 60 corners with 120 numbers takes to solve, from a hand-drawn start.

use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use steelk_core::plane::Point;
use steelk_core::plane::solve::{Edge, Sketch, Statement, StatementKind, solve};

fn outline(numbers: usize) -> Sketch {
    let count = 60;
    let truth: Vec<Point> = (0..count)
        .map(|at| {
            let angle = std::f64::consts::TAU * f64::from(at) / f64::from(count);
            let reach = if at % 2 == 0 { 400.0 } else { 340.0 };
            Point::new(reach * angle.cos(), reach * angle.sin())
        })
        .collect();
    let size = truth.len();
    let mut sketch = Sketch { points: truth.clone(), ..Sketch::default() };
    for at in 0..size {
        sketch.edges.push(Edge { from: at, to: (at + 1) % size, circle: None });
        // As a hand draws it: a little too wide, a little too low, nothing on the wrong side of anything.
        let true_place = truth[at];
        sketch.points[at] = Point::new(true_place.x * 1.05, true_place.y * 0.96);
    }
    let mut kinds = Vec::new();
    for at in 1..size {
        let from = truth[at] - truth[at - 1];
        kinds.push(StatementKind::Across(at - 1, at, from.x.abs()));
        kinds.push(StatementKind::Up(at - 1, at, from.y.abs()));
    }
    kinds.push(StatementKind::Distance(0, 30, truth[0].distance(truth[30])));
    kinds.push(StatementKind::Distance(10, 40, truth[10].distance(truth[40])));
    sketch.statements = kinds.into_iter().take(numbers).map(|kind| Statement { name: String::new(), kind }).collect();
    sketch
}

fn bench(criterion: &mut Criterion) {
    for numbers in [60, 120] {
        let sketch = outline(numbers);
        let solved = solve(&sketch);
        assert!(solved.conflicts.is_empty(), "the outline is true");
        criterion.bench_function(&format!("60 corners, {numbers} numbers"), |b| b.iter(|| solve(black_box(&sketch))));
    }
    let mut wrong = outline(120);
    let StatementKind::Distance(a, b, value) = wrong.statements[119].kind else {
        unreachable!("the last is a distance")
    };
    wrong.statements[119].kind = StatementKind::Distance(a, b, value + 5.0);
    criterion.bench_function("60 corners, 120 numbers, one of them false", |b| b.iter(|| solve(black_box(&wrong))));
}

criterion_group!(benches, bench);
criterion_main!(benches);
