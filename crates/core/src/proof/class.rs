//! Classes of general tolerances.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Classes of ISO 2768-1 that Steelk carries.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ToleranceClass {
    /// Fine.
    F,
    /// Medium.
    M,
    /// Coarse.
    C,
}
