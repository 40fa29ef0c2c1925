//! Notching edges.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::moved::{Moved, edge_there};
use crate::sheet::reader::Reader;
use crate::sheet::slice::{self, NotchNumbers, read_notch};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_new};

pub(super) const NOTCH: SheetVerb = SheetVerb::new("notch", read).offering(offers::notch);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Notch(given) = action else { return None };
    Some(Arc::new(read_notch(reader, given)?))
}

impl SheetWork for NotchNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.edge)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        slice::notch(flat, name, self, around.unit)
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
        let length = flat.edges.iter().find(|edge| edge.name == self.edge).map_or(0.0, |edge| edge.line.length());
        next.edge = edge_there(flat, &self.edge, moved)?.0;
        // From the other end of the edge, the row runs the other way.
        if let (Some(at), true) = (self.at, moved.mirror.is_some()) {
            next.at = Some(length - at - self.spacing * (self.count - 1) as f64);
        }
        check_new(flat, own)?;
        next.make(flat, own, around)
    }
}
