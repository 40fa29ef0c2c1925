//! The picture of a piece's drawing.

use rusqlite::{OptionalExtension as _, params};

use crate::job::write_log;
use crate::{Store, StoreError};

/// A drawing's picture.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Picture {
    /// `image/png`, `image/jpeg` or `image/webp`.
    pub kind: String,
    pub bytes: Vec<u8>,
}

impl Store {
    /// Keeps a picture with a piece, in place of any other.
    ///
    /// # Errors
    /// [`StoreError::Missing`] piece.
    pub fn put_picture(&mut self, piece: i64, picture: &Picture) -> Result<(), StoreError> {
        let job = self.piece(piece)?.job_id;
        let transaction = self.connection.transaction()?;
        transaction.execute(
            "INSERT INTO pictures (piece_id, kind, bytes) VALUES (?1, ?2, ?3)
             ON CONFLICT (piece_id) DO UPDATE SET kind = excluded.kind, bytes = excluded.bytes,
             at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')",
            params![piece, picture.kind, picture.bytes],
        )?;
        write_log(&transaction, job, Some(piece), "put in a drawing")?;
        transaction.commit()?;
        Ok(())
    }

    /// The picture of a piece.
    ///
    /// # Errors
    /// [`StoreError::Missing`] when it has none.
    pub fn picture(&self, piece: i64) -> Result<Picture, StoreError> {
        self.connection
            .query_row("SELECT kind, bytes FROM pictures WHERE piece_id = ?1", [piece], |row| {
                Ok(Picture { kind: row.get(0)?, bytes: row.get(1)? })
            })
            .optional()?
            .ok_or(StoreError::Missing { what: "drawing of piece", id: piece })
    }
}
