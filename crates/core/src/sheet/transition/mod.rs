//! Two outlines joined by flat panels: from numbers to a surface of polygons (`surface`), from the surface to sheets with thickness
//! (`edges`), laid in the flat (`lay`).

mod between;
mod capacity;
mod cut;
mod edges;
mod extras;
mod faces;
mod flanges;
mod follows;
mod halves;
mod joints;
mod lay;
mod numbers;
mod outlines;
mod read;
mod record;
mod rim_corners;
mod surface;
mod tabs;
mod walls;

pub use numbers::{EdgeNumbers, EdgeTabNumbers, FlangeLies, RimFlangeNumbers, RimPlane, TransitionNumbers};
pub(super) use read::read_transition;
pub use record::{AfterWelding, EdgeSizes, PanelSizes, RimSizes, SurfaceRecord};

use crate::finding::Finding;
use crate::quantity::{LengthUnit, length_text};

use super::set::SheetSet;

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
    let mut surface = surface::surface(given, unit)?;
    let mut notes: Vec<Finding> = given.notes.clone();
    let (joints, corners) = flanges::add(&mut surface, given, thickness, unit)?;
    let lines = edges::lines(&surface, &joints, given);
    let heights = edges::heights(&surface, given, thickness)?;
    let tabs = tabs::add(&mut surface, given, &joints, (&heights, thickness), unit)?;
    let sheets = edges::sheets(&surface, given, (&joints, &tabs), &lines, (&heights, thickness))?;
    notes.append(&mut surface.notes);
    notes.extend(corners);
    for (round, chord) in &surface.chords {
        notes.push(Finding::hint(
            format!("{round} is made of flats: they lie up to {} within it", length_text(*chord, unit)),
            "Ask for more lines a quarter where that is too much.",
        ));
    }
    notes.extend(lay::lay(set, name, given, &surface, (&sheets, &lines), unit)?);
    set.surfaces.push(record::record(name, given, &surface, (&sheets, &tabs), thickness));
    Ok(notes)
}
