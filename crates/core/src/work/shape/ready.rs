//! Ready shapes, from their sizes.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

/// A rectangle's sizes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rectangle {
    /// Along the front, a length.
    pub width: Expr,
    /// From front to back, a length.
    pub depth: Expr,
}

/// A disc.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Circle {
    pub diameter: Expr,
}

/// A ring.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ring {
    /// Outside diameter.
    pub outside: Expr,
    /// Inside diameter.
    pub inside: Expr,
}

/// A strip with round ends.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Obround {
    /// Over both round ends.
    pub length: Expr,
    /// Twice the end radius.
    pub width: Expr,
}

/// A regular polygon.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Polygon {
    /// How many sides, 3 to 360.
    pub sides: Expr,
    /// Its size.
    pub size: Expr,
    /// What the size is measured over.
    #[serde(default)]
    pub across: Across,
}

/// What a polygon's size is measured over: diameters of the circle inside or around it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Across {
    /// The circle that touches its sides.
    #[default]
    Flats,
    /// The circle through its corners.
    Corners,
}

/// A triangle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Triangle {
    /// Length of the base.
    pub base: Expr,
    /// From the base to the tip.
    pub height: Expr,
    /// How far along the base the tip stands, from its left end; 0 where left out: a right triangle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lean: Option<Expr>,
}

/// A gusset.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Gusset {
    /// Length of the foot.
    pub width: Expr,
    /// Length of the upright.
    pub height: Expr,
    /// Clip of the inner corner, for the weld: this much off both legs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<Expr>,
    /// Height of the blunt end at the foot's tip, square to the foot.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub toe: Option<Expr>,
    /// Width of the blunt end at the upright's tip, square to the upright.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tip: Option<Expr>,
}

/// A lug.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lug {
    /// Width of the foot.
    pub base: Expr,
    /// From the foot to the hole's centre.
    pub height: Expr,
    /// Radius of the crown about the hole.
    pub radius: Expr,
    /// Diameter of the hole; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hole: Option<Expr>,
}

/// A flange with ears.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Eared {
    /// Diameter of the round body.
    pub body: Expr,
    /// Diameter of the hole in its middle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bore: Option<Expr>,
    /// How many ears, 2 to 36; the first to the right.
    pub ears: Expr,
    /// Diameter of the circle that the ears' centres stand on.
    pub circle: Expr,
    /// Radius of an ear.
    pub ear_radius: Expr,
    /// Diameter of each ear's hole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hole: Option<Expr>,
}
