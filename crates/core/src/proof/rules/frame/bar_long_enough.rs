//! A member longer than its bars.

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};
use crate::quantity::tolerance::MODELLING_TOLERANCE;

pub(super) const RULE: FrameRule = FrameRule {
    key: "bar_long_enough",
    title: "A bar gives each member in one length",
    source: "the bars of this piece",
    about: About::Stock,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| context.show(value);
    context
        .made
        .frame
        .members
        .iter()
        .filter_map(|member| {
            let (length, bar) = (member.length(), (context.longest_bar)(&member.section.name));
            (length > bar + MODELLING_TOLERANCE).then_some((member, length, bar))
        })
        .take(MOST)
        .map(|(member, length, bar)| {
            let parts = (length / bar).ceil();
            RULE.breach(
                format!("{} is {} long and the longest bar gives {}", member.name, show(length), show(bar)),
                "Take longer bars, or splice it: part its line with a node where the splice is least loaded.",
                &[&member.group],
                &[&member.name],
                "length <= bar less trims and grip",
                format!("a splice every {} would make {parts} parts", show(length / parts)),
            )
        })
        .collect()
}
