//! Offers and readings on a frame.

use crate::frame::{FRAME_VERBS, FramePointed, FramePointing, pointed_on_frame};
use crate::piece::FrameOutcome;
use crate::quantity::LengthUnit;
use crate::work::measure::{Axis, BetweenMembers, BetweenNodes, FrameMeasure, Measure, OfMember};

use super::told::{Offers, PointedAt, readings};

pub(super) fn offers(outcome: &FrameOutcome, names: &[String], unit: LengthUnit, show: LengthUnit) -> Offers {
    let frame = &outcome.made.frame;
    let found: Vec<Option<FramePointed>> = names.iter().map(|name| pointed_on_frame(frame, name)).collect();
    let all_there = found.iter().all(Option::is_some);
    let said = names.iter().zip(&found).map(|(name, found)| PointedAt {
        name: name.clone(),
        words: found.as_ref().map(|found| found.words(frame, show)),
    });
    let pointed_at = said.collect();
    let at: Vec<FramePointed> = found.into_iter().flatten().collect();
    let pointing = FramePointing { frame, at, unit };
    if !all_there {
        return Offers { pointed: pointed_at, ..Offers::default() };
    }
    let offers = FRAME_VERBS.iter().flat_map(|verb| verb.offers(&pointing)).collect();
    let tried = measures(outcome, names, &pointing.at).into_iter();
    let tried = tried.map(|(words, of)| (words, outcome.made.measure(&of), Measure::Frame(of)));
    let readings = readings(tried, show);
    Offers { pointed: pointed_at, offers, readings }
}

/// The measures that one or two picks may have, in the order that they are offered; not all of them can be taken.
fn measures(outcome: &FrameOutcome, names: &[String], at: &[FramePointed]) -> Vec<(String, FrameMeasure)> {
    let frame = &outcome.made.frame;
    let member = |at: usize| frame.members[at].name.as_str();
    let mut all: Vec<(String, FrameMeasure)> = Vec::new();
    match (names, at) {
        ([_], [one]) => {
            if let Some(at) = one.member() {
                let of = || OfMember { member: member(at).into() };
                all.push(("length, long point to long point".into(), FrameMeasure::MemberLength(of())));
                all.push(("length, short point to short point".into(), FrameMeasure::ShortLength(of())));
            }
        }
        ([_, _], [FramePointed::Node(from), FramePointed::Node(to)]) => {
            for along in [None, Some(Axis::X), Some(Axis::Y), Some(Axis::Z)] {
                let words = along.map_or("distance".into(), |axis| format!("distance along {}", axis.letter()));
                let (from, to) = (from.as_str().into(), to.as_str().into());
                all.push((words, FrameMeasure::Nodes(BetweenNodes { from, to, along })));
            }
        }
        ([first, second], [one, other]) => {
            let two = |from: &str, to: &str| BetweenMembers { from: from.into(), to: to.into() };
            let faces = |one: &FramePointed| matches!(one, FramePointed::Face(..) | FramePointed::End(..));
            if faces(one) && faces(other) {
                all.push(("distance of these faces".into(), FrameMeasure::Faces(two(first, second))));
            }
            let piece = |one: &FramePointed| match one {
                FramePointed::Plate(at) => Some(frame.plates[*at].name.as_str()),
                _ => one.member().map(member),
            };
            if let (Some(from), Some(to)) = (piece(one), piece(other))
                && from != to
            {
                if let (Some(_), Some(_)) = (one.member(), other.member()) {
                    all.push(("clear opening between the members".into(), FrameMeasure::Opening(two(from, to))));
                    all.push(("angle between the members".into(), FrameMeasure::Between(two(from, to))));
                }
                all.push(("clearance of the two pieces".into(), FrameMeasure::Clearance(two(from, to))));
            }
        }
        _ => {}
    }
    all
}
