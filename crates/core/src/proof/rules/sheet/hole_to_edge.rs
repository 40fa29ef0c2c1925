//! A hole too near an edge, laid or cut, bulges or tears out.

use std::collections::HashSet;

use crate::plane::{Box2, Segment, Tag, segment_distance};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::TagKind;

use super::super::rule::{About, BY_HOLE, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::metal::wanted;

pub(super) const RULE: SheetRule = SheetRule {
    key: "hole_to_edge",
    title: "Hole to edge",
    source: "common practice: a cut hole 1T up to 6 mm, above it T/2 and 6 mm at least; a drilled one not more than 0.7 of its diameter (EN 1993-1-8, table 3.3: its centre 1.2 d0 from the edge), 2 mm at least",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: BY_HOLE,
    settings: &["asks.edge"],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    // What is closed in the blank. A cut that runs out over an edge is meant to be open.
    let closed: HashSet<Tag> = context
        .part
        .blank
        .region
        .holes
        .iter()
        .filter_map(|outline| outline.edges.first().map(|edge| edge.tag))
        .collect();
    // Every edge of each panel but those where it goes on into a bend.
    let edges: Vec<Vec<(Segment, Tag, Box2)>> = flat
        .nodes
        .iter()
        .map(|node| {
            let edges = node.region.outer.segments();
            let free = edges.filter(|(_, tag)| !matches!(flat.tags[*tag as usize].kind, TagKind::Joint));
            free.map(|(edge, tag)| (edge, tag, edge.extents())).collect()
        })
        .collect();
    let mut found = Vec::new();
    for hole in flat.holes.iter().filter(|hole| !hole.work.through || closed.contains(&hole.tag)) {
        let (wanted, formula) = wanted(hole, context);
        let mut nearest: Option<(f64, u32)> = None;
        for (edge, tag, _) in edges[hole.panel].iter().filter(|(.., box_)| box_.is_near(&hole.extents, wanted)) {
            for (segment, _) in hole.outline.segments() {
                let distance = segment_distance(&segment, edge);
                if nearest.is_none_or(|(least, _)| distance < least) {
                    nearest = Some((distance, *tag));
                }
            }
        }
        let Some((distance, tag)) = nearest else { continue };
        if distance < wanted - MODELLING_TOLERANCE {
            let edge = flat.tags[tag as usize].name.clone();
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{} leaves {} of material at {edge}; {} needed",
                    hole.name,
                    context.show(distance),
                    context.show(wanted)
                ),
                way_out: "Move the hole in from the edge or make it smaller.".into(),
                operations: vec![hole.operation.clone()],
                features: vec![hole.name.clone(), edge],
                why: RULE
                    .why(formula.words(context.unit), format!("{} < {}", context.show(distance), context.show(wanted))),
            });
        }
    }
    found
}
