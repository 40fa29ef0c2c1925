//! The piece document and everything that follows from it.

mod document;
mod evaluate;
mod frame;
mod mark;
mod resolve;
mod variant;

pub use document::{BalloonPlace, Bending, CallOut, DocumentError, Kind, LARGEST_DOCUMENT, Piece, StockChoice};
pub use evaluate::{BendReport, Options, Outcome, audit_fully, evaluate, fold_only};
pub use frame::{BarGroup, FrameOutcome};
pub use mark::mark_key;
pub use resolve::{OperationState, Resolved, resolve};
pub use variant::Variant;
