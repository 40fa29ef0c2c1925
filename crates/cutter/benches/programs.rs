//! From a piece to a program that holds: an axle plate, and a plate of 15,444 holes.

#[path = "../tests/common/mod.rs"]
mod common;

use common::{make, plate};
use criterion::{Criterion, criterion_group, criterion_main};

fn programs(criterion: &mut Criterion) {
    let axle = std::fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/04-axle-plate.json"))
        .expect("a demo file");
    let perforated = plate(
        "2 mm",
        r#"{"rectangle":{"width":"1010 mm","depth":"760 mm"}}"#,
        r#",{"name":"perf","do":{"drill":{"panel":"base","diameter":"4 mm","pattern":{"fill":{"rows":"square","pitch":"7 mm","margin":"3 mm"}}}}}"#,
        "{}",
    );
    let mut group = criterion.benchmark_group("programs");
    group.sample_size(10);
    for (name, json, cuts) in [("axle plate", &axle, 6), ("15,444 holes", &perforated, 15_445)] {
        let made = make(json);
        assert_eq!(made.plan.paths.len(), cuts);
        assert!(made.inspect(&made.text).expect("it runs").holds, "{name}");
        group
            .bench_function(format!("{name}: build, plan and write"), |bencher| bencher.iter(|| make(json).text.len()));
        group.bench_function(format!("{name}: run and measure"), |bencher| {
            bencher.iter(|| made.inspect(&made.text).expect("it runs").holds);
        });
    }
}

criterion_group!(benches, programs);
criterion_main!(benches);
