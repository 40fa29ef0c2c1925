//! Ribs pressed across a bend, so that it does not spring: a ridge from leg to leg inside the bend, of the sheet's own thickness all over.

mod laid;
mod model;
mod numbers;
mod press;
mod read;
mod section;

pub use model::Rib;
pub(in crate::sheet) use numbers::{RibLegsNumbers, RibNumbers, RibRow};
pub(in crate::sheet) use press::{check_bend, keep_ribs, press, put, struck};
pub(in crate::sheet) use read::read_rib;
pub use section::{
    BentLegs, Part as RibPart, Piece as RibPiece, RibFault, RibShell, RibSizes, Zone as RibZone, shells,
};
