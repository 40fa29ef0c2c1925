//! The bend table: one line a bend, as the brake reads it.

use serde::Serialize;
use utoipa::ToSchema;

use crate::quantity::{Amount, LengthUnit};
use crate::sheet::bending::outside_setback;
use crate::sheet::{BendMake, Part};
use crate::work::sheet::Direction;

/// One bend of the table.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BendRow {
    /// Its mark on the blank: `B1`.
    pub mark: String,
    /// Its name.
    pub name: String,
    /// Bend angle, degrees from flat.
    pub angle: f64,
    /// Up or down.
    pub direction: Direction,
    /// Inside radius, mm.
    pub radius: f64,
    /// Length of metal along the bend line, mm: what is left where cuts have taken part of it.
    pub length: f64,
    /// What it is made with, in words.
    pub tooling: String,
    /// Bend allowance, mm.
    pub allowance: f64,
    /// Bend deduction, mm: from outside legs, to the outermost tangent above 90 deg.
    pub deduction: f64,
    /// How the allowance was found.
    pub source: String,
}

/// The die that a sheet is air-bent in, mm: 8 T, 10 T above 10 mm (common practice).
pub fn usual_die(thickness: f64) -> f64 {
    if thickness > 10.0 { 10.0 * thickness } else { 8.0 * thickness }
}

/// The bend table of a part, its words in a unit. `die` is the opening that the piece names, mm.
pub fn bend_rows(part: &Part, die: Option<f64>, unit: LengthUnit) -> Vec<BendRow> {
    let flat = &part.flat;
    let thickness = flat.thickness;
    flat.bends
        .iter()
        .enumerate()
        .map(|(at, bend)| {
            let strip = flat.strip_of(bend);
            let tooling = match bend.make {
                BendMake::Roll => "rolled".to_string(),
                BendMake::Hem => "hemming tool".to_string(),
                BendMake::Line => "brake line".to_string(),
                BendMake::Brake => {
                    let opening = die.unwrap_or_else(|| usual_die(thickness));
                    format!("air bend, die {}", unit.says(Amount::Length, opening, 1))
                }
            };
            let setback = outside_setback(strip.angle, strip.radius, thickness);
            BendRow {
                mark: format!("B{}", at + 1),
                name: bend.name.clone(),
                angle: strip.angle.to_degrees(),
                direction: strip.direction,
                radius: strip.radius,
                length: flat.bent_length(bend),
                tooling,
                allowance: strip.width,
                deduction: 2.0 * setback - strip.width,
                source: bend.rule.words(unit),
            }
        })
        .collect()
}
