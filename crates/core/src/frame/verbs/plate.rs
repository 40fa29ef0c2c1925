//! Plates on the frame.

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::plate::lay_plate;
use crate::work::frame::PlateKind;
use crate::work::{Action, PlateAction};

use super::offers;
use super::verb::{FrameVerb, OnMembers, Site};

pub(super) const PLATE: FrameVerb = FrameVerb::members(
    "plate",
    "lays plates",
    |action| {
        let Action::Plate(plate) = action else { return None };
        Some(match &plate.kind {
            PlateKind::Gusset(gusset) => (&gusset.between, "gusset"),
            PlateKind::Base(base) => (&base.of, "base plate"),
            PlateKind::Face(face) => (&face.of, "plate"),
            // A panel's members round one opening are not those round another.
            PlateKind::Panel(panel) => (&panel.between, "panel"),
        })
    },
    read,
)
.offering(offers::plate);

/// A plate's text is read where it is laid: its sizes stand in for what its place leaves open.
#[derive(Debug)]
struct PlateSaid(PlateAction);

fn read(_: &mut Fields<'_>, action: &Action) -> Option<Box<dyn OnMembers>> {
    let Action::Plate(plate) = action else { return None };
    Some(Box::new(PlateSaid(plate.clone())))
}

impl OnMembers for PlateSaid {
    fn work(&self, site: &mut Site<'_, '_>, name: &str) -> Result<(), Finding> {
        let (mut context, reader) = site.plate();
        lay_plate(&mut context, name, &self.0, reader)
    }
}
