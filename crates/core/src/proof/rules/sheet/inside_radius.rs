//! A radius tighter than the material stands cracks on the outside of the bend.

use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "inside_radius",
    title: "Inside radius against the material's least",
    source: "common practice, per material in data/materials.toml; above 6 mm EN 10025-2's table for cold flanging where it has the steel (from memory); the mill's sheet decides",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Broken, Level::Hint],
    by: &[],
    settings: &[],
    check,
};

/// Up to this thickness shops bend tighter than the standard's table and get away with it, mm (common practice): the table is a hint
/// there, and the rule above.
pub(super) const BY_PRACTICE: f64 = 6.0;

fn check(context: &Context<'_>) -> Vec<Breach> {
    let thickness = context.part.flat.thickness;
    let practice = context.material.least_radius(thickness);
    let table = context.material.cold_flanging(thickness);
    let mut found = Vec::new();
    for bend in &context.part.flat.bends {
        // A hem is pressed past any radius, and a roll has none to speak of: their own rules tell of them.
        if bend.make != BendMake::Brake {
            continue;
        }
        let strip = context.part.flat.strip_of(bend);
        let (radius, tight) = (strip.radius, |least: f64| strip.radius < least - MODELLING_TOLERANCE);
        let along = context.grain.is_some_and(|grain| grain.runs_along(strip.along));
        let way = if along { "along" } else { "across" };
        let tabled = table.map(|row| if along { row.along } else { row.across });
        let thick = thickness > BY_PRACTICE + MODELLING_TOLERANCE;
        let (level, by_table) = match tabled {
            Some(tabled) if thick => (Level::Broken, Some(tabled)),
            _ if tight(practice) => (Level::Broken, None),
            Some(tabled) => (Level::Hint, Some(tabled)),
            None => continue,
        };
        let least = by_table.unwrap_or(practice);
        if !tight(least) {
            continue;
        }
        let (rolled, formula, working) = match by_table {
            Some(_) => {
                let up_to = table.map_or(thickness, |row| row.up_to);
                (
                    format!(", bent {way} the rolling direction"),
                    format!("R >= EN 10025-2, bend line {way} the rolling direction"),
                    format!(
                        "{} < {} for {} up to {}",
                        context.show(radius),
                        context.show(least),
                        context.material.name,
                        context.show(up_to)
                    ),
                )
            }
            None => (
                String::new(),
                "R >= multiple x T".to_string(),
                format!(
                    "{} < {} x {}",
                    context.show(radius),
                    decimal(practice / thickness, 3),
                    context.show(thickness)
                ),
            ),
        };
        let what = if level == Level::Hint { "is tighter than the standard's" } else { "is tighter than" };
        found.push(Breach {
            rule: RULE.key.into(),
            said: None,
            accepted: None,
            level,
            message: format!(
                "{}: inside radius {} {what} {} for {} at {}{rolled}",
                bend.name,
                context.show(radius),
                context.show(least),
                context.material.name,
                context.show(thickness)
            ),
            way_out: match level {
                Level::Hint => "Common practice bends it so; ask the shop, and keep the bend across the grain.".into(),
                _ => format!("Use a radius of {} or more, or a softer temper.", context.show(least)),
            },
            operations: vec![bend.name.clone()],
            features: vec![bend.name.clone()],
            why: RULE.why(formula, working),
        });
    }
    told_once(found)
}

/// A hint that is the same for several bends is told once, by the first of them.
fn told_once(all: Vec<Breach>) -> Vec<Breach> {
    let mut found: Vec<Breach> = Vec::new();
    for one in all {
        let same = |known: &&mut Breach| known.level == Level::Hint && known.why == one.why;
        match found.iter_mut().find(same).filter(|_| one.level == Level::Hint) {
            Some(known) => {
                known.operations.extend(one.operations);
                known.features.extend(one.features);
            }
            None => found.push(one),
        }
    }
    for hint in found.iter_mut().filter(|one| one.level == Level::Hint && one.features.len() > 1) {
        let more = format!("{} and {} more bends", hint.features[0], hint.features.len() - 1);
        hint.message = hint.message.replacen(&hint.features[0], &more, 1);
    }
    found
}
