//! Round holes; and what holes of any shape do.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::hole::{self, HoleNumbers, read_drill};
use crate::sheet::moved::{Moved, holes_again};
use crate::sheet::reader::Reader;
use crate::sheet::set::SheetSet;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork};

pub(super) const DRILL: SheetVerb = SheetVerb::new("drill", read).offering(offers::drill);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Drill(given) = action else { return None };
    Some(Arc::new(read_drill(reader, given)?))
}

impl SheetWork for HoleNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.panel)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        let mut alone = SheetSet { flats: vec![std::mem::take(flat)], ..SheetSet::default() };
        let done = hole::cut(&mut alone, name, self, around.unit);
        *flat = alone.flats.remove(0);
        done
    }

    fn make_on(&self, set: &mut SheetSet, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        hole::cut(set, name, self, around.unit)
    }

    fn again(
        &self,
        flat: &mut Flat,
        own: &str,
        of: &str,
        moved: &Moved,
        around: &Around<'_>,
    ) -> Result<Vec<Finding>, Finding> {
        holes_again(flat, own, of, moved, around.unit)
    }
}
