//! Hems and joggles.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{EdgeName, Expr};

use super::{BendPosition, Direction, Method, Relief};

/// Hem an edge.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemAction {
    /// The edge.
    pub edge: EdgeName,
    /// Its kind.
    pub style: HemStyle,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Where it sits relative to the edge: material inside keeps the overall size.
    #[serde(default)]
    pub position: BendPosition,
    /// How far it stands in from an end of the edge, by the name of the side.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_in: BTreeMap<String, Expr>,
    /// Relief where its end meets material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<Relief>,
    /// How its blank is computed; the piece's formula where left out (a measured table tells of bends, not of hems).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

/// Kinds of hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HemStyle {
    /// Pressed flat on the sheet.
    Closed(HemLength),
    /// Folded back with a gap.
    Open(OpenHem),
    /// Folded back past flat, its tip on the sheet.
    Teardrop(TeardropHem),
    /// Curled, with no straight.
    Rolled(RolledHem),
}

/// A length of hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemLength {
    /// Over all: from its fold's outside to its tip.
    pub length: Expr,
}

/// An open hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenHem {
    /// Over all: from its fold's outside to its tip.
    pub length: Expr,
    /// Between its face and the sheet's.
    pub gap: Expr,
}

/// A teardrop hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TeardropHem {
    /// Over all: from its fold's outside to its tip.
    pub length: Expr,
    /// Inside radius of its fold.
    pub radius: Expr,
}

/// A rolled hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RolledHem {
    /// Inside radius.
    pub radius: Expr,
    /// How far it is curled; 270 deg where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
}

/// Joggle an edge: two equal and opposite bends. The panel past them is called by the operation, the web between them
/// `OPERATION.web`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JoggleAction {
    /// The edge.
    pub edge: EdgeName,
    /// From a face before it to the same face past it.
    pub offset: Expr,
    /// Angle of both bends; 90 deg where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
    /// The leg past it, to the second bend's tangent line.
    pub leg: Expr,
    /// Toward the upper or the lower face.
    #[serde(default)]
    pub direction: Direction,
    /// Where its first bend sits relative to the edge.
    #[serde(default = "outside", skip_serializing_if = "is_outside")]
    pub position: BendPosition,
    /// Inside radius of both bends; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// How far it stands in from an end of the edge, by the name of the side.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_in: BTreeMap<String, Expr>,
    /// Relief where its end meets material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relief: Option<Relief>,
    /// How its blank is computed; the piece's own way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
}

fn outside() -> BendPosition {
    BendPosition::BendOutside
}

fn is_outside(position: &BendPosition) -> bool {
    *position == BendPosition::BendOutside
}
