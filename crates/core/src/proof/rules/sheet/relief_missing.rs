//! A bend that ends against material tears it.

use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

/// How far past the end of a bend and inside its tangent line metal is looked for, mm.
const ASIDE: f64 = 1e-3;

pub(super) const RULE: SheetRule = SheetRule {
    key: "relief_missing",
    title: "Relief where a bend ends against material",
    source: "common practice: relief at least T wide (never below 1 mm), R + T past the bend's tangent line",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let mut found = Vec::new();
    // Lines of a developed surface run to a corner, which their panels are nicked at.
    for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Line) {
        let strip = flat.strip_of(bend);
        for (u, side) in [(-ASIDE, 0), (strip.length + ASIDE, 1)] {
            let end = &bend.ends[side];
            let Some(parent) = bend.parent else { continue };
            // A hair past the bend's end and a hair before its tangent line.
            if !flat.nodes[parent].region.contains(strip.place(u, -ASIDE)) {
                continue;
            }
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "{} ends against material of {} at its {end} end with no relief",
                    bend.name, flat.nodes[parent].name
                ),
                way_out: format!(
                    "Give {} a relief, at least {} wide.",
                    bend.name,
                    context.show(flat.thickness.max(1.0))
                ),
                operations: vec![bend.name.clone()],
                features: vec![bend.name.clone(), format!("{}.bend.{end}", bend.name)],
                why: RULE.why(
                    "a sharp inside corner at a bend's end needs a relief",
                    format!("material stands beside the {end} end of {} on its tangent line", bend.name),
                ),
            });
        }
    }
    found
}
