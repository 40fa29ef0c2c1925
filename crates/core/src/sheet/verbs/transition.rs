//! Two outlines joined by flat panels.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::sheet::set::SheetSet;
use crate::sheet::transition::{self, TransitionNumbers, read_transition};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, of_several};

pub(super) const TRANSITION: SheetVerb = SheetVerb::new("transition", read)
    .offering(offers::transition)
    .bending()
    .with_radius(|action| if let Action::Transition(given) = action { given.radius.as_ref() } else { None });

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Transition(given) = action else { return None };
    Some(Arc::new(read_transition(reader, given)?))
}

impl SheetWork for TransitionNumbers {
    fn make(&self, _: &mut Flat, name: &str, _: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        Err(of_several(name))
    }

    fn make_on(&self, set: &mut SheetSet, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        transition::lay(set, name, self, around.unit)
    }
}
