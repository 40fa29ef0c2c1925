//! A leg that does not reach across the die's opening slips into it.

use std::f64::consts::FRAC_PI_4;

use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::quantity::{angle_text, decimal};
use crate::sheet::bending::outside_setback;
use crate::sheet::{Bend, BendMake, Flat, Strip};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "least_leg",
    title: "Least leg for the die",
    source: "the shop's, as shipped common practice: least outside leg 0.7 V at 90 deg, at other angles as far as the die's shoulder is from the bend's point; V the piece's die, else 8T (10T above 10 mm) and wide enough for the radius",
    about: About::Bends,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["asks.leg_of_die"],
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

/// The sharpest die is 30 deg inside: what is bent further is pressed flat in a second step, with its leg well across.
const SHARPEST: f64 = 150.0 * std::f64::consts::PI / 180.0;

/// The least leg for a die opening, mm, as outside legs are told. It rests on the die's shoulder, V / 2 off the bend line; at the bend
/// angle A that is V / (2 cos(A/2)) along the outside from where the legs' outsides meet. Practice rounds it to 0.7 V at 90 deg.
fn least_leg(of_die: f64, die: f64, strip: &Strip, thickness: f64) -> f64 {
    let half = strip.angle.min(SHARPEST) / 2.0;
    let straight = of_die * die * FRAC_PI_4.cos() / half.cos() - (strip.radius + thickness) * half.tan();
    straight.max(0.0) + outside_setback(strip.angle, strip.radius, thickness)
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    if context.is_folded_by_hand() {
        return Vec::new();
    }
    let flat = &context.part.flat;
    let (thickness, of_die) = (flat.thickness, context.shop.asks.leg_of_die);
    let mut found = Vec::new();
    for bend in &flat.bends {
        if bend.make != BendMake::Brake || offset_tool(flat, bend) || bend.flange.is_none() {
            continue;
        }
        let leg = outside_leg(flat, bend);
        let strip = flat.strip_of(bend);
        let die = context.die_for(strip.radius);
        let least = least_leg(of_die, die, strip, thickness);
        if leg < least - MODELLING_TOLERANCE {
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
 level: Level::Broken,
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
                    format!(
                        "leg >= {} V cos 45 / cos(A/2) from where the outsides meet, {}",
                        decimal(of_die, 3),
                        context.die_words(strip.radius)
                    ),
                    format!(
                        "{} < {} x {} x cos 45 / cos({}/2), which is a leg of {}",
                        context.show(leg),
                        decimal(of_die, 3),
                        context.show(die),
                        angle_text(strip.angle),
                        context.show(least)
                    ),
                ),
            });
        }
    }
    found
}
