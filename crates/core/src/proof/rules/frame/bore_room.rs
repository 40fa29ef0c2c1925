//! A bore in a member too near its edge, its corner radius or its end.

use crate::frame::{Bore, Member};
use crate::plane::{Point, Vector};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::section::Form;
use crate::work::frame::{OneEnd, Purpose};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule, MOST};

pub(super) const RULE: FrameRule = FrameRule {
    key: "bore_room",
    title: "Bores clear of edges, corners and ends",
    source: "EN 1993-1-8, table 3.3: 1.2 d0 from a hole's centre to an edge or an end (from memory); the flat of a wall ends where its corner begins (common practice)",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Of the diameter, from the centre.
const TO_EDGE: f64 = 1.2;

/// What is wrong with a bore: in words, how far it is and how far it should be, mm.
type Fault = (String, f64, f64);

/// A place in the section as the bore sees it: aside from its axis, and how deep.
fn seen(bore: &Bore, axis: Point, at: Point) -> (f64, f64) {
    let side = Vector::new(-bore.into.y, bore.into.x);
    let arm = at - axis;
    (arm.dot(side) - bore.off, arm.dot(bore.into))
}

/// Within the section: a corner's rounding under the bore, or an edge nearer than it should be.
fn aside(member: &Member, bore: &Bore) -> Option<Fault> {
    // What another member passes through is as wide as that one.
    if bore.purpose.is_none() || member.section.is_round() || member.section.form == Form::Own {
        return None;
    }
    let axis = member.region.extents().centre();
    let radius = bore.diameter / 2.0;
    let wanted = TO_EDGE * bore.diameter;
    let mut worst: Option<Fault> = None;
    let mut tell = |fault: Fault| {
        if worst.as_ref().is_none_or(|known| fault.1 - fault.2 < known.1 - known.2) {
            worst = Some(fault);
        }
    };
    let edges: Vec<_> = member.region.outer.segments().map(|(one, _)| one).collect();
    let spans: Vec<((f64, f64), (f64, f64))> =
        edges.iter().map(|one| (seen(bore, axis, one.start), seen(bore, axis, one.end))).collect();
    let first = spans.iter().map(|(one, two)| one.1.min(two.1)).fold(f64::INFINITY, f64::min);
    let hollow = member.section.form.is_hollow();
    for (edge, (from, to)) in edges.iter().zip(&spans) {
        let (low, high) = (from.0.min(to.0), from.0.max(to.0));
        // One wall: what lies behind the middle is not drilled.
        if bore.one_wall
            && from.1.min(to.1) > first + member.region.extents().height().max(member.region.extents().width()) / 2.0
        {
            continue;
        }
        if !edge.is_line() {
            let off = if low > 0.0 {
                low
            } else if high < 0.0 {
                -high
            } else {
                0.0
            };
            if off < radius - MODELLING_TOLERANCE {
                let what = if hollow { "corner's rounding" } else { "root's rounding" };
                tell((format!("runs into the {what}"), off, radius));
            }
        } else if !hollow && (high - low) < MODELLING_TOLERANCE {
            // An edge of an open section or a bar, along the bore.
            let off = low.abs();
            if off < wanted - MODELLING_TOLERANCE {
                tell(("is near the edge".into(), off, wanted));
            }
        }
    }
    worst
}

/// Along the member: an end nearer than it should be.
fn along(member: &Member, bore: &Bore) -> Option<Fault> {
    // Nothing bears on a vent or a drain: they stand where the air and the water are.
    if bore.purpose != Some(Purpose::Bolt) {
        return None;
    }
    let wanted = TO_EDGE * bore.diameter;
    let axis = member.region.extents().centre();
    let side = Vector::new(-bore.into.y, bore.into.x);
    let at = axis + side * bore.off;
    let from_start = bore.along - member.sawn_reach(OneEnd::Start, at);
    let from_finish = member.line_length() + member.sawn_reach(OneEnd::Finish, at) - bore.along;
    let (off, word) = if from_start < from_finish { (from_start, "start") } else { (from_finish, "finish") };
    (off < wanted - MODELLING_TOLERANCE).then(|| (format!("is near the {word}"), off, wanted))
}

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let show = |value: f64| context.show(value);
    let members = &context.made.frame.members;
    let bores = members.iter().flat_map(|member| member.bores.iter().map(move |bore| (member, bore)));
    bores
        .flat_map(|(member, bore)| {
            let both = [aside(member, bore), along(member, bore)];
            both.into_iter().flatten().map(move |fault| (member, bore, fault))
        })
        .take(MOST)
        .map(|(member, bore, (what, off, wanted))| {
            RULE.breach(
                format!(
                    "a bore of {} in {} {what}: {} from its centre, {} needed",
                    show(bore.diameter),
                    member.name,
                    show(off),
                    show(wanted)
                ),
                "Move it, make it smaller, or take a larger section.",
                &[&bore.operation, &member.group],
                &[&member.name],
                "1.2 d0 from the centre to an edge or an end; half of d to a rounding",
                format!("{} < {}", show(off), show(wanted)),
            )
        })
        .collect()
}
