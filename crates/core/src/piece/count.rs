//! How many of a piece are needed, how many are cut, and whether the first is measured before the rest.

use super::document::Piece;

/// What is said of a first-off (common practice: one is made and measured before the rest are).
pub const FIRST_OFF: &str = "first-off: make one and measure it before you make the rest";

/// How many of a piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Count {
    /// How many the job needs.
    pub needed: u32,
    /// How many more are cut, to prove a bend or a set-up on.
    pub spares: u32,
    /// Whether the first is made and measured before the rest.
    pub first_off: bool,
}

impl Count {
    /// How many are cut: those that are needed, and the spares.
    pub fn cut(self) -> u32 {
        self.needed.saturating_add(self.spares)
    }

    /// In words: `qty 4 + 1 spare, first-off`.
    pub fn words(self) -> String {
        let spares = match self.spares {
            0 => String::new(),
            1 => " + 1 spare".into(),
            more => format!(" + {more} spares"),
        };
        format!("qty {}{spares}{}", self.needed, if self.first_off { ", first-off" } else { "" })
    }
}

impl Piece {
    /// How many of it.
    pub fn count(&self) -> Count {
        Count { needed: self.quantity, spares: self.spares, first_off: self.first_off }
    }
}
