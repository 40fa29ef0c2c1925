//! The list of outputs, names by the shop's pattern, and contours in both ways that they leave.

use std::collections::BTreeSet;

use proptest::prelude::*;
use steelk_core::drawing::{blank_drawing, profile_drawing};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::tidy::{Stroke, Tolerances, tidy};
use steelk_core::toolpath::profile;
use steelk_formats::dxf_file::{Contours, Style, write};
use steelk_formats::dxf_read::read;
use steelk_formats::output::{Make, NamePattern, Named, OUTPUTS, Of};
use steelk_formats::strokes::Layers;

use steelk_testing::trials;

#[test]
fn keys_are_each_rows_own_and_asked_for_by_one_row() {
    for (at, one) in OUTPUTS.iter().enumerate() {
        assert!(one.key.rsplit_once('.').is_some_and(|(stem, end)| !stem.is_empty() && end.len() <= 4), "{}", one.key);
        assert_eq!(matches!(one.make, Make::Mark(_)), one.key.contains("{mark}"), "{}", one.key);
        assert_eq!(matches!(one.make, Make::Mark(_)), matches!(one.of, Of::Member | Of::Wrap | Of::Plate));
        let alike = |two: &&steelk_formats::output::Output| {
            (one.of == Of::Job) == (two.of == Of::Job)
                && (one.made_from.is_none() || two.made_from.is_none() || one.made_from == two.made_from)
        };
        for two in OUTPUTS[at + 1..].iter().filter(alike) {
            // A mark that is itself called like a file, too.
            for mark in ["R1", "report", "A-wrap", "cut", "x-profile"] {
                let file = one.file(Some(mark));
                assert!(one.asked(&file).is_none() || two.asked(&file) != one.asked(&file), "{file}");
            }
        }
    }
}

#[test]
fn a_name_leaves_out_what_is_not_known_and_keeps_to_every_file_system() {
    let full = Named {
        mark: "A/B 1\u{fc}".into(),
        revision: Some("3".into()),
        material: Some("1.4301".into()),
        thickness: Some("1.5mm".into()),
        quantity: Some(12),
        file: "blank".into(),
        warning: None,
    };
    let names = NamePattern::default();
    assert_eq!(names.name(&full, "dxf"), "A-B-1-_r3_1.4301_1.5mm_x12_blank.dxf");
    let bare = Named { mark: "A".into(), file: "blank".into(), ..Named::default() };
    assert_eq!(names.name(&bare, "dxf"), "A_blank.dxf");
    let both = NamePattern::try_from("{mark}{file}[ {revision} of {quantity}]".to_string()).unwrap();
    assert_eq!(both.name(&Named { quantity: None, ..full.clone() }, "nc"), "A-B-1-blank.nc", "one of two is not known");
    // That a piece is not released stands in its name whatever the pattern.
    let warned = Named { warning: Some("NOT-RELEASED"), ..full.clone() };
    assert_eq!(both.name(&warned, "dxf"), "A-B-1-blank3 of 12_NOT-RELEASED.dxf".replace("blank3", "blank 3"));
    // A hidden file is none.
    let hidden = NamePattern::try_from(". {mark}{file}".to_string()).unwrap();
    assert!(!hidden.name(&full, "nc").starts_with(['.', ' ']));
}

proptest! {
    /// Any text is a pattern or refused; what is one gives a name that every file system takes.
    #[test]
    fn any_pattern_gives_a_plain_name_or_is_refused(text in "[a-z{}\\[\\]/ .:\\\\]{0,20}(\\{mark\\})?[a-z{}\\[\\]]{0,6}(\\{file\\})?", mark in "\\PC{0,80}") {
        if let Ok(pattern) = NamePattern::try_from(text) {
            let name = pattern.name(&Named { mark, file: "blank".into(), ..Named::default() }, "dxf");
            prop_assert!(name.len() < 300 && name.ends_with(".dxf") && !name.starts_with('.'));
            prop_assert!(name.chars().all(|c| c.is_ascii_alphanumeric() || " -_+=.@".contains(c)), "{}", name);
        }
    }
}

/// Strokes as they lie, whatever the order and the way that each runs.
fn lie(strokes: &[Stroke]) -> BTreeSet<String> {
    let figure = |value: f64| format!("{:.6}", if value.abs() < 5e-7 { 0.0 } else { value });
    let place = |at: steelk_core::plane::Point| format!("{} {}", figure(at.x), figure(at.y));
    strokes
        .iter()
        .map(|stroke| match stroke {
            Stroke::Segment(one) => {
                let mut ends = [place(one.start), place(one.end)];
                ends.sort();
                // The middle tells an arc from its other half.
                format!("{ends:?} {}", place(one.at(0.5)))
            }
            Stroke::Circle(centre, radius) => format!("circle {} {}", place(*centre), figure(*radius)),
            Stroke::Curve(points) => format!("curve of {}", points.len()),
        })
        .collect()
}

/// Both ways that contours leave say the same cuts, stroke by stroke, and every contour of the one is one closed polyline.
#[test]
fn polylines_and_separate_strokes_are_the_same_cuts() {
    let (mut seen, mut arcs) = (0, 0);
    for seed in 0..trials::cases(200) {
        let document = if seed % 2 == 0 { trials::plate(seed) } else { trials::sheet(seed) };
        let piece = Piece::read(document.to_string().as_bytes()).unwrap();
        let outcome = evaluate(&piece, Options::default());
        let Some(part) = outcome.part() else { continue };
        let style = |contours: Contours| Style { contours, ..Style::default() };
        for drawing in
            [blank_drawing(part, "X", steelk_core::quantity::LengthUnit::Mm), profile_drawing(&profile(part))]
        {
            let (joined, apart) = (
                write(&drawing, &style(Contours::Polylines)).unwrap(),
                write(&drawing, &style(Contours::LinesAndArcs)).unwrap(),
            );
            let all = Layers { chosen: ["BEND-UP", "BEND-DOWN", "MARK"].map(|one| (one.into(), true)).into() };
            let (one, two) = (read(&joined, &all).unwrap(), read(&apart, &all).unwrap());
            assert_eq!(one.strokes.len(), two.strokes.len(), "seed {seed}: {document}");
            // An arc past half a turn is read as two, parted in its middle, from either.
            let past_half = |stroke: &Stroke| matches!(stroke, Stroke::Segment(own) if own.bulge.abs() > 1.0);
            if !one.strokes.iter().any(past_half) {
                assert_eq!(lie(&one.strokes), lie(&two.strokes), "seed {seed}: {document}");
            }
            arcs += one.strokes.iter().filter(|one| matches!(one, Stroke::Segment(own) if own.bulge != 0.0)).count();
            let text = String::from_utf8_lossy(&joined).replace('\r', "");
            let count = |word: &str| text.matches(&format!("\n  0\n{word}\n")).count();
            let cut = read(&joined, &Layers::default()).unwrap();
            let tidied = tidy(&cut.strokes, Tolerances { gap: 1e-4, ..Tolerances::default() }).unwrap();
            // Contours that touch at a corner are read as the reader sees them; each still leaves as one.
            let contours = part.blank.region.holes.len() + 1;
            if tidied.region.holes.len() + 1 == contours && tidied.open.is_empty() && part.flat.bends.is_empty() {
                assert_eq!(count("LWPOLYLINE") + count("CIRCLE"), contours, "seed {seed}: {document}");
            }
            seen += 1;
        }
    }
    println!("{seen} drawings, {arcs} arcs");
    assert!(seen > 100 && arcs > 100);
}
