//! A closed tube bursts in the bath.

use crate::frame::Member;
use crate::stock::Family;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "vented",
    title: "Closed sections that are dipped are vented",
    source: "common practice of hot-dip galvanising: a closed tube bursts in the bath; a vent at one end, a drain at the other",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// How many holes let air out and zinc in at each half of a member: start, finish.
fn openings(member: &Member) -> [usize; 2] {
    let middle = member.line_length() / 2.0;
    let early = member.bores.iter().filter(|bore| bore.along < middle).count();
    [early, member.bores.len() - early]
}

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let dipped = |member: &&Member| member.material.family == Family::Galvanised && member.section.form.is_hollow();
    let members = context.made.frame.members.iter().filter(dipped);
    members
        .filter_map(|member| {
            let (what, working) = match openings(member) {
                [0, 0] => ("is closed and has no hole for air and zinc".to_string(), "no holes".to_string()),
                [start, finish] if start > 0 && finish > 0 => return None,
                [start, finish] => {
                    let blind = if start == 0 { "start" } else { "finish" };
                    let words = format!("has no hole towards its {blind}: air is caught there, and zinc stays");
                    (words, format!("{start} holes in the half at its start, {finish} in that at its finish"))
                }
            };
            Some(RULE.breach(
                format!("{} {what}", member.name),
                "Bore a vent at one end and a drain at the other.",
                &[&member.group],
                &[&member.name],
                "a hole at each end of a closed section",
                working,
            ))
        })
        .take(MOST)
        .collect()
}
