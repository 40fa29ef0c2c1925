//! The shop's own tables, kept as text.

use rusqlite::{OptionalExtension as _, params};

use crate::{Store, StoreError};

/// A table of the shop.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct ShopTable {
    pub text: String,
    /// Counts up with every save; 0 while the shipped one is used.
    pub version: i64,
}

impl Store {
    /// The shop's table of this name; `None` while the shipped one is used.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn shop_table(&self, name: &str) -> Result<Option<ShopTable>, StoreError> {
        Ok(self
            .connection
            .query_row("SELECT text, version FROM shop_tables WHERE name = ?1", [name], |row| {
                Ok(ShopTable { text: row.get(0)?, version: row.get(1)? })
            })
            .optional()?)
    }

    /// Saves a table made from `version`; returns the new version.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when another save came between.
    pub fn put_shop_table(&mut self, name: &str, version: i64, text: &str) -> Result<i64, StoreError> {
        let transaction = self.connection.transaction()?;
        let current: i64 = transaction
            .query_row("SELECT version FROM shop_tables WHERE name = ?1", [name], |row| row.get(0))
            .optional()?
            .unwrap_or(0);
        if current != version {
            return Err(StoreError::Stale { yours: version, current });
        }
        transaction.execute(
            "INSERT INTO shop_tables (name, version, text) VALUES (?1, ?2, ?3)
             ON CONFLICT (name) DO UPDATE SET version = excluded.version, text = excluded.text,
             at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')",
            params![name, version + 1, text],
        )?;
        transaction.commit()?;
        Ok(version + 1)
    }
}
