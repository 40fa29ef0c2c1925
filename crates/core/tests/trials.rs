//! Random pieces over the whole vocabulary: whatever is built without an error agrees with itself in every figure that is found
//! twice. 200 cases a family here; `STEELK_CASES=10000 cargo test --release -p steelk-core --test trials -- --nocapture` for the
//! long run.

#[path = "common/trials.rs"]
mod trials;

use std::collections::BTreeMap;

use serde_json::Value;
use steelk_core::piece::{Options, Piece, audit_fully, evaluate};
use steelk_core::release::ready;

/// Runs a family: counts what was built and what was refused, and insists that nothing differs.
fn family(name: &str, make: fn(u64) -> Value, least_built: u64) {
    let (mut built, mut refused, mut left) = (0u64, 0u64, BTreeMap::<String, u64>::new());
    let mut faults = Vec::new();
    let cases = trials::cases(200);
    for seed in 0..cases {
        let document = make(seed);
        let piece =
            Piece::read(document.to_string().as_bytes()).unwrap_or_else(|fault| panic!("{name} {seed}: {fault}"));
        let mut outcome = evaluate(&piece, Options::default());
        // What is kept back for a reason of the piece's own: an error, a clash, ends that cross.
        let audit = std::mem::take(&mut outcome.audit);
        if ready(&piece, &outcome).is_err() {
            refused += 1;
            continue;
        }
        built += 1;
        outcome.audit = audit;
        audit_fully(&mut outcome);
        for why in &outcome.audit.left_out {
            *left.entry(why.split(": ").last().unwrap_or_default().chars().take(60).collect()).or_default() += 1;
        }
        let own = outcome.audit.faults();
        if !own.is_empty() {
            faults.push(format!("{name} {seed}: {}\n{document}", own.join("\n  ")));
        }
    }
    println!("{name}: {cases} cases, {built} built, {refused} refused in words; not checked: {left:?}");
    assert!(faults.is_empty(), "{} of {built} differ:\n{}", faults.len(), faults[..faults.len().min(3)].join("\n\n"));
    assert!(built * 100 >= least_built * cases, "only {built} of {cases} were built");
}

#[test]
fn plates_agree_with_themselves() {
    family("plates", trials::plate, 25);
}

#[test]
fn sheets_agree_with_themselves() {
    family("sheets", trials::sheet, 25);
}

#[test]
fn frames_agree_with_themselves() {
    family("frames", trials::frame, 25);
}
