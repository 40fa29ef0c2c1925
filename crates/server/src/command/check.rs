//! `steelk check`: a table of call-outs and rules.

use std::path::Path;
use std::process::ExitCode;

use steelk_core::audit::ASK;
use steelk_core::finding::Severity;
use steelk_core::proof::Verdict;

use super::read_piece;
use crate::audited::audited;

pub(super) fn run(path: &Path) -> ExitCode {
    let piece = match read_piece(path) {
        Ok(piece) => piece,
        Err(fault) => {
            eprintln!("steelk: {fault}");
            return ExitCode::from(2);
        }
    };
    let outcome = audited(&piece);
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
    let faults = outcome.audit.faults();
    println!(
        "audit  {:<48} {}",
        format!("{} figures found twice", outcome.audit.pairs.len()),
        match faults.len() {
            0 => "agree".to_string(),
            count => format!("{count} differ"),
        }
    );
    for fault in &faults {
        println!("differs {fault}. {ASK}");
    }
    for left in &outcome.audit.left_out {
        println!("note   not checked: {left}");
    }
    let empty = outcome.part.is_none() && outcome.frame.as_ref().is_none_or(|frame| frame.made.list.lines.is_empty());
    let bad = empty
        || !faults.is_empty()
        || outcome.callouts.iter().any(|one| one.verdict != Verdict::Holds)
        || !outcome.breaches.is_empty()
        || outcome.findings.iter().any(|one| one.severity == Severity::Error);
    if bad { ExitCode::from(1) } else { ExitCode::SUCCESS }
}
