//! Runs operations in order: the good ones make the part, the bad ones are reported and leave it as it was.

use crate::finding::Finding;
use crate::plane::{Outline, Point, Region, Segment};
use crate::quantity::LengthUnit;

use super::flat::{EdgeRecord, Flat, Node, NodeKind, TagKind};
use super::read::OperationNumbers;
use super::stitch::{Blank, stitch};
use super::tree::{Tree, grow};
use super::{flange, hole};

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
pub fn build(operations: &[(String, OperationNumbers)], thickness: f64, unit: LengthUnit) -> Built {
    let mut flat = Flat::new(thickness);
    let mut findings = Vec::new();
    for (name, numbers) in operations {
        // Work on a copy: a bad operation must leave nothing half done.
        let mut trial = flat.clone();
        match apply(&mut trial, name, numbers, unit) {
            Ok(notes) => {
                flat = trial;
                findings.extend(notes.into_iter().map(|note| note.of_operation(name)));
            }
            Err(fault) => findings.push(fault.of_operation(name)),
        }
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

fn apply(flat: &mut Flat, name: &str, numbers: &OperationNumbers, unit: LengthUnit) -> Result<Vec<Finding>, Finding> {
    let taken = flat.panel(name).is_some() || flat.holes.iter().any(|hole| hole.operation == name);
    if taken {
        return Err(Finding::error(format!("{name} is made twice"), "Give this operation a name of its own."));
    }
    match numbers {
        OperationNumbers::Rectangle(width, depth) => {
            lay_rectangle(flat, name, *width, *depth)?;
            Ok(Vec::new())
        }
        OperationNumbers::Bend(bend) => flange::bend(flat, name, bend, unit),
        OperationNumbers::Holes(holes) => {
            hole::cut(flat, name, holes, unit)?;
            Ok(Vec::new())
        }
    }
}

fn lay_rectangle(flat: &mut Flat, name: &str, width: f64, depth: f64) -> Result<(), Finding> {
    if let Some(first) = flat.nodes.first() {
        return Err(Finding::error(
            format!("{} is already laid down; a piece has one base panel", first.name),
            "Take this operation out, or bend a flange from the base instead.",
        ));
    }
    let corners = [Point::new(0.0, 0.0), Point::new(width, 0.0), Point::new(width, depth), Point::new(0.0, depth)];
    let edges = [
        ("front", ["left", "right"]),
        ("right", ["front", "back"]),
        ("back", ["right", "left"]),
        ("left", ["back", "front"]),
    ];
    let mut outline = Vec::new();
    for (at, (edge, sides)) in edges.iter().enumerate() {
        let full = format!("{name}.{edge}");
        let tag = flat.tag(full.clone(), TagKind::Edge);
        outline.push((corners[at], tag));
        flat.edges.push(EdgeRecord {
            name: full,
            tag,
            panel: 0,
            line: Segment::line(corners[at], corners[(at + 1) % 4]),
            sides: sides.map(str::to_string),
            bends: Vec::new(),
        });
    }
    let region = Region::solid(Outline::polygon(&outline));
    let laid = region.extents();
    flat.nodes.push(Node { name: name.to_string(), kind: NodeKind::Panel, region, laid });
    Ok(())
}
