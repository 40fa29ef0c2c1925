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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    let number = |text: &str| text.parse::<f64>().map_err(|_| format!("bad figure {text}"));
    let maybe = |text: &str| if text.is_empty() { Ok(None) } else { number(text).map(Some) };
    rows(include_str!("../../../../data/screws.csv"))
        .map(|row| {
            let row = row.map_err(|fault| fault.to_string())?;
            let head = serde_json::from_value(serde_json::Value::String(row[0].to_string()));
            Ok(Screw {
                head: head.map_err(|fault| fault.to_string())?,
                size: row[1].to_string(),
                diameter: number(&row[2])?,
                height: number(&row[3])?,
                angle: maybe(&row[4])?,
                counterbore: maybe(&row[5])?.zip(maybe(&row[6])?),
                source: row[7].to_string(),
            })
        })
        .collect()
}
