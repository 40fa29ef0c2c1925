//! The piece document and everything that follows from it.

mod document;
mod evaluate;
mod frame;
mod mark;
mod outcome;
mod prove;
mod rename;
mod resolve;
mod variant;

pub use document::{
    BalloonPlace, Bending, CallOut, DocumentError, Kind, LARGEST_DOCUMENT, Piece, StockChoice, Variant,
};
pub use evaluate::{audit_fully, evaluate, fold_only};
pub use mark::mark_key;
pub use outcome::{BarGroup, BendReport, FrameOutcome, Options, Outcome};
pub use rename::Renaming;
pub use resolve::{OperationState, Resolved, resolve};
