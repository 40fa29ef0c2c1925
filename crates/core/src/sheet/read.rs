//! From an operation's text to its numbers.

use crate::finding::Finding;
use crate::plane::Point;
use crate::quantity::Dimension;
use crate::work::{Action, Operation};

use super::again_numbers::{AgainNumbers, read_again};
use super::chain::{ProfileNumbers, RollNumbers, read_profile, read_roll};
use super::corner::{CornerNumbers, read_corner};
use super::crease::{CreaseNumbers, read_crease};
use super::hem::{HemNumbers, read_hem};
use super::hole::{HoleNumbers, read_cut, read_drill};
use super::joggle::{JoggleNumbers, read_joggle};
use super::numbers::{BendNumbers, Numbers};
use super::reader::{Reader, ResolvedValue};
use super::shape::{Laid, read_shape};
use super::slice::{NotchNumbers, SlotsNumbers, TabNumbers, read_notch, read_slots, read_tab};

/// An operation's numbers.
#[derive(Clone, Debug, PartialEq)]
pub enum OperationNumbers {
    /// The base panel's shape.
    LayDown(Laid),
    /// A flange.
    Bend(BendNumbers),
    /// Holes.
    Holes(HoleNumbers),
    /// Corners.
    Corner(CornerNumbers),
    /// A profile seen from its end.
    Profile(ProfileNumbers),
    /// A rolled arc or tube.
    Roll(RollNumbers),
    /// A hem.
    Hem(HemNumbers),
    /// A joggle.
    Joggle(JoggleNumbers),
    /// A bend along a drawn line.
    Crease(CreaseNumbers),
    /// Notches on an edge.
    Notch(NotchNumbers),
    /// Tabs.
    Tab(TabNumbers),
    /// Slots for tabs.
    Slots(SlotsNumbers),
    /// Operations made again.
    Again(AgainNumbers),
}

/// An operation read: its numbers where every field was good, what each field came to, and what was wrong.
pub struct ReadOperation {
    /// The numbers; `None` when a field was bad.
    pub numbers: Option<OperationNumbers>,
    /// What each good field came to.
    pub values: Vec<ResolvedValue>,
    /// What was wrong; field paths are relative to the operation.
    pub findings: Vec<Finding>,
}

/// Reads every field of an operation. All faults are reported, not only the first.
pub fn read_operation(operation: &Operation, given: &Numbers) -> ReadOperation {
    // R in an operation is that bend's own radius where it names one.
    let mut given = given.clone();
    let own_radius = match &operation.action {
        Action::Bend(bend) => bend.radius.as_ref(),
        Action::Profile(profile) => profile.radius.as_ref(),
        Action::Joggle(joggle) => joggle.radius.as_ref(),
        Action::Crease(crease) => crease.radius.as_ref(),
        _ => None,
    };
    if let Some(text) = own_radius
        && let Ok(radius) = given.names.read(text, Dimension::LENGTH, "an inside radius")
    {
        given.names.set("R", crate::quantity::Known::Value(crate::quantity::Quantity::new(radius, Dimension::LENGTH)));
    }
    let mut reader = Reader { given: &given, found: Vec::new(), findings: Vec::new(), blocked: false };
    let numbers = match &operation.action {
        Action::LayDown(lay) => {
            let laid = read_shape(&mut reader, "shape", &lay.shape);
            laid.map(|laid| {
                OperationNumbers::LayDown(match lay.by {
                    Some(by) => laid.placed(by, Point::default()),
                    None => laid,
                })
            })
        }
        Action::Bend(bend) => reader.bend(bend).map(OperationNumbers::Bend),
        Action::Drill(drill) => read_drill(&mut reader, drill).map(OperationNumbers::Holes),
        Action::Cut(cut) => read_cut(&mut reader, cut).map(OperationNumbers::Holes),
        Action::Corner(corner) => read_corner(&mut reader, corner).map(OperationNumbers::Corner),
        Action::Profile(profile) => read_profile(&mut reader, profile).map(OperationNumbers::Profile),
        Action::Roll(roll) => read_roll(&mut reader, roll).map(OperationNumbers::Roll),
        Action::Hem(hem) => read_hem(&mut reader, hem).map(OperationNumbers::Hem),
        Action::Joggle(joggle) => read_joggle(&mut reader, joggle).map(OperationNumbers::Joggle),
        Action::Crease(crease) => read_crease(&mut reader, crease).map(OperationNumbers::Crease),
        Action::Notch(notch) => read_notch(&mut reader, notch).map(OperationNumbers::Notch),
        Action::Tab(tab) => read_tab(&mut reader, tab).map(OperationNumbers::Tab),
        Action::Slots(slots) => read_slots(&mut reader, slots).map(OperationNumbers::Slots),
        Action::Again(again) => read_again(&mut reader, again).map(OperationNumbers::Again),
        _ => {
            reader.findings.push(Finding::error(
                format!("{} is work of a frame", operation.name),
                "Make the piece a frame, or take it out.",
            ));
            None
        }
    };
    let numbers = if reader.blocked { None } else { numbers };
    ReadOperation { numbers, values: reader.found, findings: reader.findings }
}
