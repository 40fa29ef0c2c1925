//! Ribs across a bend.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::moved::{Moved, ribs_again};
use crate::sheet::reader::Reader;
use crate::sheet::rib::{RibNumbers, press, read_rib};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_new};

pub(super) const RIB: SheetVerb = SheetVerb::new("rib", read).offering(offers::rib);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Rib(given) = action else { return None };
    Some(Arc::new(read_rib(reader, given)?))
}

impl SheetWork for RibNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.bend)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        check_new(flat, name)?;
        press(flat, name, self, around.unit)?;
        Ok(Vec::new())
    }

    fn again(
        &self,
        flat: &mut Flat,
        own: &str,
        of: &str,
        moved: &Moved,
        around: &Around<'_>,
    ) -> Result<Vec<Finding>, Finding> {
        ribs_again(flat, own, of, moved, around.unit)
    }
}
