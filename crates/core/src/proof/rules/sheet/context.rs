//! What a rule of plates and bent sheet may look at.

use crate::quantity::LengthUnit;
use crate::quantity::tolerance::ROUNDING;
use crate::sheet::Part;
use crate::space::Prism;
use crate::stock::{Cutter, CutterRow, Family, Grain, Material, ShopRules};

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
    /// The piece as built: of several blanks all of them, side by side in the flat.
    pub part: &'a Part,
    /// Its blanks, one by one.
    pub blanks: &'a [&'a Part],
    /// Its material.
    pub material: &'a Material,
    /// Prisms of every node, folded, for clashes.
    pub prisms: &'a [Vec<Prism>],
    /// How the sheet's grain lies on the blank, where it is minded.
    pub grain: Option<Grain>,
    /// The die opening that the piece is bent in, mm, where it says one.
    pub die: Option<f64>,
    /// What the shop's rules go by.
    pub shop: &'a ShopRules,
    /// What cuts the blank, with the row of its table; `None` where nothing of the shop's reaches it.
    pub cutter: Option<(&'a Cutter, &'a CutterRow)>,
    /// What messages speak in.
    pub unit: LengthUnit,
}

impl Context<'_> {
    pub(super) fn show(&self, millimetres: f64) -> String {
        crate::quantity::length_text(millimetres, self.unit)
    }

    /// Card is scored and folded by hand: what a brake asks does not concern it.
    pub(super) fn is_folded_by_hand(&self) -> bool {
        self.material.family == Family::Card
    }

    /// The die opening that a bend is made in, mm: the piece's own; by common practice 8 T (10 T above 10 mm), and wide enough that
    /// the rounding of a larger radius, at 90 deg sqrt(2) (R + T) across, lies between the shoulders with T to spare each side.
    pub(super) fn die_for(&self, radius: f64) -> f64 {
        let thickness = self.part.flat.thickness;
        let usual = if thickness > 10.0 { 10.0 } else { 8.0 } * thickness;
        self.die.unwrap_or_else(|| usual.max(std::f64::consts::SQRT_2 * (radius + thickness) + 2.0 * thickness))
    }

    /// Where that die comes from, in words: "V = 8 T".
    pub(super) fn die_words(&self, radius: f64) -> &'static str {
        let thickness = self.part.flat.thickness;
        let die = self.die_for(radius);
        match self.die {
            Some(_) => "V of this piece",
            None if die > 10.0 * thickness + ROUNDING => "V = sqrt(2) (R + T) + 2 T",
            None if thickness > 10.0 => "V = 10 T",
            None if die > 8.0 * thickness + ROUNDING => "V = sqrt(2) (R + T) + 2 T",
            None => "V = 8 T",
        }
    }
}
