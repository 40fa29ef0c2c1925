//! What is told of what is pointed at: what it is, what can be done, what can be measured.

use serde::Serialize;
use utoipa::ToSchema;

use crate::measure::{MeasureError, Measured, Witness};
use crate::quantity::{LengthUnit, Quantity, quantity_text};
use crate::work::Offer;
use crate::work::measure::{FrameMeasure, Measure};

/// The most names that may be pointed at together.
pub const MOST_POINTED: usize = 200;

/// Something that was pointed at.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct PointedAt {
    /// Its name.
    pub name: String,
    /// What it is, with its size in words; `None` where there is nothing of that name any more.
    pub words: Option<String>,
}

/// A measure that can be taken of what is pointed at.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Reading {
    /// What it is: "least distance", "along x".
    pub words: String,
    /// As a call-out has it.
    pub measure: Measure,
    /// What it comes to, with its unit.
    pub text: String,
    /// Where it is measured.
    pub witnesses: Vec<Witness>,
}

/// Everything that is offered.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Offers {
    /// What is pointed at, in order.
    pub pointed: Vec<PointedAt>,
    /// What can be done, by groups in the order of the work.
    pub offers: Vec<Offer>,
    /// What can be measured.
    pub readings: Vec<Reading>,
}

/// Readings of what could be measured, each with its words, what it came to and the measure; of distances that come to the same the
/// first alone.
pub(super) fn readings(
    tried: impl Iterator<Item = (String, Result<Measured, MeasureError>, Measure)>,
    show: LengthUnit,
) -> Vec<Reading> {
    let mut known: Vec<f64> = Vec::new();
    let mut all = Vec::new();
    for (words, found, measure) in tried {
        let Ok(found) = found else { continue };
        // A distance of nothing is no dimension on a drawing.
        let distance = matches!(measure, Measure::Distance(_) | Measure::Frame(FrameMeasure::Nodes(_)));
        let same = |other: &f64| (found.value - other).abs() < crate::plane::MODELLING_TOLERANCE;
        if distance && (same(&0.0) || known.iter().any(same)) {
            continue;
        }
        if distance {
            known.push(found.value);
        }
        let text = quantity_text(Quantity::new(found.value, found.dimension), show);
        all.push(Reading { words, measure, text, witnesses: found.witnesses });
    }
    all
}
