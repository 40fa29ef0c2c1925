//! Runs operations in order: the good ones make the part, the bad ones are reported and leave it as it was.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::patience;
use crate::plane::{MODELLING_TOLERANCE, Outline, Region, Segment, Tag};
use crate::quantity::LengthUnit;

use super::flat::{EdgeRecord, Flat, Node, NodeKind, TagKind};
use super::read::OperationNumbers;
use super::shape::Laid;
use super::stitch::{Blank, stitch};
use super::tree::{Tree, grow};
use super::{again, chain, corner, crease, flange, hem, hole, joggle, slice};

/// What operations made.
#[derive(Clone, Debug, Default)]
pub struct Built {
    /// Panels, strips and their names, in the flat.
    pub flat: Flat,
    /// How it folds; `None` while there is no panel.
    pub tree: Option<Tree>,
    /// The blank; `None` while there is none or it does not close.
    pub blank: Option<Blank>,
    /// What went wrong, by operation.
    pub findings: Vec<Finding>,
}

/// Builds a part of this thickness (mm) from operations that are already numbers. `unit` is what messages speak in.
/// `opposite_hand` turns the finished part about.
pub fn build(
    operations: &[(String, OperationNumbers)],
    thickness: f64,
    opposite_hand: bool,
    unit: LengthUnit,
) -> Built {
    let mut flat = Flat::new(thickness);
    let mut findings = Vec::new();
    for (at, (name, numbers)) in operations.iter().enumerate() {
        patience::check();
        // Work on a copy: a bad operation must leave nothing half done.
        let mut trial = flat.clone();
        match apply(&mut trial, name, numbers, &operations[..at], unit) {
            Ok(notes) => {
                flat = trial;
                findings.extend(notes.into_iter().map(|note| note.of_operation(name)));
            }
            Err(fault) => findings.push(fault.of_operation(name)),
        }
    }
    if opposite_hand {
        flat = flat.opposite_hand();
    }
    let mut built = Built { flat, findings, ..Built::default() };
    if built.flat.nodes.is_empty() {
        return built;
    }
    match grow(&built.flat.nodes) {
        Ok(tree) => built.tree = Some(tree),
        Err(fault) => built.findings.push(Finding::error(
            format!("the part does not fold: {fault}"),
            "Rest the last bend and look at where its strip meets its neighbours.",
        )),
    }
    match stitch(&built.flat.nodes) {
        Ok(blank) => built.blank = Some(blank),
        Err(fault) => built.findings.push(Finding::error(
            format!("the blank cannot be drawn: {fault}"),
            "Rest the last operation and look at what it cut.",
        )),
    }
    built
}

/// Does one operation; `before` are the numbers of those before it.
pub(super) fn apply(
    flat: &mut Flat,
    name: &str,
    numbers: &OperationNumbers,
    before: &[(String, OperationNumbers)],
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let taken = flat.nodes.iter().any(|node| node.name == name) || flat.holes.iter().any(|hole| hole.operation == name);
    if taken {
        return Err(Finding::error(format!("{name} is made twice"), "Give this operation a name of its own."));
    }
    match numbers {
        OperationNumbers::LayDown(laid) => {
            lay_down(flat, name, laid, unit)?;
            Ok(Vec::new())
        }
        OperationNumbers::Bend(bend) => flange::bend(flat, name, bend, unit),
        OperationNumbers::Holes(holes) => hole::cut(flat, name, holes, unit),
        OperationNumbers::Corner(corner) => corner::cut(flat, name, corner, unit).map(|()| Vec::new()),
        OperationNumbers::Profile(profile) => {
            check_first(flat)?;
            let chain = profile.chain(name, flat.thickness, unit)?;
            chain::lay(flat, &chain, unit).map(|()| Vec::new())
        }
        OperationNumbers::Roll(roll) => {
            check_first(flat)?;
            let chain = roll.chain(name, flat.thickness, unit)?;
            chain::lay(flat, &chain, unit).map(|()| Vec::new())
        }
        OperationNumbers::Hem(given) => hem::hem(flat, name, given, unit),
        OperationNumbers::Joggle(given) => joggle::joggle(flat, name, given, unit),
        OperationNumbers::Crease(given) => crease::crease(flat, name, given, unit).map(|()| Vec::new()),
        OperationNumbers::Notch(given) => slice::notch(flat, name, given, unit),
        OperationNumbers::Tab(given) => slice::lay_tabs(flat, name, given, unit).map(|()| Vec::new()),
        OperationNumbers::Slots(given) => slice::slots(flat, name, given, unit),
        OperationNumbers::Again(given) => again::again(flat, name, given, before, unit, apply),
    }
}

/// Refuses a second start.
fn check_first(flat: &Flat) -> Result<(), Finding> {
    match flat.nodes.first() {
        None => Ok(()),
        Some(first) => Err(Finding::error(
            format!("{} is already laid down; a piece has one base panel", first.name),
            "Take this operation out, or bend a flange from the base instead.",
        )),
    }
}

fn lay_down(flat: &mut Flat, name: &str, laid: &Laid, unit: LengthUnit) -> Result<(), Finding> {
    check_first(flat)?;
    let mut outline = laid.outer.clone();
    let short: Vec<&str> = outline.edges.iter().map(|edge| laid.name_of(edge.tag)).collect();
    let own = edge_names(&outline, &short);
    let count = own.len();
    let mut known: HashMap<String, Tag> = HashMap::new();
    let segments: Vec<Segment> = outline.segments().map(|(segment, _)| segment).collect();
    for at in 0..count {
        let full = format!("{name}.{}", own[at]);
        let tag = match known.get(&full) {
            Some(&tag) => tag,
            None => {
                let tag = flat.tag(full.clone(), TagKind::Edge);
                known.insert(full.clone(), tag);
                flat.edges.push(EdgeRecord {
                    name: full,
                    tag,
                    panel: 0,
                    line: segments[at],
                    sides: [own[(at + count - 1) % count].clone(), own[(at + 1) % count].clone()],
                    bends: Vec::new(),
                });
                tag
            }
        };
        outline.edges[at].tag = tag;
    }
    let region = Region::solid(outline);
    let box_ = region.extents();
    flat.nodes.push(Node { name: name.to_string(), kind: NodeKind::Panel, region, laid: box_ });
    for (hole, outline) in &laid.holes {
        patience::check();
        let made = hole::Made {
            name: format!("{name}.{hole}"),
            outline: outline.clone(),
            centre: outline.extents().centre(),
            work: hole::HoleWork::plain(),
            copy: None,
        };
        hole::put(flat, 0, name, vec![made], unit)?;
    }
    Ok(())
}

/// A name for each edge: the pieces of one arc share theirs, separate edges that share one are numbered.
fn edge_names(outline: &Outline, short: &[&str]) -> Vec<String> {
    let segments: Vec<Segment> = outline.segments().map(|(segment, _)| segment).collect();
    let one_arc = |a: &Segment, b: &Segment| {
        !a.is_line()
            && !b.is_line()
            && a.centre().distance(b.centre()) < MODELLING_TOLERANCE
            && (a.radius() - b.radius()).abs() < MODELLING_TOLERANCE
    };
    let mut used: HashMap<&str, usize> = HashMap::new();
    let mut names: Vec<String> = Vec::new();
    for (at, &name) in short.iter().enumerate() {
        let same = (0..at).rev().find(|&before| short[before] == name && one_arc(&segments[before], &segments[at]));
        names.push(match same {
            Some(before) => names[before].clone(),
            None => {
                let number = used.entry(name).and_modify(|count| *count += 1).or_insert(1);
                if *number == 1 { name.to_string() } else { format!("{name}-{number}") }
            }
        });
    }
    names
}
