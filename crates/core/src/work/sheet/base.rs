//! The panel that stays put.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::work::shape::{BaseShape, PlacedBy};

/// Lay down the panel that stays put.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LayDown {
    /// Its shape.
    pub shape: BaseShape,
    /// Which point of its box lies on the origin; where left out, a shape drawn about a centre keeps it there, any
    /// other starts from its corner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<PlacedBy>,
}
