//! Frames against general-purpose libraries: sections by shapely, copes and STEP files by the solid kernel; lists read back.

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::frame::{frame_solids, member_solid};
use steelk_core::piece::{Count, Options, Outcome, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::section::{Form, catalogue};
use steelk_core::table::Table;
use steelk_core::table::{cut_table, weld_table};
use steelk_formats::output::{Heading, Stamp};
use steelk_formats::{centre_lines, step, table_csv, table_xlsx};
use steelk_testing::python::answers;
use steelk_testing::root;
use steelk_testing::trials::{self, Dice};

fn frame(operations: Value) -> (Piece, Outcome) {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    let outcome = evaluate(&piece, Options::default());
    let errors: Vec<_> =
        outcome.findings.iter().filter(|one| one.severity == steelk_core::finding::Severity::Error).collect();
    assert!(errors.is_empty(), "{errors:?}");
    (piece, outcome)
}

fn demo() -> (Piece, Outcome) {
    let piece = steelk_testing::demo("11-trolley-frame");
    let outcome = evaluate(&piece, Options::default());
    (piece, outcome)
}

#[test]
fn sections_agree_with_shapely() {
    let (mut wanted, mut entries) = (Vec::new(), Vec::new());
    for row in catalogue() {
        let section = &row.section;
        let around = section.extents();
        let (width, height) = (around.width(), around.height());
        let entry = match section.form {
            Form::SquareHollow | Form::RectangularHollow => {
                // EN 10219-2 and the US practice both take the inner corner as the outer one less the wall.
                json!({"kind": "hollow", "width": width, "height": height, "wall": section.web,
                    "outer": section.radius, "inner": section.radius - section.web})
            }
            Form::RoundHollow => json!({"kind": "tube", "diameter": width, "wall": section.web}),
            Form::Angle => {
                json!({"kind": "angle", "width": width, "height": height, "thickness": section.web, "root": section.radius})
            }
            Form::Channel | Form::Beam => {
                let kind = if section.form == Form::Channel { "channel" } else { "beam" };
                json!({"kind": kind, "width": width, "height": height, "web": section.web, "flange": section.flange,
                    "root": section.radius, "taper": if section.name.starts_with("UPN") { 0.08 } else { 0.0 }})
            }
            _ => continue,
        };
        entries.push(entry);
        wanted.push((section.name.clone(), section.area()));
    }
    let found = answers("frame_reference.py", ["sections"], &serde_json::to_string(&entries).unwrap());
    assert_eq!(found.len(), wanted.len());
    assert!(wanted.len() > 150);
    for ((name, area), found) in wanted.iter().zip(&found) {
        let own = found["area"].as_f64().unwrap();
        // Its circles have 1024 corners: 1e-5 of what they round.
        assert!((own / area - 1.0).abs() < 2e-5, "{name}: {area} and {own}");
        if let Some(place) = found["centroid"].as_array() {
            assert!(place.iter().all(|at| at.as_f64().unwrap().abs() < 1e-9), "{name}");
        }
    }
}

#[test]
fn coped_tubes_weigh_what_the_kernel_says() {
    let mut entries = Vec::new();
    let mut wanted = Vec::new();
    for (degrees, branch, wall, run, thick) in [
        (90.0, 48.3, 3.2, 60.3, 3.2),
        (60.0, 42.4, 2.6, 60.3, 4.0),
        (45.0, 33.7, 3.2, 76.1, 3.2),
        (75.0, 60.3, 4.0, 60.3, 4.0),
    ] {
        let (_, outcome) = frame(json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "2000 mm"}}]}}},
            {"name": "mid", "do": {"divide": {"line": "run.1", "into": "2"}}},
            {"name": "branch", "do": {"path": {"start": {"from": "mid.1"}, "legs": [
                {"by": {"x": format!("400 mm * cos({degrees} deg)"), "z": format!("400 mm * sin({degrees} deg)")}}]}}},
            {"name": "rail", "do": {"member": {"lines": ["run"], "section": format!("CHS {run}x{thick}")}}},
            {"name": "post", "do": {"member": {"lines": ["branch"], "section": format!("CHS {branch}x{wall}")}}},
            {"name": "tee", "do": {"joint": {"at": "tees", "how": {"trim": {}}}}},
        ]));
        let members = &outcome.into_frame().unwrap().made.frame.members;
        let post = members.iter().find(|member| member.group == "post").unwrap();
        wanted.push((degrees, post.volume()));
        entries.push(json!({"degrees": degrees, "branch": branch, "wall": wall, "run": run, "length": 400.0}));
    }
    let found = answers("frame_reference.py", ["coped"], &serde_json::to_string(&entries).unwrap());
    for ((degrees, volume), found) in wanted.iter().zip(&found) {
        let own = found["volume"].as_f64().unwrap();
        assert!((own / volume - 1.0).abs() < 2e-4, "{degrees} deg: {volume} and {own}");
    }
}

/// Opens STEP files in the kernel.
fn opened(name: &str, texts: &[String]) -> Vec<Value> {
    let folder = std::env::temp_dir().join(format!("steelk-frame-{name}-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let paths: Vec<String> = texts
        .iter()
        .enumerate()
        .map(|(at, text)| {
            let path = folder.join(format!("{at:02}.step"));
            std::fs::write(&path, text).unwrap();
            path.to_str().unwrap().to_string()
        })
        .collect();
    let arguments: Vec<&str> = paths.iter().map(String::as_str).collect();
    let found = answers("read_step.py", &arguments, "");
    std::fs::remove_dir_all(&folder).unwrap();
    found
}

#[test]
fn members_cut_by_planes_open_as_solids_of_their_volume() {
    // Every form, cut square, at an angle and by a compound one.
    let sections =
        ["SHS 50x50x3", "RHS 80x40x4", "CHS 48.3x3.2", "L 60x40x5", "UPE 100", "IPE 120", "FL 50x8", "RD 25"];
    let (mut texts, mut wanted) = (Vec::new(), Vec::new());
    for section in sections {
        let (_, outcome) = frame(json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "400 mm", "y": "120 mm", "z": "60 mm"}}]}}},
            {"name": "bar", "do": {"member": {"lines": ["run"], "section": section, "roll": "17 deg", "align": "bottom"}}},
            {"name": "one", "do": {"end": {"of": ["bar"], "at": "start", "how": {"angle": {"angle": "35 deg"}}}}},
            {"name": "two", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": "-25 deg", "tilt": "20 deg"}}}}},
        ]));
        let member = &outcome.frame().unwrap().made.frame.members[0];
        let solid = member_solid(member);
        assert!(solid.is_closed(), "{section}");
        texts.push(step::write(&solid, section, &Default::default()));
        // The closed form: section area x the distance between the planes along the centroid.
        let volume = member.section.area() * member.centroid_length();
        assert!((volume - member.volume()).abs() < 1e-6);
        wanted.push((section, volume));
        // And the drawn mesh is closed and as large, by its chords.
        assert!((outcome.mesh.volume() / volume - 1.0).abs() < 0.01, "{section}");
        assert!(outcome.mesh.is_watertight(), "{section}");
    }
    for ((section, volume), found) in wanted.iter().zip(opened("cut", &texts)) {
        assert_eq!(
            (found["solids"].as_u64(), found["valid"].as_bool(), found["closed"].as_bool()),
            (Some(1), Some(true), Some(true)),
            "{section}: {found}"
        );
        let own = found["volume"].as_f64().unwrap();
        assert!((own / volume - 1.0).abs() < 1e-6, "{section}: {own} and {volume}");
    }
}

#[test]
fn drilled_members_open_with_their_holes() {
    // Through both walls of a tube, one wall only, a web, a solid flat, a flange off the middle; on a piece cut at an angle.
    let (mut texts, mut wanted) = (Vec::new(), Vec::new());
    for (section, face, off, one_wall, walls) in [
        ("RHS 80x40x4", "left", 0.0, false, 2.0 * 4.0),
        ("SHS 50x50x3", "top", 8.0, true, 3.0),
        ("UPE 100", "left", 12.0, false, 4.5),
        ("FL 50x8", "right", -9.0, false, 8.0),
        ("IPE 120", "top", 18.0, true, 6.3),
        ("L 60x40x5", "left", 14.0, false, 5.0),
    ] {
        let (_, outcome) = frame(json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "400 mm"}}]}}},
            {"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}},
            {"name": "cut", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": "25 deg", "tilt": "10 deg"}}}}},
            {"name": "holes", "do": {"bore": {"of": ["bar"], "face": face, "diameter": "9 mm", "at": "50 mm", "count": "3", "spacing": "60 mm", "off": format!("{off} mm"), "one_wall": one_wall}}},
        ]));
        let member = &outcome.frame().unwrap().made.frame.members[0];
        let solid = member_solid(member);
        assert!(solid.is_closed(), "{section}");
        texts.push(step::write(&solid, section, &Default::default()));
        let holes = 3.0 * walls * std::f64::consts::PI * 9.0 * 9.0 / 4.0;
        wanted.push((section, member.section.area() * member.centroid_length() - holes));
        assert!((member.volume() - wanted[wanted.len() - 1].1).abs() < 1e-6, "{section}");
    }
    for ((section, volume), found) in wanted.iter().zip(opened("drilled", &texts)) {
        assert_eq!((found["solids"].as_u64(), found["valid"].as_bool()), (Some(1), Some(true)), "{section}: {found}");
        let own = found["volume"].as_f64().unwrap();
        assert!((own / volume - 1.0).abs() < 1e-6, "{section}: {own} and {volume}");
    }
}

#[test]
fn notched_slotted_and_coped_members_open_as_bodies_of_their_volume() {
    let (mut texts, mut wanted) = (Vec::new(), Vec::new());
    for (section, face, angle) in [
        ("UPE 100", "top", 0.0),
        ("IPE 120", "bottom", 20.0),
        ("L 60x40x5", "right", 0.0),
        ("SHS 50x50x3", "left", 30.0),
    ] {
        let (piece, outcome) = frame(json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "400 mm"}}]}}},
            {"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}},
            {"name": "cut", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": format!("{angle} deg")}}}}},
            {"name": "notch", "do": {"end_notch": {"of": ["bar"], "at": "finish", "face": face, "depth": "18 mm", "length": "30 mm"}}},
        ]));
        let frame = outcome.frame().unwrap();
        let member = &frame.made.frame.members[0];
        assert!((outcome.mesh.volume() / member.volume() - 1.0).abs() < 0.01, "{section}");
        let whole = member.section.area() * member.centroid_length();
        assert!(member.volume() < whole, "{section}");
        texts.push(step::write_all(&frame_solids(&frame.made).0, &piece.mark, "frame", &Default::default()));
        wanted.push((section, member.volume()));
    }
    for (section, other, gap) in
        [("UPE 100", "UPE 120", 1.0), ("IPE 120", "UPN 140", 0.0), ("RHS 80x40x4", "IPE 160", 2.0)]
    {
        let (piece, outcome) = frame(json!([
            {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "400 mm", "y": "90 mm"}}]}}},
            {"name": "over", "do": {"path": {"start": {"x": "400 mm", "y": "-300 mm"}, "legs": [{"by": {"y": "600 mm"}}]}}},
            {"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}},
            {"name": "slot", "do": {"end_notch": {"of": ["bar"], "at": "start", "face": "left", "width": "8 mm", "length": "35 mm"}}},
            {"name": "beam", "do": {"member": {"lines": ["over"], "section": other}}},
            {"name": "fit", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"cope": {"to": ["beam"], "gap": format!("{gap} mm")}}}}},
        ]));
        let frame = outcome.frame().unwrap();
        let solids = frame_solids(&frame.made).0.into_iter().filter(|(name, _)| name == "run.1").collect::<Vec<_>>();
        assert!(solids.len() == 1 && solids.iter().all(|(_, solid)| solid.is_closed()));
        texts.push(step::write_all(&solids, &piece.mark, "frame", &Default::default()));
        wanted.push((section, frame.made.frame.members[0].volume()));
    }
    for ((section, volume), found) in wanted.iter().zip(opened("notch", &texts)) {
        // One piece of metal is one solid, however it is cut.
        assert_eq!((found["solids"].as_u64(), found["valid"].as_bool()), (Some(1), Some(true)), "{section}");
        let own = found["volume"].as_f64().unwrap();
        assert!((own / volume - 1.0).abs() < 1e-6, "{section}: {own} and {volume}");
    }
}

#[test]
fn the_demo_frame_opens_as_its_pieces() {
    let (piece, outcome) = demo();
    let frame = outcome.frame().unwrap();
    let (solids, missing) = frame_solids(&frame.made);
    assert!(missing.is_empty(), "{missing:?}");
    let found = &opened("demo", &[step::write_all(&solids, &piece.mark, "frame", &Default::default())])[0];
    let pieces = frame.made.frame.members.len() + frame.made.frame.plates.len();
    assert_eq!(found["solids"].as_u64(), Some(pieces as u64));
    assert_eq!(found["valid"].as_bool(), Some(true), "{found}");
    // Steel of 7850 kg/m3, with the drain holes of four posts and two bent tubes.
    let mass = found["volume"].as_f64().unwrap() * 7850e-9;
    let stated = frame.made.list.sums[0].mass;
    assert!((mass / stated - 1.0).abs() < 1e-6, "{mass} and {stated}");
}

#[test]
fn lists_are_read_back() {
    let (piece, outcome) = demo();
    let frame = outcome.frame().unwrap();
    let stamp = Stamp { revision: Some("7".into()), by: Some("designer".into()), date: Some("2026-11-29".into()) };
    let head = Heading::new(&piece, &outcome, &stamp);
    for table in [cut_table(&piece, frame), weld_table(&piece, frame)] {
        let (headings, rows) = table_csv::read(&table_csv::write(&table, &head).unwrap()).unwrap();
        let wide = table.columns.len();
        assert_eq!(headings[..wide], table.headings());
        assert_eq!(headings[wide..], ["piece", "revision", "by", "date", "release"]);
        assert_eq!(rows.len(), table.rows.len());
        for (row, own) in rows.iter().zip(&table.rows) {
            let texts: Vec<String> = own.iter().map(steelk_core::table::Cell::text).collect();
            assert_eq!(row[..wide], texts);
            assert_eq!(row[wide..wide + 4], [piece.mark.as_str(), "7", "designer", "2026-11-29"]);
        }
    }
    let list = cut_table(&piece, frame);
    let book = table_xlsx::write(&[("Cut list", &list)], &head).unwrap();
    // A ZIP archive with a sheet in it.
    assert!(book.starts_with(b"PK") && book.len() > 2000);
    // The clock's seconds are not in it.
    std::thread::sleep(std::time::Duration::from_millis(1100));
    assert!(
        book == table_xlsx::write(&[("Cut list", &list)], &head).unwrap(),
        "the same list is another file a second later"
    );
}

#[test]
fn a_printed_list_stays_on_its_paper_and_says_when_it_goes_on() {
    let mut table = Table::new("list", LengthUnit::Mm).columns(&["mark", "work"]);
    let words = |count: usize| vec!["drilled"; count].join(" ");
    for count in [1, 6, 40] {
        table
            .rows
            .push(vec![steelk_core::table::Cell::Text("P1".into()), steelk_core::table::Cell::Text(words(count))]);
    }
    let sheets =
        steelk_core::drawing::table_sheets(&table, &[("mark", 40.0), ("work", 40.0)], &[], &[], "X-1, revision 4")
            .unwrap();
    let texts: Vec<_> = sheets.iter().flat_map(|sheet| &sheet.frame.texts).collect();
    let printed = texts.iter().map(|(_, text)| text.value.matches("drilled").count()).sum::<usize>();
    // Short cells are whole; the long one is told to go on.
    assert!(printed >= 7 && texts.iter().filter(|(_, text)| text.value.ends_with("...")).count() == 1, "{texts:?}");
    assert!(texts.iter().all(|(_, text)| text.place.x < sheets[0].width - 10.0 && text.place.y > 0.0));
}

/// Cautions stand below the table, however full its last sheet is.
#[test]
fn every_note_below_a_list_is_printed_on_its_paper() {
    let cell = |text: &str| steelk_core::table::Cell::Text(text.into());
    for rows in 0..40 {
        for count in [1, 3, 60] {
            let mut table = Table::new("list", LengthUnit::Mm).columns(&["mark"]);
            table.rows = (0..rows).map(|row| vec![cell(&format!("P{row}"))]).collect();
            table.notes = vec!["first".into()];
            let cautions: Vec<String> = (0..count).map(|at| format!("caution {at}")).collect();
            let sheets =
                steelk_core::drawing::table_sheets(&table, &[("mark", 40.0)], &[], &cautions, "X-1, revision 4")
                    .unwrap();
            let texts: Vec<_> = sheets.iter().flat_map(|sheet| &sheet.frame.texts).map(|(_, text)| text).collect();
            for words in table.notes.iter().chain(&cautions).chain(table.rows.iter().map(|row| match &row[0] {
                steelk_core::table::Cell::Text(text) => text,
                other => panic!("{other:?}"),
            })) {
                assert_eq!(texts.iter().filter(|text| text.value == *words).count(), 1, "{words}, {rows} rows");
            }
            assert!(texts.iter().all(|text| text.place.y >= 10.0 && text.place.y < sheets[0].height));
            let all = sheets.len();
            for (at, sheet) in sheets.iter().enumerate() {
                let number = format!("sheet {} of {all}", at + 1);
                assert!(sheet.frame.texts.iter().any(|(_, text)| text.value == number), "{number}");
                assert!(sheet.frame.texts.iter().any(|(_, text)| text.value == "X-1, revision 4"), "{number}");
                // No two texts in one place.
                let mut places: Vec<_> =
                    sheet.frame.texts.iter().map(|(_, text)| (text.place.x as i64, text.place.y as i64)).collect();
                places.sort_unstable();
                let before = places.len();
                places.dedup();
                assert_eq!(places.len(), before, "{rows} rows, {count} cautions");
            }
        }
    }
}

#[test]
fn a_word_that_a_spreadsheet_would_run_is_words() {
    let mut table = Table::new("list", LengthUnit::Mm).columns(&["mark"]);
    table.rows.push(vec![steelk_core::table::Cell::Text("=1+1".into())]);
    let text = String::from_utf8(table_csv::write(&table, &Heading::default()).unwrap()).unwrap();
    assert!(text.contains("'=1+1"), "{text}");
}

#[test]
fn centre_lines_come_from_csv_and_dxf() {
    let csv = "x1,y1,z1,x2,y2,z2\n0,0,0,1000,0,0\n# a remark\n1000,0,0,1100,0,100,1000,0,200\n";
    let read = centre_lines::from_csv(csv, LengthUnit::Mm).unwrap();
    assert_eq!(read.lines, ["0 0 0, 1000 0 0", "1000 0 0, 1100 0 100, 1000 0 200"]);
    assert!(centre_lines::from_csv("0,0,0,1,1\n", LengthUnit::Mm).unwrap_err().to_string().contains("row 1"));
    assert!(centre_lines::from_csv("0,0,0,1,1,nan\n", LengthUnit::Mm).is_err());
    // A line in space, and an arc drawn in the plane square to x (extrusion 1, 0, 0): its x is the world's y, its y the z.
    let dxf = "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1015\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n\
        0\nLINE\n8\n0\n10\n0\n20\n0\n30\n0\n11\n500\n21\n0\n31\n250\n\
        0\nARC\n8\n0\n10\n100\n20\n0\n30\n50\n40\n100\n210\n1\n220\n0\n230\n0\n50\n0\n51\n90\n0\nENDSEC\n0\nEOF\n";
    let read = centre_lines::from_dxf(dxf.as_bytes(), LengthUnit::In).unwrap();
    assert_eq!(read.unit, LengthUnit::Mm);
    assert_eq!(read.lines[0], "0 0 0, 500 0 250");
    let places: Vec<&str> = read.lines[1].split(", ").collect();
    assert_eq!((places[0], places[2]), ("50 200 0", "50 100 100"));
    assert!(centre_lines::from_dxf(b"not a drawing", LengthUnit::Mm).is_err());
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]
    #[test]
    fn readers_never_fall_over(text in "[0-9a-zA-Z ,.\\-\n#]{0,300}") {
        let _ = centre_lines::from_csv(&text, LengthUnit::Mm);
        let _ = centre_lines::from_dxf(text.as_bytes(), LengthUnit::Mm);
    }
}

#[test]
fn a_job_lists_what_its_frames_are_made_of() {
    use steelk_formats::cutlist_csv::{JobCutLine, JobPiece, job_headings, write_job};
    let (piece, outcome) = demo();
    let list = &outcome.frame().unwrap().made.list;
    let own = JobPiece {
        head: Heading::new(&piece, &outcome, &Stamp::default()),
        unit: LengthUnit::Mm,
        lines: list
            .lines
            .iter()
            .map(|line| JobCutLine::Frame(Count { needed: 3, spares: 1, first_off: true }, Box::new(line.clone())))
            .collect(),
    };
    let text = write_job(&[own]).unwrap();
    let job_headings = || job_headings(LengthUnit::Mm);
    let mut file = csv::Reader::from_reader(text.as_slice());
    assert_eq!(file.headers().unwrap().iter().collect::<Vec<_>>(), job_headings());
    let records: Vec<csv::StringRecord> = file.records().map(Result::unwrap).collect();
    assert_eq!(records.len(), list.lines.len());
    let column = |name: &str| job_headings().iter().position(|one| one == name).unwrap();
    let number = |record: &csv::StringRecord, name: &str| record[column(name)].parse::<f64>().unwrap();
    // Three frames weigh three times one: the whole that the list itself sums.
    let mass: f64 = records.iter().map(|record| number(record, "mass total kg")).sum();
    assert!((mass - 3.0 * list.sums[0].mass).abs() < 0.01, "{mass} and {}", list.sums[0].mass);
    for (record, line) in records.iter().zip(&list.lines) {
        assert_eq!(number(record, "qty"), 3.0 * line.quantity as f64);
        let long = if line.kind.word() == "member" { "length mm" } else { "blank width mm" };
        assert!((number(record, long) - line.length).abs() < 0.001);
        assert_eq!(record[column("thickness mm")].is_empty(), line.kind.word() == "member");
    }
}

/// Bent bars are exact in the kernel: tubes, angles and tapered channels bent flat, on edge and between.
#[test]
fn bent_members_open_as_exact_solids() {
    let bent = json!({"start": {"x": "-500 mm"}, "legs": [{"by": {"name": "a", "x": "300 mm"}},
        {"arc": {"name": "b", "place": {"x": "200 mm", "y": "400 mm"}, "how": {"radius": {"radius": "400 mm", "toward": "toward"}}}}, {"by": {"name": "c", "y": "250 mm"}}]});
    let (mut texts, mut wanted) = (Vec::new(), Vec::new());
    for section in ["CHS 48.3x4", "SHS 50x50x3", "RHS 80x40x3", "L 60x60x6", "UPN 100", "RD 30", "FL 60x10"] {
        for roll in ["0 deg", "90 deg", "35 deg"] {
            let (_, outcome) = frame(json!([
                {"name": "p", "do": {"path": bent}},
                {"name": "m", "do": {"member": {"lines": ["p"], "section": section, "roll": roll}}},
                {"name": "e", "do": {"end": {"of": ["m"], "at": "finish", "how": {"angle": {"angle": "30 deg", "tilt": "10 deg"}}}}},
            ]));
            let member = outcome.into_frame().unwrap().made.frame.members.remove(0);
            let body = member_solid(&member);
            assert!(body.is_closed());
            texts.push(step::write(&body, section, &Default::default()));
            wanted.push((format!("{section} {roll}"), member.volume(), member.centre_of_gravity()));
        }
    }
    for (found, (name, volume, centre)) in opened("bent", &texts).iter().zip(&wanted) {
        assert_eq!((found["solids"].as_u64(), found["valid"].as_bool()), (Some(1), Some(true)), "{name}");
        let own = found["volume"].as_f64().unwrap();
        assert!((own / volume - 1.0).abs() < 1e-6, "{name}: {own} and {volume}");
        let at: Vec<f64> = found["centre"].as_array().unwrap().iter().map(|one| one.as_f64().unwrap()).collect();
        let off = (at[0] - centre.x).hypot(at[1] - centre.y).hypot(at[2] - centre.z);
        assert!(off < 1e-3, "{name}: centres {off} mm apart");
    }
}

/// Names that come from outside never break into lines of an NC1 file: a fault document whose section is called like a command, and
/// worse ones in every field of the heading.
#[test]
fn no_name_breaks_into_lines_of_a_machine_file() {
    let document = std::fs::read(root().join("crates/core/tests/faults/frame-nc1-line-breaks.json")).unwrap();
    let outcome = evaluate(&Piece::read(&document).unwrap(), Options::default());
    let member = &outcome.frame().unwrap().made.frame.members[0];
    let plain = steelk_formats::nc1::Heading { order: "O", drawing: "D", mark: "M", quantity: 1, remarks: &[] };
    let wanted = steelk_formats::nc1::write(member, &plain).unwrap().lines().count();
    for bad in ["A\nEN\nBO", "A\r\nST\r\n**", "\u{2028}EN\u{85}EN", "** remark", "\u{0}\u{b}\u{c}EN"] {
        let heading = steelk_formats::nc1::Heading { order: bad, drawing: bad, mark: bad, quantity: 1, remarks: &[] };
        let text = steelk_formats::nc1::write(member, &heading).unwrap();
        assert!(text.is_ascii(), "{bad:?}");
        assert_eq!(text.lines().count(), wanted, "{bad:?}");
        // Blocks begin in the first column, what is in them further in.
        for word in ["ST", "EN"] {
            assert_eq!(text.lines().filter(|line| line.starts_with(word)).count(), 1, "{word} in {bad:?}");
        }
        assert!(text.chars().all(|c| c == '\n' || c == '\r' || !c.is_control()), "{bad:?}");
    }
}

/// Spares are cut and listed beside what is needed: what the lists say of both is what the bars hold, mark by mark.
#[test]
fn spares_are_in_the_lists_and_in_the_bars() {
    let of_demo = [(1, 0), (2, 1), (3, 2)].map(|count| (count, serde_json::to_value(demo().0).unwrap()));
    let random = (0..trials::cases(25)).map(|seed| {
        let mut dice = Dice::new(seed);
        ((1 + dice.below(4), dice.below(3)), trials::frame(seed))
    });
    let mut compared = 0;
    for ((needed, spares), mut document) in of_demo.into_iter().chain(random) {
        (document["quantity"], document["spares"]) = (json!(needed), json!(spares));
        document["first_off"] = json!(spares > 0);
        let piece = Piece::read(document.to_string().as_bytes()).unwrap();
        let outcome = evaluate(&piece, Options::default());
        let Some(frame) = outcome.frame() else { continue };
        // What is listed, read from the table as a person would: by its headings.
        let table = cut_table(&piece, frame);
        let text =
            String::from_utf8(table_csv::write(&table, &Heading::new(&piece, &outcome, &Stamp::default())).unwrap());
        let text = text.unwrap();
        let mut file = csv::Reader::from_reader(text.as_bytes());
        let heads = file.headers().unwrap().clone();
        let at = |name: &str| heads.iter().position(|one| one == name).unwrap_or_else(|| panic!("{name} in {heads:?}"));
        let (mark, qty, extra, first) = (at("mark"), at("qty"), at("spares"), at("first-off"));
        let mut listed = std::collections::BTreeMap::new();
        for row in file.records() {
            let row = row.unwrap();
            let count = |at: usize| row[at].parse::<usize>().unwrap_or(0);
            assert_eq!(row[first] == *"yes", spares > 0);
            assert_eq!(count(extra) * needed, count(qty) * spares, "{}", &row[mark]);
            listed.insert(row[mark].to_string(), count(qty) + count(extra));
        }
        // What is cut from bars, counted bar by bar.
        let mut cut = std::collections::BTreeMap::new();
        for group in &frame.bars {
            let group = group.for_frames(piece.count().cut());
            // A member longer than its bars has no plan.
            let Ok(result) = steelk_core::nest::nest(&group.problem, &mut |_| false) else { continue };
            for mark in result.plan.iter().flat_map(|bar| &bar.marks) {
                *cut.entry(mark.clone()).or_insert(0usize) += 1;
            }
        }
        compared += cut.len();
        for (mark, count) in &cut {
            assert_eq!(listed.get(mark), Some(count), "{mark} of {needed} + {spares}");
        }
    }
    assert!(compared > 30, "{compared}");
}
