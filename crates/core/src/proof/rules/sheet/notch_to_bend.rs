//! A notch, or a cut open at an edge, that ends beside a bend: the bend bulges there, or tears.

use crate::plane::{Point, Segment};
use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::{BendMake, CutEdge, Flat, Strip, TagKind, cut_edges};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "notch_to_bend",
    title: "Notch or open cut beside a bend",
    source: "as for cut-outs, the shop's, as shipped common practice: 3T (straight edges) or 2T (round ones) clear of the bend's tangent line",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["asks.bend", "asks.slot_bend"],
    check,
};

/// Beside a bend's own ends a notch is its relief, mm.
const ASIDE: f64 = 0.01;

/// Whether a cut edge is a notch's, or an open cut's: what reliefs, corners and tabs leave is made for the bend.
fn is_notch(flat: &Flat, edge: &CutEdge) -> bool {
    let record = &flat.tags[edge.tag as usize];
    match record.kind {
        TagKind::Hole(_) => true,
        TagKind::Relief => ![".relief", ".heel-", ".sides"].iter().any(|sign| record.name.contains(sign)),
        _ => false,
    }
}

/// How far the part of a stretch that lies beside a bend, and not past its ends, is from one of its tangent lines, mm.
fn beside(stretch: &Segment, strip: &Strip, second: bool) -> Option<f64> {
    let (from, to) = (ASIDE, strip.length - ASIDE);
    let mut places = vec![stretch.start, stretch.end];
    // Where it passes the bend's ends, and where a round comes nearest.
    if stretch.is_line() {
        let (start, end) = (strip.local(stretch.start).0, strip.local(stretch.end).0);
        let passes = [from, to].into_iter().filter(|bound| (bound - start) * (bound - end) < 0.0);
        places.extend(passes.map(|bound| stretch.at((bound - start) / (end - start))));
    } else {
        let (centre, radius) = (stretch.centre(), stretch.radius());
        let (u, v) = strip.local(centre);
        let passes = [from, to].into_iter().filter_map(|bound| {
            let up = (radius * radius - (bound - u) * (bound - u)).sqrt();
            up.is_finite().then(|| [strip.place(bound, v - up), strip.place(bound, v + up)])
        });
        let nearest = [strip.place(u, v - radius), strip.place(u, v + radius)];
        let on = |place: &Point| stretch.distance_to(*place) < MODELLING_TOLERANCE;
        places.extend(passes.flatten().chain(nearest).filter(on));
    }
    places
        .into_iter()
        .map(|place| strip.local(place))
        .filter(|(u, _)| (from - MODELLING_TOLERANCE..=to + MODELLING_TOLERANCE).contains(u))
        .map(|(_, v)| if second { v - strip.width } else { -v })
        .filter(|off| *off > -MODELLING_TOLERANCE)
        .min_by(f64::total_cmp)
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let (thickness, asks) = (flat.thickness, &context.shop.asks);
    let notches: Vec<CutEdge> = cut_edges(flat).into_iter().filter(|edge| is_notch(flat, edge)).collect();
    let mut found: Vec<Breach> = Vec::new();
    for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
        let strip = flat.strip_of(bend);
        for (panel, second) in [(bend.parent, false), (bend.flange, true)] {
            let Some(panel) = panel else { continue };
            // Of each cut the edge that comes nearest.
            let mut nearest: Vec<(&str, f64, f64, &CutEdge)> = Vec::new();
            for edge in notches.iter().filter(|edge| edge.node == panel) {
                let operation = edge.name.split_once('.').map_or(edge.name.as_str(), |(own, _)| own);
                // What goes on into the bend crosses it, and has a rule of its own.
                if crosses(flat, edge, bend.strip) {
                    continue;
                }
                for stretch in &edge.stretches {
                    let Some(off) = beside(stretch, strip, second) else { continue };
                    let times = if stretch.is_line() { asks.slot_bend } else { asks.bend };
                    let wanted = times * thickness;
                    if off >= wanted - MODELLING_TOLERANCE {
                        continue;
                    }
                    match nearest.iter_mut().find(|known| known.0 == operation) {
                        Some(known) if known.1 <= off + MODELLING_TOLERANCE => {}
                        Some(known) => *known = (operation, off, times, edge),
                        None => nearest.push((operation, off, times, edge)),
                    }
                }
            }
            found.extend(nearest.into_iter().map(|(operation, off, times, edge)| {
                let (own, wanted) = (context.show(off.max(0.0)), context.show(times * thickness));
                Breach {
                    rule: RULE.key.into(),
                    said: None,
                    accepted: None,
                    level: Level::Broken,
                    message: format!(
                        "{} ends {own} from the tangent line of the bend {}; {wanted} needed",
                        edge.name, bend.name
                    ),
                    way_out: "Make it less deep, move it, or run it past the bend's end as a relief.".into(),
                    operations: vec![operation.to_string(), bend.name.clone()],
                    features: vec![edge.name.clone(), bend.name.clone()],
                    why: RULE.why(
                        format!("distance to the tangent line >= {}T", decimal(times, 3)),
                        format!("{own} < {wanted}"),
                    ),
                }
            }));
        }
    }
    found
}

/// Whether the cut of an edge has also cut into a bend's strip.
fn crosses(flat: &Flat, edge: &CutEdge, strip: usize) -> bool {
    let TagKind::Hole(_) = flat.tags[edge.tag as usize].kind else { return false };
    flat.nodes[strip].region.outer.segments().any(|(_, tag)| tag == edge.tag)
}
