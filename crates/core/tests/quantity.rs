//! Values as people write them: what they come to, and what is refused with which words at which place.

use proptest::prelude::*;
use steelk_core::quantity::{
    BinaryOperator, Dimension, Expression, Function, Known, LengthUnit, Names, Node, Quantity, Round, Unit, decimal,
    evaluate, feet_inches, inches_fraction, length_text, parse, without_times,
};

fn names() -> Names {
    let mut names = Names::new(LengthUnit::Mm);
    names.set("A", Known::Value(Quantity::new(60.0, Dimension::LENGTH)));
    names.set("B", Known::Value(Quantity::new(120.0, Dimension::LENGTH)));
    names.set("T", Known::Value(Quantity::new(3.0, Dimension::LENGTH)));
    names.set("K", Known::Value(Quantity::new(0.5, Dimension::ANGLE)));
    names
}

fn length(text: &str) -> f64 {
    names().read(text, Dimension::LENGTH, "a length").unwrap_or_else(|fault| panic!("{text}: {fault}"))
}

#[test]
fn lengths_as_people_write_them() {
    // 25.4 mm to the inch exactly (international yard and pound agreement, 1959).
    for (text, millimetres) in [
        ("12", 12.0),
        ("12 mm", 12.0),
        ("12mm", 12.0),
        ("1.2 cm", 12.0),
        ("0.5 m", 500.0),
        ("2 1/2 in", 63.5),
        ("2-1/2\"", 63.5),
        ("2-1/2 in", 63.5),
        ("1/2 in", 12.7),
        ("3' 4 1/2\"", 1028.7),
        ("3'-4 1/2\"", 1028.7),
        ("3'", 914.4),
        ("3 ft 6 in", 1066.8),
        ("8 in - 6 mm", 197.2),
        ("A/2 - 5 mm", 25.0),
        ("A - 2*T", 54.0),
        ("A/2 - 5", 25.0),
        ("max(A, B, 70)", 120.0),
        ("min(A, 10 cm)", 60.0),
        ("abs(A - B)", 60.0),
        ("sqrt(A*A + B*B/4)", 84.852_813_742_385_7),
        ("A*sin(30 deg)", 30.0),
        ("A*sin(30)", 30.0),
        ("A*cos(60°)", 30.0),
        ("A*tan(45 deg)", 60.0),
        ("round(12.6 mm)", 13.0),
        ("2*(3 + 4)", 14.0),
        ("-(-5 mm)", 5.0),
        ("A * B / (2 * A)", 60.0),
        ("1e2 mm", 100.0),
        // As drawings write it; an area over a length is a length, a volume over an area too.
        ("\u{d8}9", 9.0),
        ("\u{f8} 9 mm", 9.0),
        ("\u{2300}3/8 in", 9.525),
        ("dia 9", 9.0),
        ("DIA. 9.5 mm", 9.5),
        ("R20", 20.0),
        ("R 2.5", 2.5),
        ("R2.5 mm", 2.5),
        ("R1/2 in", 12.7),
        ("R2 1/2 in", 63.5),
        ("\u{d8}A / 2", 30.0),
        ("3 1/8", 3.125),
        ("3-1/2", 3.5),
        ("1200 mm2 / A", 20.0),
        ("1200 mm\u{b2} / A", 20.0),
        ("2 in2 / 1 in", 50.8),
        ("3 cm3 / (10 mm * A)", 5.0),
        ("sqrt(1 ft2)", 304.8),
        ("2 m3 / (1 m2)", 2000.0),
    ] {
        assert!((length(text) - millimetres).abs() < 1e-9, "{text} came to {}, not {millimetres}", length(text));
    }
}

/// `R20` in a diameter's place would be half of it, and a slot's width is no radius: refused, with what to type.
#[test]
fn a_radius_is_never_taken_for_a_diameter() {
    let mut names = names();
    names.set("R12", Known::Value(Quantity::new(7.0, Dimension::LENGTH)));
    let settled =
        names.settle(&[("D".into(), "\u{d8}9".into()), ("E".into(), "R4".into()), ("F".into(), "D / 2".into())]);
    assert!(settled.values().all(Result::is_ok));
    let read = |text: &str, wanted: &str| names.read(text, Dimension::LENGTH, wanted);
    for (text, wanted) in [
        ("R20", "a hole diameter"),
        ("R20 mm", "a bolt circle"),
        ("E", "a head diameter"),
        ("\u{d8}9", "a corner radius"),
        ("dia 9", "an inside radius"),
        ("D", "a radius"),
        ("R5", "a slot's width"),
        ("\u{d8}9", "a leg length"),
    ] {
        let fault = read(text, wanted).expect_err(text);
        assert!(fault.message.contains(&format!("{wanted} is needed")) && !fault.way_out.is_empty(), "{text}: {fault}");
    }
    assert!(read("R20", "a hole diameter").unwrap_err().way_out.contains("\u{d8}40."));
    assert!(read("R4.5 mm", "a hole diameter").unwrap_err().way_out.contains("\u{d8}9 mm"));
    assert!(read("\u{d8}9", "a corner radius").unwrap_err().way_out.contains("R4.5"));
    for (text, wanted, value) in [
        ("R20", "a corner radius", 20.0),
        ("\u{d8}9", "a hole diameter", 9.0),
        ("D", "a hole diameter", 9.0),
        ("E", "an inside radius", 4.0),
        // What is worked out is whatever the formula says, and a name goes before a sign.
        ("F", "a radius", 4.5),
        ("D / 2", "a radius", 4.5),
        ("2 * E", "a hole diameter", 8.0),
        ("R12", "a hole diameter", 7.0),
        // A call-out is of either.
        ("\u{d8}9", "a length", 9.0),
    ] {
        assert_eq!(read(text, wanted).unwrap_or_else(|fault| panic!("{text} for {wanted}: {fault}")), value);
    }
    // Names like areas are still names.
    names.set("m2", Known::Value(Quantity::new(5.0, Dimension::LENGTH)));
    assert_eq!(names.read("m2 + 2 mm", Dimension::LENGTH, "a length").unwrap(), 7.0);
    assert_eq!(names.read("3 m2 / m2", Dimension::LENGTH, "a length").unwrap(), 600_000.0);
}

#[test]
fn counts_are_taken_as_drawings_write_them() {
    for (text, plain) in [
        ("4x", "4"),
        ("4 x", "4"),
        ("12\u{d7}", "12"),
        ("4X ", "4"),
        ("x", "x"),
        ("4", "4"),
        ("Nx", "Nx"),
        ("2*3x", "2*3x"),
    ] {
        assert_eq!(without_times(text).trim(), plain, "{text}");
    }
}

#[test]
fn angles_as_people_write_them() {
    let angle = |text: &str| names().read(text, Dimension::ANGLE, "an angle").unwrap();
    for (text, degrees) in [
        ("90 deg", 90.0),
        ("90°", 90.0),
        ("90", 90.0),
        ("1.5 rad", 85.943_669_269_623_48),
        ("atan(1)", 45.0),
        ("asin(1/2)", 30.0),
        ("acos(A/B)", 60.0),
    ] {
        assert!((angle(text).to_degrees() - degrees).abs() < 1e-9, "{text}");
    }
}

#[test]
fn bare_lengths_take_the_documents_unit() {
    let inches = Names::new(LengthUnit::In);
    assert_eq!(inches.read("2", Dimension::LENGTH, "a length").unwrap(), 50.8);
    assert_eq!(inches.read("2 mm", Dimension::LENGTH, "a length").unwrap(), 2.0);
    assert_eq!(inches.read("1 + 10 mm", Dimension::LENGTH, "a length").unwrap(), 35.4);
}

#[test]
fn faults_are_said_in_words_at_their_place() {
    let cases: [(&str, &str, (usize, usize)); 20] = [
        ("45 deg", "45 deg is an angle; a leg length is needed", (0, 6)),
        ("A*B", "A*B is an area; a leg length is needed", (0, 3)),
        ("A/B", "A/B is a plain number; a leg length is needed", (0, 3)),
        ("12 + 45 deg + A", "60 mm is a length", (0, 15)),
        ("Q + 1", "there is no call-out called Q", (0, 1)),
        ("a + 1", "there is no call-out called a", (0, 1)),
        ("A / (3 mm - T)", "divides by zero", (4, 14)),
        ("12 mmm", "\"mmm\" is not a unit", (3, 6)),
        ("12 A", "\"A\" is not a unit", (3, 4)),
        ("(A", "never closed", (0, 1)),
        ("A +", "the value stops here", (3, 3)),
        ("A ) 3", "is not expected here", (2, 3)),
        ("", "nothing is written", (0, 0)),
        ("sqrt(-4 mm * 1 mm)", "square root", (0, 18)),
        ("asin(2)", "from -1 to 1", (0, 7)),
        ("tan(90 deg)", "tangent of 90 deg", (0, 11)),
        ("1.2.3", "is not a number", (0, 5)),
        ("foo(3)", "no function called foo", (0, 3)),
        ("R20/2", "there is no call-out called R20", (0, 3)),
        ("1200 mm2", "1200 mm2 is an area; a leg length is needed", (0, 8)),
    ];
    for (text, words, (start, end)) in cases {
        let fault = names().read(text, Dimension::LENGTH, "a leg length").expect_err(text);
        assert!(fault.message.contains(words), "{text}: {}", fault.message);
        assert_eq!((fault.span.start, fault.span.end), (start, end), "{text}: {}", fault.message);
        assert!(!fault.way_out.is_empty());
    }
}

#[test]
fn rings_of_callouts_are_named() {
    let mut names = Names::new(LengthUnit::Mm);
    let text = |name: &str, value: &str| (name.to_string(), value.to_string());
    let results =
        names.settle(&[text("A", "B + 1 mm"), text("B", "C*2"), text("C", "A"), text("D", "5 mm"), text("E", "D*2")]);
    let words: Vec<String> =
        ["A", "B", "C"].iter().map(|name| results[*name].as_ref().unwrap_err().message.clone()).collect();
    assert!(words.iter().any(|one| one.contains("go round in a ring: A needs B needs C needs A")), "{words:?}");
    assert_eq!(results["E"].as_ref().unwrap().value, 10.0);
    let own = names.settle(&[text("F", "F + 1 mm")]);
    assert!(own["F"].as_ref().unwrap_err().message.contains("F needs F"));
}

#[test]
fn what_would_break_arithmetic_is_refused() {
    for text in ["1e999", "1e300 * 1e300", "9e9 mm * 9e9", "0/0", "1/0", "(1e300*1e300) - (1e300*1e300)"] {
        assert!(names().read(text, Dimension::LENGTH, "a length").is_err(), "{text}");
    }
    for deep in
        ["(".repeat(10_000), "-".repeat(10_000), "abs(".repeat(10_000), "(".repeat(100) + "1" + &")".repeat(100)]
    {
        assert!(parse(&deep).is_err());
    }
    let long = vec!["1"; 499].join("+");
    assert_eq!(names().read(&long, Dimension::LENGTH, "a length").unwrap(), 499.0);
}

#[test]
fn printing_for_people() {
    assert_eq!(length_text(134.785_84, LengthUnit::Mm), "134.786 mm");
    assert_eq!(length_text(63.5, LengthUnit::In), "2.5 in");
    assert_eq!(inches_fraction(63.5, 16), "2 1/2 in");
    assert_eq!(feet_inches(1028.7, 16), "3 ft 4 1/2 in");
    assert_eq!(feet_inches(-12.7, 8), "-1/2 in");
    assert_eq!(decimal(-0.000_01, 3), "0");
    assert_eq!(decimal(2.500, 3), "2.5");
}

/// The standard library prints the exact value of a binary number, halves to the even digit; what we print is that without its
/// trailing zeros.
fn as_the_standard_library_prints(value: f64, decimals: usize) -> String {
    let text = format!("{value:.decimals$}");
    let text = if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.') } else { &text };
    if text == "-0" { "0".into() } else { text.into() }
}

#[test]
fn halves_and_ends_of_the_range_print_as_the_standard_library_has_them() {
    let edges = [
        0.5,
        1.5,
        2.5,
        0.25,
        0.125,
        0.375,
        0.0625,
        1e15,
        1e16,
        1e17,
        1.8446744073709552e19,
        1e22,
        5e-324,
        1e-38,
        1e-39,
    ];
    let more =
        [f64::MAX, f64::MIN_POSITIVE, f64::INFINITY, f64::NAN, 0.0, 9.999_999_999_5, 999.999_999_999_9, 0.000_05];
    for value in edges.into_iter().chain(more).flat_map(|one| [one, -one]) {
        for decimals in 0..16 {
            assert_eq!(
                decimal(value, decimals),
                as_the_standard_library_prints(value, decimals),
                "{value:e} {decimals}"
            );
        }
    }
}

proptest! {
    #[test]
    fn any_number_prints_as_the_standard_library_has_it(
        bits in any::<u64>(), size in -1e6..1e6f64, step in -2_000_000i64..2_000_000, fine in 0u32..24, decimals in 0usize..15
    ) {
        // Any pattern of bits, places on a part, and numbers that end halfway between two digits.
        for value in [f64::from_bits(bits), size, size * 1e-7, step as f64 / f64::from(1u32 << fine), step as f64 / 2e4] {
            let found = decimal(value, decimals);
            prop_assert_eq!(&found, &as_the_standard_library_prints(value, decimals), "{:e}", value);
        }
    }
}

fn literal() -> impl Strategy<Value = Node> {
    prop_oneof![
        (0.0f64..1e6).prop_map(|value| Node::Bare((value * 1e4).round() / 1e4)),
        "[A-S][a-z0-9]{0,4}"
            .prop_filter("not taken", |name| Unit::named(name).is_none() && Function::named(name).is_none())
            .prop_map(Node::Name),
        (0.0f64..1e4, 0usize..20).prop_map(|(value, unit)| {
            let text = format!("{} {}", (value * 1e3).round() / 1e3, Unit::ALL[unit].0.name());
            parse(&text).expect("a number with a unit").node
        }),
        (0u32..20, 1u32..16, 1u32..5).prop_map(|(whole, top, power)| {
            let text = format!("{whole} {top}/{} in", 1 << power);
            parse(&text).expect("a fraction").node
        }),
    ]
}

fn tree() -> impl Strategy<Value = Expression> {
    let leaf = literal().prop_map(|node| Expression { node, span: Default::default() });
    leaf.prop_recursive(5, 40, 3, |inner| {
        let wrap = |node| Expression { node, span: Default::default() };
        let operator = prop_oneof![
            Just(BinaryOperator::Add),
            Just(BinaryOperator::Subtract),
            Just(BinaryOperator::Multiply),
            Just(BinaryOperator::Divide)
        ];
        prop_oneof![
            (operator, inner.clone(), inner.clone()).prop_map(move |(operator, a, b)| wrap(Node::Binary(
                operator,
                Box::new(a),
                Box::new(b)
            ))),
            inner.clone().prop_map(move |a| wrap(Node::Negative(Box::new(a)))),
            // A radius is said by a number alone: before anything else its sign is a name.
            inner.clone().prop_map(move |a| {
                let number = matches!(a.node, Node::Bare(_) | Node::Measured(_));
                wrap(Node::Round(if number { Round::Radius } else { Round::Diameter }, Box::new(a)))
            }),
            inner.clone().prop_map(move |a| wrap(Node::Round(Round::Diameter, Box::new(a)))),
            (inner.clone(), inner.clone()).prop_map(move |(a, b)| wrap(Node::Call(Function::Max, vec![a, b]))),
            inner.prop_map(move |a| wrap(Node::Call(Function::Abs, vec![a]))),
        ]
    })
}

proptest! {
    #[test]
    fn an_expression_prints_and_parses_to_itself(expression in tree()) {
        let text = expression.to_string();
        prop_assume!(text.len() < 900);
        let again = parse(&text).map_err(|fault| TestCaseError::fail(format!("{text}: {fault}")))?;
        prop_assert_eq!(&again, &expression, "{}", text);
    }

    #[test]
    fn random_text_never_panics(text in "\\PC{0,60}") {
        if let Ok(expression) = parse(&text)
            && let Ok(quantity) = evaluate(&expression, &names())
        {
            prop_assert!(quantity.value.is_finite());
        }
    }

    #[test]
    fn random_almost_values_never_panic(text in "[0-9A-Tabmdegrinst+*/(). '\"°,-]{0,40}") {
        if let Err(fault) = names().read(&text, Dimension::LENGTH, "a length") {
            prop_assert!(fault.span.start <= fault.span.end && fault.span.end <= text.len());
            prop_assert!(!fault.message.is_empty());
        }
    }
}

/// Drills by number and letter, against a drill chart (ASME B94.11M; from memory), and against the taps that they are for.
#[test]
fn drills_are_called_by_number_and_letter() {
    let names = Names::new(LengthUnit::In);
    let read = |text: &str| names.read(text, Dimension::LENGTH, "a diameter");
    for (text, inches) in [
        ("#1", 0.228),
        ("#7", 0.201),
        ("#29", 0.136),
        ("#80", 0.0135),
        ("letter A", 0.234),
        ("ltr F", 0.257),
        ("letter Z", 0.413),
    ] {
        assert!((read(text).unwrap() - inches * 25.4).abs() < 1e-9, "{text}");
    }
    // Larger numbers are smaller drills, later letters larger ones.
    let sizes: Vec<f64> = (1..=80).map(|number| read(&format!("#{number}")).unwrap()).collect();
    assert!(sizes.windows(2).all(|pair| pair[0] > pair[1]));
    let letters: Vec<f64> = ('A'..='Z').map(|letter| read(&format!("letter {letter}")).unwrap()).collect();
    assert!(letters.windows(2).all(|pair| pair[0] < pair[1]) && letters[0] > sizes[0]);
    for bad in ["#0", "#81", "#", "letter f", "letter"] {
        assert!(read(bad).is_err(), "{bad}");
    }
    assert!(read("#99").unwrap_err().message.contains("no drill #99"));
    // Common practice: #7 for 1/4-20, F for 5/16-18.
    for (thread, drill) in [("1/4-20", "#7"), ("5/16-18", "letter F")] {
        let tap = steelk_core::stock::stock().threads.iter().find(|one| one.name == thread).unwrap().tap_drill;
        assert_eq!(steelk_core::quantity::drill_called(tap), Some(format!("{drill} drill")));
        assert!((read(drill).unwrap() - tap).abs() < 1e-3);
    }
    assert_eq!(steelk_core::quantity::drill_called(9.0), None);
}

/// NIST SP 811, appendix B.8: 1 lb/ft is 1.488 164 kg/m, 1 lb/in3 is 27 679.90 kg/m3; a square foot is 0.092 903 04 m2.
#[test]
fn figures_are_told_in_inches_and_pounds() {
    let near = |of: steelk_core::quantity::Amount, metric: f64, told: f64| {
        let found = LengthUnit::In.figure(of, metric);
        assert!((found / told - 1.0).abs() < 1e-6, "{of:?}: {found} and {told}");
        assert_eq!(LengthUnit::Mm.figure(of, metric) > 0.0, metric > 0.0);
    };
    near(steelk_core::quantity::Amount::Length, 25.4, 1.0);
    near(steelk_core::quantity::Amount::Run, 304.8, 1.0);
    near(steelk_core::quantity::Amount::Area, 645.16, 1.0);
    near(steelk_core::quantity::Amount::Cubic, 16_387.064, 1.0);
    near(steelk_core::quantity::Amount::Volume, 16_387.064, 1.0);
    near(steelk_core::quantity::Amount::Paint, 0.092_903_04, 1.0);
    near(steelk_core::quantity::Amount::Mass, 0.453_592_37, 1.0);
    near(steelk_core::quantity::Amount::MassPerRun, 1.488_163_9, 1.0);
    near(steelk_core::quantity::Amount::Density, 27_679.904_7, 1.0);
    near(steelk_core::quantity::Amount::Speed, 2540.0, 100.0);
    assert_eq!(LengthUnit::In.says(steelk_core::quantity::Amount::Length, 31.75, 2), "1.25 in");
    assert_eq!(LengthUnit::Mm.says(steelk_core::quantity::Amount::Volume, 2500.0, 3), "2.5 cm3");
}

#[test]
fn words_of_checks_are_told_in_inches_and_what_was_typed_is_left_alone() {
    let inch = LengthUnit::In;
    assert_eq!(inch.retold("a hole of 25.4 mm runs 12.7 mm off"), "a hole of 1 in runs 0.5 in off");
    assert_eq!(inch.retold("\"12 mm\" is no angle; 50.8 mm is"), "\"12 mm\" is no angle; 2 in is");
    assert_eq!(inch.retold("mm mm 3 mmol, x mm"), "mm mm 3 mmol, x mm");
    assert_eq!(LengthUnit::Mm.retold("5 mm"), "5 mm");
}
