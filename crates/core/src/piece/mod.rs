//! The piece document and everything that follows from it.

mod document;
mod evaluate;
mod frame;
mod resolve;
mod variant;

pub use document::{BalloonPlace, Bending, CallOut, DocumentError, Kind, LARGEST_DOCUMENT, Piece, StockChoice};
pub use evaluate::{BendReport, Options, Outcome, audit_fully, evaluate, fold_only};
pub use frame::{BarGroup, FrameOutcome};
pub use resolve::{OperationState, Resolved, resolve};
pub use variant::Variant;
