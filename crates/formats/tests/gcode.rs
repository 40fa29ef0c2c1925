//! The program's text: what stands in it, in which order, and that nothing of the piece can break out of a comment.

use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::{Cutter, example_cutters};
use steelk_core::toolpath::{plan, profile, settings};
use steelk_formats::gcode::{ProgramOf, write};
use steelk_formats::output::Stamp;

fn program(title: &str, more: &str) -> String {
    program_in(title, more, LengthUnit::Mm)
}

fn program_in(title: &str, more: &str, unit: LengthUnit) -> String {
    let text = format!(
        r#"{{"steelk":1,"kind":"plate","mark":"T-1","title":"","quantity":1,"unit":"in",
        "stock":{{"material":"S275","thickness":"3 mm"}},
        "operations":[{{"name":"base","do":{{"lay_down":{{"shape":{{"rectangle":{{"width":"4","depth":"3"}}}}}}}}}}{more}]}}"#
    );
    let piece = Piece::read(text.as_bytes()).expect("a document");
    let outcome = evaluate(&piece, Options::default());
    let resolved = &outcome.resolved;
    let cutting = piece.cutting.clone().unwrap_or_default();
    let settings =
        settings(&cutting, example_cutters(), resolved.material.unwrap(), resolved.thickness.unwrap(), &resolved.names)
            .expect("settings");
    let plan = plan(&profile(outcome.part().unwrap()), &settings, LengthUnit::In).expect("a plan");
    let of = ProgramOf {
        mark: piece.mark.clone(),
        title: title.into(),
        stamp: Stamp { revision: Some("7".into()), ..Stamp::default() },
        material: "S275".into(),
        thickness: 3.0,
        note: Some("NOT RELEASED: 1 rule broken".into()),
        count: piece.count(),
        unit,
    };
    write(&plan, &settings, &of)
}

#[test]
fn the_header_says_what_it_is_for_and_the_body_is_in_order() {
    let text = program(
        "plate",
        r#",{"name":"bore","do":{"drill":{"panel":"base","diameter":"1"}}},{"name":"pin","do":{"drill":{"panel":"base","diameter":"0.2","make":"mark","place":{"hole":{"hole":"bore","x":"1"}}}}}"#,
    );
    let place = |words: &str| text.find(words).unwrap_or_else(|| panic!("{words} in\n{text}"));
    for line in [
        "(NOT RELEASED: 1 RULE BROKEN)",
        "(PIECE T-1 PLATE)",
        "(UNITS MILLIMETRES)",
        "(REVISION 7)",
        "(MATERIAL S275)",
        "(THICKNESS 3 MM)",
        "(CUTTER LASER-EXAMPLE)",
        "(KERF 0.18 MM)",
        "(MACRO M3 IS BEAM ON)",
    ] {
        assert!(place(line) < place("G21 G17 G90 G94 G40"), "{line}");
    }
    // Inches in the piece, millimetres in the program: 4 in and a margin of 5 mm on both sides.
    place("(STOCK 111.6 X 86.2 MM, ZERO AT ITS LOWER LEFT CORNER)");
    let order = [place("(MARK PIN)"), place("(CUT BORE)"), place("(CUT OUTSIDE)"), place("M30")];
    assert!(order.windows(2).all(|pair| pair[0] < pair[1]), "marks, holes, the outside, the end");
    assert_eq!(text.matches("M3 (BEAM ON)").count(), 2);
    assert_eq!(text.matches("M5 (BEAM OFF)").count(), 2);
    assert_eq!(text.matches("M10 (MARK CENTRE)").count(), 1);
    assert!(text.lines().all(|line| line.len() <= 256 && line.is_ascii()));
}

#[test]
fn words_of_a_piece_cannot_break_out_of_their_comment() {
    let text = program("sly) G0 X999 (\n%\u{fc}; M3 ", "");
    assert!(text.contains("(PIECE T-1 SLY- G0 X999 ----- M3 )"), "{text}");
    assert_eq!(text.lines().filter(|line| line.starts_with('%')).count(), 2);
    assert!(!text.lines().any(|line| line.starts_with("G0 X999")));
}

#[test]
fn the_same_piece_gives_the_same_program() {
    assert_eq!(program("a", ""), program("a", ""));
}

/// In inches: the unit word of the standard, every size of the head in inches, the same places to a hundred-thousandth.
#[test]
fn a_program_in_inches_says_so_and_goes_the_same_way() {
    let more = r#",{"name":"bore","do":{"drill":{"panel":"base","diameter":"1"}}}"#;
    let (metric, inch) = (program(r"plate", more), program_in("plate", more, LengthUnit::In));
    for line in ["(UNITS INCHES)", "(THICKNESS 0.1181 IN)", "(KERF 0.0071 IN)", "G20 G17 G90 G94 G40"] {
        assert!(inch.contains(line), "{line} in\n{inch}");
    }
    assert!(!inch.contains(" MM") && !inch.contains("G21"));
    let words = |text: &str| -> Vec<(char, f64)> {
        let moves = text.lines().filter(|line| line.starts_with('G') && line.contains('X'));
        let parts = moves.flat_map(|line| line.split(' ').filter(|word| word.starts_with(['X', 'Y', 'I', 'J', 'F'])));
        parts.map(|word| (word.chars().next().unwrap(), word[1..].parse().unwrap())).collect()
    };
    let (one, two) = (words(&metric), words(&inch));
    assert!(one.len() == two.len() && one.len() > 20);
    for ((letter, mm), (own, inches)) in one.iter().zip(&two) {
        assert_eq!(letter, own);
        let near = if *letter == 'F' { 0.2 } else { 2e-4 };
        assert!((mm - 25.4 * inches).abs() < near, "{letter}{mm} and {inches}");
    }
}

/// What stands at the machine is read there: quality, that figures are nobody's, how many, and that the first is measured.
#[test]
fn the_header_says_quality_count_and_whose_figures_they_are() {
    let text = r#"{"steelk":1,"kind":"plate","mark":"T-1","title":"","quantity":4,"spares":1,"first_off":true,"unit":"mm",
        "stock":{"material":"S275","thickness":"3 mm"},"cutting":{"quality":"fine"},
        "operations":[{"name":"base","do":{"lay_down":{"shape":{"rectangle":{"width":"90","depth":"60"}}}}}]}"#;
    let piece = Piece::read(text.as_bytes()).unwrap();
    let outcome = evaluate(&piece, Options::default());
    let own = |cutters: &[Cutter]| {
        steelk_formats::program::program(&piece, &outcome, cutters, &Stamp::default(), LengthUnit::Mm).unwrap().text
    };
    let shipped = own(example_cutters());
    for line in [
        "(QTY 4 + 1 SPARE, FIRST-OFF)",
        "(FIRST-OFF: MAKE ONE AND MEASURE IT BEFORE YOU MAKE THE REST)",
        "(QUALITY FINE)",
        "(FIGURES OF THIS ROW ARE A MADE-UP EXAMPLE: MEASURE YOUR OWN BEFORE YOU CUT)",
        "(KERF 0.17 MM)",
    ] {
        assert!(shipped.contains(line), "{line} in\n{shipped}");
    }
    let mut cutters = example_cutters().to_vec();
    cutters.iter_mut().flat_map(|one| &mut one.rows).for_each(|row| row.made_up = false);
    assert!(!own(&cutters).contains("MADE-UP"));
}
