//! A profile seen from its end.

use std::sync::Arc;

use crate::finding::Finding;
use crate::sheet::chain::{self, ProfileNumbers, read_profile};
use crate::sheet::flat::Flat;
use crate::sheet::reader::Reader;
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_first};

pub(super) const PROFILE: SheetVerb = SheetVerb::new("profile", read)
    .offering(offers::profile)
    .bending()
    .end_view()
    .with_radius(|action| if let Action::Profile(given) = action { given.radius.as_ref() } else { None });

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Profile(given) = action else { return None };
    Some(Arc::new(read_profile(reader, given)?))
}

impl SheetWork for ProfileNumbers {
    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        check_first(flat)?;
        let chain = self.chain(name, flat.thickness, around.unit)?;
        chain::lay(flat, &chain, around.unit).map(|()| Vec::new())
    }
}
