//! Stainless welded to carbon steel: with the filler of either it cracks or rusts.

use crate::stock::Family;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "filler",
    title: "Filler for unlike steels",
    source: "common practice: stainless to carbon steel with an over-alloyed filler, 309L (23 12 L of ISO 14343, from memory)",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Doubtful],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let known = context.pieces();
    let carbon = |family: Family| matches!(family, Family::MildSteel | Family::Galvanised);
    context
        .welds
        .iter()
        .filter_map(|weld| {
            let [one, two] = weld.parts.as_slice() else { return None };
            let (a, b) = (known.get(one.as_str())?, known.get(two.as_str())?);
            let (first, second) = (a.0.family, b.0.family);
            let unlike = first == Family::Stainless && carbon(second) || carbon(first) && second == Family::Stainless;
            if !unlike {
                return None;
            }
            let breach = RULE.breach(
                format!("{} welds {one} of {} to {two} of {}", weld.mark, a.0.name, b.0.name),
                "Take a 309L filler, grind zinc from the weld first, and paint over the joint: the carbon steel beside it rusts sooner.",
                &[a.1, b.1],
                &[one, two],
                "one kind of steel to a weld, or a filler for both",
                format!("{} and {}", first.words(), second.words()),
            );
            Some(Breach { level: Level::Doubtful, ..breach })
        })
        .take(MOST)
        .collect()
}
