//! A member bent tighter than its section takes.

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};
use crate::quantity::tolerance::MODELLING_TOLERANCE;

pub(super) const RULE: FrameRule = FrameRule {
    key: "bend_radius",
    title: "A bent member's radius is one that it takes cold",
    source: "common practice: about 3 times the section's depth at least",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| context.show(value);
    let mut all = Vec::new();
    for member in &context.made.frame.members {
        let around = member.region.extents();
        let deep = if member.section.is_round() { around.width() } else { around.width().max(around.height()) };
        for arc in member.lines.iter().filter_map(|line| line.arc.map(|arc| line.from.distance(arc.centre))) {
            if arc < 3.0 * deep - MODELLING_TOLERANCE && all.len() < MOST {
                all.push(RULE.breach(
                    format!(
                        "{} is bent to a radius of {}: {} is 3 times its depth",
                        member.name,
                        show(arc),
                        show(3.0 * deep)
                    ),
                    "Take a larger radius, bend it hot, or cut and weld it.",
                    &[&member.group],
                    &[&member.name],
                    "R >= 3 D on the centre line",
                    format!("{} >= 3 x {} = {}", show(arc), show(deep), show(3.0 * deep)),
                ));
            }
        }
    }
    all
}
