//! A rib as it is pressed across a bend.

use crate::plane::{Edge, Outline, Point, Vector};
use crate::quantity::{Amount, LengthUnit, decimal};
use crate::sheet::flat::{Flat, Strip};

use super::section::{BentLegs, Part, RibFault, RibShell, RibSizes, Zone, shells};

/// Straight pieces that a round piece of a rib's rim is drawn in, in the flat.
const DRAWN: usize = 16;

/// A rib across a bend.
#[derive(Clone, Debug, PartialEq)]
pub struct Rib {
    /// Its own name: `rib`, or `rib.3` for one of several.
    pub name: String,
    /// The operation's name.
    pub operation: String,
    /// The bend's name.
    pub bend: String,
    /// Its strip, an index in [`Flat::nodes`].
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

impl Strip {
    /// Its section, in a sheet of this thickness, mm.
    pub(in crate::sheet) fn legs(&self, thickness: f64) -> BentLegs {
        BentLegs { radius: self.radius, thickness, angle: self.angle }
    }

    /// Where a part of a rib's section lies across the strip, mm.
    pub(in crate::sheet) fn across_at(&self, part: Part, at: f64) -> f64 {
        match part {
            Part::First => -at,
            Part::Bend => at / self.angle * self.width,
            Part::Second => self.width + at,
        }
    }
}

impl Rib {
    /// Its two surfaces: over the faces inside the bend, and over the others.
    ///
    /// # Errors
    /// As [`shells`], and where its strip is no bend any more.
    pub fn shells(&self, flat: &Flat) -> Result<[RibShell; 2], RibFault> {
        let strip = flat.nodes[self.strip].strip().ok_or(RibFault::Short(0, 0.0))?;
        shells(&strip.legs(flat.thickness), &self.sizes)
    }

    /// Where it leaves the faces inside the bend, in the flat: all of it lies within. `None` for one that cannot be pressed.
    pub fn footprint(&self, flat: &Flat) -> Option<Outline> {
        let strip = flat.nodes[self.strip].strip()?;
        let [inner, _] = self.shells(flat).ok()?;
        let middle = strip.local(self.centre).0;
        let mut side: Vec<(f64, f64)> = Vec::new();
        for piece in &inner.pieces {
            let straight = piece.zone == Zone::Side && piece.part != Part::Bend;
            let steps = if straight { 1 } else { DRAWN };
            for step in 0..steps {
                let at = piece.from + (piece.to - piece.from) * step as f64 / steps as f64;
                side.push((inner.half_at(inner.depth(piece.part, at)), strip.across_at(piece.part, at)));
            }
        }
        let last = inner.ends[1];
        side.push((inner.half_at(inner.depth(Part::Second, last)), strip.across_at(Part::Second, last)));
        let mirrored = side.iter().rev().map(|&(half, across)| (-half, across));
        let mut corners: Vec<Point> =
            side.iter().copied().chain(mirrored).map(|(off, across)| strip.place(middle + off, across)).collect();
        corners.dedup_by(|next, known| next.distance(*known) < crate::plane::MODELLING_TOLERANCE);
        if corners.len() > 1 && corners[0].distance(corners[corners.len() - 1]) < crate::plane::MODELLING_TOLERANCE {
            corners.pop();
        }
        Some(Outline { edges: corners.into_iter().map(|start| Edge { start, bulge: 0.0, tag: 0 }).collect() })
    }

    /// How much more metal its faces enclose than the bend in their place, mm3, with the moments of that about the strip's own frame
    /// (along, across, up from the lower face before the bend), mm4. By slices square to its ridge, never by its faces.
    pub fn mass(&self, flat: &Flat) -> (f64, [f64; 3]) {
        let (Ok([inner, outer]), Some(strip)) = (self.shells(flat), flat.nodes[self.strip].strip()) else {
            return (0.0, [0.0; 3]);
        };
        let ((one, first), (two, taken)) = (inner.held(), outer.held());
        let volume = one - two;
        let moment: Vector = first - taken;
        let along = strip.local(self.centre).0;
        let up = match strip.direction {
            crate::work::sheet::Direction::Up => volume * flat.thickness + moment.y,
            crate::work::sheet::Direction::Down => -moment.y,
        };
        (volume, [volume * along, moment.x, up])
    }

    /// What it is: "rib 12 mm wide, 25 mm and 25 mm, flat, draft 15 deg".
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
