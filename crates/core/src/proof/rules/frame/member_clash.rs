//! Two pieces cannot fill one place.

use crate::frame::PlateMeets;
use crate::quantity::{Amount, LengthUnit};
use crate::space::Point3;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "member_clash",
    title: "Members and plates keep out of each other",
    source: "common practice: two pieces cannot fill one place",
    about: About::Members,
    broken: WhenBroken::Withholds,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// A shared volume and where it is.
fn about(volume: &str, place: Point3, unit: LengthUnit) -> String {
    let at = |value: f64| unit.bare(Amount::Length, value, 1);
    format!("{volume} about x {}, y {}, z {} {}", at(place.x), at(place.y), at(place.z), unit.sign())
}

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let members = &context.made.frame.members;
    let plates = context.plate_clashes.iter().take(MOST).map(|clash| {
        let plates = &context.made.frame.plates;
        let plate = &plates[clash.plate];
        let (other, operation, way_out) = match clash.other {
            PlateMeets::Member(at) => (
                &members[at].name,
                &members[at].group,
                "Move the plate, shorten the member (a base plate within its length), or cut the plate back.",
            ),
            PlateMeets::Plate(at) => {
                (&plates[at].name, &plates[at].operation, "Move one of the two plates, or cut it back to the other.")
            }
        };
        let volume = context.unit.says(Amount::Volume, clash.volume, 3);
        RULE.breach(
            format!("{} runs into {other}: {volume} of both", plate.name),
            way_out,
            &[&plate.operation, operation],
            &[&plate.name, other],
            "shared volume = 0",
            about(&volume, clash.place, context.unit),
        )
    });
    let both = context.clashes.iter().take(MOST).map(|clash| {
        let (one, two) = (&members[clash.members[0]], &members[clash.members[1]]);
        let volume = context.unit.says(Amount::Volume, clash.volume, 3);
        RULE.breach(
            format!("{} and {} run into each other: {volume} of both", one.name, two.name),
            "Settle their joint (mitre, butt, trim or cope), or trim one end to the other.",
            &[&two.group, &one.group],
            &[&one.name, &two.name],
            "shared volume = 0",
            about(&volume, clash.place, context.unit),
        )
    });
    both.chain(plates).collect()
}
