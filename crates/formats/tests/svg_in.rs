//! SVG files in: our own come back exactly, shapes under transforms have their closed forms, broken ones are refused.

use std::f64::consts::PI;
use std::path::Path;

use proptest::prelude::*;
use steelk_core::drawing::profile_drawing;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::Region;
use steelk_core::plane::tidy::{TidyError, Tolerances, tidy};
use steelk_core::toolpath::profile;
use steelk_formats::strokes::Layers;
use steelk_formats::svg_read::{ReadError, read};

fn region(svg: &str) -> Region {
    let found = read(svg.as_bytes(), &Layers::default()).expect("an SVG file");
    tidy(&found.strokes, Tolerances::default()).expect("a profile").region
}

fn file(size: &str, body: &str) -> String {
    format!(r#"<svg xmlns="http://www.w3.org/2000/svg" {size}>{body}</svg>"#)
}

/// 100 by 100 user units on 100 mm.
const MM: &str = r#"width="100mm" height="100mm" viewBox="0 0 100 100""#;

#[test]
fn what_is_written_comes_back() {
    for name in ["04-axle-plate", "05-ear-flange", "06-gusset", "07-padeye", "08-tray-floor", "02-tool-tray"] {
        let path = Path::new(env!("CARGO_MANIFEST_DIR")).join(format!("../../demo/{name}.json"));
        let piece = Piece::read(&std::fs::read(path).unwrap()).unwrap();
        let part = evaluate(&piece, Options::default()).into_part().unwrap();
        let text = steelk_formats::svg::write(
            &profile_drawing(&profile(&part)),
            &piece.mark,
            &[],
            steelk_core::quantity::LengthUnit::Mm,
        );
        let back = region(&text);
        let truth = &part.blank.region;
        assert_eq!(back.holes.len(), truth.holes.len(), "{name}");
        assert!((back.area() / truth.area() - 1.0).abs() < 1e-7, "{name}: {} against {}", back.area(), truth.area());
        // Arcs came back as arcs: a curve fitted anew would have more edges.
        assert!(back.outer.edges.len() <= truth.outer.edges.len(), "{name}");
    }
}

#[test]
fn shapes_have_their_closed_forms() {
    let cases = [
        (file(MM, r#"<rect x="5" y="5" width="60" height="40"/>"#), 2400.0),
        (file(MM, r#"<rect x="5" y="5" width="60" height="40" rx="8"/>"#), 2400.0 - (4.0 - PI) * 64.0),
        (file(MM, r#"<circle cx="50" cy="50" r="20"/>"#), PI * 400.0),
        (file(MM, r#"<polygon points="0,0 80,0 0,60"/>"#), 2400.0),
        (file(MM, r#"<path d="M10 10h30v20h-30z"/>"#), 600.0),
        // A half disc by an arc, and the same by relative commands.
        (file(MM, r#"<path d="M10 50A30 30 0 0 1 70 50Z"/>"#), PI * 450.0),
        (file(MM, r#"<path d="m10 50a30 30 0 1 1 60 0z"/>"#), PI * 450.0),
        // Transforms: scaled, turned, mirrored, one within another.
        (file(MM, r#"<g transform="translate(20 30) rotate(30) scale(2)"><rect width="10" height="5"/></g>"#), 200.0),
        (file(MM, r#"<g transform="scale(-1 1)"><path d="M-70 50A30 30 0 0 1 -10 50Z"/></g>"#), PI * 450.0),
        (file(MM, r#"<g transform="skewX(30)"><rect width="40" height="20"/></g>"#), 800.0),
        // Sizes: inches, no viewBox (pixels of 1/96 in), centimetres.
        (file(r#"width="2in" height="2in" viewBox="0 0 4 4""#, r#"<rect width="2" height="2"/>"#), 25.4 * 25.4),
        (file(r#"width="96" height="96""#, r#"<rect width="96" height="48"/>"#), 25.4 * 12.7),
        (file(r#"width="10cm" height="10cm" viewBox="0 0 10 10""#, r#"<rect width="3" height="2"/>"#), 600.0),
    ];
    for (svg, area) in cases {
        let found = region(&svg).area();
        assert!((found / area - 1.0).abs() < 1e-9, "{svg}: {found} against {area}");
    }
}

#[test]
fn curves_are_fitted_by_arcs_within_their_tolerance() {
    // An ellipse of 30 by 15, and a circle of 20 drawn by four cubics as drawing programs do.
    let ellipse = region(&file(MM, r#"<ellipse cx="50" cy="50" rx="30" ry="15"/>"#));
    assert!((ellipse.area() - PI * 450.0).abs() < 0.01 * ellipse.outer.perimeter());
    let k = 20.0 * 0.552_284_75;
    let circle = file(
        MM,
        &format!(
            r#"<path d="M70 50C70 {a} {a} 70 50 70S30 {a} 30 50 {b} 30 50 30 70 {b} 70 50Z"/>"#,
            a = 50.0 + k,
            b = 50.0 - k
        ),
    );
    let found = region(&circle);
    assert!((found.area() - PI * 400.0).abs() < 0.02 * found.outer.perimeter(), "{}", found.area());
    assert!(found.outer.edges.len() < 24, "{} arcs", found.outer.edges.len());
    let wave = region(&file(MM, r#"<path d="M0 0Q25 40 50 0T100 0V60H0Z"/>"#));
    // The two arches cancel: what is left is the rectangle, within the tolerance along them.
    assert!((wave.area() - 6000.0).abs() < 0.05 * wave.outer.perimeter(), "{}", wave.area());
}

#[test]
fn layers_are_told_and_chosen() {
    let svg = file(
        MM,
        r#"<g id="CUT"><rect width="50" height="50"/></g><g id="BEND-UP"><path d="M0 25H50"/></g><text>A</text><image/>"#,
    );
    let found = read(svg.as_bytes(), &Layers::default()).unwrap();
    let told: Vec<(&str, bool)> = found.layers.iter().map(|one| (one.name.as_str(), one.taken)).collect();
    assert_eq!(told, [("CUT", true), ("BEND-UP", false)]);
    assert!(found.notes.iter().any(|note| note == "1 stroke of layer BEND-UP left out"), "{:?}", found.notes);
    assert!(found.notes.iter().any(|note| note == "texts: 1 left out"), "{:?}", found.notes);
    let mut layers = Layers::default();
    layers.chosen.insert("CUT".into(), false);
    assert!(matches!(
        tidy(&read(svg.as_bytes(), &layers).unwrap().strokes, Tolerances::default()),
        Err(TidyError::Empty)
    ));
}

#[test]
fn what_is_no_drawing_is_refused() {
    let refused = |text: &str| read(text.as_bytes(), &Layers::default()).expect_err("refused");
    assert!(matches!(refused("<html/>"), ReadError::Root(_)));
    assert!(matches!(refused("hello"), ReadError::Xml(_)));
    assert!(matches!(refused("<svg"), ReadError::Xml(_)));
    // Entities that would grow without end are not read.
    assert!(matches!(refused("<!DOCTYPE svg [<!ENTITY a \"b\">]><svg>&a;</svg>"), ReadError::Xml(_)));
    assert!(matches!(read(&[0xff, 0xfe, 0], &Layers::default()), Err(ReadError::Binary)));
    assert!(matches!(read(&vec![b' '; 20 * 1024 * 1024 + 1], &Layers::default()), Err(ReadError::Large(_))));
    let many = format!("<svg>{}</svg>", "<path d=\"M0 0H1\"/>".repeat(200_001));
    assert!(matches!(refused(&many), ReadError::Many));
    let deep = format!("<svg>{}{}</svg>", "<g>".repeat(2000), "</g>".repeat(2000));
    assert!(read(deep.as_bytes(), &Layers::default()).is_ok_and(|found| found.strokes.is_empty()));
    let far = read(b"<svg><path d=\"M0 0H1e300V1e300Z\"/></svg>", &Layers::default()).expect("read");
    assert!(matches!(tidy(&far.strokes, Tolerances::default()), Err(TidyError::Place(..))));
}

proptest! {
    /// Random bytes, and random changes to a good file, never panic and never take long.
    #[test]
    fn any_bytes_are_taken_or_refused(bytes in prop::collection::vec(any::<u8>(), 0..400)) {
        if let Ok(found) = read(&bytes, &Layers::default()) {
            let _ = tidy(&found.strokes, Tolerances::default());
        }
    }

    #[test]
    fn any_path_is_taken_or_refused(data in "[MmLlHhVvCcSsQqTtAaZz0-9 .,eE+-]{0,120}", turn in "[a-z(),0-9 .-]{0,40}") {
        let svg = format!(r#"<svg><path transform="{turn}" d="{data}"/></svg>"#);
        if let Ok(found) = read(svg.as_bytes(), &Layers::default()) {
            let _ = tidy(&found.strokes, Tolerances::default());
        }
    }
}

/// Layers are told by the whole of their names, however long: each stroke finds its own again.
#[test]
fn strokes_of_a_long_name_are_one_layer() {
    let name = "n".repeat(100);
    let lines =
        (0..50).map(|at| format!("<g id=\"{name}{}\"><line x1=\"0\" y1=\"{at}\" x2=\"9\" y2=\"{at}\"/></g>", at % 2));
    let text = format!("<svg xmlns=\"http://www.w3.org/2000/svg\">{}</svg>", lines.collect::<String>());
    let found = steelk_formats::svg_read::read(text.as_bytes(), &steelk_formats::strokes::Layers::default()).unwrap();
    assert_eq!(found.layers.iter().map(|one| one.strokes).collect::<Vec<_>>(), [25, 25]);
    assert!(found.layers.iter().all(|one| one.name.len() == 60));
}
