//! A hole too near a bend is drawn oval or torn.

use crate::plane::{Segment, segment_distance};
use crate::quantity::decimal;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::sheet::BendMake;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "hole_to_bend",
    title: "Hole and cut-out edge to bend",
    source: "the shop's, as shipped common practice: 2T (round holes) or 3T (straight cut-out edges) clear of what the bend deforms, which at 90 deg is 2T + R or 3T + R from the inside mould line",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["asks.bend", "asks.slot_bend"],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let asks = &context.shop.asks;
    let furthest = asks.bend.max(asks.slot_bend) * thickness;
    let mut found = Vec::new();
    for bend in &flat.bends {
        // Rolls press on nothing, and bend so little at each place that a hole stays as round as it was.
        if bend.make == BendMake::Roll {
            continue;
        }
        let strip = flat.strip_of(bend);
        for (panel, v) in [(bend.parent, 0.0), (bend.flange, strip.width)] {
            let Some(panel) = panel else { continue };
            let tangent = Segment::line(strip.place(0.0, v), strip.place(strip.length, v));
            for hole in flat.holes.iter().filter(|hole| hole.panel == panel) {
                // Most holes stand far off: their box tells without looking at their outline.
                let reach = hole.extents.width().hypot(hole.extents.height());
                if tangent.distance_to(hole.centre) > furthest + reach {
                    continue;
                }
                let region = &flat.nodes[panel].region;
                let Some(outline) =
                    region.holes.iter().find(|one| one.edges.first().is_some_and(|e| e.tag == hole.tag))
                else {
                    continue;
                };
                let (mut least, mut straight) = (f64::INFINITY, false);
                for (segment, _) in outline.segments() {
                    let distance = segment_distance(&segment, &tangent);
                    if distance < least - ROUNDING {
                        least = distance;
                        straight = segment.is_line();
                    } else if (distance - least).abs() < MODELLING_TOLERANCE {
                        straight |= segment.is_line();
                    }
                }
                let multiple = if straight { asks.slot_bend } else { asks.bend };
                // What the bend deforms ends at its tangent line.
                let (measured, wanted) = (least, multiple * thickness);
                if measured < wanted - MODELLING_TOLERANCE {
                    found.push(Breach {
                        rule: RULE.key.into(),
                        said: None,
                        accepted: None,
                        level: Level::Broken,
                        message: format!(
                            "{} is {} too near the bend {}: {} from its tangent line, {} needed",
                            hole.name,
                            context.show(wanted - measured),
                            bend.name,
                            context.show(measured),
                            context.show(wanted)
                        ),
                        way_out: "Move the hole away, make it smaller, or drill it after bending.".into(),
                        operations: vec![hole.operation.clone(), bend.name.clone()],
                        features: vec![hole.name.clone(), bend.name.clone()],
                        why: RULE.why(
                            format!("distance to the tangent line >= {}T", decimal(multiple, 3)),
                            format!(
                                "{} < {} x {} = {}",
                                context.show(measured),
                                decimal(multiple, 3),
                                context.show(thickness),
                                context.show(wanted)
                            ),
                        ),
                    });
                }
            }
        }
    }
    found
}
