//! A cut further from square than the shop's saw turns.

use crate::frame::CutBy;
use crate::quantity::angle_text;
use crate::quantity::tolerance::NO_TURN;
use crate::work::frame::OneEnd;

use super::super::rule::{About, Breach, By, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "saw_angle",
    title: "Saw cuts within the saw's turn",
    source: "the shop's saw (an example, data/saw.toml): mitre saws reach 60 deg from square, seldom more (common practice)",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[By::Saw],
    settings: &["saw.angle_deg"],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let saw = &context.shop.saw;
    let most = saw.angle_deg.to_radians();
    let members = &context.made.frame.members;
    let ends = members.iter().flat_map(|member| OneEnd::BOTH.map(|which| (member, which)));
    ends.filter_map(|(member, which)| {
        // What stands for a round is no cut of the saw's own.
        let planes = member.ends[which.at()].planes.iter().filter(|cut| cut.by != CutBy::Round);
        let steepest = planes.map(|cut| cut.angle()).fold(0.0, f64::max);
        (steepest > most + NO_TURN).then_some((member, which, steepest))
    })
    .take(MOST)
    .map(|(member, which, steepest)| {
        RULE.breach(
            format!(
                "the {} of {} is cut {} from square; the {} turns to {}",
                which.word(),
                member.name,
                angle_text(steepest),
                saw.name,
                angle_text(most)
            ),
            "Cut the other member instead, part the angle between the two, or have it cut by laser.",
            &[&member.group],
            &[&member.name],
            "angle from square <= the saw's",
            format!("{} > {}", angle_text(steepest), angle_text(most)),
        )
    })
    .collect()
}
