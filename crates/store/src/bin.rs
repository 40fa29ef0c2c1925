//! What was deleted and waits to be put back: jobs, pieces of a job, pictures of its pieces.

use rusqlite::params;

use crate::job::{DELETED_JOB, DELETED_PIECE};
use crate::{Store, StoreError};

/// A job in the bin.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct DeletedJob {
    pub id: i64,
    pub number: String,
    pub title: String,
    /// Pieces that come back with it.
    pub pieces: i64,
    /// When it was deleted; nothing where the log does not tell.
    pub at: Option<String>,
}

/// A piece in its job's bin.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct DeletedPiece {
    pub id: i64,
    /// As it was saved last.
    pub document: String,
    pub at: Option<String>,
}

/// A picture that was deleted, or that another was put in the place of.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct DeletedPicture {
    pub piece: i64,
    /// `drawing` or `photo`.
    pub slot: String,
    /// Counts up from 1 in its slot.
    pub number: i64,
    pub kind: String,
    /// Bytes.
    pub size: i64,
    /// When it had been put in.
    pub at: String,
}

/// The bin of a job.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct JobBin {
    pub pieces: Vec<DeletedPiece>,
    pub pictures: Vec<DeletedPicture>,
}

impl Store {
    /// The jobs in the bin, the last deleted first.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn deleted_jobs(&self) -> Result<Vec<DeletedJob>, StoreError> {
        let mut query = self.connection.prepare_cached(
            "SELECT j.id, j.number, j.title, (SELECT count(*) FROM pieces p WHERE p.job_id = j.id AND p.removed = 0),
             (SELECT max(l.at) FROM log l WHERE l.job_id = j.id AND l.piece_id IS NULL AND l.what IN (?1, ?2)) AS gone
             FROM jobs j WHERE j.removed = 1 ORDER BY gone DESC, j.id DESC",
        )?;
        // The log of an older Steelk said it in other words.
        let rows = query.query_map(params![DELETED_JOB, "took the job off the rack"], |row| {
            Ok(DeletedJob {
                id: row.get(0)?,
                number: row.get(1)?,
                title: row.get(2)?,
                pieces: row.get(3)?,
                at: row.get(4)?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The bin of a job, the last deleted first; pictures of its pieces that are in the job.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn job_bin(&self, job: i64) -> Result<JobBin, StoreError> {
        self.job(job)?;
        let mut query = self.connection.prepare_cached(
            "SELECT p.id, r.document, (SELECT max(l.at) FROM log l WHERE l.piece_id = p.id AND l.what IN (?2, ?3)) AS gone
             FROM pieces p JOIN revisions r ON r.piece_id = p.id AND r.number = p.head
             WHERE p.job_id = ?1 AND p.removed = 1 ORDER BY gone DESC, p.id DESC",
        )?;
        let pieces = query
            .query_map(params![job, DELETED_PIECE, "took the piece out"], |row| {
                Ok(DeletedPiece { id: row.get(0)?, document: row.get(1)?, at: row.get(2)? })
            })?
            .collect::<Result<_, _>>()?;
        let mut query = self.connection.prepare_cached(
            "SELECT b.piece_id, b.slot, b.number, b.kind, length(b.bytes), b.at FROM past_pictures b
             JOIN pieces p ON p.id = b.piece_id WHERE p.job_id = ?1 AND p.removed = 0
             ORDER BY b.at DESC, b.piece_id, b.slot, b.number DESC",
        )?;
        let pictures = query
            .query_map([job], |row| {
                Ok(DeletedPicture {
                    piece: row.get(0)?,
                    slot: row.get(1)?,
                    number: row.get(2)?,
                    kind: row.get(3)?,
                    size: row.get(4)?,
                    at: row.get(5)?,
                })
            })?
            .collect::<Result<_, _>>()?;
        Ok(JobBin { pieces, pictures })
    }
}
