//! Sheets that stockholders keep, the press brake, and how the sheet's grain lies.

use std::sync::OnceLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::cutter::is_false;
use crate::plane::Vector;
use crate::quantity::tolerance::NO_TURN;

/// How the rolling direction of the sheet lies on the blank.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Grain {
    /// Along the blank's x.
    AlongX,
    /// Along the blank's y.
    AlongY,
}

impl Grain {
    /// How far a line on the blank is turned off the grain, degrees: 0 along it, 90 across it.
    pub fn off(self, line: Vector) -> f64 {
        let off = match self {
            Grain::AlongX => line.y.atan2(line.x),
            Grain::AlongY => line.x.atan2(line.y),
        };
        off.sin().abs().asin().to_degrees()
    }

    /// Whether a bend along a line counts as along the grain: within 45 deg of it (common practice).
    pub fn runs_along(self, line: Vector) -> bool {
        self.off(line) <= 45.0 - NO_TURN
    }

    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Grain::AlongX => "along x",
            Grain::AlongY => "along y",
        }
    }
}

/// A stock sheet, mm.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct StockSheet {
    pub name: String,
    pub length_mm: f64,
    pub width_mm: f64,
    /// Where it comes from: who keeps it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
}

/// A press brake.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Brake {
    /// What it is.
    pub name: String,
    /// Between its frames, mm.
    pub length_mm: f64,
    /// What it presses with, kN.
    pub force_kn: f64,
    /// How wide its straight punch is beside the bend line, mm.
    pub punch_mm: f64,
    /// Where the figures come from.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
    /// Whether they are a made-up example that nobody has replaced.
    #[serde(default, skip_serializing_if = "is_false")]
    pub made_up: bool,
}

/// What a shop bends with and from.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BendingShop {
    /// Sheets.
    #[serde(rename = "sheet")]
    pub sheets: Vec<StockSheet>,
    /// The brake.
    pub brake: Brake,
}

/// The table built into Steelk.
pub fn bending_shop() -> &'static BendingShop {
    static SHOP: OnceLock<BendingShop> = OnceLock::new();
    // Part of the program, and read by a test: a fault in it cannot reach a user.
    SHOP.get_or_init(|| {
        toml::from_str(include_str!("../../../../data/bending.toml")).expect("data/bending.toml is sound")
    })
}
