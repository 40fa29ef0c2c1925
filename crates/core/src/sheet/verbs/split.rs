//! Parting a piece into blanks.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::sheet::set::SheetSet;
use crate::sheet::split::{self, SplitNumbers, read_split};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, of_several};

pub(super) const SPLIT: SheetVerb = SheetVerb::new("split", read).offering(offers::split);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Split(given) = action else { return None };
    Some(Arc::new(read_split(reader, given)?))
}

impl SheetWork for SplitNumbers {
    fn make(&self, _: &mut Flat, name: &str, _: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        Err(of_several(name))
    }

    fn make_on(&self, set: &mut SheetSet, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        split::split(set, name, self, around.unit).map(|()| Vec::new())
    }
}
