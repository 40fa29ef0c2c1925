//! The shop's rules for frames: one list.

use crate::finding::Why;
use crate::frame::{BodyFault, FrameMade, Member, MemberClash, PlateClash, PlateMeets, bodies};
use crate::quantity::{LengthUnit, decimal, length_text};
use crate::space::Point3;
use crate::stock::Family;

use super::rules::{Breach, RuleOutcome};

/// What a rule of frames may look at.
pub struct FrameContext<'a> {
    /// The frame as built.
    pub made: &'a FrameMade,
    /// Members that share space.
    pub clashes: &'a [MemberClash],
    /// Plates that run into members or other plates.
    pub plate_clashes: &'a [PlateClash],
    /// The longest bar of each section, mm, by section name.
    pub longest_bar: &'a dyn Fn(&str) -> f64,
    /// What messages speak in.
    pub unit: LengthUnit,
}

/// One rule.
pub struct FrameRule {
    /// Its key.
    pub key: &'static str,
    /// Its title.
    pub title: &'static str,
    /// Where it comes from.
    pub source: &'static str,
    /// Finds every breach.
    pub check: fn(&FrameRule, &FrameContext<'_>) -> Vec<Breach>,
}

/// Every rule of frames.
pub const FRAME_RULES: [FrameRule; 6] = [
    FrameRule {
        key: "member_clash",
        title: "Members and plates keep out of each other",
        source: "common practice: two pieces cannot fill one place",
        check: member_clash,
    },
    FrameRule {
        key: "joint_settled",
        title: "Every corner is settled",
        source: "common practice: a member left at its node is cut to nothing",
        check: joint_settled,
    },
    FrameRule {
        key: "member_long_enough",
        title: "A member is long enough for its cuts",
        source: "common practice",
        check: member_long_enough,
    },
    FrameRule {
        key: "bend_radius",
        title: "A bent member's radius is one that it takes cold",
        source: "common practice: about 3 times the section's depth at least",
        check: bend_radius,
    },
    FrameRule {
        key: "bar_long_enough",
        title: "A bar gives each member in one length",
        source: "the bars of this piece",
        check: bar_long_enough,
    },
    FrameRule {
        key: "vented",
        title: "Closed sections that are dipped are vented",
        source: "common practice of hot-dip galvanising: a closed tube bursts in the bath",
        check: vented,
    },
];

/// Checks every rule.
pub fn check_frame_rules(context: &FrameContext<'_>) -> (Vec<RuleOutcome>, Vec<Breach>) {
    let (mut outcomes, mut all) = (Vec::new(), Vec::new());
    for rule in &FRAME_RULES {
        let breaches = (rule.check)(rule, context);
        outcomes.push(RuleOutcome {
            rule: rule.key.into(),
            title: rule.title.into(),
            source: rule.source.into(),
            broken: breaches.len(),
        });
        all.extend(breaches);
    }
    (outcomes, all)
}

impl FrameRule {
    fn breach(
        &self,
        message: String,
        way_out: &str,
        groups: &[&str],
        names: &[&str],
        formula: &str,
        working: String,
    ) -> Breach {
        let mut operations: Vec<String> = Vec::new();
        for group in groups {
            if !operations.iter().any(|known| known == group) {
                operations.push((*group).to_string());
            }
        }
        Breach {
            rule: self.key.into(),
            message,
            way_out: way_out.into(),
            operations,
            features: names.iter().map(|name| (*name).to_string()).collect(),
            why: Why { title: self.title.into(), formula: formula.into(), working, source: self.source.into() },
        }
    }
}

/// The most breaches of one rule that are listed: a frame with none of its joints settled has hundreds.
const MOST: usize = 200;

/// A shared volume and where it is.
fn about(volume: &str, place: Point3) -> String {
    format!("{volume} cm3 about x {}, y {}, z {} mm", decimal(place.x, 1), decimal(place.y, 1), decimal(place.z, 1))
}

fn member_clash(rule: &FrameRule, context: &FrameContext<'_>) -> Vec<Breach> {
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
        let volume = decimal(clash.volume / 1000.0, 3);
        rule.breach(
            format!("{} runs into {other}: {volume} cm3 of both", plate.name),
            way_out,
            &[&plate.operation, operation],
            &[&plate.name, other],
            "shared volume = 0",
            about(&volume, clash.place),
        )
    });
    let both = context.clashes.iter().take(MOST).map(|clash| {
        let (one, two) = (&members[clash.members[0]], &members[clash.members[1]]);
        let volume = decimal(clash.volume / 1000.0, 3);
        rule.breach(
            format!("{} and {} run into each other: {volume} cm3 of both", one.name, two.name),
            "Settle their joint (mitre, butt, trim or cope), or trim one end to the other.",
            &[&two.group, &one.group],
            &[&one.name, &two.name],
            "shared volume = 0",
            about(&volume, clash.place),
        )
    });
    both.chain(plates).collect()
}

fn joint_settled(rule: &FrameRule, context: &FrameContext<'_>) -> Vec<Breach> {
    let frame = &context.made.frame;
    frame
        .unsettled
        .iter()
        .filter_map(|&at| {
            let meeting = &frame.meetings[at];
            // An end that was cut in its own way is settled.
            let own = |end: &crate::frame::EndAt| {
                let end = &frame.members[end.member].ends[usize::from(end.finish)];
                !end.copes.is_empty() || end.planes.iter().any(|cut| cut.by != "square" || cut.level != 0.0)
            };
            let open = meeting.ends.iter().filter(|end| !own(end)).count();
            let needed = if meeting.passing.is_empty() { 2 } else { 1 };
            (open >= needed).then_some(meeting)
        })
        .take(MOST)
        .map(|meeting| {
            let names: Vec<&str> = meeting
                .ends
                .iter()
                .map(|end| end.member)
                .chain(meeting.passing.iter().copied())
                .map(|member| frame.members[member].name.as_str())
                .collect();
            let groups: Vec<&str> = meeting.ends.iter().map(|end| frame.members[end.member].group.as_str()).collect();
            rule.breach(
                format!("{} meet and no joint says how", names.join(" and ")),
                "Add a joint: mitre, butt, trim or cope, at corners, at tees or at this node.",
                &groups,
                &names,
                "a joint for every node where members meet",
                format!("{} ends, {} running on", meeting.ends.len(), meeting.passing.len()),
            )
        })
        .collect()
}

fn member_long_enough(rule: &FrameRule, context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| length_text(value, context.unit);
    let members = &context.made.frame.members;
    let short =
        members.iter().filter(|member| member.short_length() <= 0.0 || member.centroid_length() <= 0.0).map(|member| {
            rule.breach(
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
        rule.breach(
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
        [(false, "start"), (true, "finish")].into_iter().filter_map(move |(finish, word)| {
            let line = if finish { member.lines.last()? } else { member.lines.first()? };
            let lead = if line.arc.is_none() { line.length() } else { 0.0 };
            // How far the cut goes back from the line's own end.
            let back = if finish { -member.reach(true).1 } else { member.reach(false).1 };
            (back > lead + 0.01).then_some((member, word, lead, back))
        })
    });
    let bent = bent.map(|(member, word, lead, back)| {
        rule.breach(
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

fn bend_radius(rule: &FrameRule, context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| length_text(value, context.unit);
    let mut all = Vec::new();
    for member in &context.made.frame.members {
        let around = member.region.extents();
        let deep = if member.section.is_round() { around.width() } else { around.width().max(around.height()) };
        for arc in member.lines.iter().filter_map(|line| line.arc.map(|arc| line.from.distance(arc.centre))) {
            if arc < 3.0 * deep - 1e-6 && all.len() < MOST {
                all.push(rule.breach(
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

fn bar_long_enough(rule: &FrameRule, context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| length_text(value, context.unit);
    context
        .made
        .frame
        .members
        .iter()
        .filter_map(|member| {
            let (length, bar) = (member.length(), (context.longest_bar)(&member.section.name));
            (length > bar + 1e-6).then_some((member, length, bar))
        })
        .take(MOST)
        .map(|(member, length, bar)| {
            let parts = (length / bar).ceil();
            rule.breach(
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

fn vented(rule: &FrameRule, context: &FrameContext<'_>) -> Vec<Breach> {
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
            rule.breach(
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
