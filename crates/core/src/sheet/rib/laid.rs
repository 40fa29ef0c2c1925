//! A rib in the flat that it is pressed in: its two surfaces, its footprint, its metal.

use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Vector};
use crate::quantity::LengthUnit;
use crate::sheet::flat::{Flat, Strip};
use crate::work::sheet::Direction;

use super::Rib;
use super::section::{BentLegs, Part, RibFault, RibShell, Zone, shells};

/// Straight pieces that a round piece of a rib's rim is drawn in, in the flat.
const DRAWN: usize = 16;

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
            // A round ridge leaves the sheet square to it, so that its width grows with the root of the way from there: places lie closer.
            let (first, last) = (piece.from == inner.ends[0], piece.to == inner.ends[1]);
            for step in 0..steps {
                let even = step as f64 / steps as f64;
                let share = match (piece.part, piece.zone) {
                    (Part::First, Zone::Ridge) if first => even * even,
                    (Part::Second, Zone::Ridge) if last => even * (2.0 - even),
                    _ => even,
                };
                let at = piece.from + (piece.to - piece.from) * share;
                side.push((inner.half_at(inner.depth(piece.part, at)), strip.across_at(piece.part, at)));
            }
        }
        let last = inner.ends[1];
        side.push((inner.half_at(inner.depth(Part::Second, last)), strip.across_at(Part::Second, last)));
        let mirrored = side.iter().rev().map(|&(half, across)| (-half, across));
        let mut corners: Vec<Point> =
            side.iter().copied().chain(mirrored).map(|(off, across)| strip.place(middle + off, across)).collect();
        corners.dedup_by(|next, known| next.distance(*known) < MODELLING_TOLERANCE);
        if corners.len() > 1 && corners[0].distance(corners[corners.len() - 1]) < MODELLING_TOLERANCE {
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
            Direction::Up => volume * flat.thickness + moment.y,
            Direction::Down => -moment.y,
        };
        (volume, [volume * along, moment.x, up])
    }

    /// Whether it stands out of the upper face of the flat: inside a bend up.
    pub fn stands_up(&self, flat: &Flat) -> bool {
        flat.nodes[self.strip].strip().is_some_and(|strip| strip.direction == Direction::Up)
    }

    /// Its name, what it is, across which bend, and which way it stands as the flat lies.
    pub fn words(&self, flat: &Flat, unit: LengthUnit) -> String {
        let way = if self.stands_up(flat) { "up" } else { "down" };
        format!("{} {} across {}, {way}, pressed with the bend", self.name, self.says(unit), self.bend)
    }
}
