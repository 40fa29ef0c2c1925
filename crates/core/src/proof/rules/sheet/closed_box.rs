//! A section that closes round the punch cannot come off it.

use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_TURN};
use crate::sheet::BendMake;
use crate::space::Point3;
use crate::work::sheet::Direction;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "closed_box",
    title: "Section that closes round the punch",
    source: "geometry: the opening left by bends of one way that turn through 270 deg or more; the punch is the shop's",
    about: About::Folding,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["brake.punch_mm"],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    if context.is_folded_by_hand() {
        return Vec::new();
    }
    let part = context.part;
    let flat = &part.flat;
    let punch = context.shop.brake.punch_mm;
    let mut found: Vec<Breach> = Vec::new();
    // Chains of bends that follow each other one way about parallel lines, from each bend on.
    for (first, start) in flat.bends.iter().enumerate() {
        if start.make != BendMake::Brake {
            continue;
        }
        for root in [start.parent, start.flange].into_iter().flatten() {
            let strip = flat.strip_of(start);
            let mut names = vec![start.name.clone()];
            let (mut turned, mut used) = (strip.angle, vec![first]);
            let mut panel = if start.parent == Some(root) { start.flange } else { start.parent };
            while let Some(here) = panel {
                let next = flat.bends.iter().enumerate().find(|(at, bend)| {
                    let own = flat.strip_of(bend);
                    !used.contains(at)
                        && bend.make == BendMake::Brake
                        && bend.touches(here)
                        && own.direction == strip.direction
                        && own.along.cross(strip.along).abs() < NO_TURN
                });
                if turned > 265f64.to_radians() {
                    let opening = opening(part, root, here, strip.direction);
                    if opening < punch - MODELLING_TOLERANCE
                        && !found.iter().any(|known| {
                            known.features.len() == names.len()
                                && names.iter().all(|name| known.features.contains(name))
                        })
                    {
                        found.push(Breach {
                            rule: RULE.key.into(),
                            said: None,
                            accepted: None,
                            level: Level::Broken,
                            message: format!(
                                "{} close round the punch: {} is left between {} and {}, the punch is {} wide",
                                names.join(", "),
                                context.show(opening),
                                flat.nodes[root].name,
                                flat.nodes[here].name,
                                context.show(punch)
                            ),
                            way_out: "Leave a wider opening, make it of two parts, or close the last side by hand."
                                .into(),
                            operations: names.iter().rev().cloned().collect(),
                            features: names.clone(),
                            why: RULE.why(
                                "opening >= punch where bends of one way turn through 270 deg or more",
                                format!(
                                    "turned {} deg, opening {} < {}",
                                    crate::quantity::decimal(turned.to_degrees(), 1),
                                    context.show(opening),
                                    context.show(punch)
                                ),
                            ),
                        });
                    }
                }
                let Some((at, bend)) = next else { break };
                used.push(at);
                names.push(bend.name.clone());
                turned += flat.strip_of(bend).angle;
                panel = if bend.parent == Some(here) { bend.flange } else { bend.parent };
            }
        }
    }
    found
}

/// The least distance between the corners of two panels' inner faces, mm: what a punch must pass.
fn opening(part: &crate::sheet::Part, one: usize, two: usize, direction: Direction) -> f64 {
    let z = if direction == Direction::Up { part.flat.thickness } else { 0.0 };
    let corners = |panel: usize| -> Vec<Point3> {
        part.flat.nodes[panel].region.outer.edges.iter().map(|edge| part.folded.apply(panel, edge.start, z)).collect()
    };
    let (a, b) = (corners(one), corners(two));
    a.iter().flat_map(|p| b.iter().map(move |q| p.distance(*q))).fold(f64::INFINITY, f64::min)
}
