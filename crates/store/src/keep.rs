//! Keeping: copies that are whole and checked, and a look at everything that is stored.

use std::path::Path;

use rusqlite::{Connection, OpenFlags};

use crate::{MarksOf, Store, StoreError, migrations_known};

/// A revision as it is stored.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Stored {
    pub job: i64,
    pub piece: i64,
    pub number: i64,
    pub document: String,
    /// It is what its piece is now, in a job or taken out of one.
    pub is_current: bool,
}

impl Store {
    /// Opens a database to read from and changes nothing of it, be it of an older Steelk.
    ///
    /// # Errors
    /// [`StoreError::Newer`], or the database's own words.
    pub fn open_to_read(path: &Path, marks_of: MarksOf) -> Result<Store, StoreError> {
        let connection = Connection::open_with_flags(path, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
        connection.busy_timeout(std::time::Duration::from_secs(5))?;
        let version: i64 = connection.pragma_query_value(None, "user_version", |row| row.get(0))?;
        if version > migrations_known() {
            return Err(StoreError::Newer { version, known: migrations_known() });
        }
        Ok(Store { connection, marks_of })
    }

    /// The version of its tables where this Steelk would bring them up to date when it opens them to write; 0 of a new
    /// file.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn is_older(&self) -> Result<Option<i64>, StoreError> {
        let version: i64 = self.connection.pragma_query_value(None, "user_version", |row| row.get(0))?;
        Ok((version < migrations_known()).then_some(version))
    }

    /// Whether the file's pages hang together, without reading all that is in them: `ok`.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn quick_check(&self) -> Result<String, StoreError> {
        Ok(self.connection.query_row("PRAGMA quick_check(1)", [], |row| row.get(0))?)
    }

    /// Writes a copy of everything as it is at one moment, while others read and write, into a file that is empty or
    /// not there.
    ///
    /// # Errors
    /// [`StoreError::Database`], of the disk being full for one.
    pub fn copy_to(&self, file: &Path) -> Result<(), StoreError> {
        self.connection.execute("VACUUM INTO ?1", [file.to_string_lossy()])?;
        Ok(())
    }

    /// Lets the file grow to so many pages and no further, as a full disk would.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn limit_pages(&self, most: i64) -> Result<(), StoreError> {
        Ok(self.connection.pragma_update(None, "max_page_count", most)?)
    }

    /// The day that it is here, as `2026-12-01`.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn today(&self) -> Result<String, StoreError> {
        Ok(self.connection.query_row("SELECT strftime('%Y-%m-%d', 'now', 'localtime')", [], |row| row.get(0))?)
    }

    /// Hands out every revision of every piece.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn each_revision(&self, each: &mut dyn FnMut(Stored)) -> Result<(), StoreError> {
        let mut query = self.connection.prepare(
            "SELECT p.job_id, p.id, r.number, r.document, r.number = p.head FROM pieces p
             JOIN revisions r ON r.piece_id = p.id ORDER BY p.id, r.number",
        )?;
        let rows = query.query_map([], |row| {
            Ok(Stored {
                job: row.get(0)?,
                piece: row.get(1)?,
                number: row.get(2)?,
                document: row.get(3)?,
                is_current: row.get(4)?,
            })
        })?;
        for row in rows {
            each(row?);
        }
        Ok(())
    }
}
