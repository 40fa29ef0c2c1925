//! Pictures of a piece: its drawing, and a photo that its outline is traced from.

use rusqlite::{Connection, OptionalExtension as _, params};

use crate::job::write_log;
use crate::{Store, StoreError};

/// Which picture of a piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Slot {
    /// The drawing.
    Drawing,
    /// What its outline is traced from.
    Photo,
}

impl Slot {
    /// What the log says when one is put in.
    pub(crate) fn note(self) -> &'static str {
        self.words().2
    }

    /// Puts a picture in, in place of any other.
    pub(crate) fn put(self, connection: &Connection, piece: i64, picture: &Picture) -> Result<(), StoreError> {
        connection.execute(self.words().0, params![piece, picture.kind, picture.bytes])?;
        Ok(())
    }

    /// Statement that puts a picture in, statement that reads it, words for the log, words for what is missing.
    fn words(self) -> (&'static str, &'static str, &'static str, &'static str) {
        match self {
            Slot::Drawing => (
                "INSERT INTO pictures (piece_id, kind, bytes) VALUES (?1, ?2, ?3)
                 ON CONFLICT (piece_id) DO UPDATE SET kind = excluded.kind, bytes = excluded.bytes,
                 at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')",
                "SELECT kind, bytes FROM pictures WHERE piece_id = ?1",
                "put in a drawing",
                "drawing of piece",
            ),
            Slot::Photo => (
                "INSERT INTO photos (piece_id, kind, bytes) VALUES (?1, ?2, ?3)
                 ON CONFLICT (piece_id) DO UPDATE SET kind = excluded.kind, bytes = excluded.bytes,
                 at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')",
                "SELECT kind, bytes FROM photos WHERE piece_id = ?1",
                "put in a photo to trace",
                "photo of piece",
            ),
        }
    }
}

/// A picture as it was put in.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Picture {
    /// `image/png`, `image/jpeg` or `image/webp`.
    pub kind: String,
    pub bytes: Vec<u8>,
}

impl Store {
    /// Keeps a picture with a piece, in place of any other in its slot.
    ///
    /// # Errors
    /// [`StoreError::Missing`] piece.
    pub fn put_picture(&mut self, piece: i64, slot: Slot, picture: &Picture) -> Result<(), StoreError> {
        let job = self.piece(piece)?.job_id;
        let transaction = self.connection.transaction()?;
        slot.put(&transaction, piece, picture)?;
        write_log(&transaction, job, Some(piece), slot.note())?;
        transaction.commit()?;
        Ok(())
    }

    /// A picture of a piece.
    ///
    /// # Errors
    /// [`StoreError::Missing`] when it has none.
    pub fn picture(&self, piece: i64, slot: Slot) -> Result<Picture, StoreError> {
        let (_, read, _, what) = slot.words();
        self.connection
            .query_row(read, [piece], |row| Ok(Picture { kind: row.get(0)?, bytes: row.get(1)? }))
            .optional()?
            .ok_or(StoreError::Missing { what, id: piece })
    }
}
