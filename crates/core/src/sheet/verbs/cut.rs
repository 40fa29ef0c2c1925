//! Holes of another shape.

use std::sync::Arc;

use crate::sheet::hole::read_cut;
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{OperationNumbers, SheetVerb};

pub(super) const CUT: SheetVerb = SheetVerb::new("cut", read).offering(offers::cut);

/// What it does is what any hole does: see `drill`.
fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Cut(given) = action else { return None };
    Some(Arc::new(read_cut(reader, given)?))
}
