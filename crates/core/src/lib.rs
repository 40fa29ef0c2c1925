//! The trade's rules and computation: from a piece document to its blank, folded shape, weights and proofs.
//!
//! No I/O, no clock, no randomness: the same input gives the same output.

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod finding;
pub mod plane;
pub mod quantity;
pub mod space;
pub mod stock;
pub mod sheet;
pub mod measure;
pub mod cutlist;
pub mod piece;
pub mod proof;
pub mod drawing;
