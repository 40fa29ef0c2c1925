//! Sections on lines.

use std::sync::Arc as Shared;

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::layout::{Group, Layout};
use crate::frame::model::material_named;
use crate::frame::names::matches;
use crate::frame::own_sections::section_called;
use crate::frame::plate::shape_outline;
use crate::section::own_section;
use crate::work::Action;

use super::offers;
use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const MEMBER: FrameVerb = FrameVerb::layout("member", read).offering(offers::member);

fn read(fields: &mut Fields<'_>, action: &Action, given: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Member(action) = action else { return None };
    let section = match &action.outline {
        Some(shape) => {
            let laid = shape_outline(shape, fields.names());
            fields.take(laid).map(|laid| own_section(&action.section, &laid.0, &laid.1))
        }
        None => {
            let found = section_called(given.sections, &action.section);
            fields.take(found.map_err(|fault| Finding::error(fault.message, fault.way_out).at_field("section")))
        }
    };
    let material = fields.take(material_named(action.material.as_ref(), given.material));
    let roll = fields.maybe_angle("roll", action.roll.as_ref(), "a roll");
    let across = fields.maybe("across", action.across.as_ref(), "an offset across");
    let up = fields.maybe("up", action.up.as_ref(), "an offset up");
    let grip = fields.maybe("grip", action.grip.as_ref(), "a grip allowance");
    Some(Box::new(Group {
        name: String::new(),
        action: action.clone(),
        section: Shared::new(section?),
        material: material?,
        roll: roll?,
        across: across?,
        up: up?,
        grip: grip?,
    }))
}

impl LaysOut for Group {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        // Nothing is taken until all is found: a step that fails leaves every line as it was.
        let mut taken: Vec<String> = Vec::new();
        for (pattern_at, pattern) in self.action.lines.iter().enumerate() {
            let field = format!("lines.{pattern_at}");
            let mut any = false;
            for line in layout.skeleton.lines.iter().filter(|line| matches(pattern, &line.name)) {
                any = true;
                if let Some(other) = layout.group_of(&line.name) {
                    return Err(Finding::error(
                        format!("{} has the section of {} already", line.name, other.name),
                        "Leave the line out of one of the two.",
                    )
                    .at_field(field));
                }
                // Named twice here, it has its section once.
                if !taken.contains(&line.name) {
                    taken.push(line.name.clone());
                }
            }
            if !any {
                return Err(layout.no_line(pattern, &field));
            }
        }
        if taken.is_empty() {
            return Err(Finding::error("it names no lines", "Name the lines that get this section.").at_field("lines"));
        }
        let own = layout.groups.len();
        layout.assigned.extend(taken.into_iter().map(|line| (line, own)));
        layout.groups.push(Group { name: name.to_string(), ..*self });
        Ok(())
    }
}
