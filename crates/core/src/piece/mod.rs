//! The piece document and everything that follows from it.

mod document;
mod evaluate;
mod resolve;
mod variant;

pub use document::{BalloonPlace, Bending, CallOut, DocumentError, Grain, Kind, LARGEST_DOCUMENT, Piece, StockChoice};
pub use evaluate::{BendReport, Options, Outcome, evaluate, fold_only};
pub use variant::Variant;
pub use resolve::{OperationState, Resolved, resolve};
