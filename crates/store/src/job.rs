//! Jobs and the log.

use rusqlite::{OptionalExtension as _, Row, params};
use serde::Serialize;

use crate::{Store, StoreError};

/// A job.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct Job {
    /// Row number.
    pub id: i64,
    /// Job number as people call it.
    pub number: String,
    /// What it is.
    pub title: String,
    /// Due date, as typed.
    pub due: Option<String>,
    /// Goes up with every change to the job's own fields.
    pub version: i64,
    /// Taken off the rack (and may be put back).
    pub removed: bool,
}

/// One line of the log.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[allow(missing_docs)]
pub struct LogEntry {
    pub at: String,
    pub who: String,
    pub what: String,
    pub piece_id: Option<i64>,
    /// The mark of the piece as it stands, in the bin or out of it; none where it is about no piece.
    pub mark: Option<String>,
}

const COLUMNS: &str = "id, number, title, due, version, removed";

fn job(row: &Row<'_>) -> rusqlite::Result<Job> {
    Ok(Job {
        id: row.get(0)?,
        number: row.get(1)?,
        title: row.get(2)?,
        due: row.get(3)?,
        version: row.get(4)?,
        removed: row.get(5)?,
    })
}

impl Store {
    /// Every job on the rack, newest last.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn jobs(&self) -> Result<Vec<Job>, StoreError> {
        let mut query =
            self.connection.prepare_cached(&format!("SELECT {COLUMNS} FROM jobs WHERE removed = 0 ORDER BY id"))?;
        Ok(query.query_map([], job)?.collect::<Result<_, _>>()?)
    }

    /// Every job, on the rack or taken off it.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn all_jobs(&self) -> Result<Vec<Job>, StoreError> {
        let mut query = self.connection.prepare_cached(&format!("SELECT {COLUMNS} FROM jobs ORDER BY id"))?;
        Ok(query.query_map([], job)?.collect::<Result<_, _>>()?)
    }

    /// One job, removed or not.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn job(&self, id: i64) -> Result<Job, StoreError> {
        self.connection
            .query_row(&format!("SELECT {COLUMNS} FROM jobs WHERE id = ?1"), [id], job)
            .optional()?
            .ok_or(StoreError::Missing { what: "job", id })
    }

    /// Makes a job.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn add_job(&mut self, number: &str, title: &str, due: Option<&str>) -> Result<Job, StoreError> {
        let transaction = self.connection.transaction()?;
        let id = new_job(&transaction, number, title, due)?;
        transaction.commit()?;
        self.job(id)
    }

    /// Changes a job's own fields, made from `version`.
    ///
    /// # Errors
    /// [`StoreError::Stale`], [`StoreError::Missing`].
    pub fn change_job(
        &mut self,
        id: i64,
        version: i64,
        number: &str,
        title: &str,
        due: Option<&str>,
    ) -> Result<Job, StoreError> {
        let current = self.job(id)?.version;
        if current != version {
            return Err(StoreError::Stale { yours: version, current });
        }
        let transaction = self.connection.transaction()?;
        transaction.execute(
            "UPDATE jobs SET number = ?2, title = ?3, due = ?4, version = version + 1 WHERE id = ?1",
            params![id, number, title, due],
        )?;
        write_log(&transaction, id, None, &format!("changed the job: {number}, {title}"))?;
        transaction.commit()?;
        self.job(id)
    }

    /// Deletes a job, which then waits in the bin, or puts it back.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn set_job_removed(&mut self, id: i64, removed: bool) -> Result<(), StoreError> {
        self.job(id)?;
        let transaction = self.connection.transaction()?;
        transaction.execute("UPDATE jobs SET removed = ?2 WHERE id = ?1", params![id, removed])?;
        write_log(&transaction, id, None, if removed { DELETED_JOB } else { "put the job back" })?;
        transaction.commit()?;
        Ok(())
    }

    /// The job's log, newest first, at most `most` lines.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn log(&self, job: i64, most: u32) -> Result<Vec<LogEntry>, StoreError> {
        let mut query = self.connection.prepare_cached(
            "SELECT l.at, l.who, l.what, l.piece_id,
             CASE WHEN json_valid(r.document) THEN json_extract(r.document, '$.mark') END
             FROM log l LEFT JOIN pieces p ON p.id = l.piece_id
             LEFT JOIN revisions r ON r.piece_id = p.id AND r.number = p.head
             WHERE l.job_id = ?1 ORDER BY l.id DESC LIMIT ?2",
        )?;
        let lines = query.query_map(params![job, most], |row| {
            // What is no text is no mark.
            let mark = row.get::<_, Option<String>>(4).unwrap_or_default();
            Ok(LogEntry { at: row.get(0)?, who: row.get(1)?, what: row.get(2)?, piece_id: row.get(3)?, mark })
        })?;
        Ok(lines.collect::<Result<_, _>>()?)
    }
}

/// Makes a job; its number of row.
pub(crate) fn new_job(
    connection: &rusqlite::Connection,
    number: &str,
    title: &str,
    due: Option<&str>,
) -> Result<i64, StoreError> {
    connection.execute("INSERT INTO jobs (number, title, due) VALUES (?1, ?2, ?3)", params![number, title, due])?;
    let id = connection.last_insert_rowid();
    write_log(connection, id, None, &format!("made job {number}"))?;
    Ok(id)
}

/// What the log says of a deletion; the bin finds its time by it.
pub(crate) const DELETED_JOB: &str = "deleted the job";
pub(crate) const DELETED_PIECE: &str = "deleted the piece";

pub(crate) fn write_log(
    connection: &rusqlite::Connection,
    job: i64,
    piece: Option<i64>,
    what: &str,
) -> Result<(), StoreError> {
    connection
        .prepare_cached("INSERT INTO log (job_id, piece_id, what) VALUES (?1, ?2, ?3)")?
        .execute(params![job, piece, what])?;
    Ok(())
}
