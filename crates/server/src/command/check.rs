//! `steelk check`: a table of call-outs and rules.

use std::path::Path;
use std::process::ExitCode;

use steelk_core::audit::ASK;
use steelk_core::finding::Severity;
use steelk_core::piece::Made;
use steelk_core::proof::{Accepted, Level, RuleOutcome, Verdict};

use super::read_piece;
use super::say::say;
use crate::api::download::as_variant;
use crate::audited::audited;
use crate::files::Shop;

/// How a rule stands, in words: "2 broken, 1 hint".
fn stands(rule: &RuleOutcome) -> String {
    let told =
        [(rule.broken, "broken"), (rule.accepted, "accepted"), (rule.doubtful, "doubtful"), (rule.hints, "to know")];
    let told: Vec<String> =
        told.iter().filter(|(count, _)| *count > 0).map(|(count, word)| format!("{count} {word}")).collect();
    if told.is_empty() { "holds".into() } else { told.join(", ") }
}

pub(super) fn run(path: &Path, variant: Option<&str>, shop: &Shop) -> ExitCode {
    let piece = match read_piece(path).and_then(|piece| as_variant(piece, variant).map_err(|problem| problem.detail)) {
        Ok(piece) => piece,
        Err(fault) => {
            eprintln!("steelk: {fault}");
            return ExitCode::from(2);
        }
    };
    let outcome = audited(&piece, shop.workshop());
    say!("{} {}", piece.mark, piece.title);
    say!("{:<6} {:<28} {:>14} {:>22} {:>14}  verdict", "name", "what", "value", "tolerance", "measured");
    for (callout, proof) in piece.callouts.iter().zip(&outcome.callouts) {
        let verdict = match proof.verdict {
            Verdict::Holds => "holds".to_string(),
            Verdict::Off => format!("off {}", proof.off_by),
            Verdict::Unplaced => format!("unplaced: {}", proof.reason),
        };
        say!(
            "{:<6} {:<28} {:>14} {:>22} {:>14}  {verdict}",
            callout.name,
            callout.text,
            proof.value_text,
            proof.tolerance_text,
            proof.measured_text
        );
    }
    for rule in &outcome.rules {
        say!("rule   {:<48} {}", rule.title, stands(rule));
    }
    for breach in &outcome.breaches {
        let word = match breach.level {
            Level::Broken => "broken",
            Level::Doubtful => "doubt",
            Level::Hint => "hint",
        };
        match &breach.accepted {
            Some(Accepted { reason, by, on }) => say!("accept {}: {reason} ({by}, {on})", breach.message),
            None => say!("{word:<6} {}. {}", breach.message, breach.way_out),
        }
    }
    for finding in &outcome.findings {
        let word = match finding.severity {
            Severity::Error => "error",
            Severity::Warning => "note",
            Severity::Hint => "hint",
        };
        let place =
            finding.operation.as_ref().or(finding.callout.as_ref()).map(|name| format!("{name}: ")).unwrap_or_default();
        say!("{word:<6} {place}{}. {}", finding.message, finding.way_out);
    }
    let faults = outcome.audit.faults();
    say!(
        "audit  {:<48} {}",
        format!("{} figures found twice", outcome.audit.pairs.len()),
        match faults.len() {
            0 => "agree".to_string(),
            count => format!("{count} differ"),
        }
    );
    for fault in &faults {
        say!("differs {fault}. {ASK}");
    }
    for left in &outcome.audit.left_out {
        say!("note   not checked: {left}");
    }
    let refused = outcome.findings.iter().any(|one| one.severity == Severity::Error);
    let empty = outcome.made.as_ref().is_none_or(Made::is_empty);
    let broken = !faults.is_empty() || outcome.broken().next().is_some();
    let callouts = piece.callouts.iter().zip(&outcome.callouts);
    let off = callouts.into_iter().any(|(callout, proof)| match proof.verdict {
        Verdict::Holds => false,
        Verdict::Off => true,
        // A number that drives the work and is measured nowhere is no fault by itself.
        Verdict::Unplaced => callout.measure.is_some() || !outcome.resolved.drives.contains_key(&callout.name),
    });
    ExitCode::from(if refused || empty {
        2
    } else if broken || off {
        1
    } else {
        0
    })
}
