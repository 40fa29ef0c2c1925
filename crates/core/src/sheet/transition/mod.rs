//! Two outlines joined by flat panels: from numbers to a surface of polygons (`surface`), from the surface to sheets with thickness
//! (`edges`), laid in the flat (`lay`).

mod edges;
mod lay;
mod numbers;
mod surface;

pub use numbers::TransitionNumbers;

use crate::finding::Finding;
use crate::quantity::{Dimension, LengthUnit, length_text};
use crate::work::sheet::TransitionAction;

use super::reader::Reader;
use super::set::SheetSet;
use super::shape::read_shape;

/// The most flats of a quarter of a round.
const MOST_LINES: usize = 36;
/// Steeper than this an outline stands on its side, radians: 80 deg.
const MOST_TILT: f64 = 80.0 * std::f64::consts::PI / 180.0;

/// Reads a transition. `None` when a field was bad; the findings are in the reader.
pub(super) fn read_transition(reader: &mut Reader<'_>, given: &TransitionAction) -> Option<TransitionNumbers> {
    let lower = read_shape(reader, "lower", &given.lower);
    let upper = read_shape(reader, "upper", &given.upper);
    let height = reader.size("height", &given.height, "a height");
    let mut optional = |field: &str, text: &Option<crate::quantity::Expr>, dimension: Dimension| match text {
        Some(text) => reader.value(field, text, dimension, "a size"),
        None => Some(0.0),
    };
    let offset_x = optional("offset_x", &given.offset_x, Dimension::LENGTH);
    let offset_y = optional("offset_y", &given.offset_y, Dimension::LENGTH);
    let turn = optional("turn", &given.turn, Dimension::ANGLE);
    let tilt_x = optional("tilt_x", &given.tilt_x, Dimension::ANGLE);
    let tilt_y = optional("tilt_y", &given.tilt_y, Dimension::ANGLE);
    for (field, tilt) in [("tilt_x", tilt_x), ("tilt_y", tilt_y)] {
        if tilt.is_some_and(|tilt| tilt.abs() > MOST_TILT) {
            let way_out = "Tilt it less; 80 deg is the most.";
            reader.refuse(field, "the upper outline would stand on its side".into(), way_out);
            return None;
        }
    }
    let lines = match &given.lines {
        Some(text) => reader.count("lines", text),
        None => Some(4),
    };
    if lines.is_some_and(|lines| lines > MOST_LINES) {
        reader.refuse("lines", format!("more than {MOST_LINES} flats a quarter"), "Ask for fewer.");
        return None;
    }
    let gap = match &given.gap {
        Some(text) => reader.zero_or_more("gap", text, "a gap"),
        None => Some(0.0),
    };
    let radius = reader.radius(&given.radius);
    let method = reader.method_or_own(&given.method);
    let mut edges = Vec::new();
    for (at, edge) in given.edges.iter().enumerate() {
        let Some((one, two)) = edge.between.split_once('/') else {
            let message = format!("{} names no two panels", edge.between);
            reader.refuse(&format!("edges.{at}.between"), message, "Name both, such as front/right.");
            return None;
        };
        edges.push(([one.to_string(), two.to_string()], edge.joint));
    }
    Some(TransitionNumbers {
        lower: lower?,
        upper: upper?,
        height: height?,
        offset: (offset_x?, offset_y?),
        turn: turn?,
        tilt: (tilt_x?, tilt_y?),
        sizes: given.sizes,
        other_side: given.other_side.clone(),
        corners: given.corners,
        edges,
        without: given.without.clone(),
        lines: lines?,
        crease: given.crease,
        gap: gap?,
        seam: given.seam.clone(),
        radius: radius?,
        method: method?,
    })
}

/// Lays a transition: a blank for every set of panels that are bent into each other.
///
/// # Errors
/// Outlines that cross, a name of a panel that is not there, bends that close a ring, an edge that eats its panel.
pub(super) fn lay(
    set: &mut SheetSet,
    name: &str,
    given: &TransitionNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    if let Some(first) = set.flats.iter().flat_map(|flat| flat.nodes.first()).next() {
        return Err(Finding::error(
            format!("{} is already laid down; a piece begins once", first.name),
            "Take this operation out, or begin a piece of its own with it.",
        ));
    }
    let thickness = set.flats[0].thickness;
    let surface = surface::surface(given, unit)?;
    let sheets = edges::sheets(&surface, given, thickness)?;
    let mut notes: Vec<Finding> = surface.notes.clone();
    for (round, chord) in &surface.chords {
        notes.push(Finding::hint(
            format!("{round} is made of flats: they lie up to {} within it", length_text(*chord, unit)),
            "Ask for more lines a quarter where that is too much.",
        ));
    }
    notes.extend(lay::lay(set, name, given, &surface, &sheets, unit)?);
    Ok(notes)
}
