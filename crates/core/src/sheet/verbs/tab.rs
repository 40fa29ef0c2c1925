//! Tabs on an edge.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::sheet::slice::{self, TabNumbers, read_tab};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork};

pub(super) const TAB: SheetVerb = SheetVerb::new("tab", read).offering(offers::tab);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Tab(given) = action else { return None };
    Some(Arc::new(read_tab(reader, given)?))
}

impl SheetWork for TabNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.edge)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        slice::lay_tabs(flat, name, self, around.unit).map(|()| Vec::new())
    }
}
