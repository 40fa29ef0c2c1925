//! The piece document and everything that follows from it.

mod blanks;
mod count;
mod document;
mod evaluate;
mod kinds;
mod made;
mod mark;
mod outcome;
mod prove;
mod rename;
mod resolve;
mod resolved;
mod variant;

pub use blanks::{BlankOf, alone, blanks_of};
pub use count::{Count, FIRST_OFF};
pub use document::{
    BalloonPlace, Bending, CallOut, DocumentError, Kind, LARGEST_DOCUMENT, Piece, StockChoice, Variant,
};
pub use evaluate::{audit_fully, evaluate, fold_only};
pub use kinds::{KINDS, KindRow, MadeFrom};
pub use made::{BarGroup, FrameOutcome, Made};
pub use mark::mark_key;
pub use outcome::{Need, Options, Outcome};
pub use rename::Renaming;
pub use resolve::resolve;
pub use resolved::{OperationState, Resolved};
