//! A part as built and folded: what every probe looks at.

use super::fold::{Folded, fold};
use super::tree::Tree;
use super::{Blank, Built, Flat};

/// A part that folds and has a blank.
#[derive(Clone, Debug)]
pub struct Part {
    /// In the flat, with names.
    pub flat: Flat,
    /// How it folds.
    pub tree: Tree,
    /// Folded all the way.
    pub folded: Folded,
    /// The blank.
    pub blank: Blank,
    /// Density, kg/m3.
    pub density: f64,
}

impl Part {
    /// The part of a build; `None` when it does not fold or has no blank.
    pub fn new(built: &Built, density: f64) -> Option<Part> {
        let tree = built.tree.clone()?;
        let folded = fold(&built.flat.nodes, &tree, built.flat.thickness, 1.0);
        Some(Part { flat: built.flat.clone(), tree, folded, blank: built.blank.clone()?, density })
    }
}
