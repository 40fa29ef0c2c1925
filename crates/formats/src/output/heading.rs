//! What heads every paper and file of a piece: which piece, which revision, who made it and when, and the note that applies.

use steelk_core::piece::{Outcome, Piece};
use steelk_core::release::rule_stamp;

use super::order::Stamp;

/// What heads a paper or a file.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Heading {
    /// Piece mark.
    pub mark: String,
    /// What it is.
    pub title: String,
    /// Which revision, who, when: what is known.
    pub stamp: Stamp,
    /// The note that applies: `NOT RELEASED: 2 rules broken`.
    pub note: Option<String>,
}

impl Heading {
    /// Of a piece and what it came to.
    pub fn new(piece: &Piece, outcome: &Outcome, stamp: &Stamp) -> Self {
        Heading {
            mark: piece.mark.clone(),
            title: piece.title.clone(),
            stamp: stamp.clone(),
            note: rule_stamp(outcome),
        }
    }

    /// The same of a part of it, with a mark of its own: a plate or a member of a frame.
    pub fn of_part(&self, mark: &str) -> Self {
        Heading { mark: format!("{} {mark}", self.mark), ..self.clone() }
    }

    /// What it is of, in a line: `WB-02, revision 3, by designer, 2026-11-28: Winch post bracket`. The title may be long and stands
    /// last, so that what runs off a paper is its end.
    pub fn line(&self) -> String {
        let own = self.short_line();
        if self.title.is_empty() { own } else { format!("{own}: {}", self.title) }
    }

    /// The same without the title.
    fn short_line(&self) -> String {
        [Some(self.mark.clone()), self.stamp.words()].into_iter().flatten().collect::<Vec<_>>().join(", ")
    }

    /// The note first, so that nobody reads past it, then what it is of.
    pub fn lines(&self) -> Vec<String> {
        self.note.iter().cloned().chain([self.line()]).collect()
    }

    /// The note and the stamp in few words, where there is little room and the mark stands beside.
    pub fn short(&self) -> Vec<String> {
        self.note.iter().cloned().chain([self.short_line()]).collect()
    }

    /// Both in one line.
    pub fn one_line(&self) -> String {
        self.lines().join(". ")
    }
}

/// What a file's name says of a piece that is not released: outside of the shop's pattern, so that none leaves it out.
pub(super) const NOT_RELEASED: &str = "NOT-RELEASED";
