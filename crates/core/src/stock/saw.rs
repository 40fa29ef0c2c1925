//! The shop's saw.

use std::sync::OnceLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::cutter::is_false;

/// A saw for sections.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShopSaw {
    /// What it is.
    pub name: String,
    /// How far from square it cuts, degrees.
    pub angle_deg: f64,
    /// The shortest short point that it holds, mm.
    pub hold_mm: f64,
    /// Where the figures come from.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
    /// Whether they are a made-up example that nobody has replaced.
    #[serde(default, skip_serializing_if = "is_false")]
    pub made_up: bool,
}

/// The saw built into Steelk.
pub fn shop_saw() -> &'static ShopSaw {
    static SAW: OnceLock<ShopSaw> = OnceLock::new();
    // Part of the program, and read by a test: a fault in it cannot reach a user.
    SAW.get_or_init(|| toml::from_str(include_str!("../../../../data/saw.toml")).expect("data/saw.toml is sound"))
}
