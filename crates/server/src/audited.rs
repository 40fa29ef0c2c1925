//! Pieces evaluated with every check that stands before a file, kept by what they are made from.

use std::collections::VecDeque;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::{Arc, LazyLock, Mutex};

use steelk_core::audit::Audit;
use steelk_core::frame::frame_solids;
use steelk_core::piece::{Options, Outcome, Piece, audit_fully, evaluate};
use steelk_core::sheet::folded_body;
use steelk_core::stock::Workshop;
use steelk_formats::audit::{AsRead, read_back, read_solids};

use crate::saw_line::saw_runs;

/// So many pieces' audits are kept.
const MOST_KEPT: usize = 64;

/// What the checks before a file came to.
struct Kept {
    key: u64,
    audit: Audit,
    as_read: Option<AsRead>,
}

static KEPT: LazyLock<Mutex<VecDeque<Arc<Kept>>>> = LazyLock::new(|| Mutex::new(VecDeque::new()));

/// The whole document and the release of the rules: what an audit follows from. The collision of two documents' keys would
/// pass the wrong audit, at a chance of one in 2^64 a pair.
fn key(piece: &Piece) -> u64 {
    let mut hasher = DefaultHasher::new();
    piece.write().hash(&mut hasher);
    env!("CARGO_PKG_VERSION").hash(&mut hasher);
    hasher.finish()
}

/// Evaluates a piece for a shop and makes every check that stands before a file.
pub fn audited(piece: &Piece, shop: Workshop<'_>) -> Outcome {
    audited_as_read(piece, shop).0
}

/// As [`audited`], with the blank as the cutter reads it from its file.
pub fn audited_as_read(piece: &Piece, shop: Workshop<'_>) -> (Outcome, Option<AsRead>) {
    let mut outcome = evaluate(piece, Options { shop, ..Options::default() });
    let key = key(piece);
    let known = KEPT.lock().ok().and_then(|kept| kept.iter().find(|one| one.key == key).cloned());
    if let Some(known) = known {
        outcome.audit = known.audit.clone();
        return (outcome, known.as_read.clone());
    }
    audit_fully(&mut outcome);
    let mut as_read = None;
    let mut read_again = Audit::default();
    if let Some(sheets) = outcome.sheets() {
        let mut solids = Vec::new();
        for blank in sheets.blanks() {
            let (audit, read) = read_back(&blank.part, outcome.resolved.die);
            read_again.extend(audit);
            // What is looked at beside the piece is of a piece of one blank.
            as_read = read.filter(|_| sheets.only().is_some());
            // A part that has no solid says so where its file is asked for.
            solids.extend(folded_body(&blank.part.flat).ok());
        }
        if solids.len() == sheets.blanks().len() {
            let solids: Vec<_> = solids.into_iter().map(|body| (piece.mark.clone(), body)).collect();
            read_again.extend(read_solids(&solids, &piece.mark));
        }
    }
    if let Some(frame) = outcome.frame() {
        read_again.extend(read_solids(&frame_solids(&frame.made).0, &piece.mark));
    }
    outcome.audit.extend(read_again);
    // What the simulated line makes of the machine files, once nothing else keeps them back.
    if outcome.frame().is_some()
        && let Ok(runs) = saw_runs(piece, &outcome)
    {
        let wrong = runs.into_iter().filter(|run| run.has_file && !run.good);
        outcome.audit.impossible.extend(
            wrong.map(|run| {
                format!("the machine file of {} makes another piece than the list's: {}", run.mark, run.words)
            }),
        );
    }
    if let Ok(mut kept) = KEPT.lock() {
        kept.push_back(Arc::new(Kept { key, audit: outcome.audit.clone(), as_read: as_read.clone() }));
        while kept.len() > MOST_KEPT {
            kept.pop_front();
        }
    }
    (outcome, as_read)
}
