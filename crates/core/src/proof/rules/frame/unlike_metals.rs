//! Two metals that lie on each other: no arc welds them, and where it is wet the baser one goes.

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "unlike_metals",
    title: "Metals that can lie on each other",
    source: "common practice: aluminium is not arc-welded to steel; bolted to it they are kept apart against corrosion",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Doubtful],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let known = context.pieces();
    let pairs = context.unlike.iter().filter_map(|[one, two]| {
        let (a, b) = (known.get(one.as_str())?, known.get(two.as_str())?);
        let breach = RULE.breach(
            format!(
                "{one} of {} and {two} of {} lie on each other: {} is not welded to {}, and they corrode where it is wet",
                a.0.name,
                b.0.name,
                a.0.family.words(),
                b.0.family.words()
            ),
            "Bolt them with something between that does not conduct, or make both of one metal.",
            &[a.1, b.1],
            &[one, two],
            "one metal where pieces lie on each other",
            format!("{} and {}", a.0.family.words(), b.0.family.words()),
        );
        Some(Breach { level: Level::Doubtful, ..breach })
    });
    pairs.take(MOST).collect()
}
