//! The linear relaxation over cutting patterns, by column generation on an explicit basis.

use super::knapsack::{Item, fill, sort};
use crate::patience;
use crate::quantity::tolerance::{NOTHING, ROUNDING, WHOLE};

/// A pattern comes in only where it gains this share of the dearest bar: less is rounding, and would be swapped for ever.
const GAINS: f64 = 1e-9;
/// While a known pattern gains this share of the dearest bar, no new one is looked for.
const GAINS_WELL: f64 = 1e-3;
/// The least that a bar is taken to cost where it is divided by.
const LEAST_COST: f64 = 1e-9;

/// A bar that may be cut, in micrometres.
#[derive(Clone, Debug)]
pub(super) struct Bar {
    /// What it costs.
    pub cost: f64,
    /// What pieces with their kerfs may fill.
    pub room: i64,
    /// How many there are.
    pub most: Option<usize>,
}

/// A pattern: a bar and how many of each piece it gives.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Pattern {
    pub bar: usize,
    pub counts: Vec<(usize, usize)>,
}

/// A solved relaxation.
pub(super) struct Relaxed {
    /// Patterns in use and how often, not whole.
    pub used: Vec<(Pattern, f64)>,
    /// No plan costs less.
    pub bound: f64,
    /// Every demand is met by patterns; otherwise the stock does not reach.
    pub feasible: bool,
    /// It was ended before it was solved: what is used meets the demand in part, and whether the stock reaches is not known.
    pub ended: bool,
}

/// The column of the basis matrix that a variable has.
#[derive(Clone, Debug)]
enum Variable {
    /// Pieces out of nothing, at a price that drives them out.
    Missing(usize),
    /// More of a piece than is wanted.
    Surplus(usize),
    /// Bars that are left.
    Left(usize),
    Pattern(Pattern),
}

/// Solves the relaxation for sizes (micrometres, kerf in) and demands. `pool` holds patterns to start from and takes the new
/// ones. `go_on` is asked at each step: ended early, the bound is the best that was proved by then.
pub(super) fn relax(
    bars: &[Bar],
    sizes: &[i64],
    demand: &[usize],
    pool: &mut Vec<Pattern>,
    go_on: &mut dyn FnMut() -> bool,
) -> Relaxed {
    let pieces = sizes.len();
    let limited: Vec<usize> = (0..bars.len()).filter(|&bar| bars[bar].most.is_some()).collect();
    let rows = pieces + limited.len();
    let row_of_bar = |bar: usize| limited.iter().position(|&one| one == bar).map(|at| pieces + at);
    let dearest = bars.iter().map(|bar| bar.cost).fold(0.0, f64::max);
    let penalty = 1e3 * dearest.max(1.0);
    let wanted: Vec<f64> = demand
        .iter()
        .map(|&count| count as f64)
        .chain(limited.iter().map(|&bar| bars[bar].most.unwrap_or(0) as f64))
        .collect();
    let column = |variable: &Variable| -> Vec<(usize, f64)> {
        match variable {
            Variable::Missing(row) | Variable::Left(row) => vec![(*row, 1.0)],
            Variable::Surplus(row) => vec![(*row, -1.0)],
            Variable::Pattern(pattern) => {
                let mut all: Vec<(usize, f64)> =
                    pattern.counts.iter().map(|&(piece, count)| (piece, count as f64)).collect();
                all.extend(row_of_bar(pattern.bar).map(|row| (row, 1.0)));
                all
            }
        }
    };
    let cost = |variable: &Variable| match variable {
        Variable::Missing(_) => penalty,
        Variable::Surplus(_) | Variable::Left(_) => 0.0,
        Variable::Pattern(pattern) => bars[pattern.bar].cost,
    };
    let mut basis: Vec<Variable> =
        (0..rows).map(|row| if row < pieces { Variable::Missing(row) } else { Variable::Left(row) }).collect();
    let mut inverse: Vec<Vec<f64>> =
        (0..rows).map(|row| (0..rows).map(|at| if at == row { 1.0 } else { 0.0 }).collect()).collect();
    let mut values = wanted.clone();
    let mut bound = 0.0f64;
    let steps = 200 + 40 * rows;
    let fits = |pattern: &Pattern| pattern.counts.iter().all(|&(piece, count)| count <= demand[piece]);
    let mut ended = false;
    for _ in 0..steps {
        patience::check();
        if !go_on() {
            ended = true;
            break;
        }
        // Prices of the rows.
        let mut prices = vec![0.0; rows];
        for (row, variable) in basis.iter().enumerate() {
            let price = cost(variable);
            if price != 0.0 {
                for (at, value) in prices.iter_mut().enumerate() {
                    *value += price * inverse[row][at];
                }
            }
        }
        let worth = |variable: &Variable| -> f64 {
            cost(variable) - column(variable).iter().map(|(row, count)| prices[*row] * count).sum::<f64>()
        };
        let mut entering: Option<(f64, Variable)> = None;
        let offer = |gain: f64, variable: Variable, entering: &mut Option<(f64, Variable)>| {
            if gain < -GAINS * dearest && entering.as_ref().is_none_or(|(known, _)| gain < *known) {
                *entering = Some((gain, variable));
            }
        };
        for row in 0..pieces {
            offer(prices[row], Variable::Surplus(row), &mut entering);
        }
        for (at, _) in limited.iter().enumerate() {
            let variable = Variable::Left(pieces + at);
            offer(worth(&variable), variable, &mut entering);
        }
        // What is known already, before a new pattern is looked for.
        for pattern in pool.iter().filter(|pattern| fits(pattern)) {
            let variable = Variable::Pattern(pattern.clone());
            offer(worth(&variable), variable, &mut entering);
        }
        if entering.as_ref().is_none_or(|(gain, _)| *gain > -GAINS_WELL * dearest) {
            let mut items: Vec<Item> = (0..pieces)
                .filter(|&piece| prices[piece] > NOTHING && demand[piece] > 0)
                .map(|piece| Item { piece, size: sizes[piece], value: prices[piece], most: demand[piece] })
                .collect();
            sort(&mut items);
            // How far prices must come down so that no pattern gains: the bound holds for prices brought down by it.
            let mut ratio = 1.0f64;
            for (index, bar) in bars.iter().enumerate() {
                if bar.most == Some(0) {
                    continue;
                }
                let found = fill(&items, bar.room);
                let own = row_of_bar(index).map_or(0.0, |row| -prices[row]);
                ratio = ratio.max((found.bound - own.max(0.0)) / bar.cost.max(LEAST_COST));
                let counts: Vec<(usize, usize)> = found
                    .counts
                    .iter()
                    .zip(&items)
                    .filter(|(count, _)| **count > 0)
                    .map(|(count, item)| (item.piece, *count))
                    .collect();
                if counts.is_empty() {
                    continue;
                }
                let pattern = Pattern { bar: index, counts };
                let variable = Variable::Pattern(pattern.clone());
                let gain = worth(&variable);
                if gain < -GAINS * dearest {
                    offer(gain, variable, &mut entering);
                    if !pool.contains(&pattern) {
                        pool.push(pattern);
                    }
                }
            }
            // With y the prices: y . pattern <= ratio x cost + own for every pattern, so y / ratio is feasible.
            let level: f64 = (0..rows)
                .map(|row| wanted[row] * if row < pieces { prices[row].max(0.0) } else { prices[row].min(0.0) })
                .sum();
            bound = bound.max(level / ratio);
        }
        let Some((_, variable)) = entering else { break };
        // How the basis answers, and which variable leaves.
        let own = column(&variable);
        let answer: Vec<f64> =
            (0..rows).map(|row| own.iter().map(|(at, count)| inverse[row][*at] * count).sum()).collect();
        let mut leaving: Option<(f64, usize)> = None;
        for row in 0..rows {
            if answer[row] > ROUNDING {
                let ratio = values[row] / answer[row];
                let better = leaving.is_none_or(|(known, at)| {
                    ratio < known - NOTHING || (ratio < known + NOTHING && answer[row] > answer[at])
                });
                if better {
                    leaving = Some((ratio, row));
                }
            }
        }
        let Some((step, row)) = leaving else { break };
        let step = step.max(0.0);
        for at in 0..rows {
            values[at] -= step * answer[at];
        }
        values[row] = step;
        let pivot = answer[row];
        for at in 0..rows {
            inverse[row][at] /= pivot;
        }
        let top = inverse[row].clone();
        for (other, line) in inverse.iter_mut().enumerate() {
            if other != row && answer[other] != 0.0 {
                for (at, value) in line.iter_mut().enumerate() {
                    *value -= answer[other] * top[at];
                }
            }
        }
        basis[row] = variable;
    }
    let feasible = basis.iter().zip(&values).all(|(one, value)| !matches!(one, Variable::Missing(_)) || *value < WHOLE);
    let used = basis
        .into_iter()
        .zip(values)
        .filter_map(|(variable, value)| match variable {
            Variable::Pattern(pattern) if value > ROUNDING => Some((pattern, value)),
            _ => None,
        })
        .collect();
    Relaxed { used, bound, feasible, ended }
}
