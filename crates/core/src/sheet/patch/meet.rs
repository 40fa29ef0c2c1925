//! Which heads and blind holes run into each other, and which run out of the metal of their face.

use std::collections::{HashMap, HashSet};

use crate::patience;
use crate::plane::{Box2, Outline, Point, Segment, Tag, segment_distance};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::flat::{Flat, Hole, TagKind};
use crate::sheet::form::Form;
use crate::work::sheet::Face;

/// Heads and blind holes that hang together.
#[derive(Clone, Debug)]
pub(in crate::sheet) struct Cluster {
    /// Indices in the flat's holes.
    pub holes: Vec<usize>,
    /// What one of them runs out over.
    pub runs_out: Option<String>,
}

impl Cluster {
    /// Why it has no faces of its own, in words; `None` where it has.
    pub fn words(&self, flat: &Flat) -> Option<String> {
        let name = |at: usize| flat.holes[at].name.clone();
        if let Some(over) = &self.runs_out {
            return Some(format!("{} runs into {over}", name(self.holes[0])));
        }
        let others: Vec<String> = self.holes[1..].iter().take(3).map(|&at| name(at)).collect();
        (!others.is_empty()).then(|| format!("{} runs into {}", name(self.holes[0]), others.join(", ")))
    }
}

impl Hole {
    /// A depth under the face that it is worked from as a height over the lower face, mm.
    pub(in crate::sheet) fn height(&self, depth: f64, thickness: f64) -> f64 {
        match self.work.face {
            Face::Top => thickness - depth,
            Face::Bottom => depth,
        }
    }

    /// Its radius at a height over the lower face, mm; 0 where it does not reach. Where it steps, the wider.
    pub(in crate::sheet) fn radius_at(&self, height: f64, thickness: f64) -> f64 {
        let depth = self.height(height, thickness);
        let near = MODELLING_TOLERANCE;
        let own = self.work.profile.iter().filter(|one| one.from - near <= depth && depth <= one.to + near);
        own.map(|one| one.radius(depth.clamp(one.from, one.to))).fold(0.0, f64::max)
    }

    /// The widest that it is, mm.
    fn most(&self) -> f64 {
        self.work.profile.first().map_or(0.0, |one| one.near)
    }
}

/// Every head and blind hole, those that run into each other together.
pub(in crate::sheet) fn clusters(flat: &Flat) -> Vec<Cluster> {
    let headed: Vec<usize> = (0..flat.holes.len()).filter(|&at| !flat.holes[at].work.profile.is_empty()).collect();
    if headed.is_empty() {
        return Vec::new();
    }
    // Holes by cells as wide as the largest: what is near lies in the cells around.
    let wide = headed.iter().fold(1.0, |most: f64, &at| most.max(2.0 * flat.holes[at].most()));
    let cell = |at: Point| ((at.x / wide).floor() as i64, (at.y / wide).floor() as i64);
    let mut cells: HashMap<(i64, i64), Vec<usize>> = HashMap::new();
    for &at in &headed {
        cells.entry(cell(flat.holes[at].centre)).or_default().push(at);
    }
    let bounds = Bounds::new(flat, &headed);
    let mut used: HashSet<usize> = HashSet::new();
    let mut all = Vec::new();
    for first in headed {
        if !used.insert(first) {
            continue;
        }
        let mut holes = vec![first];
        let mut at = 0;
        while at < holes.len() {
            patience::check();
            let here = holes[at];
            at += 1;
            let (x, y) = cell(flat.holes[here].centre);
            let around = (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (x + dx, y + dy)));
            for &other in around.filter_map(|cell| cells.get(&cell)).flatten() {
                if other != here && meet(flat, &flat.holes[here], &flat.holes[other]) && used.insert(other) {
                    holes.push(other);
                }
            }
        }
        holes.sort_unstable();
        let runs_out = holes.iter().find_map(|&at| bounds.over(&flat.holes[at]));
        all.push(Cluster { holes, runs_out });
    }
    all
}

/// Whether two touch or share metal at some height.
fn meet(flat: &Flat, one: &Hole, two: &Hole) -> bool {
    if one.panel != two.panel {
        return false;
    }
    let apart = one.centre.distance(two.centre) - MODELLING_TOLERANCE;
    if one.most() + two.most() < apart {
        return false;
    }
    let thickness = flat.thickness;
    // Radii run straight between these.
    let levels = [one, two].into_iter().flat_map(|hole| {
        hole.work.profile.iter().flat_map(move |own| [own.from, own.to]).map(move |depth| hole.height(depth, thickness))
    });
    levels.into_iter().any(|height| {
        let both = [one.radius_at(height, thickness), two.radius_at(height, thickness)];
        both.iter().all(|radius| *radius > 0.0) && both[0] + both[1] >= apart
    })
}

/// What bounds the metal of panels besides their heads.
struct Bounds<'a> {
    flat: &'a Flat,
    /// Of each panel its edges that are none of a head's own, with their boxes.
    edges: HashMap<usize, Vec<(Segment, Tag, Box2)>>,
    /// Holes through that are whole.
    whole: HashSet<Tag>,
}

impl<'a> Bounds<'a> {
    fn new(flat: &'a Flat, headed: &[usize]) -> Self {
        let mut panels: Vec<usize> = headed.iter().map(|&at| flat.holes[at].panel).collect();
        panels.sort_unstable();
        panels.dedup();
        let own: HashSet<Tag> = headed.iter().map(|&at| flat.holes[at].tag).collect();
        let mut whole = HashSet::new();
        let mut edges: HashMap<usize, Vec<(Segment, Tag, Box2)>> = HashMap::new();
        for panel in panels {
            let all = edges.entry(panel).or_default();
            for (at, outline) in flat.nodes[panel].region.outlines().enumerate() {
                let tag = outline.edges.first().map_or(0, |edge| edge.tag);
                if at > 0 && own.contains(&tag) && outline.as_circle().is_some() {
                    whole.insert(tag);
                    continue;
                }
                all.extend(outline.segments().map(|(edge, tag)| (edge, tag, edge.extents())));
            }
        }
        Bounds { flat, edges, whole }
    }

    /// What a head runs out over, in words.
    fn over(&self, hole: &Hole) -> Option<String> {
        if hole.work.through && !self.whole.contains(&hole.tag) {
            return Some("a cut that opens it".into());
        }
        if !hole.work.through && !self.flat.nodes[hole.panel].region.contains(hole.centre) {
            return Some("a cut that takes its metal away".into());
        }
        let radius = hole.most() + MODELLING_TOLERANCE;
        let spot = Box2 { low: hole.centre, high: hole.centre };
        let near = self.edges.get(&hole.panel)?.iter().filter(|(.., around)| around.is_near(&spot, radius));
        let (_, tag) = near
            .map(|(edge, tag, _)| (edge.distance_to(hole.centre), *tag))
            .filter(|(off, _)| *off <= radius)
            .min_by(|one, two| one.0.total_cmp(&two.0))?;
        let record = &self.flat.tags[tag as usize];
        Some(match record.kind {
            TagKind::Joint | TagKind::BendEnd => format!("the bend at {}", record.name),
            TagKind::Hole(_) => record.name.clone(),
            _ if record.name.is_empty() => "an edge".into(),
            _ => format!("the edge {}", record.name),
        })
    }
}

/// What was cut into a form after it was pressed, in words.
pub(super) fn run_into(flat: &Flat, form: &Form) -> Option<String> {
    let region = &flat.nodes[form.panel].region;
    let is_pilot = |tag: Tag| form.pilot == Some(tag);
    let near = region.outlines().filter(|one| one.extents().is_near(&form.extents, MODELLING_TOLERANCE));
    let edges = near.flat_map(|one| one.segments()).filter(|(_, tag)| !is_pilot(*tag));
    let own: Vec<Segment> = form.outline.segments().map(|(one, _)| one).collect();
    let mut met = edges.filter(|(edge, _)| {
        form.outline.contains(edge.start) || own.iter().any(|one| segment_distance(one, edge) < MODELLING_TOLERANCE)
    });
    let name = |tag: Tag| Some(flat.tags[tag as usize].name.clone()).filter(|name| !name.is_empty());
    if let Some((_, tag)) = met.next() {
        return Some(format!("{} runs into {}", form.name, name(tag).unwrap_or_else(|| "an edge".into())));
    }
    let is_in = |hole: &Outline| hole.edges.iter().all(|edge| !is_pilot(edge.tag)) && hole.contains(form.centre);
    if !region.outer.contains(form.centre) || region.holes.iter().any(is_in) {
        return Some(format!("{} lies where the sheet is cut away", form.name));
    }
    let pilot_is_whole =
        form.pilot.is_none_or(|tag| region.holes.iter().any(|one| one.edges.iter().all(|edge| edge.tag == tag)));
    if !pilot_is_whole {
        return Some(format!("{} runs into a cut", form.name));
    }
    // Heads and blind holes are no part of the region.
    let head =
        flat.holes.iter().filter(|hole| hole.panel == form.panel && !hole.work.profile.is_empty()).find(|hole| {
            let reach = hole.most() + MODELLING_TOLERANCE;
            form.outline.contains(hole.centre) || own.iter().any(|one| one.distance_to(hole.centre) < reach)
        });
    head.map(|hole| format!("{} runs into {}", form.name, hole.name))
}
