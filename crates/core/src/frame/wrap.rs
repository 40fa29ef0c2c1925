//! The wrap template of a coped round tube: its end unrolled over the outside, at 1:1.

use crate::plane::Point;
use crate::quantity::tolerance::NO_TURN;
use crate::work::frame::OneEnd;

use super::member::Member;

/// A wrap template: the curve of the cut over the unrolled outside.
#[derive(Clone, Debug, PartialEq)]
pub struct Wrap {
    /// Places: along the outside from the seam to the right, seen from outside with the end upward, mm; back from the long
    /// point, mm.
    pub curve: Vec<Point>,
    /// Outside circumference, mm.
    pub around: f64,
    /// Where the section's up is, along the outside, mm.
    pub up_at: f64,
}

/// Steps round the tube.
const STEPS: usize = 180;

/// Whether an end is cut square and no more.
fn is_square(member: &Member, which: OneEnd) -> bool {
    let end = &member.ends[which.at()];
    end.copes.is_empty() && end.planes.iter().all(|cut| cut.angle() < NO_TURN)
}

/// Whether a member has a template for either end.
pub fn has_wrap(member: &Member) -> bool {
    member.region.outer.as_circle().is_some() && OneEnd::BOTH.into_iter().any(|which| !is_square(member, which))
}

/// The template of an end; `None` where the tube is not round or the end is square.
pub fn wrap_template(member: &Member, which: OneEnd) -> Option<Wrap> {
    let (centre, radius) = member.region.outer.as_circle().filter(|_| !is_square(member, which))?;
    let around = std::f64::consts::TAU * radius;
    let long = member.reach(which).0;
    let curve = (0..=STEPS)
        .map(|step| {
            // The paper is wrapped with its print outside and its curve toward the end. Whoever stands before a finish has the
            // section's round running to the right, before a start to the left. The seam lies below either way.
            let way = which.way();
            let turned = way * std::f64::consts::TAU * step as f64 / STEPS as f64 - std::f64::consts::FRAC_PI_2;
            let at = Point::new(centre.x + radius * turned.cos(), centre.y + radius * turned.sin());
            let back = if which.is_finish() { long - member.finishes(at) } else { member.begins(at) - long };
            Point::new(around * step as f64 / STEPS as f64, back)
        })
        .collect();
    Some(Wrap { curve, around, up_at: around / 2.0 })
}
