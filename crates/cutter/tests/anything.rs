//! Any text is run or refused in words; programs of generated plates leave the plates that were wanted.

use crate::common::{make, plate};
use proptest::prelude::*;
use steelk_cutter::{ParseError, RunError, parse, run};

fn refused(text: &str) -> String {
    let made = make(&plate("3 mm", r#"{"rectangle":{"width":"50 mm","depth":"40 mm"}}"#, "", "{}"));
    run(text.as_bytes(), &made.machine).expect_err("refused").to_string()
}

#[test]
fn what_a_machine_must_not_do_stops_it_at_its_line() {
    for (text, words) in [
        ("G21\nG1 X5\n", "line 2: the head is moved before F gives a feed"),
        ("G0 X5\n", "line 1: the head is moved before G20 or G21"),
        ("G21\nX5\n", "line 2: the head is moved before G0"),
        ("G21\nM3\nG0 X5\n", "line 3: a rapid move with the tool on"),
        ("G21\nM3\nM3\n", "line 3: the tool is turned on while it is on"),
        ("G21\nM3\nM30\n", "line 3: the program ends with the tool on"),
        ("G21\nM3\nM10\n", "line 3: a centre is marked while the tool is on"),
        ("G21\nM7\n", "line 2: M7 is no macro of laser-example"),
        ("G33\n", "line 1: G33 is not known"),
        ("G21\nG1 X1e9 F100\n", "line 2: E9 is not known"),
        ("G21\nG1 X1.2.3 F100\n", "line 2: \"X1.2.3 F100\" is no word"),
        ("G21\nG1 X999999 F100\n", "beyond any machine"),
        ("G21 F100\nG2 X5 Y5\n", "an arc without a centre"),
        ("G21 F100\nG2 X5 Y0 I1 J0\n", "the ends of an arc lie"),
        ("G21\nG4 P-1\n", "a wait of -1 s"),
        ("G21\nG1 X1 F0\n", "a feed of 0 moves nothing"),
        ("G21 Q3\n", "Q3 is not known"),
        ("G21\n(open\n", "line 2: a comment is opened and not closed"),
        ("G\n", "line 1: \"G\" is no word"),
        ("(only words)\n", "no block"),
    ] {
        let said = refused(text);
        assert!(said.contains(words), "{text:?}: {said}");
    }
}

#[test]
fn what_is_no_program_is_refused_before_it_is_read() {
    assert!(matches!(parse(&vec![b'G'; 300]), Err(ParseError::Long(1))));
    assert!(matches!(parse(b"G21\n\x00\x01"), Err(ParseError::Binary(2))));
    assert!(matches!(parse("G1X1".repeat(20).as_bytes()), Err(ParseError::Crowded(1))));
    assert!(matches!(parse(&vec![b'\n'; 64 * 1024 * 1024 + 1]), Err(ParseError::Large(_))));
    let many = format!("G21 G0\n{}", "X1\nX2\n".repeat(1_000_001));
    let made = make(&plate("3 mm", r#"{"rectangle":{"width":"50 mm","depth":"40 mm"}}"#, "", "{}"));
    assert!(matches!(run(many.as_bytes(), &made.machine), Err(RunError::Many)));
}

#[test]
fn words_are_read_as_controls_read_them() {
    let blocks = parse(b"N10 g01x+1.5Y-.25 (a note) ; the rest\n/G0 X 3\n%\n").expect("a program");
    let words: Vec<(char, f64)> = blocks[0].words.iter().map(|word| (word.letter, word.value)).collect();
    assert_eq!(words, [('N', 10.0), ('G', 1.0), ('X', 1.5), ('Y', -0.25)]);
    assert_eq!(blocks[0].comments, ["a note", "the rest"]);
    assert_eq!(blocks[1].value('X'), Some(3.0));
    assert_eq!(blocks.len(), 2);
}

#[test]
fn relative_moves_whole_turns_and_inches_are_run() {
    let made = make(&plate("3 mm", r#"{"rectangle":{"width":"50 mm","depth":"40 mm"}}"#, "", "{}"));
    let run = run(b"G20 G91\nG0 X1 Y1\nM3\nG3 I-0.5 F60\nM5\nM30\n", &made.machine).expect("it runs");
    assert!(run.inches && run.ended);
    let cut: f64 = run.cuts().map(|one| one.way.length()).sum();
    // A whole turn of radius half an inch.
    assert!((cut - std::f64::consts::PI * 25.4).abs() < 1e-9);
    assert!((run.moves[0].way.end.x - 25.4).abs() < 1e-12);
    assert_eq!(run.labels.len(), 1);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn any_bytes_are_run_or_refused(bytes in prop::collection::vec(any::<u8>(), 0..300)) {
        let made = make(&plate("3 mm", r#"{"rectangle":{"width":"50 mm","depth":"40 mm"}}"#, "", "{}"));
        if let Ok(found) = run(&bytes, &made.machine) {
            let _ = steelk_cutter::inspect(&found, &made.wanted);
        }
    }

    #[test]
    fn any_program_is_run_or_refused(lines in prop::collection::vec("(G[0-4]|G2[01]|G9[01]|M[3-5]|M10|M30)? ?(X-?[0-9]{1,3}(\\.[0-9])?)?(Y-?[0-9]{1,3})?( I-?[0-9]{1,2})?( J-?[0-9])?( F[0-9]{1,4})?", 0..20)) {
        let made = make(&plate("3 mm", r#"{"rectangle":{"width":"50 mm","depth":"40 mm"}}"#, "", "{}"));
        let text = format!("G21 F1000\n{}", lines.join("\n"));
        if let Ok(found) = run(text.as_bytes(), &made.machine) {
            let inspection = steelk_cutter::inspect(&found, &made.wanted);
            // Nothing that random lines cut is the part.
            prop_assert!(!inspection.holds);
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, failure_persistence: None, ..ProptestConfig::default() })]

    /// Plates with round holes, slots and corners, cut on any cutter with any leads: the part comes out.
    #[test]
    fn programs_of_generated_plates_hold(
        (width, depth) in (90.0f64..400.0, 70.0f64..300.0),
        (hole, slot, corner) in (20.0f64..34.0, 9.0f64..14.0, 0.0f64..18.0),
        cutter in prop::sample::select(vec!["laser-example", "plasma-example", "waterjet-example"]),
        line in any::<bool>(),
        tabs in 0usize..4,
    ) {
        let more = format!(
            r#",{{"name":"bore","do":{{"drill":{{"panel":"base","diameter":"{hole} mm"}}}}}},
            {{"name":"slot","do":{{"cut":{{"panel":"base","slot":{{"length":"18 mm","width":"{slot} mm"}},"turn":"33 deg",
              "place":{{"from":[{{"edge":"base.left","distance":"22 mm"}},{{"edge":"base.front","distance":"20 mm"}}]}}}}}}}}
            {}"#,
            if corner > 2.0 { format!(r#",{{"name":"soft","do":{{"corner":{{"panel":"base","shape":{{"round":"{corner} mm"}}}}}}}}"#) } else { String::new() }
        );
        let tabs = if tabs > 0 { format!(r#","tabs":{{"count":"{tabs}","width":"1 mm"}}"#) } else { String::new() };
        let lead = if line { "line" } else { "arc" };
        let base = format!(r#"{{"rectangle":{{"width":"{width} mm","depth":"{depth} mm"}}}}"#);
        let made = make(&plate("3 mm", &base, &more, &format!(r#"{{"cutter":"{cutter}","lead":"{lead}"{tabs}}}"#)));
        let found = made.inspect(&made.text).expect("it runs");
        prop_assert!(found.holds, "{:#?}\n{}", found.faults, made.text);
        // Beside a tab the metal rises to it.
        let most = if tabs.is_empty() { 0.003 } else { 0.0101 };
        prop_assert!(found.worst < most, "off by {}", found.worst);
        // The size as cut is the size as drawn.
        let size = found.contours[0].size;
        prop_assert!((size[0] - width).abs() < 2.0 * most && (size[1] - depth).abs() < 2.0 * most, "{size:?}");
    }

    /// A hole made larger or smaller by more than the tolerance is found, whichever way.
    #[test]
    fn a_hole_of_another_size_never_passes(off in prop_oneof![-0.6f64..-0.03, 0.03f64..0.6]) {
        let base = r#"{"rectangle":{"width":"90 mm","depth":"70 mm"}}"#;
        let drilled = |size: f64| format!(r#",{{"name":"bore","do":{{"drill":{{"panel":"base","diameter":"{size} mm"}}}}}}"#);
        let made = make(&plate("3 mm", base, &drilled(20.0), "{}"));
        let other = make(&plate("3 mm", base, &drilled(20.0 + off), "{}"));
        let found = made.inspect(&other.text).expect("it runs");
        prop_assert!(!found.holds);
        prop_assert!(found.faults.iter().all(|one| one.message.contains("bore")), "{:?}", found.faults);
    }
}
