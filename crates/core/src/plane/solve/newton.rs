//! Damped least squares with a bound on its steps.

use nalgebra::{Cholesky, DMatrix, DVector};

use super::equation::{Equation, Row};
use super::sketch::Sketch;
use crate::patience;

/// How much the first step is damped, and what is added to unknowns that no equation holds: as in Levenberg and Marquardt.
const DAMPED: f64 = 1e-3;
/// Less damping than this changes no digit.
const LEAST_DAMPED: f64 = 1e-14;

/// The most steps of one solve. Good drawings take fewer than twenty.
const MOST_STEPS: usize = 120;

/// Where a solve ended.
pub(super) struct Ended {
    pub vector: Vec<f64>,
    /// Largest equation left, mm.
    pub worst: f64,
}

/// The rows of these equations at these unknowns.
pub(super) fn rows(sketch: &Sketch, equations: &[Equation], vector: &[f64]) -> Vec<Row> {
    equations.iter().map(|one| one.row(sketch, vector)).collect()
}

fn square(rows: &[Row]) -> f64 {
    rows.iter().map(|row| row.value * row.value).sum()
}

/// Levenberg-Marquardt from `start`. Ends at `good` mm or better, when nothing improves, or at the bound.
pub(super) fn descend(sketch: &Sketch, equations: &[Equation], start: Vec<f64>, good: f64) -> Ended {
    let worst = |rows: &[Row]| rows.iter().fold(0.0f64, |most, row| most.max(row.value.abs()));
    let size = start.len();
    let mut vector = start;
    let mut now = rows(sketch, equations, &vector);
    let mut damping = DAMPED;
    for _ in 0..MOST_STEPS {
        patience::check();
        let left = worst(&now);
        if !left.is_finite() || left <= good {
            break;
        }
        let mut normal = DMatrix::<f64>::zeros(size, size);
        let mut slope = DVector::<f64>::zeros(size);
        for row in &now {
            for (one, &first) in row.unknowns.iter().enumerate() {
                slope[first] -= row.slopes[one] * row.value;
                for (two, &second) in row.unknowns.iter().enumerate() {
                    normal[(first, second)] += row.slopes[one] * row.slopes[two];
                }
            }
        }
        let mut moved = false;
        while damping < 1e12 {
            let mut damped = normal.clone();
            for at in 0..size {
                damped[(at, at)] += damping * (DAMPED + normal[(at, at)]);
            }
            let step = Cholesky::new(damped).map(|factor| factor.solve(&slope));
            if let Some(step) = step {
                let next: Vec<f64> = vector.iter().zip(step.iter()).map(|(value, by)| value + by).collect();
                let there = rows(sketch, equations, &next);
                if square(&there) < square(&now) {
                    (vector, now) = (next, there);
                    damping = (damping * 0.1).max(LEAST_DAMPED);
                    moved = true;
                    break;
                }
            }
            damping *= 10.0;
        }
        if !moved {
            break;
        }
    }
    let worst = worst(&now);
    Ended { vector, worst: if worst.is_finite() { worst } else { f64::INFINITY } }
}
