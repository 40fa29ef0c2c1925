//! What can be done with, and measured of, what somebody points at: made from what was built, by the verbs' own rows.

mod frame;
mod sheet;
mod told;

pub use told::{MOST_POINTED, Offers, PointedAt, Reading};

use crate::piece::{Kind, Made, Outcome, Piece};
use crate::quantity::LengthUnit;

/// What is offered for these names of a piece; for none what its lists of verbs begin with. Printed in `show`.
pub fn offers(piece: &Piece, outcome: &Outcome, names: &[String], show: LengthUnit) -> Offers {
    let mut all = match (&outcome.made, piece.kind) {
        (Some(Made::Frame(frame)), _) => frame::offers(frame, names, piece.unit, show),
        (None, Kind::Frame) => frame::offers(&Default::default(), names, piece.unit, show),
        _ => sheet::offers(piece, outcome, names, show),
    };
    all.offers.sort_by_key(|offer| offer.group);
    all
}
