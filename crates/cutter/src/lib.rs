//! The simulated cutter: a stand-in for the machine. It reads a program's text with a parser of its own, moves its head
//! with speeds and accelerations, and measures the part that is left against what was wanted.
//!
//! It shares nothing with what writes programs: geometry comes from `steelk-core`, the wanted part and the machine's own
//! kerf from whoever asks, everything else from the text.
//!
//! ```
//! let blocks = steelk_cutter::parse(b"G21 G90\nG1 X12.5 Y-3 F1800 (the corner)\n")?;
//! assert_eq!((blocks[1].value('X'), blocks[1].value('Y')), (Some(12.5), Some(-3.0)));
//! assert_eq!(blocks[1].comments, ["the corner"]);
//! # Ok::<(), steelk_cutter::ParseError>(())
//! ```

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
