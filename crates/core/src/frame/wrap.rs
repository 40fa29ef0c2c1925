//! The wrap template of a coped round tube: its end unrolled over the outside, at 1:1.

use crate::plane::Point;

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
fn is_square(member: &Member, finish: bool) -> bool {
    let end = &member.ends[usize::from(finish)];
    end.copes.is_empty() && end.planes.iter().all(|cut| cut.angle() < 1e-6)
}

/// Whether a member has a template for either end.
pub fn has_wrap(member: &Member) -> bool {
    member.region.outer.as_circle().is_some() && [false, true].into_iter().any(|finish| !is_square(member, finish))
}

/// The template of an end; `None` where the tube is not round or the end is square.
pub fn wrap_template(member: &Member, finish: bool) -> Option<Wrap> {
    let (centre, radius) = member.region.outer.as_circle().filter(|_| !is_square(member, finish))?;
    let around = std::f64::consts::TAU * radius;
    let long = member.reach(finish).0;
    let curve = (0..=STEPS)
        .map(|step| {
            // The paper is wrapped with its print outside and its curve toward the end. Whoever stands before a finish has the
            // section's round running to the right, before a start to the left. The seam lies below either way.
            let way = if finish { 1.0 } else { -1.0 };
            let turned = way * std::f64::consts::TAU * step as f64 / STEPS as f64 - std::f64::consts::FRAC_PI_2;
            let at = Point::new(centre.x + radius * turned.cos(), centre.y + radius * turned.sin());
            let back = if finish { long - member.finishes(at) } else { member.begins(at) - long };
            Point::new(around * step as f64 / STEPS as f64, back)
        })
        .collect();
    Some(Wrap { curve, around, up_at: around / 2.0 })
}
