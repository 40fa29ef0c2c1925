//! A hem on too thick a sheet cracks or never closes; one too short slips out of the tool.

use crate::quantity::decimal;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "hem",
    title: "Hem on too thick a sheet, or too short",
    source: "common practice: a closed hem to 3 mm and in sheet that bends to 1 T; about 4 T long at least",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["asks.hem"],
    check,
};

/// The thickest sheet that is hemmed shut, mm (common practice).
const THICKEST: f64 = 3.0;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let mut found = Vec::new();
    for bend in flat.bends.iter().filter(|bend| bend.make == BendMake::Hem) {
        let strip = flat.strip_of(bend);
        let mut add = |message: String, way_out: &str, formula: &str, working: String| {
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message,
                way_out: way_out.into(),
                operations: vec![bend.name.clone()],
                features: vec![bend.name.clone()],
                why: RULE.why(formula, working),
            });
        };
        let least = context.material.least_radius(thickness);
        let show = |value: f64| context.show(value);
        let tight = strip.radius < thickness;
        if tight && thickness > THICKEST + ROUNDING {
            add(
                format!(
                    "{}: sheet of {} is too thick for a hem this tight; {} is the most",
                    bend.name,
                    show(thickness),
                    show(THICKEST)
                ),
                "Leave the hem open with an inside radius of T or more, or use thinner sheet.",
                "T <= 3 mm where R < T",
                format!("{} > {}", show(thickness), show(THICKEST)),
            );
        } else if tight && least > thickness + ROUNDING {
            add(
                format!(
                    "{}: {} bends to {} at its tightest and cracks in a hem",
                    bend.name,
                    context.material.name,
                    show(least)
                ),
                "Use a teardrop or an open hem with that radius, or a softer temper.",
                "least inside radius <= T where R < T",
                format!("{} > {}", show(least), show(thickness)),
            );
        }
        let Some(flange) = bend.flange else { continue };
        let straight = flat.nodes[flange]
            .region
            .outer
            .edges
            .iter()
            .map(|edge| strip.local(edge.start).1 - strip.width)
            .fold(0.0, f64::max);
        let length = straight + strip.radius + thickness;
        let asked = context.shop.asks.hem;
        if length < asked * thickness - MODELLING_TOLERANCE {
            add(
                format!(
                    "{}: a hem of {} is too short for the tool; {} needed",
                    bend.name,
                    show(length),
                    show(asked * thickness)
                ),
                "Make the hem longer.",
                &format!("length >= {} T", decimal(asked, 3)),
                format!("{} < {} x {}", show(length), decimal(asked, 3), show(thickness)),
            );
        }
    }
    found
}
