//! Slots for tabs.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::moved::{Moved, holes_again};
use crate::sheet::reader::Reader;
use crate::sheet::slice::{self, SlotsNumbers, read_slots};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork};

pub(super) const SLOTS: SheetVerb = SheetVerb::new("slots", read).offering(offers::slots);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Slots(given) = action else { return None };
    Some(Arc::new(read_slots(reader, given)?))
}

impl SheetWork for SlotsNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.panel)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        slice::slots(flat, name, self, around.unit)
    }

    fn again(
        &self,
        flat: &mut Flat,
        own: &str,
        of: &str,
        moved: &Moved,
        around: &Around<'_>,
    ) -> Result<Vec<Finding>, Finding> {
        holes_again(flat, own, of, moved, around.unit)
    }
}
