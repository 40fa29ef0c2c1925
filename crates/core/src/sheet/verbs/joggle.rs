//! Joggling edges.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::joggle::{self, JoggleNumbers, read_joggle};
use crate::sheet::moved::{Moved, edge_and_set_in_there};
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_new};

pub(super) const JOGGLE: SheetVerb = SheetVerb::new("joggle", read)
    .offering(offers::joggle)
    .bending()
    .with_radius(|action| if let Action::Joggle(given) = action { given.radius.as_ref() } else { None })
    .along(|action| if let Action::Joggle(given) = action { vec![&given.edge] } else { Vec::new() });

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Joggle(given) = action else { return None };
    Some(Arc::new(read_joggle(reader, given)?))
}

impl SheetWork for JoggleNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.edge)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        joggle::joggle(flat, name, self, around.unit)
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
