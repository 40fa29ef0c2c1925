//! The blanks of a piece while it is built. Each lies in a plane of its own: places of two of them are never compared there.

use super::flat::Flat;
use super::seam::SeamRecord;
use super::transition::SurfaceRecord;

/// The blanks so far, and where they are joined.
#[derive(Clone, Debug, Default)]
pub struct SheetSet {
    /// In the order made; names are of the whole set.
    pub flats: Vec<Flat>,
    /// Joints between edges of them.
    pub seams: Vec<SeamRecord>,
    /// What transitions came to.
    pub surfaces: Vec<SurfaceRecord>,
}

impl SheetSet {
    /// One blank with nothing on it, of this thickness, mm.
    pub fn new(thickness: f64) -> SheetSet {
        SheetSet { flats: vec![Flat::new(thickness)], ..SheetSet::default() }
    }

    /// The blank that has the panel, edge, bend or operation of a name; the first where none has, whose own words then refuse it.
    pub fn blank_of(&self, name: Option<&str>) -> usize {
        let Some(name) = name else { return 0 };
        let whole = |flat: &Flat| {
            flat.panel(name).is_some()
                || flat.edges.iter().any(|edge| edge.name == name)
                || flat.bend(name).is_some()
                || flat.holes.iter().any(|hole| hole.name == name || hole.operation == name)
                || flat.forms.iter().any(|form| form.name == name || form.operation == name)
                || flat.ribs.iter().any(|rib| rib.name == name || rib.operation == name)
                || flat.tabs.iter().any(|tab| tab.operation == name)
        };
        // An edge that a blank no longer has is told by the blank that has its panel.
        let stems = |flat: &Flat| {
            let mut stem = name;
            while let Some((before, _)) = stem.rsplit_once('.') {
                stem = before;
                if flat.panel(stem).is_some() || flat.bend(stem).is_some() {
                    return true;
                }
            }
            false
        };
        self.flats.iter().position(whole).or_else(|| self.flats.iter().position(stems)).unwrap_or(0)
    }

    /// The names of all panels.
    pub fn panels(&self) -> Vec<&str> {
        let nodes = self.flats.iter().flat_map(|flat| &flat.nodes);
        nodes.filter(|node| node.is_panel()).map(|node| node.name.as_str()).collect()
    }

    /// The opposite hand of the whole set: every blank and its place.
    pub fn opposite_hand(&self) -> SheetSet {
        SheetSet {
            flats: self.flats.iter().map(Flat::opposite_hand).collect(),
            seams: self.seams.clone(),
            surfaces: self.surfaces.iter().map(SurfaceRecord::opposite_hand).collect(),
        }
    }
}
