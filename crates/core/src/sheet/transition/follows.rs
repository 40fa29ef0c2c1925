//! A profile of another height whose sides keep their slopes.

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point};
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::sheet::shape::Laid;
use crate::work::sheet::ProfileMoves;

/// The profile with its bottom (or top) edge moved along its two sides so that it is `height` high, with the working of its width.
///
/// # Errors
/// No straight level edge at that end; sides that meet before it.
pub(super) fn follow(
    laid: &Laid,
    height: f64,
    moves: ProfileMoves,
    unit: LengthUnit,
) -> Result<(Laid, Finding), Finding> {
    let word = if moves == ProfileMoves::Bottom { "bottom" } else { "top" };
    let extents = laid.outer.extents();
    let level = if moves == ProfileMoves::Bottom { extents.low.y } else { extents.high.y };
    let own = extents.height();
    let target = if moves == ProfileMoves::Bottom { level + own - height } else { level - own + height };
    let corners: Vec<Point> = laid.outer.edges.iter().map(|edge| edge.start).collect();
    let count = corners.len();
    let at_level = |at: usize| (corners[at % count].y - level).abs() < MODELLING_TOLERANCE;
    let edge = (0..count).find(|&at| at_level(at) && at_level(at + 1) && laid.outer.edges[at].bulge == 0.0);
    let Some(edge) = edge else {
        return Err(Finding::error(
            format!("the front profile has no level edge at its {word}: no width follows from another height"),
            "Give the rear profile by its own sizes.",
        ));
    };
    let (before, next) = ((edge + count - 1) % count, (edge + 1) % count);
    let straight = [before, next].iter().all(|&at| laid.outer.edges[at].bulge == 0.0);
    let (from, to) = (corners[before], corners[(next + 1) % count]);
    let on_line = |far: Point, near: Point| {
        let rise = near.y - far.y;
        let share = (target - far.y) / rise;
        // Past the far end of the side nothing is left of it.
        (rise.abs() > MODELLING_TOLERANCE && share > MODELLING_TOLERANCE)
            .then(|| Point::new(far.x + (near.x - far.x) * share, target))
    };
    let moved = on_line(from, corners[edge]).zip(on_line(to, corners[next]));
    let Some((a, b)) = moved.filter(|_| straight) else {
        return Err(Finding::error(
            format!(
                "the sides beside the {word} of the front profile do not reach a height of {}",
                length_text(height, unit)
            ),
            "Correct the height, or give the rear profile by its own sizes.",
        ));
    };
    let was = corners[next] - corners[edge];
    if (b - a).dot(was) <= MODELLING_TOLERANCE * was.length() {
        return Err(Finding::error(
            format!("with their slopes kept the sides meet before a height of {}", length_text(height, unit)),
            "Correct the height or the slopes.",
        ));
    }
    let mut rear = laid.clone();
    rear.standing = None;
    rear.outer.edges[edge].start = a;
    rear.outer.edges[next].start = b;
    let lean = |far: Point, near: Point| (near.x - far.x).abs().atan2((near.y - far.y).abs());
    let note = Finding::hint(
        format!(
            "the rear profile is {} high and keeps the slopes of its sides, {} and {} from upright: its {word} is {} wide, {} less the height's difference of {} times their tangents",
            length_text(height, unit),
            angle_text(lean(from, corners[edge])),
            angle_text(lean(to, corners[next])),
            length_text((b - a).length(), unit),
            length_text(was.length(), unit),
            length_text(own - height, unit),
        ),
        "Hold it against the drawing's own width.",
    );
    Ok((rear, note))
}
