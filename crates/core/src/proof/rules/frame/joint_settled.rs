//! A member left at its node is cut to nothing.

use crate::frame::{CutBy, EndAt};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "joint_settled",
    title: "Every corner is settled",
    source: "common practice: a member left at its node is cut to nothing",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let frame = &context.made.frame;
    frame
        .unsettled
        .iter()
        .filter_map(|&at| {
            let meeting = &frame.meetings[at];
            // An end that was cut in its own way is settled.
            let own = |end: &EndAt| {
                let end = &frame.members[end.member].ends[end.which.at()];
                !end.copes.is_empty() || end.planes.iter().any(|cut| cut.by != CutBy::Square || cut.level != 0.0)
            };
            let open = meeting.ends.iter().filter(|end| !own(end)).count();
            let needed = if meeting.passing.is_empty() { 2 } else { 1 };
            (open >= needed).then_some(meeting)
        })
        .take(MOST)
        .map(|meeting| {
            let names: Vec<&str> = meeting
                .ends
                .iter()
                .map(|end| end.member)
                .chain(meeting.passing.iter().copied())
                .map(|member| frame.members[member].name.as_str())
                .collect();
            let groups: Vec<&str> = meeting.ends.iter().map(|end| frame.members[end.member].group.as_str()).collect();
            RULE.breach(
                format!("{} meet and no joint says how", names.join(" and ")),
                "Add a joint: mitre, butt, trim or cope, at corners, at tees or at this node.",
                &groups,
                &names,
                "a joint for every node where members meet",
                format!("{} ends, {} running on", meeting.ends.len(), meeting.passing.len()),
            )
        })
        .collect()
}
