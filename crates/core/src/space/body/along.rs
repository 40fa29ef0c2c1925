//! Along the edges of a body: places, ways and lengths.

use crate::quantity::tolerance::NOTHING;
use crate::space::{Point3, Vector3};

use super::curve::{GAUSS, Round, STRETCH, cubic};
use super::{Body, Curve};

impl Body {
    /// An edge that is part of a circle or an ellipse, as its round; `None` for others.
    pub(in crate::space) fn round(&self, edge: usize) -> Option<Round> {
        let edge = &self.edges[edge];
        let (from, to) = (self.corners[edge.from], self.corners[edge.to]);
        let (centre, first, second) = match &edge.curve {
            Curve::Circle { centre, axis, radius } => {
                let first = (from - *centre).unit();
                (*centre, first * *radius, axis.cross(first) * *radius)
            }
            Curve::Ellipse { centre, axis, major, long, short } => {
                (*centre, *major * *long, axis.cross(*major) * *short)
            }
            _ => return None,
        };
        let turn_of = |place: Point3| {
            let arm = place - centre;
            (arm.dot(second) / second.dot(second)).atan2(arm.dot(first) / first.dot(first))
        };
        let start = turn_of(from);
        let sweep = if edge.from == edge.to {
            std::f64::consts::TAU
        } else {
            let turn = (turn_of(to) - start).rem_euclid(std::f64::consts::TAU);
            if turn < NOTHING { std::f64::consts::TAU } else { turn }
        };
        Some(Round { centre, first, second, from: start, sweep })
    }

    /// Walks an edge from its start: hands out places on it with the displacement that each stands for.
    pub(super) fn walk(&self, edge: usize, mut each: impl FnMut(Point3, Vector3)) {
        let own = &self.edges[edge];
        match &own.curve {
            Curve::Line => {
                let (from, to) = (self.corners[own.from], self.corners[own.to]);
                for (share, weight) in GAUSS {
                    each(from + (to - from) * share, (to - from) * weight);
                }
            }
            Curve::Circle { .. } | Curve::Ellipse { .. } => {
                let Some(round) = self.round(edge) else { return };
                let parts = (round.sweep / STRETCH).ceil().max(1.0);
                let step = round.sweep / parts;
                for part in 0..parts as usize {
                    for (share, weight) in GAUSS {
                        let turn = (part as f64 + share) * step;
                        each(round.at(turn), round.slope(turn) * (step * weight));
                    }
                }
            }
            Curve::Cubic(points) => {
                for piece in points.windows(4).step_by(3) {
                    for (share, weight) in GAUSS {
                        let (place, slope) = cubic(piece, share);
                        each(place, slope * weight);
                    }
                }
            }
        }
    }
}
