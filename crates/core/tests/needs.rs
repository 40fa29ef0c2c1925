//! What is asked for less of is the same as far as it goes: a value that is being typed is told what it comes to, and
//! its picture is drawn, without rules, bars and figures found twice.

use serde::Serialize;
use serde_json::Value;
use steelk_core::finding::{Finding, Severity};
use steelk_core::piece::{Need, Options, Outcome, Piece, evaluate};
use steelk_testing::{demo_pieces, trials};

/// What stops a step, and what is said of a field; a mesh that cannot be drawn is no step's fault.
fn stops(outcome: &Outcome) -> Vec<&Finding> {
    outcome
        .findings
        .iter()
        .filter(|one| {
            one.severity == Severity::Error && (one.operation.is_some() || one.field.is_some() || one.callout.is_some())
        })
        .collect()
}

fn told(value: &impl Serialize) -> Value {
    serde_json::to_value(value).expect("it is written")
}

/// How much stops its steps.
fn alike(piece: &Piece, what: &str) -> usize {
    let asked = |need| evaluate(piece, Options { need, ..Options::default() });
    let all = asked(Need::All);
    for need in [Need::Picture, Need::Words] {
        let less = asked(need);
        assert_eq!(stops(&less), stops(&all), "{what}, {need:?}");
        assert_eq!(less.states, all.states, "{what}, {need:?}");
        assert_eq!(told(&less.callouts), told(&all.callouts), "{what}, {need:?}: call-outs");
        assert_eq!(told(&less.resolved.values), told(&all.resolved.values), "{what}, {need:?}: values");
        assert_eq!(less.made.is_some(), all.made.is_some(), "{what}, {need:?}");
        assert!(less.rules.is_empty() && less.breaches.is_empty(), "{what}, {need:?}: rules were not asked for");
        if need == Need::Picture {
            assert_eq!(format!("{:?}", less.mesh), format!("{:?}", all.mesh), "{what}: the picture");
        } else {
            assert!(less.mesh.points.is_empty(), "{what}: no picture was asked for");
        }
    }
    stops(&all).len()
}

#[test]
fn less_of_a_piece_is_the_same_as_far_as_it_goes() {
    for piece in demo_pieces() {
        assert_eq!(alike(&piece, &piece.mark.to_string()), 0);
    }
    let families: [(&str, fn(u64) -> Value); 5] = [
        ("plate", trials::plate),
        ("sheet", trials::sheet),
        ("frame", trials::frame),
        ("joints", trials::joints),
        ("ready", trials::ready),
    ];
    let mut wrong = 0;
    for (family, make) in families {
        for seed in 0..trials::cases(60) {
            let document = make(seed);
            // A step with a number that cannot be read, and one that takes too much, are told as well.
            let mut broken = document.clone();
            if let Some(last) = broken["operations"].as_array_mut().and_then(|all| all.last_mut()) {
                last["do"] = serde_json::json!({"drill": {"panel": "base", "diameter": "9000 mm"}});
            }
            for (document, what) in [(document, "whole"), (broken, "broken")] {
                let Ok(piece) = serde_json::from_value::<Piece>(document) else { continue };
                let stopped = alike(&piece, &format!("{family} {seed}, {what}"));
                assert!(what == "whole" || stopped > 0, "{family} {seed}: a hole of 9 m stops its step");
                wrong += stopped;
            }
        }
    }
    assert!(wrong > 0);
}
