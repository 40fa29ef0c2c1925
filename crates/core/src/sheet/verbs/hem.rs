//! Hemming edges.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::hem::{self, HemNumbers, read_hem};
use crate::sheet::moved::{Moved, edge_and_set_in_there};
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_new};

pub(super) const HEM: SheetVerb = SheetVerb::new("hem", read)
    .offering(offers::hem)
    .bending()
    .along(|action| if let Action::Hem(given) = action { vec![&given.edge] } else { Vec::new() });

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Hem(given) = action else { return None };
    Some(Arc::new(read_hem(reader, given)?))
}

impl SheetWork for HemNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.edge)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        hem::hem(flat, name, self, around.unit)
    }

    fn again(
        &self,
        flat: &mut Flat,
        own: &str,
        _: &str,
        moved: &Moved,
        around: &Around<'_>,
    ) -> Result<Vec<Finding>, Finding> {
        let mut next = self.clone();
        (next.edge, next.set_in) = edge_and_set_in_there(flat, &self.edge, &self.set_in, moved)?;
        check_new(flat, own)?;
        next.make(flat, own, around)
    }
}
