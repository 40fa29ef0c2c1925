//! Lines made again, with the members on them.

use crate::finding::Finding;
use crate::frame::fields::{Fields, PlaceNumbers};
use crate::frame::layout::Layout;
use crate::frame::names::matches;
use crate::frame::skeleton::{CentreLine, ONE_NODE, mirror};
use crate::patience;
use crate::quantity::LineName;
use crate::space::{Motion, Point3, Vector3};
use crate::work::Action;
use crate::work::frame::CopyHow;

use super::offers;
use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const COPY: FrameVerb = FrameVerb::layout("copy", read).offering(offers::copy);

#[derive(Debug)]
struct CopyNumbers {
    of: Vec<LineName>,
    how: CopyMove,
}

#[derive(Debug)]
enum CopyMove {
    /// About a plane: a point of it and its normal.
    Mirror(Point3, Vector3),
    /// So far each, so many times.
    Shift(Vector3, usize),
    /// About an axis through a place, by an angle each, so many times.
    Turn(PlaceNumbers, Vector3, f64, usize),
}

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Copy(copy) = action else { return None };
    let how = match &copy.how {
        CopyHow::Mirror(plane) => {
            let at = fields.maybe("how.mirror.at", plane.at.as_ref(), "a place of the plane")?;
            let normal = plane.axis.unit();
            CopyMove::Mirror(Point3::default() + normal * at, normal)
        }
        CopyHow::Shift(shift) => {
            let by = fields.vector("how.shift", [shift.x.as_ref(), shift.y.as_ref(), shift.z.as_ref()]);
            let count = fields.count("how.shift.count", &shift.count, "a number of copies", 500);
            let by = by?;
            if by.length() < ONE_NODE {
                let nowhere = Finding::error("copies at no distance lie on each other", "Say how far apart they are.");
                return fields.take(Err(nowhere.at_field("how.shift")));
            }
            CopyMove::Shift(by, count?)
        }
        CopyHow::Turn(turn) => {
            let about = fields.place("how.turn.about", &turn.about);
            let angle = fields.angle("how.turn.angle", &turn.angle, "an angle between copies");
            let count = fields.count("how.turn.count", &turn.count, "a number of copies", 500);
            CopyMove::Turn(about?, turn.axis.unit(), angle?, count?)
        }
    };
    Some(Box::new(CopyNumbers { of: copy.of.clone(), how }))
}

impl LaysOut for CopyNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let sources: Vec<CentreLine> = layout
            .skeleton
            .lines
            .iter()
            .filter(|line| {
                self.of.is_empty()
                    || self.of.iter().any(|of| {
                        let group = layout.group_of(&line.name);
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
        check_copied(layout, &self.of)?;
        let mut made: Vec<(CentreLine, String)> = Vec::new();
        let own = |line: &CentreLine, turn: usize, many: bool| {
            let rest = line.name.replace('.', "-");
            if many { format!("{name}.{turn}-{rest}") } else { format!("{name}.{rest}") }
        };
        let mut seam = None;
        match &self.how {
            CopyMove::Mirror(point, normal) => {
                seam = Some((*point, *normal));
                for line in &sources {
                    made.push((
                        CentreLine { name: own(line, 1, false), ..line.mirrored(*point, *normal) },
                        line.name.clone(),
                    ));
                }
            }
            CopyMove::Shift(by, count) => {
                for turn in 1..=*count {
                    let motion = Motion::shift(*by * turn as f64);
                    for line in &sources {
                        let moved = CentreLine { name: own(line, turn, *count > 1), ..line.moved(&motion) };
                        made.push((moved, line.name.clone()));
                    }
                }
            }
            CopyMove::Turn(about, axis, angle, count) => {
                let about = about.on(&layout.skeleton)?;
                for turn in 1..=*count {
                    let motion = Motion::turn(about, *axis, angle * turn as f64);
                    for line in &sources {
                        let moved = CentreLine { name: own(line, turn, *count > 1), ..line.moved(&motion) };
                        made.push((moved, line.name.clone()));
                    }
                }
            }
        }
        let same = |one: &CentreLine, two: &CentreLine| {
            let ends = (one.from.distance(two.from) < ONE_NODE && one.to.distance(two.to) < ONE_NODE)
                || (one.from.distance(two.to) < ONE_NODE && one.to.distance(two.from) < ONE_NODE);
            ends && one.at(one.length() / 2.0).distance(two.at(two.length() / 2.0)) < ONE_NODE
        };
        // What lies in the mirror plane or runs square through it would come to lie on itself.
        made.retain(|(line, _)| !layout.skeleton.lines.iter().any(|known| same(known, line)));
        for (line, source) in made {
            patience::check();
            layout.copied.push((line.name.clone(), source.clone()));
            if let Some(&group) = layout.assigned.get(&source) {
                layout.assigned.insert(line.name.clone(), group);
            }
            layout.lay(name, vec![line])?;
        }
        if let Some((point, normal)) = seam {
            layout.skeleton.join_across(point, normal);
        }
        // Nodes of the sources have partners, so that they can be cited.
        if let Some((point, normal)) = seam {
            let partners: Vec<(String, Point3)> = layout
                .skeleton
                .nodes
                .iter()
                .filter(|node| !node.name.starts_with(&format!("{name}.")))
                .map(|node| (format!("{name}.{}", node.name.replace('.', "-")), mirror(node.place, point, normal)))
                .collect();
            for (own, place) in partners {
                if layout.skeleton.node(&own).is_none()
                    && layout.skeleton.lines.iter().any(|line| line.distance_of(place).is_some())
                {
                    layout.skeleton.add_node(own, place);
                }
            }
        }
        Ok(())
    }
}

/// Refuses to copy by name what a copy does not make again: it makes lines and the members on them.
fn check_copied(layout: &Layout, names: &[LineName]) -> Result<(), Finding> {
    for (at, of) in names.iter().enumerate() {
        let Some(what) = layout.not_copied.get(of.as_str()) else { continue };
        return Err(Finding::error(
            format!("{of} {what}, and a copy makes lines and their members again, nothing else"),
            format!("Take {of} out of this copy, and name the copied members in {of}, or in a step of their own."),
        )
        .at_field(format!("of.{at}")));
    }
    Ok(())
}
