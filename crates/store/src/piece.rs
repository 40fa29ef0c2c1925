//! Pieces and their revisions.

use rusqlite::{Connection, OptionalExtension as _, params};
use serde::Serialize;

use crate::job::{DELETED_PIECE, write_log};
use crate::{MarksOf, Store, StoreError, mark};

/// A piece as it is saved now.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct PieceRow {
    /// Row number.
    pub id: i64,
    /// Its job.
    pub job_id: i64,
    /// Number of the newest revision: what a save is made from.
    pub version: i64,
    /// The document's text.
    pub document: String,
    /// Whether there is something to undo.
    pub can_undo: bool,
    /// Whether there is something to redo.
    pub can_redo: bool,
    /// Taken out of the job (and may be put back).
    pub removed: bool,
    /// Whether a drawing's picture is kept with it.
    pub has_picture: bool,
    /// Whether a photo to trace is kept with it.
    pub has_photo: bool,
}

/// One revision, without its document.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[allow(missing_docs)]
pub struct Revision {
    pub number: i64,
    pub action: String,
    pub note: String,
    pub who: String,
    pub at: String,
}

struct Head {
    job: i64,
    number: i64,
    origin: i64,
    parent: Option<i64>,
}

fn head(connection: &Connection, piece: i64) -> Result<Head, StoreError> {
    connection
        .prepare_cached(
            "SELECT p.job_id, p.head, r.origin, o.parent FROM pieces p
             JOIN revisions r ON r.piece_id = p.id AND r.number = p.head
             JOIN revisions o ON o.piece_id = p.id AND o.number = r.origin
             WHERE p.id = ?1",
        )?
        .query_row([piece], |row| {
            Ok(Head { job: row.get(0)?, number: row.get(1)?, origin: row.get(2)?, parent: row.get(3)? })
        })
        .optional()?
        .ok_or(StoreError::Missing { what: "piece", id: piece })
}

/// The newest edit that was made from this origin.
fn next_edit(connection: &Connection, piece: i64, origin: i64) -> Result<Option<i64>, StoreError> {
    Ok(connection
        .prepare_cached("SELECT max(number) FROM revisions WHERE piece_id = ?1 AND parent = ?2 AND origin = number")?
        .query_row(params![piece, origin], |row| row.get(0))?)
}

struct NewRevision<'a> {
    document: &'a str,
    action: &'a str,
    /// The edit that this repeats; `None` for an edit of its own.
    origin: Option<i64>,
    parent: Option<i64>,
    note: &'a str,
}

/// Writes a revision as the newest and takes the marks that it states, unless the piece is taken out of its job.
fn write(
    connection: &Connection,
    (job, piece): (i64, i64),
    after: i64,
    new: &NewRevision<'_>,
    marks_of: MarksOf,
) -> Result<i64, StoreError> {
    let number = after + 1;
    connection
        .prepare_cached(
            "INSERT INTO revisions (piece_id, number, document, action, origin, parent, note)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)",
        )?
        .execute(params![
            piece,
            number,
            new.document,
            new.action,
            new.origin.unwrap_or(number),
            new.parent,
            new.note
        ])?;
    connection.prepare_cached("UPDATE pieces SET head = ?2 WHERE id = ?1")?.execute(params![piece, number])?;
    let is_in: bool = connection
        .prepare_cached("SELECT removed = 0 FROM pieces WHERE id = ?1")?
        .query_row([piece], |row| row.get(0))?;
    if is_in {
        mark::take(connection, job, piece, &marks_of(new.document))?;
    }
    Ok(number)
}

/// Adds a piece with its first revision; its number.
pub(crate) fn first_revision(
    connection: &Connection,
    job: i64,
    document: &str,
    note: &str,
    marks_of: MarksOf,
) -> Result<i64, StoreError> {
    connection.execute("INSERT INTO pieces (job_id) VALUES (?1)", [job])?;
    let id = connection.last_insert_rowid();
    let new = NewRevision { document, action: "made", origin: None, parent: None, note };
    write(connection, (job, id), 0, &new, marks_of)?;
    write_log(connection, job, Some(id), note)?;
    Ok(id)
}

impl Store {
    /// Adds a piece to a job.
    ///
    /// # Errors
    /// [`StoreError::Missing`] job, [`StoreError::Taken`] mark.
    pub fn add_piece(&mut self, job: i64, document: &str, note: &str) -> Result<PieceRow, StoreError> {
        self.job(job)?;
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction()?;
        let id = first_revision(&transaction, job, document, note, marks_of)?;
        transaction.commit()?;
        self.piece(id)
    }

    /// The newest revision's number of a piece, and whether it is deleted.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn piece_version(&self, id: i64) -> Result<(i64, bool), StoreError> {
        self.connection
            .prepare_cached("SELECT head, removed FROM pieces WHERE id = ?1")?
            .query_row([id], |row| Ok((row.get(0)?, row.get(1)?)))
            .optional()?
            .ok_or(StoreError::Missing { what: "piece", id })
    }

    /// A piece as it is saved now.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn piece(&self, id: i64) -> Result<PieceRow, StoreError> {
        let head = head(&self.connection, id)?;
        let can_redo = next_edit(&self.connection, id, head.origin)?.is_some();
        let (document, removed, has_picture, has_photo) = self.connection.query_row(
            "SELECT r.document, p.removed, EXISTS (SELECT 1 FROM pictures d WHERE d.piece_id = p.id),
             EXISTS (SELECT 1 FROM photos f WHERE f.piece_id = p.id)
             FROM pieces p JOIN revisions r ON r.piece_id = p.id AND r.number = p.head WHERE p.id = ?1",
            [id],
            |row| Ok((row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?)),
        )?;
        Ok(PieceRow {
            id,
            job_id: head.job,
            version: head.number,
            document,
            can_undo: head.parent.is_some(),
            can_redo,
            removed,
            has_picture,
            has_photo,
        })
    }

    /// A job's pieces, in the order made.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn pieces(&self, job: i64) -> Result<Vec<PieceRow>, StoreError> {
        let mut all = self.all_pieces(job)?;
        all.retain(|piece| !piece.removed);
        Ok(all)
    }

    /// A job's pieces, those taken out of it too.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn all_pieces(&self, job: i64) -> Result<Vec<PieceRow>, StoreError> {
        let ids: Vec<i64> = self
            .connection
            .prepare_cached("SELECT id FROM pieces WHERE job_id = ?1 ORDER BY id")?
            .query_map([job], |row| row.get(0))?
            .collect::<Result<_, _>>()?;
        ids.into_iter().map(|id| self.piece(id)).collect()
    }

    /// Saves a document made from `version`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when another save came between, [`StoreError::Taken`] mark.
    pub fn save_piece(&mut self, id: i64, version: i64, document: &str, note: &str) -> Result<PieceRow, StoreError> {
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
        let head = head(&transaction, id)?;
        if head.number != version {
            return Err(StoreError::Stale { yours: version, current: head.number });
        }
        let new = NewRevision { document, action: "edited", origin: None, parent: Some(head.origin), note };
        write(&transaction, (head.job, id), head.number, &new, marks_of)?;
        write_log(&transaction, head.job, Some(id), note)?;
        transaction.commit()?;
        self.piece(id)
    }

    /// Goes back to the document before the last edit.
    ///
    /// # Errors
    /// [`StoreError::Nothing`], [`StoreError::Stale`].
    pub fn undo(&mut self, id: i64, version: i64) -> Result<PieceRow, StoreError> {
        self.step(id, version, "undone")
    }

    /// Goes forward again.
    ///
    /// # Errors
    /// [`StoreError::Nothing`], [`StoreError::Stale`].
    pub fn redo(&mut self, id: i64, version: i64) -> Result<PieceRow, StoreError> {
        self.step(id, version, "redone")
    }

    fn step(&mut self, id: i64, version: i64, action: &'static str) -> Result<PieceRow, StoreError> {
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
        let head = head(&transaction, id)?;
        if head.number != version {
            return Err(StoreError::Stale { yours: version, current: head.number });
        }
        let target = if action == "undone" {
            head.parent.ok_or(StoreError::Nothing("undo"))?
        } else {
            next_edit(&transaction, id, head.origin)?.ok_or(StoreError::Nothing("redo"))?
        };
        repeat(&transaction, id, &head, target, action, marks_of)?;
        transaction.commit()?;
        self.piece(id)
    }

    /// Brings back an older revision as a new edit.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Stale`].
    pub fn restore_revision(&mut self, id: i64, version: i64, number: i64) -> Result<PieceRow, StoreError> {
        let document = self.revision(id, number)?;
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
        let head = head(&transaction, id)?;
        if head.number != version {
            return Err(StoreError::Stale { yours: version, current: head.number });
        }
        let note = format!("restored revision {number}");
        let new = NewRevision {
            document: &document,
            action: "restored",
            origin: None,
            parent: Some(head.origin),
            note: &note,
        };
        write(&transaction, (head.job, id), head.number, &new, marks_of)?;
        write_log(&transaction, head.job, Some(id), &note)?;
        transaction.commit()?;
        self.piece(id)
    }

    /// Every revision of a piece, newest first.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn revisions(&self, id: i64) -> Result<Vec<Revision>, StoreError> {
        let mut query = self.connection.prepare_cached(
            "SELECT number, action, note, who, at FROM revisions WHERE piece_id = ?1 ORDER BY number DESC",
        )?;
        let rows = query.query_map([id], |row| {
            Ok(Revision {
                number: row.get(0)?,
                action: row.get(1)?,
                note: row.get(2)?,
                who: row.get(3)?,
                at: row.get(4)?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The document of one revision.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn revision(&self, id: i64, number: i64) -> Result<String, StoreError> {
        self.connection
            .query_row("SELECT document FROM revisions WHERE piece_id = ?1 AND number = ?2", [id, number], |row| {
                row.get(0)
            })
            .optional()?
            .ok_or(StoreError::Missing { what: "revision", id: number })
    }

    /// Deletes a piece, which then waits in its job's bin, or puts it back.
    ///
    /// # Errors
    /// [`StoreError::Missing`]; [`StoreError::Taken`] where its mark has been given to another since.
    pub fn set_piece_removed(&mut self, id: i64, removed: bool) -> Result<(), StoreError> {
        let PieceRow { job_id: job, document, .. } = self.piece(id)?;
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction()?;
        transaction.execute("UPDATE pieces SET removed = ?2 WHERE id = ?1", params![id, removed])?;
        if removed {
            mark::leave(&transaction, id)?;
        } else {
            mark::take(&transaction, job, id, &marks_of(&document))?;
        }
        write_log(&transaction, job, Some(id), if removed { DELETED_PIECE } else { "put the piece back" })?;
        transaction.commit()?;
        Ok(())
    }
}

fn repeat(
    connection: &Connection,
    id: i64,
    head: &Head,
    target: i64,
    action: &str,
    marks_of: MarksOf,
) -> Result<(), StoreError> {
    let (document, parent): (String, Option<i64>) = connection.query_row(
        "SELECT document, parent FROM revisions WHERE piece_id = ?1 AND number = ?2",
        [id, target],
        |row| Ok((row.get(0)?, row.get(1)?)),
    )?;
    let note = format!("{action} to revision {target}");
    let new = NewRevision { document: &document, action, origin: Some(target), parent, note: &note };
    write(connection, (head.job, id), head.number, &new, marks_of)?;
    write_log(connection, head.job, Some(id), &note)
}
