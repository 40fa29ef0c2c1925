//! A form too near a bend, an edge, a hole or another form: the metal about it is drawn in, and the tool strikes what stands there.

use std::collections::HashSet;

use crate::patience;
use crate::plane::{Outline, Segment, Tag, outline_distance, segment_distance};
use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::{BendMake, Form, Hole, TagKind};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "form_room",
    title: "Room about pressed forms",
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

fn breach(form: &Form, context: &Context<'_>, (what, other): (String, &str), off: f64, times: f64) -> Breach {
    let thickness = context.part.flat.thickness;
    let wanted = times * thickness;
    Breach {
        rule: RULE.key.into(),
        said: None,
        accepted: None,
        level: Level::Broken,
        message: format!(
            "the form {} lies {} from {what}; {} needed",
            form.name,
            context.show(off),
            context.show(wanted)
        ),
        way_out: "Move the form away or make it smaller; ask the tool's maker where it must stay.".into(),
        operations: vec![form.operation.clone()],
        features: vec![form.name.clone(), other.to_string()],
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
        let own: Vec<Segment> = form.outline.segments().map(|(one, _)| one).collect();
        let to = |line: &Segment| own.iter().map(|one| segment_distance(one, line)).fold(f64::INFINITY, f64::min);
        for bend in flat.bends.iter().filter(|bend| bend.make != BendMake::Roll) {
            let strip = flat.strip_of(bend);
            for (panel, v) in [(bend.parent, 0.0), (bend.flange, strip.width)] {
                let tangent = Segment::line(strip.place(0.0, v), strip.place(strip.length, v));
                if panel == Some(form.panel) && short(to(&tangent), TO_EDGE) {
                    let what = format!("the tangent line of the bend {}", bend.name);
                    found.push(breach(form, context, (what, &bend.name), to(&tangent), TO_EDGE));
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
            found.push(breach(form, context, (format!("the edge {name}"), &name), off, TO_EDGE));
        }
        for hole in holes.iter().filter(|hole| hole.panel == form.panel) {
            if let Some(off) = near(&hole.outline).filter(|off| short(*off, TO_EACH_OTHER)) {
                found.push(breach(form, context, (hole.name.clone(), &hole.name), off, TO_EACH_OTHER));
            }
        }
        for other in flat.forms[at + 1..].iter().filter(|other| other.panel == form.panel) {
            if let Some(off) = near(&other.outline).filter(|off| short(*off, TO_EACH_OTHER)) {
                found.push(breach(
                    form,
                    context,
                    (format!("the form {}", other.name), &other.name),
                    off,
                    TO_EACH_OTHER,
                ));
            }
        }
    }
    found
}
