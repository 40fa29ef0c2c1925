//! The marks that a document states, for the store, which knows nothing of documents.

use steelk_core::piece::{Piece, mark_key};
use steelk_store::Mark;

/// The marks of a piece and of its variants; none of a document that cannot be read.
pub fn marks_of(document: &str) -> Vec<Mark> {
    let Ok(piece) = Piece::read(document.as_bytes()) else { return Vec::new() };
    piece.marks().into_iter().map(|text| Mark { key: mark_key(&text), text }).collect()
}
