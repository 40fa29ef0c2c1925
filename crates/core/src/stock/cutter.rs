//! Cutters as shop tables: what a machine cuts, how wide, how fast. The shipped ones are made-up examples.

use std::sync::OnceLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Family;
use crate::quantity::tolerance::ROUNDING;

/// How a cutter parts metal.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Process {
    Laser,
    Plasma,
    Waterjet,
    OxyFuel,
}

impl Process {
    /// What it is called in a sentence.
    pub fn words(self) -> &'static str {
        match self {
            Process::Laser => "a laser",
            Process::Plasma => "a plasma torch",
            Process::Waterjet => "a waterjet",
            Process::OxyFuel => "an oxy-fuel torch",
        }
    }

    /// The widest cut that such a machine is known to make, mm (common practice, generous; from memory). A wider one in a table is
    /// most likely a slip of the pen, and every contour would lie off by half of it.
    pub fn widest_kerf(self) -> f64 {
        match self {
            Process::Laser => 1.0,
            Process::Waterjet => 2.0,
            Process::Plasma => 8.0,
            Process::OxyFuel => 10.0,
        }
    }

    /// The usual cautions at such a machine (common practice).
    pub fn cautions(self) -> &'static [&'static str] {
        match self {
            Process::Laser => {
                &["Laser light blinds: run only with the enclosure closed.", "Fume extraction on before the beam."]
            }
            Process::Plasma => &[
                "Shade your eyes from the arc; hearing protection.",
                "Slag and the cut edge stay hot: tongs, not hands.",
            ],
            Process::Waterjet => &["The jet cuts flesh: keep clear of the nozzle and of what it drains into."],
            Process::OxyFuel => &[
                "Flashback arrestors on both hoses, nothing that burns within reach of the sparks.",
                "The plate stays hot long after the cut.",
            ],
        }
    }
}

/// A named macro of a machine and the code that calls it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Macro {
    /// What the shop calls it: `BEAM ON`.
    pub name: String,
    /// Its code in a program: `M3`.
    pub code: String,
}

/// What a cutter does in one family up to one thickness.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutterRow {
    /// The family it is for.
    pub family: Family,
    /// Thickness that the row serves up to, mm.
    pub thickness: f64,
    /// Width of the cut, mm.
    pub kerf: f64,
    /// Cutting speed, mm/min.
    pub speed: f64,
    /// Time for one pierce, s.
    pub pierce: f64,
    /// Smallest hole that comes out usable, mm.
    pub least_hole: f64,
    /// Gas or abrasive.
    #[serde(default)]
    pub gas: String,
    /// What the shop calls how it cuts by this row (`fine`, `fast`); empty where it cuts in one way only.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub quality: String,
    /// Where the row's figures come from; empty where it is what the cutter's own source says.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
    /// Whether its figures are a made-up example that nobody has replaced.
    #[serde(default, skip_serializing_if = "is_false")]
    pub made_up: bool,
}

impl CutterRow {
    /// Its quality in a sentence: ` in quality fine`, nothing where it has none.
    pub fn quality_words(&self) -> String {
        if self.quality.is_empty() { String::new() } else { format!(" in quality {}", self.quality) }
    }
}

/// For serde: what is false is not written.
pub(super) fn is_false(value: &bool) -> bool {
    !value
}

/// A cutter.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Cutter {
    /// Short name, as cited in a piece.
    pub name: String,
    /// Name in words.
    pub title: String,
    /// How it cuts.
    pub process: Process,
    /// Speed of moves with the tool off, mm/min.
    pub rapid: f64,
    /// Acceleration of the head, mm/s2.
    pub acceleration: f64,
    /// Time for one centre mark, s.
    pub mark_time: f64,
    /// Cost of an hour, in `currency`.
    pub cost: f64,
    /// Currency of the cost.
    pub currency: String,
    /// Turns the tool on.
    pub on: Macro,
    /// Turns the tool off.
    pub off: Macro,
    /// Marks a centre where the head stands.
    pub mark: Macro,
    /// Where the figures come from.
    pub source: String,
    /// Rows by family and thickness.
    pub rows: Vec<CutterRow>,
}

/// A fault in a shop table: path to the field, and what is wrong.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("{path}: {message}")]
pub struct TableFault {
    /// Path to the field: `cutter[0].rows[2].kerf`.
    pub path: String,
    /// What is wrong, with the value.
    pub message: String,
}

/// The most cutters and rows of a shop's table.
const MOST_CUTTERS: usize = 50;
const MOST_ROWS: usize = 500;

impl Cutter {
    /// The row for a thickness of a family, mm: of the quality asked for the thinnest that serves it. Where none is asked for it is
    /// the quality of the first row listed that serves: the shop's order says what is usual. `None` when the cutter does not
    /// reach it.
    pub fn row(&self, family: Family, thickness: f64, quality: Option<&str>) -> Option<&CutterRow> {
        let usual = self.serving(family, thickness).next()?.quality.as_str();
        let quality = quality.unwrap_or(usual);
        let of_quality = self.serving(family, thickness).filter(|row| row.quality == quality);
        of_quality.min_by(|one, two| one.thickness.total_cmp(&two.thickness))
    }

    /// Qualities that it cuts a thickness of a family in, as listed: the usual one first.
    pub fn qualities(&self, family: Family, thickness: f64) -> Vec<&str> {
        let mut all: Vec<&str> = Vec::new();
        for row in self.serving(family, thickness) {
            if !all.contains(&row.quality.as_str()) {
                all.push(&row.quality);
            }
        }
        all
    }

    fn serving(&self, family: Family, thickness: f64) -> impl Iterator<Item = &CutterRow> {
        self.rows.iter().filter(move |row| row.family == family && row.thickness >= thickness - ROUNDING)
    }

    fn check(&self, path: &str) -> Result<(), TableFault> {
        let fault = |field: &str, message: String| Err(TableFault { path: format!("{path}.{field}"), message });
        let plain = |text: &str, most: usize| {
            !text.trim().is_empty() && text.chars().count() <= most && !text.chars().any(char::is_control)
        };
        for (field, text, most) in [
            ("name", &self.name, 40),
            ("title", &self.title, 80),
            ("currency", &self.currency, 8),
            ("on.name", &self.on.name, 30),
            ("off.name", &self.off.name, 30),
            ("mark.name", &self.mark.name, 30),
        ] {
            if !plain(text, most) {
                return fault(field, format!("\"{text}\" is no name: 1 to {most} characters on one line"));
            }
        }
        let codes = [("on.code", &self.on.code), ("off.code", &self.off.code), ("mark.code", &self.mark.code)];
        for (at, (field, code)) in codes.iter().enumerate() {
            let number = code.strip_prefix('M').and_then(|rest| rest.parse::<u16>().ok());
            // M0, M1, M2 and M30 stop or end any program.
            if !number.is_some_and(|number| number <= 999 && ![0, 1, 2, 30].contains(&number)) {
                return fault(field, format!("\"{code}\" is no macro call: M3 to M999, and not M30, is"));
            }
            if codes[..at].iter().any(|(_, other)| other == code) {
                return fault(field, format!("{code} is taken by another macro of this cutter"));
            }
        }
        for (field, value, least, most, unit) in [
            ("rapid", self.rapid, 100.0, 1e6, "mm/min"),
            ("acceleration", self.acceleration, 1.0, 1e6, "mm/s2"),
            ("mark_time", self.mark_time, 0.0, 600.0, "s"),
            ("cost", self.cost, 0.0, 1e6, "an hour"),
        ] {
            if !(least..=most).contains(&value) {
                return fault(field, format!("{value} {unit} is outside {least} to {most} {unit}"));
            }
        }
        if self.rows.is_empty() || self.rows.len() > MOST_ROWS {
            return fault("rows", format!("{} rows; 1 to {MOST_ROWS} are needed", self.rows.len()));
        }
        for (at, row) in self.rows.iter().enumerate() {
            for (field, value, least, most, unit) in [
                ("thickness", row.thickness, 0.01, 1000.0, "mm"),
                ("kerf", row.kerf, 0.01, 20.0, "mm"),
                ("speed", row.speed, 0.1, 1e6, "mm/min"),
                ("pierce", row.pierce, 0.0, 3600.0, "s"),
                ("least_hole", row.least_hole, 0.0, 1000.0, "mm"),
            ] {
                if !(least..=most).contains(&value) {
                    return fault(
                        &format!("rows[{at}].{field}"),
                        format!("{value} {unit} is outside {least} to {most} {unit}"),
                    );
                }
            }
            if row.gas.chars().count() > 40 || row.gas.chars().any(char::is_control) {
                return fault(&format!("rows[{at}].gas"), "a gas has at most 40 characters on one line".into());
            }
            for (field, text, most) in [("quality", &row.quality, 30), ("source", &row.source, 80)] {
                if text.chars().count() > most || text.chars().any(char::is_control) || text.trim() != text {
                    return fault(
                        &format!("rows[{at}].{field}"),
                        format!(
                            "\"{text}\" cannot be: at most {most} characters on one line, none of them blank at its ends"
                        ),
                    );
                }
            }
            let same = |other: &CutterRow| {
                (other.family, &other.quality) == (row.family, &row.quality) && other.thickness == row.thickness
            };
            if self.rows[..at].iter().any(same) {
                let (family, thickness, quality) = (row.family.words(), row.thickness, row.quality_words());
                return fault(
                    &format!("rows[{at}].thickness"),
                    format!("there is another row for {family} of {thickness} mm{quality}"),
                );
            }
        }
        Ok(())
    }
}

/// Checks a shop's cutters.
///
/// # Errors
/// [`TableFault`] with the path of the first bad field.
pub fn check_cutters(cutters: &[Cutter]) -> Result<(), TableFault> {
    if cutters.is_empty() || cutters.len() > MOST_CUTTERS {
        let message = format!("{} cutters; 1 to {MOST_CUTTERS} are needed", cutters.len());
        return Err(TableFault { path: "cutter".into(), message });
    }
    for (at, cutter) in cutters.iter().enumerate() {
        let path = format!("cutter[{at}]");
        cutter.check(&path)?;
        if cutters[..at].iter().any(|other| other.name == cutter.name) {
            return Err(TableFault { path: format!("{path}.name"), message: format!("{} is taken", cutter.name) });
        }
    }
    Ok(())
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Table {
    cutter: Vec<Cutter>,
}

/// Reads a table of cutters as TOML, the form of `data/cutters.toml`.
///
/// # Errors
/// [`TableFault`]: no TOML, an unknown field, or a bad value with its path.
pub fn read_cutters(text: &str) -> Result<Vec<Cutter>, TableFault> {
    let table: Table = toml::from_str(text)
        .map_err(|fault| TableFault { path: "cutters".into(), message: fault.message().to_string() })?;
    check_cutters(&table.cutter)?;
    Ok(table.cutter)
}

/// Writes a table of cutters as TOML.
pub fn write_cutters(cutters: &[Cutter]) -> String {
    // Names and numbers only: nothing in a table can fail to be written.
    toml::to_string_pretty(&Table { cutter: cutters.to_vec() }).unwrap_or_default()
}

/// The cutters that Steelk ships: made-up examples, plainly marked.
pub fn example_cutters() -> &'static [Cutter] {
    static CUTTERS: OnceLock<Vec<Cutter>> = OnceLock::new();
    CUTTERS.get_or_init(|| {
        // Part of the program, read by a test: a fault in it cannot reach a user.
        read_cutters(include_str!("../../../../data/cutters.toml")).expect("the table in data/ is sound")
    })
}
