//! DXF files in: our own come back, ezdxf's come in with their areas, broken ones are refused in words and in bounded
//! time.

use proptest::prelude::*;
use steelk_core::drawing::blank_drawing;
use steelk_core::piece::{Options, evaluate};
use steelk_core::plane::Region;
use steelk_core::plane::tidy::{Tidied, Tolerances, tidy};
use steelk_formats::dxf_file::Style;
use steelk_formats::dxf_read::{ReadError, read};
use steelk_formats::strokes::Layers;
use steelk_testing::python::judged;
use steelk_testing::root;

fn tidied(bytes: &[u8]) -> Tidied {
    tidy(&read(bytes, &Layers::default()).expect("a DXF file").strokes, Tolerances::default()).expect("a profile")
}

fn demo(name: &str) -> (Region, Vec<u8>) {
    let piece = steelk_testing::demo(name);
    let part = evaluate(&piece, Options::default()).into_part().unwrap();
    // The blind tapped holes are marked on a layer of their own: crosses that close nothing.
    (
        part.blank.region.clone(),
        steelk_formats::dxf_file::write(
            &blank_drawing(&part, &piece.mark, steelk_core::quantity::LengthUnit::Mm),
            &Style::default(),
        )
        .unwrap(),
    )
}

#[test]
fn what_is_written_comes_back() {
    for name in ["04-axle-plate", "05-ear-flange", "06-gusset", "07-padeye", "08-tray-floor"] {
        let (region, bytes) = demo(name);
        let back = tidied(&bytes).region;
        assert_eq!(back.holes.len(), region.holes.len(), "{name}");
        assert!((back.area() / region.area() - 1.0).abs() < 1e-9, "{name}: {} against {}", back.area(), region.area());
        assert!((back.outer.perimeter() / region.outer.perimeter() - 1.0).abs() < 1e-9, "{name}");
        let centre = (back.centroid() - region.centroid()).length();
        assert!(centre < 1e-6, "{name}: moved by {centre}");
    }
}

/// ezdxf writes, closed forms and shapely measure: see scripts/write_dxf.py.
#[test]
fn files_of_another_writer_have_their_areas() {
    let folder = std::env::temp_dir().join(format!("steelk-dxf-in-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let lines = judged("write_dxf.py", [&folder]);
    assert_eq!(lines.len(), 11);
    for line in &lines {
        let file = line["file"].as_str().unwrap();
        let bytes = std::fs::read(file).unwrap();
        let region = tidied(&bytes).region;
        assert_eq!(region.holes.len() as u64, line["holes"].as_u64().unwrap(), "{file}");
        // Lines and arcs are exact; curves lie within 0.01 mm of theirs, so the area within that times the length round.
        let area = line["area"].as_f64().unwrap();
        let within = 1e-9 * area
            + if file.contains("ellipses") || file.contains("spline") || file.contains("inserts") {
                0.011 * region.perimeter()
            } else {
                0.0
            };
        assert!((region.area() - area).abs() <= within, "{file}: {} against {area}", region.area());
        if let Some(outer) = line["outer"].as_f64() {
            let found = region.outer.perimeter();
            assert!((found / outer - 1.0).abs() < 1e-4, "{file}: {found} against {outer} round");
        }
    }
    std::fs::remove_dir_all(&folder).unwrap();
}

#[test]
fn what_cannot_be_cut_is_refused_in_words() {
    let refused = |bytes: &[u8]| match read(bytes, &Layers::default()) {
        Err(fault) => fault.to_string(),
        Ok(strokes) => tidy(&strokes.strokes, Tolerances::default()).expect_err("no profile").to_string(),
    };
    assert!(refused(b"").contains("nothing drawn"));
    assert!(refused(b"Dear shop, please cut the attached.\n").contains("cannot be read as DXF"));
    assert!(matches!(read(&vec![b'1'; 10_000], &Layers::default()), Err(ReadError::Line(1))));
    assert!(matches!(read(&vec![b'\n'; 20 * 1024 * 1024 + 1], &Layers::default()), Err(ReadError::Large(_))));
    let line =
        |x: &str| format!("0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n{x}\n21\n5\n0\nENDSEC\n0\nEOF\n");
    assert!(refused(line("30").as_bytes()).contains("no contour closes"));
    assert!(refused(line("3e9").as_bytes()).contains("no place within 100000 mm"));
    assert!(refused(line("1e999").as_bytes()).contains("no place within"));
}

#[test]
fn a_block_that_inserts_itself_ends() {
    let file = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nA\n70\n0\n10\n0\n20\n0\n0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n5\n0\nINSERT\n8\n0\n2\nA\n10\n20\n20\n0\n0\nENDBLK\n8\n0\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\n0\n2\nA\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n";
    let found = read(file.as_bytes(), &Layers::default()).expect("a DXF file");
    assert!(found.strokes.len() <= 16 && found.notes.iter().any(|note| note.contains("nested too deep")), "{found:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    #[test]
    fn random_bytes_never_panic(bytes in prop::collection::vec(any::<u8>(), 0..2000)) {
        if let Ok(found) = read(&bytes, &Layers::default()) {
            let _ = tidy(&found.strokes, Tolerances::default());
        }
    }

    /// A real file with lines lost, doubled, swapped or overwritten.
    #[test]
    fn broken_files_never_panic(changes in prop::collection::vec((any::<prop::sample::Index>(), 0u8..4, any::<u32>()), 1..40)) {
        let (_, bytes) = demo("04-axle-plate");
        let text = String::from_utf8_lossy(&bytes).into_owned();
        let mut lines: Vec<String> = text.lines().map(str::to_string).collect();
        for (index, kind, value) in changes {
            let at = index.index(lines.len());
            match kind {
                0 => { lines.remove(at); }
                1 => { let line = lines[at].clone(); lines.insert(at, line); }
                2 => { let other = value as usize % lines.len(); lines.swap(at, other); }
                _ => lines[at] = value.to_string(),
            }
        }
        if let Ok(found) = read(lines.join("\n").as_bytes(), &Layers::default())
            && let Ok(tidied) = tidy(&found.strokes, Tolerances::default())
        {
            prop_assert!(tidied.region.outer.area().is_finite());
        }
    }
}

/// 400 bytes that would be laid out for years: inserts of inserts, of nothing and of texts. What reading costs is counted.
#[test]
fn blocks_that_repeat_each_other_without_end_are_refused() {
    for name in ["bomb-deep", "bomb-empty", "bomb-text"] {
        let bytes = std::fs::read(root().join(format!("crates/formats/tests/hostile/{name}.dxf"))).unwrap();
        let refused = read(&bytes, &Layers::default()).unwrap_err();
        assert_eq!(refused, ReadError::Work, "{name}");
        assert!(refused.to_string().contains("1000000 entities"), "{refused}");
    }
}
