//! Numbers that carry their derivatives: an equation is written once and its slope follows exactly.

use crate::quantity::tolerance::LEAST_DIVISOR;
use std::ops::{Add, Div, Mul, Neg, Sub};

/// The most unknowns that one equation speaks of: four points and two radii.
pub(super) const WIDTH: usize = 10;

/// A value and its derivative by each of the equation's own unknowns.
#[derive(Clone, Copy, Debug)]
pub(super) struct Dual {
    pub value: f64,
    pub slope: [f64; WIDTH],
}

impl Dual {
    pub fn plain(value: f64) -> Self {
        Dual { value, slope: [0.0; WIDTH] }
    }

    /// The unknown in this place of the equation's list.
    pub fn unknown(value: f64, place: usize) -> Self {
        let mut slope = [0.0; WIDTH];
        slope[place] = 1.0;
        Dual { value, slope }
    }

    fn chain(self, value: f64, factor: f64) -> Self {
        Dual { value, slope: self.slope.map(|one| one * factor) }
    }

    /// Square root; at zero its slope is taken as zero so that two coincident points do not make it infinite.
    pub fn sqrt(self) -> Self {
        let root = self.value.max(0.0).sqrt();
        self.chain(root, if root > LEAST_DIVISOR { 0.5 / root } else { 0.0 })
    }

    /// The angle of (`across`, `along`), radians.
    pub fn atan2(across: Dual, along: Dual) -> Self {
        let square = (across.value * across.value + along.value * along.value).max(LEAST_DIVISOR);
        let mut slope = [0.0; WIDTH];
        for (at, one) in slope.iter_mut().enumerate() {
            *one = (along.value * across.slope[at] - across.value * along.slope[at]) / square;
        }
        Dual { value: across.value.atan2(along.value), slope }
    }
}

impl Add for Dual {
    type Output = Dual;
    fn add(self, other: Dual) -> Dual {
        Dual { value: self.value + other.value, slope: std::array::from_fn(|at| self.slope[at] + other.slope[at]) }
    }
}

impl Neg for Dual {
    type Output = Dual;
    fn neg(self) -> Dual {
        self.chain(-self.value, -1.0)
    }
}

impl Sub for Dual {
    type Output = Dual;
    fn sub(self, other: Dual) -> Dual {
        self + -other
    }
}

impl Mul for Dual {
    type Output = Dual;
    // The slope of a product is a sum.
    #[allow(clippy::suspicious_arithmetic_impl)]
    fn mul(self, other: Dual) -> Dual {
        Dual {
            value: self.value * other.value,
            slope: std::array::from_fn(|at| self.slope[at] * other.value + self.value * other.slope[at]),
        }
    }
}

impl Div for Dual {
    type Output = Dual;
    fn div(self, other: Dual) -> Dual {
        let below = if other.value.abs() < LEAST_DIVISOR { LEAST_DIVISOR } else { other.value };
        Dual {
            value: self.value / below,
            slope: std::array::from_fn(|at| (self.slope[at] * below - self.value * other.slope[at]) / (below * below)),
        }
    }
}
