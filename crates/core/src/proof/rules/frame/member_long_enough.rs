//! A member that its cuts leave nothing of, or that they run through.

use crate::frame::{BodyFault, Member, bodies};
use crate::work::frame::OneEnd;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "member_long_enough",
    title: "A member is long enough for its cuts",
    source: "common practice",
    about: About::Members,
    broken: WhenBroken::Withholds,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| context.show(value);
    let members = &context.made.frame.members;
    let short =
        members.iter().filter(|member| member.short_length() <= 0.0 || member.centroid_length() <= 0.0).map(|member| {
            RULE.breach(
                format!(
                    "{} is too short for its cuts: {} from short point to short point",
                    member.name,
                    show(member.short_length())
                ),
                "Make the line longer, the section smaller, or cut one end square.",
                &[&member.group],
                &[&member.name],
                "short point to short point > 0",
                format!("long {}, short {}", show(member.length()), show(member.short_length())),
            )
        });
    // A notch, slot or cope that goes past the other end, or as deep as the member is long.
    let apart = |at: usize, member: &Member| {
        bodies(member).iter().any(|body| body.centroid_length() <= 0.0)
            || context.made.member_body(at).err() == Some(BodyFault::Crossed)
    };
    let through = members.iter().enumerate().filter(|(at, member)| member.has_cutouts() && apart(*at, member));
    let through = through.map(|(_, member)| {
        RULE.breach(
            format!(
                "a notch, slot or cope of {} goes through its whole length, {}",
                member.name,
                show(member.length())
            ),
            "Make it shorter, or the member longer.",
            &[&member.group],
            &[&member.name],
            "length of what a cutout leaves > 0",
            format!("long {}", show(member.length())),
        )
    });
    // A cut is reckoned along the straight lead at a bent member's end: one that runs into the bend would be wrong.
    let bent = members.iter().filter(|member| !member.is_straight()).flat_map(|member| {
        OneEnd::BOTH.into_iter().filter_map(move |which| {
            let line = if which.is_finish() { member.lines.last()? } else { member.lines.first()? };
            let lead = if line.arc.is_none() { line.length() } else { 0.0 };
            // How far the cut goes back from the line's own end.
            let back = -which.way() * member.reach(which).1;
            (back > lead + 0.01).then_some((member, which.word(), lead, back))
        })
    });
    let bent = bent.map(|(member, word, lead, back)| {
        RULE.breach(
            format!(
                "the cut at the {word} of {} goes back {} and its straight lead is {}: it would run into the bend",
                member.name,
                show(back),
                show(lead)
            ),
            "Give the line a longer straight lead there, or cut the other member.",
            &[&member.group],
            &[&member.name],
            "cut back <= straight lead",
            format!("{} <= {}", show(back), show(lead)),
        )
    });
    short.chain(through).chain(bent).take(MOST).collect()
}
