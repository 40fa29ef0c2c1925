//! A hole smaller than what makes it can make.

use std::collections::BTreeMap;

use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::Hole;
use crate::work::sheet::Make;

use super::super::rule::{About, BY_HOLE, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "least_hole",
    title: "Holes large enough for what makes them",
    source: "the shop's, as shipped common practice: punched 1T at least; cut, as its cutter's table says (0.5T by laser, about 1T by others)",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken, Level::Hint],
    by: BY_HOLE,
    settings: &["asks.punched_hole"],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let (thickness, asked) = (context.part.flat.thickness, context.shop.asks.punched_hole);
    // One an operation: its smallest, the first made of equals, and how many there are.
    let mut small: BTreeMap<&str, (&Hole, f64, f64, usize)> = BTreeMap::new();
    for hole in context.part.flat.holes.iter() {
        let Some((_, radius)) = hole.outline.as_circle() else { continue };
        let least = match (hole.work.make, context.cutter) {
            (Make::Punch, _) => asked * thickness,
            (Make::Cut, Some((_, row))) if hole.work.through => row.least_hole,
            _ => continue,
        };
        if 2.0 * radius >= least - MODELLING_TOLERANCE {
            continue;
        }
        match small.get_mut(hole.operation.as_str()) {
            Some((known, diameter, _, count)) => {
                *count += 1;
                if 2.0 * radius < *diameter - MODELLING_TOLERANCE {
                    (*known, *diameter) = (hole, 2.0 * radius);
                }
            }
            None => drop(small.insert(&hole.operation, (hole, 2.0 * radius, least, 1))),
        }
    }
    small
        .into_values()
        .map(|(hole, diameter, least, count)| {
            let more = if count > 1 { format!(", and so {} more of them", count - 1) } else { String::new() };
            let (own, wanted) = (context.show(diameter), context.show(least));
            let punched = hole.work.make == Make::Punch;
            let by = context.cutter.map_or("cutter", |(cutter, _)| &cutter.title);
            Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: if punched { Level::Broken } else { Level::Hint },
                message: if punched {
                    format!("{} of {own} is punched; the punch wants {wanted} at least{more}", hole.name)
                } else {
                    format!("{} of {own} is smaller than the {by} cuts, {wanted}{more}", hole.name)
                },
                way_out: if punched {
                    "Drill it, or make it larger.".into()
                } else {
                    "Its centre is marked and it is drilled; or make it larger.".into()
                },
                operations: vec![hole.operation.clone()],
                features: vec![hole.name.clone()],
                why: if punched {
                    RULE.why(format!("d >= {}T", decimal(asked, 3)), format!("{own} < {wanted}"))
                } else {
                    RULE.why("d >= the least hole of the cutter's row", format!("{own} < {wanted}"))
                },
            }
        })
        .collect()
}
