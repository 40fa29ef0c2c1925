//! Real jobs, timed: every demo piece from document to proof, trays with 2,000 and 15,000 holes, DXF, STEP and flat
//! sheet. Each checks its answer before it is timed.

use std::hint::black_box;
use std::path::Path;

use criterion::{Criterion, criterion_group, criterion_main};
use steelk_core::audit::{full_frame, full_sheet, light_frame, light_sheet};
use steelk_core::drawing::blank_drawing;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_formats::audit::read_back;
use steelk_formats::dxf_file::Style;

fn demo() -> Vec<Piece> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let mut paths: Vec<_> = std::fs::read_dir(folder)
        .expect("the demo folder")
        .filter_map(|entry| Some(entry.ok()?.path()))
        .filter(|path| path.extension().is_some_and(|end| end == "json"))
        .collect();
    paths.sort();
    paths.iter().map(|path| Piece::read(&std::fs::read(path).expect("a file")).expect("a sound piece")).collect()
}

/// The demo tray, enlarged, with 50 x 40 drain holes.
fn tray_with_2000_holes() -> Piece {
    let tray = demo().into_iter().find(|piece| piece.mark == "TT-01").expect("the tray");
    let text = tray
        .write()
        .replace("\"320 mm\"", "\"700 mm\"")
        .replace("\"180 mm\"", "\"580 mm\"")
        .replace("\"176 mm\"", "\"576 mm\"")
        .replace("\"25 mm\"", "\"13 mm\"")
        .replace("\"count\": \"9\"", "\"count\": \"50\"")
        .replace("\"count\": \"5\"", "\"count\": \"40\"")
        .replace("\"45\"", "\"2000\"");
    Piece::read(text.as_bytes()).expect("a sound piece")
}

/// A tray with walls in one operation and 150 x 100 drain holes: a perforation across which every edit goes.
fn tray_with_15000_holes() -> Piece {
    let text = r#"{"steelk": 1, "kind": "sheet", "mark": "TT-15", "title": "tray", "quantity": 1, "unit": "mm",
        "stock": {"material": "DX51D", "thickness": "2 mm"}, "bending": {"radius": "2 mm"},
        "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "1000 mm", "depth": "700 mm"}}}}},
            {"name": "wall", "do": {"bend": {"edge": "base.front", "also": ["base.right", "base.back", "base.left"],
                "angle": "90 deg", "leg": "40 mm", "corners": {"closed": {"gap": "0.5 mm"}}}}},
            {"name": "drain", "do": {"drill": {"panel": "base", "diameter": "3 mm",
                "repeat": [{"count": "150", "spacing": "6.4 mm"}, {"count": "100", "spacing": "6.6 mm"}]}}}
        ]}"#;
    Piece::read(text.as_bytes()).expect("a sound piece")
}

/// A panel filled with 25 rows of 20 louvres, and a bracket with 20 ribs across its bend.
fn formed() -> [(&'static str, Piece); 2] {
    let piece = |operations: &str| {
        let text = format!(
            r#"{{"steelk": 1, "kind": "sheet", "mark": "F-1", "title": "formed", "quantity": 1, "unit": "mm",
            "stock": {{"material": "DX51D", "thickness": "1 mm"}}, "bending": {{"radius": "1 mm"}}, "operations": [{operations}]}}"#
        );
        Piece::read(text.as_bytes()).expect("a sound piece")
    };
    let louvres = piece(
        r#"{"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "1000 mm", "depth": "620 mm"}}}}},
        {"name": "vent", "do": {"form": {"panel": "base",
            "shape": {"louvre": {"length": "30 mm", "width": "8 mm", "height": "3 mm"}},
            "pattern": {"between": {"rows": "25", "columns": "20", "distance": "30 mm"}}}}}"#,
    );
    let ribs = piece(
        r#"{"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "1000 mm", "depth": "100 mm"}}}}},
        {"name": "wall", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "60 mm"}}},
        {"name": "rib", "do": {"rib": {"bend": "wall", "panel_leg": "12 mm", "flange_leg": "12 mm", "width": "8 mm", "count": "20"}}}"#,
    );
    [("500 louvres", louvres), ("20 ribs", ribs)]
}

/// What the audit adds to an answer, and what it takes before a file.
fn audits(criterion: &mut Criterion, mark: &str, answer: &Outcome) {
    if let (Some(part), Some(figures)) = (answer.part(), answer.figures()) {
        let mesh = &answer.mesh;
        criterion.bench_function(&format!("audit with an answer {mark}"), |bench| {
            bench.iter(|| light_sheet(black_box(part), figures, mesh, 0.1))
        });
        criterion.bench_function(&format!("audit before a file {mark}"), |bench| {
            bench.iter(|| (full_sheet(black_box(part), figures), read_back(part, answer.resolved.die)))
        });
    } else if let Some(frame) = answer.frame() {
        criterion.bench_function(&format!("audit with an answer {mark}"), |bench| {
            bench.iter(|| light_frame(black_box(&frame.made)))
        });
        criterion.bench_function(&format!("audit before a file {mark}"), |bench| {
            bench.iter(|| full_frame(black_box(&frame.made)))
        });
    }
}

fn jobs(criterion: &mut Criterion) {
    for piece in demo() {
        let answer = evaluate(&piece, Options::default());
        assert!(answer.part().is_some() || answer.frame().is_some(), "{} builds", piece.mark);
        criterion.bench_function(&format!("build {}", piece.mark), |bench| {
            bench.iter(|| evaluate(black_box(&piece), Options::default()).made.is_some())
        });
        audits(criterion, &piece.mark, &answer);
    }
    for (name, piece) in formed() {
        let answer = evaluate(&piece, Options::default());
        let flat = &answer.part().expect("a part").flat;
        assert_eq!(flat.forms.len() + flat.ribs.len(), if name == "20 ribs" { 20 } else { 500 });
        criterion.bench_function(&format!("build {name}"), |bench| {
            bench.iter(|| evaluate(black_box(&piece), Options::default()).made.is_some())
        });
    }
    let tray = tray_with_2000_holes();
    let answer = evaluate(&tray, Options::default());
    assert_eq!(answer.figures().map(|figures| figures.holes), Some(2001));
    assert!(answer.breaches.is_empty(), "{:?}", answer.breaches.first());
    let mut group = criterion.benchmark_group("tray with 2000 holes");
    group.sample_size(20);
    group.bench_function("build", |bench| bench.iter(|| evaluate(black_box(&tray), Options::default()).made.is_some()));
    let part = answer.into_part().expect("a part");
    group.bench_function("DXF", |bench| {
        bench.iter(|| {
            steelk_formats::dxf_file::write(
                &blank_drawing(black_box(&part), "TT-01", steelk_core::quantity::LengthUnit::Mm),
                &Style::default(),
            )
            .expect("a file")
            .len()
        })
    });
    group.finish();
    let tray = tray_with_15000_holes();
    let answer = evaluate(&tray, Options::default());
    assert_eq!(answer.figures().map(|figures| figures.holes), Some(15_000));
    let mut group = criterion.benchmark_group("tray with 15000 holes");
    group.sample_size(10);
    group.bench_function("build", |bench| bench.iter(|| evaluate(black_box(&tray), Options::default()).made.is_some()));
    let (part, figures) = (answer.part().expect("a part"), answer.figures().expect("figures"));
    group.bench_function("audit with an answer", |bench| {
        bench.iter(|| light_sheet(black_box(part), figures, &answer.mesh, 0.1))
    });
    group.finish();
    let filter_box = demo().into_iter().find(|piece| piece.mark == "FB-01").expect("the filter box");
    let part = evaluate(&filter_box, Options::default()).into_part().expect("a part");
    criterion.bench_function("FB-01 STEP", |bench| {
        bench.iter(|| {
            let solid = steelk_core::sheet::folded_body(&black_box(&part).flat).expect("a solid");
            steelk_formats::step::write(&solid, "FB-01", &Default::default()).len()
        })
    });
}

criterion_group!(benches, jobs);
criterion_main!(benches);
