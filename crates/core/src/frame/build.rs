//! From the work to the frame: skeleton, members with their ends cut, plates.

use std::collections::{BTreeMap, HashMap, HashSet};
use std::sync::Arc as Shared;

use crate::finding::Finding;
use crate::patience;
use crate::plane::{Outline, Point, Region, Vector};
use crate::quantity::{LengthUnit, MemberName, Names, NodeName};
use crate::section::{Section, own_section, section_named};
use crate::sheet::ResolvedValue;
use crate::space::{Motion, Point3, Vector3};
use crate::stock::Material;
use crate::work::frame::{
    Align, ArcHow, CopyHow, EndHow, JointAt, JointHow, MemberAction, NodeAction, PathLeg, PlateKind, Purpose, Way,
};
use crate::work::{Action, Operation};

use super::cut_plane::CutPlane;
use super::cutout::{Cutout, CutoutDepth, CutoutKind};
use super::end::End;
use super::end_at::{self, EndAt};
use super::joint::{self, JointNumbers};
use super::laid_plate::FramePlate;
use super::member::{Basis, Bore, Member, along};
use super::model::{Frame, ends_of, material_named, members_named, mirrored_outline, out_of};
use super::names::matches;
use super::plain::keep_bodies;
use super::plate::{PlateContext, lay_plate};
use super::reader::{Reader, node};
use super::skeleton::{Line, ONE_NODE, Skeleton, meeting, mirror};

/// What a frame is built from.
pub struct FrameInput<'a> {
    /// The work, only what is to be made.
    pub operations: Vec<&'a Operation>,
    /// Names that may be cited.
    pub names: &'a Names,
    /// Material of members that name none.
    pub material: &'static Material,
    /// What messages speak in.
    pub unit: LengthUnit,
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

/// A group's numbers.
struct Group<'a> {
    name: &'a str,
    action: &'a MemberAction,
    section: Shared<Section>,
    material: &'static Material,
    roll: f64,
    across: f64,
    up: f64,
    grip: f64,
}

/// Later work that waits until every member is there.
enum Later<'a> {
    Joint(&'a str, &'a JointAt, JointNumbers),
    End(usize),
    Other(usize),
}

struct Builder<'a> {
    input: &'a FrameInput<'a>,
    skeleton: Skeleton,
    groups: Vec<Group<'a>>,
    /// Which group each line has.
    assigned: HashMap<String, usize>,
    /// Lines that are copies, each with the line that it is a copy of.
    copied: Vec<(String, String)>,
    later: Vec<Later<'a>>,
}

/// Builds a frame. Never fails: what is wrong is in `findings` and the good work stands.
pub fn build_frame(input: &FrameInput<'_>) -> FrameBuilt {
    let mut built = FrameBuilt::default();
    let mut builder = Builder {
        input,
        skeleton: Skeleton::default(),
        groups: Vec::new(),
        assigned: HashMap::new(),
        copied: Vec::new(),
        later: Vec::new(),
    };
    for (at, operation) in input.operations.iter().enumerate() {
        patience::check();
        let mut reader = Reader::new(input.names);
        if let Err(finding) = builder.step(at, operation, &mut reader) {
            built.findings.push(finding.of_operation(&operation.name));
        }
        built.values.insert(operation.name.clone(), reader.found);
    }
    builder.finish(&mut built);
    built
}

impl<'a> Builder<'a> {
    fn step(&mut self, at: usize, operation: &'a Operation, reader: &mut Reader<'_>) -> Result<(), Finding> {
        let name = operation.name.as_str();
        match &operation.action {
            Action::Node(action) => {
                let place = match action {
                    NodeAction::At(place) => reader.place("at", place, &self.skeleton)?,
                    NodeAction::On(on) => {
                        let line = self.line(&on.line, "on.line")?.clone();
                        let distance = reader.length("on.distance", &on.distance, "a distance along the line")?;
                        on_line(&line, distance).map_err(|fault| fault.at_field("on.distance"))?
                    }
                    NodeAction::Meet(both) => {
                        let find = |names: &[NodeName; 2], field: &str| -> Result<(Point3, Point3), Finding> {
                            Ok((node(&self.skeleton, &names[0], field)?, node(&self.skeleton, &names[1], field)?))
                        };
                        let (one, two) = (find(&both.one, "meet.one")?, find(&both.two, "meet.two")?);
                        meeting(one, two).ok_or_else(|| {
                            Finding::error(
                                "these two lines do not meet: they are parallel or pass each other",
                                "Take lines that lie in one plane.",
                            )
                            .at_field("meet")
                        })?
                    }
                };
                self.skeleton.add_node(name, place);
                Ok(())
            }
            Action::Path(path) => {
                let start = reader.place("start", &path.start, &self.skeleton)?;
                let mut here = start;
                let mut lines = Vec::new();
                for (leg_at, leg) in path.legs.iter().enumerate() {
                    let field = format!("legs.{leg_at}");
                    let own = |given: &Option<String>| {
                        format!("{name}.{}", given.clone().unwrap_or_else(|| format!("{}", leg_at + 1)))
                    };
                    let line = match leg {
                        PathLeg::By(by) => {
                            let way =
                                reader.vector(&format!("{field}.by"), by.x.as_ref(), by.y.as_ref(), by.z.as_ref())?;
                            Line::straight(own(&by.name), here, here + way)
                        }
                        PathLeg::To(to) => {
                            let end = reader.place(&format!("{field}.to.place"), &to.place, &self.skeleton)?;
                            Line::straight(own(&to.name), here, end)
                        }
                        PathLeg::Arc(arc) => {
                            let end = reader.place(&format!("{field}.arc.place"), &arc.place, &self.skeleton)?;
                            match &arc.how {
                                ArcHow::Through(place) => {
                                    let past =
                                        reader.place(&format!("{field}.arc.how.through"), place, &self.skeleton)?;
                                    Line::through(own(&arc.name), here, past, end)
                                }
                                ArcHow::Radius(by) => {
                                    let field = format!("{field}.arc.how.radius.radius");
                                    let radius = reader.size(&field, &by.radius, "a radius")?;
                                    arc_of(own(&arc.name), here, end, radius, by.toward)
                                        .map_err(|fault| fault.at_field(field))?
                                }
                            }
                        }
                    };
                    here = line.to;
                    lines.push(line);
                }
                if path.close && here.distance(start) > ONE_NODE {
                    lines.push(Line::straight(format!("{name}.close"), here, start));
                }
                if lines.is_empty() {
                    return Err(Finding::error("a path needs a line", "Say where the next node is."));
                }
                let mut seen = HashSet::new();
                if let Some(twin) = lines.iter().find(|line| !seen.insert(line.name.clone())) {
                    return Err(Finding::error(
                        format!("two lines of it are called {}", twin.name),
                        "Give each a name of its own.",
                    ));
                }
                self.lay(name, lines)
            }
            Action::Divide(divide) => {
                let line = self.line(&divide.line, "line")?.clone();
                let mut places = Vec::new();
                if let Some(text) = &divide.into {
                    let count = reader.count("into", text, "a number of parts", 1000)?;
                    places.extend((1..count).map(|part| line.at(line.length() * part as f64 / count as f64)));
                }
                for (place_at, text) in divide.at.iter().enumerate() {
                    let field = format!("at.{place_at}");
                    let distance = reader.length(&field, text, "a distance along the line")?;
                    places.push(on_line(&line, distance).map_err(|fault| fault.at_field(field))?);
                }
                if places.is_empty() {
                    return Err(Finding::error(
                        "this divides the line nowhere",
                        "Say into how many parts, 2 or more, or give distances.",
                    ));
                }
                for (number, place) in places.into_iter().enumerate() {
                    self.skeleton.add_node(format!("{name}.{}", number + 1), place);
                }
                Ok(())
            }
            Action::Round(round) => {
                let place = node(&self.skeleton, &round.node, "node")?;
                let radius = reader.size("radius", &round.radius, "a radius")?;
                self.round(name, place, radius)
            }
            Action::Lines(given) => {
                let scale = given.unit.millimetres();
                let mut lines = Vec::new();
                for (line_at, text) in given.lines.iter().enumerate() {
                    let field = format!("lines.{line_at}");
                    let places = super::import::places(text, scale).map_err(|fault| fault.at_field(&field))?;
                    let own = format!("{name}.{}", line_at + 1);
                    lines.push(match places.as_slice() {
                        [from, to] => Line::straight(own, *from, *to),
                        [from, past, to] => Line::through(own, *from, *past, *to),
                        _ => {
                            return Err(Finding::error(
                                format!("\"{text}\" has {} places; a line has 2 and an arc 3", places.len()),
                                "Write it as x y z, x y z.",
                            )
                            .at_field(field));
                        }
                    });
                }
                self.lay(name, lines)
            }
            Action::Ready(ready) => {
                let at = reader.place("at", &ready.at, &self.skeleton)?;
                let (needed, possible) = super::ready::sizes_of(ready.kind);
                let mut sizes = BTreeMap::new();
                for (size, text) in &ready.sizes {
                    let field = format!("sizes.{size}");
                    if !needed.contains(&size.as_str()) && !possible.contains(&size.as_str()) {
                        return Err(Finding::error(
                            format!("it has no size called {size}"),
                            format!("Its sizes are {}.", [needed, possible].concat().join(", ")),
                        )
                        .at_field(field));
                    }
                    let value = if super::ready::is_count(size) {
                        reader.count(&field, text, size, 200)? as f64
                    } else {
                        reader.length(&field, text, size)?
                    };
                    sizes.insert(size.clone(), value);
                }
                let shift = Motion::shift(at.from_origin());
                let lines = super::ready::lines(ready.kind, ready.lies, &sizes)?;
                let lines = lines
                    .into_iter()
                    .map(|line| {
                        // Up is settled again where it lies: a standing frame's lines are not those of a flat one.
                        let moved = Line::straight(format!("{name}.{}", line.name), line.from, line.to);
                        moved.moved(&shift)
                    })
                    .collect();
                self.lay(name, lines)
            }
            Action::Copy(copy) => self.copy(name, copy, reader),
            Action::Member(action) => {
                let section = match &action.outline {
                    Some(shape) => {
                        let laid = super::plate::shape_outline(shape, reader.names)?;
                        own_section(&action.section, &laid.0, &laid.1)
                    }
                    None => section_named(&action.section)
                        .map_err(|fault| Finding::error(fault.message, fault.way_out).at_field("section"))?,
                };
                let material = material_named(action.material.as_ref(), self.input.material)?;
                let group = Group {
                    name,
                    action,
                    section: Shared::new(section),
                    material,
                    roll: action.roll.as_ref().map_or(Ok(0.0), |text| reader.angle("roll", text, "a roll"))?,
                    across: reader.maybe("across", action.across.as_ref(), "an offset across")?,
                    up: reader.maybe("up", action.up.as_ref(), "an offset up")?,
                    grip: reader.maybe("grip", action.grip.as_ref(), "a grip allowance")?,
                };
                // Nothing is taken until all is found: a step that fails leaves every line as it was.
                let mut taken: Vec<String> = Vec::new();
                for (pattern_at, pattern) in action.lines.iter().enumerate() {
                    let field = format!("lines.{pattern_at}");
                    let mut any = false;
                    for line in self.skeleton.lines.iter().filter(|line| matches(pattern, &line.name)) {
                        any = true;
                        if let Some(other) = self.assigned.get(&line.name).and_then(|&at| self.groups.get(at)) {
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
                        return Err(self.no_line(pattern, &field));
                    }
                }
                if taken.is_empty() {
                    return Err(
                        Finding::error("it names no lines", "Name the lines that get this section.").at_field("lines")
                    );
                }
                let own = self.groups.len();
                self.assigned.extend(taken.into_iter().map(|line| (line, own)));
                self.groups.push(group);
                Ok(())
            }
            Action::Joint(joint) => {
                let how = match &joint.how {
                    JointHow::Mitre(by) => JointNumbers::Mitre {
                        between: by.between.clone(),
                        gap: reader.maybe("how.mitre.gap", by.gap.as_ref(), "a gap")?,
                    },
                    JointHow::Butt(by) => JointNumbers::Butt {
                        through: by.through.clone(),
                        gap: reader.maybe("how.butt.gap", by.gap.as_ref(), "a gap")?,
                        to_node: by.to_node,
                    },
                    JointHow::Trim(by) => {
                        JointNumbers::Trim { gap: reader.maybe("how.trim.gap", by.gap.as_ref(), "a gap")? }
                    }
                    JointHow::Cope(by) => {
                        JointNumbers::Cope { gap: reader.maybe("how.cope.gap", by.gap.as_ref(), "a gap")? }
                    }
                    JointHow::Pass(by) => {
                        let JointAt::Nodes(_) = &joint.at else {
                            return Err(Finding::error(
                                "a member passes through another at nodes that are named, and nowhere else",
                                "Name a node where the two cross.",
                            )
                            .at_field("at"));
                        };
                        JointNumbers::Pass { gap: reader.maybe("how.pass.gap", by.gap.as_ref(), "a gap")? }
                    }
                };
                if let JointAt::Nodes(names) = &joint.at {
                    for (name_at, name) in names.iter().enumerate() {
                        node(&self.skeleton, name, &format!("at.nodes.{name_at}"))?;
                    }
                }
                self.later.push(Later::Joint(name, &joint.at, how));
                Ok(())
            }
            Action::End(_) => {
                self.later.push(Later::End(at));
                Ok(())
            }
            Action::Bore(_) | Action::EndNotch(_) | Action::Plate(_) => {
                self.later.push(Later::Other(at));
                Ok(())
            }
            _ => Err(Finding::error(
                format!("{name} is work of sheet or plate, and this is a frame"),
                "Put a plate on the frame and do this work on it.",
            )),
        }
    }

    fn line(&self, name: &str, field: &str) -> Result<&Line, Finding> {
        self.skeleton.line(name).ok_or_else(|| self.no_line(name, field))
    }

    fn no_line(&self, name: &str, field: &str) -> Finding {
        let known: Vec<&str> = self.skeleton.lines.iter().map(|line| line.name.as_str()).take(12).collect();
        let way_out = if known.is_empty() {
            "There are no lines before this step: lay some first.".to_string()
        } else {
            format!("Lines before this step are {}.", known.join(", "))
        };
        Finding::error(format!("there is no line called {name}"), way_out).at_field(field)
    }

    fn lay(&mut self, operation: &str, lines: Vec<Line>) -> Result<(), Finding> {
        let mut number = 0;
        for line in lines {
            patience::check();
            for place in [line.from, line.to] {
                if self.skeleton.named(place).is_none() {
                    number += 1;
                    self.skeleton.add_node(format!("{operation}.n{number}"), place);
                }
            }
            self.skeleton.add_line(line)?;
        }
        Ok(())
    }

    /// A tangent arc at a node: both lines are shortened to it.
    fn round(&mut self, name: &str, place: Point3, radius: f64) -> Result<(), Finding> {
        let ends: Vec<(usize, bool)> = self
            .skeleton
            .lines
            .iter()
            .enumerate()
            .filter(|(_, line)| line.arc.is_none())
            .flat_map(|(at, line)| {
                [(at, false, line.from), (at, true, line.to)]
                    .into_iter()
                    .filter(|(.., end)| end.distance(place) < ONE_NODE)
                    .map(|(at, finish, _)| (at, finish))
                    .collect::<Vec<_>>()
            })
            .collect();
        let [one, two] = ends.as_slice() else {
            return Err(Finding::error(
                format!("{} straight lines end in this node; a round needs two", ends.len()),
                "Name a node where two straight lines end.",
            )
            .at_field("node"));
        };
        let way = |&(at, finish): &(usize, bool)| {
            let line = &self.skeleton.lines[at];
            if finish { (line.from - line.to).unit() } else { (line.to - line.from).unit() }
        };
        let (a, b) = (way(one), way(two));
        let between = a.angle_to(b);
        if !(0.01..=3.13).contains(&between) {
            return Err(Finding::error(
                "these lines run straight on or back on each other",
                "There is no corner to round.",
            )
            .at_field("node"));
        }
        let back = radius / (between / 2.0).tan();
        let shorter =
            [one, two].map(|&(at, _)| self.skeleton.lines[at].length()).into_iter().fold(f64::INFINITY, f64::min);
        if back > shorter + 1e-9 {
            return Err(Finding::error(
                format!(
                    "a radius of {radius:.3} mm needs {back:.3} mm of each line, and the shorter has {shorter:.3} mm"
                ),
                "Take a smaller radius or longer lines.",
            )
            .at_field("radius"));
        }
        let (from, to) = (place + a * back, place + b * back);
        let middle = place + (a + b).unit() * (radius / (between / 2.0).sin() - radius);
        let arc = Line::through(format!("{name}.arc"), from, middle, to);
        for (&(at, finish), end) in [one, two].into_iter().zip([from, to]) {
            let line = &mut self.skeleton.lines[at];
            if finish {
                line.to = end;
            } else {
                line.from = end;
            }
        }
        self.skeleton.lines.retain(|line| line.length() > 0.01);
        self.lay(name, vec![arc])
    }

    fn copy(
        &mut self,
        name: &str,
        copy: &crate::work::frame::CopyAction,
        reader: &mut Reader<'_>,
    ) -> Result<(), Finding> {
        let sources: Vec<Line> = self
            .skeleton
            .lines
            .iter()
            .filter(|line| {
                copy.of.is_empty()
                    || copy.of.iter().any(|of| {
                        let group = self.assigned.get(&line.name).and_then(|&group| self.groups.get(group));
                        matches(of, &line.name) || group.is_some_and(|group| *of == group.name)
                    })
            })
            .cloned()
            .collect();
        if sources.is_empty() {
            return Err(
                Finding::error("there are no lines to make again", "Lay lines before this step.").at_field("of")
            );
        }
        self.check_copied(copy)?;
        let mut made: Vec<(Line, String)> = Vec::new();
        let own = |line: &Line, turn: usize, many: bool| {
            let rest = line.name.replace('.', "-");
            if many { format!("{name}.{turn}-{rest}") } else { format!("{name}.{rest}") }
        };
        let mut seam = None;
        match &copy.how {
            CopyHow::Mirror(plane) => {
                let at = reader.maybe("how.mirror.at", plane.at.as_ref(), "a place of the plane")?;
                let normal = plane.axis.unit();
                let point = Point3::default() + normal * at;
                seam = Some((point, normal));
                for line in &sources {
                    made.push((Line { name: own(line, 1, false), ..line.mirrored(point, normal) }, line.name.clone()));
                }
            }
            CopyHow::Shift(shift) => {
                let by = reader.vector("how.shift", shift.x.as_ref(), shift.y.as_ref(), shift.z.as_ref())?;
                let count = reader.count("how.shift.count", &shift.count, "a number of copies", 500)?;
                if by.length() < ONE_NODE {
                    return Err(Finding::error(
                        "copies at no distance lie on each other",
                        "Say how far apart they are.",
                    )
                    .at_field("how.shift"));
                }
                for turn in 1..=count {
                    let motion = Motion::shift(by * turn as f64);
                    for line in &sources {
                        made.push((
                            Line { name: own(line, turn, count > 1), ..line.moved(&motion) },
                            line.name.clone(),
                        ));
                    }
                }
            }
            CopyHow::Turn(turn_by) => {
                let about = reader.place("how.turn.about", &turn_by.about, &self.skeleton)?;
                let angle = reader.angle("how.turn.angle", &turn_by.angle, "an angle between copies")?;
                let count = reader.count("how.turn.count", &turn_by.count, "a number of copies", 500)?;
                for turn in 1..=count {
                    let motion = Motion::turn(about, turn_by.axis.unit(), angle * turn as f64);
                    for line in &sources {
                        made.push((
                            Line { name: own(line, turn, count > 1), ..line.moved(&motion) },
                            line.name.clone(),
                        ));
                    }
                }
            }
        }
        let same = |one: &Line, two: &Line| {
            let ends = (one.from.distance(two.from) < ONE_NODE && one.to.distance(two.to) < ONE_NODE)
                || (one.from.distance(two.to) < ONE_NODE && one.to.distance(two.from) < ONE_NODE);
            ends && one.at(one.length() / 2.0).distance(two.at(two.length() / 2.0)) < ONE_NODE
        };
        // What lies in the mirror plane or runs square through it would come to lie on itself.
        made.retain(|(line, _)| !self.skeleton.lines.iter().any(|known| same(known, line)));
        for (line, source) in made {
            patience::check();
            self.copied.push((line.name.clone(), source.clone()));
            if let Some(&group) = self.assigned.get(&source) {
                self.assigned.insert(line.name.clone(), group);
            }
            self.lay(name, vec![line])?;
        }
        if let Some((point, normal)) = seam {
            self.skeleton.join_across(point, normal);
        }
        // Nodes of the sources have partners, so that they can be cited.
        if let CopyHow::Mirror(_) = copy.how
            && let Some((point, normal)) = seam
        {
            let partners: Vec<(String, Point3)> = self
                .skeleton
                .nodes
                .iter()
                .filter(|node| !node.name.starts_with(&format!("{name}.")))
                .map(|node| (format!("{name}.{}", node.name.replace('.', "-")), mirror(node.place, point, normal)))
                .collect();
            for (own, place) in partners {
                if self.skeleton.node(&own).is_none()
                    && self.skeleton.lines.iter().any(|line| line.distance_of(place).is_some())
                {
                    self.skeleton.add_node(own, place);
                }
            }
        }
        Ok(())
    }

    /// Refuses to copy by name what a copy does not make again: it makes lines and the members on them.
    fn check_copied(&self, copy: &crate::work::frame::CopyAction) -> Result<(), Finding> {
        for (at, of) in copy.of.iter().enumerate() {
            let operation = self.input.operations.iter().find(|operation| operation.name == *of);
            let what = match operation.map(|operation| &operation.action) {
                Some(Action::End(_)) => "cuts ends",
                Some(Action::Bore(_)) => "bores holes",
                Some(Action::EndNotch(_)) => "notches ends",
                Some(Action::Plate(_)) => "lays plates",
                Some(Action::Joint(_)) => "settles joints",
                _ => continue,
            };
            return Err(Finding::error(
                format!("{of} {what}, and a copy makes lines and their members again, nothing else"),
                format!("Take {of} out of this copy, and name the copied members in {of}, or in a step of their own."),
            )
            .at_field(format!("of.{at}")));
        }
        Ok(())
    }

    /// Tells of work on members that were copied and that the copies do not have.
    fn tell_uncopied(&self, built: &mut FrameBuilt) {
        let copied: HashSet<&str> = self.copied.iter().map(|(_, source)| source.as_str()).collect();
        if copied.is_empty() {
            return;
        }
        for operation in &self.input.operations {
            patience::check();
            let (of, what): (&[MemberName], &str) = match &operation.action {
                Action::End(end) => (&end.of, "cut"),
                Action::Bore(bore) => (&bore.of, "holes"),
                Action::EndNotch(notch) => (&notch.of, "notch"),
                Action::Plate(plate) => match &plate.kind {
                    PlateKind::Gusset(gusset) => (&gusset.between, "gusset"),
                    PlateKind::Base(base) => (&base.of, "base plate"),
                    PlateKind::Face(face) => (&face.of, "plate"),
                    // A panel's members round one opening are not those round another.
                    PlateKind::Panel(panel) => (&panel.between, "panel"),
                },
                _ => continue,
            };
            let named = |name: &str| {
                let group = self.assigned.get(name).and_then(|&group| self.groups.get(group)).map(|group| group.name);
                of.iter().any(|of| matches(of, name) || group == Some(of.as_str()))
            };
            let left: Vec<&str> = self
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

    fn finish(mut self, built: &mut FrameBuilt) {
        let mut frame = Frame { members: self.members(&mut built.findings), ..Frame::default() };
        frame.meetings = joint::meetings(&frame.members);
        self.joints(&mut frame, &mut built.findings);
        frame.members.iter_mut().for_each(Member::tidy_ends);
        let mut plates = Vec::new();
        for later in &self.later {
            let (Later::End(at) | Later::Other(at)) = later else { continue };
            let operation = self.input.operations[*at];
            let mut reader = Reader::new(self.input.names);
            let result = match &operation.action {
                Action::End(end) => self.end(&mut frame, operation, end, &mut reader, &mut plates),
                Action::Bore(bore) => bore_into(&mut frame, &operation.name, bore, &mut reader),
                Action::EndNotch(notch) => notch_into(&mut frame, notch, &mut reader),
                Action::Plate(plate) => {
                    let mut context = PlateContext {
                        frame: &mut frame,
                        names: self.input.names,
                        material: self.input.material,
                        unit: self.input.unit,
                        plates: &mut plates,
                    };
                    lay_plate(&mut context, &operation.name, plate, &mut reader)
                }
                _ => Ok(()),
            };
            built.values.insert(operation.name.clone(), reader.found);
            if let Err(finding) = result {
                built.findings.push(finding.of_operation(&operation.name));
            }
        }
        self.passes(&mut frame, &mut built.findings);
        self.tell_uncopied(built);
        frame.members.iter_mut().for_each(Member::tidy_ends);
        frame.members.iter_mut().for_each(keep_bodies);
        frame.plates = plates;
        frame.skeleton = std::mem::take(&mut self.skeleton);
        built.frame = frame;
    }

    /// Members of every line that has a section; lines that run into each other smoothly, one of them round, are one.
    fn members(&self, findings: &mut Vec<Finding>) -> Vec<Member> {
        let mut all = Vec::new();
        let mut numbers = vec![0usize; self.groups.len()];
        let mut used: HashSet<&str> = HashSet::new();
        // Groups with an arc: only their lines can run into each other smoothly.
        let mut bent = vec![false; self.groups.len()];
        for line in self.skeleton.lines.iter().filter(|line| line.arc.is_some()) {
            if let Some(&at) = self.assigned.get(&line.name) {
                bent[at] = true;
            }
        }
        for line in &self.skeleton.lines {
            let Some(&at) = self.assigned.get(&line.name) else { continue };
            if used.contains(line.name.as_str()) {
                continue;
            }
            numbers[at] += 1;
            let chain = if bent[at] { self.chain(line, at, &mut used) } else { vec![line.clone()] };
            match member_of(&self.groups[at], chain, numbers[at]) {
                Ok(member) => all.push(member),
                Err(finding) => findings.push(finding.of_operation(self.groups[at].name)),
            }
        }
        all
    }

    fn chain<'b>(&'b self, first: &'b Line, group: usize, used: &mut HashSet<&'b str>) -> Vec<Line> {
        used.insert(first.name.as_str());
        let mut chain = vec![first.clone()];
        loop {
            let mut grown = false;
            for line in &self.skeleton.lines {
                if used.contains(line.name.as_str()) || self.assigned.get(&line.name) != Some(&group) {
                    continue;
                }
                let (head, tail) = (&chain[0], &chain[chain.len() - 1]);
                // Straight lines are members of their own, however they run on.
                if line.arc.is_none() && head.arc.is_none() && tail.arc.is_none() {
                    continue;
                }
                let smooth = |one: Vector3, two: Vector3| one.cross(two).length() < 1e-6 && one.dot(two) > 0.0;
                let bent = |other: &Line| line.arc.is_some() || other.arc.is_some();
                for turned in [line.clone(), line.reversed()] {
                    if bent(tail)
                        && turned.from.distance(tail.to) < ONE_NODE
                        && smooth(tail.heading(tail.length()), turned.heading(0.0))
                    {
                        used.insert(line.name.as_str());
                        chain.push(turned);
                        grown = true;
                        break;
                    }
                    if bent(head)
                        && turned.to.distance(head.from) < ONE_NODE
                        && smooth(turned.heading(turned.length()), head.heading(0.0))
                    {
                        used.insert(line.name.as_str());
                        chain.insert(0, turned);
                        grown = true;
                        break;
                    }
                }
                if grown {
                    break;
                }
            }
            if !grown {
                return chain;
            }
        }
    }

    fn joints(&self, frame: &mut Frame, findings: &mut Vec<Finding>) {
        let joints: Vec<(&JointAt, &JointNumbers, &str)> = self
            .later
            .iter()
            .filter_map(|later| match later {
                Later::Joint(name, at, how) => Some((*at, how, *name)),
                _ => None,
            })
            .collect();
        // Ends that a mitre finds alone on a member that runs on: how many by joint, and the first.
        let mut lone: BTreeMap<usize, (usize, usize, usize)> = BTreeMap::new();
        for index in 0..frame.meetings.len() {
            patience::check();
            let meeting = &frame.meetings[index];
            let is_tee = !meeting.passing.is_empty();
            let at_node = |names: &Vec<NodeName>| {
                names
                    .iter()
                    .any(|name| self.skeleton.node(name).is_some_and(|place| place.distance(meeting.place) < ONE_NODE))
            };
            // A node's own joint before a kind's; the later before the earlier.
            let own = joints.iter().rposition(|(at, ..)| matches!(at, JointAt::Nodes(names) if at_node(names)));
            let of_kind = joints.iter().rposition(|(at, ..)| match at {
                JointAt::All => true,
                JointAt::Tees => is_tee,
                JointAt::Corners => !is_tee,
                JointAt::Nodes(_) => false,
            });
            let Some(chosen) = own.or(of_kind) else {
                frame.unsettled.push(index);
                continue;
            };
            let meeting = meeting.clone();
            let mut own_findings = Vec::new();
            if matches!(joints[chosen].1, JointNumbers::Pass { .. }) {
                // Those are bored once every end is cut.
                continue;
            }
            if matches!(joints[chosen].1, JointNumbers::Mitre { .. }) && is_tee && meeting.ends.len() == 1 {
                lone.entry(chosen).or_insert((0, meeting.ends[0].member, meeting.passing[0])).0 += 1;
            }
            joint::settle(&mut frame.members, &meeting, joints[chosen].1, &mut own_findings);
            findings.extend(own_findings.into_iter().map(|finding| finding.of_operation(joints[chosen].2)));
        }
        for (joint, (count, end, passing)) in lone {
            let names = (&frame.members[end].name, &frame.members[passing].name);
            let more = if count > 1 { format!(" (and {} more like it)", count - 1) } else { String::new() };
            let message = format!(
                "{} ends alone on {}, which runs on: there is nothing to mitre it with{more}",
                names.0, names.1
            );
            let finding = match joints[joint].0 {
                JointAt::All => Finding::hint(message, "Its end is trimmed to the face."),
                _ => Finding::error(message, "Make it a trim or a butt there."),
            };
            findings.push(finding.of_operation(joints[joint].2));
        }
    }

    /// Bores for members that pass through others.
    fn passes(&self, frame: &mut Frame, findings: &mut Vec<Finding>) {
        for later in &self.later {
            let Later::Joint(name, JointAt::Nodes(nodes), JointNumbers::Pass { gap }) = later else { continue };
            for node in nodes {
                let Some(place) = self.skeleton.node(node) else { continue };
                if let Err(finding) = super::pass::pass_through(frame, name, place, *gap) {
                    findings.push(finding.of_operation(name));
                }
            }
        }
    }

    fn end(
        &self,
        frame: &mut Frame,
        operation: &Operation,
        action: &crate::work::frame::EndAction,
        reader: &mut Reader<'_>,
        plates: &mut Vec<FramePlate>,
    ) -> Result<(), Finding> {
        let chosen = members_named(frame, &action.of, "of")?;
        for end in ends_of(&chosen, action.at) {
            let which = usize::from(end.finish);
            match &action.how {
                EndHow::Trim(to) | EndHow::Extend(to) => {
                    let grows = matches!(action.how, EndHow::Extend(_));
                    let field = if grows { "how.extend" } else { "how.trim" };
                    let gap = reader.maybe(&format!("{field}.gap"), to.gap.as_ref(), "a gap")?;
                    let others = members_named(frame, &to.to, &format!("{field}.to"))?;
                    let place = frame.members[end.member].basis(end.finish).origin;
                    if grows && to.beyond {
                        return Err(Finding::error(
                            "an end that is made longer keeps all that lies before it",
                            "Trim it instead where only what lies beyond is to stay.",
                        )
                        .at_field("how.extend.beyond"));
                    }
                    let (end, which) = kept_side(end, to.beyond);
                    let mut made = End::default();
                    for other in others.into_iter().filter(|other| *other != end.member) {
                        let cut = end_at::cut_to(&frame.members, end, other, place, gap, to.far)?;
                        made.planes.extend(cut.planes);
                        made.copes.extend(cut.copes);
                    }
                    let own = &mut frame.members[end.member].ends[which];
                    if grows {
                        own.planes.clear();
                        own.copes.clear();
                    }
                    own.planes.extend(made.planes);
                    own.copes.extend(made.copes);
                }
                EndHow::Cope(into) => {
                    let gap = reader.maybe("how.cope.gap", into.gap.as_ref(), "a gap")?;
                    let others = members_named(frame, &into.to, "how.cope.to")?;
                    let place = frame.members[end.member].basis(end.finish).origin;
                    let mut made = End::default();
                    for other in others.into_iter().filter(|other| *other != end.member) {
                        let cut = super::fit::fit_to(&frame.members, end, other, place, gap)?;
                        made.planes.extend(cut.planes);
                        made.copes.extend(cut.copes);
                        made.cutouts.extend(cut.cutouts);
                    }
                    frame.members[end.member].ends[which] = made;
                }
                EndHow::Plane(plane) => {
                    let (end, which) = kept_side(end, plane.beyond);
                    let at = reader.maybe("how.plane.at", plane.at.as_ref(), "a place of the plane")?;
                    let normal = plane.axis.unit();
                    let member = &frame.members[end.member];
                    let outward = end_at::inward(member, end.finish).dot(normal) < 0.0;
                    let (normal, level) = if outward { (normal, at) } else { (-normal, -at) };
                    let cut = end_at::cut_by(member, end.finish, normal, level, "plane".into(), None)?;
                    let own = &mut frame.members[end.member].ends[which];
                    if plane.grows {
                        *own = End { planes: vec![cut], ..End::default() };
                    } else {
                        own.planes.push(cut);
                    }
                }
                EndHow::Square(beyond) => {
                    let by = reader.maybe("how.square.by", beyond.by.as_ref(), "a length beyond the node")?;
                    frame.members[end.member].ends[which] = square_end(end.finish, by);
                }
                EndHow::Angle(given) => {
                    let angle = reader.angle("how.angle.angle", &given.angle, "an angle from square")?;
                    let tilt = given
                        .tilt
                        .as_ref()
                        .map_or(Ok(0.0), |text| reader.angle("how.angle.tilt", text, "a tilt from square"))?;
                    if angle.abs() > 1.4 || tilt.abs() > 1.4 {
                        return Err(Finding::error(
                            "a cut of more than 80 deg from square runs along the member",
                            "Take a smaller angle.",
                        )
                        .at_field("how.angle"));
                    }
                    let way = if end.finish { 1.0 } else { -1.0 };
                    let normal = Vector3::new(angle.tan(), tilt.tan(), way).unit();
                    let cut = CutPlane { normal, level: 0.0, by: "angle as typed".into(), to: Vec::new() };
                    frame.members[end.member].ends[which] = End { planes: vec![cut], ..End::default() };
                }
                EndHow::Cap(cap) => {
                    let mut context = PlateContext {
                        frame,
                        names: self.input.names,
                        material: self.input.material,
                        unit: self.input.unit,
                        plates,
                    };
                    super::plate::lay_cap(&mut context, &operation.name, end, cap, reader)?;
                }
            }
        }
        Ok(())
    }
}

/// The end that is cut where an end's near side is kept, or the side beyond: then it is the other one.
fn kept_side(end: EndAt, beyond: bool) -> (EndAt, usize) {
    let finish = end.finish != beyond;
    (EndAt { finish, ..end }, usize::from(finish))
}

/// A square end, so far beyond the line's own.
pub fn square_end(finish: bool, by: f64) -> End {
    let way = if finish { 1.0 } else { -1.0 };
    let cut = CutPlane { normal: Vector3::new(0.0, 0.0, way), level: by, by: "square".into(), to: Vec::new() };
    End { planes: vec![cut], ..End::default() }
}

fn on_line(line: &Line, distance: f64) -> Result<Point3, Finding> {
    let from_start = if distance < 0.0 { line.length() + distance } else { distance };
    if !(-1e-9..=line.length() + 1e-9).contains(&from_start) {
        return Err(Finding::error(
            format!("{distance:.3} mm is beyond the end of {}, which is {:.3} mm long", line.name, line.length()),
            "Take a distance on the line.",
        ));
    }
    Ok(line.at(from_start))
}

fn arc_of(name: String, from: Point3, to: Point3, radius: f64, toward: Way) -> Result<Line, Finding> {
    let way = match toward {
        Way::Right => Vector3::new(1.0, 0.0, 0.0),
        Way::Left => Vector3::new(-1.0, 0.0, 0.0),
        Way::Away => Vector3::new(0.0, 1.0, 0.0),
        Way::Toward => Vector3::new(0.0, -1.0, 0.0),
        Way::Up => Vector3::new(0.0, 0.0, 1.0),
        Way::Down => Vector3::new(0.0, 0.0, -1.0),
    };
    let chord = to - from;
    let half = chord.length() / 2.0;
    if half < 0.01 || half > radius + 1e-9 {
        return Err(Finding::error(
            format!("no arc of radius {radius:.3} mm spans {:.3} mm", 2.0 * half),
            format!("Take a radius of at least {half:.3} mm."),
        ));
    }
    let along = chord.unit();
    let out = way - along * way.dot(along);
    if out.length() < 1e-6 {
        return Err(Finding::error("an arc cannot bulge along its own chord", "Say another way."));
    }
    let rise = radius - (radius * radius - half * half).max(0.0).sqrt();
    let middle = from + along * half + out.unit() * rise;
    Ok(Line::through(name, from, middle, to))
}

fn member_of(group: &Group<'_>, lines: Vec<Line>, number: usize) -> Result<Member, Finding> {
    let first = lines[0].clone();
    let (name, mirrored) = (first.name.clone(), first.mirrored);
    let shape = &group.section.region;
    let around = shape.extents();
    let centroid = shape.centroid();
    let (x, y) = match group.action.align {
        Align::Centre => (0.0, 0.0),
        Align::Centroid => (centroid.x, centroid.y),
        Align::Top => (0.0, around.high.y),
        Align::Bottom => (0.0, around.low.y),
        Align::Left => (around.low.x, 0.0),
        Align::Right => (around.high.x, 0.0),
        Align::TopLeft => (around.low.x, around.high.y),
        Align::TopRight => (around.high.x, around.high.y),
        Align::BottomLeft => (around.low.x, around.low.y),
        Align::BottomRight => (around.high.x, around.low.y),
    };
    let shift = Vector::new(group.across - x, group.up - y);
    let place = |at: Point| {
        let moved = at + shift;
        if mirrored { Point::new(-moved.x, moved.y) } else { moved }
    };
    let move_outline = |outline: &Outline| {
        let moved = outline.moved(place);
        // Mirroring walks arcs the other way.
        if mirrored { mirrored_outline(&moved) } else { moved }
    };
    let region = Region { outer: move_outline(&shape.outer), holes: shape.holes.iter().map(move_outline).collect() };
    let heading = first.heading(0.0);
    let plain = Basis::about(first.from, heading, first.up);
    let roll = if mirrored { -group.roll } else { group.roll };
    let start = plain.moved(&Motion::turn(first.from, heading, roll));
    let finish = lines.iter().fold(start, along);
    if lines.len() > 1 || first.arc.is_some() {
        let mut basis = start;
        for line in &lines {
            if let Some(arc) = &line.arc {
                let radius = line.from.distance(arc.centre);
                let way = (arc.centre - line.from).unit();
                let inner = region
                    .outer
                    .flatten(0.1)
                    .iter()
                    .map(|at| (basis.u * at.x + basis.v * at.y).dot(way))
                    .fold(f64::NEG_INFINITY, f64::max);
                if inner >= radius - 1e-6 {
                    return Err(Finding::error(
                        format!(
                            "{name} is bent to {radius:.1} mm, and its section reaches {inner:.1} mm toward the centre"
                        ),
                        "Take a larger radius or a smaller section.",
                    ));
                }
            }
            basis = along(basis, line);
        }
    }
    Ok(Member {
        name,
        group: group.name.to_string(),
        number,
        section: group.section.clone(),
        region,
        material: group.material,
        lines,
        start,
        finish,
        ends: [square_end(false, 0.0), square_end(true, 0.0)],
        bores: Vec::new(),
        mirrored,
        mark: group.action.mark.clone().unwrap_or_else(|| group.name.to_ascii_uppercase()),
        grip: group.grip,
        weldment: group.action.weldment.clone(),
        columns: group.action.columns.clone(),
        kept_bodies: None,
    })
}

fn bore_into(
    frame: &mut Frame,
    name: &str,
    bore: &crate::work::frame::BoreAction,
    reader: &mut Reader<'_>,
) -> Result<(), Finding> {
    let chosen = members_named(frame, &bore.of, "of")?;
    let diameter = reader.size("diameter", &bore.diameter, "a diameter")?;
    let at = reader.length("at", &bore.at, "a distance along the member")?;
    let off = reader.maybe("off", bore.off.as_ref(), "an offset from the middle")?;
    let count = bore.count.as_ref().map_or(Ok(1), |text| reader.count("count", text, "a number of holes", 500))?;
    let spacing = reader.maybe("spacing", bore.spacing.as_ref(), "a spacing")?;
    if count > 1 && spacing.abs() < 1e-6 {
        return Err(Finding::error("several holes need a spacing", "Say how far apart they are.").at_field("spacing"));
    }
    let purpose = match bore.purpose {
        Purpose::Bolt => "hole",
        Purpose::Drain => "drain",
        Purpose::Vent => "vent",
    };
    for index in chosen {
        let member = &mut frame.members[index];
        let length = member.length();
        let from_long = member.reach(false).0;
        for turn in 0..count {
            let from = if at < 0.0 { length + at - spacing * turn as f64 } else { at + spacing * turn as f64 };
            if from < diameter / 2.0 || from > length - diameter / 2.0 {
                return Err(Finding::error(
                    format!("a hole {from:.1} mm along {} runs off it: it is {length:.1} mm long", member.name),
                    "Move it onto the member or bore fewer.",
                )
                .at_field("at"));
            }
            // Off the middle is up or to the right on the drawn section; a mirror image has its left and right changed over.
            let turned = |v: Vector| if member.mirrored { Vector::new(-v.x, v.y) } else { v };
            let out = out_of(bore.face);
            let side = if out.x.abs() > 0.5 { Vector::new(0.0, off) } else { Vector::new(off, 0.0) };
            let into = turned(-out);
            let made = Bore {
                operation: name.to_string(),
                into,
                off: turned(side).dot(into.left()),
                along: from_long + from,
                diameter,
                one_wall: bore.one_wall,
                purpose,
            };
            let around = member.region.extents();
            let wide = if made.into.x.abs() > 0.5 { around.height() } else { around.width() };
            if made.off.abs() + diameter / 2.0 > wide / 2.0 + 1e-6 {
                return Err(Finding::error(
                    format!(
                        "a hole of {diameter:.1} mm {:.1} mm off the middle runs off {}, whose face is {wide:.1} mm wide there",
                        off.abs(),
                        member.name
                    ),
                    "Take a smaller hole, or move it onto the face.",
                )
                .at_field("diameter"));
            }
            if member.walls(&made).is_empty() {
                return Err(Finding::error(
                    format!("a hole {off:.1} mm off the middle misses the metal of {}", member.name),
                    "Move it onto the section.",
                )
                .at_field("off"));
            }
            if let Some(finish) = member.hole_leaves(&made) {
                return Err(Finding::error(
                    format!(
                        "a hole of {diameter:.1} mm {from:.1} mm along {} runs into the cut of its {}",
                        member.name,
                        if finish { "finish" } else { "start" }
                    ),
                    "Move it further in: a hole that is cut open is a notch.",
                )
                .at_field("at"));
            }
            if let Some(other) = member.bores.iter().find(|other| member.holes_meet(&made, other)) {
                return Err(Finding::error(
                    format!(
                        "a hole of {diameter:.1} mm {from:.1} mm along {} runs into one of {} of {:.1} mm",
                        member.name, other.operation, other.diameter
                    ),
                    "Move one of them, or leave one out: what both take would be taken twice.",
                )
                .at_field("at"));
            }
            member.bores.push(made);
        }
    }
    Ok(())
}

fn notch_into(
    frame: &mut Frame,
    notch: &crate::work::frame::NotchEndAction,
    reader: &mut Reader<'_>,
) -> Result<(), Finding> {
    let chosen = members_named(frame, &notch.of, "of")?;
    let depth = notch.depth.as_ref().map(|text| reader.size("depth", text, "a depth")).transpose()?;
    let length = reader.size("length", &notch.length, "a length")?;
    let width = notch.width.as_ref().map(|text| reader.size("width", text, "a width of the slot")).transpose()?;
    let off = reader.maybe("off", notch.off.as_ref(), "an offset from the middle")?;
    if width.is_none() && (depth.is_none() || notch.off.is_some()) {
        let (words, field) = if depth.is_none() {
            ("a notch over the whole face needs a depth", "depth")
        } else {
            ("a notch over the whole face has no middle to move", "off")
        };
        return Err(Finding::error(words, "Give a depth alone, or a width for a slot.").at_field(field));
    }
    for end in ends_of(&chosen, notch.at) {
        let member = &mut frame.members[end.member];
        let around = member.region.extents();
        let mut out = out_of(notch.face);
        // Seen on the drawn section; a mirror image has its left and right changed over.
        let turned = if member.mirrored { -1.0 } else { 1.0 };
        out = Vector::new(out.x * turned, out.y);
        let reach = if out.x.abs() > 0.5 { around.width() } else { around.height() };
        if depth.is_some_and(|depth| depth >= reach) && width.is_none() {
            return Err(Finding::error(
                format!(
                    "a notch {:.1} mm deep takes all of {}, which is {reach:.1} mm there",
                    depth.unwrap_or_default(),
                    member.name
                ),
                "Take a smaller depth.",
            )
            .at_field("depth"));
        }
        let middle = around.centre();
        let level = |way: Vector| way.x * middle.x + way.y * middle.y;
        let mut sides = Vec::new();
        if let Some(depth) = depth {
            sides.push((out, level(out) + reach / 2.0 - depth));
        }
        if let Some(width) = width {
            let side = if out.x.abs() > 0.5 { Vector::new(0.0, 1.0) } else { Vector::new(turned, 0.0) };
            let at = level(side) + off;
            sides.extend([(side, at - width / 2.0), (-side, -(at + width / 2.0))]);
        }
        let kind = if width.is_some() { CutoutKind::Slot } else { CutoutKind::Notch };
        let cutout = Cutout { kind, sides, depth: CutoutDepth::Behind(length) };
        let taken: f64 = cutout.part_of(&member.region).iter().map(Region::area).sum();
        if taken < 1e-3 {
            return Err(Finding::error(
                format!("it takes no metal of {}: it lies beside the section", member.name),
                "Move it onto the section or make it deeper.",
            )
            .at_field(if width.is_some() { "off" } else { "depth" }));
        }
        if taken > member.region.area() - 1e-3 {
            return Err(Finding::error(
                format!("it takes all of {}", member.name),
                "Make it smaller, or shorten the member.",
            )
            .at_field("width"));
        }
        member.ends[usize::from(end.finish)].cutouts.push(cutout);
    }
    Ok(())
}
