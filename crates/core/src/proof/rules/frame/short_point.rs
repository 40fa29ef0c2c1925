//! A member whose shorter side is too short for the saw's vice.

use crate::quantity::tolerance::MODELLING_TOLERANCE;

use super::super::rule::{About, Breach, By, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "short_point",
    title: "A member's short side can be held",
    source: "the shop's saw (an example, data/saw.toml): a short point under about 30 mm cannot be held (common practice)",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[By::Saw],
    settings: &["saw.hold_mm"],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let saw = &context.shop.saw;
    let members = context.made.frame.members.iter().map(|member| (member, member.short_length()));
    // One that its cuts leave nothing of has a rule of its own.
    members
        .filter(|(_, short)| *short > 0.0 && *short < saw.hold_mm - MODELLING_TOLERANCE)
        .take(MOST)
        .map(|(member, short)| {
            RULE.breach(
                format!(
                    "{} is {} from short point to short point; the {} holds {} and more",
                    member.name,
                    context.show(short),
                    saw.name,
                    context.show(saw.hold_mm)
                ),
                "Make it longer, cut one end square, or cut it from a piece that is trimmed after welding.",
                &[&member.group],
                &[&member.name],
                "short point to short point >= what the saw holds",
                format!("{} < {}", context.show(short), context.show(saw.hold_mm)),
            )
        })
        .collect()
}
