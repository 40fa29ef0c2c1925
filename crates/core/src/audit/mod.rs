//! Second derivations. Every figure that leaves is found twice by ways that share no code; where the two differ beyond a
//! tolerance with a reason, nothing is given out. A disagreement is a fault of Steelk, never of the piece.

mod frame;
mod second;
mod sheet;
mod witnessed;

use serde::Serialize;
use utoipa::ToSchema;

use crate::quantity::decimal;

pub use frame::{full_frame, full_welds, light_frame};
pub use sheet::{BOUNDED, full_sheet, light_sheet};
pub use witnessed::witnessed;

/// One way that a figure was found.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Derived {
    /// The way, in words.
    pub how: String,
    /// What it came to.
    pub value: f64,
}

/// One figure found twice.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Pair {
    /// Key of the check: `blank_area`.
    pub check: String,
    /// What the figure is, with what it is of: `area of the blank`.
    pub what: String,
    /// Its unit.
    pub unit: String,
    /// The first way.
    pub one: Derived,
    /// The second way.
    pub two: Derived,
    /// How far apart they may be, in the same unit.
    pub tolerance: f64,
    /// Why it is that wide.
    pub because: String,
}

impl Pair {
    /// Whether both are numbers and near enough to each other.
    pub fn agrees(&self) -> bool {
        // A comparison with something that is no number is false.
        (self.one.value - self.two.value).abs() <= self.tolerance
    }

    /// The disagreement in words, with both figures.
    pub fn words(&self) -> String {
        let places = if self.tolerance < 1e-3 { 6 } else { 4 };
        let show = |value: f64| format!("{} {}", decimal(value, places), self.unit);
        format!(
            "two ways to find the {} differ: {} {}, {} {}",
            self.what,
            show(self.one.value),
            self.one.how,
            show(self.two.value),
            self.two.how
        )
    }
}

/// What to do about a disagreement: the fault is ours.
pub const ASK: &str = "This is a fault in Steelk and not in your work: nothing is given out until it is mended. Please send \
                       us the piece file, or change the operation that is named.";

/// Every pair that was compared, and what no part can have.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Audit {
    /// Figures found twice.
    pub pairs: Vec<Pair>,
    /// Figures that cannot be: not finite, or not above zero. In words with their values.
    pub impossible: Vec<String>,
    /// Checks that could not be made, with why: `too many holes for a solid`.
    pub left_out: Vec<String>,
    /// Whether the checks before a file were made as well.
    pub full: bool,
}

impl Audit {
    /// Adds a pair.
    pub fn compare(
        &mut self,
        check: &str,
        what: impl Into<String>,
        unit: &str,
        (one_how, one): (&str, f64),
        (two_how, two): (&str, f64),
        (tolerance, because): (f64, &str),
    ) {
        self.pairs.push(Pair {
            check: check.into(),
            what: what.into(),
            unit: unit.into(),
            one: Derived { how: one_how.into(), value: one },
            two: Derived { how: two_how.into(), value: two },
            tolerance,
            because: because.into(),
        });
    }

    /// Notes a figure that is not finite or not above zero.
    pub fn positive(&mut self, what: &str, value: f64, unit: &str) {
        if !(value.is_finite() && value > 0.0) {
            self.impossible.push(format!("the {what} comes to {} {unit}", decimal(value, 6)));
        }
    }

    /// Notes a figure that is not finite.
    pub fn finite(&mut self, what: &str, value: f64, unit: &str) {
        if !value.is_finite() {
            self.impossible.push(format!("the {what} comes to {value} {unit}"));
        }
    }

    /// Pairs that differ.
    pub fn disagreements(&self) -> impl Iterator<Item = &Pair> {
        self.pairs.iter().filter(|pair| !pair.agrees())
    }

    /// Everything that keeps files back, in words.
    pub fn faults(&self) -> Vec<String> {
        self.disagreements().map(Pair::words).chain(self.impossible.iter().cloned()).collect()
    }

    /// Adds what other checks found.
    pub fn extend(&mut self, other: Audit) {
        self.pairs.extend(other.pairs);
        self.impossible.extend(other.impossible);
        self.left_out.extend(other.left_out);
        self.full |= other.full;
    }
}
