//! The order of cuts: nearest first, then shortened by turning stretches round (2-opt), with a bound on the work. Same
//! input, same order.

use crate::patience;
use crate::plane::Point;
use crate::quantity::tolerance::ROUNDING;

/// The least side of a cell, mm: all stops may be one place.
const LEAST_CELL: f64 = 1e-3;

/// A stop: where the head comes to, and where it leaves from.
#[derive(Clone, Copy, Debug)]
pub struct Stop {
    pub come: Point,
    pub leave: Point,
}

/// Candidates for each stop's neighbours; more give little.
const NEIGHBOURS: usize = 10;
/// Bound on elements moved while improving: some tenths of a second at most.
const MOST_MOVES: usize = 60_000_000;

/// Length of the way from `home` through the stops in this order and back, mm.
pub fn travel(home: Point, stops: &[Stop], order: &[usize]) -> f64 {
    let mut here = home;
    let mut sum = 0.0;
    for &at in order {
        sum += here.distance(stops[at].come);
        here = stops[at].leave;
    }
    sum + here.distance(home)
}

/// An order of the stops whose way from `home` and back is short.
pub fn shorten(home: Point, stops: &[Stop]) -> Vec<usize> {
    if stops.len() < 2 {
        return (0..stops.len()).collect();
    }
    let grid = Grid::new(stops);
    let mut order = nearest_first(home, stops, &grid);
    improve(home, stops, &grid, &mut order);
    let listed: Vec<usize> = (0..stops.len()).collect();
    // Stops along a row are often listed in the best order already.
    if travel(home, stops, &listed) < travel(home, stops, &order) { listed } else { order }
}

/// Stops in square cells.
struct Grid {
    low: Point,
    cell: f64,
    columns: usize,
    rows: usize,
    cells: Vec<Vec<usize>>,
}

impl Grid {
    fn new(stops: &[Stop]) -> Grid {
        let mut box_ = crate::plane::Box2::EMPTY;
        stops.iter().for_each(|stop| box_.hold(stop.come));
        let cell = (box_.width().max(box_.height()) / (stops.len() as f64).sqrt()).max(LEAST_CELL);
        let columns = (box_.width() / cell) as usize + 1;
        let rows = (box_.height() / cell) as usize + 1;
        let mut grid = Grid { low: box_.low, cell, columns, rows, cells: vec![Vec::new(); columns * rows] };
        for (at, stop) in stops.iter().enumerate() {
            let (column, row) = grid.of(stop.come);
            grid.cells[row * columns + column].push(at);
        }
        grid
    }

    fn of(&self, point: Point) -> (usize, usize) {
        let along = |value: f64, count: usize| ((value / self.cell).max(0.0) as usize).min(count - 1);
        (along(point.x - self.low.x, self.columns), along(point.y - self.low.y, self.rows))
    }

    /// Visits rings of cells about a point, nearest first, until told to stop: `visit(members, least distance)`.
    fn rings(&self, cells: &[Vec<usize>], point: Point, mut visit: impl FnMut(&[usize], f64) -> bool) {
        let (column, row) = self.of(point);
        let most = self.columns.max(self.rows);
        for ring in 0..=most {
            // Everything in this ring is at least so far away.
            let least = (ring as f64 - 1.0).max(0.0) * self.cell;
            let (left, right) = (column as isize - ring as isize, column as isize + ring as isize);
            let (low, high) = (row as isize - ring as isize, row as isize + ring as isize);
            for y in low.max(0)..=high.min(self.rows as isize - 1) {
                let whole = y == low || y == high;
                let step = if whole || ring == 0 { 1 } else { (right - left) as usize };
                for x in (left..=right).step_by(step.max(1)) {
                    if (0..self.columns as isize).contains(&x)
                        && !visit(&cells[y as usize * self.columns + x as usize], least)
                    {
                        return;
                    }
                }
            }
        }
    }
}

fn nearest_first(home: Point, stops: &[Stop], grid: &Grid) -> Vec<usize> {
    // What is left of each cell, so that emptied cells cost nothing.
    let mut left = grid.cells.clone();
    let mut order = Vec::with_capacity(stops.len());
    let mut here = home;
    for _ in 0..stops.len() {
        patience::check();
        let mut best: Option<(f64, usize)> = None;
        grid.rings(&left, here, |members, least| {
            if best.is_some_and(|(away, _)| away <= least) {
                return false;
            }
            for &at in members {
                let away = here.distance(stops[at].come);
                if best.is_none_or(|(known, other)| (away, at) < (known, other)) {
                    best = Some((away, at));
                }
            }
            true
        });
        // There is always one left: the loop runs once a stop.
        let Some((_, at)) = best else { break };
        let (column, row) = grid.of(stops[at].come);
        left[row * grid.columns + column].retain(|&one| one != at);
        order.push(at);
        here = stops[at].leave;
    }
    order
}

/// Swaps two legs of the way wherever that shortens it, looking at near stops only.
fn improve(home: Point, stops: &[Stop], grid: &Grid, order: &mut [usize]) {
    let count = order.len();
    let mut place = vec![0; count];
    order.iter().enumerate().for_each(|(at, &stop)| place[stop] = at);
    let near: Vec<Vec<usize>> = (0..count)
        .map(|at| {
            let from = stops[at].leave;
            let mut found: Vec<(f64, usize)> = Vec::new();
            grid.rings(&grid.cells, from, |members, least| {
                if found.len() >= NEIGHBOURS && found[NEIGHBOURS - 1].0 <= least {
                    return false;
                }
                found
                    .extend(members.iter().filter(|&&one| one != at).map(|&one| (from.distance(stops[one].come), one)));
                found.sort_by(|one, two| one.0.total_cmp(&two.0).then(one.1.cmp(&two.1)));
                true
            });
            found.into_iter().take(NEIGHBOURS).map(|(_, one)| one).collect()
        })
        .collect();
    // A stop's two places lie within one lead of each other; the middle serves for turning stretches round.
    let leave = |order: &[usize], at: usize| if at == 0 { home } else { stops[order[at - 1]].leave };
    let come = |order: &[usize], at: usize| if at == count { home } else { stops[order[at]].come };
    let mut moved = 0;
    let mut again = true;
    while again && moved < MOST_MOVES {
        again = false;
        for from in 0..count {
            patience::check();
            // The leg into place i = place of `from` + 1 and the leg into place j + 1, with the stretch i..=j turned.
            for &to in &near[order[from]] {
                let (a, b) = (from, place[to]);
                let (i, j) = if a < b { (a + 1, b) } else { (b, a.saturating_sub(1)) };
                if i >= j || j >= count {
                    continue;
                }
                let before =
                    leave(order, i).distance(come(order, i)) + stops[order[j]].leave.distance(come(order, j + 1));
                let after =
                    leave(order, i).distance(stops[order[j]].come) + stops[order[i]].leave.distance(come(order, j + 1));
                if after + ROUNDING >= before {
                    continue;
                }
                // Turned stretches come in where they left: with leads far shorter than the legs it hardly matters, but
                // the whole is only taken when it is shorter indeed.
                let inner = |order: &[usize]| -> f64 {
                    order[i..=j].windows(2).map(|pair| stops[pair[0]].leave.distance(stops[pair[1]].come)).sum()
                };
                let old = inner(order);
                order[i..=j].reverse();
                moved += 2 * (j - i + 1);
                if after + inner(order) + ROUNDING >= before + old {
                    order[i..=j].reverse();
                } else {
                    for at in i..=j {
                        place[order[at]] = at;
                    }
                    again = true;
                }
                if moved >= MOST_MOVES {
                    return;
                }
            }
        }
    }
}
