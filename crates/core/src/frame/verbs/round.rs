//! Rounding the corner of two lines.

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::layout::Layout;
use crate::frame::reader::node;
use crate::frame::skeleton::{CentreLine, ONE_NODE};
use crate::quantity::NodeName;
use crate::quantity::tolerance::ROUNDING;
use crate::space::Point3;
use crate::work::Action;
use crate::work::frame::OneEnd;

use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const ROUND: FrameVerb = FrameVerb::layout("round", read);

#[derive(Debug)]
struct RoundNumbers {
    node: NodeName,
    radius: f64,
}

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Round(round) = action else { return None };
    let radius = fields.size("radius", &round.radius, "a radius")?;
    Some(Box::new(RoundNumbers { node: round.node.clone(), radius }))
}

impl LaysOut for RoundNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let place = node(&layout.skeleton, &self.node, "node")?;
        rounded(layout, name, place, self.radius)
    }
}

/// A tangent arc at a node: both lines are shortened to it.
fn rounded(layout: &mut Layout, name: &str, place: Point3, radius: f64) -> Result<(), Finding> {
    let ends: Vec<(usize, OneEnd)> = layout
        .skeleton
        .lines
        .iter()
        .enumerate()
        .filter(|(_, line)| line.arc.is_none())
        .flat_map(|(at, line)| {
            [(at, OneEnd::Start, line.from), (at, OneEnd::Finish, line.to)]
                .into_iter()
                .filter(|(.., end)| end.distance(place) < ONE_NODE)
                .map(|(at, which, _)| (at, which))
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
    let way = |&(at, which): &(usize, OneEnd)| {
        let line = &layout.skeleton.lines[at];
        if which.is_finish() { (line.from - line.to).unit() } else { (line.to - line.from).unit() }
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
        [one, two].map(|&(at, _)| layout.skeleton.lines[at].length()).into_iter().fold(f64::INFINITY, f64::min);
    if back > shorter + ROUNDING {
        return Err(Finding::error(
            format!("a radius of {radius:.3} mm needs {back:.3} mm of each line, and the shorter has {shorter:.3} mm"),
            "Take a smaller radius or longer lines.",
        )
        .at_field("radius"));
    }
    let (from, to) = (place + a * back, place + b * back);
    let middle = place + (a + b).unit() * (radius / (between / 2.0).sin() - radius);
    let arc = CentreLine::through(format!("{name}.arc"), from, middle, to);
    for (&(at, which), end) in [one, two].into_iter().zip([from, to]) {
        let line = &mut layout.skeleton.lines[at];
        if which.is_finish() {
            line.to = end;
        } else {
            line.from = end;
        }
    }
    layout.skeleton.lines.retain(|line| line.length() > 0.01);
    layout.lay(name, vec![arc])
}
