//! Naming a place.

use crate::finding::Finding;
use crate::frame::fields::{Fields, PlaceNumbers};
use crate::frame::layout::Layout;
use crate::frame::reader::node;
use crate::frame::skeleton::meeting;
use crate::quantity::{LineName, NodeName};
use crate::space::Point3;
use crate::work::Action;
use crate::work::frame::NodeAction;

use super::offers;
use super::on_line::on_line;
use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const NODE: FrameVerb = FrameVerb::layout("node", read).offering(offers::node);

#[derive(Debug)]
enum NodeNumbers {
    At(PlaceNumbers),
    On(LineName, f64),
    Meet([NodeName; 2], [NodeName; 2]),
}

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Node(action) = action else { return None };
    Some(Box::new(match action {
        NodeAction::At(place) => NodeNumbers::At(fields.place("at", place)?),
        NodeAction::On(on) => {
            let distance = fields.length("on.distance", &on.distance, "a distance along the line")?;
            NodeNumbers::On(on.line.clone(), distance)
        }
        NodeAction::Meet(both) => NodeNumbers::Meet(both.one.clone(), both.two.clone()),
    }))
}

impl LaysOut for NodeNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let place = match &*self {
            NodeNumbers::At(place) => place.on(&layout.skeleton)?,
            NodeNumbers::On(line, distance) => {
                let line = layout.line(line, "on.line")?;
                on_line(line, *distance).map_err(|fault| fault.at_field("on.distance"))?
            }
            NodeNumbers::Meet(one, two) => {
                let find = |names: &[NodeName; 2], field: &str| -> Result<(Point3, Point3), Finding> {
                    Ok((node(&layout.skeleton, &names[0], field)?, node(&layout.skeleton, &names[1], field)?))
                };
                let (one, two) = (find(one, "meet.one")?, find(two, "meet.two")?);
                meeting(one, two).ok_or_else(|| {
                    Finding::error(
                        "these two lines do not meet: they are parallel or pass each other",
                        "Take lines that lie in one plane.",
                    )
                    .at_field("meet")
                })?
            }
        };
        layout.skeleton.add_node(name, place);
        Ok(())
    }
}
