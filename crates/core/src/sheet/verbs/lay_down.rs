//! Laying down the base panel.

use std::sync::Arc;

use std::collections::HashMap;

use crate::finding::Finding;
use crate::patience;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Region, Segment, Tag};
use crate::quantity::LengthUnit;
use crate::sheet::flat::{EdgeRecord, Flat, Node, NodeKind, TagKind};
use crate::sheet::hole;
use crate::sheet::reader::Reader;
use crate::sheet::shape::{Laid, read_shape};
use crate::work::Action;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork, check_first};

pub(super) const LAY_DOWN: SheetVerb = SheetVerb::new("lay_down", read).offering(offers::lay_down);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::LayDown(lay) = action else { return None };
    let laid = read_shape(reader, "shape", &lay.shape)?;
    Some(Arc::new(match lay.by {
        Some(by) => laid.placed(by, Point::default()),
        None => laid,
    }))
}

impl SheetWork for Laid {
    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        lay_down(flat, name, self, around.unit).map(|()| Vec::new())
    }

    fn laid(&self) -> Option<&Laid> {
        Some(self)
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
    flat.nodes.push(Node {
        name: name.to_string(),
        kind: NodeKind::Panel,
        region: Arc::new(region),
        laid: box_,
        is_shell: false,
    });
    for (hole, outline) in &laid.holes {
        patience::check();
        let made = hole::NewHole {
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
