//! Cuts straight through the folded part, square to a panel: the tool's outline is taken back to the flat of each panel
//! that it meets.

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, common_area, swept};
use crate::quantity::tolerance::{NO_AREA, PARALLEL};
use crate::sheet::flange::folded_now;
use crate::sheet::flat::{Flat, TagKind};
use crate::sheet::hole::NewHole;
use crate::sheet::set::SheetSet;
use crate::space::{Motion, Point3, Vector3};
use crate::work::sheet::Reach;

use super::across::{Written, check_whole, record, take};

/// A slanted panel takes a curve that is no arc; it is drawn in lines this near to it, mm.
const CHORD: f64 = 0.002;

/// Cuts outlines, drawn in the flat of a panel of blank `blank` and square to it, through every blank that they meet. Returns what
/// is worth knowing.
///
/// # Errors
/// A bend in the tool's way; a panel that stands along it; as a cut in the flat.
pub(in crate::sheet) fn cut_through(
    set: &mut SheetSet,
    operation: &str,
    (blank, panel): (usize, usize),
    made: &[NewHole],
) -> Result<Vec<Finding>, Finding> {
    let Some(own) = folded_now(&set.flats[blank])?.motion(panel).copied() else { return Ok(Vec::new()) };
    let mut notes = Vec::new();
    let mut landings: Vec<(usize, Landing)> = Vec::new();
    for (at, flat) in set.flats.iter().enumerate() {
        landings.extend(landings_on(flat, &own, made, &mut notes)?.into_iter().map(|landing| (at, landing)));
    }
    if landings.is_empty() {
        return Err(
            Finding::error("the cut meets no material", "Check the distances that it is placed by.").at_field("place")
        );
    }
    let single = landings.len() == 1;
    for (number, (blank, (at, mut outline, centre, which))) in landings.into_iter().enumerate() {
        let flat = &mut set.flats[blank];
        let name = if single { operation.to_string() } else { format!("{operation}.{}", number + 1) };
        let tag = flat.tag(name.clone(), TagKind::Hole(flat.holes.len()));
        outline.edges.iter_mut().for_each(|edge| edge.tag = tag);
        outline.drop_short(MODELLING_TOLERANCE);
        let mut near = flat.node_near(at, &outline);
        near.twins = take(flat, at, &outline, &name)?;
        check_whole(flat, &name)?;
        flat.record_cut(&name, &outline, vec![near]);
        let (work, reach) = (made[which].work.clone(), Reach::Through);
        record(flat, Written { name, operation, outline, centre, tag, work, reach, copy: None }, &[at]);
    }
    Ok(notes)
}

/// Where a tool lands: the node, the outline and its centre in the flat, and which tool.
type Landing = (usize, Outline, Point, usize);

/// Where each tool lands on each node of one blank: exact on panels that lie parallel, in short lines on those that slant. The tools are
/// drawn in the plane that `own` takes to its place.
fn landings_on(flat: &Flat, own: &Motion, made: &[NewHole], notes: &mut Vec<Finding>) -> Result<Vec<Landing>, Finding> {
    let folded = folded_now(flat)?;
    let back = own.inverse();
    let up = own.direction(Vector3::new(0.0, 0.0, 1.0));
    let mut landings: Vec<Landing> = Vec::new();
    for (which, tool) in made.iter().enumerate() {
        for at in 0..flat.nodes.len() {
            let node = &flat.nodes[at];
            let Some(motion) = folded.motion(at) else {
                // A bend: does any of it stand in the tool's way?
                let around = node.region.extents();
                let inside = (0..=24).flat_map(|i| (0..=24).map(move |j| (i, j))).any(|(i, j)| {
                    let point = Point::new(
                        around.low.x + around.width() * f64::from(i) / 24.0,
                        around.low.y + around.height() * f64::from(j) / 24.0,
                    );
                    node.region.contains(point)
                        && [0.0, flat.thickness].iter().any(|&z| {
                            let seen = back.apply(folded.apply(at, point, z));
                            tool.outline.contains(Point::new(seen.x, seen.y))
                        })
                });
                if inside {
                    return Err(Finding::error(
                        format!("{} would run through the bend {}", tool.name, node.name),
                        "Move it clear of the bend, or cut it in the flat, across the bend.",
                    )
                    .at_field("reach"));
                }
                continue;
            };
            let normal = motion.direction(Vector3::new(0.0, 0.0, 1.0));
            let slant = normal.dot(up);
            let home = motion.inverse();
            let middle = flat.thickness / 2.0;
            let axis = home.direction(up);
            // From the tool's own plane along its axis to a height of the sheet there.
            let land_at = |point: Point, height: f64| -> Point {
                let local = home.apply(own.apply(Point3::new(point.x, point.y, middle)));
                let by = (height - local.z) / axis.z;
                Point::new(local.x + axis.x * by, local.y + axis.y * by)
            };
            let land = |point: Point| land_at(point, middle);
            if slant.abs() < 0.1 {
                let seen = node.region.outer.edges.iter().map(|edge| back.apply(folded.apply(at, edge.start, middle)));
                let around = seen.fold(crate::plane::Box2::EMPTY, |mut around, point| {
                    around.hold(Point::new(point.x, point.y));
                    around
                });
                if around.is_near(&tool.outline.extents(), 0.0)
                    && tool.outline.extents().low.x < around.high.x
                    && tool.outline.extents().high.x > around.low.x
                    && tool.outline.extents().low.y < around.high.y
                    && tool.outline.extents().high.y > around.low.y
                {
                    return Err(Finding::error(
                        format!("{} would run along {} instead of through it", tool.name, node.name),
                        "Cut from another panel, or move it.",
                    )
                    .at_field("reach"));
                }
                continue;
            }
            let exact = slant.abs() > 1.0 - PARALLEL;
            let outline = if exact {
                let moved = tool.outline.moved(land);
                // Seen from behind, left is right: arcs turn the other way.
                if slant < 0.0 { mirrored(&moved) } else { moved }
            } else {
                // The walls stand square to the sheet, so what a straight tool needs is all that it passes over between the
                // faces: the outlines on both faces alone would leave metal between them.
                let points: Vec<(Point, u32)> =
                    tool.outline.flatten(CHORD).iter().map(|&point| (land_at(point, 0.0), 0)).collect();
                let shift = land_at(tool.centre, flat.thickness) - land_at(tool.centre, 0.0);
                swept(&Outline::polygon(&points), shift).ok_or_else(|| {
                    Finding::error(
                        format!("{} closes in an island where it meets {} at a slant", tool.name, node.name),
                        "Cut a simpler outline, or cut it in the flat.",
                    )
                    .at_field("reach")
                })?
            };
            if common_area(&node.region.outer, &outline) < NO_AREA {
                continue;
            }
            if !exact {
                notes.push(Finding::hint(
                    format!(
                        "{} meets {} at a slant: it is cut there in short lines, as wide as the tool needs from face to face",
                        tool.name, node.name
                    ),
                    "Nothing to do; the cut's walls stand square to the sheet.",
                ));
            }
            landings.push((at, outline, land(tool.centre), which));
        }
    }
    Ok(landings)
}

/// An outline whose points were mirrored already: order and arcs follow.
fn mirrored(outline: &Outline) -> Outline {
    let mut turned = outline.clone();
    turned.edges.iter_mut().for_each(|edge| edge.bulge = -edge.bulge);
    turned.counter_clockwise()
}
