//! A picture that an outline is traced from.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plane::Point;
use crate::quantity::Expr;

/// A picture that an outline is traced from. Places on it are pixels from its upper left corner.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Underlay {
    /// Two points and the length measured between them: the scale.
    pub scale: ScalePair,
    /// A second pair, measured another way, to check for skew.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub check: Option<ScalePair>,
    /// How far the picture is turned, left positive; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// Rough place of the scale's first point in the outline's plane, across, mm.
    #[serde(default)]
    pub x: f64,
    /// Rough place of the scale's first point, up, mm.
    #[serde(default)]
    pub y: f64,
    /// How much of the picture shows through, 0 to 1; half where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fade: Option<f64>,
    /// Whether it stays put while the outline is worked on.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// Two places on a picture and what lies between them.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ScalePair {
    pub from: PicturePoint,
    pub to: PicturePoint,
    /// The length measured on the sample.
    pub length: Expr,
}

/// A place on a picture, pixels right and down from its upper left corner.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct PicturePoint {
    pub x: f64,
    pub y: f64,
}

impl PicturePoint {
    /// The place in pixels.
    pub fn point(self) -> Point {
        Point::new(self.x, self.y)
    }
}
