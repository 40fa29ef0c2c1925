//! What countersinks, counterbores and blind holes take besides the outlines through the sheet. Those that run into each other or out
//! of their metal take what is there once: over each depth the union of their rounds, through the depth by Gauss integration.

use std::f64::consts::{PI, TAU};

use crate::plane::{Box2, GAUSS, Moments, Outline, Point, Region, common, subtract};
use crate::quantity::tolerance::{NOTHING, ROUNDING};
use crate::work::sheet::Face;

use super::patch::{Cluster, clusters};
use super::{Flat, Hole};

/// Volume taken at a place, with the height at which its centroid lies over the lower face, mm3 and mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Taken {
    pub panel: usize,
    pub place: Point,
    pub height: f64,
    pub volume: f64,
}

/// What each head and blind hole of a part takes; clusters that run into each other as one.
pub(super) fn taken(flat: &Flat) -> Vec<Taken> {
    let thickness = flat.thickness;
    let all = clusters(flat).into_iter().map(|cluster| {
        let hole = &flat.holes[cluster.holes[0]];
        if cluster.holes.len() > 1 || cluster.runs_out.is_some() {
            return union(flat, &cluster);
        }
        let height = match hole.work.face {
            Face::Top => thickness - hole.work.removed_depth,
            Face::Bottom => hole.work.removed_depth,
        };
        Taken { panel: hole.panel, place: hole.centre, height, volume: hole.work.removed }
    });
    // A head that lies over what is cut away takes nothing.
    all.filter(|one| one.volume > 0.0).collect()
}

/// What is left of the metal about a cluster, in every node that it reaches.
fn metal_about(flat: &Flat, own: &[&Hole]) -> Vec<Region> {
    let mut around = Box2::EMPTY;
    for hole in own {
        let most = hole.work.profile.first().map_or(0.0, |one| one.near) + 1.0;
        around.hold(Point::new(hole.centre.x - most, hole.centre.y - most));
        around.hold(Point::new(hole.centre.x + most, hole.centre.y + most));
    }
    let (low, high) = (around.low, around.high);
    let corners = [low, Point::new(high.x, low.y), high, Point::new(low.x, high.y)];
    let window = Outline::polygon(&corners.map(|corner| (corner, 0)));
    let near = flat.nodes.iter().filter(|node| node.region.extents().is_near(&around, 0.0));
    near.flat_map(|node| common(&node.region, &window)).collect()
}

/// Area and first moments of what circles take of metal.
fn taken_of(metal: &[Region], circles: &[(Point, f64)]) -> (f64, (f64, f64)) {
    let origin = (0.0, 0.0);
    let mut sum = Moments::default();
    for region in metal {
        let mut left = vec![region.clone()];
        for &(centre, radius) in circles {
            let tool = Outline::circle(centre, radius, 0);
            left = left.iter().flat_map(|one| subtract(one, &tool)).collect();
        }
        sum = sum.plus(&Moments::of_region(region, origin), 1.0);
        sum = left.iter().fold(sum, |sum, one| sum.plus(&Moments::of_region(one, origin), -1.0));
    }
    (sum.area, (sum.x, sum.y))
}

fn union(flat: &Flat, cluster: &Cluster) -> Taken {
    const PARTS: usize = 24;
    let thickness = flat.thickness;
    let own: Vec<&Hole> = cluster.holes.iter().map(|&at| &flat.holes[at]).collect();
    let metal = cluster.runs_out.as_ref().map(|_| metal_about(flat, &own));
    // What goes through is no part of it: that metal is gone from the blank.
    let rings = own.iter().filter(|hole| hole.work.through).filter_map(|hole| hole.outline.as_circle());
    let gone = rings.fold((0.0, 0.0, 0.0), |sum, (at, radius)| {
        let area = PI * radius * radius;
        (sum.0 + area, sum.1 + area * at.x, sum.2 + area * at.y)
    });
    let mut levels: Vec<f64> = own
        .iter()
        .flat_map(|hole| {
            hole.work.profile.iter().flat_map(|s| [s.from, s.to].map(|depth| hole.height(depth, thickness)))
        })
        .collect();
    levels.extend([0.0, thickness]);
    levels.retain(|level| (0.0..=thickness).contains(level));
    levels.sort_by(f64::total_cmp);
    levels.dedup_by(|next, known| *next - *known < ROUNDING);
    let (mut volume, mut x, mut y, mut z) = (0.0, 0.0, 0.0, 0.0);
    for pair in levels.windows(2) {
        let circles_at = |height: f64| -> Vec<(Point, f64)> {
            let all = own.iter().map(|hole| (hole.centre, hole.radius_at(height, thickness)));
            all.filter(|(_, radius)| *radius > NOTHING).collect()
        };
        let ends = [0.25, 0.75].map(|share| circles_at(pair[0] + (pair[1] - pair[0]) * share));
        // Rounds that stay as wide are looked at once.
        let parts = if ends[0] == ends[1] { 1 } else { PARTS };
        let step = (pair[1] - pair[0]) / parts as f64;
        for part in 0..parts {
            for (share, weight) in GAUSS {
                let height = pair[0] + step * (part as f64 + share);
                let circles = circles_at(height);
                let (area, first) = match &metal {
                    Some(metal) => taken_of(metal, &circles),
                    None => {
                        let (area, first) = union_of(&circles);
                        (area - gone.0, (first.0 - gone.1, first.1 - gone.2))
                    }
                };
                let thin = step * weight;
                volume += area * thin;
                x += first.0 * thin;
                y += first.1 * thin;
                z += area * height * thin;
            }
        }
    }
    let scale = 1.0 / volume.max(f64::MIN_POSITIVE);
    Taken { panel: own[0].panel, place: Point::new(x * scale, y * scale), height: z * scale, volume }
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
