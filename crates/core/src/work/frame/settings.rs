//! What a frame says beside its work.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;
use crate::work::shape::BaseShape;

/// What a frame says beside its work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct FrameSettings {
    /// What the saw's angle is set to: the exact angle is shown to this step.
    pub saw_step: Expr,
    /// Bars to cut from; 6000 mm without limit where empty.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bars: Vec<StockBarText>,
    /// Sections of the shop's own, kept here by value: members name them.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub sections: Vec<OwnSection>,
    /// Width of the saw cut.
    pub kerf: Expr,
    /// Cut off each end of a bar before use.
    pub end_trim: Expr,
    /// The last of a bar, which the saw's grip cannot give.
    pub grip: Expr,
    /// The widest gap that is welded.
    pub weld_gap: Expr,
    /// How members meet where no step says so; left open where left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub usual_joints: Option<UsualJoints>,
    /// Which weld symbols the shop draws.
    pub weld_symbols: WeldSymbols,
    /// ISO 13920 class of welded sizes with no tolerance of their own: A, B, C or D.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub welded_tolerance: Option<WeldedClass>,
}

impl Default for FrameSettings {
    fn default() -> Self {
        FrameSettings {
            saw_step: "0.5 deg".into(),
            bars: Vec::new(),
            sections: Vec::new(),
            kerf: "3 mm".into(),
            end_trim: "0 mm".into(),
            grip: "0 mm".into(),
            weld_gap: "5 mm".into(),
            usual_joints: None,
            weld_symbols: WeldSymbols::default(),
            welded_tolerance: None,
        }
    }
}

/// A section of the shop's own.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnSection {
    /// What members call it; none that a standard's section has.
    pub name: String,
    /// Its outline, seen from the end of a bar.
    pub outline: BaseShape,
    /// What a metre weighs, kg/m, where the maker says so; what its area makes where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mass_per_metre: Option<f64>,
    /// Lengths that its bars come in; those of any section where there are none.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub bars: Vec<Expr>,
    /// Whether its sides are alike.
    #[serde(default, skip_serializing_if = "Symmetry::is_of_outline")]
    pub symmetry: Symmetry,
    /// Where its outline and its mass come from: a maker's sheet, a drawing.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
}

/// Whether the sides of a section are alike, so that a piece may be turned over.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Symmetry {
    /// As its outline is.
    #[default]
    OfOutline,
    /// They are told apart (a coated side, a groove that is not drawn): no piece is turned over.
    None,
}

impl Symmetry {
    fn is_of_outline(&self) -> bool {
        *self == Symmetry::OfOutline
    }
}

/// Bars of one length.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StockBarText {
    /// The section that they are of; any where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub section: Option<String>,
    /// Length.
    pub length: Expr,
    /// How many there are; no limit where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quantity: Option<u32>,
}

/// How members meet where no step says so. An end on a member that runs on is trimmed to its face, or coped on a round one.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum UsualJoints {
    /// Corners are mitred; where more than two ends meet, the two that lie most level.
    Mitre,
    /// Corners are butted, in the order of the work.
    Butt,
}

/// Weld symbols.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WeldSymbols {
    /// ISO 2553.
    #[default]
    Iso2553,
    /// AWS A2.4.
    AwsA24,
}

/// Classes of ISO 13920 for linear sizes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs)]
pub enum WeldedClass {
    A,
    B,
    C,
    D,
}
