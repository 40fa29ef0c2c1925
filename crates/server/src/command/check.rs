//! `steelk check`: a table of call-outs and rules.

use std::path::Path;
use std::process::ExitCode;

use steelk_core::finding::Severity;
use steelk_core::piece::{Options, evaluate};
use steelk_core::proof::Verdict;

use super::read_piece;

pub(super) fn run(path: &Path) -> ExitCode {
    let piece = match read_piece(path) {
        Ok(piece) => piece,
        Err(fault) => {
            eprintln!("steelk: {fault}");
            return ExitCode::from(2);
        }
    };
    let outcome = evaluate(&piece, Options::default());
    println!("{} {}", piece.mark, piece.title);
    println!("{:<6} {:<28} {:>14} {:>22} {:>14}  verdict", "name", "what", "value", "tolerance", "measured");
    for (callout, proof) in piece.callouts.iter().zip(&outcome.callouts) {
        let verdict = match proof.verdict {
            Verdict::Holds => "holds".to_string(),
            Verdict::Off => format!("off {}", proof.off_by),
            Verdict::Unplaced => format!("unplaced: {}", proof.reason),
        };
        println!(
            "{:<6} {:<28} {:>14} {:>22} {:>14}  {verdict}",
            callout.name, callout.text, proof.value_text, proof.tolerance_text, proof.measured_text
        );
    }
    for rule in &outcome.rules {
        println!(
            "rule   {:<48} {}",
            rule.title,
            if rule.broken == 0 { "holds".to_string() } else { format!("{} broken", rule.broken) }
        );
    }
    for breach in &outcome.breaches {
        println!("broken {}. {}", breach.message, breach.way_out);
    }
    for finding in outcome.findings.iter().filter(|one| one.severity != Severity::Hint) {
        let word = if finding.severity == Severity::Error { "error" } else { "note" };
        let place =
            finding.operation.as_ref().or(finding.callout.as_ref()).map(|name| format!("{name}: ")).unwrap_or_default();
        println!("{word:<6} {place}{}. {}", finding.message, finding.way_out);
    }
    let empty = outcome.part.is_none() && outcome.frame.as_ref().is_none_or(|frame| frame.made.list.lines.is_empty());
    let bad = empty
        || outcome.callouts.iter().any(|one| one.verdict != Verdict::Holds)
        || !outcome.breaches.is_empty()
        || outcome.findings.iter().any(|one| one.severity == Severity::Error);
    if bad { ExitCode::from(1) } else { ExitCode::SUCCESS }
}
