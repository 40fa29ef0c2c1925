//! When the head is where: speeds, accelerations, and slowing down for corners.

use steelk_core::plane::{Segment, Vector};

use crate::machine::{Machine, Move, MoveKind};

/// Directions that differ by less than this are taken without slowing down, radians: 3 deg.
const SMOOTH: f64 = 0.052;

fn direction(way: &Segment, at_end: bool) -> Vector {
    if way.is_line() {
        return (way.end - way.start).unit();
    }
    let arm = if at_end { way.end } else { way.start } - way.centre();
    (if way.bulge > 0.0 { arm.left() } else { arm.right() }).unit()
}

/// Gives every move its start and end. Speed at a corner is nought; on an arc no more than the acceleration holds; within
/// a move it rises and falls evenly.
pub(crate) fn times(moves: &mut [Move], machine: &Machine) {
    let count = moves.len();
    let lengths: Vec<f64> = moves.iter().map(|one| one.way.length()).collect();
    let most: Vec<f64> = moves
        .iter()
        .map(|one| {
            if one.way.is_line() { one.speed } else { one.speed.min((machine.acceleration * one.way.radius()).sqrt()) }
        })
        .collect();
    // Speed at the start of each move, at most.
    let mut entry = vec![0.0; count + 1];
    for at in 1..count {
        let (before, now) = (&moves[at - 1], &moves[at]);
        let smooth = before.kind == now.kind
            && now.kind != MoveKind::Wait
            && lengths[at - 1] > 0.0
            && lengths[at] > 0.0
            && direction(&before.way, true).dot(direction(&now.way, false)) > SMOOTH.cos();
        entry[at] = if smooth { most[at - 1].min(most[at]) } else { 0.0 };
    }
    let reach = |speed: f64, length: f64| (speed * speed + 2.0 * machine.acceleration * length).sqrt();
    for at in (0..count).rev() {
        entry[at] = f64::min(entry[at], reach(entry[at + 1], lengths[at]));
    }
    for at in 0..count {
        entry[at + 1] = f64::min(entry[at + 1], reach(entry[at], lengths[at]));
    }
    let mut clock = 0.0;
    for at in 0..count {
        moves[at].start = clock;
        clock += if moves[at].kind == MoveKind::Wait {
            moves[at].speed
        } else {
            trapezoid(entry[at], entry[at + 1], most[at], lengths[at], machine.acceleration)
        };
        moves[at].end = clock;
    }
}

/// Time over a length from one speed to another, no faster than `most`.
fn trapezoid(from: f64, to: f64, most: f64, length: f64, acceleration: f64) -> f64 {
    if length <= 0.0 {
        return 0.0;
    }
    let (from, to) = (from.min(most), to.min(most));
    let ramps = (2.0 * most * most - from * from - to * to) / (2.0 * acceleration);
    if ramps <= length {
        return (2.0 * most - from - to) / acceleration + (length - ramps) / most;
    }
    let peak = ((2.0 * acceleration * length + from * from + to * to) / 2.0).sqrt();
    (2.0 * peak - from - to) / acceleration
}

#[cfg(test)]
mod tests {
    use super::trapezoid;

    #[test]
    fn a_long_way_takes_its_length_over_its_speed_and_the_ramps() {
        // From rest to rest at 100 mm/s, 1000 mm/s2: 0.1 s up, 0.1 s down over 10 mm together, 90 mm at speed.
        assert!((trapezoid(0.0, 0.0, 100.0, 100.0, 1000.0) - 1.1).abs() < 1e-12);
    }

    #[test]
    fn a_short_way_never_reaches_its_speed() {
        // 2 sqrt(s / a) for s = 4 mm, a = 1000 mm/s2.
        assert!((trapezoid(0.0, 0.0, 100.0, 4.0, 1000.0) - 2.0 * (4.0f64 / 1000.0).sqrt()).abs() < 1e-12);
    }
}
