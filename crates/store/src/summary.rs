//! What is told of a piece on the rack and in its job, kept with the revision that it was worked out of.

use rusqlite::{Connection, OptionalExtension as _, Transaction, params};

use crate::{Store, StoreError};

/// What was worked out of one revision of a piece. What its words and figures mean is for whoever works it out; the
/// store adds them up.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Summary {
    /// The revision that it was worked out of.
    pub version: i64,
    /// What it was worked out with: it is behind where that is another one now.
    pub stamp: String,
    /// When it is to be tried again, seconds since 1970: it could not be worked out this time.
    pub retry_at: Option<i64>,
    /// Its mark, and what it is.
    #[allow(missing_docs)]
    pub mark: String,
    #[allow(missing_docs)]
    pub title: String,
    /// What it is found by, besides.
    pub words: String,
    /// How many are made of it, its variants too.
    pub items: u64,
    /// Mass of all of them, kg.
    pub mass: f64,
    /// Call-outs that hold, of how many.
    pub holds: u64,
    #[allow(missing_docs)]
    pub callouts: u64,
    /// Broken rules and errors.
    pub broken: u64,
    /// The whole of what is told of it, JSON.
    pub line: String,
}

/// A piece as its job tells it.
#[derive(Clone, Debug, PartialEq)]
pub struct ToldPiece {
    /// Row number.
    pub id: i64,
    /// Number of the newest revision.
    pub version: i64,
    /// Whether a drawing's picture is kept with it.
    pub has_picture: bool,
    /// What was last worked out of it, as JSON.
    pub line: Option<String>,
    /// That is of another revision, or was worked out with something else than now.
    pub is_behind: bool,
}

/// A document that a summary is to be worked out of.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Unsummed {
    pub piece: i64,
    pub version: i64,
    pub document: String,
}

/// Where a summary `s` of a piece `p` is behind; `:stamp` is what summaries are worked out with now.
pub(crate) const IS_BEHIND: &str =
    "(s.piece_id IS NULL OR s.version <> p.head OR s.stamp <> :stamp OR coalesce(s.retry_at <= unixepoch(), 0))";

/// Which pieces are looked at for summaries that are behind.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Among {
    /// Those of one job.
    Job(i64),
    /// So many pieces with a number after this one, whatever their job.
    After {
        /// A piece's number; 0 begins.
        piece: i64,
        /// How many.
        most: u32,
    },
}

/// Those of some pieces that are behind.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Behind {
    /// Numbers of pieces.
    pub pieces: Vec<i64>,
    /// The last piece that was looked at; `None` where there was none.
    pub last: Option<i64>,
}

impl Store {
    /// The pieces whose summaries are behind, in the order made.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn behind(&self, among: Among, stamp: &str) -> Result<Behind, StoreError> {
        let (which, value, most) = match among {
            Among::Job(job) => ("p.job_id = :value", job, -1),
            Among::After { piece, most } => ("p.id > :value", piece, i64::from(most)),
        };
        let mut query = self.connection.prepare_cached(&format!(
            "SELECT p.id, {IS_BEHIND} FROM pieces p JOIN jobs j ON j.id = p.job_id
             LEFT JOIN summaries s ON s.piece_id = p.id
             WHERE {which} AND p.removed = 0 ORDER BY p.id LIMIT :most"
        ))?;
        let rows = query
            .query_map(rusqlite::named_params! {":stamp": stamp, ":value": value, ":most": most}, |row| {
                Ok((row.get::<_, i64>(0)?, row.get::<_, bool>(1)?))
            })?;
        let mut found = Behind::default();
        for row in rows {
            let (piece, is_behind) = row?;
            found.last = Some(piece);
            if is_behind {
                found.pieces.push(piece);
            }
        }
        Ok(found)
    }

    /// What a piece's summary is to be worked out of; `None` where it is not behind any more, or is in no job.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn unsummed(&self, piece: i64, stamp: &str) -> Result<Option<Unsummed>, StoreError> {
        let mut query = self.connection.prepare_cached(&format!(
            "SELECT p.head, r.document FROM pieces p JOIN revisions r ON r.piece_id = p.id AND r.number = p.head
             LEFT JOIN summaries s ON s.piece_id = p.id
             WHERE p.id = :piece AND p.removed = 0 AND {IS_BEHIND}"
        ))?;
        Ok(query
            .query_row(rusqlite::named_params! {":stamp": stamp, ":piece": piece}, |row| {
                Ok(Unsummed { piece, version: row.get(0)?, document: row.get(1)? })
            })
            .optional()?)
    }

    /// Keeps what was worked out of pieces. Of a piece that was saved since then it is left out: it would be told as
    /// what it was.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn put_summaries(&mut self, summaries: &[(i64, Summary)]) -> Result<(), StoreError> {
        let transaction = self.connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
        for (piece, summary) in summaries {
            put(&transaction, *piece, summary)?;
        }
        transaction.commit()?;
        Ok(())
    }

    /// A job's pieces as they are told, in the order made.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn told_pieces(&self, job: i64, stamp: &str) -> Result<Vec<ToldPiece>, StoreError> {
        let mut query = self.connection.prepare_cached(&format!(
            "SELECT p.id, p.head, EXISTS (SELECT 1 FROM pictures d WHERE d.piece_id = p.id), l.line, {IS_BEHIND}
             FROM pieces p LEFT JOIN summaries s ON s.piece_id = p.id LEFT JOIN summary_lines l ON l.piece_id = p.id
             WHERE p.job_id = :job AND p.removed = 0 ORDER BY p.id"
        ))?;
        let rows = query.query_map(rusqlite::named_params! {":stamp": stamp, ":job": job}, |row| {
            Ok(ToldPiece {
                id: row.get(0)?,
                version: row.get(1)?,
                has_picture: row.get(2)?,
                line: row.get(3)?,
                is_behind: row.get(4)?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// Keeps one, if its piece still is what it was worked out of.
pub(crate) fn put(transaction: &Transaction<'_>, piece: i64, summary: &Summary) -> Result<(), StoreError> {
    if head(transaction, piece)? != Some(summary.version) {
        return Ok(());
    }
    transaction
        .prepare_cached(
            "INSERT OR REPLACE INTO summaries
             (piece_id, version, stamp, retry_at, mark, title, words, items, mass, holds, callouts, broken)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11, ?12)",
        )?
        .execute(params![
            piece,
            summary.version,
            summary.stamp,
            summary.retry_at,
            summary.mark,
            summary.title,
            crate::words::folded(&summary.words),
            summary.items as i64,
            summary.mass,
            summary.holds as i64,
            summary.callouts as i64,
            summary.broken as i64
        ])?;
    transaction
        .prepare_cached("INSERT OR REPLACE INTO summary_lines (piece_id, line) VALUES (?1, ?2)")?
        .execute(params![piece, summary.line])?;
    Ok(())
}

fn head(connection: &Connection, piece: i64) -> Result<Option<i64>, StoreError> {
    Ok(connection
        .prepare_cached("SELECT head FROM pieces WHERE id = ?1")?
        .query_row([piece], |row| row.get(0))
        .optional()?)
}
