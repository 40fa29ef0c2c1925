//! Bending flanges along edges.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flange;
use crate::sheet::flat::Flat;
use crate::sheet::moved::{Moved, along_itself, edge_there, moved_along, turned_sides};
use crate::sheet::numbers::BendNumbers;
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_new};

pub(super) const BEND: SheetVerb = SheetVerb::new("bend", read)
    .offering(offers::bend)
    .bending()
    .with_radius(|action| if let Action::Bend(given) = action { given.radius.as_ref() } else { None })
    .along(|action| match action {
        Action::Bend(given) => std::iter::once(&given.edge).chain(&given.also).collect(),
        _ => Vec::new(),
    });

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Bend(given) = action else { return None };
    Some(Arc::new(reader.bend(given)?))
}

impl SheetWork for BendNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.edge)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        flange::bend(flat, name, self, around.unit)
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
        if self.also.is_empty() && along_itself(flat, &self.edge, moved).is_some() {
            next.set_in = moved_along(flat, &self.edge, &self.set_in, moved);
        } else {
            for name in self.own.keys() {
                let there = edge_there(flat, name, moved)?.0;
                if let Some(own) = next.own.remove(name) {
                    next.own.insert(there, own);
                }
            }
            let (edge, sides) = edge_there(flat, &self.edge, moved)?;
            next.edge = edge;
            next.set_in = turned_sides(&self.set_in, &sides);
            for also in &mut next.also {
                *also = edge_there(flat, also, moved)?.0;
            }
        }
        check_new(flat, own)?;
        next.make(flat, own, around)
    }
}
