//! The shop's own tables, kept as text, with those that were there before.

use rusqlite::{OptionalExtension as _, params};

use crate::{Store, StoreError};

/// A table of the shop.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct ShopTable {
    pub text: String,
    /// Counts up with every save; 0 while the shipped one is used.
    pub version: i64,
    /// When it was saved.
    pub at: String,
}

impl Store {
    /// The shop's table of this name; `None` while the shipped one is used.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn shop_table(&self, name: &str) -> Result<Option<ShopTable>, StoreError> {
        Ok(self
            .connection
            .query_row("SELECT text, version, at FROM shop_tables WHERE name = ?1", [name], shop_table)
            .optional()?)
    }

    /// The tables of this name that were there before, newest first.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn past_shop_tables(&self, name: &str) -> Result<Vec<ShopTable>, StoreError> {
        let mut query = self
            .connection
            .prepare_cached("SELECT text, version, at FROM past_shop_tables WHERE name = ?1 ORDER BY version DESC")?;
        Ok(query.query_map([name], shop_table)?.collect::<Result<_, _>>()?)
    }

    /// Saves a table made from `version`; the one that was there is kept among those before. The new version.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when another save came between.
    pub fn put_shop_table(&mut self, name: &str, version: i64, text: &str) -> Result<i64, StoreError> {
        let transaction = self.connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
        let current: i64 = transaction
            .query_row("SELECT version FROM shop_tables WHERE name = ?1", [name], |row| row.get(0))
            .optional()?
            .unwrap_or(0);
        if current != version {
            return Err(StoreError::Stale { yours: version, current });
        }
        transaction.execute(
            "INSERT INTO past_shop_tables (name, version, text, at)
             SELECT name, version, text, at FROM shop_tables WHERE name = ?1",
            [name],
        )?;
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

fn shop_table(row: &rusqlite::Row<'_>) -> rusqlite::Result<ShopTable> {
    Ok(ShopTable { text: row.get(0)?, version: row.get(1)?, at: row.get(2)? })
}
