//! The one gate in front of every file: whether what a piece came to may be given out, and what its papers say of its rules.

use crate::audit::ASK;
use crate::finding::Severity;
use crate::piece::{Made, Outcome, Piece};
use crate::proof::{CallOutProof, Verdict, WhenBroken, when_broken};

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
    if piece.stock.is_open() {
        let of = [piece.stock.material.as_str(), piece.stock.thickness.as_str()].join(" ");
        return Err(Withheld {
            title: "Stock not confirmed",
            detail: format!(
                "Nobody has said yet that {} is made of {}. Confirm its stock on the bench.",
                piece.mark,
                of.trim()
            ),
        });
    }
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

/// The most broken rules, and acceptances, that a paper tells one by one; all are counted, and the report has them all.
const MOST_TOLD: usize = 6;

/// What stamps the papers of a piece that is not released: "NOT RELEASED: 2 rules broken, 1 call-out off". A rule that is broken and
/// nobody accepted does, and a number of the drawing that is out of its tolerance.
pub fn rule_stamp(outcome: &Outcome) -> Option<String> {
    let said = |count: usize, one: &str, many: &str| match count {
        0 => None,
        1 => Some(format!("1 {one}")),
        _ => Some(format!("{count} {many}")),
    };
    let parts = [
        said(outcome.broken().count(), "rule broken", "rules broken"),
        said(off(outcome).count(), "call-out off", "call-outs off"),
    ];
    let parts: Vec<String> = parts.into_iter().flatten().collect();
    (!parts.is_empty()).then(|| format!("NOT RELEASED: {}", parts.join(", ")))
}

/// Call-outs that are out of their tolerance.
fn off(outcome: &Outcome) -> impl Iterator<Item = &CallOutProof> {
    outcome.callouts.iter().filter(|one| one.verdict == Verdict::Off)
}

/// What the papers of a piece say of rules that are broken, of call-outs that are off, and of what is accepted with who said so and why, line by line.
pub fn rule_words(outcome: &Outcome) -> Vec<String> {
    let mut lines: Vec<String> =
        outcome.broken().take(MOST_TOLD).map(|breach| format!("broken: {}", breach.message)).collect();
    lines.extend(more(outcome.broken().count(), "broken"));
    lines.extend(off(outcome).take(MOST_TOLD).map(|one| {
        format!(
            "off: call-out {} is {} and measures {}, off by {}",
            one.name, one.value_text, one.measured_text, one.off_by
        )
    }));
    lines.extend(more(off(outcome).count(), "off"));
    lines.extend(
        outcome
            .accepted()
            .take(MOST_TOLD)
            .map(|(breach, one)| format!("accepted: {}: {} ({}, {})", breach.message, one.reason, one.by, one.on)),
    );
    lines.extend(more(outcome.accepted().count(), "accepted"));
    lines
}

fn more(count: usize, word: &str) -> Option<String> {
    (count > MOST_TOLD).then(|| format!("and {} more {word}, in report.json", count - MOST_TOLD))
}
