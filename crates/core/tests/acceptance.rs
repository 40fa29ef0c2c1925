//! Rules that do not hold and are accepted: what counts, what is asked again, what cannot be.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::proof::{Acceptance, Breach, Level};
use steelk_core::quantity::LengthUnit;
use steelk_core::release::{ready, rule_stamp, rule_words};
use steelk_testing::*;

/// Two holes too near a bend, one of them by the distance given.
fn bracket(distance: &str) -> Piece {
    let hole = |name: &str, left: &str, distance: &str| {
        drill(
            name,
            "up",
            "10 mm",
            json!({"place": {"from": [{"edge": "up.mould-outside", "distance": distance}, {"edge": "up.left", "distance": left}]}}),
        )
    };
    piece(
        "3 mm",
        "3 mm",
        "0.44",
        json!([
            base("120 mm", "80 mm"),
            bend("up", "base.back", "90 deg", "60 mm", json!({})),
            hole("bore", "30 mm", distance),
            hole("other", "90 mm", "15 mm"),
        ]),
    )
}

fn accepting(breach: &Breach) -> Acceptance {
    Acceptance {
        rule: breach.rule.clone(),
        said: breach.said.clone().unwrap_or(breach.message.clone()),
        features: breach.features.clone(),
        reason: "drilled after bending".into(),
        by: "M. Ferro".into(),
        on: "2026-11-29".into(),
    }
}

fn of<'a>(outcome: &'a Outcome, hole: &str) -> &'a Breach {
    let mut own = outcome.breaches.iter().filter(|one| one.rule == "hole_to_bend" && one.features[0] == hole);
    own.next().unwrap_or_else(|| panic!("{hole} is not told of"))
}

fn idle(outcome: &Outcome) -> usize {
    let told = |one: &&steelk_core::finding::Finding| one.field.as_ref().is_some_and(|at| at.starts_with("accepted["));
    outcome.findings.iter().filter(told).inspect(|one| assert_eq!(one.severity, Severity::Hint)).count()
}

#[test]
fn what_is_accepted_is_no_fault_stays_visible_and_is_on_the_papers() {
    let mut made = bracket("15 mm");
    let before = evaluate(&made, Options::default());
    assert_eq!(before.broken().count(), 2);
    assert_eq!(rule_stamp(&before).as_deref(), Some("NOT RELEASED: 2 rules broken"));
    made.accepted = vec![accepting(of(&before, "bore"))];
    let after = evaluate(&made, Options::default());
    let rule = after.rules.iter().find(|one| one.rule == "hole_to_bend").unwrap();
    assert_eq!((rule.broken, rule.accepted), (1, 1));
    assert_eq!(after.broken().map(|one| one.features[0].as_str()).collect::<Vec<_>>(), ["other"]);
    assert_eq!(rule_stamp(&after).as_deref(), Some("NOT RELEASED: 1 rule broken"));
    let own = of(&after, "bore");
    let accepted = own.accepted.as_ref().unwrap();
    assert_eq!((accepted.by.as_str(), accepted.on.as_str(), own.level), ("M. Ferro", "2026-11-29", Level::Broken));
    let words = rule_words(&after);
    assert_eq!(words.len(), 2);
    assert!(words[0].starts_with("broken: other is "), "{words:?}");
    assert!(words[1].starts_with("accepted: bore is ") && words[1].ends_with("(M. Ferro, 2026-11-29)"), "{words:?}");
    made.accepted.push(accepting(of(&before, "other")));
    let both = evaluate(&made, Options::default());
    assert_eq!((both.broken().count(), rule_stamp(&both), both.accepted().count(), idle(&both)), (0, None, 2, 0));
    // A number of the drawing that is off stamps too, and is told with what it measures.
    let mut off = made.clone();
    off.callouts.push(
        serde_json::from_value(json!({"name": "Z", "value": "121 mm", "measure": {"size": {"along": "x"}}})).unwrap(),
    );
    let stamped = evaluate(&off, Options::default());
    assert_eq!(rule_stamp(&stamped).as_deref(), Some("NOT RELEASED: 1 call-out off"), "{:?}", stamped.callouts);
    assert!(rule_words(&stamped).iter().any(|line| line.starts_with("off: call-out Z is 121 mm and measures 120 mm")));
    // The document has it, as it was.
    assert_eq!(Piece::read(made.write().as_bytes()).unwrap(), made);
}

/// Another value is asked again, and the old acceptance is told of; the same value in inches is the same.
#[test]
fn another_value_is_asked_again_and_another_unit_is_not() {
    let mut made = bracket("15 mm");
    let before = evaluate(&made, Options::default());
    made.accepted = vec![accepting(of(&before, "bore")), accepting(of(&before, "other"))];
    let inches = Options { show: Some(LengthUnit::In), ..Options::default() };
    let shown = evaluate(&made, inches);
    assert_eq!((shown.broken().count(), shown.accepted().count(), idle(&shown)), (0, 2, 0));
    assert!(of(&shown, "bore").message.contains(" in "), "{}", of(&shown, "bore").message);
    // Accepted from the screen in inches it is the same acceptance.
    assert_eq!(accepting(of(&shown, "bore")), made.accepted[0]);
    let mut nearer = bracket("14 mm");
    nearer.accepted = made.accepted.clone();
    let again = evaluate(&nearer, Options::default());
    assert_eq!((again.broken().count(), again.accepted().count(), idle(&again)), (1, 1, 1));
    assert!(of(&again, "bore").accepted.is_none());
    // Mended, it is told that nothing is left to accept; up to a step nothing is told, there is less to break.
    let mut mended = bracket("40 mm");
    mended.accepted = made.accepted.clone();
    assert_eq!(idle(&evaluate(&mended, Options::default())), 1);
    assert_eq!(idle(&evaluate(&mended, Options { upto: Some(2), ..Options::default() })), 0);
}

#[test]
fn a_renamed_operation_takes_its_acceptance_along() {
    let mut made = bracket("15 mm");
    let before = evaluate(&made, Options::default());
    made.accepted = vec![accepting(of(&before, "bore")), accepting(of(&before, "other"))];
    for (from, to) in [("bore", "drain"), ("up", "wall"), ("other", "mm")] {
        made = made.with_operation_renamed(from, to).unwrap();
        let after = evaluate(&made, Options::default());
        assert_eq!(
            (after.broken().count(), after.accepted().count(), idle(&after)),
            (0, 2, 0),
            "{from} {to}: {made:?}"
        );
    }
}

/// What keeps files back cannot be accepted, whether the document says so or not; a hint has nothing to accept.
#[test]
fn what_withholds_cannot_be_accepted() {
    let tube =
        |name: &str, lines: Value| json!({"name": name, "do": {"member": {"section": "SHS 50x50x3", "lines": lines}}});
    let path = |name: &str, y: &str| json!({"name": name, "do": {"path": {"start": {"y": y}, "legs": [{"by": {"x": "500 mm"}}]}}});
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "clash", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"},
        "operations": [path("a", "0 mm"), path("b", "20 mm"), tube("bars", json!(["a.1", "b.1"]))],
    });
    let mut made = Piece::read(document.to_string().as_bytes()).unwrap();
    let clash = evaluate(&made, Options::default()).broken().find(|one| one.rule == "member_clash").cloned().unwrap();
    made.accepted = vec![accepting(&clash)];
    let fault = made.check().unwrap_err();
    assert_eq!(fault.path, "accepted[0].rule");
    let outcome = evaluate(&made, Options::default());
    assert!(outcome.broken().any(|one| one.rule == "member_clash") && ready(&made, &outcome).is_err());
    let mut hinted = bracket("40 mm");
    let before = evaluate(&hinted, Options::default());
    let hint = before.breaches.iter().find(|one| one.level == Level::Hint).expect("the standard's larger radius");
    hinted.accepted = vec![accepting(hint)];
    let after = evaluate(&hinted, Options::default());
    assert_eq!((after.accepted().count(), idle(&after)), (0, 1));
}

/// A variant is asked for its own values.
#[test]
fn a_variant_with_another_value_is_asked() {
    let mut made = bracket("D");
    let call_out = |value: &str| json!({"name": "D", "value": value});
    made.callouts = vec![serde_json::from_value(call_out("15 mm")).unwrap()];
    made.variants = serde_json::from_value(json!([{"name": "near", "set": {"D": "14 mm"}}, {"name": "same"}])).unwrap();
    let before = evaluate(&made, Options::default());
    made.accepted = vec![accepting(of(&before, "bore"))];
    let broken = |piece: &Piece| evaluate(piece, Options::default()).broken().count();
    let near = made.variant("near").unwrap();
    assert_eq!([broken(&made), broken(&near), broken(&made.variant("same").unwrap())], [1, 2, 1]);
    // What is accepted of the piece is none of the variant's business, and the other way round.
    assert_eq!(idle(&evaluate(&near, Options { variant: true, ..Options::default() })), 0);
    let own = evaluate(&near, Options::default());
    made.accepted = vec![accepting(of(&own, "bore"))];
    let both = [broken(&made), broken(&made.variant("near").unwrap())];
    assert_eq!((both, idle(&evaluate(&made, Options::default()))), ([2, 1], 0));
}

#[test]
fn an_acceptance_without_reason_name_or_day_is_refused() {
    let mut made = bracket("15 mm");
    let good = accepting(of(&evaluate(&made, Options::default()), "bore"));
    for (field, bad) in [
        ("reason", Acceptance { reason: "  ".into(), ..good.clone() }),
        ("reason", Acceptance { reason: "a\nb".into(), ..good.clone() }),
        ("reason", Acceptance { reason: "a".repeat(301), ..good.clone() }),
        ("by", Acceptance { by: String::new(), ..good.clone() }),
        ("on", Acceptance { on: "today".into(), ..good.clone() }),
        ("on", Acceptance { on: "2026-02-29".into(), ..good.clone() }),
        ("on", Acceptance { on: "2026-13-01".into(), ..good.clone() }),
        ("on", Acceptance { on: "2026-1-1".into(), ..good.clone() }),
        ("on", Acceptance { on: "2026-01-01-01".into(), ..good.clone() }),
    ] {
        made.accepted = vec![good.clone(), bad.clone()];
        assert_eq!(made.check().unwrap_err().path, format!("accepted[1].{field}"), "{bad:?}");
    }
    made.accepted = vec![Acceptance { on: "2028-02-29".into(), ..good }];
    made.check().unwrap();
}
