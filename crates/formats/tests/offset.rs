//! Offsets and containment against shapely, on outlines of lines and arcs.

use serde_json::json;
use steelk_core::piece::{Options, evaluate};
use steelk_core::plane::{Outline, Point, offset};
use steelk_testing::demo;
use steelk_testing::python::judged;

/// Chords this near to their arcs, mm: what the areas may differ by is the length round times this.
const CHORD: f64 = 1e-4;

fn flat(outline: &Outline) -> Vec<[f64; 2]> {
    let mut points = Vec::new();
    for (one, _) in outline.segments() {
        let steps =
            if one.is_line() { 1 } else { (one.length() / (8.0 * CHORD * one.radius()).sqrt()).ceil() as usize + 1 };
        points.extend((0..steps).map(|at| one.at(at as f64 / steps as f64)).map(|point| [point.x, point.y]));
    }
    points
}

fn outlines() -> Vec<Outline> {
    let mut found = Vec::new();
    for name in ["01-winch-bracket", "02-tool-tray", "04-axle-plate", "05-ear-flange", "06-gusset", "07-padeye"] {
        let part = evaluate(&demo(name), Options::default()).into_part().unwrap();
        found.push(part.blank.region.outer.clone());
        // A slot and a round hole are offset the other way.
        found.extend(part.blank.region.holes.into_iter().take(3));
    }
    found
}

#[test]
fn offsets_and_containment_agree_with_shapely() {
    let mut cases = Vec::new();
    let mut expected: Vec<(f64, f64, Vec<bool>, f64)> = Vec::new();
    for outline in outlines() {
        let around = outline.extents();
        // Points on a grid that falls on no edge.
        let points: Vec<Point> = (0..15)
            .flat_map(|i| (0..15).map(move |j| (f64::from(i) / 13.7 - 0.03, f64::from(j) / 13.3 - 0.02)))
            .map(|(i, j)| Point::new(around.low.x + around.width() * i, around.low.y + around.height() * j))
            .collect();
        for by in [0.15, 0.9, 2.5, -0.15, -0.9, -2.5] {
            let loops = offset(&outline, by);
            cases.push(
                json!({
                    "outline": flat(&outline), "by": by, "offset": loops.iter().map(flat).collect::<Vec<_>>(),
                    "points": points.iter().map(|point| [point.x, point.y]).collect::<Vec<_>>()
                })
                .to_string(),
            );
            let inside = points.iter().map(|&point| outline.contains(point)).collect();
            expected.push((outline.area(), loops.iter().map(Outline::area).sum(), inside, outline.perimeter()));
        }
    }
    let file = std::env::temp_dir().join(format!("steelk-offset-{}.jsonl", std::process::id()));
    std::fs::write(&file, cases.join("\n")).unwrap();
    let lines = judged("check_offset.py", [&file]);
    std::fs::remove_file(&file).unwrap();
    assert_eq!(lines.len(), expected.len());
    for ((area, offset_area, inside, around), line) in expected.iter().zip(&lines) {
        let slack = 20.0 * CHORD * around;
        let of = |key: &str| line[key].as_f64().unwrap();
        assert!((of("area") - area).abs() < slack, "area {area} against {}", of("area"));
        assert!((of("buffer") - offset_area).abs() < slack, "offset {offset_area} against {}", of("buffer"));
        assert!(of("apart") < slack, "{} mm2 apart", of("apart"));
        let theirs: Vec<bool> = line["inside"].as_array().unwrap().iter().map(|one| one.as_bool().unwrap()).collect();
        assert_eq!(&theirs, inside);
    }
}
