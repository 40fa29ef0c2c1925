//! Plates of a frame.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, MemberName};
use crate::work::shape::BaseShape;

use super::{MemberFace, WhichEnd};

/// Plates of a frame.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlateKind {
    /// In the corner of two members.
    Gusset(GussetPlate),
    /// Square across the end of members: base plate, cleat plate, cap.
    Base(BasePlate),
    /// On a member's face: lug, axle plate, cleat.
    Face(FacePlate),
    /// Filling the opening between members that lie in one plane, or on top of them.
    Panel(PanelPlate),
}

/// A gusset.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GussetPlate {
    /// The two members, each pair giving one gusset.
    pub between: [MemberName; 2],
    /// Leg along the first.
    pub first: Expr,
    /// Leg along the second.
    pub second: Expr,
    /// Clip of the inner corner, for the weld.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corner: Option<Expr>,
    /// Blunt tips.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tips: Option<Expr>,
    /// Off the middle of the members.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<Expr>,
}

/// A base plate.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BasePlate {
    /// Members.
    pub of: Vec<MemberName>,
    /// Which end.
    #[serde(default)]
    pub at: WhichEnd,
    /// Its shape, its middle on the section's middle.
    pub shape: BaseShape,
    /// The member is shortened by the thickness, so that the plate's far face is where the member ended.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub within: bool,
}

/// A plate on a face.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FacePlate {
    /// Members.
    pub of: Vec<MemberName>,
    /// The face that it sits on.
    pub face: MemberFace,
    /// Distance of its middle from the line's start; from its end where negative.
    pub at: Expr,
    /// Its shape, its middle or its foot there.
    pub shape: BaseShape,
    /// PlateStands square on the face along the member instead of lying on it: a lug.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stands: Option<PlateStands>,
    /// Off the middle of the face.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<Expr>,
    /// The figures of a lug that lifts, for review.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lifts: Option<LugReview>,
}

/// How a plate stands on a face.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlateStands {
    /// Along the member.
    Along,
    /// Across it.
    Across,
}

/// What a lifting lug is reviewed with.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LugReview {
    /// Pin diameter.
    pub pin: Expr,
    /// Load, a mass.
    pub load: Expr,
    /// Yield strength, MPa as a plain number.
    pub yield_strength: Expr,
    /// Tensile strength, MPa as a plain number.
    pub tensile_strength: Expr,
    /// Design factor: 2 (category A) or 3 (B).
    pub design_factor: Expr,
}

/// A panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PanelPlate {
    /// Four members round an opening, in order.
    pub between: Vec<MemberName>,
    /// Clearance all round.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clearance: Option<Expr>,
    /// On top of the members, out to their outer faces, instead of between them.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub on_top: bool,
}
