//! Measured bend tables of a shop: for a family, a thickness, a die, a radius and an angle, what a bend takes. A measured
//! table wins over any formula (common practice), between its rows it is read in proportion, past them never.

use std::collections::HashMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Amount, LengthUnit};

use super::Family;
use super::cutter::is_false;

/// What a table's figure is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TableGives {
    /// Bend deduction, mm: from legs to the outside mould line, to the outermost tangent above 90 deg.
    #[default]
    Deduction,
    /// Bend allowance, mm.
    Allowance,
    /// K-factor.
    KFactor,
}

impl TableGives {
    /// The column's name in a file.
    pub fn column(self) -> &'static str {
        match self {
            TableGives::Deduction => "deduction_mm",
            TableGives::Allowance => "allowance_mm",
            TableGives::KFactor => "k_factor",
        }
    }

    /// The figure in words.
    pub fn words(self) -> &'static str {
        match self {
            TableGives::Deduction => "BD",
            TableGives::Allowance => "BA",
            TableGives::KFactor => "K",
        }
    }
}

/// A shop's table.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendTable {
    /// Its name.
    pub name: String,
    /// Who measured it, when, on what: said wherever it is used.
    #[serde(default)]
    pub source: String,
    /// What its figures are.
    #[serde(default)]
    pub gives: TableGives,
    /// The rows.
    pub rows: Vec<BendTableRow>,
}

/// One measured bend.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendTableRow {
    /// The family of material.
    pub family: Family,
    /// Thickness, mm.
    pub thickness_mm: f64,
    /// Die opening, mm; none where the table does not tell dies apart.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub die_mm: Option<f64>,
    /// Inside radius, mm.
    pub radius_mm: f64,
    /// Bend angle, degrees from flat.
    pub angle_deg: f64,
    /// The figure: mm, or a plain number for K.
    pub value: f64,
    /// Whether it is a made-up example that nobody has measured: said wherever it is read.
    #[serde(default, skip_serializing_if = "is_false")]
    pub made_up: bool,
}

/// The most rows of a table.
pub const MOST_ROWS: usize = 5000;

/// Why a table is refused or does not serve.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{message}")]
pub struct BendTableFault {
    /// What is wrong.
    pub message: String,
    /// What to do.
    pub way_out: String,
}

fn fault<T>(message: impl Into<String>, way_out: impl Into<String>) -> Result<T, BendTableFault> {
    Err(BendTableFault { message: message.into(), way_out: way_out.into() })
}

/// What a table says of a bend.
#[derive(Clone, Debug, PartialEq)]
pub struct TableReading {
    /// The figure: mm, or a plain number for K.
    pub value: f64,
    /// Which rows it comes from, in words.
    pub words: String,
}

/// Sizes this near are the same, mm.
pub const SAME_SIZE: f64 = 5.0e-3;
/// Angles this near are the same, degrees.
const SAME_ANGLE: f64 = 1.0e-4;

fn n(value: f64) -> String {
    crate::quantity::decimal(value, 3)
}

fn list(values: &[f64], unit: &str) -> String {
    values.iter().map(|&value| format!("{} {unit}", n(value))).collect::<Vec<_>>().join(", ")
}

impl BendTable {
    /// Checks a table.
    ///
    /// # Errors
    /// No name, no rows or too many, a figure that cannot be (not finite, a negative size, an angle outside 0 to 180),
    /// two rows for one bend.
    pub fn check(&self) -> Result<(), BendTableFault> {
        if self.name.trim().is_empty() || self.name.chars().count() > 60 || self.name.chars().any(char::is_control) {
            return fault("a bend table has a name of 1 to 60 characters", "Name it after the material and the die.");
        }
        if self.rows.is_empty() || self.rows.len() > MOST_ROWS {
            return fault(
                format!("{} has {} rows; 1 to {MOST_ROWS} are read", self.name, self.rows.len()),
                "Give one row a bend that was measured.",
            );
        }
        let cell = |size: f64| (size / SAME_SIZE).round() as i64;
        let mut known: HashMap<(Family, i64, i64, i64, i64), usize> = HashMap::new();
        for (at, row) in self.rows.iter().enumerate() {
            let place = format!("row {} of {}", at + 1, self.name);
            let sizes = [row.thickness_mm, row.die_mm.unwrap_or(1.0)];
            if !sizes.iter().all(|size| size.is_finite() && *size > 0.0 && *size < 1000.0) {
                return fault(format!("{place}: thickness and die are sizes above 0 mm"), "Correct the row.");
            }
            if !(row.radius_mm.is_finite() && (0.0..1000.0).contains(&row.radius_mm)) {
                return fault(format!("{place}: a radius of {} mm cannot be", row.radius_mm), "Correct the row.");
            }
            if !(row.angle_deg > 0.0 && row.angle_deg <= 180.0) {
                return fault(
                    format!("{place}: a bend of {} deg cannot be", row.angle_deg),
                    "Angles are bend angles, from flat: above 0 and to 180 deg.",
                );
            }
            if !row.value.is_finite() || row.value.abs() > 1000.0 {
                return fault(format!("{place}: {} is no figure of a bend", row.value), "Correct the row.");
            }
            let key = (
                row.family,
                cell(row.thickness_mm),
                row.die_mm.map_or(-1, cell),
                cell(row.radius_mm),
                (row.angle_deg / SAME_ANGLE).round() as i64,
            );
            let twin = known.insert(key, at);
            if let Some(twin) = twin {
                return fault(format!("{place} and row {} are for the same bend", twin + 1), "Keep one of them.");
            }
        }
        Ok(())
    }

    /// What the table says of a bend: thickness and radius in mm, angle in degrees, die in mm where one is chosen.
    ///
    /// # Errors
    /// Rows for another family or thickness only; several dies and none chosen; a radius or an angle past its rows.
    pub fn read(
        &self,
        family: Family,
        thickness: f64,
        die: Option<f64>,
        radius: f64,
        angle: f64,
        unit: LengthUnit,
    ) -> Result<TableReading, BendTableFault> {
        let of_family: Vec<&BendTableRow> = self.rows.iter().filter(|row| row.family == family).collect();
        if of_family.is_empty() {
            let mut others: Vec<&str> = self.rows.iter().map(|row| row.family.words()).collect();
            others.dedup();
            return fault(
                format!(
                    "the bend table {} is for {}, and the part is {}",
                    self.name,
                    others.join(", "),
                    family.words()
                ),
                "Choose a table of the part's own material, or compute the blank another way.",
            );
        }
        let size = |value: f64| unit.says(Amount::Length, value, 4);
        let sizes = |all: &[f64]| {
            list(&all.iter().map(|one| unit.figure(Amount::Length, *one)).collect::<Vec<_>>(), unit.sign())
        };
        let same = |a: f64, b: f64| (a - b).abs() < SAME_SIZE;
        let of_thickness: Vec<&BendTableRow> =
            of_family.iter().copied().filter(|row| same(row.thickness_mm, thickness)).collect();
        if of_thickness.is_empty() {
            let known = distinct(of_family.iter().map(|row| row.thickness_mm));
            return fault(
                format!("the bend table {} has no rows for {}; it has {}", self.name, size(thickness), sizes(&known)),
                "Choose a table of the part's own thickness, or compute the blank another way.",
            );
        }
        let rows: Vec<&BendTableRow> = match die {
            Some(die) => {
                let rows: Vec<_> =
                    of_thickness.iter().copied().filter(|row| row.die_mm.is_none_or(|own| same(own, die))).collect();
                if rows.is_empty() {
                    let known = distinct(of_thickness.iter().filter_map(|row| row.die_mm));
                    return fault(
                        format!("the bend table {} has no die of {}; it has {}", self.name, size(die), sizes(&known)),
                        "Choose one of its dies.",
                    );
                }
                rows
            }
            None => {
                let known = distinct(of_thickness.iter().filter_map(|row| row.die_mm));
                if known.len() > 1 {
                    return fault(
                        format!("the bend table {} tells dies apart: {}", self.name, sizes(&known)),
                        "Choose the die that the piece is bent in.",
                    );
                }
                of_thickness
            }
        };
        let radii = distinct(rows.iter().map(|row| row.radius_mm));
        let Some((low, high)) = around(&radii, radius, SAME_SIZE) else {
            return fault(
                format!("the bend table {} has radii {}; {} is past them", self.name, sizes(&radii), size(radius)),
                "Measure a bend of this radius and add its row, or give this bend its own figure.",
            );
        };
        let (first, first_words) = self.at_radius(&rows, low, angle, unit)?;
        let die_words = rows[0].die_mm.map(|die| format!(", die {}", size(die))).unwrap_or_default();
        let place = format!("{}, {}{die_words}", family.words(), size(thickness));
        if same(low, high) {
            return Ok(TableReading { value: first, words: format!("{place}, R {}, {first_words}", size(low)) });
        }
        let (second, second_words) = self.at_radius(&rows, high, angle, unit)?;
        let share = (radius - low) / (high - low);
        Ok(TableReading {
            value: first + (second - first) * share,
            words: format!(
                "{place}, in proportion between R {} ({first_words}) and R {} ({second_words})",
                size(low),
                size(high)
            ),
        })
    }

    fn at_radius(
        &self,
        rows: &[&BendTableRow],
        radius: f64,
        angle: f64,
        unit: LengthUnit,
    ) -> Result<(f64, String), BendTableFault> {
        // A K-factor has no unit, the other figures are lengths.
        let told = |value: f64| match self.gives {
            TableGives::KFactor => n(value),
            _ => unit.bare(Amount::Length, value, 4),
        };
        let mut own: Vec<&BendTableRow> =
            rows.iter().copied().filter(|row| (row.radius_mm - radius).abs() < SAME_SIZE).collect();
        own.sort_by(|one, two| one.angle_deg.total_cmp(&two.angle_deg));
        let angles: Vec<f64> = own.iter().map(|one| one.angle_deg).collect();
        let Some((low, high)) = around(&angles, angle, SAME_ANGLE) else {
            return fault(
                format!(
                    "the bend table {} has {} at R {}; {} deg is past them",
                    self.name,
                    list(&angles, "deg"),
                    unit.says(Amount::Length, radius, 4),
                    n(angle)
                ),
                "Measure a bend of this angle and add its row, or give this bend its own figure.",
            );
        };
        let at = |angle: f64| own.iter().find(|one| one.angle_deg == angle);
        let value = |angle: f64| at(angle).map_or(0.0, |row| row.value);
        let told = |angle: f64| {
            let made_up = if at(angle).is_some_and(|row| row.made_up) { ", made up" } else { "" };
            format!("{} {}{made_up}", self.gives.words(), told(value(angle)))
        };
        if low == high {
            return Ok((value(low), format!("{} deg: {}", n(low), told(low))));
        }
        let share = (angle - low) / (high - low);
        let found = value(low) + (value(high) - value(low)) * share;
        let words =
            format!("in proportion between {} deg ({}) and {} deg ({})", n(low), told(low), n(high), told(high));
        Ok((found, words))
    }

    /// The table as CSV, its head telling units.
    pub fn write_csv(&self) -> String {
        let mut text = format!("# {}\n# {}\n", self.name, self.source.replace('\n', " "));
        let any_made_up = self.rows.iter().any(|row| row.made_up);
        let made_up = |yes: bool| match (any_made_up, yes) {
            (false, _) => "",
            (true, false) => ",no",
            (true, true) => ",yes",
        };
        let head = if any_made_up { ",made_up" } else { "" };
        text.push_str(&format!("family,thickness_mm,die_mm,radius_mm,angle_deg,{}{head}\n", self.gives.column()));
        for row in &self.rows {
            let family = serde_json::to_value(row.family).ok();
            let family = family.as_ref().and_then(|value| value.as_str()).unwrap_or_default();
            let die = row.die_mm.map(|die| die.to_string()).unwrap_or_default();
            text.push_str(&format!(
                "{family},{},{die},{},{},{}{}\n",
                row.thickness_mm,
                row.radius_mm,
                row.angle_deg,
                row.value,
                made_up(row.made_up)
            ));
        }
        text
    }

    /// Reads a table from CSV. Lines that begin with `#` are its name and its source. Columns by their heads, in any
    /// order: `family`, `thickness_mm` (or `_in`), `die_mm`, `radius_mm`, `angle_deg`, and one of `deduction_mm`,
    /// `allowance_mm` (or `_in`) and `k_factor`; `made_up` (yes or no) may be left out.
    ///
    /// # Errors
    /// A missing or unknown column, a cell that is no number, an unknown family, with the line; as [`BendTable::check`].
    pub fn read_csv(text: &str, name: &str) -> Result<BendTable, BendTableFault> {
        let mut table = BendTable { name: name.to_string(), ..BendTable::default() };
        let mut remarks = text.lines().filter_map(|line| line.strip_prefix('#')).map(str::trim);
        if let Some(own) = remarks.next().filter(|own| !own.is_empty()) {
            table.name = own.to_string();
        }
        table.source = remarks.next().unwrap_or_default().to_string();
        let mut lines = text
            .trim_start_matches('\u{feff}')
            .lines()
            .enumerate()
            .map(|(at, line)| (at + 1, line.trim()))
            .filter(|(_, line)| !line.is_empty() && !line.starts_with('#'));
        let Some((_, head)) = lines.next() else {
            return fault(
                "the file is empty",
                "Its first line names the columns: family, thickness_mm, radius_mm and so on.",
            );
        };
        let split = if head.contains(';') { ';' } else { ',' };
        let heads: Vec<String> = head.split(split).map(|one| one.trim().to_ascii_lowercase()).collect();
        let find = |stem: &str| -> Option<(usize, f64)> {
            [("_mm", 1.0), ("_in", 25.4)]
                .iter()
                .find_map(|(unit, by)| heads.iter().position(|one| *one == format!("{stem}{unit}")).map(|at| (at, *by)))
        };
        let missing = |what: &str| {
            BendTableFault {
            message: format!("the file has no column {what}; it has {}", heads.join(", ")),
            way_out: "Name the columns family, thickness_mm, die_mm, radius_mm, angle_deg and deduction_mm (or allowance_mm, k_factor); _in for inches.".into(),
        }
        };
        let family_at = heads.iter().position(|one| one == "family").ok_or_else(|| missing("family"))?;
        let thickness_at = find("thickness").ok_or_else(|| missing("thickness_mm"))?;
        let radius_at = find("radius").ok_or_else(|| missing("radius_mm"))?;
        let angle_at = heads.iter().position(|one| one == "angle_deg").ok_or_else(|| missing("angle_deg"))?;
        let die_at = find("die");
        let (value_at, gives) = [("deduction", TableGives::Deduction), ("allowance", TableGives::Allowance)]
            .into_iter()
            .find_map(|(stem, gives)| find(stem).map(|at| (at, gives)))
            .or_else(|| heads.iter().position(|one| one == "k_factor").map(|at| ((at, 1.0), TableGives::KFactor)))
            .ok_or_else(|| missing("deduction_mm, allowance_mm or k_factor"))?;
        table.gives = gives;
        let made_up_at = heads.iter().position(|one| one == "made_up");
        for (line, row) in lines {
            if table.rows.len() >= MOST_ROWS {
                return fault(format!("the file has more than {MOST_ROWS} rows"), "Split it by material.");
            }
            let cells: Vec<&str> = row.split(split).map(str::trim).collect();
            let number = |(at, by): (usize, f64), what: &str| -> Result<f64, BendTableFault> {
                let cell = cells.get(at).copied().unwrap_or_default();
                let cell = if split == ';' { cell.replace(',', ".") } else { cell.to_string() };
                cell.parse::<f64>().ok().filter(|value| value.is_finite()).map(|value| value * by).ok_or_else(|| {
                    BendTableFault {
                        message: format!("line {line}: {what} is \"{cell}\", which is no number"),
                        way_out: "Correct the cell; a decimal point, no unit.".into(),
                    }
                })
            };
            let word = cells.get(family_at).copied().unwrap_or_default();
            let family = serde_json::from_value(serde_json::Value::String(word.replace(' ', "_"))).map_err(|_| {
                BendTableFault {
                    message: format!("line {line}: there is no family called \"{word}\""),
                    way_out: "The families are mild_steel, galvanised, stainless and aluminium.".into(),
                }
            })?;
            let die = match die_at {
                Some(at) if cells.get(at.0).is_some_and(|cell| !cell.is_empty()) => Some(number(at, "the die")?),
                _ => None,
            };
            table.rows.push(BendTableRow {
                family,
                thickness_mm: number(thickness_at, "the thickness")?,
                die_mm: die,
                radius_mm: number(radius_at, "the radius")?,
                angle_deg: number((angle_at, 1.0), "the angle")?,
                value: number(value_at, "the figure")?,
                made_up: match made_up_at.and_then(|at| cells.get(at)).copied().unwrap_or_default() {
                    "yes" => true,
                    "" | "no" => false,
                    other => {
                        return fault(
                            format!("line {line}: made_up is \"{other}\""),
                            "Say yes for a row that is made up, no for one that was measured.",
                        );
                    }
                },
            });
        }
        table.check()?;
        Ok(table)
    }
}

/// The made-up example that is shown until a shop keeps tables of its own.
pub fn example_bend_table() -> &'static BendTable {
    static EXAMPLE: std::sync::OnceLock<BendTable> = std::sync::OnceLock::new();
    // Part of the program, and read by a test: a fault in it cannot reach a user.
    EXAMPLE.get_or_init(|| {
        BendTable::read_csv(include_str!("../../../../data/bend-example.csv"), "example")
            .expect("data/bend-example.csv is sound")
    })
}

fn distinct(values: impl Iterator<Item = f64>) -> Vec<f64> {
    let mut all: Vec<f64> = values.collect();
    all.sort_by(f64::total_cmp);
    all.dedup_by(|next, known| (*next - *known).abs() < SAME_SIZE);
    all
}

/// The entries that a value lies on or between; `None` when it is past them.
fn around(sorted: &[f64], value: f64, near: f64) -> Option<(f64, f64)> {
    if let Some(&own) = sorted.iter().find(|&&one| (one - value).abs() < near) {
        return Some((own, own));
    }
    sorted.windows(2).find(|pair| pair[0] < value && value < pair[1]).map(|pair| (pair[0], pair[1]))
}
