//! Mitres turned to share a cut: pieces with the same mitre at both ends lie side by side, every other one turned, so that the
//! slant of one is the slant of the next.

use super::plan::nest_straight;
use super::{BarPiece, BarProblem, BarResult, NestError, NestProgress};

/// Mitres whose slants differ by less share a cut, mm.
const ALIKE: f64 = 0.05;

/// Solves a list. Where pieces can be turned to share their cuts it is solved both ways and the better is taken; the bounds
/// then hold for every plan that turns them too. `go_on` is asked between rounds, so that a caller can show progress, end
/// it, or bound its time; without it the search ends by itself after a bounded number of rounds.
///
/// # Errors
/// [`NestError`]: no bars, sizes that cannot be, pieces longer than every bar, stock that does not reach.
pub fn nest(problem: &BarProblem, go_on: &mut dyn FnMut(NestProgress) -> bool) -> Result<BarResult, NestError> {
    let straight = nest_straight(problem, go_on)?;
    let Some(slant) = commonest(&problem.pieces) else { return Ok(straight) };
    let shares = |piece: &BarPiece| (piece.shared - slant).abs() < ALIKE && piece.shared > 0.0;
    let turned = |grip: f64| BarProblem {
        grip,
        pieces: problem
            .pieces
            .iter()
            .map(|piece| {
                let taken = if shares(piece) { slant } else { 0.0 };
                BarPiece { length: piece.length - taken, shared: 0.0, ..piece.clone() }
            })
            .collect(),
        ..problem.clone()
    };
    // A row of them is one slant longer than its pieces less their slants: room for it is kept on every bar.
    let mut best = straight;
    if let Ok(found) = nest_straight(&turned(problem.grip + slant), go_on) {
        let better = found.length_used < best.length_used - 0.01
            || (found.length_used < best.length_used + 0.01 && found.bars_used < best.bars_used);
        if better {
            let marks: Vec<String> =
                problem.pieces.iter().filter(|piece| shares(piece)).map(|piece| piece.mark.clone()).collect();
            best = BarResult { turned: marks, length_cut: best.length_cut, ..found };
            for bar in &mut best.plan {
                // Those that share lie side by side.
                bar.marks.sort_by_key(|mark| !best.turned.contains(mark));
            }
        }
    }
    // No plan, turned or not, does with less than the shortened pieces would on whole bars.
    let bound = nest_straight(&turned(problem.grip), &mut |progress| progress.rounds == 0 && go_on(progress))?;
    best.lower_bound = bound.lower_bound.min(best.bars_used);
    best.length_bound = bound.length_bound.min(best.length_used);
    best.optimal = best.length_used < best.length_bound + 0.01 && best.bars_used == best.lower_bound;
    Ok(best)
}

/// The slant that most pieces have; `None` where fewer than two have one.
fn commonest(pieces: &[BarPiece]) -> Option<f64> {
    let count = |slant: f64| -> usize {
        pieces.iter().filter(|piece| (piece.shared - slant).abs() < ALIKE).map(|piece| piece.quantity).sum()
    };
    let best =
        pieces.iter().map(|piece| piece.shared).filter(|slant| *slant > 0.1).max_by_key(|slant| count(*slant))?;
    (count(best) > 1 && pieces.iter().all(|piece| piece.length > piece.shared)).then_some(best)
}
