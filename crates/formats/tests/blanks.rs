//! Every file of a piece of several blanks: one a blank by its mark, read back and held against the sheet that it is of.

use serde_json::{Value, json};
use steelk_core::piece::{Options, Outcome, Piece, blanks_of, evaluate};
use steelk_core::plane::{Region, common};
use steelk_formats::audit::{read_back, read_blank, read_solids};
use steelk_formats::output::FileSettings;
use steelk_testing::{base, bend, piece};

use crate::papers::{files, stamp};

fn parted() -> (Piece, Outcome) {
    let mut all = vec![base("300 mm", "200 mm")];
    for (name, leg, ends) in [
        ("front", "40 mm", ["left", "right"]),
        ("right", "55 mm", ["front", "back"]),
        ("back", "40 mm", ["left", "right"]),
        ("left", "30 mm", ["front", "back"]),
    ] {
        let own = json!({"set_in": {ends[0]: "8 mm", ends[1]: "8 mm"}});
        all.push(bend(name, &format!("base.{name}"), "90 deg", leg, own));
    }
    let split = |name: &str, panel: &str, edge: &str, distance: &str| json!({"name": name, "do": {"split": {"at": {"line": {"panel": panel, "edge": edge, "distance": distance}}}}});
    all.push(split("half", "base", "left.mould-outside", "150 mm"));
    all.push(split("low", "base", "front.mould-outside", "100 mm"));
    all.push(split("high", "half", "half.front.mould-outside", "100 mm"));
    let tray = piece("2 mm", "3 mm", "0.42", Value::Array(all));
    let outcome = evaluate(&tray, Options::default());
    (tray, outcome)
}

fn hood(corners: &str) -> (Piece, Outcome) {
    let rectangle = |width: &str, depth: &str| json!({"rectangle": {"width": width, "depth": depth}});
    let shape = json!({"name": "hood", "do": {"transition": {
        "lower": rectangle("400 mm", "300 mm"), "upper": rectangle("200 mm", "100 mm"), "height": "150 mm", "offset_x": "30 mm", "corners": corners,
    }}});
    let hood = piece("2 mm", "2 mm", "0.42", json!([shape]));
    let outcome = evaluate(&hood, Options::default());
    (hood, outcome)
}

/// Each blank's DXF has the blank's own outline, and no other file of the piece is of two of them.
#[test]
fn a_file_a_blank() {
    for (piece, outcome) in [parted(), hood("seams")] {
        let sheets = outcome.sheets().expect("sheets");
        let lines = blanks_of(&piece, sheets);
        let package = files(&piece, &outcome, &FileSettings::default(), &stamp()).expect("files");
        assert!(package.missing.is_empty(), "{:?}", package.missing);
        let all = |end: &str| {
            // Between them the name may say that it is not released.
            let (stem, kind) = end.split_once('.').expect("a file");
            let own = package.files.iter().filter(|(name, _)| name.contains(stem) && name.ends_with(kind));
            own.collect::<Vec<_>>()
        };
        for end in ["_blank.dxf", "_profile.dxf", "_cut.nc", "_flat.pdf", "_bends.csv"] {
            assert_eq!(
                all(end).len(),
                lines.len(),
                "{end}: {:?}",
                package.files.iter().map(|one| &one.0).collect::<Vec<_>>()
            );
        }
        for end in ["_template.pdf", "_part.step", "_part.glb", "_cutlist.csv", "_pack.pdf"] {
            assert_eq!(all(end).len(), 1, "{end}");
        }
        for line in &lines {
            let start = format!("{}_", line.mark);
            let (name, bytes) =
                all("_blank.dxf").into_iter().find(|(name, _)| name.starts_with(&start)).expect("its own file");
            assert!(name.contains(&format!("x{}", line.count)), "{name} says how many are cut");
            let read = read_blank(bytes).expect("a blank");
            let own = &sheets.blanks()[line.first].part.blank.region;
            let shared: f64 = common(&read.region, &own.outer).iter().map(Region::area).sum();
            assert!((read.region.area() - own.area()).abs() < 1e-3 && (shared - own.area()).abs() < 1e-3, "{name}");
            let program =
                all("_cut.nc").into_iter().find(|(name, _)| name.starts_with(&start)).expect("its own program");
            assert!(String::from_utf8_lossy(&program.1).contains(&line.mark));
        }
        let list = String::from_utf8_lossy(&all("_cutlist.csv")[0].1).into_owned();
        assert!(lines.iter().all(|line| list.lines().filter(|row| row.starts_with(&line.mark)).count() == 1), "{list}");
        // A solid a sheet, not a blank of the list: alike ones lie in several places.
        let step = String::from_utf8_lossy(&all("_part.step")[0].1).into_owned();
        assert_eq!(step.matches("MANIFOLD_SOLID_BREP(").count(), sheets.blanks().len());
    }
}

/// What is read from each blank's DXF folds to where the blank stands in the piece, and its solids are read back as they are.
#[test]
fn every_blank_folds_from_its_file() {
    for (piece, outcome) in [parted(), hood("seams"), hood("bent")] {
        let sheets = outcome.sheets().expect("sheets");
        let mut solids = Vec::new();
        for blank in sheets.blanks() {
            let (audit, _) = read_back(&blank.part, None);
            assert!(audit.faults().is_empty(), "{:?}", audit.faults());
            let folds = audit.pairs.iter().any(|pair| pair.check == "file_folded");
            assert!(folds || blank.figures.bends == 0, "{:?}", audit.left_out);
            solids.push((piece.mark.clone(), steelk_core::sheet::folded_body(&blank.part.flat).expect("a solid")));
        }
        let read = read_solids(&solids, &piece.mark);
        assert!(read.faults().is_empty(), "{:?}", read.faults());
    }
}
