//! What the rack tells of each piece, kept by the revision that it was worked out of: a look at the rack costs nothing
//! that was worked out before.

use std::collections::HashMap;
use std::sync::{Arc, Mutex};
use std::time::{Duration, Instant};

use steelk_core::piece::Piece;
use steelk_store::PieceRow;

use super::job::{PieceLine, line_of, unreadable};
use crate::line::within;

/// How long a piece may keep the rack waiting.
const LIMIT: Duration = Duration::from_secs(5);
/// For how long one that took longer is not tried again.
const REST: Duration = Duration::from_secs(300);
/// So many lines are kept.
const MOST: usize = 10_000;

struct Kept {
    version: i64,
    /// Of a piece that could not be worked out: when it was tried.
    failed: Option<Instant>,
    line: Arc<PieceLine>,
}

/// The lines that are kept, by the number of the piece.
#[derive(Default)]
pub(super) struct Lines(Mutex<HashMap<i64, Kept>>);

impl Lines {
    /// What the job tells of a piece; of one that cannot be read or worked out, that. It never takes its neighbours
    /// with it.
    pub(super) fn of(&self, row: &PieceRow) -> Arc<PieceLine> {
        if let Some(line) = self.fresh(row) {
            return line;
        }
        let worked = match Piece::read(row.document.as_bytes()) {
            Ok(piece) => within(LIMIT, || line_of(row, &piece)),
            Err(fault) => Err(fault.to_string()),
        };
        let failed = worked.is_err().then(Instant::now);
        let line = Arc::new(worked.unwrap_or_else(|why| unreadable(row, why)));
        let mut kept = self.kept();
        if kept.len() >= MOST {
            kept.clear();
        }
        kept.insert(row.id, Kept { version: row.version, failed, line: Arc::clone(&line) });
        line
    }

    /// What is known of a piece without working anything out; of one that nothing is known of, that.
    pub(super) fn known(&self, row: &PieceRow) -> Arc<PieceLine> {
        let why =
            || "it was not worked out yet, as there is much to do at this moment; look again in a while".to_string();
        self.fresh(row).unwrap_or_else(|| Arc::new(unreadable(row, why())))
    }

    fn fresh(&self, row: &PieceRow) -> Option<Arc<PieceLine>> {
        let is_fresh = |kept: &&Kept| {
            kept.version == row.version
                && kept.line.has_picture == row.has_picture
                && kept.failed.is_none_or(|at| at.elapsed() < REST)
        };
        self.kept().get(&row.id).filter(is_fresh).map(|kept| Arc::clone(&kept.line))
    }

    fn kept(&self) -> std::sync::MutexGuard<'_, HashMap<i64, Kept>> {
        self.0.lock().unwrap_or_else(|poisoned| poisoned.into_inner())
    }
}
