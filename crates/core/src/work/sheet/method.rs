//! How a bend's flat length is found.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

/// How a bend's flat length is found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Method {
    /// Neutral axis at this fraction of the thickness from the inside face, from 0 to 0.5 (up to 1 is read).
    KFactor(Expr),
    /// Flat length of the bend itself. For a piece: of a 90 deg bend at the piece's radius.
    Allowance(Expr),
    /// What is taken off the sum of the two outside legs. For a piece: of a 90 deg bend at the piece's radius.
    Deduction(Expr),
    /// DIN 6935's correction for cold-bent flat steel.
    Din6935,
    /// K by the ratio of inside radius to thickness: points in rising order, in proportion between them, nothing past
    /// them.
    KCurve(Vec<CurvePoint>),
}

/// A point of a curve of K.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CurvePoint {
    /// R/T.
    pub ratio: Expr,
    /// K there.
    pub k: Expr,
}
