//! Two panels cannot stand in the same place of the folded part.

use crate::space::deepest_clash;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "folded_clash",
    title: "Folded panels colliding",
    source: "geometry: checked to 0.1 mm on the folded solid",
    about: About::Folding,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Nearer than this is touching, mm: twice how far the mesh's chords may stray from a bend's round.
pub(crate) const SKIN: f64 = 0.1;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let mut found: Vec<Breach> = Vec::new();
    for at in 0..flat.nodes.len() {
        for other in at + 1..flat.nodes.len() {
            let joined = context.part.tree.joints.iter().any(|joint| {
                (joint.strip == at && joint.neighbour == other) || (joint.strip == other && joint.neighbour == at)
            });
            if joined {
                continue;
            }
            let Some((depth, place)) = deepest_clash(&context.prisms[at], &context.prisms[other], SKIN) else {
                continue;
            };
            let (one, two) = (&flat.nodes[at].name, &flat.nodes[other].name);
            let operations = vec![two.clone(), one.clone()];
            if found.iter().any(|known| known.operations == operations) {
                continue;
            }
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{one} and {two} run into each other when folded, {} deep near x {}, y {}, z {}",
                    context.show(depth),
                    context.show(place.x),
                    context.show(place.y),
                    context.show(place.z)
                ),
                way_out: "Set one of them in, shorten its leg, or change its angle.".into(),
                features: vec![one.clone(), two.clone()],
                operations,
                why: RULE.why(
                    format!("shared depth <= {}", context.show(0.1)),
                    format!("shared depth = {}", context.show(depth)),
                ),
            });
        }
    }
    found
}
