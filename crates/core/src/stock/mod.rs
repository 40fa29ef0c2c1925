//! Materials, thicknesses and gauges: tables with their sources, read from `data/` when Steelk is built.

mod bend_table;
mod brake;
mod cutter;
mod handling;
mod own_screws;
mod rows;
mod saw;
mod screw;
mod shop_rules;
mod table;
mod thread;

pub use bend_table::{
    BendTable, BendTableFault, BendTableRow, MOST_ROWS, SAME_SIZE, TableGives, TableReading, example_bend_table,
};
pub use brake::{BendingShop, Brake, Grain, StockSheet, bending_shop};
pub use cutter::{
    Cutter, CutterRow, Macro, Process, TableFault, check_cutters, example_cutters, read_cutters, write_cutters,
};
pub use handling::ONE_PERSON;
pub use own_screws::{check_screws, read_screws, write_screws};
pub use saw::{ShopSaw, shop_saw};
pub use screw::{Head, Screw};
pub use shop_rules::{Asks, EdgeAsks, ShopRules, Workshop, shipped_rules};
pub use table::{ColdFlanging, Family, Gauge, Material, Stock, stock};
pub use thread::{Clearance, Fit, Thread};

use crate::quantity::tolerance::ROUNDING;
use crate::quantity::{Dimension, Names, QuantityError, Span};

/// Thicker than this is no plate that is cut from, mm (common practice).
pub const THICKEST: f64 = 200.0;

/// Thickness asked for, with how it was named.
#[derive(Clone, Debug, PartialEq)]
pub struct Thickness {
    /// Thickness in mm.
    pub millimetres: f64,
    /// Gauge number and table, when it was named by gauge.
    pub gauge: Option<String>,
}

/// The value of the first step that reaches to a thickness, of the last where none does.
fn step(steps: &[(f64, f64)], thickness: f64) -> f64 {
    let step = steps.iter().find(|(up_to, _)| thickness <= *up_to + ROUNDING).or(steps.last());
    step.map_or(0.0, |(_, value)| *value)
}

impl Material {
    /// The least inside radius for a thickness by practice, mm; see `data/materials.toml` for the source.
    pub fn least_radius(&self, thickness: f64) -> f64 {
        step(&self.least_radius, thickness) * thickness
    }

    /// Tensile strength of a thickness, MPa: the upper value of its standard; see `data/materials.toml`.
    pub fn tensile_strength(&self, thickness: f64) -> f64 {
        step(&self.tensile, thickness)
    }

    /// The standard's least inside radii for cold flanging of a thickness; `None` where its table has none.
    pub fn cold_flanging(&self, thickness: f64) -> Option<&'static ColdFlanging> {
        let of_steel = stock().cold_flanging.iter().filter(|row| row.steel == self.name);
        of_steel.filter(|row| thickness <= row.up_to + ROUNDING).min_by(|one, two| one.up_to.total_cmp(&two.up_to))
    }

    /// Reads a thickness: a length, or a gauge (`14 ga`) of this material's own family of gauges.
    ///
    /// # Errors
    /// An unknown gauge (with the ones there are), a value that is not a length, zero or less.
    pub fn read_thickness(&self, text: &str, names: &Names) -> Result<Thickness, QuantityError> {
        let whole = Span { start: 0, end: text.len() };
        let lower = text.trim().to_ascii_lowercase();
        let stem = ["gauge", "ga."].iter().find_map(|end| lower.strip_suffix(end)).or_else(|| lower.strip_suffix("ga"));
        if let Some(number) = stem {
            let wanted = number.trim();
            let of_family = || stock().gauges.iter().filter(|gauge| gauge.family == self.family);
            return of_family()
                .find(|gauge| gauge.number.to_string() == wanted)
                .map(|gauge| Thickness {
                    millimetres: gauge.inches * 25.4,
                    gauge: Some(format!("{} gauge, {}", gauge.number, self.family.gauge_source())),
                })
                .ok_or_else(|| {
                    let known: Vec<String> = of_family().map(|gauge| gauge.number.to_string()).collect();
                    QuantityError {
                        message: format!("there is no {wanted} gauge for {}", self.family.words()),
                        span: whole,
                        way_out: format!("The gauges of {} are {}.", self.family.words(), known.join(", ")),
                        name: None,
                    }
                });
        }
        let millimetres = names.read(text, Dimension::LENGTH, "a thickness")?;
        if millimetres <= 0.0 {
            return Err(QuantityError {
                message: format!("a thickness of {millimetres} mm cannot be made"),
                span: whole,
                way_out: "Type a thickness above zero, such as 3 mm or 14 ga.".into(),
                name: None,
            });
        }
        Ok(Thickness { millimetres, gauge: None })
    }

    /// Whether stockholders keep this thickness, in mm or in inches, or it is a gauge of the family.
    pub fn is_stocked(&self, thickness: f64) -> bool {
        let near = |other: f64| (other - thickness).abs() < 0.005;
        stock().thicknesses.get(&self.family).is_some_and(|list| list.iter().any(|&one| near(one)))
            || stock().inch_thicknesses.get(&self.family).is_some_and(|list| list.iter().any(|&one| near(one * 25.4)))
            || stock().gauges.iter().any(|gauge| gauge.family == self.family && near(gauge.inches * 25.4))
    }
}
