//! Overall folded size, exact for lines, arcs and bends.

use crate::plane::Vector;
use crate::quantity::tolerance::ROUNDING;
use crate::space::{Box3, Vector3};
use crate::work::sheet::Direction;

use super::patch::form_extents;
use super::{NodeKind, Part};

/// The smallest upright box around the folded part, mm. On straight pieces the greatest stands at a corner, on an arc
/// where it runs square to the direction, on a bend where the cylinder does.
pub fn folded_extents(part: &Part) -> Box3 {
    let mut around = Box3::EMPTY;
    for (at, node) in part.flat.nodes.iter().enumerate() {
        for z in [0.0, part.flat.thickness] {
            for (segment, _) in node.region.outer.segments() {
                around.hold(part.folded.apply(at, segment.start, z));
            }
            match &node.kind {
                NodeKind::Panel => {
                    let Some(motion) = part.folded.motion(at) else { continue };
                    let back = motion.inverse();
                    for axis in [Vector3::new(1.0, 0.0, 0.0), Vector3::new(0.0, 1.0, 0.0), Vector3::new(0.0, 0.0, 1.0)]
                    {
                        let flat = back.direction(axis);
                        let toward = Vector::new(flat.x, flat.y);
                        // Square to the panel a whole arc is as far: its ends tell it.
                        if toward.length() < ROUNDING {
                            continue;
                        }
                        let toward = toward.unit();
                        for (segment, _) in node.region.outer.segments().filter(|(one, _)| !one.is_line()) {
                            for sign in [1.0, -1.0] {
                                let tip = segment.centre() + toward * (sign * segment.radius());
                                if segment.sweeps_over(tip) {
                                    around.hold(part.folded.apply(at, tip, z));
                                }
                            }
                        }
                    }
                }
                NodeKind::Strip(strip) => {
                    let us: Vec<f64> = node.region.outer.edges.iter().map(|edge| strip.local(edge.start).0).collect();
                    let (low, high) =
                        us.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(l, h), &u| (l.min(u), h.max(u)));
                    // Edges that run neither along the bend nor square to it bulge on the cylinder.
                    for (segment, _) in node.region.outer.segments() {
                        let (from, to) = (strip.local(segment.start), strip.local(segment.end));
                        let slanted = (from.0 - to.0).abs() > ROUNDING && (from.1 - to.1).abs() > ROUNDING;
                        if slanted || !segment.is_line() {
                            (1..64).for_each(|step| {
                                around.hold(part.folded.apply(at, segment.at(f64::from(step) / 64.0), z));
                            });
                        }
                    }
                    // Directions of "across" and "up" at the start of the bend, from folded points.
                    let start = part.folded.apply(at, strip.place(low, 0.0), 0.0);
                    let up = (part.folded.apply(at, strip.place(low, 0.0), part.flat.thickness) - start).unit();
                    let along = (part.folded.apply(at, strip.place(high, 0.0), 0.0) - start).unit();
                    let across = {
                        let flat = strip.across;
                        // Handedness of (along, across, up) is that of the strip's own frame in the flat.
                        let turn = strip.along.cross(flat).signum();
                        up.cross(along) * turn
                    };
                    let sign = if strip.direction == Direction::Up { 1.0 } else { -1.0 };
                    for pick in [|v: Vector3| v.x, |v: Vector3| v.y, |v: Vector3| v.z] {
                        // height = a sin(t) - sign b cos(t) along the axis: stationary where tan(t) = -sign a / b... both
                        // roots are tried.
                        let (a, b) = (pick(across), pick(up));
                        let root = a.atan2(-sign * b);
                        let half = std::f64::consts::PI;
                        for turn in [root - half, root, root + half, root + 2.0 * half] {
                            if turn > 0.0 && turn < strip.angle {
                                let v = turn / strip.angle * strip.width;
                                for u in spans_at(&node.region.outer, strip, v) {
                                    around.hold(part.folded.apply(at, strip.place(u, v), z));
                                }
                            }
                        }
                    }
                }
            }
        }
    }
    // What is formed stands over its panel.
    for own in form_extents(&part.flat, &part.folded) {
        around.hold(own.low);
        around.hold(own.high);
    }
    around
}

/// Where the rim of a strip's material crosses the line at v, as u.
fn spans_at(outer: &crate::plane::Outline, strip: &crate::sheet::Strip, v: f64) -> Vec<f64> {
    let mut found = Vec::new();
    for (segment, _) in outer.segments() {
        let pieces = if segment.is_line() { 1 } else { 32 };
        for piece in 0..pieces {
            let at = |share: f64| strip.local(segment.at((f64::from(piece) + share) / f64::from(pieces)));
            let (from, to) = (at(0.0), at(1.0));
            if (from.1 - v) * (to.1 - v) < 0.0 {
                found.push(from.0 + (to.0 - from.0) * (v - from.1) / (to.1 - from.1));
            }
        }
    }
    found
}
