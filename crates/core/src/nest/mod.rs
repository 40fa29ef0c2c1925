//! Bars: pieces of a list cut from stock bars, with a proved lower bound beside the result.
//!
//! The bound is the linear relaxation over all cutting patterns (Gilmore and Gomory 1961, column generation), taken from its
//! dual prices so that it holds whatever was left unfinished (Farley 1990). The plan is found by fixing patterns of that
//! relaxation and solving again what is left, beside greedy fills.

use crate::quantity::tolerance::MODELLING_TOLERANCE;

mod columns;
#[doc(hidden)]
pub mod knapsack;
mod plan;
mod share;

pub use share::nest;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Bars of one length.
#[derive(Clone, Debug, PartialEq)]
pub struct StockBar {
    /// Length, mm.
    pub length: f64,
    /// How many; no limit where `None`.
    pub quantity: Option<usize>,
}

/// Pieces of one mark.
#[derive(Clone, Debug, PartialEq)]
pub struct BarPiece {
    /// Its mark.
    pub mark: String,
    /// Its length, mm.
    pub length: f64,
    /// How many.
    pub quantity: usize,
    /// How much of its length a neighbour with the same mitre takes over when it is turned to share the cut, mm; 0 where its
    /// ends cannot.
    pub shared: f64,
}

/// What is to be cut from what.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct BarProblem {
    /// Bars.
    pub stock: Vec<StockBar>,
    /// Width of a saw cut, mm.
    pub kerf: f64,
    /// Cut off each end of a bar, mm.
    pub end_trim: f64,
    /// The last of a bar, which the grip cannot give, mm.
    pub grip: f64,
    /// Pieces.
    pub pieces: Vec<BarPiece>,
}

/// One bar of a plan.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BarPlan {
    /// Its length, mm.
    pub stock: f64,
    /// Marks in order from its start.
    pub marks: Vec<String>,
    /// What is left of it, mm: behind the last cut, trims and grip not counted.
    pub offcut: f64,
}

/// A solved list.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct BarResult {
    /// Bars used.
    pub bars_used: usize,
    /// No plan uses fewer bars.
    pub lower_bound: usize,
    /// Length of bars used, mm.
    pub length_used: f64,
    /// No plan uses less length, mm.
    pub length_bound: f64,
    /// Whether nothing better exists: least length, and of those the fewest bars.
    pub optimal: bool,
    /// Every bar.
    pub plan: Vec<BarPlan>,
    /// Length of pieces, mm.
    pub length_cut: f64,
    /// Pieces of these marks lie side by side, every other one turned, and share their cuts.
    pub turned: Vec<String>,
}

/// Why a list cannot be cut.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{message}")]
pub struct NestError {
    /// What is wrong, with the values.
    pub message: String,
    /// What to do.
    pub way_out: String,
    /// Marks of pieces that no bar takes.
    pub too_long: Vec<String>,
}

/// How far a search has come.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct NestProgress {
    /// Rounds so far.
    pub rounds: usize,
    /// Bars of the best plan so far.
    pub bars: usize,
    /// The bound.
    pub bound: usize,
}

/// The most pieces of one list.
pub const MOST_PIECES: usize = 100_000;

impl BarProblem {
    /// What of a bar pieces may fill, a kerf added, mm: with it every piece counts its own kerf.
    pub fn room(&self, bar: &StockBar) -> f64 {
        bar.length - 2.0 * self.end_trim - self.grip + self.kerf
    }

    /// Whether marks fit a bar: lengths, a kerf between neighbours, the trims and the grip. A hair of rounding is let by.
    pub fn fits(&self, lengths: &[f64], bar: f64) -> bool {
        let cuts = lengths.len().saturating_sub(1) as f64 * self.kerf;
        lengths.iter().sum::<f64>() + cuts + 2.0 * self.end_trim + self.grip <= bar + MODELLING_TOLERANCE
    }
}
