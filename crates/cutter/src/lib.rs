//! The simulated cutter: a stand-in for the machine. It reads a program's text with a parser of its own, moves its head
//! with speeds and accelerations, and measures the part that is left against what was wanted.
//!
//! It shares nothing with what writes programs: geometry comes from `steelk-core`, the wanted part and the machine's own
//! kerf from whoever asks, everything else from the text.

#![forbid(unsafe_code)]
#![warn(missing_docs)]

mod inspect;
mod machine;
mod parse;
pub mod saw;
mod timing;
mod wanted;

pub use inspect::{Fault, FaultKind, Inspection, MeasuredContour, OUTLINE_TOLERANCE, inspect};
pub use machine::{Machine, Move, MoveKind, Run, RunError, run};
pub use parse::{Block, ParseError, Word, parse};
pub use wanted::{Wanted, WantedHole};
