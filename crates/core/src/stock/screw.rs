//! Heads of screws, and washers: what a counterbore, a countersink and a keyhole are made for.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::rows::rows;

/// Kinds of head.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Head {
    /// Socket cap: ISO 4762, ASME B18.3.
    #[default]
    Socket,
    /// Countersunk: ISO 10642, ASME B18.3.
    Flat,
    /// Button: ISO 7380-1.
    Button,
    /// Hexagon: ISO 4017.
    Hex,
    /// A plain washer under whatever head: ISO 7089, ASME B18.21.1.
    Washer,
}

impl Head {
    /// Whether it is a socket head: what is meant where nothing is said.
    pub fn is_socket(&self) -> bool {
        *self == Head::Socket
    }

    /// What it is called in a sentence.
    pub fn words(self) -> &'static str {
        match self {
            Head::Socket => "socket head",
            Head::Flat => "flat head",
            Head::Button => "button head",
            Head::Hex => "hexagon head",
            Head::Washer => "washer",
        }
    }
}

/// The head of one size of screw, or its washer, mm and degrees.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Screw {
    /// Kind of head.
    pub head: Head,
    /// Which screw: `M5`, `#8`, `1/4`.
    pub size: String,
    /// Its widest diameter; of a countersunk head where cone and face would meet.
    pub diameter: f64,
    /// Its height.
    pub height: f64,
    /// Of a countersunk head the angle of its cone.
    pub angle: Option<f64>,
    /// The counterbore that takes it: diameter and depth.
    #[schema(value_type = Option<Vec<f64>>)]
    pub counterbore: Option<(f64, f64)>,
    /// Where the figures come from.
    pub source: String,
}

pub(super) fn screws() -> Result<Vec<Screw>, String> {
    rows(include_str!("../../../../data/screws.csv"))
        .map(|row| {
            let row = row.map_err(|fault| fault.to_string())?;
            screw_of(&row).map_err(|(column, message)| format!("{column}: {message}"))
        })
        .collect()
}

/// Columns of a file of screws: millimetres and degrees.
pub(super) const COLUMNS: [&str; 8] = ["kind", "size", "head", "height", "angle", "bore", "bore_depth", "source"];

/// A row of a file of screws, or which column cannot be read.
pub(super) fn screw_of(row: &csv::StringRecord) -> Result<Screw, (&'static str, String)> {
    let cell = |at: usize| row.get(at).unwrap_or_default().trim();
    let number = |at: usize| {
        let read = cell(at).parse::<f64>().ok().filter(|value| value.is_finite());
        read.ok_or_else(|| (COLUMNS[at], format!("\"{}\" is no number", cell(at))))
    };
    let maybe = |at: usize| if cell(at).is_empty() { Ok(None) } else { number(at).map(Some) };
    let head = serde_json::from_value(serde_json::Value::String(cell(0).to_string()));
    Ok(Screw {
        head: head.map_err(|_| {
            (COLUMNS[0], format!("\"{}\" is no kind of head: socket, flat, button, hex and washer are", cell(0)))
        })?,
        size: cell(1).to_string(),
        diameter: number(2)?,
        height: number(3)?,
        angle: maybe(4)?,
        counterbore: maybe(5)?.zip(maybe(6)?),
        source: cell(7).to_string(),
    })
}
