//! The sections that stockholders keep, read from `data/sections/` once.

use std::sync::OnceLock;

use serde::Deserialize;

use super::form::Section;
use super::rows::{angle_rows, beam_rows, rows, us_rows};
use super::section_named;

/// A section of the catalogue with what its table says of it.
#[derive(Clone, Debug)]
pub struct CatalogueRow {
    /// The section.
    pub section: Section,
    /// Area that the standard's table gives, mm2, where it was taken from one.
    pub tabled_area: Option<f64>,
    /// Mass that the table gives, kg/m, where it was taken from one.
    pub tabled_mass: Option<f64>,
}

#[derive(Clone, Debug, Deserialize)]
struct HollowRow {
    form: String,
    width: f64,
    height: f64,
    walls: String,
}

#[derive(Clone, Debug, Deserialize)]
struct BarRow {
    form: String,
    width: f64,
    height: f64,
}

/// Pounds per foot in kilograms per metre: 0.45359237 kg / 0.3048 m, both exact.
const POUNDS_PER_FOOT: f64 = 0.453_592_37 / 0.3048;

/// Every section that is kept, hollow ones first.
pub fn catalogue() -> &'static [CatalogueRow] {
    static ALL: OnceLock<Vec<CatalogueRow>> = OnceLock::new();
    ALL.get_or_init(|| {
        let mut all = Vec::new();
        let mut add = |name: String, tabled_area: Option<f64>, tabled_mass: Option<f64>| {
            if let Ok(section) = section_named(&name) {
                all.push(CatalogueRow { section, tabled_area, tabled_mass });
            }
        };
        for row in rows::<HollowRow>(include_str!("../../../../data/sections/hollow.csv")) {
            for wall in row.walls.split(' ') {
                add(
                    match row.form.as_str() {
                        "square" => format!("SHS {}x{}x{wall}", row.height, row.width),
                        "rectangular" => format!("RHS {}x{}x{wall}", row.width, row.height),
                        _ => format!("CHS {}x{wall}", row.width),
                    },
                    None,
                    None,
                );
            }
        }
        for row in angle_rows() {
            add(format!("L {}x{}x{}", row.long, row.short, row.thickness), Some(row.area * 100.0), None);
        }
        for row in beam_rows() {
            add(row.name.clone(), Some(row.area * 100.0), None);
        }
        for row in rows::<BarRow>(include_str!("../../../../data/sections/bars.csv")) {
            add(
                match row.form.as_str() {
                    "flat" => format!("FL {}x{}", row.width, row.height),
                    "round" => format!("RD {}", row.width),
                    "square" => format!("SQ {}", row.width),
                    _ => format!("TB {}x{}", row.width, row.height),
                },
                None,
                None,
            );
        }
        for row in us_rows() {
            add(row.name.clone(), None, Some(row.weight * POUNDS_PER_FOOT));
        }
        all
    })
}

impl CatalogueRow {
    /// Whether it is one that stockholders keep under this name.
    pub fn is_named(&self, name: &str) -> bool {
        self.section.name.eq_ignore_ascii_case(name)
    }
}
