//! Programs of real pieces through the simulated cutter, and programs with faults put into them.

use crate::common::{demo, made_all, make, plate};
use steelk_cutter::FaultKind;

#[test]
fn every_demo_piece_comes_out_as_it_was_wanted() {
    for (name, json) in demo() {
        for (mark, made) in made_all(&json) {
            let name = format!("{name}, {mark}");
            let found = made.inspect(&made.text).unwrap_or_else(|fault| panic!("{name}: {fault}"));
            assert!(found.holds, "{name}: {:#?}", found.faults);
            assert!(found.worst <= 0.002, "{name}: off by {}", found.worst);
            assert_eq!(found.contours.len(), made.wanted.holes.len() + 1, "{name}");
            println!("{name}: worst {} seconds {}", found.worst, found.seconds);
        }
    }
}

const BASE: &str = r#"{"rectangle":{"width":"120 mm","depth":"80 mm"}}"#;
const HOLES: &str = r#",{"name":"bore","do":{"drill":{"panel":"base","diameter":"20 mm"}}},
    {"name":"slot","do":{"cut":{"panel":"base","slot":{"length":"20 mm","width":"8 mm"},
      "place":{"from":[{"edge":"base.left","distance":"25 mm"},{"edge":"base.front","distance":"15 mm"}]}}}},
    {"name":"window","do":{"cut":{"panel":"base","width":"14 mm","height":"10 mm",
      "place":{"from":[{"edge":"base.right","distance":"20 mm"},{"edge":"base.front","distance":"15 mm"}]}}}}"#;

#[test]
fn leads_of_both_shapes_and_tabs_leave_the_part_whole() {
    for cutter in ["laser-example", "plasma-example", "waterjet-example"] {
        for lead in ["arc", "line"] {
            for tabs in ["", r#","tabs":{"count":"3","width":"1.2 mm"}"#] {
                let cutting = format!(r#"{{"cutter":"{cutter}","lead":"{lead}"{tabs}}}"#);
                let made = make(&plate("3 mm", BASE, HOLES, &cutting));
                let found = made.inspect(&made.text).expect("it runs");
                assert!(found.holds, "{cutting}: {:#?}", found.faults);
                assert_eq!(found.tabs, if tabs.is_empty() { 0 } else { 3 });
            }
        }
    }
}

fn faults(text: &str) -> Vec<FaultKind> {
    let made = make(&plate("3 mm", BASE, HOLES, "{}"));
    let found = made.inspect(text).expect("it runs");
    assert!(!found.holds);
    found.faults.iter().map(|one| one.kind).collect()
}

fn sound() -> String {
    make(&plate("3 mm", BASE, HOLES, "{}")).text
}

/// Takes the block of one cut out of a program.
fn without(text: &str, label: &str) -> String {
    let start = text.find(&format!("(CUT {label})")).expect("the cut is there");
    let end = start + text[start..].find("M5").expect("the tool goes off");
    let end = end + text[end..].find('\n').expect("a line ends") + 1;
    format!("{}{}", &text[..start], &text[end..])
}

#[test]
fn a_missing_hole_is_caught() {
    let found = faults(&without(&sound(), "BORE"));
    assert_eq!(found, [FaultKind::NotCut]);
}

/// Measured by two at a time, a part has the same figures and the same faults, in the same order.
#[test]
fn what_is_found_does_not_depend_on_a_second_core() {
    let made = make(&plate("3 mm", BASE, HOLES, "{}"));
    let later = made.text.replacen("X", "X0.3", 3);
    for text in [sound(), without(&sound(), "BORE"), without(&sound(), "SLOT"), sound().replace("G41", "G40"), later] {
        let (alone, together) = (made.inspect(&text), steelk_core::beside::lent(|| made.inspect(&text)));
        assert_eq!(alone, together);
    }
}

#[test]
fn wrong_units_are_caught() {
    assert_eq!(faults(&sound().replace("G21", "G20")), [FaultKind::Units]);
}

/// The same program with its kerf laid to the other side: made for a part whose contours stand a kerf further out or in.
#[test]
fn the_kerf_on_the_wrong_side_is_caught() {
    let made = make(&plate("3 mm", BASE, HOLES, "{}"));
    // A hole larger by twice the kerf is what a program for the inside cuts when it is run outside.
    let kerf = made.settings.row.kerf;
    let bigger = HOLES.replace("20 mm\"}}}", &format!("{} mm\"}}}}}}", 20.0 + 2.0 * kerf));
    let other = make(&plate("3 mm", BASE, &bigger, "{}"));
    assert_eq!(faults(&other.text), [FaultKind::KerfSide]);
    // The same for the outside: made for a part smaller by a kerf all round.
    let smaller =
        BASE.replace("120", &format!("{}", 120.0 - 2.0 * kerf)).replace("80", &format!("{}", 80.0 - 2.0 * kerf));
    let moved = HOLES.replace("25 mm", &format!("{} mm", 25.0 - kerf)).replace("15 mm", &format!("{} mm", 15.0 - kerf));
    let other = make(&plate(
        "3 mm",
        &smaller,
        &moved.replace("\"20 mm\"},{\"edge\"", &format!("\"{} mm\"}},{{\"edge\"", 20.0 - kerf)),
        "{}",
    ));
    let shift = kerf;
    let text: String = other
        .text
        .lines()
        .map(|line| {
            let words: Vec<String> = line
                .split(' ')
                .map(|word| match word.chars().next() {
                    Some(axis @ ('X' | 'Y')) if !line.starts_with('(') => {
                        format!("{axis}{:.4}", word[1..].parse::<f64>().expect("a number") + shift)
                    }
                    _ => word.to_string(),
                })
                .collect();
            words.join(" ") + "\n"
        })
        .collect();
    // A cut that comes round a corner from within leaves its tip, too.
    assert!(faults(&text).contains(&FaultKind::KerfSide));
}

#[test]
fn a_lead_that_bites_is_caught() {
    let text = sound();
    // The pierce of the bore moved into the part: the lead runs through metal that is wanted.
    let start = text.find("(CUT BORE)").expect("the bore");
    let line = start + text[start..].find("G0 ").expect("its pierce");
    let end = line + text[line..].find('\n').expect("a line");
    let after = text[end..].find("G3 ").expect("its lead-in") + end;
    let lead_end = after + text[after..].find('\n').expect("a line");
    let lead = &text[after..lead_end];
    let target = lead.split(" I").next().expect("a target").replace("G3", "G1");
    let feed = lead.find(" F").map(|at| &lead[at..]).unwrap_or("");
    // Of the bore, whose path begins at its right: 3 mm further right lies the part.
    let x: f64 = target.split_whitespace().nth(1).and_then(|word| word[1..].parse().ok()).expect("x");
    let y = target.split_whitespace().nth(2).expect("y");
    let bad = format!("{}G0 X{} {y}{}{target}{feed}{}", &text[..line], x + 3.0, &text[end..after], &text[lead_end..]);
    let found = faults(&bad);
    assert_eq!(found, [FaultKind::Bite]);
}

#[test]
fn a_hole_cut_after_the_outside_is_caught() {
    let text = sound();
    let start = text.find("(CUT BORE)").expect("the bore");
    let end = start + text[start..].find("M5").expect("off");
    let end = end + text[end..].find('\n').expect("a line") + 1;
    let block = text[start..end].to_string();
    let late = format!("{}{}", &text[..start], &text[end..]).replace("G0 X0 Y0\nM30", &format!("{block}G0 X0 Y0\nM30"));
    assert_eq!(faults(&late), [FaultKind::Order]);
}

#[test]
fn a_program_for_another_kerf_is_caught() {
    let found = faults(&sound().replace("(KERF 0.18 MM)", "(KERF 0.9 MM)"));
    assert_eq!(found, [FaultKind::Kerf]);
    let made = make(&plate("3 mm", BASE, HOLES, r#"{"cutter":"waterjet-example"}"#));
    // The waterjet's program run on the laser: every edge is off by half the difference.
    let found = faults(&made.text.replace("KERF 0.9", "KERF 0.18"));
    assert!(found.contains(&FaultKind::NotCut), "{found:?}");
}

#[test]
fn a_program_cut_short_is_caught() {
    let text = sound();
    let end = text.find("(CUT OUTSIDE)").expect("the outside");
    let found = faults(&text[..end]);
    assert!(found.contains(&FaultKind::End) && found.contains(&FaultKind::NotCut), "{found:?}");
}

#[test]
fn tabs_that_are_not_there_are_caught() {
    let made = make(&plate("3 mm", BASE, HOLES, r#"{"tabs":{"count":"2","width":"1 mm"}}"#));
    let whole = sound();
    let found = made.inspect(&whole).expect("it runs");
    assert!(found.faults.iter().any(|one| one.kind == FaultKind::Tabs), "{:?}", found.faults);
}

/// A fault as small as a hundredth and a half of a millimetre: a coordinate of the bore moved.
#[test]
fn an_outline_a_little_off_is_caught() {
    let made = make(&plate("3 mm", BASE, HOLES, "{}"));
    let near = make(&plate("3 mm", BASE, &HOLES.replace("\"20 mm\"}}}", "\"20.05 mm\"}}}"), "{}"));
    let found = made.inspect(&near.text).expect("it runs");
    assert!(!found.holds, "{found:?}");
    let nearer = make(&plate("3 mm", BASE, &HOLES.replace("\"20 mm\"}}}", "\"20.01 mm\"}}}"), "{}"));
    let found = made.inspect(&nearer.text).expect("it runs");
    assert!(found.holds, "within the tolerance of 0.01 mm: {found:?}");
    assert!((found.worst - 0.005).abs() < 0.001);
    let bore = found.contours.iter().find(|one| one.name == "bore").expect("the bore");
    assert!((bore.diameter.expect("round") - 20.01).abs() < 0.002);
}
