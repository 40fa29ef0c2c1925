//! A radius that the die which is named does not give: a bend in air comes to a radius of the die, not of the punch.

use crate::sheet::BendMake;
use crate::stock::Family;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "tool_radius",
    title: "Inside radius that the die gives",
    source: "common practice of air bending: R about V/6 in mild steel, V/5 in stainless, V/8 in soft aluminium",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// A tighter radius than this share of the die's own is not bent in air.
const NEAR: f64 = 0.75;

/// The die's opening in inside radii; `None` for what no brake bends.
fn radii(family: Family) -> Option<f64> {
    match family {
        Family::MildSteel | Family::Galvanised => Some(6.0),
        Family::Stainless => Some(5.0),
        Family::Aluminium => Some(8.0),
        Family::Timber | Family::Card => None,
    }
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let (Some(die), Some(radii)) = (context.die, radii(context.material.family)) else { return Vec::new() };
    let flat = &context.part.flat;
    let own = die / radii;
    let tight =
        flat.bends.iter().filter(|bend| bend.make == BendMake::Brake && flat.strip_of(bend).radius < NEAR * own);
    let names: Vec<String> = tight.map(|bend| bend.name.clone()).collect();
    let Some(first) = names.first() else { return Vec::new() };
    let radius = flat.bends.iter().find(|bend| bend.name == *first).map_or(0.0, |bend| flat.strip_of(bend).radius);
    let others = match names.len() {
        1 => String::new(),
        count => format!(" and {} more bends", count - 1),
    };
    vec![Breach {
        rule: RULE.key.into(),
        said: None,
        accepted: None,
        level: Level::Hint,
        message: format!(
            "{first}{others}: a die of {} gives an inside radius of about {}, and {} is asked for",
            context.show(die),
            context.show(own),
            context.show(radius)
        ),
        way_out: "Take a narrower die, or the radius that it gives: the blank goes by it.".into(),
        operations: names.clone(),
        features: names,
        why: RULE.why(
            format!("R about V/{radii}"),
            format!(
                "{} / {radii} = {}; {} is less than {NEAR} of it",
                context.show(die),
                context.show(own),
                context.show(radius)
            ),
        ),
    }]
}
