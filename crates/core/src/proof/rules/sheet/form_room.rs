//! A form or a rib too near a bend, an edge, a hole or another form: the metal about it is drawn in, and the tool strikes what stands there.

use std::collections::HashSet;

use crate::patience;
use crate::plane::{Outline, Segment, Tag, outline_distance, segment_distance};
use crate::quantity::decimal;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, TRACED};
use crate::sheet::{BendMake, Hole, Rib, TagKind};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "form_room",
    title: "Room about pressed forms and ribs",
    source: "common practice, the tool's maker decides: 3T clear of what a bend deforms (at 90 deg 3T + R from the inside mould line), 3T from an edge, 4T from holes and other forms",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Thicknesses to a bend's tangent line and to an edge.
const TO_EDGE: f64 = 3.0;
/// Thicknesses to what else is made in the panel.
const TO_EACH_OTHER: f64 = 4.0;

fn breach(
    (kind, own, operation): (&str, &str, &str),
    context: &Context<'_>,
    (what, other): (String, &str),
    off: f64,
    times: f64,
) -> Breach {
    let thickness = context.part.flat.thickness;
    let wanted = times * thickness;
    Breach {
        rule: RULE.key.into(),
        said: None,
        accepted: None,
        level: Level::Broken,
        message: format!("the {kind} {own} lies {} from {what}; {} needed", context.show(off), context.show(wanted)),
        way_out: format!("Move the {kind} away or make it smaller; ask the tool's maker where it must stay."),
        operations: vec![operation.to_string()],
        features: vec![own.to_string(), other.to_string()],
        why: RULE.why(
            format!("distance >= {}T", decimal(times, 3)),
            format!(
                "{} < {} x {} = {}",
                context.show(off),
                decimal(times, 3),
                context.show(thickness),
                context.show(wanted)
            ),
        ),
    }
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let short = |off: f64, times: f64| off < times * flat.thickness - MODELLING_TOLERANCE;
    // Pilots are told by their forms.
    let pilots: HashSet<Tag> = flat.forms.iter().filter_map(|form| form.pilot).collect();
    let holes: Vec<&Hole> = flat.holes.iter().filter(|hole| !pilots.contains(&hole.tag)).collect();
    let mut found = Vec::new();
    for (at, form) in flat.forms.iter().enumerate() {
        patience::check();
        let called = ("form", form.name.as_str(), form.operation.as_str());
        let own: Vec<Segment> = form.outline.segments().map(|(one, _)| one).collect();
        let to = |line: &Segment| own.iter().map(|one| segment_distance(one, line)).fold(f64::INFINITY, f64::min);
        for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
            let strip = flat.strip_of(bend);
            for (panel, v) in [(bend.parent, 0.0), (bend.flange, strip.width)] {
                let tangent = Segment::line(strip.place(0.0, v), strip.place(strip.length, v));
                if panel == Some(form.panel) && short(to(&tangent), TO_EDGE) {
                    let what = format!("the tangent line of the bend {}", bend.name);
                    found.push(breach(called, context, (what, &bend.name), to(&tangent), TO_EDGE));
                }
            }
        }
        let near = |other: &Outline| {
            let reach = TO_EACH_OTHER * flat.thickness;
            other.extents().is_near(&form.extents, reach).then(|| outline_distance(other, &form.outline))
        };
        let region = &flat.nodes[form.panel].region;
        let is_edge = |tag: u32| flat.tags[tag as usize].kind != TagKind::Joint;
        let edges = region.outer.segments().filter(|(_, tag)| is_edge(*tag));
        let nearest = edges.map(|(edge, tag)| (to(&edge), tag)).min_by(|one, two| one.0.total_cmp(&two.0));
        if let Some((off, tag)) = nearest.filter(|(off, _)| short(*off, TO_EDGE)) {
            let name = flat.tags[tag as usize].name.clone();
            found.push(breach(called, context, (format!("the edge {name}"), &name), off, TO_EDGE));
        }
        for hole in holes.iter().filter(|hole| hole.panel == form.panel) {
            if let Some(off) = near(&hole.outline).filter(|off| short(*off, TO_EACH_OTHER)) {
                found.push(breach(called, context, (hole.name.clone(), &hole.name), off, TO_EACH_OTHER));
            }
        }
        for other in flat.forms[at + 1..].iter().filter(|other| other.panel == form.panel) {
            if let Some(off) = near(&other.outline).filter(|off| short(*off, TO_EACH_OTHER)) {
                found.push(breach(
                    called,
                    context,
                    (format!("the form {}", other.name), &other.name),
                    off,
                    TO_EACH_OTHER,
                ));
            }
        }
    }
    found.extend(ribs(context, &holes));
    found
}

/// Ribs keep from edges, the bend's ends among them, and from what else is made in their panels; the bend that they are across is theirs.
fn ribs(context: &Context<'_>, holes: &[&Hole]) -> Vec<Breach> {
    let flat = &context.part.flat;
    let reach = TO_EACH_OTHER * flat.thickness;
    let footprints: Vec<(&Rib, Outline)> =
        flat.ribs.iter().filter_map(|rib| Some((rib, rib.footprint(flat)?))).collect();
    let mut found = Vec::new();
    for (at, (rib, own)) in footprints.iter().enumerate() {
        patience::check();
        let around = own.extents();
        let sides: Vec<Segment> = own.segments().map(|(one, _)| one).collect();
        let Some(strip) = flat.nodes[rib.strip].strip() else { continue };
        let is_tangent = |edge: &Segment| {
            [0.0, strip.width]
                .iter()
                .any(|line| [edge.start, edge.end].iter().all(|point| (strip.local(*point).1 - line).abs() < TRACED))
        };
        let nodes = flat.nodes.iter().filter(|node| node.region.outer.extents().is_near(&around, 0.0));
        let edges = nodes.flat_map(|node| node.region.outer.segments().map(move |(edge, tag)| (node, edge, tag)));
        let nearest = edges
            .filter(|(_, edge, _)| !is_tangent(edge) && edge.extents().is_near(&around, reach))
            .map(|(node, edge, tag)| {
                let off = sides.iter().map(|side| segment_distance(side, &edge)).fold(f64::INFINITY, f64::min);
                (off, node, tag)
            })
            .min_by(|one, two| one.0.total_cmp(&two.0));
        let mut tell = |what: String, other: &str, off: f64, times: f64| {
            if off < times * flat.thickness - MODELLING_TOLERANCE {
                let form = ("rib", rib.name.as_str(), rib.operation.as_str());
                found.push(breach(form, context, (what, other), off, times));
            }
        };
        if let Some((off, node, tag)) = nearest {
            let name = flat.tags[tag as usize].name.as_str();
            let what = if name.is_empty() { format!("an edge of {}", node.name) } else { format!("the edge {name}") };
            tell(what, if name.is_empty() { &node.name } else { name }, off, TO_EDGE);
        }
        let far = |other: &Outline| {
            if other.extents().is_near(&around, reach) { outline_distance(other, own) } else { f64::INFINITY }
        };
        for hole in holes {
            tell(hole.name.clone(), &hole.name, far(&hole.outline), TO_EACH_OTHER);
        }
        for form in flat.forms.iter() {
            tell(format!("the form {}", form.name), &form.name, far(&form.outline), TO_EACH_OTHER);
        }
        for (other, outline) in &footprints[at + 1..] {
            tell(format!("the rib {}", other.name), &other.name, far(outline), TO_EACH_OTHER);
        }
    }
    found
}
