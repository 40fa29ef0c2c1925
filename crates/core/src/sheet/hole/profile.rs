//! What is round about a hole's axis, from the face that it is worked from: its stretches one under another, the widest at each depth.

use std::f64::consts::PI;

use crate::quantity::tolerance::ROUNDING;

/// What of a hole a stretch is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum HolePart {
    /// The cone under a flat head.
    Countersink,
    /// The room for a head.
    Counterbore,
    /// The drilled hole itself.
    Drill,
    /// What the drill's point leaves.
    Point,
}

/// A stretch of a hole between two depths under the face that it is worked from, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Stretch {
    /// Where it begins.
    pub from: f64,
    /// Where it ends.
    pub to: f64,
    /// Its radius where it begins.
    pub near: f64,
    /// Its radius where it ends.
    pub far: f64,
    /// What it is of.
    pub part: HolePart,
}

impl Stretch {
    /// Its radius at a depth, by its own line.
    pub fn radius(&self, depth: f64) -> f64 {
        self.near + (self.far - self.near) * (depth - self.from) / (self.to - self.from)
    }

    /// Volume, mm3, and the depth of its centre, mm: a frustum of a cone, V = pi h (a2 + ab + b2) / 3, its centre
    /// h (a2 + 2ab + 3b2) / (4 (a2 + ab + b2)) under the end of radius a (standard solid geometry).
    pub fn volume(&self) -> (f64, f64) {
        let (a, b, height) = (self.near, self.far, self.to - self.from);
        let sum = a * a + a * b + b * b;
        let centre = height * (a * a + 2.0 * a * b + 3.0 * b * b) / (4.0 * sum);
        (PI * height * sum / 3.0, self.from + centre)
    }
}

/// Stretches that may lie over each other as stretches one under another: at each depth the widest.
pub(super) fn one_under_another(all: &[Stretch]) -> Vec<Stretch> {
    let mut levels: Vec<f64> = all.iter().flat_map(|one| [one.from, one.to]).collect();
    // Where two are of one radius, the other one is the wider from there.
    for (at, one) in all.iter().enumerate() {
        for two in &all[at + 1..] {
            let (low, high) = (one.from.max(two.from), one.to.min(two.to));
            if high - low < ROUNDING {
                continue;
            }
            let [before, after] = [low, high].map(|depth| one.radius(depth) - two.radius(depth));
            if before * after < 0.0 {
                levels.push(low + (high - low) * before / (before - after));
            }
        }
    }
    levels.sort_by(f64::total_cmp);
    levels.dedup_by(|next, known| *next - *known < ROUNDING);
    let mut found: Vec<(usize, Stretch)> = Vec::new();
    for pair in levels.windows(2) {
        let middle = (pair[0] + pair[1]) / 2.0;
        let over = all.iter().enumerate().filter(|(_, one)| one.from < middle && middle < one.to);
        let Some((of, widest)) = over.max_by(|one, two| one.1.radius(middle).total_cmp(&two.1.radius(middle))) else {
            continue;
        };
        let own = Stretch {
            from: pair[0],
            to: pair[1],
            near: widest.radius(pair[0]),
            far: widest.radius(pair[1]),
            part: widest.part,
        };
        match found.last_mut() {
            Some((known, last)) if *known == of => (last.to, last.far) = (own.to, own.far),
            _ => found.push((of, own)),
        }
    }
    found.into_iter().map(|(_, own)| own).collect()
}
