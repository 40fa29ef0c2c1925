//! A row of holes along the flange of a rim: equal spaces on its real length, from corner to corner of the rim.

use crate::finding::Finding;
use crate::plane::{Outline, Point, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, PARALLEL};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flange::folded_now;
use crate::sheet::fold::Folded;
use crate::sheet::set::SheetSet;
use crate::sheet::transition::{AfterWelding, PanelSizes, SurfaceRecord};
use crate::space::{Point3, Vector3};
use crate::work::sheet::{RimCorners, RimLine};

use super::fit::check_fit;
use super::new_hole::NewHole;
use super::numbers::{HoleNumbers, RimRowNumbers};
use super::spread::{Spread, equal_spaces};

/// The line of a row on one flange: from a place along a unit vector, in space.
#[derive(Clone, Copy)]
struct Line {
    from: Point3,
    way: Vector3,
    normal: Vector3,
}

/// Where a row ends.
struct End {
    at: Point3,
    /// The flange that it meets there, by its place in the surface's panels.
    beside: Option<usize>,
}

/// Places the holes of a row on one flange; corner holes that are drilled after welding go to the surface's list.
///
/// # Errors
/// A panel that is no rim flange, a row with no length, a corner hole that lies in the joint of two flanges.
pub(super) fn places(
    set: &mut SheetSet,
    (name, panel): (&str, &str),
    given: &HoleNumbers,
    row: &RimRowNumbers,
    unit: LengthUnit,
) -> Result<Spread, Finding> {
    if given.mirror != (false, false) {
        return Err(Finding::error(
            "a row on a rim goes from corner to corner: mirroring adds nothing to it",
            "Name the other flanges as further panels.",
        )
        .at_field("mirror"));
    }
    let (which, own) = flange(set, panel)?;
    let surface = &set.surfaces[which];
    let line = line_of(surface, own, row);
    let ends = [true, false].map(|at_start| end_of(surface, own, row, &line, at_start));
    let long = (ends[1].at - ends[0].at).dot(line.way);
    if long < MODELLING_TOLERANCE {
        let message = format!("the row has no length on {panel}: its corners pass each other");
        return Err(Finding::error(message, "Bring the row nearer to the opening.").at_field("pattern.rim.distance"));
    }
    let spaces = equal_spaces(row.spaces, long).map_err(|fault| fault.at_field("pattern.rim.pitch"))?;
    let mut at: Vec<Point3> = (1..spaces).map(|k| ends[0].at + line.way * (long * k as f64 / spaces as f64)).collect();
    let mut after = Vec::new();
    if row.corners != RimCorners::None {
        for (end, first) in ends.iter().zip([true, false]) {
            match corner(set, (which, own), end, &line, given, unit)? {
                Corner::Here if first => at.insert(0, end.at),
                Corner::Here => at.push(end.at),
                Corner::Beside => {}
                Corner::Joint(other) if row.corners == RimCorners::AfterWelding => after.push((end.at, other)),
                Corner::Joint(other) => {
                    return Err(Finding::error(
                        format!("the corner hole lies in the joint of {panel} and {other}, at {}", told(end.at, unit)),
                        "Let one of the two flanges go over the full width, leave the corner holes out, or have them drilled after welding.",
                    )
                    .at_field("pattern.rim.corners"));
                }
            }
        }
    }
    if at.is_empty() && after.is_empty() {
        return Err(Finding::error(
            format!("one space without its corners leaves no hole on {panel}"),
            "Ask for more spaces, or for the corner holes.",
        )
        .at_field("pattern.rim.spaces"));
    }
    let mut notes = Vec::new();
    for (place, other) in after {
        let list = &mut set.surfaces[which].after_welding;
        if !list.iter().any(|one| one.operation == name && one.at.distance(place) < MODELLING_TOLERANCE) {
            let between = [panel.to_string(), other.clone()];
            notes.push(Finding::hint(
                format!(
                    "the corner hole in the joint of {panel} and {other}, at {}, is drilled after welding",
                    told(place, unit)
                ),
                "It is in no blank; the list of sheets has it.",
            ));
            let diameter = given.shape.outline(Point::default(), Vector::new(1.0, 0.0)).extents().width();
            list.push(AfterWelding { operation: name.to_string(), between, at: place, diameter });
        }
    }
    let (folded, _, node) = on_flat(set, panel)?;
    let flat_of = |place: Point3| folded.unfold(node, place).0;
    let (from, to) = (flat_of(line.from), flat_of(line.from + line.way));
    let note = format!(
        "{} holes, {spaces} spaces of {} on {panel}, {} from corner to corner",
        at.len(),
        length_text(long / spaces as f64, unit),
        length_text(long, unit)
    );
    notes.push(Finding::hint(note, ""));
    Ok(Spread {
        centres: at.into_iter().map(flat_of).collect(),
        mirrored: Vec::new(),
        along: (to - from).unit(),
        notes,
    })
}

fn told(place: Point3, unit: LengthUnit) -> String {
    let n = |value: f64| length_text(value, unit);
    format!("x {}, y {}, z {}", n(place.x), n(place.y), n(place.z))
}

/// The surface and the panel of a rim flange.
fn flange(set: &SheetSet, panel: &str) -> Result<(usize, usize), Finding> {
    let mut known = Vec::new();
    for (which, surface) in set.surfaces.iter().enumerate() {
        for (at, one) in surface.panels.iter().enumerate().filter(|(_, one)| one.rim.is_some() && !one.is_left_out) {
            if one.name == panel {
                return Ok((which, at));
            }
            known.push(one.name.as_str());
        }
    }
    let way_out = match known.is_empty() {
        true => "Give the opening of a transition rim flanges first.".to_string(),
        false => format!("The rim flanges are {}.", known.join(", ")),
    };
    Err(Finding::error(format!("{panel} is no flange along a rim"), way_out).at_field("panel"))
}

/// The blank that has a panel, how it is folded, and the panel's place in it.
fn on_flat(set: &SheetSet, panel: &str) -> Result<(Folded, usize, usize), Finding> {
    let blank = set.blank_of(Some(panel));
    let flat = &set.flats[blank];
    Ok((folded_now(flat)?, blank, flat.find_panel(panel)?))
}

/// The row's line on a flange: parallel to the opening's edge, as far from that or from the outer edge.
fn line_of(surface: &SurfaceRecord, panel: usize, row: &RimRowNumbers) -> Line {
    let own = &surface.panels[panel];
    let place = |k: usize| surface.points[own.corners[k]];
    // A flange begins with the opening's edge, walked against its wall.
    let (to, from) = (place(0), place(1));
    let way = (to - from).unit();
    let far = own.corners.iter().map(|&corner| surface.points[corner] - from);
    let across = |v: Vector3| v - way * v.dot(way);
    let far = far.map(across).max_by(|one, two| one.length().total_cmp(&two.length())).unwrap_or_default();
    let by = match row.from {
        RimLine::Opening => row.distance,
        RimLine::Outer => far.length() - row.distance,
    };
    let out = far.unit();
    Line { from: from + out * by, way, normal: way.cross(out) }
}

fn end_of(surface: &SurfaceRecord, panel: usize, row: &RimRowNumbers, line: &Line, at_start: bool) -> End {
    let own = &surface.panels[panel];
    // Where this one begins another one ends.
    let corner = own.corners[usize::from(at_start)];
    let meets = |(at, one): (usize, &PanelSizes)| {
        let there = !one.is_left_out && one.rim == own.rim && at != panel;
        (there && one.corners[usize::from(!at_start)] == corner).then_some(at)
    };
    let beside = surface.panels.iter().enumerate().find_map(meets);
    if let Some(at) = beside {
        let other = line_of(surface, at, row);
        if line.normal.cross(other.normal).length() < PARALLEL
            && let Some(at) = meet(line, other.from, other.way)
        {
            return End { at, beside };
        }
    }
    // The flange's own side.
    let count = own.corners.len();
    let (base, tip) = if at_start { (1, 2) } else { (0, count - 1) };
    let (base, tip) = (surface.points[own.corners[base]], surface.points[own.corners[tip]]);
    End { at: meet(line, base, tip - base).unwrap_or(line.from), beside }
}

/// Where a line in the row's plane meets the row's line; `None` where it runs along it.
fn meet(line: &Line, from: Point3, way: Vector3) -> Option<Point3> {
    let across = line.normal.cross(line.way);
    let rise = way.dot(across);
    if rise.abs() < PARALLEL * way.length() {
        return None;
    }
    Some(from + way * ((line.from - from).dot(across) / rise))
}

/// What becomes of a corner hole.
enum Corner {
    /// It is this flange's.
    Here,
    /// It lies wholly in the flange beside.
    Beside,
    /// It lies in the joint with this one.
    Joint(String),
}

fn corner(
    set: &SheetSet,
    (which, own): (usize, usize),
    end: &End,
    line: &Line,
    given: &HoleNumbers,
    unit: LengthUnit,
) -> Result<Corner, Finding> {
    let panels = &set.surfaces[which].panels;
    let Some(beside) = end.beside else { return Ok(Corner::Here) };
    for (panel, answer) in [(own, Corner::Here), (beside, Corner::Beside)] {
        let (folded, blank, node) = on_flat(set, &panels[panel].name)?;
        let (centre, _) = folded.unfold(node, end.at);
        let (ahead, _) = folded.unfold(node, end.at + line.way);
        let outline: Outline = given.shape.outline(centre, (ahead - centre).unit());
        let around = [outline.extents()];
        let hole = NewHole {
            name: String::new(),
            outline,
            centre,
            work: given.work.work(set.flats[blank].thickness, unit)?,
            copy: None,
        };
        if check_fit(&set.flats[blank], node, &[hole], &around, unit).is_ok() {
            return Ok(answer);
        }
    }
    Ok(Corner::Joint(panels[beside].name.clone()))
}
