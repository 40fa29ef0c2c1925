//! Marks of a job's pieces: none twice, whatever comes in between.

use rusqlite::{Connection, OptionalExtension as _, params};

use crate::StoreError;

/// A mark as it is written, and the key that it shares with every mark that looks like it.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Mark {
    pub text: String,
    pub key: String,
}

/// The marks that a document states; none for one that cannot be read. What a document means is not for the store to
/// know.
pub type MarksOf = fn(&str) -> Vec<Mark>;

/// Takes the marks of a piece in place of those that it had.
///
/// # Errors
/// [`StoreError::Taken`] where another piece of the job has one that looks the same.
pub(crate) fn take(connection: &Connection, job: i64, piece: i64, marks: &[Mark]) -> Result<(), StoreError> {
    leave(connection, piece)?;
    for mark in marks {
        let known: Option<(i64, String)> = connection
            .prepare_cached("SELECT piece_id, mark FROM marks WHERE job_id = ?1 AND key = ?2")?
            .query_row(params![job, mark.key], |row| Ok((row.get(0)?, row.get(1)?)))
            .optional()?;
        match known {
            Some((other, _)) if other == piece => {}
            Some((_, other)) => return Err(StoreError::Taken { mark: mark.text.clone(), other }),
            None => {
                connection
                    .prepare_cached("INSERT INTO marks (job_id, key, mark, piece_id) VALUES (?1, ?2, ?3, ?4)")?
                    .execute(params![job, mark.key, mark.text, piece])?;
            }
        }
    }
    Ok(())
}

/// Gives up the marks of a piece.
pub(crate) fn leave(connection: &Connection, piece: i64) -> Result<(), StoreError> {
    connection.prepare_cached("DELETE FROM marks WHERE piece_id = ?1")?.execute([piece])?;
    Ok(())
}

/// Takes the marks of every piece of a database from before they were kept. Of two alike the older piece has it; the
/// other says so when it is saved next.
pub(crate) fn take_all(connection: &Connection, marks_of: MarksOf) -> Result<(), StoreError> {
    let mut query = connection.prepare(
        "SELECT p.job_id, p.id, r.document FROM pieces p JOIN revisions r ON r.piece_id = p.id AND r.number = p.head
         WHERE p.removed = 0 ORDER BY p.id",
    )?;
    let rows = query.query_map([], |row| Ok((row.get(0)?, row.get(1)?, row.get::<_, String>(2)?)))?;
    for row in rows {
        let (job, piece, document): (i64, i64, String) = row?;
        for mark in marks_of(&document) {
            connection.execute(
                "INSERT OR IGNORE INTO marks (job_id, key, mark, piece_id) VALUES (?1, ?2, ?3, ?4)",
                params![job, mark.key, mark.text, piece],
            )?;
        }
    }
    Ok(())
}
