//! What each cut had before it and what it left, written down where the cut is made, so that the audit can ask another
//! library what it should have taken.

use crate::plane::{Outline, Region};

/// One node near a cut.
#[derive(Clone, Debug, PartialEq)]
pub struct NodeCut {
    /// The panel's or strip's name.
    pub node: String,
    /// Its material before; of its holes only those near the cut.
    pub before: Region,
    /// What is left of it, with the same holes; as before where the cut took nothing.
    pub after: Vec<Region>,
}

/// One cut as it was made in the flat.
#[derive(Clone, Debug, PartialEq)]
pub struct CutRecord {
    /// The cut's name: `drain.3`, `relief`.
    pub name: String,
    /// The tool's outline.
    pub tool: Outline,
    /// Every node near it, in the flat.
    pub nodes: Vec<NodeCut>,
}
