//! The one gate in front of every file: whether what a piece came to may be given out.

use crate::audit::ASK;
use crate::finding::Severity;
use crate::piece::{Made, Outcome, Piece};
use crate::proof::{WhenBroken, when_broken};

/// Why nothing is given out, in words for whoever asked.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("{detail}")]
pub struct Withheld {
    /// In a few words.
    pub title: &'static str,
    /// What keeps it back, with the values, and what to do.
    pub detail: String,
}

/// What a piece came to, where its files may be given out.
///
/// # Errors
/// [`Withheld`]: an operation is bad, panels lie over each other in the flat, members share space, nothing is built yet, or two
/// ways to find one figure differ.
pub fn ready<'a>(piece: &Piece, outcome: &'a Outcome) -> Result<&'a Made, Withheld> {
    let kind = piece.kind.row();
    let not_yet = |detail: String| Withheld { title: "Nothing to cut yet", detail };
    if let Some(bad) = outcome.findings.iter().find(|one| one.severity == Severity::Error) {
        let place = bad.operation.as_ref().or(bad.callout.as_ref()).map(|name| format!("{name}: ")).unwrap_or_default();
        return Err(not_yet(format!("{}. {place}{}. {}", kind.withheld, bad.message, bad.way_out)));
    }
    if let Some(breach) = outcome.breaches.iter().find(|breach| when_broken(&breach.rule) == WhenBroken::Withholds) {
        return Err(not_yet(format!("{}. {}", breach.message, breach.way_out)));
    }
    if let Some(fault) = outcome.audit.faults().first() {
        return Err(Withheld { title: "Two figures differ", detail: format!("{}: {fault}. {ASK}", piece.mark) });
    }
    match &outcome.made {
        Some(made) if !made.is_empty() => Ok(made),
        _ => Err(not_yet(kind.nothing_yet.into())),
    }
}
