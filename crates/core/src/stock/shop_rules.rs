//! What a shop's rules go by: its sheets, its brake, its saw, and how much its rules ask.

use std::sync::OnceLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{
    Brake, Cutter, CutterRow, Family, Process, ShopSaw, StockSheet, TableFault, bending_shop, example_cutters, shop_saw,
};

/// How much metal is asked for about a hole, in multiples of the thickness, by how it is made. A drill has a formula of its own.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct EdgeAsks {
    pub laser: f64,
    pub plasma: f64,
    pub waterjet: f64,
    pub oxy_fuel: f64,
    pub punch: f64,
}

impl EdgeAsks {
    /// By what a cutter parts metal with.
    pub fn of(&self, process: Process) -> f64 {
        match process {
            Process::Laser => self.laser,
            Process::Plasma => self.plasma,
            Process::Waterjet => self.waterjet,
            Process::OxyFuel => self.oxy_fuel,
        }
    }
}

/// How much the rules ask; see `data/asks.toml` for what is common practice.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Asks {
    /// About a hole, by how it is made.
    pub edge: EdgeAsks,
    /// From a round hole to a bend's tangent line, in thicknesses.
    pub bend: f64,
    /// From a straight edge of a cut-out to a bend's tangent line, in thicknesses.
    pub slot_bend: f64,
    /// Diameter of the least hole that is punched, in thicknesses.
    pub punched_hole: f64,
    /// The least outside leg at 90 deg, of the die's opening.
    pub leg_of_die: f64,
    /// The least hem, in thicknesses.
    pub hem: f64,
    /// Left all round on a stock sheet, mm.
    pub trim_mm: f64,
}

/// What a shop's rules go by.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShopRules {
    /// Multiples.
    pub asks: Asks,
    /// The brake.
    pub brake: Brake,
    /// The saw.
    pub saw: ShopSaw,
    /// Sheets that are kept or bought.
    #[serde(rename = "sheet")]
    pub sheets: Vec<StockSheet>,
}

/// The most sheets of a shop.
const MOST_SHEETS: usize = 50;

impl ShopRules {
    /// Reads them from TOML.
    ///
    /// # Errors
    /// [`TableFault`] with the path to what is wrong.
    pub fn read(text: &str) -> Result<ShopRules, TableFault> {
        let rules: ShopRules = toml::from_str(text)
            .map_err(|fault| TableFault { path: "rules".into(), message: fault.message().to_string() })?;
        rules.check()?;
        Ok(rules)
    }

    /// As TOML that can be read again.
    pub fn write(&self) -> String {
        // Numbers, strings and one list: nothing in it can fail to be written.
        toml::to_string(self).unwrap_or_default()
    }

    /// Whether every figure can be one.
    ///
    /// # Errors
    /// [`TableFault`] with the path to the first that cannot.
    pub fn check(&self) -> Result<(), TableFault> {
        let fault = |path: &str, message: String| Err(TableFault { path: path.into(), message });
        let (asks, edge) = (&self.asks, &self.asks.edge);
        let figures = [
            ("asks.edge.laser", edge.laser, 0.0, 20.0, "T"),
            ("asks.edge.plasma", edge.plasma, 0.0, 20.0, "T"),
            ("asks.edge.waterjet", edge.waterjet, 0.0, 20.0, "T"),
            ("asks.edge.oxy_fuel", edge.oxy_fuel, 0.0, 20.0, "T"),
            ("asks.edge.punch", edge.punch, 0.0, 20.0, "T"),
            ("asks.bend", asks.bend, 0.0, 20.0, "T"),
            ("asks.slot_bend", asks.slot_bend, 0.0, 20.0, "T"),
            ("asks.punched_hole", asks.punched_hole, 0.0, 20.0, "T"),
            // A leg shorter than half the opening has no shoulder under it.
            ("asks.leg_of_die", asks.leg_of_die, 0.5, 5.0, "V"),
            ("asks.hem", asks.hem, 0.0, 100.0, "T"),
            ("asks.trim_mm", asks.trim_mm, 0.0, 500.0, "mm"),
            ("brake.length_mm", self.brake.length_mm, 10.0, 50_000.0, "mm"),
            ("brake.force_kn", self.brake.force_kn, 1.0, 100_000.0, "kN"),
            ("brake.punch_mm", self.brake.punch_mm, 0.0, 1000.0, "mm"),
            ("saw.angle_deg", self.saw.angle_deg, 0.0, 89.0, "deg"),
            ("saw.hold_mm", self.saw.hold_mm, 0.0, 10_000.0, "mm"),
        ];
        for (path, value, least, most, unit) in figures {
            if !(least..=most).contains(&value) {
                return fault(path, format!("{value} {unit} cannot be: {least} to {most} {unit} is"));
            }
        }
        for (path, name) in [("brake.name", &self.brake.name), ("saw.name", &self.saw.name)] {
            check_name(path, name)?;
        }
        for (path, source) in [("brake.source", &self.brake.source), ("saw.source", &self.saw.source)] {
            check_source(path, source)?;
        }
        if self.sheets.is_empty() || self.sheets.len() > MOST_SHEETS {
            return fault("sheet", format!("{} sheets; 1 to {MOST_SHEETS} is", self.sheets.len()));
        }
        for (at, sheet) in self.sheets.iter().enumerate() {
            check_name(&format!("sheet[{at}].name"), &sheet.name)?;
            check_source(&format!("sheet[{at}].source"), &sheet.source)?;
            for (field, value) in [("length_mm", sheet.length_mm), ("width_mm", sheet.width_mm)] {
                if !(10.0..=50_000.0).contains(&value) {
                    return fault(&format!("sheet[{at}].{field}"), format!("{value} mm cannot be: 10 to 50000 mm is"));
                }
            }
        }
        Ok(())
    }
}

fn check_name(path: &str, name: &str) -> Result<(), TableFault> {
    if name.trim().is_empty() || name.chars().count() > 80 || name.chars().any(char::is_control) {
        return Err(TableFault { path: path.into(), message: "a name has 1 to 80 characters on one line".into() });
    }
    Ok(())
}

fn check_source(path: &str, source: &str) -> Result<(), TableFault> {
    if source.chars().count() > 80 || source.chars().any(char::is_control) {
        let message = "where it comes from is told in at most 80 characters on one line".into();
        return Err(TableFault { path: path.into(), message });
    }
    Ok(())
}

/// What is built into Steelk: common practice, and machines that are made up.
pub fn shipped_rules() -> &'static ShopRules {
    static RULES: OnceLock<ShopRules> = OnceLock::new();
    RULES.get_or_init(|| {
        // Part of the program, and read by a test: a fault in it cannot reach a user.
        let asks = toml::from_str(include_str!("../../../../data/asks.toml")).expect("data/asks.toml is sound");
        let (bending, saw) = (bending_shop().clone(), shop_saw().clone());
        ShopRules { asks, brake: bending.brake, saw, sheets: bending.sheets }
    })
}

/// The shop that a piece is checked for.
#[derive(Clone, Copy, Debug)]
pub struct Workshop<'a> {
    /// What its rules go by.
    pub rules: &'a ShopRules,
    /// What it cuts with.
    pub cutters: &'a [Cutter],
}

impl Default for Workshop<'_> {
    /// What Steelk ships with.
    fn default() -> Self {
        Workshop { rules: shipped_rules(), cutters: example_cutters() }
    }
}

impl<'a> Workshop<'a> {
    /// What cuts a sheet: the cutter of this name, else the first that reaches the thickness in this quality, with its row.
    pub fn cuts(
        &self,
        (name, quality): (Option<&str>, Option<&str>),
        family: Family,
        thickness: f64,
    ) -> Option<(&'a Cutter, &'a CutterRow)> {
        let named = self.cutters.iter().filter(|cutter| name.is_none_or(|name| cutter.name == name));
        named.filter_map(|cutter| Some((cutter, cutter.row(family, thickness, quality)?))).next()
    }
}
