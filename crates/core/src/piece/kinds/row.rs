//! What the pipeline asks of a kind of piece.

use crate::piece::Piece;
use crate::piece::document::Kind;
use crate::piece::made::Made;
use crate::piece::resolved::Resolved;
use crate::proof::Subject;

use super::shaped::{Asked, Shaped};

/// What a kind is made from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum MadeFrom {
    /// Sheet or plate of one thickness.
    Sheet,
    /// Lengths of sections, each with its own.
    Sections,
}

/// A kind of piece: everything that differs from one kind to the next.
pub struct KindRow {
    /// Which.
    pub kind: Kind,
    /// What it is called in a sentence.
    pub word: &'static str,
    /// What it is made from.
    pub made_from: MadeFrom,
    /// Why nothing of one with an error is given out, in words.
    pub withheld: &'static str,
    /// What to do about one on which nothing is built yet, in words.
    pub nothing_yet: &'static str,
    /// Reads its operations.
    pub(in crate::piece) read: fn(&Piece, Option<usize>, &mut Resolved),
    /// Makes it, with its rules and its audit.
    pub(in crate::piece) make: fn(Asked<'_>) -> Shaped,
    /// What its call-outs are measured on.
    pub(in crate::piece) subject: for<'a> fn(&Piece, &'a Made) -> Subject<'a>,
}
