//! What countersinks, counterbores and blind holes take besides the outlines through the sheet. Those that run into each other
//! take what they share once: over each depth the union of their rounds, through the depth by Gauss integration.

use std::collections::HashMap;
use std::f64::consts::{PI, TAU};

use crate::plane::{GAUSS, Point};
use crate::quantity::tolerance::{NOTHING, ROUNDING};
use crate::work::sheet::Face;

use super::{Flat, Hole};

/// Volume taken at a place, with the height at which its centroid lies over the lower face, mm3 and mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Taken {
    pub panel: usize,
    pub place: Point,
    pub height: f64,
    pub volume: f64,
}

/// A round hole's radius over the height above the lower face, in stretches (low, high, radius at each).
struct Rounds {
    centre: Point,
    stretches: Vec<[f64; 4]>,
    most: f64,
}

impl Rounds {
    fn of(hole: &Hole, thickness: f64) -> Option<Rounds> {
        let mut stretches: Vec<[f64; 4]> = hole
            .work
            .rounds
            .iter()
            .map(|&[from, to, one, two]| match hole.work.face {
                Face::Top => [thickness - to, thickness - from, two, one],
                Face::Bottom => [from, to, one, two],
            })
            .collect();
        if hole.work.through {
            let (_, drill) = hole.outline.as_circle()?;
            stretches.push([0.0, thickness, drill, drill]);
        }
        let most = stretches.iter().fold(0.0, |most: f64, one| most.max(one[2]).max(one[3]));
        Some(Rounds { centre: hole.centre, stretches, most })
    }

    fn radius(&self, height: f64) -> f64 {
        self.stretches
            .iter()
            .filter(|[low, high, ..]| (*low..=*high).contains(&height))
            .map(|[low, high, one, two]| one + (two - one) * (height - low) / (high - low).max(NOTHING))
            .fold(0.0, f64::max)
    }
}

/// What each head and blind hole of a part takes; clusters that run into each other as one.
pub(super) fn taken(flat: &Flat) -> Vec<Taken> {
    let thickness = flat.thickness;
    let height_of = |hole: &Hole| match hole.work.face {
        Face::Top => thickness - hole.work.removed_depth,
        Face::Bottom => hole.work.removed_depth,
    };
    let mut all = Vec::new();
    let headed: Vec<&Hole> = flat.holes.iter().filter(|hole| hole.work.removed > 0.0).collect();
    if headed.is_empty() {
        return all;
    }
    // A head may reach over a plain hole beside it too.
    let near = |one: &Rounds, two: &Rounds| one.centre.distance(two.centre) < one.most + two.most - ROUNDING;
    let rounds: Vec<Option<Rounds>> = flat.holes.iter().map(|hole| Rounds::of(hole, thickness)).collect();
    // Holes by cells as wide as the largest: what is near lies in the cells around.
    let wide = rounds.iter().flatten().fold(1.0, |most: f64, one| most.max(2.0 * one.most));
    let cell = |at: Point| ((at.x / wide).floor() as i64, (at.y / wide).floor() as i64);
    let mut cells: HashMap<(i64, i64), Vec<usize>> = HashMap::new();
    for (at, hole) in flat.holes.iter().enumerate() {
        cells.entry(cell(hole.centre)).or_default().push(at);
    }
    let mut used = vec![false; flat.holes.len()];
    for first in 0..flat.holes.len() {
        if used[first] || flat.holes[first].work.removed <= 0.0 {
            continue;
        }
        let mut cluster = vec![first];
        used[first] = true;
        let mut at = 0;
        while at < cluster.len() {
            let here = cluster[at];
            at += 1;
            let (x, y) = cell(flat.holes[here].centre);
            let around = (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (x + dx, y + dy)));
            for &other in around.filter_map(|cell| cells.get(&cell)).flatten() {
                let apart = used[other] || flat.holes[other].panel != flat.holes[here].panel;
                let (false, Some(one), Some(two)) = (apart, &rounds[here], &rounds[other]) else { continue };
                if near(one, two) {
                    used[other] = true;
                    cluster.push(other);
                }
            }
        }
        let hole = &flat.holes[first];
        if cluster.len() == 1 {
            all.push(Taken {
                panel: hole.panel,
                place: hole.centre,
                height: height_of(hole),
                volume: hole.work.removed,
            });
            continue;
        }
        let own: Vec<&Rounds> = cluster.iter().filter_map(|&at| rounds[at].as_ref()).collect();
        // What goes through is no part of it: that metal is gone from the blank.
        let through: f64 = cluster
            .iter()
            .filter(|&&at| flat.holes[at].work.through)
            .filter_map(|&at| flat.holes[at].outline.as_circle())
            .map(|(_, radius)| PI * radius * radius)
            .sum();
        all.push(union(&own, through, thickness, hole.panel, &through_centres(flat, &cluster)));
    }
    all
}

/// Area-weighted places of what goes through, to take off the first moments: (area, centre).
fn through_centres(flat: &Flat, cluster: &[usize]) -> Vec<(f64, Point)> {
    let through = cluster.iter().map(|&at| &flat.holes[at]).filter(|hole| hole.work.through);
    through.filter_map(|hole| hole.outline.as_circle().map(|(at, radius)| (PI * radius * radius, at))).collect()
}

fn union(own: &[&Rounds], through: f64, thickness: f64, panel: usize, gone: &[(f64, Point)]) -> Taken {
    const PARTS: usize = 24;
    let mut levels: Vec<f64> = own.iter().flat_map(|one| one.stretches.iter().flat_map(|s| [s[0], s[1]])).collect();
    levels.extend([0.0, thickness]);
    levels.retain(|level| (0.0..=thickness).contains(level));
    levels.sort_by(f64::total_cmp);
    levels.dedup_by(|next, known| *next - *known < ROUNDING);
    let (mut volume, mut x, mut y, mut z) = (0.0, 0.0, 0.0, 0.0);
    let off: (f64, f64) = gone.iter().fold((0.0, 0.0), |sum, (area, at)| (sum.0 + area * at.x, sum.1 + area * at.y));
    for pair in levels.windows(2) {
        let step = (pair[1] - pair[0]) / PARTS as f64;
        for part in 0..PARTS {
            for (share, weight) in GAUSS {
                let height = pair[0] + step * (part as f64 + share);
                let circles: Vec<(Point, f64)> =
                    own.iter().map(|one| (one.centre, one.radius(height))).filter(|(_, r)| *r > NOTHING).collect();
                let (area, first) = union_of(&circles);
                let thin = step * weight;
                volume += (area - through) * thin;
                x += (first.0 - off.0) * thin;
                y += (first.1 - off.1) * thin;
                z += (area - through) * height * thin;
            }
        }
    }
    let scale = 1.0 / volume.max(f64::MIN_POSITIVE);
    Taken { panel, place: Point::new(x * scale, y * scale), height: z * scale, volume }
}

/// Area and first moments of the union of circles: Green's theorem along the arcs that no other circle covers.
pub fn union_of(circles: &[(Point, f64)]) -> (f64, (f64, f64)) {
    let (mut area, mut first) = (0.0, (0.0, 0.0));
    for (at, &(centre, radius)) in circles.iter().enumerate() {
        // Covered spans of the turn.
        let mut covered: Vec<(f64, f64)> = Vec::new();
        let mut hidden = false;
        for (other, &(middle, reach)) in circles.iter().enumerate().filter(|(other, _)| *other != at) {
            let between = middle - centre;
            let apart = between.length();
            let same = apart < ROUNDING && (reach - radius).abs() < ROUNDING;
            if same {
                // One of several alike tells it.
                hidden |= other < at;
            } else if apart + radius <= reach {
                hidden = true;
            } else if apart < radius + reach && apart + reach > radius {
                let cosine = (apart * apart + radius * radius - reach * reach) / (2.0 * apart * radius);
                let half = cosine.clamp(-1.0, 1.0).acos();
                let toward = between.y.atan2(between.x);
                covered.push(((toward - half).rem_euclid(TAU), 2.0 * half));
            }
        }
        if hidden {
            continue;
        }
        let mut spans: Vec<(f64, f64)> = Vec::new();
        for (from, sweep) in covered {
            if from + sweep > TAU {
                spans.extend([(from, TAU), (0.0, from + sweep - TAU)]);
            } else {
                spans.push((from, from + sweep));
            }
        }
        spans.sort_by(|one, two| one.0.total_cmp(&two.0));
        let mut here = 0.0;
        let mut open: Vec<(f64, f64)> = Vec::new();
        for (from, to) in spans {
            if from > here {
                open.push((here, from));
            }
            here = f64::max(here, to);
        }
        if here < TAU {
            open.push((here, TAU));
        }
        for (from, to) in open {
            // Closed forms of the integrals of (x dy - y dx) / 2, x^2 dy / 2 and -y^2 dx / 2 along an arc.
            let ((s0, c0), (s1, c1)) = (from.sin_cos(), to.sin_cos());
            let turn = to - from;
            let (x, y, r) = (centre.x, centre.y, radius);
            area += r * (r * turn + x * (s1 - s0) - y * (c1 - c0)) / 2.0;
            let square_cos = turn / 2.0 + (s1 * c1 - s0 * c0) / 2.0;
            let square_sin = turn / 2.0 - (s1 * c1 - s0 * c0) / 2.0;
            let cube_cos = (s1 - s0) - (s1.powi(3) - s0.powi(3)) / 3.0;
            let cube_sin = -(c1 - c0) + (c1.powi(3) - c0.powi(3)) / 3.0;
            first.0 += r * (x * x * (s1 - s0) + 2.0 * x * r * square_cos + r * r * cube_cos) / 2.0;
            first.1 += r * (-y * y * (c1 - c0) + 2.0 * y * r * square_sin + r * r * cube_sin) / 2.0;
        }
    }
    (area, first)
}
