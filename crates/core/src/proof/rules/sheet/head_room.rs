//! The head of a countersink or counterbore that runs off its edge, into another or into a bend.

use crate::patience;
use crate::plane::Segment;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::{Hole, TagKind};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "head_room",
    title: "Heads of holes within their face",
    source: "common practice: the head of a countersink or counterbore lies whole on flat metal",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let mut found = Vec::new();
    if flat.holes.iter().all(|hole| hole.work.head == 0.0) {
        return found;
    }
    // By their middles from left to right: a head looks only at those that may come near it.
    let mut turns: Vec<usize> = (0..flat.holes.len()).collect();
    turns.sort_by(|&one, &two| flat.holes[one].centre.x.total_cmp(&flat.holes[two].centre.x));
    let widest = flat.holes.iter().map(half).fold(0.0, f64::max);
    let heads = flat.holes.iter().enumerate().filter(|(_, hole)| hole.work.head > 0.0);
    for (at, hole) in heads {
        patience::check();
        let radius = hole.work.head / 2.0;
        let mut add = |what: String, other: &str, off: f64| {
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!("the head of {}, {} wide, {what}", hole.name, context.show(hole.work.head)),
                way_out: "Move the hole, or take a smaller head.".into(),
                operations: vec![hole.operation.clone()],
                features: vec![hole.name.clone(), other.to_string()],
                why: RULE.why(
                    "from its centre >= half of the head",
                    format!("{} < {}", context.show(off), context.show(radius)),
                ),
            });
        };
        let region = &flat.nodes[hole.panel].region;
        let nearest = region
            .outer
            .segments()
            .filter(|(_, tag)| flat.tags[*tag as usize].kind != TagKind::Joint)
            .map(|(edge, tag)| (edge.distance_to(hole.centre), tag))
            .min_by(|one, two| one.0.total_cmp(&two.0));
        if let Some((off, tag)) = nearest
            && off < radius - MODELLING_TOLERANCE
        {
            let edge = flat.tags[tag as usize].name.clone();
            add(format!("runs out over the edge at {edge}"), &edge, off);
        }
        for bend in &flat.bends {
            let strip = flat.strip_of(bend);
            for (panel, v) in [(bend.parent, 0.0), (bend.flange, strip.width)] {
                let tangent = Segment::line(strip.place(0.0, v), strip.place(strip.length, v));
                let off = tangent.distance_to(hole.centre);
                if panel == Some(hole.panel) && off < radius - MODELLING_TOLERANCE {
                    add(format!("runs into the bend {}", bend.name), &bend.name, off);
                }
            }
        }
        let reach = radius + widest;
        let from = turns.partition_point(|&other| flat.holes[other].centre.x < hole.centre.x - reach);
        let near = turns[from..].iter().take_while(|&&other| flat.holes[other].centre.x <= hole.centre.x + reach);
        let mut near: Vec<usize> = near.copied().filter(|&other| other != at).collect();
        near.sort_unstable();
        for other in near {
            let second = &flat.holes[other];
            // Two heads are told once; on the other face there is only the hole itself.
            if second.panel != hole.panel || (second.work.head > 0.0 && same_face(hole, second) && other < at) {
                continue;
            }
            let off = if second.work.head > 0.0 && same_face(hole, second) {
                hole.centre.distance(second.centre) - second.work.head / 2.0
            } else if second.work.through || same_face(hole, second) {
                if second.extents.is_near(&hole.extents, radius) {
                    second
                        .outline
                        .segments()
                        .map(|(edge, _)| edge.distance_to(hole.centre))
                        .fold(f64::INFINITY, f64::min)
                } else {
                    continue;
                }
            } else {
                continue;
            };
            if off < radius - MODELLING_TOLERANCE {
                add(format!("runs into {}", second.name), &second.name, off);
            }
        }
    }
    found
}

/// How far a hole or its head may reach from its middle, mm, at most. The place that a hole is told by may lie off its outline's
/// middle.
pub(super) fn half(hole: &Hole) -> f64 {
    let middle = hole.extents.centre();
    let outline = hole.extents.width().hypot(hole.extents.height()) / 2.0 + middle.distance(hole.centre);
    outline.max(hole.work.head / 2.0)
}

fn same_face(one: &Hole, two: &Hole) -> bool {
    one.work.face == two.work.face
}
