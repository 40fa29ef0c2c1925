//! Rounding, clipping or notching corners.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::corner::{self, CornerNumbers, read_corner};
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork};

pub(super) const CORNER: SheetVerb = SheetVerb::new("corner", read).offering(offers::corner);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Corner(given) = action else { return None };
    Some(Arc::new(read_corner(reader, given)?))
}

impl SheetWork for CornerNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.panel)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        corner::cut(flat, name, self, around.unit).map(|()| Vec::new())
    }
}
