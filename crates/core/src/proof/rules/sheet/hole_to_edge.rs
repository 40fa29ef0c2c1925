//! A hole too near an edge bulges or tears out.

use crate::plane::segment_distance;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::TagKind;

use super::super::rule::{Breach, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "hole_to_edge",
    title: "Hole to edge",
    source: "common practice: at least 1T of material for a cut hole (2T for a punched one)",
    broken: WhenBroken::Told,
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let wanted = flat.thickness;
    let mut found = Vec::new();
    for hole in flat.holes.iter() {
        let region = &flat.nodes[hole.panel].region;
        let mut nearest: Option<(f64, u32)> = None;
        for (edge, tag) in region.outer.segments() {
            let free = matches!(flat.tags[tag as usize].kind, TagKind::Edge | TagKind::Relief);
            if !free || !edge.extents().is_near(&hole.extents, wanted) {
                continue;
            }
            for (segment, _) in hole.outline.segments() {
                let distance = segment_distance(&segment, &edge);
                if nearest.is_none_or(|(least, _)| distance < least) {
                    nearest = Some((distance, tag));
                }
            }
        }
        if let Some((distance, tag)) = nearest
            && distance < wanted - MODELLING_TOLERANCE
        {
            let edge = flat.tags[tag as usize].name.clone();
            found.push(Breach {
                rule: RULE.key.into(),
                message: format!(
                    "{} leaves {} of material at {edge}; {} needed",
                    hole.name,
                    context.show(distance),
                    context.show(wanted)
                ),
                way_out: "Move the hole in from the edge or make it smaller.".into(),
                operations: vec![hole.operation.clone()],
                features: vec![hole.name.clone(), edge],
                why: RULE.why("distance >= 1T", format!("{} < {}", context.show(distance), context.show(wanted))),
            });
        }
    }
    found
}
