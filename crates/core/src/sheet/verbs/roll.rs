//! Rolled arcs and tubes.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::chain::{self, RollNumbers, read_roll};
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_first};

pub(super) const ROLL: SheetVerb = SheetVerb::new("roll", read).offering(offers::roll).bending().end_view();

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Roll(given) = action else { return None };
    Some(Arc::new(read_roll(reader, given)?))
}

impl SheetWork for RollNumbers {
    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        check_first(flat)?;
        let chain = self.chain(name, flat.thickness, around.unit)?;
        chain::lay(flat, &chain, around.unit).map(|()| Vec::new())
    }
}
