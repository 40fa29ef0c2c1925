//! Call-outs held against what was built, and those that nothing cites.

use crate::finding::Finding;
use crate::proof::{CallOutProof, Subject, prove};

use super::{Piece, Resolved};

/// Every call-out measured back on what was built.
pub(super) fn prove_all(piece: &Piece, resolved: &Resolved, subject: Subject<'_>) -> Vec<CallOutProof> {
    let prove_one = |callout: &super::CallOut| {
        prove(
            subject,
            &resolved.names,
            &callout.name,
            resolved.callouts[&callout.name].clone(),
            callout.tolerance.as_ref(),
            piece.general_tolerance,
            callout.measure.as_ref(),
            resolved.drives.get(&callout.name).cloned().unwrap_or_default(),
        )
    };
    piece.callouts.iter().map(prove_one).collect()
}

/// Call-outs that measure the same as one before them are told: of two numbers for one thing one is too many.
pub(super) fn double_callouts(piece: &Piece, callouts: &[CallOutProof], findings: &mut Vec<Finding>) {
    for (at, callout) in piece.callouts.iter().enumerate() {
        let Some(measure) = &callout.measure else { continue };
        let Some(first) = piece.callouts[..at].iter().position(|other| other.measure.as_ref() == Some(measure)) else {
            continue;
        };
        // What drives nothing says only again what the other does.
        let idle = |at: usize| callouts[at].drives.is_empty();
        let (fault, other) = if idle(first) && !idle(at) { (first, at) } else { (at, first) };
        let (fault, other) = (&piece.callouts[fault].name, &piece.callouts[other].name);
        findings.push(
            Finding::hint(
                format!("{fault} measures the same as {other}"),
                format!("If the drawing gives it once, take {fault} out; if it is another length, measure that."),
            )
            .of_callout(fault),
        );
    }
}

/// Call-outs that nothing uses and nothing measures are told.
pub(super) fn idle_callouts(piece: &Piece, callouts: &[CallOutProof], findings: &mut Vec<Finding>) {
    for (callout, proof) in piece.callouts.iter().zip(callouts) {
        if callout.measure.is_none() && proof.drives.is_empty() {
            findings.push(
                Finding::warning(
                    format!("nothing uses {} and nothing measures it", callout.name),
                    "Cite it in an operation, or say what it measures.",
                )
                .of_callout(&callout.name),
            );
        }
    }
}
