//! How members meet.

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::joint::JointNumbers;
use crate::frame::layout::{JointSaid, Layout};
use crate::frame::reader::node;
use crate::work::Action;
use crate::work::frame::{JointAt, JointHow};

use super::offers;
use super::verb::{FrameVerb, Given, LaysOut};

/// Laid out with the rest and settled once every member is there; a copy of members does not make it again.
pub(super) const JOINT: FrameVerb =
    FrameVerb { not_copied: Some("settles joints"), ..FrameVerb::layout("joint", read) }.offering(offers::joint);

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Joint(joint) = action else { return None };
    let how = match &joint.how {
        JointHow::Mitre(by) => JointNumbers::Mitre {
            between: by.between.clone(),
            gap: fields.maybe("how.mitre.gap", by.gap.as_ref(), "a gap")?,
        },
        JointHow::Butt(by) => JointNumbers::Butt {
            through: by.through.clone(),
            gap: fields.maybe("how.butt.gap", by.gap.as_ref(), "a gap")?,
            to_node: by.to_node,
        },
        JointHow::Trim(by) => JointNumbers::Trim { gap: fields.maybe("how.trim.gap", by.gap.as_ref(), "a gap")? },
        JointHow::Cope(by) => JointNumbers::Cope { gap: fields.maybe("how.cope.gap", by.gap.as_ref(), "a gap")? },
        JointHow::Pass(by) => {
            let gap = fields.maybe("how.pass.gap", by.gap.as_ref(), "a gap");
            let JointAt::Nodes(_) = &joint.at else {
                let nowhere = Finding::error(
                    "a member passes through another at nodes that are named, and nowhere else",
                    "Name a node where the two cross.",
                );
                return fields.take(Err(nowhere.at_field("at")));
            };
            JointNumbers::Pass { gap: gap? }
        }
    };
    Some(Box::new(JointSaid { name: String::new(), at: joint.at.clone(), how }))
}

impl LaysOut for JointSaid {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        if let JointAt::Nodes(names) = &self.at {
            for (at, name) in names.iter().enumerate() {
                node(&layout.skeleton, name, &format!("at.nodes.{at}"))?;
            }
        }
        layout.joints.push(JointSaid { name: name.to_string(), ..*self });
        Ok(())
    }
}
