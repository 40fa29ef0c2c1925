//! A part as built and folded: what every probe looks at.

use super::fold::{Folded, fold_at};
use super::tree::Tree;
use super::{Blank, Built, BuiltBlank, Flat};

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
    /// The part of a build of one blank; `None` when it does not fold, has no blank or has several.
    pub fn new(built: &Built, density: f64) -> Option<Part> {
        match built.blanks.as_slice() {
            [only] => Part::of_blank(only, density),
            _ => None,
        }
    }

    /// The part of one blank; `None` when it does not fold or does not close.
    pub fn of_blank(built: &BuiltBlank, density: f64) -> Option<Part> {
        let tree = built.tree.clone()?;
        let folded = fold_at(&built.flat.nodes, &tree, built.flat.thickness, 1.0, &built.flat.pose);
        Some(Part { flat: built.flat.clone(), tree, folded, blank: built.blank.clone()?, density })
    }
}
