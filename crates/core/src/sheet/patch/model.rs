//! A patch: what closes openings in a panel's faces.

use crate::plane::Tag;
use crate::space::{Body, Walked};

/// Faces that close openings in a panel's two faces.
#[derive(Clone, Debug)]
pub(in crate::sheet) struct Patch {
    /// What it is of: the name of a hole.
    pub of: String,
    /// The panel, an index in the flat's nodes.
    pub node: usize,
    /// The outline of the panel's that it stands in place of.
    pub replaces: Option<Tag>,
    /// Its faces, named, in the panel's own coordinates: those of the flat, and the height over the lower face. It is open where it joins
    /// the panel.
    pub body: Body,
    /// Its openings in the lower and the upper face, each walked as the face walks it: seen from outside the metal, clockwise.
    pub openings: [Vec<Vec<Walked>>; 2],
}
