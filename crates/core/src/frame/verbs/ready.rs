//! Ready frames from their numbers: bare centre lines, or members with their joints settled.

use std::collections::BTreeMap;
use std::sync::Arc as Shared;

use crate::finding::Finding;
use crate::frame::fields::{Fields, PlaceNumbers};
use crate::frame::joint::JointNumbers;
use crate::frame::layout::{Group, Layout, ReadyJointed};
use crate::frame::outside::reach;
use crate::frame::own_sections::section_called;
use crate::frame::ready::{is_count, lines, part_of, sizes_of, to_outside};
use crate::frame::skeleton::CentreLine;
use crate::quantity::MemberName;
use crate::section::Section;
use crate::space::Motion;
use crate::stock::Material;
use crate::work::Action;
use crate::work::frame::{MemberAction, ReadyAction, ReadyJoints, SizesTo};

use super::offers;
use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const READY: FrameVerb = FrameVerb::layout("ready", read).offering(offers::ready);

#[derive(Debug)]
struct ReadyNumbers {
    at: PlaceNumbers,
    lines: Vec<CentreLine>,
    /// The section with its material, and how it is jointed; `None` for bare lines.
    members: Option<(Shared<Section>, &'static Material, ReadyJoints)>,
}

fn read(fields: &mut Fields<'_>, action: &Action, given: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Ready(ready) = action else { return None };
    let at = fields.place("at", &ready.at);
    let (needed, possible) = sizes_of(ready.kind);
    let mut sizes = Some(BTreeMap::new());
    for (size, text) in &ready.sizes {
        let field = format!("sizes.{size}");
        let value = if !needed.contains(&size.as_str()) && !possible.contains(&size.as_str()) {
            let unknown = Finding::error(
                format!("it has no size called {size}"),
                format!("Its sizes are {}.", [needed, possible].concat().join(", ")),
            );
            fields.take(Err(unknown.at_field(field)))
        } else if is_count(size) {
            fields.count(&field, text, size, 200).map(|count| count as f64)
        } else {
            fields.length(&field, text, size)
        };
        match (value, &mut sizes) {
            (Some(value), Some(sizes)) => {
                sizes.insert(size.clone(), value);
            }
            _ => sizes = None,
        }
    }
    let section = match &ready.section {
        None => None,
        Some(name) => {
            let found = section_called(given.sections, name);
            let found = found.map_err(|fault| Finding::error(fault.message, fault.way_out).at_field("section"));
            Some(Shared::new(fields.take(found)?))
        }
    };
    let mut sizes = sizes?;
    let lines = match (ready.sizes_to, &section) {
        (SizesTo::Lines, _) => fields.take(lines(ready.kind, ready.lies, &sizes))?,
        (SizesTo::Outside, Some(section)) => fields.take(outside(ready, &mut sizes, section))?,
        (SizesTo::Outside, None) => {
            let none = Finding::error(
                "its sizes are told to the outside, and no section says how wide its members are",
                "Name a section, or tell its sizes to the centre lines.",
            );
            fields.take(Err(none.at_field("sizes_to")))?
        }
    };
    let members = section.map(|section| (section, given.material, ready.joints));
    Some(Box::new(ReadyNumbers { at: at?, lines, members }))
}

/// The lines of a frame whose outside has these sizes: how far its members reach beyond their lines does not hang on the sizes, so it
/// is taken off, and the lines are moved so that the outside begins where the lines would.
fn outside(
    ready: &ReadyAction,
    sizes: &mut BTreeMap<String, f64>,
    section: &Section,
) -> Result<Vec<CentreLine>, Finding> {
    let over = reach(&lines(ready.kind, ready.lies, sizes)?, section);
    to_outside(ready.kind, ready.lies, sizes, &over)?;
    let shift = Motion::shift(over.before);
    Ok(lines(ready.kind, ready.lies, sizes)?.into_iter().map(|line| line.moved(&shift)).collect())
}

impl LaysOut for ReadyNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let shift = Motion::shift(self.at.on(&layout.skeleton)?.from_origin());
        let moved = |line: CentreLine| {
            // Up is settled again where it lies: a standing frame's lines are not those of a flat one.
            CentreLine::straight(format!("{name}.{}", line.name), line.from, line.to).moved(&shift)
        };
        let lines: Vec<CentreLine> = self.lines.into_iter().map(moved).collect();
        let places = lines.iter().flat_map(|line| [line.from, line.to]).collect();
        let names: Vec<String> = lines.iter().map(|line| line.name.clone()).collect();
        layout.lay(name, lines)?;
        let Some((section, material, joints)) = self.members else { return Ok(()) };
        let mut rings: Vec<MemberName> = Vec::new();
        let mut legs: Vec<MemberName> = Vec::new();
        let mut groups: Vec<(&'static str, usize)> = Vec::new();
        for line in &names {
            let own = line.strip_prefix(name).and_then(|rest| rest.strip_prefix('.')).unwrap_or(line);
            let part = part_of(own);
            match part.stands {
                true => legs.push(line.as_str().into()),
                false => rings.push(line.as_str().into()),
            }
            let at = match groups.iter().find(|(mark, _)| *mark == part.mark) {
                Some(&(_, at)) => at,
                None => {
                    let at = layout.groups.len();
                    layout.groups.push(group(name, &section, material, part.mark));
                    groups.push((part.mark, at));
                    at
                }
            };
            layout.assigned.insert(line.clone(), at);
        }
        // What is butted runs through in this order.
        let butt = |through| JointNumbers::Butt { through, gap: 0.0, to_node: false };
        let corners = match joints {
            ReadyJoints::Open => return Ok(()),
            ReadyJoints::MitredRing if legs.is_empty() => JointNumbers::Mitre { between: Vec::new(), gap: 0.0 },
            ReadyJoints::MitredRing if rings.is_empty() => butt(legs),
            ReadyJoints::MitredRing => JointNumbers::Mitre { between: rings, gap: 0.0 },
            ReadyJoints::LegsThrough => butt(if legs.is_empty() { rings } else { legs }),
        };
        layout.ready.push(ReadyJointed { name: name.to_string(), places, corners });
        Ok(())
    }
}

/// The members of one part of a ready frame: a group with a mark of its own.
fn group(name: &str, section: &Shared<Section>, material: &'static Material, mark: &str) -> Group {
    let action = MemberAction { section: section.name.clone(), mark: Some(mark.into()), ..MemberAction::default() };
    let section = section.clone();
    Group { name: name.to_string(), action, section, material, roll: 0.0, across: 0.0, up: 0.0, grip: 0.0 }
}
