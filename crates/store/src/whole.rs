//! Whole jobs at once: brought in, copied or laid out whole, or not at all.

use rusqlite::Transaction;

use crate::job::{new_job, write_log};
use crate::piece::first_revision;
use crate::{Job, MarksOf, Picture, Slot, Store, StoreError};

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
}

impl Store {
    /// Makes a job with its pieces and pictures, whole or not at all.
    ///
    /// # Errors
    /// [`StoreError::Taken`] where two of its marks look alike.
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
}

fn lay_out(transaction: &Transaction<'_>, job: &NewJob, marks_of: MarksOf) -> Result<i64, StoreError> {
    let id = new_job(transaction, &job.number, &job.title, job.due.as_deref())?;
    for piece in &job.pieces {
        let own = first_revision(transaction, id, &piece.document, &piece.note, marks_of)?;
        for (slot, picture) in &piece.pictures {
            slot.put(transaction, own, picture)?;
            write_log(transaction, id, Some(own), slot.note())?;
        }
    }
    Ok(id)
}
