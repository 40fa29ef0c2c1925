//! The blanks that a piece of sheet comes to.

use super::{Figures, Part, figures};

/// One blank with what it folds to and its figures.
#[derive(Clone, Debug)]
pub struct SheetBlank {
    /// In the flat and folded.
    pub part: Part,
    /// Its figures.
    pub figures: Figures,
}

/// The blanks of one piece: exactly one today. What is only said of a single blank asks [`only`](Self::only) and refuses in
/// words where there are more; nothing ever takes the first of several for the whole.
#[derive(Clone, Debug)]
pub struct Sheets {
    blanks: Vec<SheetBlank>,
}

impl Sheets {
    /// A piece of one blank.
    pub fn of(part: Part) -> Sheets {
        let figures = figures(&part);
        Sheets { blanks: vec![SheetBlank { part, figures }] }
    }

    /// Every blank, in the order in which they were made.
    pub fn blanks(&self) -> &[SheetBlank] {
        &self.blanks
    }

    /// The blank, where there is exactly one.
    pub fn only(&self) -> Option<&SheetBlank> {
        match self.blanks.as_slice() {
            [blank] => Some(blank),
            _ => None,
        }
    }

    /// The blank by itself, where there is exactly one.
    pub fn into_only(mut self) -> Option<SheetBlank> {
        if self.blanks.len() == 1 { self.blanks.pop() } else { None }
    }
}
