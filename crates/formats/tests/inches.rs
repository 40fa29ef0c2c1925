//! A piece in inches leaves in inches and pounds: every list, sheet, drawing, program and file header of each kind is read for a
//! metric word.

use regex::Regex;
use serde_json::Value;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::tidy::Stroke;
use steelk_formats::dxf_read::read;
use steelk_formats::output::{FileSettings, FileUnit};
use steelk_formats::strokes::Layers;
use steelk_testing::{demo_pieces, trials};

use crate::papers::{files, stamp, text_of};

/// Files whose format is metric by its standard.
fn is_metric(name: &str) -> bool {
    [".nc1", ".step", ".glb"].iter().any(|end| name.ends_with(end))
}

fn metric_words() -> Regex {
    Regex::new(r"(?i)(?:^|[^a-z0-9_.])(?:[0-9.]+ ?)?(?:mm|cm|mm2|mm3|cm3|kg|kg/m3?|mm/min|metres?|millimetres?|metric)(?:[^a-z0-9_]|$)|(?-i:[0-9] m2?(?:[^a-z0-9]|$))|[0-9]mm")
        .unwrap()
}

/// What is the author's or the stock's own name: marks, titles, notes, materials, sections.
fn without_names(text: &str, piece: &Piece) -> String {
    let mut text = text.replace(&piece.title, "");
    for name in [&piece.mark, &piece.stock.material] {
        text = text.replace(name.as_str(), "");
    }
    // How a program's own check words say it: the sections' names and threads have no unit words in them.
    text
}

fn in_inches(document: &Value) -> Piece {
    let mut document = document.clone();
    document["unit"] = "in".into();
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn settings() -> FileSettings {
    FileSettings { dxf: FileUnit::Inches, programs: FileUnit::Piece, ..FileSettings::default() }
}

#[test]
fn no_metric_word_is_in_any_paper_of_a_piece_in_inches() {
    let words = metric_words();
    for (text, found) in
        [("12.5 mm", true), ("8mm", true), ("3 kg,", true), ("2 m of weld", true), ("M8", false), ("S275 in", false)]
    {
        assert_eq!(words.is_match(text), found, "{text}");
    }
    let demo: Vec<Value> = demo_pieces().iter().map(|piece| serde_json::to_value(piece).unwrap()).collect();
    let count = trials::cases(25);
    let random = (0..count).flat_map(|seed| [trials::plate(seed), trials::sheet(seed), trials::frame(seed)]);
    let (mut seen, mut faults) = (0, Vec::new());
    for document in demo.into_iter().chain(random) {
        let piece = in_inches(&document);
        let outcome = evaluate(&piece, Options::default());
        let Ok(made) = files(&piece, &outcome, &settings(), &stamp()) else { continue };
        for (name, bytes) in &made.files {
            if is_metric(name) {
                continue;
            }
            let text = without_names(&text_of(name, bytes), &piece);
            let told = name.ends_with(".pdf").then(|| {
                // The words of a page, not the numbers that draw it.
                text.lines().filter(|line| line.ends_with("Tj")).collect::<Vec<_>>().join("\n")
            });
            let mut text = told.unwrap_or(text);
            if name.contains("report") {
                // Where a rule is written down says what stands there.
                text =
                    text.lines().filter(|line| !line.trim().starts_with("\"source\":")).collect::<Vec<_>>().join("\n");
            }
            if let Some(found) = words.find(&text) {
                let from = text[..found.start()].char_indices().rev().nth(60).map_or(0, |(at, _)| at);
                let until = text[found.end()..].char_indices().nth(30).map_or(text.len(), |(at, _)| found.end() + at);
                faults.push(format!("{} {name}: ...{}...", piece.mark, &text[from..until]));
            }
            seen += 1;
        }
    }
    faults.sort();
    faults.dedup();
    assert!(faults.is_empty(), "{} of {seen}:\n{}", faults.len(), faults[..faults.len().min(40)].join("\n"));
    assert!(seen > 200, "{seen} files");
}

/// The same piece told in inches is as large and as heavy: every figure of its lists is the metric one over 25.4 or 0.45359237.
#[test]
fn lists_in_inches_tell_the_same_steel() {
    let mut compared = 0;
    for piece in demo_pieces() {
        let (metric, inch) = (piece.clone(), in_inches(&serde_json::to_value(&piece).unwrap()));
        let bare = FileSettings::default();
        let lists = |piece: &Piece| {
            let outcome = evaluate(piece, Options::default());
            files(piece, &outcome, &bare, &stamp()).map(|made| {
                let lists = made.files.into_iter().filter(|(name, _)| name.ends_with(".csv"));
                lists.map(|(_, bytes)| steelk_formats::table_csv::read(&bytes).unwrap()).collect::<Vec<_>>()
            })
        };
        // A bare number of the document means another length in inches: only those whose steel is the same are held together.
        let (Ok(one), Ok(two)) = (lists(&metric), lists(&inch)) else { continue };
        if one.len() != two.len() {
            continue;
        }
        for ((heads, rows), (own_heads, own_rows)) in one.iter().zip(&two) {
            assert_eq!(heads.len(), own_heads.len());
            for (row, own) in rows.iter().zip(own_rows) {
                for (at, head) in heads.iter().enumerate() {
                    let unit = head.rsplit(' ').next().unwrap();
                    let (times, word, step) = match unit {
                        // A weld's legs are of the standard's own column for inches.
                        _ if ["leg", "throat", "deposit"].iter().any(|one| head.starts_with(one)) => continue,
                        "mm" => (25.4, "in", 1e-4),
                        "kg" => (0.453_592_37, "lb", 1e-4),
                        "mm2" => (25.4 * 25.4, "in2", 1e-4),
                        "m2" => (0.304_8 * 0.304_8, "ft2", 1e-4),
                        _ => continue,
                    };
                    assert!(own_heads[at].ends_with(word), "{head} and {}", own_heads[at]);
                    let (Ok(a), Ok(b)) = (row[at].parse::<f64>(), own[at].parse::<f64>()) else { continue };
                    // Half a step of the rounding on either side.
                    let slack = times * step + 0.06;
                    assert!((a - b * times).abs() < slack, "{} {head}: {a} and {b} {word}", piece.mark);
                    compared += 1;
                }
            }
        }
    }
    assert!(compared > 500, "{compared}");
}

/// A DXF in inches reads back as the one in millimetres, by our reader and by a stranger's.
#[test]
fn drawings_in_inches_read_back_at_the_same_size() {
    let folder = std::env::temp_dir().join(format!("steelk-inches-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let (mut pairs, mut paths) = (0, Vec::new());
    for seed in 0..trials::cases(60) {
        for document in [trials::plate(seed), trials::sheet(seed)] {
            let piece = Piece::read(document.to_string().as_bytes()).unwrap();
            let outcome = evaluate(&piece, Options::default());
            let drawing = |dxf: FileUnit| {
                let own = FileSettings { dxf, ..FileSettings::default() };
                let made = files(&piece, &outcome, &own, &stamp()).ok()?;
                made.files.into_iter().find(|(name, _)| name.ends_with("profile.dxf")).map(|(_, bytes)| bytes)
            };
            let (Some(metric), Some(inch)) = (drawing(FileUnit::Millimetres), drawing(FileUnit::Inches)) else {
                continue;
            };
            let (one, two) = (read(&metric, &Layers::default()).unwrap(), read(&inch, &Layers::default()).unwrap());
            assert_eq!((one.notes[0].as_str(), two.notes[0].as_str()), ("read in millimetres", "read in inches"));
            assert_eq!(one.strokes.len(), two.strokes.len(), "seed {seed}");
            let numbers = |stroke: &Stroke| match stroke {
                Stroke::Segment(own) => vec![own.start.x, own.start.y, own.end.x, own.end.y, own.bulge],
                Stroke::Circle(at, radius) => vec![at.x, at.y, *radius],
                Stroke::Curve(points) => points.iter().flat_map(|at| [at.x, at.y]).collect(),
            };
            for (a, b) in one.strokes.iter().zip(&two.strokes) {
                for (found, wanted) in numbers(b).into_iter().zip(numbers(a)) {
                    assert!((found - wanted).abs() < 1e-6, "seed {seed}: {b:?} and {a:?}");
                }
            }
            for (name, bytes) in [("mm", &metric), ("in", &inch)] {
                let path = folder.join(format!("{pairs}-{name}.dxf"));
                std::fs::write(&path, bytes).unwrap();
                paths.push(path);
            }
            pairs += 1;
        }
    }
    for pair in steelk_testing::python::judged("read_dxf.py", &paths).chunks(2) {
        assert_eq!((pair[0]["units"].as_i64(), pair[1]["units"].as_i64()), (Some(4), Some(1)), "$INSUNITS");
        let area = |one: &Value| one["net_area"].as_f64().unwrap();
        let (a, b) = (area(&pair[0]), area(&pair[1]) * 25.4 * 25.4);
        assert!((a - b).abs() < 1e-6 * a.abs(), "{a} mm2, and {b} mm2 from inches");
    }
    std::fs::remove_dir_all(&folder).unwrap();
    assert!(pairs > 20, "{pairs}");
}
