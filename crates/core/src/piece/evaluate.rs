//! The whole pipeline: piece, numbers, geometry, measures, proofs.

use crate::audit::witnessed;
use crate::proof::{Subject, accept};
use crate::space::Mesh;

use super::kinds::{Asked, MadeFrom, sheet};
use super::outcome::{Options, Outcome};
use super::prove::{double_callouts, idle_callouts, prove_all};
use super::{Need, Piece, resolve};

/// Runs the whole pipeline. Never fails: what is wrong is in `findings`, and the good operations stand.
pub fn evaluate(piece: &Piece, options: Options<'_>) -> Outcome {
    let show = options.show.unwrap_or(piece.unit);
    let kind = piece.kind.row();
    let mut resolved = resolve(piece, options.upto, show);
    let mut findings = std::mem::take(&mut resolved.findings);
    let mut shaped = (kind.make)(Asked { piece, resolved: &mut resolved, options, show });
    findings.extend(std::mem::take(&mut shaped.findings));
    let idle = accept(&piece.accepted, &mut shaped.rules, &mut shaped.breaches);
    // Up to a step there is less to break a rule, and what is accepted of a piece may be of one of its variants.
    let whole = options.upto.is_none() && shaped.made.is_some();
    if whole && !options.variant && piece.variants.is_empty() && options.need == Need::All {
        findings.extend(idle);
    }
    let subject = shaped.made.as_ref().map_or(Subject::Nothing, |made| (kind.subject)(piece, made));
    let callouts = prove_all(piece, &resolved, subject);
    idle_callouts(piece, &callouts, &mut findings);
    double_callouts(piece, &callouts, &mut findings);
    let mut audit = shaped.audit;
    if options.need == Need::All {
        let measured = piece.callouts.iter().zip(&callouts);
        audit.extend(witnessed(measured.filter_map(|(one, proof)| Some((one.measure.as_ref()?, proof)))));
    }
    Outcome {
        states: std::mem::take(&mut resolved.states),
        resolved,
        made: shaped.made,
        mesh: shaped.mesh,
        callouts,
        rules: shaped.rules,
        breaches: shaped.breaches,
        findings,
        cautions: shaped.cautions,
        audit,
    }
}

/// The checks that a file waits for, added to an outcome's audit; nothing where they were made already.
pub fn audit_fully(outcome: &mut Outcome) {
    if outcome.audit.full {
        return;
    }
    if let Some(made) = &outcome.made {
        made.audit_fully(&mut outcome.audit);
    }
    outcome.audit.full = true;
}

/// Only the mesh of a piece, for the fold slider: no proofs, no rules. Nothing where there is nothing to fold.
pub fn fold_only(piece: &Piece, options: Options<'_>) -> Mesh {
    if piece.kind.row().made_from != MadeFrom::Sheet {
        return Mesh::default();
    }
    let show = options.show.unwrap_or(piece.unit);
    let mut resolved = resolve(piece, options.upto, show);
    sheet::fold_only(Asked { piece, resolved: &mut resolved, options, show })
}
