//! Joints where members meet, and members that pass through others.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::patience;
use crate::quantity::{MemberName, NodeName};
use crate::work::frame::{JointAt, UsualJoints};

use super::end_at::Meeting;
use super::joint::{self, JointNumbers};
use super::layout::{JointSaid, Layout, ReadyJointed};
use super::member::Member;
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
            match as_usual(layout, &frame.members, meeting) {
                Some((name, how)) => {
                    let meeting = meeting.clone();
                    let mut said = Vec::new();
                    joint::settle(&mut frame.members, &meeting, &how, &mut said);
                    findings.extend(said.into_iter().map(|finding| match name {
                        Some(name) => finding.of_operation(name),
                        None => finding,
                    }));
                }
                None => frame.unsettled.push(index),
            }
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

/// How members meet where no step says so: as their ready frame has it, or as the piece does. The operation is that of the ready
/// frame.
fn as_usual<'a>(layout: &'a Layout, members: &[Member], meeting: &Meeting) -> Option<(Option<&'a str>, JointNumbers)> {
    let tee = !meeting.passing.is_empty();
    let here = |ready: &&ReadyJointed| ready.places.iter().any(|place| place.distance(meeting.place) < ONE_NODE);
    if let Some(ready) = layout.ready.iter().rev().find(here) {
        let trim = JointNumbers::Trim { gap: 0.0 };
        return Some((Some(&ready.name), if tee { trim } else { ready.corners.clone() }));
    }
    let usual = layout.usual?;
    let corner = match usual {
        UsualJoints::Butt => JointNumbers::Butt { through: Vec::new(), gap: 0.0, to_node: false },
        UsualJoints::Mitre => JointNumbers::Mitre { between: most_level(members, meeting), gap: 0.0 },
    };
    Some((None, if tee { JointNumbers::Trim { gap: 0.0 } } else { corner }))
}

/// Of more than two ends the two that a mitre is between: those that lie most level, so that a ring is mitred over its leg. Empty for
/// two, which are mitred as they are.
fn most_level(members: &[Member], meeting: &Meeting) -> Vec<MemberName> {
    if meeting.ends.len() < 3 {
        return Vec::new();
    }
    let steep = |at: usize| members[at].start.w.z.abs();
    let mut ends: Vec<usize> = meeting.ends.iter().map(|end| end.member).collect();
    ends.sort_by(|&one, &two| steep(one).total_cmp(&steep(two)));
    ends.iter().take(2).map(|&at| members[at].name.as_str().into()).collect()
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
