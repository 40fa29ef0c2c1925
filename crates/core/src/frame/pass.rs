//! A round member that passes through a bore of another: the bore is made as large as it needs, and neither is cut.

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Vector};
use crate::space::Point3;

use super::end_at::basis_at;
use super::member::{Bore, Member};
use super::model::Frame;

/// How far from square a member may pass through another, as a cosine: bores are drilled square.
const SQUARE: f64 = 1e-6;

/// Bores the thicker of the two straight members that cross at a place, for the thinner and round one.
///
/// # Errors
/// Not two members there, none of them round and thinner, a crossing that is not square, no metal to bore.
pub(super) fn pass_through(frame: &mut Frame, operation: &str, place: Point3, gap: f64) -> Result<(), Finding> {
    let here: Vec<usize> = (0..frame.members.len())
        .filter(|&at| frame.members[at].lines.iter().any(|line| line.distance_of(place).is_some()))
        .collect();
    let [one, two] = here.as_slice() else {
        return Err(Finding::error(
            format!("{} members run through this node; one passes through another where two do", here.len()),
            "Name a node where two members cross.",
        )
        .at_field("at"));
    };
    let size = |at: usize| {
        let around = frame.members[at].region.extents();
        around.width().max(around.height())
    };
    let (thin, thick) = if size(*one) <= size(*two) { (*one, *two) } else { (*two, *one) };
    let (inner, outer) = (&frame.members[thin], &frame.members[thick]);
    let words = |what: &str| format!("{} passes through {}: {what}", inner.name, outer.name);
    if !inner.section.is_round() || !inner.is_straight() || !outer.is_straight() {
        return Err(Finding::error(
            words("only a straight round member passes through a bore of another straight one"),
            "Take a round section for the one that passes, or cut a slot.",
        )
        .at_field("how.pass"));
    }
    let basis = basis_at(outer, place);
    let way = basis.turn_in(inner.start.w);
    let along_axis = way.x.abs().max(way.y.abs());
    if way.z.abs() > SQUARE || along_axis < 1.0 - SQUARE {
        return Err(Finding::error(
            words("it does not run square through two faces, and bores are drilled square"),
            "Let them cross square, or cope the ends.",
        )
        .at_field("how.pass"));
    }
    let into = Vector::new(way.x.round(), way.y.round());
    // The middle of the one that passes, in the other's own frame.
    let centre = inner.region.extents().centre();
    let axis = outer.start.local(basis_at(inner, place).place(centre.x, centre.y, 0.0));
    let middle = outer.region.extents().centre();
    let side = into.left();
    let off = side.x * (axis.x - middle.x) + side.y * (axis.y - middle.y);
    let bore = Bore {
        operation: operation.to_string(),
        into,
        off,
        along: axis.z,
        diameter: inner.region.extents().width() + 2.0 * gap,
        one_wall: false,
        purpose: None,
    };
    if outer.walls(&bore).is_empty() {
        return Err(Finding::error(words("there is no metal to bore"), "Let their lines cross.").at_field("at"));
    }
    frame.members[thick].bores.push(bore);
    frame.passes.push((thin, thick));
    Ok(())
}

/// Writes down which members run through a bore that another has for them, however it was made: they are in nobody's way there and
/// are not welded by its walls.
pub(super) fn run_through_bores(frame: &mut Frame) {
    let members = &frame.members;
    let mut found: Vec<(usize, usize)> = Vec::new();
    for (thick, outer) in members.iter().enumerate().filter(|(_, outer)| outer.is_straight()) {
        for bore in outer.bores.iter().filter(|bore| !bore.one_wall) {
            for (thin, inner) in members.iter().enumerate() {
                if thin != thick && runs_through(inner, outer, bore) {
                    found.push((thin, thick));
                }
            }
        }
    }
    found.retain(|pair| !frame.passes.contains(pair));
    found.sort_unstable();
    found.dedup();
    frame.passes.extend(found);
}

/// Whether a straight round member lies wholly within a bore where it crosses the member that has it.
fn runs_through(inner: &Member, outer: &Member, bore: &Bore) -> bool {
    if !inner.section.is_round() || !inner.is_straight() {
        return false;
    }
    let way = outer.start.turn_in(inner.start.w);
    let (into, side) = (bore.into, bore.into.left());
    if (way.x * into.x + way.y * into.y).abs() < 1.0 - SQUARE {
        return false;
    }
    let centre = inner.region.extents().centre();
    let axis = outer.start.local(inner.start.place(centre.x, centre.y, 0.0));
    let middle = outer.region.extents().centre();
    let off = side.x * (axis.x - middle.x) + side.y * (axis.y - middle.y) - bore.off;
    let aside = off.hypot(axis.z - bore.along);
    aside + inner.region.extents().width() / 2.0 <= bore.diameter / 2.0 + MODELLING_TOLERANCE
}
