//! A bend longer than the brake, or one that it has not the force for.

use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "part_on_brake",
    title: "Bend within the brake's length and force",
    source: "the shop's brake (an example); air bending F = 1.42 Rm T^2 / V per length (common practice), Rm the upper value of the material's standard (data/materials.toml, from memory)",
    about: About::Stock,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["brake.length_mm", "brake.force_kn"],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    if context.is_folded_by_hand() {
        return Vec::new();
    }
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let brake = &context.shop.brake;
    let strength = context.material.tensile_strength(thickness);
    let mut found = Vec::new();
    for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
        // The tool spans from the first metal to the last; what is bent is only where there is metal.
        let (span, bent) = (flat.bend_span(bend), flat.bent_length(bend));
        let mut add = |message: String, formula: &str, working: String| {
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message,
                way_out: "Send it to a larger brake, or make the part in pieces.".into(),
                operations: vec![bend.name.clone()],
                features: vec![bend.name.clone()],
                why: RULE.why(formula, working),
            });
        };
        if span > brake.length_mm + MODELLING_TOLERANCE {
            add(
                format!(
                    "{} is {} long; the {} takes {}",
                    bend.name,
                    context.show(span),
                    brake.name,
                    context.show(brake.length_mm)
                ),
                "length of the bend <= between the brake's frames",
                format!("{} > {}", context.show(span), context.show(brake.length_mm)),
            );
        }
        // 1.42 Rm T^2 / V, MPa and mm, gives N per mm, which is kN per metre.
        let radius = flat.strip_of(bend).radius;
        let die = context.die_for(radius);
        let force = 1.42 * strength * thickness * thickness / die * bent / 1000.0;
        if force > brake.force_kn {
            add(
                format!(
                    "{} needs {} kN; the {} has {} kN",
                    bend.name,
                    decimal(force, 0),
                    brake.name,
                    decimal(brake.force_kn, 0)
                ),
                "F = 1.42 Rm T^2 / V x length <= the brake's force",
                format!(
                    "{}: 1.42 x {} MPa x ({})^2 / {} x {} = {} kN > {} kN",
                    context.die_words(radius),
                    decimal(strength, 0),
                    context.show(thickness),
                    context.show(die),
                    context.show(bent),
                    decimal(force, 0),
                    decimal(brake.force_kn, 0)
                ),
            );
        }
    }
    found
}
