//! A closed tube bursts in the bath.

use crate::stock::Family;

use super::super::rule::{Breach, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "vented",
    title: "Closed sections that are dipped are vented",
    source: "common practice of hot-dip galvanising: a closed tube bursts in the bath",
    broken: WhenBroken::Told,
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    context
        .made
        .frame
        .members
        .iter()
        .filter(|member| {
            member.material.family == Family::Galvanised && member.section.form.is_hollow() && member.bores.is_empty()
        })
        .take(MOST)
        .map(|member| {
            RULE.breach(
                format!("{} is closed and has no hole for air and zinc", member.name),
                "Bore a vent at one end and a drain at the other.",
                &[&member.group],
                &[&member.name],
                "a hole at each end of a closed section",
                "no holes".into(),
            )
        })
        .collect()
}
