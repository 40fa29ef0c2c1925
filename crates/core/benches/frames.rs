//! How long frames of 200 and 2,000 members take from document to proof, and bars of 60 types and 600 pieces.

use criterion::{Criterion, criterion_group, criterion_main};
use serde_json::json;
use std::hint::black_box;
use steelk_core::nest::{BarPiece, BarProblem, StockBar, nest};
use steelk_core::piece::{Options, Piece, evaluate};

/// Racks side by side: each a box with a post in the middle of its front, 13 members.
fn racks(count: usize) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Racks", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"},
        "operations": [
            {"name": "rack", "do": {"ready": {"kind": "box", "sizes": {"width": "900 mm", "depth": "500 mm", "height": "1800 mm"}}}},
            {"name": "post", "do": {"path": {"start": {"x": "450 mm"}, "legs": [{"by": {"z": "1800 mm"}}]}}},
            {"name": "rails", "do": {"member": {"lines": ["rack.bottom*", "rack.top*"], "section": "SHS 40x40x3"}}},
            {"name": "posts", "do": {"member": {"lines": ["rack.post*", "post"], "section": "SHS 40x40x3"}}},
            {"name": "more", "do": {"copy": {"how": {"shift": {"x": "1100 mm", "count": format!("{}", count - 1)}}}}},
            {"name": "corners", "do": {"joint": {"at": "all", "how": {"mitre": {}}}}},
        ],
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

/// Tubes from one place of a chord, each cut to the chord and to those before it.
fn node_of_tubes(count: usize) -> Piece {
    let ways = [(-300, 0), (260, 120), (40, -240)];
    let mut operations = vec![
        json!({"name": "p", "do": {"path": {"start": {}, "legs": [{"by": {"name": "l", "x": "900 mm"}}]}}}),
        json!({"name": "n", "do": {"node": {"on": {"line": "p.l", "distance": "450 mm"}}}}),
    ];
    let mut lines = Vec::new();
    for (at, (x, y)) in ways.into_iter().take(count - 1).enumerate() {
        operations.push(json!({"name": format!("d{at}"), "do": {"path": {"start": {"from": "n"},
            "legs": [{"by": {"name": "b", "x": format!("{x} mm"), "y": format!("{y} mm"), "z": "500 mm"}}]}}}));
        lines.push(format!("d{at}.b"));
    }
    operations.push(json!({"name": "c", "do": {"member": {"lines": ["p"], "section": "CHS 60.3x3.2"}}}));
    operations.push(json!({"name": "m", "do": {"member": {"lines": lines, "section": "CHS 48.3x3.2"}}}));
    operations.push(json!({"name": "j", "do": {"joint": {"at": "tees", "how": {"trim": {"gap": "1 mm"}}}}}));
    let document = json!({"steelk": 1, "kind": "frame", "mark": "FR-2", "title": "Node", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations});
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn frames(criterion: &mut Criterion) {
    for count in [3, 4] {
        let piece = node_of_tubes(count);
        let outcome = evaluate(&piece, Options::default());
        assert_eq!(outcome.frame().unwrap().made.frame.members.len(), count);
        let rounds = outcome
            .frame()
            .into_iter()
            .flat_map(|frame| &frame.made.frame.members)
            .map(|member| member.ends[0].copes.len());
        assert_eq!(rounds.max(), Some(count - 1));
        criterion.bench_function(&format!("node of {count} tubes"), |bench| {
            bench.iter(|| evaluate(black_box(&piece), Options::default()));
        });
    }
    for (name, count) in [("208 members", 16), ("2,002 members", 154)] {
        let piece = racks(count);
        let outcome = evaluate(&piece, Options::default());
        let frame = outcome.frame().unwrap();
        assert_eq!(frame.made.frame.members.len(), 13 * count);
        assert!(frame.clashes.is_empty() && outcome.breaches.is_empty());
        criterion.bench_function(name, |bench| bench.iter(|| evaluate(black_box(&piece), Options::default())));
    }
    let mut seed = 99u64;
    let mut next = move |most: u64| {
        seed = seed.wrapping_mul(6364136223846793005).wrapping_add(1442695040888963407);
        (seed >> 33) % most
    };
    let list = BarProblem {
        stock: vec![StockBar { length: 6000.0, quantity: None }],
        kerf: 3.0,
        pieces: (0..60)
            .map(|at| BarPiece {
                mark: format!("P{at}"),
                length: 200.0 + next(2300) as f64,
                quantity: 1 + next(19) as usize,
                shared: 0.0,
            })
            .collect(),
        ..BarProblem::default()
    };
    assert!(nest(&list, &mut |_| true).unwrap().optimal);
    criterion.bench_function("bars of 60 types", |bench| bench.iter(|| nest(black_box(&list), &mut |_| true)));
}

criterion_group! { name = benches; config = Criterion::default().sample_size(10); targets = frames }
criterion_main!(benches);
