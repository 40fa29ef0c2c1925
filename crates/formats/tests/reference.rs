//! Our DXF through `ezdxf` and `shapely` (reference libraries of the Python registry), run from Cargo.

use steelk_core::drawing::blank_drawing;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::table::{cut_list_table, cut_row};
use steelk_formats::dxf_file::Style;
use steelk_formats::output::Heading;
use steelk_testing::python::judged;
use steelk_testing::{blank_by_blank, demo_pieces};

fn demo() -> Vec<Piece> {
    // Of a frame its plates, each a piece of its own.
    demo_pieces()
        .into_iter()
        .flat_map(|piece| match piece.kind {
            steelk_core::piece::Kind::Frame => piece.frame_plates(&evaluate(&piece, Options::default())),
            _ => vec![piece],
        })
        .collect()
}

#[test]
fn dxf_opens_without_error_and_measures_the_same() {
    let pieces = demo();
    assert!(pieces.len() >= 8);
    let folder = std::env::temp_dir().join(format!("steelk-dxf-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let mut files = Vec::new();
    let mut outcomes = Vec::new();
    let (pieces, made): (Vec<Piece>, Vec<Outcome>) = pieces.into_iter().flat_map(blank_by_blank).unzip();
    for (piece, outcome) in pieces.iter().zip(made) {
        let drawing = blank_drawing(outcome.part().unwrap(), &piece.mark, LengthUnit::Mm);
        let path = folder.join(format!("{}.dxf", piece.mark));
        std::fs::write(&path, steelk_formats::dxf_file::write(&drawing, &Style::default()).unwrap()).unwrap();
        files.push(path);
        outcomes.push(outcome);
    }
    let lines = judged("read_dxf.py", &files);
    std::fs::remove_dir_all(&folder).unwrap();
    assert_eq!(lines.len(), pieces.len());
    for ((line, outcome), piece) in lines.iter().zip(&outcomes).zip(&pieces) {
        assert_eq!(line["errors"], serde_json::json!([]), "{}", piece.mark);
        assert_eq!((line["version"].as_str(), line["units"].as_i64()), (Some("AC1024"), Some(4)), "R2010, millimetres");
        // Table-head handles are the one fix the writing library leaves; nothing of ours may need mending.
        let fixes = line["fixes"].as_array().unwrap();
        assert!(fixes.len() <= 1, "{}: {fixes:?}", piece.mark);
        for layer in ["CUT", "BEND-UP", "BEND-DOWN", "MARK", "TEXT"] {
            assert!(line["layers"].as_array().unwrap().iter().any(|one| one == layer), "{layer}");
        }
        let figures = outcome.figures().unwrap();
        let area = line["net_area"].as_f64().unwrap();
        assert!((area / figures.net_area - 1.0).abs() < 1e-6, "{}: {area} against {}", piece.mark, figures.net_area);
        assert_eq!(line["bends"].as_array().unwrap().len(), figures.bends);
        let texts = line["texts"].to_string();
        assert!(texts.contains(&piece.mark) && (texts.contains("deg R") || figures.bends == 0), "{texts}");
    }
    // The tray: 45 drain holes as circles of 4 mm, the handle's round corners as arcs, one text a bend.
    let tray = pieces.iter().position(|piece| piece.mark == "TT-01").unwrap();
    assert_eq!(lines[tray]["circles"].as_array().unwrap().len(), 45);
    assert!(lines[tray]["arcs"].as_u64().unwrap() >= 2);
    assert!(lines[tray]["texts"].to_string().contains("up 90 deg R2"));
    // The perforated floor: its fill and four screw holes. The axle plate's blind tapped holes are marked, not cut.
    let of = |mark: &str| &lines[pieces.iter().position(|piece| piece.mark == mark).unwrap()];
    assert_eq!(of("TF-08")["circles"].as_array().unwrap().len(), 442);
    assert_eq!(of("AP-04")["circles"].as_array().unwrap().len(), 5);
}

#[test]
fn the_same_piece_gives_the_same_file() {
    let piece = &demo()[0];
    let make = || {
        let outcome = evaluate(piece, Options::default());
        steelk_formats::dxf_file::write(
            &blank_drawing(outcome.part().unwrap(), &piece.mark, LengthUnit::Mm),
            &Style::default(),
        )
        .unwrap()
    };
    assert_eq!(make(), make());
}

#[test]
fn svg_is_at_true_size() {
    let piece = &demo()[0];
    let outcome = evaluate(piece, Options::default());
    let text = steelk_formats::svg::write(
        &blank_drawing(outcome.part().unwrap(), &piece.mark, LengthUnit::Mm),
        "a <b> & c",
        &[],
        LengthUnit::Mm,
    );
    // 120 x 134.785840 and 10 mm of margin each side.
    assert!(text.contains(r#"width="140mm" height="154.78584013"#), "{}", &text[..200]);
    assert!(text.contains(r#"viewBox="0 0 140 154.78584013"#));
    assert!(text.contains("a &lt;b&gt; &amp; c"));
    assert_eq!(text.matches("<circle").count(), 5);
    assert!(text.contains(r#"id="BEND-UP""#));
}

#[test]
fn cut_list_has_a_line_a_piece_and_runs_no_formula() {
    let lines: Vec<_> = demo()
        .iter()
        .flat_map(|piece| steelk_core::cutlist::cut_lines(piece, &evaluate(piece, Options::default())))
        .collect();
    let mut wild = lines[0].clone();
    wild.mark = "=1+1".into();
    let mut table = cut_list_table(LengthUnit::Mm);
    table.rows.extend([lines, vec![wild]].concat().iter().map(|line| cut_row(line, LengthUnit::Mm)));
    let head = Heading { mark: "@all".into(), note: Some("NOT RELEASED: 1 rule broken".into()), ..Heading::default() };
    let text = String::from_utf8(steelk_formats::table_csv::write(&table, &head).unwrap()).unwrap();
    let mut rows = csv::Reader::from_reader(text.as_bytes());
    assert_eq!(rows.headers().unwrap().len(), 20);
    let rows: Vec<csv::StringRecord> = rows.records().map(Result::unwrap).collect();
    // Twelve pieces of one blank, five plates of the frame, the four sheets of the hood, and the wild one.
    assert_eq!(rows.len(), 22);
    assert_eq!(rows[0].iter().collect::<Vec<_>>()[..7], ["WB-02", "Winch bracket", "2", "", "", "S275", "3"]);
    assert_eq!((&rows[0][7], &rows[0][8], &rows[0][11], &rows[0][12]), ("120", "134.786", "6", "1"));
    let (each, all): (f64, f64) = (rows[0][13].parse().unwrap(), rows[0][14].parse().unwrap());
    assert!((all - 2.0 * each).abs() < 2e-4);
    assert_eq!(&rows[21][0], "'=1+1");
    assert!(rows.iter().all(|row| &row[15] == "'@all" && &row[19] == "NOT RELEASED: 1 rule broken"));
}
