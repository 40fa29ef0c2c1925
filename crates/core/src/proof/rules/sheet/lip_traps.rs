//! A return leg that meets the punch before its neighbour is bent.

use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_TURN};
use crate::sheet::{Bend, BendMake, Strip};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "lip_traps",
    title: "Return leg in the punch's way",
    source: "geometry of a straight punch on the bend line, half its width clear; the punch is the shop's (an example)",
    about: About::Folding,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["brake.punch_mm"],
    check,
};

/// When one bend is made, the leg of the other rises toward the punch. How near its tip comes to the bend's plane, mm.
fn tip_to_punch(made: &Strip, other: &Strip, web: f64, leg: f64) -> f64 {
    let half = made.angle / 2.0;
    web * half.cos() + leg * (half + other.angle).cos()
}

/// The panel on the far side of a bend from `panel`.
fn far_side(bend: &Bend, panel: usize) -> Option<(usize, bool)> {
    if bend.parent == Some(panel) { bend.flange.map(|at| (at, true)) } else { bend.parent.map(|at| (at, false)) }
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    if context.is_folded_by_hand() {
        return Vec::new();
    }
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let punch = context.shop.brake.punch_mm / 2.0;
    let mut found = Vec::new();
    for (at, one) in flat.bends.iter().enumerate() {
        for two in &flat.bends[at + 1..] {
            if one.make != BendMake::Brake || two.make != BendMake::Brake {
                continue;
            }
            let shared = [one.parent, one.flange].into_iter().flatten().find(|&panel| two.touches(panel));
            let Some(shared) = shared else { continue };
            let (a, b) = (flat.strip_of(one), flat.strip_of(two));
            if a.direction != b.direction || a.along.cross(b.along).abs() > NO_TURN {
                continue;
            }
            let (Some((end_a, beyond_a)), Some((end_b, beyond_b))) = (far_side(one, shared), far_side(two, shared))
            else {
                continue;
            };
            // Side by side along the bend they never see each other.
            let (low, high) = {
                let start = a.local(b.origin).0;
                let end = a.local(b.place(b.length, 0.0)).0;
                (start.min(end), start.max(end))
            };
            if high < MODELLING_TOLERANCE || low > a.length - MODELLING_TOLERANCE {
                continue;
            }
            // Inside sizes, between inside faces.
            let flat_web = {
                let near = if beyond_a { 0.0 } else { a.width };
                [0.0, b.width].iter().map(|&v| (a.local(b.place(0.0, v)).1 - near).abs()).fold(f64::INFINITY, f64::min)
            };
            let inside = |strip: &Strip| crate::sheet::bending::inside_setback(strip.angle, strip.radius);
            let web = flat_web + inside(a) + inside(b);
            let leg = |panel: usize, strip: &Strip, beyond: bool| flat.laid_reach(panel, strip, beyond) + inside(strip);
            let (leg_a, leg_b) = (leg(end_a, a, beyond_a), leg(end_b, b, beyond_b));
            // Either may be bent first; the one bent later must find the other's tip clear of the punch.
            let clear = tip_to_punch(a, b, web, leg_b).max(tip_to_punch(b, a, web, leg_a));
            if clear >= punch - MODELLING_TOLERANCE {
                continue;
            }
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
 level: Level::Broken,
                message: format!(
                    "{} and {} are {} apart: whichever is bent last, the other's leg of {} comes to {} of the punch's middle; {} is needed",
                    one.name,
                    two.name,
                    context.show(web),
                    context.show(leg_a.min(leg_b)),
                    context.show(clear),
                    context.show(punch)
                ),
                way_out: "Shorten a leg, widen the panel between, or ask the shop for a goose-neck punch.".into(),
                operations: vec![two.name.clone(), one.name.clone()],
                features: vec![one.name.clone(), two.name.clone()],
                why: RULE.why(
                    "w cos(B/2) + l cos(B/2 + A) >= half the punch, for one order of bending at least",
                    format!(
                        "w = {}, legs {} and {}, T = {}: {} < {}",
                        context.show(web),
                        context.show(leg_a),
                        context.show(leg_b),
                        context.show(thickness),
                        context.show(clear),
                        context.show(punch)
                    ),
                ),
            });
        }
    }
    found
}
