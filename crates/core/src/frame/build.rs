//! From the work to the frame: laid out, members with their ends cut, plates.

use std::collections::{BTreeMap, HashSet};

use crate::finding::Finding;
use crate::patience;
use crate::quantity::{LengthUnit, Names};
use crate::section::Section;
use crate::sheet::ResolvedValue;
use crate::stock::Material;
use crate::work::Operation;
use crate::work::frame::UsualJoints;

use super::fields::Fields;
use super::joint;
use super::layout::Layout;
use super::member::Member;
use super::members::members;
use super::model::Frame;
use super::names::matches;
use super::pass::run_through_bores;
use super::plain::keep_bodies;
use super::reader::Reader;
use super::settle::{joints, passes};
use super::verbs::{Given, Site, Step, frame_verb};

/// What a frame is built from.
pub struct FrameInput<'a> {
    /// The work, only what is to be made.
    pub operations: Vec<&'a Operation>,
    /// Names that may be cited.
    pub names: &'a Names,
    /// Material of members that name none.
    pub material: &'static Material,
    /// Sections of the shop's own that the piece keeps.
    pub sections: Vec<Section>,
    /// What messages speak in.
    pub unit: LengthUnit,
    /// How members meet where no step says so.
    pub usual_joints: Option<UsualJoints>,
}

/// A frame with what each field came to and what went wrong.
#[derive(Clone, Debug, Default)]
pub struct FrameBuilt {
    /// The frame.
    pub frame: Frame,
    /// What each field came to, by operation.
    pub values: BTreeMap<String, Vec<ResolvedValue>>,
    /// What is wrong.
    pub findings: Vec<Finding>,
}

/// Builds a frame. Never fails: what is wrong is in `findings` and the good work stands.
pub fn build_frame(input: &FrameInput<'_>) -> FrameBuilt {
    let mut built = FrameBuilt::default();
    let mut layout = Layout { usual: input.usual_joints, ..Layout::default() };
    for operation in &input.operations {
        if let Some(does) = frame_verb(&operation.action).and_then(|verb| verb.not_copied) {
            layout.not_copied.insert(operation.name.clone(), does);
        }
    }
    let given = Given { material: input.material, sections: &input.sections };
    for operation in &input.operations {
        patience::check();
        let mut fields = Fields::new(input.names);
        let read = match frame_verb(&operation.action).map(|verb| &verb.step) {
            Some(Step::Layout(read)) => read(&mut fields, &operation.action, &given),
            // Once every member is there.
            Some(Step::Members(_)) => continue,
            None => fields.take(Err(Finding::error(
                format!("{} is work of sheet or plate, and this is a frame", operation.name),
                "Put a plate on the frame and do this work on it.",
            ))),
        };
        let faulty = built.read(operation, fields);
        if let (Some(numbers), false) = (read, faulty)
            && let Err(finding) = numbers.lay_out(&mut layout, &operation.name)
        {
            built.findings.push(finding.of_operation(&operation.name));
        }
    }
    finish(input, layout, &mut built);
    built
}

impl FrameBuilt {
    /// Keeps what an operation's fields came to and what is wrong with them; whether anything is.
    fn read(&mut self, operation: &Operation, fields: Fields<'_>) -> bool {
        let (values, faults) = fields.done();
        let faulty = !faults.is_empty();
        self.values.entry(operation.name.clone()).or_default().extend(values);
        self.findings.extend(faults.into_iter().map(|fault| fault.of_operation(&operation.name)));
        faulty
    }
}

fn finish(input: &FrameInput<'_>, mut layout: Layout, built: &mut FrameBuilt) {
    let mut frame = Frame { members: members(&layout, &mut built.findings), ..Frame::default() };
    frame.meetings = joint::meetings(&frame.members);
    joints(&layout, &mut frame, &mut built.findings);
    frame.members.iter_mut().for_each(Member::tidy_ends);
    let mut plates = Vec::new();
    for operation in &input.operations {
        let Some(Step::Members(read)) = frame_verb(&operation.action).map(|verb| &verb.step) else { continue };
        let mut fields = Fields::new(input.names);
        let numbers = read(&mut fields, &operation.action);
        let faulty = built.read(operation, fields);
        let (Some(numbers), false) = (numbers, faulty) else { continue };
        let mut site = Site {
            frame: &mut frame,
            plates: &mut plates,
            reader: Reader::new(input.names),
            names: input.names,
            material: input.material,
            unit: input.unit,
        };
        let result = numbers.work(&mut site, &operation.name);
        built.values.entry(operation.name.clone()).or_default().extend(site.reader.found);
        if let Err(finding) = result {
            built.findings.push(finding.of_operation(&operation.name));
        }
    }
    passes(&layout, &mut frame, &mut built.findings);
    run_through_bores(&mut frame);
    tell_uncopied(input, &layout, built);
    frame.members.iter_mut().for_each(Member::tidy_ends);
    frame.members.iter_mut().for_each(keep_bodies);
    frame.plates = plates;
    frame.unit = input.unit;
    frame.skeleton = std::mem::take(&mut layout.skeleton);
    built.frame = frame;
}

/// Tells of work on members that were copied and that the copies do not have.
fn tell_uncopied(input: &FrameInput<'_>, layout: &Layout, built: &mut FrameBuilt) {
    let copied: HashSet<&str> = layout.copied.iter().map(|(_, source)| source.as_str()).collect();
    if copied.is_empty() {
        return;
    }
    for operation in &input.operations {
        patience::check();
        let Some((of, what)) = frame_verb(&operation.action).and_then(|verb| (verb.of)(&operation.action)) else {
            continue;
        };
        let named = |name: &str| {
            let group = layout.group_of(name).map(|group| group.name.as_str());
            of.iter().any(|of| matches(of, name) || group == Some(of.as_str()))
        };
        let left: Vec<&str> = layout
            .copied
            .iter()
            .filter(|(copy, source)| named(source) && !named(copy))
            .map(|(copy, _)| copy.as_str())
            .collect();
        if let Some(first) = left.first() {
            let more = if left.len() > 1 { format!(" and {} more", left.len() - 1) } else { String::new() };
            built.findings.push(
                Finding::hint(
                    format!("{first}{more} was copied and has not the {what} of {}", operation.name),
                    format!("Name it in {} as well where it should have it.", operation.name),
                )
                .of_operation(&operation.name),
            );
        }
    }
}
