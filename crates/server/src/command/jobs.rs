//! `steelk jobs`, `steelk put-back`: the rack without a browser, with what was deleted.

use std::path::Path;

use steelk_core::piece::Piece;
use steelk_store::Store;

use super::keep::{before_writing, opened};
use super::say::say;
use crate::marks::marks_of;
use crate::summary::said_of;

/// Lists jobs with their pieces; with `deleted` those alone that were deleted, or that have a piece that was.
pub(super) fn list(data: &Path, deleted: bool) -> Result<(), String> {
    let store = opened(&data.join("steelk.db"))?;
    let words = |fault: steelk_store::StoreError| fault.to_string();
    let mut shown = 0;
    for job in store.all_jobs().map_err(words)? {
        let pieces = store.all_pieces(job.id).map_err(words)?;
        let own: Vec<_> = pieces.iter().filter(|piece| deleted == (piece.removed || job.removed)).collect();
        if job.removed != deleted && own.is_empty() {
            continue;
        }
        shown += 1;
        let due = job.due.as_ref().map(|due| format!(", due {due}")).unwrap_or_default();
        say!("job {:<4} {} {}{due}{}", job.id, job.number, job.title, if job.removed { " (deleted)" } else { "" });
        for piece in own {
            let (mark, title) = match Piece::read(piece.document.as_bytes()) {
                Ok(piece) => (piece.mark, piece.title),
                Err(_) => (said_of(piece.id, &piece.document).0, "(could not be read)".into()),
            };
            say!("  piece {:<4} {mark} {title}{}", piece.id, if piece.removed { " (deleted)" } else { "" });
        }
    }
    if shown == 0 {
        say!("{}", if deleted { "nothing is deleted" } else { "the rack is empty" });
    }
    Ok(())
}

/// Puts back what was deleted, whether the folder is served or not.
pub(super) fn put_back(data: &Path, job: Option<i64>, piece: Option<i64>) -> Result<(), String> {
    let file = data.join("steelk.db");
    before_writing(&file)?;
    let mut store = Store::open(&file, marks_of).map_err(|fault| format!("{}: {fault}", file.display()))?;
    if let Some(id) = job {
        store.set_job_removed(id, false).map_err(|fault| fault.to_string())?;
        say!("job {id} is on the rack");
    }
    if let Some(id) = piece {
        store.set_piece_removed(id, false).map_err(|fault| fault.to_string())?;
        say!("piece {id} is in its job");
    }
    Ok(())
}
