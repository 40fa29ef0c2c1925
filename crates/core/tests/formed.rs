//! What tests of pressed forms and of ribs ask of a piece.

use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, audit_fully, evaluate};
use steelk_testing::sound;

/// The outcome of a sound piece, each figure found twice alike and nothing left out.
pub fn audited(piece: &Piece) -> Outcome {
    let mut outcome = sound(piece);
    audit_fully(&mut outcome);
    let off: Vec<String> = outcome.audit.pairs.iter().filter(|one| !one.agrees()).map(|one| one.words()).collect();
    assert!(off.is_empty() && outcome.audit.left_out.is_empty(), "{off:?} {:?}", outcome.audit.left_out);
    outcome
}

/// The one error of a piece that is refused.
pub fn refused(piece: &Piece) -> String {
    let outcome = evaluate(piece, Options::default());
    let errors: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    assert_eq!(errors.len(), 1, "{errors:?}");
    assert!(!errors[0].way_out.is_empty());
    errors[0].message.clone()
}

/// What a form's metal differs by, as the audit lists it.
pub fn differs(outcome: &Outcome) -> f64 {
    outcome.audit.pairs.iter().filter(|one| one.check == "form").map(|one| one.one.value).sum()
}
