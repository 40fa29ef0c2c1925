//! The one list of kinds of piece.

pub(super) mod frame;
mod row;
mod shaped;
pub(super) mod sheet;

pub use row::{KindRow, MadeFrom};
pub(super) use shaped::Asked;

use super::document::Kind;

/// Every kind, in the order of [`Kind`].
pub static KINDS: [KindRow; 3] = [sheet::SHEET, sheet::PLATE, frame::FRAME];

impl Kind {
    /// Its row in the list.
    pub fn row(self) -> &'static KindRow {
        // The order of both lists is one; a test holds them to it.
        &KINDS[self as usize]
    }
}
