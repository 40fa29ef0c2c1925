//! Programs of transitions: blanks with the finest steps there are (reliefs beside many brake lines) through the simulated cutter.

use crate::common::made_all;
use serde_json::json;
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_cutter::{Fault, FaultKind};
use steelk_testing::trials::{self, Dice};

/// No arc of a program ends where it begins, read from its text alone: a control takes that for a whole turn.
fn no_whole_turns(name: &str, text: &str) {
    let mut here = String::new();
    let mut arcs = 0;
    for line in text.lines() {
        let words: Vec<&str> = line.split_whitespace().collect();
        let place: Vec<&str> = words.iter().copied().filter(|word| word.starts_with(['X', 'Y'])).collect();
        if place.is_empty() || words[0].starts_with('(') {
            continue;
        }
        let there = place.join(" ");
        if matches!(words[0], "G2" | "G3") {
            arcs += 1;
            assert_ne!(there, here, "{name}: {line}");
        }
        here = there;
    }
    assert!(arcs > 0, "{name} has no arc to read");
}

#[test]
fn programs_of_random_transitions_leave_the_part() {
    let most = trials::cases(25);
    let (mut programs, mut stay, mut narrow, mut seed) = (0, 0, 0, 0);
    while programs < most {
        seed += 1;
        let mut dice = Dice::new(seed + 600);
        let mut of = |low: usize, high: usize| (low * 100 + dice.below((high - low) * 100)) as f64 / 100.0;
        let mm = |value: f64| format!("{value} mm");
        let (width, depth, height) = (of(150, 400), of(120, 350), of(80, 300));
        let (round, inlet) = (of(80, 200), [of(90, 250), of(90, 250)]);
        let (over, back, thickness, wide) = (of(0, 120) - 60.0, of(0, 80) - 40.0, of(1, 3), of(12, 30));
        let upper = match dice.below(3) {
            0 => json!({"rectangle": {"width": mm(inlet[0]), "depth": mm(inlet[1])}}),
            1 => json!({"obround": {"length": mm(inlet[0] + 60.0), "width": mm(inlet[1].min(inlet[0]))}}),
            _ => json!({"circle": {"diameter": mm(round)}}),
        };
        let mut fields = json!({
            "lower": {"rectangle": {"width": mm(width), "depth": mm(depth)}}, "upper": upper, "height": mm(height),
            "offset_x": mm(over), "offset_y": mm(back), "lines": (2 + dice.below(8)).to_string(),
            "corners": if dice.one_in(3) { "seams" } else { "bent" }, "sizes": if dice.one_in(2) { "inside" } else { "outside" },
        });
        if dice.one_in(2) {
            fields["flanges"] = json!([{"end": "lower", "width": mm(wide)}]);
        }
        let cutter = ["laser-example", "plasma-example", "waterjet-example"][dice.below(3)];
        let document = json!({
            "steelk": 1, "kind": "sheet", "mark": "T-1", "title": "test", "quantity": 1,
            "unit": if dice.one_in(3) { "in" } else { "mm" },
            "stock": {"material": "S275", "thickness": mm(thickness)},
            "bending": {"radius": "2 mm", "method": {"k_factor": "0.42"}}, "cutting": {"cutter": cutter},
            "operations": [{"name": "hood", "do": {"transition": fields}}],
        })
        .to_string();
        let piece = Piece::read(document.as_bytes()).expect("a document");
        let outcome = evaluate(&piece, Options::default());
        let refused = outcome.findings.iter().any(|one| one.severity == Severity::Error);
        if refused || outcome.breaches.iter().any(|one| one.rule == "flat_overlap") {
            continue;
        }
        for (mark, made) in made_all(&document) {
            let name = format!("seed {seed}, {mark}, {cutter}");
            no_whole_turns(&name, &made.text);
            let found = made.inspect(&made.text).unwrap_or_else(|fault| panic!("{name}: {fault}"));
            // The kerf does not come into a notch whose mouth is narrower: that it stays is told. Nothing else may be wrong.
            let stays = |fault: &Fault| fault.kind == FaultKind::NotCut;
            assert!(found.faults.iter().all(stays), "{name}: {:#?} {document}", found.faults);
            narrow += usize::from(!found.holds && cutter == "laser-example");
            stay += usize::from(!found.holds);
            programs += 1;
        }
    }
    println!(
        "{programs} programs; in {stay} the kerf leaves metal in a notch, in {narrow} of them that of 0.2 mm or less"
    );
    assert!(5 * stay < programs as usize && 100 * narrow < programs as usize, "{stay} and {narrow} of {programs}");
}
