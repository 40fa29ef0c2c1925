//! Joining two edges.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::lay_seam::lay_seam;
use crate::sheet::reader::Reader;
use crate::sheet::seam::{SeamNumbers, read_seam};
use crate::sheet::set::SheetSet;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, of_several};

pub(super) const SEAM: SheetVerb = SheetVerb::new("seam", read)
    .offering(offers::seam)
    .along(|action| if let Action::Seam(given) = action { vec![&given.from, &given.to] } else { Vec::new() });

fn read(_: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Seam(given) = action else { return None };
    Some(Arc::new(read_seam(given)))
}

impl SheetWork for SeamNumbers {
    fn make(&self, _: &mut Flat, name: &str, _: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        Err(of_several(name))
    }

    fn make_on(&self, set: &mut SheetSet, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        lay_seam(set, name, self, around.unit)
    }
}
