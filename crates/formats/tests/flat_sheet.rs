//! The flat sheet, the bend table and the GLB of real pieces, read back by other programs' eyes.

use steelk_core::brake::bend_rows;
use steelk_core::drawing::{FlatSheetWords, Layer, Stroke, add_bend_table, blank_drawing, flat_sheet};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::Grain;
use steelk_core::table::bend_table;
use steelk_formats::output::Heading;
use steelk_formats::table_csv;

fn demo(name: &str) -> (Piece, Outcome) {
    let piece = steelk_testing::demo(name);
    let outcome = evaluate(&piece, Options::default());
    (piece, outcome)
}

fn words(piece: &Piece, outcome: &Outcome, grain: Option<Grain>) -> FlatSheetWords {
    FlatSheetWords {
        mark: piece.mark.clone(),
        title: piece.title.clone(),
        stamp: Some("NOT RELEASED: 2 rules broken".into()),
        lines: vec![
            "material and mass".into(),
            "a caution so long that it takes more than one line of the sheet to say, and then a little".into(),
        ],
        grain,
        bends: bend_rows(outcome.part().unwrap(), None, LengthUnit::Mm),
        unit: LengthUnit::Mm,
    }
}

/// Everything on the page lies on the page, the sizes are the blank's, every bend is marked and tabled with its source.
#[test]
fn one_page_says_it_all() {
    for name in ["02-tool-tray", "10-drawbar-channel", "20-filter-box", "09-mudguard", "06-gusset"] {
        let (piece, outcome) = demo(name);
        let part = outcome.part().unwrap();
        let words = words(&piece, &outcome, Some(Grain::AlongY));
        let sheet = flat_sheet(part, &words);
        let texts: Vec<&str> =
            sheet.frame.texts.iter().chain(&sheet.inside.texts).map(|(_, text)| text.value.as_str()).collect();
        let size = part.blank.extents();
        for wanted in [
            format!("{} mm", steelk_core::quantity::decimal(size.width(), 2)),
            format!("{} mm", steelk_core::quantity::decimal(size.height(), 2)),
            "grain along y".to_string(),
            "NOT RELEASED: 2 rules broken".to_string(),
        ] {
            assert!(texts.contains(&wanted.as_str()), "{name}: no {wanted} in {texts:?}");
        }
        if name == "20-filter-box" {
            // Two louvres a wall, those of the other wall made again.
            for wanted in ["FORM vent: 2 x louvre 120 mm x 12 mm, 4 mm up", "FORM other.vent: 2 x louvre"] {
                assert!(texts.iter().any(|text| text.contains(wanted)), "{name}: no {wanted} in {texts:?}");
            }
            assert_eq!(sheet.inside.strokes.iter().filter(|(layer, _)| *layer == Layer::Form).count(), 4 * (4 + 4));
        }
        for (at, bend) in words.bends.iter().enumerate() {
            assert_eq!(bend.mark, format!("B{}", at + 1));
            assert!(
                texts.iter().any(|text| text.starts_with(&format!("{} {}", bend.mark, bend.direction.word()))),
                "{name}: {} is not marked",
                bend.mark
            );
            assert!(
                texts.iter().any(|text| text.contains(&bend.source[..bend.source.len().min(40)])),
                "{name}: no source"
            );
        }
        for (_, text) in sheet.frame.texts.iter().chain(&sheet.inside.texts) {
            // Letters are at most 0.6 of their height wide on average.
            let wide = text.value.len() as f64 * text.height * 0.62;
            let end = text.place.x + wide * text.turn.cos();
            assert!(
                text.place.x >= 0.0 && text.place.y >= 0.0 && end <= sheet.width,
                "{name}: {} runs off",
                text.value
            );
        }
        for (_, stroke) in &sheet.inside.strokes {
            let place = match stroke {
                Stroke::Segment(one) => one.start,
                Stroke::Circle { centre, .. } => *centre,
            };
            assert!(
                place.x > sheet.window.low.x
                    && place.x < sheet.window.high.x
                    && place.y > sheet.window.low.y
                    && place.y < sheet.window.high.y,
                "{name}"
            );
        }
        let pdf = steelk_formats::pdf::write(&[flat_sheet(part, &words)], "flat sheet");
        assert!(pdf.starts_with(b"%PDF-"));
        assert_eq!(
            pdf,
            steelk_formats::pdf::write(&[flat_sheet(part, &words)], "flat sheet"),
            "the same piece gives the same file"
        );
    }
}

/// The table under a blank's drawing changes nothing that is cut.
#[test]
fn the_table_under_the_blank_is_words_only() {
    let (piece, outcome) = demo("20-filter-box");
    let part = outcome.part().unwrap();
    let before = blank_drawing(part, &piece.mark, LengthUnit::Mm);
    let mut after = before.clone();
    add_bend_table(&mut after, &bend_rows(part, Some(12.0), LengthUnit::Mm), &["stainless".into()], LengthUnit::Mm);
    assert_eq!(before.strokes, after.strokes);
    assert_eq!(after.texts.len(), before.texts.len() + 9);
    let low = before.extents().low.y;
    assert!(after.texts[before.texts.len()..].iter().all(|(_, text)| text.place.y < low));
}

#[test]
fn bend_table_is_a_line_a_bend() {
    let (_, outcome) = demo("10-drawbar-channel");
    let rows = bend_rows(outcome.part().unwrap(), None, LengthUnit::Mm);
    let bytes = table_csv::write(&bend_table(&rows, LengthUnit::Mm), &Heading::default()).unwrap();
    let mut csv = csv::Reader::from_reader(bytes.as_slice());
    assert_eq!(csv.headers().unwrap().len(), 15, "ten of a bend, five of what it is of");
    let lines: Vec<csv::StringRecord> = csv.records().map(Result::unwrap).collect();
    assert_eq!(lines.len(), 4);
    // 3 mm, R 3, K 0.44 of S275: BA = pi/2 (3 + 1.32) = 6.786, BD = 12 - 6.786 = 5.214; the die 8 T.
    for line in &lines {
        assert_eq!(
            (&line[2], &line[3], &line[4], &line[5], &line[6]),
            ("90", "up", "3", "1200", "air bend, die 24 mm")
        );
        assert_eq!((&line[7], &line[8]), ("6.786", "5.214"));
        assert!(line[9].contains("K 0.44"), "{}", &line[9]);
    }
    let (_, rolled) = demo("09-mudguard");
    let rows = bend_rows(rolled.part().unwrap(), None, LengthUnit::Mm);
    assert_eq!((rows[0].tooling.as_str(), rows[1].tooling.as_str()), ("rolled", "hemming tool"));
}

/// GLB: a sound container, metres with y up, as many triangles as the mesh, its box the folded size.
#[test]
fn glb_holds_the_folded_part() {
    let (piece, outcome) = demo("20-filter-box");
    let file = steelk_formats::glb::write(&outcome.mesh, &piece.mark, &Heading::default());
    let word = |at: usize| u32::from_le_bytes(file[at..at + 4].try_into().unwrap()) as usize;
    assert_eq!((&file[..4], word(4), word(8)), (&b"glTF"[..], 2, file.len()));
    let json: serde_json::Value = serde_json::from_slice(&file[20..20 + word(12)]).unwrap();
    let binary = 20 + word(12);
    assert_eq!(&file[binary + 4..binary + 8], b"BIN\0");
    assert_eq!(word(binary), json["buffers"][0]["byteLength"].as_u64().unwrap() as usize);
    let positions = &json["accessors"][0];
    assert_eq!(positions["count"].as_u64().unwrap() as usize, 3 * outcome.mesh.triangles.len());
    let size = outcome.figures().unwrap().folded_size;
    for (axis, wanted) in [(0, size.x), (1, size.z), (2, size.y)] {
        let span = positions["max"][axis].as_f64().unwrap() - positions["min"][axis].as_f64().unwrap();
        assert!((span * 1000.0 - wanted).abs() < 0.1, "axis {axis}: {span} m, {wanted} mm");
    }
}
