//! Where work comes to that is made again: edges, set-ins and holes, moved across a centre line or along the blank.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point, Segment, Vector};
use crate::quantity::LengthUnit;
use crate::work::sheet::Reach;

use super::flat::{Flat, HoleCopy};
use super::form::{self, Form};
use super::hole::NewHole;
use super::rib::{self, Rib, RibSizes};
use super::{hole, slice};

/// A way to move points of the flat: a copy of nothing yet.
pub struct Moved(HoleCopy);

impl std::ops::Deref for Moved {
    type Target = HoleCopy;
    fn deref(&self) -> &HoleCopy {
        &self.0
    }
}

impl Moved {
    pub fn new(mirror: Option<(Point, Vector)>, shift: Vector) -> Moved {
        Moved(HoleCopy { of: String::new(), mirror, shift })
    }

    /// A way of the flat, turned.
    pub fn way(&self, way: Vector) -> Vector {
        self.mirror.map_or(way, |(_, normal)| way - normal * (2.0 * way.dot(normal)))
    }

    pub fn line(&self, line: &Segment) -> Segment {
        let (start, end) = (self.point(line.start), self.point(line.end));
        if self.mirror.is_some() { Segment::line(end, start) } else { Segment::line(start, end) }
    }
}

/// The edge that lies where an edge comes to, with which of its sides each of the first's sides becomes.
pub(super) fn edge_there(flat: &Flat, name: &str, moved: &Moved) -> Result<(String, [(String, String); 2]), Finding> {
    let edge = flat.edges.iter().find(|edge| edge.name == name).ok_or_else(|| {
        Finding::error(format!("there is no edge called {name} at this step"), "Check the operation.")
    })?;
    let line = moved.line(&edge.line);
    let near = |a: Point, b: Point| a.distance(b) < 10.0 * MODELLING_TOLERANCE;
    let there = flat
        .edges
        .iter()
        .find(|other| near(other.line.start, line.start) && near(other.line.end, line.end))
        .ok_or_else(|| {
            Finding::error(
                format!("no edge lies where {name} would come to"),
                "Check the centre line or the distance; the panel must have an edge there of the same length.",
            )
        })?;
    let (one, two) = if moved.mirror.is_some() { (1, 0) } else { (0, 1) };
    let sides = [(edge.sides[0].clone(), there.sides[one].clone()), (edge.sides[1].clone(), there.sides[two].clone())];
    Ok((there.name.clone(), sides))
}

/// How far along its own line an edge comes to lie, mm; `None` where it comes to another line.
pub(super) fn along_itself(flat: &Flat, name: &str, moved: &Moved) -> Option<f64> {
    let edge = flat.edges.iter().find(|edge| edge.name == name)?;
    if moved.mirror.is_some() {
        return None;
    }
    let along = (edge.line.end - edge.line.start).unit();
    (along.cross(moved.shift).abs() < MODELLING_TOLERANCE).then(|| along.dot(moved.shift))
}

/// Set-ins of a flange moved along its edge: more at one end, less at the other. One that runs off is refused where it
/// is laid.
pub(super) fn moved_along(
    flat: &Flat,
    name: &str,
    set_in: &BTreeMap<String, f64>,
    moved: &Moved,
) -> BTreeMap<String, f64> {
    let mut next = set_in.clone();
    if let (Some(by), Some(edge)) = (along_itself(flat, name, moved), flat.edges.iter().find(|edge| edge.name == name))
    {
        *next.entry(edge.sides[0].clone()).or_insert(0.0) += by;
        *next.entry(edge.sides[1].clone()).or_insert(0.0) -= by;
    }
    next
}

pub(super) fn turned_sides(set_in: &BTreeMap<String, f64>, sides: &[(String, String); 2]) -> BTreeMap<String, f64> {
    set_in
        .iter()
        .map(|(side, by)| {
            let to = sides.iter().find(|(from, _)| from == side).map_or(side, |(_, to)| to);
            (to.clone(), *by)
        })
        .collect()
}

/// The panel that something comes to.
fn panel_there(flat: &Flat, centre: Point, name: &str) -> Result<usize, Finding> {
    let holds = |at: &usize| flat.nodes[*at].is_panel() && flat.nodes[*at].region.outer.contains(centre);
    (0..flat.nodes.len()).find(holds).ok_or_else(|| {
        Finding::error(
            format!("{name} would come to where there is no panel"),
            "Make the flange there first, or check the centre line or the distance.",
        )
    })
}

/// Holes moved as they were made, into whichever panel they come to.
pub(super) fn holes_again(
    flat: &mut Flat,
    own: &str,
    operation: &str,
    moved: &Moved,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let first: Vec<_> = flat.holes.iter().filter(|hole| hole.operation == operation).cloned().collect();
    let reach = first.first().map_or(Reach::Panel, |hole| hole.reach);
    // What a cut through the folded part left in each panel is made again panel by panel.
    let count = first.len();
    let mut by_panel: Vec<(usize, Vec<NewHole>)> = Vec::new();
    for (number, hole) in first.into_iter().enumerate() {
        let centre = moved.point(hole.centre);
        let copy = Some(HoleCopy { of: hole.name.clone(), ..moved.0.clone() });
        let outline = moved.outline(&hole.outline);
        let own_name = if count == 1 { own.to_string() } else { format!("{own}.{}", number + 1) };
        if reach == Reach::Flat || reach == Reach::Open {
            // It takes from whatever it meets where it comes to, as the first did.
            let made = NewHole { name: own_name, outline, centre, work: hole.work.clone(), copy };
            slice::cut_flat(flat, own, vec![made])?;
            continue;
        }
        let panel = panel_there(flat, centre, &hole.name)?;
        let hole = NewHole { name: own_name, outline, centre, work: hole.work.clone(), copy };
        match by_panel.iter_mut().find(|(at, _)| *at == panel) {
            Some((_, list)) => list.push(hole),
            None => by_panel.push((panel, vec![hole])),
        }
    }
    for (panel, list) in by_panel {
        hole::put(flat, panel, own, list, unit)?;
    }
    Ok(Vec::new())
}

/// Forms moved as they were pressed, into whichever panel they come to.
pub(super) fn forms_again(
    flat: &mut Flat,
    own: &str,
    operation: &str,
    moved: &Moved,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let first: Vec<Form> = flat.forms.iter().filter(|form| form.operation == operation).cloned().collect();
    let count = first.len();
    for (number, form) in first.into_iter().enumerate() {
        let centre = moved.point(form.centre);
        let panel = panel_there(flat, centre, &form.name)?;
        let outline = moved.outline(&form.outline);
        let next = Form {
            name: if count == 1 { own.to_string() } else { format!("{own}.{}", number + 1) },
            operation: own.to_string(),
            panel,
            centre,
            extents: outline.extents(),
            outline,
            ways: form.ways.map(|way| moved.way(way)),
            pilot: None,
            ..form
        };
        form::put(flat, panel, vec![next], unit)?;
    }
    Ok(Vec::new())
}

/// Ribs moved as they were pressed, across whichever bend they come to: one of the same section, turned either way.
pub(super) fn ribs_again(
    flat: &mut Flat,
    own: &str,
    operation: &str,
    moved: &Moved,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let first: Vec<Rib> = flat.ribs.iter().filter(|rib| rib.operation == operation).cloned().collect();
    let count = first.len();
    let mut all = Vec::with_capacity(count);
    for (number, rib) in first.into_iter().enumerate() {
        let name = if count == 1 { own.to_string() } else { format!("{own}.{}", number + 1) };
        let centre = moved.point(rib.centre);
        let Some(from) = flat.nodes[rib.strip].strip() else { continue };
        let there = flat.bends.iter().find_map(|bend| {
            let strip = flat.strip_of(bend);
            let same = (strip.angle - from.angle).abs() < MODELLING_TOLERANCE
                && (strip.radius - from.radius).abs() < MODELLING_TOLERANCE
                && (strip.width - from.width).abs() < MODELLING_TOLERANCE
                && strip.direction == from.direction;
            let (along, across) = strip.local(centre);
            let on = (across - strip.width / 2.0).abs() < 10.0 * MODELLING_TOLERANCE
                && (0.0..=strip.length).contains(&along);
            (same && on).then_some((bend, strip))
        });
        let Some((bend, strip)) = there else {
            return Err(Finding::error(
                format!("{} would come to where there is no bend of the same angle and radius", rib.name),
                "Bend the flange there first, or check the centre line or the distance.",
            ));
        };
        // The leg that it was said on may lie on the other side there.
        let way = moved.way(from.across);
        let turned = way.dot(strip.across) < 0.0;
        let both = |of: [f64; 2]| if turned { [of[1], of[0]] } else { of };
        let sizes = RibSizes { legs: both(rib.sizes.legs), ..rib.sizes };
        let bend_name = bend.name.clone();
        let (strip, legs) = (bend.strip, both(rib.legs));
        all.push(Rib { name, operation: own.to_string(), bend: bend_name, strip, centre, sizes, legs, ..rib });
    }
    rib::put(flat, all, unit)?;
    Ok(Vec::new())
}

/// The edge that work along an edge comes to, with its set-ins there: the same edge where it only moves along it.
pub(super) fn edge_and_set_in_there(
    flat: &Flat,
    edge: &str,
    set_in: &BTreeMap<String, f64>,
    moved: &Moved,
) -> Result<(String, BTreeMap<String, f64>), Finding> {
    if along_itself(flat, edge, moved).is_some() {
        return Ok((edge.to_string(), moved_along(flat, edge, set_in, moved)));
    }
    let (there, sides) = edge_there(flat, edge, moved)?;
    Ok((there, turned_sides(set_in, &sides)))
}
