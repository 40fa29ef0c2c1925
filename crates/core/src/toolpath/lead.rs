//! Leads: how the tool comes onto a contour and leaves it, through waste only.

use std::f64::consts::FRAC_PI_2;

use crate::plane::{Outline, Point, Segment, Vector, segment_distance};
use crate::quantity::tolerance::NOTHING;
use crate::work::cutting::LeadShape;

/// Rounding allowed when a lead is held against the contour, mm.
const SLACK: f64 = 1e-6;

/// Where a lead meets a path: the place and the direction of travel there. Waste lies to the left.
#[derive(Clone, Copy, Debug)]
pub(super) struct Meeting {
    pub place: Point,
    pub ahead: Vector,
}

/// What a lead has to keep clear of.
pub(super) struct Clear<'a> {
    /// The contour that is cut.
    pub contour: &'a Outline,
    /// Half the kerf, mm.
    pub half: f64,
}

impl Clear<'_> {
    /// Whether the tool may run here: nowhere nearer to the contour than half the kerf, and its far end by the whole
    /// kerf, since a pierce is wider than the cut.
    fn takes(&self, lead: &Segment, far: Point) -> bool {
        let near = |one: &Segment, least: f64| {
            self.contour.segments().all(|(edge, _)| segment_distance(one, &edge) >= least - SLACK)
        };
        near(lead, self.half) && near(&Segment::line(far, far), 2.0 * self.half)
    }
}

/// The lead of this length, as travelled.
fn make(at: Meeting, shape: LeadShape, length: f64, arriving: bool) -> Segment {
    let away = at.ahead.left();
    match shape {
        LeadShape::Line => {
            let far = at.place + away * length;
            if arriving { Segment::line(far, at.place) } else { Segment::line(at.place, far) }
        }
        LeadShape::Arc => {
            // A quarter circle to the left of the path that touches it.
            let radius = length / FRAC_PI_2;
            let centre = at.place + away * radius;
            let bulge = (FRAC_PI_2 / 4.0).tan();
            if arriving {
                Segment { start: centre - at.ahead * radius, end: at.place, bulge }
            } else {
                Segment { start: at.place, end: centre + at.ahead * radius, bulge }
            }
        }
    }
}

/// The longest lead up to `length` mm that the waste has room for, by halving; `None` when there is room for none.
pub(super) fn lead(at: Meeting, shape: LeadShape, length: f64, arriving: bool, clear: &Clear<'_>) -> Option<Segment> {
    let mut length = length;
    for _ in 0..6 {
        if length < clear.half {
            return None;
        }
        let found = make(at, shape, length, arriving);
        let far = if arriving { found.start } else { found.end };
        if clear.takes(&found, far) {
            return Some(found);
        }
        length /= 2.0;
    }
    None
}

/// How far it is across the waste from a place of the path to the contour opposite, mm; infinite where there is none.
pub(super) fn across(at: Meeting, contour: &Outline) -> f64 {
    let away = at.ahead.left();
    let points = contour.flatten(0.01);
    let mut least = f64::INFINITY;
    for (place, &one) in points.iter().enumerate() {
        let two = points[(place + 1) % points.len()];
        let along = two - one;
        let turn = away.cross(along);
        if turn.abs() < NOTHING {
            continue;
        }
        let gap = one - at.place;
        let (reach, share) = (gap.cross(along) / turn, gap.cross(away) / turn);
        if reach > SLACK && (0.0..=1.0).contains(&share) {
            least = least.min(reach);
        }
    }
    least
}
