//! Every paper and file of a piece says what it is of: mark, revision, date, who, and that it is not released where it is not.

use std::io::Read as _;

use serde_json::json;
use steelk_core::nest::nest;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::proof::Verdict;
use steelk_core::stock::example_cutters;
use steelk_formats::output::{FileSettings, Means, Order, Package, Stamp, package};
use steelk_testing::python::judged;
use steelk_testing::{demo, demo_pieces};

pub fn stamp() -> Stamp {
    let known = |text: &str| Some(text.to_string());
    Stamp { revision: known("R7"), by: known("the checker"), date: known("2026-11-29") }
}

/// Every file of a piece, or why there are none.
pub fn files(piece: &Piece, outcome: &Outcome, settings: &FileSettings, stamp: &Stamp) -> Result<Package, String> {
    let means = Means {
        cutters: example_cutters(),
        nest: &|problem| nest(problem, &mut |_| false),
        run: &|_| Ok(()),
        audited: &|piece| evaluate(piece, Options::default()),
    };
    let order = Order::new(piece, outcome, stamp, settings, &means).map_err(|withheld| withheld.detail)?;
    package(&order).map_err(|fault| fault.to_string())
}

/// What a reader finds in a file: its text, or that of every part of a workbook.
pub fn text_of(name: &str, bytes: &[u8]) -> String {
    if !name.ends_with(".xlsx") {
        return String::from_utf8_lossy(bytes).into_owned();
    }
    let mut book = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    let mut all = String::new();
    for at in 0..book.len() {
        book.by_index(at).unwrap().read_to_string(&mut all).unwrap();
    }
    all
}

/// The pieces of the demo, and one of them with a hole that is too near its edge.
fn pieces() -> Vec<(Piece, bool)> {
    let mut all: Vec<(Piece, bool)> = demo_pieces().into_iter().map(|piece| (piece, false)).collect();
    let mut near = demo("04-axle-plate");
    near.operations.push(
        serde_json::from_value(json!({"name": "near", "do": {"drill": {"panel": "base", "diameter": "10 mm",
            "place": {"from": [{"edge": "base.front", "distance": "7 mm"}]}}}}))
        .unwrap(),
    );
    all.push((near, true));
    // And one that is made otherwise than its drawing says.
    let mut otherwise = demo("01-winch-bracket");
    let width = otherwise.callouts.iter_mut().find(|one| one.name == "B").unwrap();
    width.value = "125 mm".into();
    let text = serde_json::to_string(&otherwise).unwrap().replace("\"width\":\"B\"", "\"width\":\"120 mm\"");
    all.push((Piece::read(text.as_bytes()).unwrap(), false));
    // What keeps a frame from its release keeps its plates: a number of the frame is off, its plates are sound.
    let mut frame = demo("11-trolley-frame");
    let mut other = frame.callouts[0].clone();
    (other.name, other.value) = ("Z".into(), "1 mm".into());
    frame.callouts.push(other);
    all.push((frame, false));
    // A title as long as one may be runs nothing else off its paper.
    let mut long = demo("11-trolley-frame");
    long.title = "long ".repeat(40).trim().to_string();
    all.push((long, false));
    all
}

#[test]
fn every_file_says_its_mark_revision_date_person_and_whether_it_is_released() {
    let (mut seen, mut stamped, mut seen_off) = (0, 0, 0);
    for (piece, broken) in pieces() {
        let outcome = evaluate(&piece, Options::default());
        let Ok(made) = files(&piece, &outcome, &FileSettings::default(), &stamp()) else { continue };
        let rules = outcome.broken().count();
        let off = outcome.callouts.iter().filter(|one| one.verdict == Verdict::Off).count();
        assert!(!broken || rules > 0, "{}: {:?}", piece.mark, outcome.breaches);
        for (name, bytes) in &made.files {
            let text = text_of(name, bytes).to_lowercase();
            // A list without rows has nothing to tell of.
            if name.ends_with(".csv") && text.trim_end().lines().count() < 2 {
                continue;
            }
            for word in [&piece.mark, "r7", "the checker", "2026-11-29"] {
                assert!(text.contains(&word.to_lowercase()), "{word} is not in {name}");
            }
            // A rule that is broken keeps a piece from its release, and so does a number of the drawing that is off.
            let words = match (rules, off) {
                (0, 0) => "not released".to_string(),
                (1, 0) => "not released: 1 rule broken".to_string(),
                (0, 1) => "not released: 1 call-out off".to_string(),
                (count, 0) => format!("not released: {count} rules broken"),
                (count, 1) => format!("not released: {count} rules broken, 1 call-out off"),
                other => panic!("{other:?} is not said yet"),
            };
            assert_eq!(text.contains(&words), rules + off > 0, "{words} in {name}");
            assert_eq!(name.contains("NOT-RELEASED"), rules + off > 0, "{name}");
            stamped += usize::from(rules + off > 0);
            seen_off += usize::from(off > 0);
            seen += 1;
        }
    }
    assert!(seen_off > 8, "{seen_off} files of pieces with a call-out that is off");
    assert!(seen > 150 && stamped > 8, "{seen} files, {stamped} of them of pieces that are not released");
}

/// What is not known is left out, and no file is made otherwise by it: from the command line a piece has no revision.
#[test]
fn what_is_not_known_is_not_said() {
    let piece = demo("01-winch-bracket");
    let outcome = evaluate(&piece, Options::default());
    for (name, bytes) in files(&piece, &outcome, &FileSettings::default(), &Stamp::default()).unwrap().files {
        let text = text_of(&name, &bytes).to_lowercase();
        for word in ["revision ,", "by ,", "none,", "revision none"] {
            assert!(!text.contains(word) || name.ends_with(".json") || name.ends_with(".glb"), "{word} in {name}");
        }
    }
}

/// A stranger's reader sees the remarks as comments and nothing more on any layer; every page of a PDF says its words within the
/// paper.
#[test]
fn strangers_read_the_same_drawing_and_every_page_says_what_it_is_of() {
    let all = pieces();
    let (piece, _) = all.iter().find(|(_, broken)| *broken).unwrap().clone();
    let outcome = evaluate(&piece, Options::default());
    let folder = std::env::temp_dir().join(format!("steelk-papers-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let mut drawings = Vec::new();
    for (name, stamp) in [("told", stamp()), ("bare", Stamp::default())] {
        let made = files(&piece, &outcome, &FileSettings::default(), &stamp).unwrap();
        for (own, bytes) in made.files {
            if own.contains("profile") && own.ends_with(".dxf") {
                let text = String::from_utf8_lossy(&bytes).into_owned();
                assert!(text.starts_with("999\r\nNOT RELEASED"), "the first line is what matters");
                let path = folder.join(format!("{name}.dxf"));
                std::fs::write(&path, &bytes).unwrap();
                drawings.push(path);
            }
            if name == "told" && own.ends_with(".pdf") {
                let path = folder.join("paper.pdf");
                std::fs::write(&path, &bytes).unwrap();
                for page in judged("read_pdf.py", [&path]) {
                    let words = page["all"].as_str().unwrap();
                    for word in ["NOT RELEASED", &piece.mark, "R7", "the checker", "2026-11-29"] {
                        assert!(words.contains(word), "{word} is not on a page of {own}: {words}");
                    }
                    let (low, high) = (page["lowest"].as_f64().unwrap(), page["highest"].as_f64().unwrap());
                    let (left, right) = (page["left"].as_f64().unwrap(), page["right"].as_f64().unwrap());
                    let (width, height) = (page["width"].as_f64().unwrap(), page["height"].as_f64().unwrap());
                    assert!(low > 3.0 && high < height - 3.0, "{own}: words from {low} to {high} of {height} mm");
                    assert!(left > 3.0 && right < width - 3.0, "{own}: words from {left} to {right} of {width} mm");
                }
            }
        }
    }
    let read = judged("read_dxf.py", &drawings);
    assert_eq!(read.len(), 2);
    assert_eq!(read[0], read[1], "remarks change nothing that is drawn");
    std::fs::remove_dir_all(&folder).unwrap();
}

/// Every page of every paper of a frame with the longest title and with spares keeps its revision, person and day on the paper,
/// and its cut list the last column.
#[test]
fn a_long_title_runs_nothing_else_off_its_paper() {
    let (mut piece, _) = pieces().pop().unwrap();
    (piece.spares, piece.first_off) = (2, true);
    let outcome = evaluate(&piece, Options::default());
    let folder = std::env::temp_dir().join(format!("steelk-long-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let made = files(&piece, &outcome, &FileSettings::default(), &stamp()).unwrap();
    let mut paths = Vec::new();
    for (at, (_, bytes)) in made.files.iter().filter(|(name, _)| name.ends_with(".pdf")).enumerate() {
        let path = folder.join(format!("{at}.pdf"));
        std::fs::write(&path, bytes).unwrap();
        paths.push(path);
    }
    let pages = judged("read_pdf.py", &paths);
    assert!(paths.len() > 1 && pages.len() > 8, "{} papers, {} pages", paths.len(), pages.len());
    let mut lists = 0;
    for page in pages {
        let (words, width) = (page["inside"].as_str().unwrap(), page["width"].as_f64().unwrap());
        for word in ["R7", "the checker", "2026-11-29"] {
            assert!(words.contains(word), "{word} is not on a page of {width} mm: {words}");
        }
        if words.contains("short point mm") {
            lists += 1;
            assert!(words.contains("spares") && words.contains("mass total kg"), "{words}");
        }
    }
    assert!(lists > 0, "no page of the cut list");
    std::fs::remove_dir_all(&folder).unwrap();
}
