//! Bending along a drawn line.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::crease::{self, CreaseNumbers, read_crease};
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork};

pub(super) const CREASE: SheetVerb = SheetVerb::new("crease", read)
    .offering(offers::crease)
    .bending()
    .with_radius(|action| if let Action::Crease(given) = action { given.radius.as_ref() } else { None });

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Crease(given) = action else { return None };
    Some(Arc::new(read_crease(reader, given)?))
}

impl SheetWork for CreaseNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.panel)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        crease::crease(flat, name, self, around.unit).map(|()| Vec::new())
    }
}
