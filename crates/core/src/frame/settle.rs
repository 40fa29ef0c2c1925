//! Joints where members meet, and members that pass through others.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::patience;
use crate::quantity::NodeName;
use crate::work::frame::JointAt;

use super::joint::{self, JointNumbers};
use super::layout::{JointSaid, Layout};
use super::model::Frame;
use super::pass::pass_through;
use super::skeleton::ONE_NODE;

/// Settles every meeting by the joint that is wanted there.
pub(super) fn joints(layout: &Layout, frame: &mut Frame, findings: &mut Vec<Finding>) {
    let joints: Vec<(&JointAt, &JointNumbers, &str)> =
        layout.joints.iter().map(|joint| (&joint.at, &joint.how, joint.name.as_str())).collect();
    // Ends that a mitre finds alone on a member that runs on: how many by joint, and the first.
    let mut lone: BTreeMap<usize, (usize, usize, usize)> = BTreeMap::new();
    for index in 0..frame.meetings.len() {
        patience::check();
        let meeting = &frame.meetings[index];
        let is_tee = !meeting.passing.is_empty();
        let at_node = |names: &Vec<NodeName>| {
            names
                .iter()
                .any(|name| layout.skeleton.node(name).is_some_and(|place| place.distance(meeting.place) < ONE_NODE))
        };
        // A node's own joint before a kind's; the later before the earlier.
        let own = joints.iter().rposition(|(at, ..)| matches!(at, JointAt::Nodes(names) if at_node(names)));
        let of_kind = joints.iter().rposition(|(at, ..)| match at {
            JointAt::All => true,
            JointAt::Tees => is_tee,
            JointAt::Corners => !is_tee,
            JointAt::Nodes(_) => false,
        });
        let Some(chosen) = own.or(of_kind) else {
            frame.unsettled.push(index);
            continue;
        };
        let meeting = meeting.clone();
        let mut own_findings = Vec::new();
        if matches!(joints[chosen].1, JointNumbers::Pass { .. }) {
            // Those are bored once every end is cut.
            continue;
        }
        if matches!(joints[chosen].1, JointNumbers::Mitre { .. }) && is_tee && meeting.ends.len() == 1 {
            lone.entry(chosen).or_insert((0, meeting.ends[0].member, meeting.passing[0])).0 += 1;
        }
        joint::settle(&mut frame.members, &meeting, joints[chosen].1, &mut own_findings);
        findings.extend(own_findings.into_iter().map(|finding| finding.of_operation(joints[chosen].2)));
    }
    for (joint, (count, end, passing)) in lone {
        let names = (&frame.members[end].name, &frame.members[passing].name);
        let more = if count > 1 { format!(" (and {} more like it)", count - 1) } else { String::new() };
        let message =
            format!("{} ends alone on {}, which runs on: there is nothing to mitre it with{more}", names.0, names.1);
        let finding = match joints[joint].0 {
            JointAt::All => Finding::hint(message, "Its end is trimmed to the face."),
            _ => Finding::error(message, "Make it a trim or a butt there."),
        };
        findings.push(finding.of_operation(joints[joint].2));
    }
}

/// Bores for members that pass through others.
pub(super) fn passes(layout: &Layout, frame: &mut Frame, findings: &mut Vec<Finding>) {
    for JointSaid { name, at, how } in &layout.joints {
        let (JointAt::Nodes(nodes), JointNumbers::Pass { gap }) = (at, how) else { continue };
        for node in nodes {
            let Some(place) = layout.skeleton.node(node) else { continue };
            if let Err(finding) = pass_through(frame, name, place, *gap) {
                findings.push(finding.of_operation(name));
            }
        }
    }
}
