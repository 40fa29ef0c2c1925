//! Bends with the working of their allowances.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::quantity::LengthUnit;
use crate::sheet::Part;
use crate::sheet::bending::{deduction, outside_setback, why_allowance};
use crate::work::sheet::Direction;

use super::bends::bend_rows;

/// A bend with its figures and its working.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BendReport {
    /// Its mark on the blank: `B1`.
    pub mark: String,
    /// What it is made with, in words.
    pub tooling: String,
    /// How its allowance was found, in a few words.
    pub source: String,
    /// Name.
    pub name: String,
    /// Bend angle, radians.
    pub angle: f64,
    /// Up or down.
    pub direction: Direction,
    /// Inside radius, mm.
    pub radius: f64,
    /// Length along the bend line, mm.
    pub length: f64,
    /// Bend allowance, mm.
    pub allowance: f64,
    /// What is deducted from the two outside legs, mm.
    pub deduction: f64,
    /// K-factor that the allowance amounts to.
    pub k_factor: f64,
    /// The working of the allowance.
    pub why: Why,
}

/// The bends of a part, in order. `die` is the opening that the piece names, mm.
pub fn bend_reports(part: &Part, die: Option<f64>, unit: LengthUnit) -> Vec<BendReport> {
    let thickness = part.flat.thickness;
    part.flat
        .bends
        .iter()
        .zip(bend_rows(part, die, unit))
        .map(|(bend, row)| {
            let strip = part.flat.strip_of(bend);
            let setback = outside_setback(strip.angle, strip.radius, thickness);
            BendReport {
                mark: row.mark,
                tooling: row.tooling,
                source: row.source,
                name: bend.name.clone(),
                angle: strip.angle,
                direction: strip.direction,
                radius: strip.radius,
                length: row.length,
                allowance: strip.width,
                deduction: deduction(setback, strip.width),
                k_factor: strip.k_factor(thickness),
                why: why_allowance(&bend.name, strip.angle, (strip.radius, thickness), strip.width, &bend.rule, unit),
            }
        })
        .collect()
}
