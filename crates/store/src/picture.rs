//! Pictures of a piece: its drawing, and a photo that its outline is traced from; and those that were there before.

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
        match self {
            Slot::Drawing => "put in a drawing",
            Slot::Photo => "put in a photo to trace",
        }
    }

    /// What the log says when one is deleted.
    fn removed_note(self) -> &'static str {
        match self {
            Slot::Drawing => "deleted the drawing",
            Slot::Photo => "deleted the photo to trace",
        }
    }

    /// Its table of pictures as they are now.
    fn table(self) -> &'static str {
        match self {
            Slot::Drawing => "pictures",
            Slot::Photo => "photos",
        }
    }

    /// Its name in the table of those before.
    fn name(self) -> &'static str {
        match self {
            Slot::Drawing => "drawing",
            Slot::Photo => "photo",
        }
    }

    /// Keeps the picture that is there now among those before.
    fn keep(self, connection: &Connection, piece: i64) -> Result<(), StoreError> {
        let table = self.table();
        connection.execute(
            &format!(
                "INSERT INTO past_pictures (piece_id, slot, number, kind, bytes, at)
                 SELECT piece_id, ?2, (SELECT coalesce(max(number), 0) + 1 FROM past_pictures
                 WHERE piece_id = ?1 AND slot = ?2), kind, bytes, at FROM {table} WHERE piece_id = ?1"
            ),
            params![piece, self.name()],
        )?;
        Ok(())
    }

    /// Puts a picture in; the one that was there is kept among those before.
    pub(crate) fn put(self, connection: &Connection, piece: i64, picture: &Picture) -> Result<(), StoreError> {
        self.keep(connection, piece)?;
        let table = self.table();
        connection.execute(
            &format!(
                "INSERT INTO {table} (piece_id, kind, bytes) VALUES (?1, ?2, ?3)
                 ON CONFLICT (piece_id) DO UPDATE SET kind = excluded.kind, bytes = excluded.bytes,
                 at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')"
            ),
            params![piece, picture.kind, picture.bytes],
        )?;
        Ok(())
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

/// A picture that was there before the one that is there now.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct PastPicture {
    /// Counts up from 1 as pictures are put in their place.
    pub number: i64,
    pub kind: String,
    /// Bytes.
    pub size: i64,
    /// When it had been put in.
    pub at: String,
}

impl Store {
    /// Keeps a picture with a piece; one that was in its slot is kept among those before.
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

    /// Deletes a picture of a piece; it is kept among those before.
    ///
    /// # Errors
    /// [`StoreError::Missing`] piece, or when it has none.
    pub fn remove_picture(&mut self, piece: i64, slot: Slot) -> Result<(), StoreError> {
        let job = self.piece(piece)?.job_id;
        self.picture(piece, slot)?;
        let transaction = self.connection.transaction()?;
        slot.keep(&transaction, piece)?;
        transaction.execute(&format!("DELETE FROM {} WHERE piece_id = ?1", slot.table()), [piece])?;
        write_log(&transaction, job, Some(piece), slot.removed_note())?;
        transaction.commit()?;
        Ok(())
    }

    /// A picture of a piece.
    ///
    /// # Errors
    /// [`StoreError::Missing`] when it has none.
    pub fn picture(&self, piece: i64, slot: Slot) -> Result<Picture, StoreError> {
        let what = match slot {
            Slot::Drawing => "drawing of piece",
            Slot::Photo => "photo of piece",
        };
        self.connection
            .query_row(&format!("SELECT kind, bytes FROM {} WHERE piece_id = ?1", slot.table()), [piece], |row| {
                Ok(Picture { kind: row.get(0)?, bytes: row.get(1)? })
            })
            .optional()?
            .ok_or(StoreError::Missing { what, id: piece })
    }

    /// The pictures that were in a slot before, newest first.
    ///
    /// # Errors
    /// [`StoreError::Missing`] piece.
    pub fn past_pictures(&self, piece: i64, slot: Slot) -> Result<Vec<PastPicture>, StoreError> {
        self.piece(piece)?;
        let mut query = self.connection.prepare_cached(
            "SELECT number, kind, length(bytes), at FROM past_pictures WHERE piece_id = ?1 AND slot = ?2
             ORDER BY number DESC",
        )?;
        let rows = query.query_map(params![piece, slot.name()], |row| {
            Ok(PastPicture { number: row.get(0)?, kind: row.get(1)?, size: row.get(2)?, at: row.get(3)? })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One of the pictures that were in a slot before.
    ///
    /// # Errors
    /// [`StoreError::Missing`].
    pub fn past_picture(&self, piece: i64, slot: Slot, number: i64) -> Result<Picture, StoreError> {
        self.connection
            .query_row(
                "SELECT kind, bytes FROM past_pictures WHERE piece_id = ?1 AND slot = ?2 AND number = ?3",
                params![piece, slot.name(), number],
                |row| Ok(Picture { kind: row.get(0)?, bytes: row.get(1)? }),
            )
            .optional()?
            .ok_or(StoreError::Missing { what: "earlier picture", id: number })
    }
}
