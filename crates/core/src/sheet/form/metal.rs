//! What the metal of a form differs by from the flat metal in its place: by formula and by slices, never by its faces.

use std::f64::consts::PI;

use crate::plane::{GAUSS, Moments, Outline};

use super::offset::inward;
use super::{Form, Pressed};

/// What a form stands for beside the flat metal in its place, in its panel's own coordinates (flat, and height over the lower face).
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct FormMass {
    /// How much more metal its body has, mm3. A press neither makes nor takes metal: this is what thinning, which is not computed,
    /// would make up.
    pub volume: f64,
    /// Its first moments, mm4.
    pub first: [f64; 3],
}

impl FormMass {
    fn add(&mut self, volume: f64, at: [f64; 3]) {
        self.volume += volume;
        (0..3).for_each(|axis| self.first[axis] += volume * at[axis]);
    }
}

/// The four outlines of a raised field: at the upper face and round its crown, at the lower face and round the hollow's floor.
///
/// # Errors
/// As [`inward`].
pub(in crate::sheet) fn rings(
    outline: &Outline,
    thickness: f64,
    height: f64,
    side: f64,
) -> Result<[Outline; 4], String> {
    let run = height / side.tan();
    // Sheet of one thickness all over: the inner corners lie on the halving lines.
    let shift = thickness * (side / 2.0).tan();
    Ok([outline.clone(), inward(outline, run)?, inward(outline, shift)?, inward(outline, shift + run)?])
}

impl Form {
    /// What its metal differs by, for a sheet of a thickness, mm.
    pub fn mass(&self, thickness: f64) -> FormMass {
        let mut mass = FormMass::default();
        match &self.shape {
            Pressed::Raised { height, side, .. } => self.raised(thickness, *height, *side, &mut mass),
            Pressed::KnockOut { height } => {
                // What is pushed out of one face is gone from the other.
                let volume = self.outline.area() * height;
                let [x, y] = [self.centre.x, self.centre.y];
                mass.add(volume, [x, y, thickness + height / 2.0]);
                mass.add(-volume, [x, y, height / 2.0]);
            }
            Pressed::Extruded { inside, wall, height, pilot, .. } => {
                let area = |radius: f64| PI * radius * radius;
                let [x, y] = [self.centre.x, self.centre.y];
                let collar = area(inside / 2.0 + wall) - area(inside / 2.0);
                mass.add(collar * height, [x, y, thickness + height / 2.0]);
                mass.add(-(area(inside / 2.0) - area(pilot / 2.0)) * thickness, [x, y, thickness / 2.0]);
            }
            Pressed::Louvre { length, width, height, side } => {
                self.louvre(thickness, (*length, *width, *height, *side), &mut mass);
            }
        }
        if !self.up {
            // As seen from below.
            mass.first[2] = mass.volume * thickness - mass.first[2];
        }
        mass
    }

    fn raised(&self, thickness: f64, height: f64, side: f64, mass: &mut FormMass) {
        let shift = thickness * (side / 2.0).tan();
        for (sign, from, begin) in [(1.0, thickness, 0.0), (-1.0, 0.0, shift)] {
            for (share, weight) in GAUSS {
                let Ok(slice) = inward(&self.outline, begin + height * share / side.tan()) else { continue };
                let own = Moments::of_outline(&slice, (0.0, 0.0));
                let thin = sign * weight * height;
                mass.add(own.area * thin, [own.x / own.area, own.y / own.area, from + height * share]);
            }
        }
    }

    /// Slices square to its y: over the sheet what its roof and its ends hold, less the hollow under them. A slice is a trapezoid on its
    /// long side.
    fn louvre(&self, thickness: f64, (length, width, height, side): (f64, f64, f64, f64), mass: &mut FormMass) {
        let roof = (height / width).atan();
        let (shift, ends) = (thickness * (roof / 2.0).tan(), thickness * (side / 2.0).tan());
        for (sign, from, begin, half) in [(1.0, thickness, 0.0, length / 2.0), (-1.0, 0.0, shift, length / 2.0 - ends)]
        {
            let deep = width - begin;
            for (share, weight) in GAUSS {
                let up = deep * share * roof.tan();
                let lean = up / side.tan();
                let area = up * (2.0 * half - lean);
                // Of a trapezoid with sides a and b, h (a + 2b) / (3 (a + b)) over a (standard plane geometry).
                let (a, b) = (2.0 * half, 2.0 * (half - lean));
                let over = up * (a + 2.0 * b) / (3.0 * (a + b));
                let across = begin + deep * share - width / 2.0;
                let at = self.centre + self.ways[1] * across;
                mass.add(sign * area * weight * deep, [at.x, at.y, from + over]);
            }
        }
    }
}
