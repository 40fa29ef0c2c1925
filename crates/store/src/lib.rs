//! Jobs, pieces, revisions, drawing pictures, summaries and the log, in one SQLite file.
//!
//! A save that returned is on disk: write-ahead log with full synchronisation. Documents are kept as text; what they
//! mean is for `steelk-core`.
//!
//! ```
//! // What marks a document states is told by whoever knows documents.
//! let mut store = steelk_store::Store::in_memory(|_document| Vec::new())?;
//! let job = store.add_job("TS-104", "Launching trolley", None)?;
//! assert_eq!(store.jobs()?.iter().map(|one| one.id).collect::<Vec<_>>(), [job.id]);
//! # Ok::<(), steelk_store::StoreError>(())
//! ```

#![forbid(unsafe_code)]
#![warn(missing_docs)]

mod bin;
mod job;
mod keep;
mod mark;
mod picture;
mod piece;
mod rack;
mod shop;
mod summary;
mod whole;
mod words;

pub use bin::{DeletedJob, DeletedPicture, DeletedPiece, JobBin};
pub use job::{Job, LogEntry};
pub use keep::Stored;
pub use mark::{Mark, MarksOf};
pub use picture::{PastPicture, Picture, Slot};
pub use piece::{PieceRow, Revision};
pub use rack::{Figures, FoundPiece, Rack, RackJob, RackPage, RackSort};
pub use shop::ShopTable;
pub use summary::{Among, Behind, Summary, ToldPiece, Unsummed};
pub use whole::{NewJob, NewPiece, WholeRevision};

use std::path::Path;

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

/// Why the store refuses.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// The database's own words.
    #[error("the database refused: {0}")]
    Database(rusqlite::Error),
    /// No room on the disk.
    #[error(
        "the disk that jobs are kept on is full, so nothing was saved and all that was saved before is as it was; make room \
         there and save again"
    )]
    Full,
    /// The file, or the disk it is on, takes no writes.
    #[error(
        "the disk or folder that jobs are kept in can only be read at this moment, so nothing was saved and all that was saved \
         before is as it was; let it be written to and save again"
    )]
    ReadOnly,
    /// Pages of the file are not what they were.
    #[error(
        "the file that jobs are kept in is damaged: stop the server, keep that file, and lay down the last copy with \
         `steelk restore` ({0})"
    )]
    Damaged(String),
    /// Another program holds the file.
    #[error("another program holds the file that jobs are kept in, so nothing was saved; save again when it is done")]
    Held,
    /// Revisions that do not follow each other.
    #[error("its history cannot be: revision {number} {what}; bring it in without its revisions")]
    History {
        /// Which revision.
        number: i64,
        /// What is wrong with it.
        what: String,
    },
    /// A migration failed.
    #[error("the database could not be brought up to date: {0}")]
    Migration(#[from] rusqlite_migration::Error),
    /// No such row.
    #[error("there is no {what} with number {id}")]
    Missing {
        /// What was asked for.
        what: &'static str,
        /// Its number.
        id: i64,
    },
    /// Somebody saved in between.
    #[error("this was made from version {yours}, but version {current} has been saved since")]
    Stale {
        /// The version the save was made from.
        yours: i64,
        /// The version that is saved now.
        current: i64,
    },
    /// Two pieces of one job would have marks that look alike.
    #[error(
        "the mark {mark} is taken by another piece of this job{}; give this one a mark of its own",
        like(mark, other)
    )]
    Taken {
        /// The mark that is wanted.
        mark: String,
        /// The mark as the other piece writes it.
        other: String,
    },
    /// The database is of a later Steelk.
    #[error(
        "it is of a newer Steelk (its tables are of version {version}, this one knows up to {known}); use that one, it is left as it is"
    )]
    Newer {
        /// Of the database.
        version: i64,
        /// The newest that is known here.
        known: i64,
    },
    /// Nothing to undo or redo.
    #[error("there is nothing to {0}")]
    Nothing(&'static str),
}

impl From<rusqlite::Error> for StoreError {
    fn from(fault: rusqlite::Error) -> Self {
        use rusqlite::ErrorCode;
        match fault.sqlite_error_code() {
            Some(ErrorCode::DiskFull) => StoreError::Full,
            Some(ErrorCode::ReadOnly | ErrorCode::CannotOpen | ErrorCode::PermissionDenied) => StoreError::ReadOnly,
            Some(ErrorCode::DatabaseCorrupt | ErrorCode::NotADatabase) => StoreError::Damaged(fault.to_string()),
            Some(ErrorCode::DatabaseBusy | ErrorCode::DatabaseLocked) => StoreError::Held,
            _ => StoreError::Database(fault),
        }
    }
}

/// How the other piece writes a mark that only looks the same.
fn like(mark: &str, other: &str) -> String {
    if mark == other { String::new() } else { format!(", where it stands as {other} and could not be told from it") }
}

/// The open database.
pub struct Store {
    connection: Connection,
    marks_of: MarksOf,
}

/// The steps that bring a database up to date, in order.
const STEPS: [&str; 5] = [
    include_str!("sql/001_jobs.sql"),
    include_str!("sql/002_shop.sql"),
    include_str!("sql/003_marks.sql"),
    include_str!("sql/004_history.sql"),
    include_str!("sql/005_summaries.sql"),
];
/// The version of the database since which marks are kept.
const MARKS_KEPT: i64 = 3;

/// The version of the database that this Steelk makes.
fn migrations_known() -> i64 {
    STEPS.len() as i64
}

fn migrations() -> Migrations<'static> {
    Migrations::new(STEPS.map(M::up).to_vec())
}

impl Store {
    /// Opens (or makes) the database file. `marks_of` tells the marks of a document.
    ///
    /// # Errors
    /// [`StoreError`] when the file cannot be opened or is from a later Steelk.
    pub fn open(path: &Path, marks_of: MarksOf) -> Result<Store, StoreError> {
        Store::prepare(Connection::open(path)?, marks_of)
    }

    /// A database that is gone with the process; for tests.
    ///
    /// # Errors
    /// As [`Store::open`].
    pub fn in_memory(marks_of: MarksOf) -> Result<Store, StoreError> {
        Store::prepare(Connection::open_in_memory()?, marks_of)
    }

    fn prepare(mut connection: Connection, marks_of: MarksOf) -> Result<Store, StoreError> {
        connection.pragma_update(None, "journal_mode", "WAL")?;
        connection.pragma_update(None, "synchronous", "FULL")?;
        connection.pragma_update(None, "foreign_keys", "ON")?;
        connection.busy_timeout(std::time::Duration::from_secs(5))?;
        // 64 MB: the summaries of a large rack are added up without asking the system for their pages each time.
        connection.pragma_update(None, "cache_size", -65_536)?;
        // Beside the statements that are always at hand, a search has one for each count of its words.
        connection.set_prepared_statement_cache_capacity(64);
        words::teach(&connection)?;
        let before: i64 = connection.pragma_query_value(None, "user_version", |row| row.get(0))?;
        if before > migrations_known() {
            return Err(StoreError::Newer { version: before, known: migrations_known() });
        }
        migrations().to_latest(&mut connection)?;
        if before < MARKS_KEPT {
            let transaction = connection.transaction()?;
            mark::take_all(&transaction, marks_of)?;
            transaction.commit()?;
        }
        Ok(Store { connection, marks_of })
    }

    /// What SQLite says of the file's soundness: `ok`.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn integrity(&self) -> Result<String, StoreError> {
        Ok(self.connection.query_row("PRAGMA integrity_check", [], |row| row.get(0))?)
    }
}

#[cfg(test)]
mod tests {
    #[test]
    fn migrations_are_sound() {
        assert!(super::migrations().validate().is_ok());
        let store = super::Store::in_memory(|_| Vec::new()).unwrap();
        let version: i64 = store.connection.pragma_query_value(None, "user_version", |row| row.get(0)).unwrap();
        assert_eq!(version, super::migrations_known());
    }
}
