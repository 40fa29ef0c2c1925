//! Bends, legs and reliefs in numbers, and what a piece hands to each operation.

use std::collections::BTreeMap;
use std::sync::Arc;

use crate::quantity::Names;
use crate::stock::{BendTable, Family};
use crate::work::sheet::{BendPosition, Direction, LegTo, ReliefShape};

/// A flange's numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct BendNumbers {
    pub edge: String,
    pub also: Vec<String>,
    /// Angle and leg of flanges that have their own, by edge.
    pub own: BTreeMap<String, (Option<AngleNumbers>, Option<LegNumbers>)>,
    pub corners: CornerMake,
    pub angle: AngleNumbers,
    pub direction: Direction,
    pub leg: LegNumbers,
    pub leg_to: LegTo,
    pub position: BendPosition,
    pub radius: f64,
    pub set_in: BTreeMap<String, f64>,
    pub relief: Option<ReliefNumbers>,
    pub method: MethodNumbers,
}

/// A flange's angle: radians, or by another panel.
#[derive(Clone, Debug, PartialEq)]
pub enum AngleNumbers {
    /// The bend angle.
    Bend(f64),
    /// Parallel to this panel.
    Parallel(String),
    /// Square to this panel.
    Square(String),
}

/// A flange's leg: mm, or as far as something.
#[derive(Clone, Debug, PartialEq)]
pub enum LegNumbers {
    /// A length.
    Length(f64),
    /// Up to a feature of the folded part.
    UpTo {
        /// A face, an edge or a corner.
        feature: String,
        /// Left free before it, mm.
        gap: f64,
    },
}

/// How corners between flanges are made, in numbers: mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub enum CornerMake {
    Open { relief: Option<CornerReliefNumbers> },
    Closed { gap: f64, relief: Option<CornerReliefNumbers> },
    Overlapped { gap: f64, relief: Option<CornerReliefNumbers> },
    Mitred { gap: f64, relief: Option<CornerReliefNumbers> },
}

impl CornerMake {
    /// Its relief.
    pub fn relief(&self) -> Option<CornerReliefNumbers> {
        match self {
            CornerMake::Open { relief }
            | CornerMake::Closed { relief, .. }
            | CornerMake::Overlapped { relief, .. }
            | CornerMake::Mitred { relief, .. } => *relief,
        }
    }

    /// Its gap, mm.
    pub fn gap(&self) -> f64 {
        match self {
            CornerMake::Open { .. } => 0.0,
            CornerMake::Closed { gap, .. } | CornerMake::Overlapped { gap, .. } | CornerMake::Mitred { gap, .. } => {
                *gap
            }
        }
    }
}

/// Relief where two bends meet, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum CornerReliefNumbers {
    /// Side.
    Square(f64),
    /// Diameter.
    Round(f64),
}

/// How a bend's allowance is found, in numbers.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub enum MethodNumbers {
    KFactor {
        k: f64,
        source: String,
    },
    Allowance(f64),
    Deduction(f64),
    Din6935,
    /// Points of (R/T, K) in rising order.
    Curve(Vec<(f64, f64)>),
    /// A measured table, and what hems and arcs past its rows are computed by.
    Table {
        table: Arc<BendTable>,
        family: Family,
        die: Option<f64>,
        formula: Box<MethodNumbers>,
    },
}

impl MethodNumbers {
    /// The formula behind a measured table; any other way itself.
    pub fn formula(&self) -> &MethodNumbers {
        match self {
            MethodNumbers::Table { formula, .. } => formula,
            other => other,
        }
    }
}

/// A relief's numbers, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct ReliefNumbers {
    pub shape: ReliefShape,
    pub width: f64,
    pub depth: f64,
}

/// What is known for the whole piece when an operation is read.
#[derive(Clone, Debug)]
#[allow(missing_docs)]
pub struct Numbers {
    pub names: Names,
    pub thickness: f64,
    pub radius: f64,
    pub method: MethodNumbers,
}
