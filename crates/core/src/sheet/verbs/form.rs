//! Pressed forms.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::flat::Flat;
use crate::sheet::form::{FormNumbers, press, read_form};
use crate::sheet::moved::{Moved, forms_again};
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_new};

pub(super) const FORM: SheetVerb = SheetVerb::new("form", read).offering(offers::form);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Form(given) = action else { return None };
    Some(Arc::new(read_form(reader, given)?))
}

impl SheetWork for FormNumbers {
    fn stands_on(&self) -> Option<&str> {
        Some(&self.places.panel)
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        check_new(flat, name)?;
        press(flat, name, self, around.unit)
    }

    fn again(
        &self,
        flat: &mut Flat,
        own: &str,
        of: &str,
        moved: &Moved,
        around: &Around<'_>,
    ) -> Result<Vec<Finding>, Finding> {
        forms_again(flat, own, of, moved, around.unit)
    }
}
