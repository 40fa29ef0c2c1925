//! Threads and clearance holes by designation.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::rows::rows;

/// A thread: `M10`, `M10x1.25`, `#8-32`, `1/4-20`. Lengths in mm.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Thread {
    /// Its designation.
    pub name: String,
    /// Family: metric or unified, coarse or fine.
    pub family: String,
    /// Major diameter, mm.
    pub major: f64,
    /// Pitch, mm.
    pub pitch: f64,
    /// Drill for the tap, mm.
    pub tap_drill: f64,
    /// Where the figures come from.
    pub source: String,
}

/// How closely a clearance hole fits its bolt.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Fit {
    Fine,
    #[default]
    Medium,
    Coarse,
}

/// Clearance holes for one bolt, diameters in mm.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Clearance {
    pub bolt: String,
    pub fine: f64,
    pub medium: f64,
    pub coarse: f64,
    /// Where the figures come from.
    pub source: String,
}

impl Clearance {
    /// The hole's diameter for a fit, mm.
    pub fn diameter(&self, fit: Fit) -> f64 {
        match fit {
            Fit::Fine => self.fine,
            Fit::Medium => self.medium,
            Fit::Coarse => self.coarse,
        }
    }
}

/// A designation without what people write differently: case, spaces, "UNC".
pub(super) fn plain(name: &str) -> String {
    let small = name.to_ascii_lowercase().replace('\u{d7}', "x");
    let word = small.trim().trim_end_matches("unc").trim_end_matches("unf").replace([' ', '"'], "");
    word.strip_prefix("no.").map_or(word.clone(), |rest| format!("#{rest}"))
}

fn number(text: &str) -> Result<f64, String> {
    text.parse().map_err(|_| format!("bad number {text}"))
}

pub(super) fn threads() -> Result<Vec<Thread>, String> {
    rows(include_str!("../../../../data/threads.csv"))
        .map(|row| {
            let row = row.map_err(|fault| fault.to_string())?;
            Ok(Thread {
                name: row[0].to_string(),
                family: row[1].to_string(),
                major: number(&row[2])?,
                pitch: number(&row[3])?,
                tap_drill: number(&row[4])?,
                source: row[5].to_string(),
            })
        })
        .collect()
}

pub(super) fn clearances() -> Result<Vec<Clearance>, String> {
    rows(include_str!("../../../../data/clearance.csv"))
        .map(|row| {
            let row = row.map_err(|fault| fault.to_string())?;
            Ok(Clearance {
                bolt: row[0].to_string(),
                fine: number(&row[1])?,
                medium: number(&row[2])?,
                coarse: number(&row[3])?,
                source: row[4].to_string(),
            })
        })
        .collect()
}
