//! What a rule of plates and bent sheet may look at.

use crate::quantity::LengthUnit;
use crate::sheet::Part;
use crate::space::Prism;
use crate::stock::{Grain, Material};

use super::super::rule::{Looked, Rule};

/// Rules of plates and bent sheet.
pub struct OfSheet;

impl Looked for OfSheet {
    type Context<'a> = Context<'a>;
}

/// A rule of plates and bent sheet.
pub type SheetRule = Rule<OfSheet>;

/// What a rule may look at.
pub struct Context<'a> {
    /// The part as built.
    pub part: &'a Part,
    /// Its material.
    pub material: &'a Material,
    /// Prisms of every node, folded, for clashes.
    pub prisms: &'a [Vec<Prism>],
    /// How the sheet's grain lies on the blank, where it is minded.
    pub grain: Option<Grain>,
    /// What messages speak in.
    pub unit: LengthUnit,
}

impl Context<'_> {
    pub(super) fn show(&self, millimetres: f64) -> String {
        crate::quantity::length_text(millimetres, self.unit)
    }
}
