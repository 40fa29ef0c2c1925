//! A corpus of pieces with what independent judges found in their files: `corpus.jsonl`, a piece a line. The volume, surface,
//! centre and size are those of the STEP file in a general-purpose solid kernel; the area of a blank is that of its DXF by shapely.
//! Judged once, kept for good: a change of ours that moves any of them is seen without the judges.
//!
//! To judge again after a deliberate change, or with more pieces:
//! `cargo test -p steelk-formats --test all corpus:: -- --ignored`, then read the difference line by line.

use serde_json::{Value, json};
use steelk_core::drawing::blank_drawing;
use steelk_core::frame::{frame_solids, is_drilled, member_body};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::release::ready;
use steelk_core::sheet::folded_body;
use steelk_core::space::{Body, Box3};
use steelk_formats::dxf_file::Style;
use steelk_formats::{dxf_file, step};

use steelk_testing::python::judged;
use steelk_testing::root;
use steelk_testing::trials;

/// Pieces kept of each family.
const KEPT: [(&str, usize); 3] = [("plate", 12), ("sheet", 24), ("frame", 16)];

fn evaluated(document: &Value) -> (Piece, Outcome) {
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    let outcome = evaluate(&piece, Options::default());
    (piece, outcome)
}

/// The exact bodies of what a piece came to; none where some of it is told in facets or not at all.
fn bodies(outcome: &Outcome) -> Option<Vec<(String, Body)>> {
    if let Some(part) = outcome.part() {
        return Some(vec![("part".into(), folded_body(&part.flat).ok()?)]);
    }
    let made = &outcome.frame()?.made;
    let faceted = made.frame.members.iter().any(|member| member_body(member).is_err());
    let (all, missing) = frame_solids(made);
    // A hole that runs along a wall or touches a corner's edge is in the list and not in the body.
    let bored = made.frame.members.iter().all(|member| {
        member_body(member).is_ok_and(|body| member.bores.iter().all(|bore| is_drilled(member, bore, &body)))
    });
    (!faceted && bored && missing.is_empty()).then_some(all)
}

#[test]
#[ignore = "judges the corpus again and writes it; see the top of this file"]
fn judge_again() {
    let folder = std::env::temp_dir().join(format!("steelk-corpus-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let (mut entries, mut steps, mut blanks) = (Vec::new(), Vec::new(), Vec::new());
    for (family, most) in KEPT {
        let make = match family {
            "plate" => trials::plate as fn(u64) -> Value,
            "sheet" => trials::sheet,
            _ => trials::frame,
        };
        let mut kept = 0;
        for seed in 0.. {
            if kept == most {
                break;
            }
            let document = make(seed);
            let (piece, outcome) = evaluated(&document);
            if ready(&piece, &outcome).is_err() {
                continue;
            }
            let Some(all) = bodies(&outcome) else { continue };
            let path = folder.join(format!("{family}-{seed}.step"));
            std::fs::write(&path, step::write_all(&all, family, "corpus", &Default::default())).unwrap();
            steps.push(path.clone());
            if let Some(part) = outcome.part() {
                let drawing = path.with_extension("dxf");
                std::fs::write(
                    &drawing,
                    dxf_file::write(
                        &blank_drawing(part, "X", steelk_core::quantity::LengthUnit::Mm),
                        &Style::default(),
                    )
                    .unwrap(),
                )
                .unwrap();
                blanks.push(drawing);
            }
            entries.push((family, seed, document));
            kept += 1;
        }
    }
    let solids = judged("read_step.py", &steps);
    let mut flats = judged("read_dxf.py", &blanks).into_iter();
    std::fs::remove_dir_all(&folder).unwrap();
    let mut lines = String::new();
    for ((family, seed, document), solid) in entries.into_iter().zip(&solids) {
        assert_eq!(solid["valid"], true, "{family} {seed}");
        let figures = json!({
            "volume": solid["volume"], "area": solid["area"], "centre": solid["centre"], "size": solid["size"],
            "solids": solid["solids"],
            "blank": if family == "frame" { Value::Null } else { flats.next().unwrap()["net_area"].clone() },
        });
        lines += &json!({"family": family, "seed": seed, "document": document, "judged": figures}).to_string();
        lines.push('\n');
    }
    std::fs::write(root().join("crates/formats/tests/corpus.jsonl"), lines).unwrap();
}

#[test]
fn every_piece_is_still_what_its_judges_found() {
    let text = std::fs::read_to_string(root().join("crates/formats/tests/corpus.jsonl")).unwrap();
    let mut seen = 0;
    for line in text.lines() {
        let entry: Value = serde_json::from_str(line).unwrap();
        let (name, judged) = (format!("{} {}", entry["family"], entry["seed"]), &entry["judged"]);
        let (piece, outcome) = evaluated(&entry["document"]);
        assert!(ready(&piece, &outcome).is_ok(), "{name} is kept back now: {:?}", ready(&piece, &outcome).err());
        let all = bodies(&outcome).unwrap_or_else(|| panic!("{name} has no exact bodies now"));
        assert_eq!(Some(all.len() as u64), judged["solids"].as_u64(), "{name}");
        let near = |what: &str, own: f64, judge: &Value, tolerance: f64| {
            let judge = judge.as_f64().unwrap();
            assert!((own - judge).abs() <= tolerance, "{name}: {what} {own}, judged {judge}");
        };
        let masses: Vec<_> = all.iter().map(|(_, body)| body.mass()).collect();
        let volume: f64 = masses.iter().map(|mass| mass.volume).sum();
        near("volume", volume, &judged["volume"], 1e-6 * volume);
        let area: f64 = masses.iter().map(|mass| mass.area).sum();
        near("surface", area, &judged["area"], 1e-5 * area);
        let moment = |pick: fn(&steelk_core::space::Point3) -> f64| {
            masses.iter().map(|mass| mass.volume * pick(&mass.centre)).sum::<f64>() / volume
        };
        for (at, own) in [moment(|at| at.x), moment(|at| at.y), moment(|at| at.z)].into_iter().enumerate() {
            near("centre", own, &judged["centre"][at], 1e-4);
        }
        let mut around = Box3::EMPTY;
        for own in all.iter().map(|(_, body)| body.extents()) {
            around.hold(own.low);
            around.hold(own.high);
        }
        let size = around.size();
        for (at, own) in [size.x, size.y, size.z].into_iter().enumerate() {
            near("size", own, &judged["size"][at], 1e-3);
        }
        // What the application says, not only what its bodies come to.
        if let Some(part) = outcome.part() {
            let figures = steelk_core::sheet::figures(part);
            near("blank", figures.net_area, &judged["blank"], 1e-6 * figures.net_area);
            let folded = figures.folded_size;
            for (at, own) in [folded.x, folded.y, folded.z].into_iter().enumerate() {
                near("overall size as told", own, &judged["size"][at], 1e-3);
            }
        } else if let Some(frame) = outcome.frame() {
            let sum = &frame.made.list.sums[0];
            // All of one steel: what is told of the whole is the bodies' volume times its density.
            let density = frame.made.frame.members[0].material.density;
            near(
                "mass as told",
                sum.mass,
                &json!(judged["volume"].as_f64().unwrap() * density * 1e-9),
                1e-6 * sum.mass,
            );
            let centre = sum.centre_of_gravity;
            for (at, own) in [centre.x, centre.y, centre.z].into_iter().enumerate() {
                near("centre as told", own, &judged["centre"][at], 1e-3);
            }
        }
        seen += 1;
    }
    assert_eq!(seen, KEPT.iter().map(|(_, many)| many).sum::<usize>());
}
