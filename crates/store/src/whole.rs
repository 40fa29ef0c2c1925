//! Whole jobs at once: brought in, copied or laid out whole, or not at all; with every revision where they are given.

use rusqlite::{Transaction, params};

use crate::job::{new_job, write_log};
use crate::piece::first_revision;
use crate::{Job, MarksOf, Picture, Slot, Store, StoreError, mark};

/// A job to be made with its pieces.
#[derive(Clone, Debug, Default)]
#[allow(missing_docs)]
pub struct NewJob {
    pub number: String,
    pub title: String,
    pub due: Option<String>,
    pub pieces: Vec<NewPiece>,
}

/// A piece of a job that is made whole.
#[derive(Clone, Debug, Default)]
#[allow(missing_docs)]
pub struct NewPiece {
    pub document: String,
    pub note: String,
    pub pictures: Vec<(Slot, Picture)>,
    /// Every revision, the last of which has this document; none for a piece that begins with it.
    pub revisions: Vec<WholeRevision>,
}

/// A revision with all that is known of it: what undo and redo go by.
#[derive(Clone, Debug, Default, PartialEq)]
#[allow(missing_docs)]
pub struct WholeRevision {
    /// Counts up from 1.
    pub number: i64,
    pub document: String,
    /// `made`, `edited`, `undone`, `redone` or `restored`.
    pub action: String,
    /// The edit whose document this one equals: itself, for an edit.
    pub origin: i64,
    /// The origin that it was made from.
    pub parent: Option<i64>,
    pub note: String,
    pub who: String,
    pub at: String,
}

impl Store {
    /// Makes a job with its pieces and pictures, whole or not at all.
    ///
    /// # Errors
    /// [`StoreError::Taken`] where two of its marks look alike, [`StoreError::History`] where revisions do not follow
    /// each other.
    pub fn add_whole_job(&mut self, job: &NewJob) -> Result<Job, StoreError> {
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction()?;
        let id = lay_out(&transaction, job, marks_of)?;
        transaction.commit()?;
        self.job(id)
    }

    /// Makes these jobs where no job is on the rack, all of them or none; whether it did.
    ///
    /// # Errors
    /// As [`add_whole_job`](Self::add_whole_job).
    pub fn lay_out_on_empty(&mut self, jobs: &[NewJob]) -> Result<bool, StoreError> {
        let marks_of = self.marks_of;
        let transaction = self.connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
        let known: i64 = transaction.query_row("SELECT count(*) FROM jobs WHERE removed = 0", [], |row| row.get(0))?;
        if known > 0 {
            return Ok(false);
        }
        for job in jobs {
            lay_out(&transaction, job, marks_of)?;
        }
        transaction.commit()?;
        Ok(true)
    }

    /// How many bytes the documents of a piece's revisions have together.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn revisions_size(&self, piece: i64) -> Result<usize, StoreError> {
        let size: i64 = self
            .connection
            .prepare_cached(
                "SELECT coalesce(sum(length(CAST(document AS BLOB))), 0) FROM revisions WHERE piece_id = ?1",
            )?
            .query_row([piece], |row| row.get(0))?;
        Ok(usize::try_from(size).unwrap_or(usize::MAX))
    }

    /// Every revision of a piece with its document, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn whole_revisions(&self, piece: i64) -> Result<Vec<WholeRevision>, StoreError> {
        let mut query = self.connection.prepare_cached(
            "SELECT number, document, action, origin, parent, note, who, at FROM revisions WHERE piece_id = ?1
             ORDER BY number",
        )?;
        let rows = query.query_map([piece], |row| {
            Ok(WholeRevision {
                number: row.get(0)?,
                document: row.get(1)?,
                action: row.get(2)?,
                origin: row.get(3)?,
                parent: row.get(4)?,
                note: row.get(5)?,
                who: row.get(6)?,
                at: row.get(7)?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

fn lay_out(transaction: &Transaction<'_>, job: &NewJob, marks_of: MarksOf) -> Result<i64, StoreError> {
    let id = new_job(transaction, &job.number, &job.title, job.due.as_deref())?;
    for piece in &job.pieces {
        let own = if piece.revisions.is_empty() {
            first_revision(transaction, id, &piece.document, &piece.note, marks_of)?
        } else {
            with_revisions(transaction, id, piece, marks_of)?
        };
        for (slot, picture) in &piece.pictures {
            slot.put(transaction, own, picture)?;
            write_log(transaction, id, Some(own), slot.note())?;
        }
    }
    Ok(id)
}

/// Whether revisions follow each other as saves, undos and redos make them: else undo would lead nowhere.
fn check_history(revisions: &[WholeRevision]) -> Result<(), StoreError> {
    let wrong = |number: i64, what: &str| Err(StoreError::History { number, what: what.to_string() });
    for (at, one) in revisions.iter().enumerate() {
        let number = at as i64 + 1;
        if one.number != number {
            return wrong(one.number, &format!("is where revision {number} should be"));
        }
        let is_edit = matches!(one.action.as_str(), "made" | "edited" | "restored");
        if !is_edit && !matches!(one.action.as_str(), "undone" | "redone") {
            return wrong(number, &format!("is {:?}, which nothing makes", one.action));
        }
        if (one.action == "made") != (number == 1) || one.parent.is_none() && is_edit && number > 1 {
            return wrong(number, "was made from nothing, or the first was not");
        }
        if is_edit != (one.origin == number) || one.origin > number || one.origin < 1 {
            return wrong(number, &format!("comes from revision {}", one.origin));
        }
        let edit = |of: i64| of >= 1 && of < number && revisions[of as usize - 1].origin == of;
        if one.parent.is_some_and(|parent| !edit(parent)) || !is_edit && !edit(one.origin) {
            return wrong(number, "was made from a revision that is no earlier edit");
        }
        if !is_edit {
            let origin = &revisions[one.origin as usize - 1];
            if one.document != origin.document || one.parent != origin.parent {
                return wrong(number, &format!("is not what revision {} is", one.origin));
            }
        }
    }
    Ok(())
}

fn with_revisions(
    transaction: &Transaction<'_>,
    job: i64,
    piece: &NewPiece,
    marks_of: MarksOf,
) -> Result<i64, StoreError> {
    check_history(&piece.revisions)?;
    let last = piece.revisions.len() as i64;
    if piece.revisions.last().is_none_or(|one| one.document != piece.document) {
        return Err(StoreError::History { number: last, what: "is the last and not what the piece is".into() });
    }
    transaction.execute("INSERT INTO pieces (job_id, head) VALUES (?1, ?2)", params![job, last])?;
    let id = transaction.last_insert_rowid();
    let mut insert = transaction.prepare_cached(
        "INSERT INTO revisions (piece_id, number, document, action, origin, parent, note, who, at)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9)",
    )?;
    for one in &piece.revisions {
        insert.execute(params![
            id,
            one.number,
            one.document,
            one.action,
            one.origin,
            one.parent,
            one.note,
            one.who,
            one.at
        ])?;
    }
    mark::take(transaction, job, id, &marks_of(&piece.document))?;
    write_log(transaction, job, Some(id), &piece.note)?;
    Ok(id)
}
