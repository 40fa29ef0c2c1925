//! The trade's rules and computation: from a piece document to its blank, folded shape, weights and proofs.
//!
//! No I/O, no clock, no randomness: the same input gives the same output.

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod audit;
pub mod brake;
pub mod cutlist;
pub mod drawing;
pub mod finding;
pub mod frame;
pub mod measure;
pub mod nest;
pub mod patience;
pub mod piece;
pub mod plane;
pub mod proof;
pub mod quantity;
pub mod release;
pub mod section;
pub mod sheet;
pub mod space;
pub mod stock;
pub mod table;
pub mod toolpath;
pub mod work;
