//! Heads of screws, and holes that are said by one.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, evaluate};
use steelk_core::sheet::Hole;
use steelk_core::stock::{Fit, Head, Screw, check_screws, read_screws, stock, write_screws};
use steelk_testing::*;

fn plate(operation: Value) -> Outcome {
    evaluate(&piece("12 mm", "12 mm", "0.44", json!([base("200 mm", "120 mm"), operation])), Options::default())
}

fn drilled(more: Value) -> Outcome {
    let mut fields = json!({"panel": "base"});
    for (key, value) in more.as_object().unwrap() {
        fields[key] = value.clone();
    }
    plate(json!({"name": "h", "do": {"drill": fields}}))
}

fn hole(outcome: &Outcome) -> &Hole {
    assert!(outcome.findings.iter().all(|one| one.severity != Severity::Error), "{:?}", outcome.findings);
    &outcome.part().unwrap().flat.holes[0]
}

fn refused(outcome: &Outcome) -> (String, String) {
    let error = outcome.findings.iter().find(|one| one.severity == Severity::Error).expect("it is refused");
    (error.field.clone().unwrap_or_default(), format!("{}. {}", error.message, error.way_out))
}

/// Head diameter and height, mm (from memory; ISO 4762, ISO 7380-1, ISO 10642 theoretical, ISO 7089), and inches (ASME B18.3).
#[test]
fn heads_are_those_of_their_standards() {
    let head = |head: Head, size: &str| stock().screw(head, size).unwrap_or_else(|| panic!("no {head:?} {size}"));
    for (size, diameter, height) in [
        ("M5", 8.5, 5.0),
        ("M6", 10.0, 6.0),
        ("M8", 13.0, 8.0),
        ("M10", 16.0, 10.0),
        ("M12", 18.0, 12.0),
        ("M16", 24.0, 16.0),
    ] {
        let own = head(Head::Socket, size);
        assert_eq!((own.diameter, own.height), (diameter, height), "{size}");
    }
    for (size, diameter, height) in
        [("M5", 9.5, 2.75), ("M6", 10.5, 3.3), ("M8", 14.0, 4.4), ("M10", 17.5, 5.5), ("M12", 21.0, 6.6)]
    {
        let own = head(Head::Button, size);
        assert_eq!((own.diameter, own.height), (diameter, height), "{size}");
    }
    for (size, diameter) in [("M5", 11.2), ("M6", 13.44), ("M8", 17.92), ("M10", 22.4), ("M12", 26.88)] {
        let own = head(Head::Flat, size);
        assert_eq!((own.diameter, own.angle), (diameter, Some(90.0)), "{size}");
    }
    for (size, diameter) in [("M5", 10.0), ("M6", 12.0), ("M8", 16.0), ("M10", 20.0), ("M12", 24.0), ("M16", 30.0)] {
        assert_eq!(head(Head::Washer, size).diameter, diameter, "{size}");
    }
    let inches = [("#8", 0.270), ("#10", 0.312), ("1/4", 0.375), ("5/16", 0.469), ("3/8", 0.562), ("1/2", 0.750)];
    for (size, diameter) in inches {
        let own = head(Head::Socket, size);
        assert!((own.diameter - diameter * 25.4).abs() < 1e-4, "{size}");
    }
    for (size, diameter) in [("#8", 0.359), ("#10", 0.411), ("1/4", 0.531), ("5/16", 0.656), ("3/8", 0.781)] {
        let own = head(Head::Flat, size);
        assert!((own.diameter - diameter * 25.4).abs() < 1e-4 && own.angle == Some(82.0), "{size}");
    }
    // ASME B18.2.8, close, normal, loose.
    for (size, close, normal, loose) in
        [("#8", 0.180, 0.196, 0.213), ("1/4", 0.266, 0.281, 0.297), ("3/4", 0.781, 0.812, 0.906)]
    {
        let own = stock().clearance(size).unwrap();
        let is = |fit: Fit, inches: f64| (own.diameter(fit) - inches * 25.4).abs() < 1e-4;
        assert!(is(Fit::Fine, close) && is(Fit::Medium, normal) && is(Fit::Coarse, loose), "{size}");
    }
}

/// What must be so of every row, whoever typed it.
#[test]
fn every_head_goes_together_with_its_screw() {
    let all = &stock().screws;
    assert!(all.len() > 60);
    for (at, one) in all.iter().enumerate() {
        let what = format!("{:?} {}", one.head, one.size);
        let clearance = stock().clearance(&one.size).unwrap_or_else(|| panic!("{what} has no clearance hole"));
        assert!(one.diameter > clearance.coarse && one.height > 0.0 && one.source.contains("from memory"), "{what}");
        assert!(all[..at].iter().all(|other| (other.head, &other.size) != (one.head, &one.size)), "{what} twice");
        assert_eq!(one.angle.is_some(), one.head == Head::Flat, "{what}");
        assert_eq!(one.counterbore.is_some(), one.head == Head::Socket, "{what}");
        if let Some((bore, deep)) = one.counterbore {
            // It takes the head with up to a quarter to spare, and hides it.
            assert!(bore > one.diameter && bore < 1.26 * one.diameter, "{what}: {bore}");
            assert!(deep >= one.height - 1e-9 && deep < 1.2 * one.height, "{what}: {deep}");
        }
        if let Some(angle) = one.angle {
            // The cone of a flat head reaches its shank about where it ends: D - d = 2 k tan(A / 2).
            let shank = one.diameter - 2.0 * one.height * (angle / 2.0).to_radians().tan();
            let nominal = clearance.fine;
            assert!((0.75 * nominal..=1.08 * nominal).contains(&shank), "{what}: {shank} of {nominal}");
        }
    }
    // Larger screws have larger heads.
    for head in [Head::Socket, Head::Flat, Head::Button, Head::Hex, Head::Washer] {
        for metric in [true, false] {
            let mut sizes: Vec<(f64, f64)> = all
                .iter()
                .filter(|one| one.head == head && one.size.starts_with('M') == metric)
                .map(|one| (stock().clearance(&one.size).unwrap().fine, one.diameter))
                .collect();
            sizes.sort_by(|a, b| a.0.total_cmp(&b.0));
            assert!(sizes.windows(2).all(|two| two[1].1 > two[0].1), "{head:?}: {sizes:?}");
        }
    }
}

#[test]
fn counterbored_for_a_screw_is_drilled_and_bored_for_it() {
    let outcome = drilled(json!({"counterbore": {"screw": "M5"}}));
    let own = hole(&outcome);
    // ISO 273 medium 5.5; DIN 974-1 10, 5.7 deep (from memory).
    assert_eq!(own.outline.as_circle().unwrap().1, 2.75);
    assert_eq!(own.work.head, 10.0);
    let bored = own.work.profile[0];
    assert_eq!((bored.from, bored.to, bored.near, bored.far), (0.0, 5.7, 5.0, 5.0));
    assert_eq!(own.work.words, "clearance M5 medium, counterbored for M5, 10 mm by 5.7 mm deep");
    assert!(own.work.source.contains("ISO 273") && own.work.source.contains("ISO 4762"), "{}", own.work.source);
    assert!(!outcome.breaches.iter().any(|one| one.rule == "fits_no_screw"));
}

#[test]
fn countersunk_for_a_screw_is_sunk_to_its_head() {
    let outcome = drilled(json!({"countersink": {"screw": "#8"}}));
    let own = hole(&outcome);
    // Normal clearance 0.196 in, head 0.359 in at 82 deg (ASME B18.2.8, B18.3; from memory).
    assert!((own.outline.as_circle().unwrap().1 - 0.098 * 25.4).abs() < 1e-3);
    assert!((own.work.head - 0.359 * 25.4).abs() < 1e-3);
    let deep = (0.359 - 0.196) * 25.4 / (2.0 * 41f64.to_radians().tan());
    assert!((own.work.profile[0].to - deep).abs() < 1e-3, "{:?} {deep}", own.work.profile);
    // As people write it, and with a size of its own.
    let own_size = drilled(json!({"diameter": "6 mm", "countersink": {"screw": " m5 "}}));
    assert_eq!(hole(&own_size).outline.as_circle().unwrap().1, 3.0);
    assert_eq!(hole(&own_size).work.head, 11.2);
}

/// Head 10 + 1 to spare, slot 5.5, and up until the washer bears whole: (11 + 10) / 2.
#[test]
fn a_keyhole_for_a_screw_with_its_washer() {
    let keyhole = |more: Value| plate(json!({"name": "k", "do": {"cut": {"panel": "base", "keyhole": more}}}));
    let outcome = keyhole(json!({"screw": "M5", "bears": "washer"}));
    let own = hole(&outcome).extents;
    assert!((own.width() - 11.0).abs() < 1e-9, "{own:?}");
    assert!((own.height() - (5.5 + 10.5 + 2.75)).abs() < 1e-9, "{own:?}");
    // Hung, the washer lies on metal all round but for the slot.
    let at = hole(&outcome).centre;
    let hung = 10.5;
    assert!(hung - 5.0 >= 5.5 - 1e-9, "the washer at {at:?} + {hung} keeps off the head's hole");
    let socket = keyhole(json!({"screw": "M5"}));
    assert!((hole(&socket).extents.width() - 9.5).abs() < 1e-9);
    let longer = keyhole(json!({"screw": "M5", "bears": "washer", "travel": "20 mm"}));
    assert!((hole(&longer).extents.height() - (5.5 + 20.0 + 2.75)).abs() < 1e-9);
    for made in [&outcome, &socket, &longer] {
        assert!(!made.breaches.iter().any(|one| one.rule == "fits_no_screw"), "{:?}", made.breaches);
    }
}

#[test]
fn a_screw_that_is_none_is_refused_where_it_is_typed() {
    let (field, words) = refused(&drilled(json!({"counterbore": {"screw": "M7"}})));
    assert!(field.ends_with("counterbore.screw"), "{field}");
    assert!(words.contains("no socket head for M7") && words.contains("M5, M6, M8") && words.contains("#8"), "{words}");
    let (field, words) = refused(&drilled(json!({"countersink": {"screw": "M5", "diameter": "11 mm"}})));
    assert!(field.ends_with("countersink.diameter") && words.contains("a screw, M5, too"), "{field} {words}");
    let (field, _) = refused(&drilled(json!({"countersink": {"screw": "M5", "angle": "82 deg"}})));
    assert!(field.ends_with("countersink.angle"), "{field}");
    let (field, _) = refused(&plate(
        json!({"name": "k", "do": {"cut": {"panel": "base", "keyhole": {"screw": "M5", "slot": "6 mm"}}}}),
    ));
    assert!(field.ends_with("keyhole.slot"), "{field}");
    // A travel so short that there is no slot, and a size said twice over.
    let (field, _) = refused(&plate(
        json!({"name": "k", "do": {"cut": {"panel": "base", "keyhole": {"screw": "M5", "travel": "2 mm"}}}}),
    ));
    assert!(field.ends_with("keyhole.slot"), "{field}");
    // Nothing at all says how large it is.
    let (_, words) = refused(&drilled(json!({"countersink": {"diameter": "12 mm"}})));
    assert!(words.contains("0 sizes are given"), "{words}");
    let (_, words) = refused(&drilled(json!({"countersink": {}, "diameter": "6 mm"})));
    assert!(!words.is_empty());
}

/// What is typed by its numbers and is a screw's is quiet; what is nobody's is a hint, never a fault.
#[test]
fn numbers_that_fit_no_screw_are_a_hint() {
    let hints = |outcome: &Outcome| {
        let own: Vec<_> = outcome.breaches.iter().filter(|one| one.rule == "fits_no_screw").collect();
        assert!(own.iter().all(|one| one.level == steelk_core::proof::Level::Hint));
        own.len()
    };
    let sunk = |hole: f64, head: f64, angle: f64| {
        hints(&drilled(
            json!({"diameter": format!("{hole} mm"), "countersink": {"diameter": format!("{head} mm"), "angle": format!("{angle} deg")}}),
        ))
    };
    // M5 as it is, ground flat, sunk a little deeper; #8.
    assert_eq!([sunk(5.5, 11.2, 90.0), sunk(5.5, 10.4, 90.0), sunk(5.8, 12.4, 90.0), sunk(5.0, 9.12, 82.0)], [0; 4]);
    // No screw of 7 mm; M5's head with the wrong angle; a head far too small.
    assert_eq!([sunk(7.9, 16.0, 90.0), sunk(5.5, 11.2, 60.0), sunk(5.5, 9.0, 90.0)], [1; 3]);
    let bored = |hole: f64, bore: f64| {
        hints(&drilled(
            json!({"diameter": format!("{hole} mm"), "counterbore": {"diameter": format!("{bore} mm"), "depth": "5 mm"}}),
        ))
    };
    assert_eq!([bored(9.0, 15.0), bored(9.0, 18.0), bored(6.6, 11.0)], [0; 3]);
    assert_eq!([bored(9.0, 12.0), bored(7.9, 20.0)], [1; 2]);
    let key = |head: f64, slot: f64| {
        hints(&plate(json!({"name": "k", "do": {"cut": {"panel": "base",
            "keyhole": {"head": format!("{head} mm"), "slot": format!("{slot} mm"), "travel": "20 mm"}}}})))
    };
    assert_eq!([key(16.0, 8.4), key(11.0, 5.5), key(9.0, 4.5)], [0; 3]);
    assert_eq!([key(12.0, 8.4), key(40.0, 5.5)], [1; 2]);
}

/// A hole tapped through its counterbore takes its screw from the other side.
#[test]
fn a_tapped_counterbore_is_not_asked() {
    let outcome = drilled(json!({"tapped": {"thread": "M8"}, "counterbore": {"diameter": "30 mm", "depth": "3 mm"}}));
    hole(&outcome);
    assert!(!outcome.breaches.iter().any(|one| one.rule == "fits_no_screw"));
}

/// What stockholders keep (common practice): millimetres, plate in fractions of an inch, and the family's own gauges; anything else is a
/// hint in the unit that is spoken.
#[test]
fn a_thickness_that_nobody_keeps_is_a_hint() {
    let hinted = |material: &str, thickness: &str, unit: &str| {
        let mut made = piece("3 mm", "3 mm", "0.44", json!([base("200 mm", "120 mm")]));
        made.stock.material = material.into();
        made.stock.thickness = thickness.into();
        made.unit = serde_json::from_value(json!(unit)).unwrap();
        let outcome = evaluate(&made, Options::default());
        let told = outcome.findings.iter().find(|one| one.field.as_deref() == Some("stock.thickness"));
        told.map(|one| {
            assert_eq!(one.severity, Severity::Hint);
            one.message.clone()
        })
    };
    for (material, kept) in [
        ("S275", vec!["3 mm", "40 mm", "1/4 in", "3/8 in", "1 1/2 in", "10 ga", "0.1345 in"]),
        ("DX51D", vec!["0.7 mm", "16 ga"]),
        ("1.4301", vec!["1.5 mm", "3/16 in", "16 ga", "0.0625 in"]),
        ("5052-H32", vec!["2 mm", "0.063 in", "0.125 in", "1/4 in", "10 ga"]),
    ] {
        for thickness in kept {
            assert_eq!(hinted(material, thickness, "mm"), None, "{material} {thickness}");
        }
    }
    assert_eq!(
        hinted("S275", "7 mm", "mm").as_deref(),
        Some("7 mm is neither a usual thickness nor a gauge of mild steel")
    );
    assert!(
        hinted("S275", "0.3 in", "in").unwrap().starts_with("0.3 in is neither"),
        "{:?}",
        hinted("S275", "0.3 in", "in")
    );
    // Galvanised sheet is kept thin: plate is galvanised after it is made.
    assert!(hinted("DX51D", "1/4 in", "mm").is_some());
}

fn own(head: Head, size: &str) -> Screw {
    Screw {
        head,
        size: size.into(),
        diameter: 9.4,
        height: 1.25,
        angle: (head == Head::Flat).then_some(100.0),
        counterbore: (head == Head::Socket).then_some((11.5, 7.0)),
        source: "the shop, measured, 2 of 50".into(),
    }
}

/// Screws of the shop's own leave as CSV and come back; the built-in table is of the same form.
#[test]
fn own_screws_are_written_and_read_again() {
    let all = [own(Head::Flat, "Insert 5"), own(Head::Socket, "Stud, \"long\""), own(Head::Washer, "Big")];
    assert_eq!(read_screws(&write_screws(&all)).unwrap(), all);
    assert_eq!(read_screws(&write_screws(&[])).unwrap(), []);
    // A file that a spreadsheet saved, with its mark of Unicode.
    let text = format!("\u{feff}{}", write_screws(&all));
    assert_eq!(read_screws(&text).unwrap(), all);
}

#[test]
fn own_screws_are_refused_with_their_field() {
    let path = |change: fn(&mut Screw)| {
        let mut all = vec![own(Head::Flat, "Insert 5"), own(Head::Socket, "Stud 6")];
        change(&mut all[1]);
        check_screws(&all).unwrap_err().path
    };
    assert_eq!(check_screws(&[own(Head::Flat, "Insert 5"), own(Head::Socket, "Insert 5")]), Ok(()));
    assert_eq!(path(|one| one.size = "  ".into()), "screws[1].size");
    assert_eq!(path(|one| one.diameter = f64::NAN), "screws[1].diameter");
    assert_eq!(path(|one| one.counterbore = Some((9.0, 7.0))), "screws[1].counterbore");
    assert_eq!(path(|one| one.counterbore = None), "screws[1].counterbore");
    assert_eq!(path(|one| (one.head, one.angle) = (Head::Flat, None)), "screws[1].angle");
    // One that the standards have, and one that is there already, however it is written.
    assert_eq!(path(|one| one.size = "M6".into()), "screws[1].size");
    assert_eq!(path(|one| *one = own(Head::Flat, "INSERT 5 ")), "screws[1].size");
    for (text, said) in [
        ("kind,size\nflat,A", "screws: the first line names the columns"),
        (
            "kind,size,head,height,angle,bore,bore_depth,source\nround,A,5,1,,,,x",
            "screws[0].kind: \"round\" is no kind",
        ),
        (
            "kind,size,head,height,angle,bore,bore_depth,source\nhex,A,5 mm,1,,,,x",
            "screws[0].head: \"5 mm\" is no number",
        ),
    ] {
        let fault = read_screws(text).unwrap_err().to_string();
        assert!(fault.starts_with(said), "{fault}");
    }
}
