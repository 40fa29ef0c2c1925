//! A rib as it is pressed across a bend.

use crate::plane::Point;
use crate::quantity::{Amount, LengthUnit, decimal};

use super::section::RibSizes;

/// A rib across a bend.
#[derive(Clone, Debug, PartialEq)]
pub struct Rib {
    /// Its own name: `rib`, or `rib.3` for one of several.
    pub name: String,
    /// The operation's name.
    pub operation: String,
    /// The bend's name.
    pub bend: String,
    /// Its strip, an index in the flat's nodes.
    pub strip: usize,
    /// Its middle plane crosses the strip's middle here, in the flat.
    pub centre: Point,
    /// Its sizes, from the tangent lines.
    pub sizes: RibSizes,
    /// Its legs as they are said, from the outside mould lines, mm.
    pub legs: [f64; 2],
    /// Radius that its edges are given on paper, mm; they are sharp in the body.
    pub radius: Option<f64>,
}

impl Rib {
    /// No part of its footprint lies further from its middle than this, for a strip of a width, mm.
    pub(in crate::sheet) fn reach(&self, strip: f64) -> f64 {
        let [one, two] = self.sizes.legs;
        // No place lies deeper under its ridge than the legs are long, and its sides lean by its draft.
        strip + one + two + self.sizes.width + (one + two) * self.sizes.draft.tan()
    }

    /// What it is: "flat rib 12 mm wide, 25 mm and 25 mm from the mould lines, draft 15 deg".
    pub fn says(&self, unit: LengthUnit) -> String {
        let length = |value: f64| unit.says(Amount::Length, value, 4);
        let ridge = if self.sizes.is_round { "round" } else { "flat" };
        let paper = self.radius.map_or(String::new(), |radius| format!(", edges R{}", length(radius)));
        format!(
            "{ridge} rib {} wide, {} and {} from the mould lines, draft {} deg{paper}",
            length(self.sizes.width),
            length(self.legs[0]),
            length(self.legs[1]),
            decimal(self.sizes.draft.to_degrees(), 3)
        )
    }
}
