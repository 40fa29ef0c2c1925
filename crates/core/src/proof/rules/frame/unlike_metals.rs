//! Metals that no arc welds to each other.

use std::collections::BTreeMap;

use crate::stock::Family;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "unlike_metals",
    title: "Metals that can be welded to each other",
    source: "common practice: aluminium is not arc-welded to steel, nor anything to timber; bolted, they are kept apart against corrosion",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// What can be welded to what: steels of every kind among themselves, aluminium to aluminium.
fn kind(family: Family) -> &'static str {
    match family {
        Family::MildSteel | Family::Galvanised | Family::Stainless => "steel",
        Family::Aluminium => "aluminium",
        Family::Timber => "timber",
    }
}

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let frame = &context.made.frame;
    let members = frame.members.iter().map(|member| (member.name.as_str(), (member.material, member.group.as_str())));
    let plates = frame.plates.iter().map(|plate| (plate.name.as_str(), (plate.material, plate.operation.as_str())));
    let known: BTreeMap<_, _> = members.chain(plates).collect();
    let mut found = Vec::new();
    for weld in context.welds {
        let [one, two] = weld.parts.as_slice() else { continue };
        let (Some(a), Some(b)) = (known.get(one.as_str()), known.get(two.as_str())) else { continue };
        let (first, second) = (kind(a.0.family), kind(b.0.family));
        if first == second || found.len() >= MOST {
            continue;
        }
        found.push(RULE.breach(
            format!("{} welds {one} of {} to {two} of {}", weld.mark, a.0.name, b.0.name),
            "Bolt them with something between that does not conduct, or make both of one metal.",
            &[a.1, b.1],
            &[one, two],
            "one metal to a weld",
            format!("{first} and {second}"),
        ));
    }
    found
}
