//! A member as the saw operator sees it: from the side that shows its cuts best, the middle shortened.

use crate::plane::{Point, Vector};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::work::frame::OneEnd;

use super::end::heights;
use super::faces::faces;
use super::member::Member;

/// Sine of how far a cut leans before it is looked at from its side.
const LEANS: f64 = 1e-3;

/// A picture of a piece: a closed polygon, x along the member from its long point, y up. `broken` says where the middle was
/// taken out, along x.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PiecePicture {
    /// Corners, mm.
    pub outline: Vec<Point>,
    /// Where the middle was shortened.
    pub broken: Option<f64>,
    /// Length and depth of the picture, mm.
    pub size: (f64, f64),
}

/// The longest picture, in depths of the section.
const LONGEST: f64 = 11.0;

/// The face that says most of a notched, slotted or coped member, as it is cut.
fn face_picture(member: &Member) -> Option<PiecePicture> {
    let shown = faces(member).into_iter().filter_map(|face| Some((face.contour(member)?, face.height)));
    // The first of those with as many corners.
    let (contour, depth) = shown.reduce(|best, next| if next.0.len() > best.0.len() { next } else { best })?;
    let total = member.length();
    let deepest = contour.iter().map(|at| at.x.min(total - at.x)).fold(0.0, f64::max);
    let cut = (total - (LONGEST * depth).max(2.5 * deepest)).max(0.0);
    let place = |at: Point| if at.x > total / 2.0 { Point::new(at.x - cut, at.y) } else { at };
    let broken = (cut > 0.0).then_some((total - cut) / 2.0);
    Some(PiecePicture { outline: contour.into_iter().map(place).collect(), broken, size: (total - cut, depth) })
}

/// Draws a member. A bent one is drawn straight.
pub fn piece_picture(member: &Member) -> PiecePicture {
    if member.is_straight()
        && member.has_cutouts()
        && let Some(picture) = face_picture(member)
    {
        return picture;
    }
    let lateral = |which: OneEnd| {
        let end = &member.ends[which.at()];
        end.planes
            .iter()
            .map(|cut| Vector::new(cut.normal.x, cut.normal.y))
            .chain(end.copes.iter().map(|cope| Vector::new(cope.axis.y, -cope.axis.x)))
            .find(|way| way.length() > LEANS)
    };
    let side =
        lateral(OneEnd::Start).or_else(|| lateral(OneEnd::Finish)).map_or(Vector::new(0.0, 1.0), |way| way.unit());
    let total = member.length() - 2.0 * member.grip;
    let [begin, finish] = OneEnd::BOTH.map(|which| member.reach(which).0);
    let mut rows: Vec<(f64, f64, f64)> = member
        .region
        .outer
        .flatten(0.05)
        .into_iter()
        .map(|at| {
            let from = member.begins(at) - begin;
            let to = total + member.finishes(at) - finish;
            (at.x * side.x + at.y * side.y, from, to)
        })
        .collect();
    rows.sort_by(|one, two| one.0.total_cmp(&two.0));
    // At each level the outside is met in front and behind: what is seen is the further of the two.
    let up = side.left();
    let turned = member.region.outer.moved(|at| {
        let arm = at - Point::default();
        Point::new(side.dot(arm), up.dot(arm))
    });
    let mut levels: Vec<(f64, f64, f64)> = Vec::new();
    for (x, from, to) in rows {
        if levels.last().is_some_and(|last| (last.0 - x).abs() < MODELLING_TOLERANCE) {
            let last = levels.len() - 1;
            levels[last].1 = levels[last].1.min(from);
            levels[last].2 = levels[last].2.max(to);
            continue;
        }
        let met = heights(&turned, x).into_iter().map(|level| Point::default() + side * x + up * level);
        let (from, to) = met.fold((from, to), |(from, to), at| {
            (from.min(member.begins(at) - begin), to.max(total + member.finishes(at) - finish))
        });
        levels.push((x, from, to));
    }
    let (Some(first), Some(last)) = (levels.first().copied(), levels.last().copied()) else {
        return PiecePicture::default();
    };
    let depth = (last.0 - first.0).max(1.0);
    let longest = levels.iter().map(|level| level.1.max(total - level.2)).fold(0.0, f64::max);
    let most = (LONGEST * depth).max(2.5 * longest);
    let cut = (total - most).max(0.0);
    let place = |t: f64| if t > total / 2.0 { t - cut } else { t };
    let mut outline: Vec<Point> = levels.iter().map(|&(x, _, to)| Point::new(place(to), x - first.0)).collect();
    outline.extend(levels.iter().rev().map(|&(x, from, _)| Point::new(place(from), x - first.0)));
    PiecePicture { outline, broken: (cut > 0.0).then_some((total - cut) / 2.0), size: (total - cut, depth) }
}
