//! A leg that does not reach across the die's opening slips into it.

use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::sheet::bending::outside_setback;
use crate::sheet::{Bend, BendMake, Flat};

use super::super::rule::{Breach, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "least_leg",
    title: "Least leg for the die",
    source: "common practice: die opening V = 8T (10T above 10 mm), least outside leg 0.7 V",
    broken: WhenBroken::Told,
    check,
};

/// Outside leg of a flange as laid in the flat, mm: what lies across the die while this bend is made, whatever a later
/// bend takes of it.
fn outside_leg(flat: &Flat, bend: &Bend) -> f64 {
    let strip = flat.strip_of(bend);
    let straight = bend.flange.map_or(0.0, |panel| flat.laid_reach(panel, strip, true));
    straight + outside_setback(strip.angle, strip.radius, flat.thickness)
}

/// Whether a bend is the first of two equal and opposite ones: the offset tool presses both, whatever lies between.
fn offset_tool(flat: &Flat, bend: &Bend) -> bool {
    let strip = flat.strip_of(bend);
    flat.bends.iter().any(|other| {
        let next = flat.strip_of(other);
        other.parent == bend.flange
            && bend.flange.is_some()
            && other.name != bend.name
            && next.direction != strip.direction
            && (next.angle - strip.angle).abs() < ROUNDING
            && bend.name == format!("{}.web", other.name)
    })
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let times = if thickness > 10.0 { 10.0 } else { 8.0 };
    let least = 0.7 * times * thickness;
    let mut found = Vec::new();
    for bend in &flat.bends {
        if bend.make != BendMake::Brake || offset_tool(flat, bend) || bend.flange.is_none() {
            continue;
        }
        let leg = outside_leg(flat, bend);
        if leg < least - MODELLING_TOLERANCE {
            found.push(Breach {
                rule: RULE.key.into(),
                message: format!(
                    "{}: a leg of {} does not reach across the die; {} needed at {}",
                    bend.name,
                    context.show(leg),
                    context.show(least),
                    context.show(thickness)
                ),
                way_out: "Make the leg longer and trim it after bending, or bend it in a narrower die by agreement with the shop.".into(),
                operations: vec![bend.name.clone()],
                features: vec![bend.name.clone()],
                why: RULE.why(
                    "leg >= 0.7 V, V = 8T (10T above 10 mm)",
                    format!("{} < 0.7 x {times} x {} = {}", context.show(leg), context.show(thickness), context.show(least)),
                ),
            });
        }
    }
    found
}
