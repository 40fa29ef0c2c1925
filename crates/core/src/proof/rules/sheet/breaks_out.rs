//! A drill's point that comes through the other face, and a thread whose flank comes out at an edge.

use crate::patience;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::{Flat, Hole, TagKind};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};
use super::head_room::half;

pub(super) const RULE: SheetRule = SheetRule {
    key: "breaks_out",
    title: "Drill points and threads that break out",
    source: "common practice: a blind hole's point stays in the metal; a tap leaves a pitch of metal beside its thread",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// The nearest edge of its panel to a hole's middle that is no joint, mm.
fn nearest_edge(flat: &Flat, hole: &Hole) -> Option<(f64, String)> {
    let outside = flat.nodes[hole.panel].region.outer.segments();
    outside
        .filter(|(_, tag)| flat.tags[*tag as usize].kind != TagKind::Joint)
        .map(|(edge, tag)| (edge.distance_to(hole.centre), tag))
        .min_by(|one, two| one.0.total_cmp(&two.0))
        .map(|(off, tag)| (off, flat.tags[tag as usize].name.clone()))
}

/// Every opening near enough to a thread that it may break out into it, found by sweeping from left to right: a perforation has
/// tens of thousands.
struct Openings<'a> {
    holes: &'a [Hole],
    turns: Vec<usize>,
    widest: f64,
}

impl<'a> Openings<'a> {
    fn new(holes: &'a [Hole]) -> Self {
        let mut turns: Vec<usize> = (0..holes.len()).filter(|&at| holes[at].work.through).collect();
        turns.sort_by(|&one, &two| holes[one].centre.x.total_cmp(&holes[two].centre.x));
        Openings { holes, turns, widest: holes.iter().map(half).fold(0.0, f64::max) }
    }

    fn nearest(&self, hole: &Hole, within: f64) -> Option<(f64, String)> {
        let (reach, x) = (within + self.widest, hole.centre.x);
        let from = self.turns.partition_point(|&other| self.holes[other].centre.x < x - reach);
        let near = self.turns[from..].iter().take_while(|&&other| self.holes[other].centre.x <= x + reach);
        near.map(|&other| &self.holes[other])
            .filter(|other| other.panel == hole.panel && other.tag != hole.tag)
            .filter(|other| other.extents.is_near(&hole.extents, within))
            .flat_map(|other| other.outline.segments().map(|(edge, _)| (edge.distance_to(hole.centre), &other.name)))
            .min_by(|one, two| one.0.total_cmp(&two.0))
            .map(|(off, name)| (off, name.clone()))
    }
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let flat = &context.part.flat;
    let thickness = flat.thickness;
    let threaded = flat.holes.iter().any(|hole| hole.work.thread.is_some());
    let openings = threaded.then(|| Openings::new(&flat.holes));
    let mut found = Vec::new();
    for hole in flat.holes.iter() {
        let mut add = |message: String, way_out: &str, features: Vec<String>, formula: &str, working: String| {
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message,
                way_out: way_out.into(),
                operations: vec![hole.operation.clone()],
                features,
                why: RULE.why(formula, working),
            });
        };
        if !hole.work.through && hole.work.bottom > thickness - MODELLING_TOLERANCE {
            let (bottom, sheet) = (context.show(hole.work.bottom), context.show(thickness));
            add(
                format!("the point of {} reaches {bottom} down and breaks out of the other face of {sheet}", hole.name),
                "Drill less deep, grind the point flat, or let it go through.",
                vec![hole.name.clone()],
                "depth + the point's height < T",
                format!("{bottom} >= {sheet}"),
            );
        }
        let Some((thread, _)) = hole.work.thread else { continue };
        patience::check();
        let opening = openings.as_ref().and_then(|all| all.nearest(hole, thread.major / 2.0 + thread.pitch));
        let either = [nearest_edge(flat, hole), opening].into_iter().flatten();
        let Some((off, other)) = either.min_by(|one, two| one.0.total_cmp(&two.0)) else { continue };
        let left = off - thread.major / 2.0;
        if left < thread.pitch - MODELLING_TOLERANCE {
            let (own, wanted) = (context.show(left), context.show(thread.pitch));
            add(
                format!(
                    "the thread {} of {} leaves {own} to {other}; {wanted}, a pitch, needed",
                    thread.name, hole.name
                ),
                "Move the hole in, or take a smaller thread.",
                vec![hole.name.clone(), other],
                "from the thread's major diameter to an edge >= its pitch",
                format!("{own} < {wanted}"),
            );
        }
    }
    found
}
