//! The words of the document, text only: what a piece's work says, verb by verb and shape by shape, and what its call-outs
//! measure. Nothing here is a number yet; each trade reads its own.

pub mod cite;
pub mod cutting;
pub mod frame;
pub mod measure;
mod offer;
pub mod shape;
pub mod sheet;
mod verb;

pub use offer::{Group, Offer, about};
pub use verb::{Action, Operation, PlateAction, Trade};
