//! How members meet.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, MemberName, NodeName};

/// How members meet at nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JointAction {
    /// Where.
    pub at: JointAt,
    /// How.
    pub how: JointHow,
}

/// Where a joint is.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JointAt {
    /// Every node where members end together.
    Corners,
    /// Every node where a member ends on one that runs on.
    Tees,
    /// Both.
    All,
    /// These nodes.
    Nodes(Vec<NodeName>),
}

/// How members meet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JointHow {
    /// Cut on the planes between them; on a member that runs on, cut to that and mitred with each other.
    Mitre(MitreJoint),
    /// One runs through, the others are cut to its face.
    Butt(Butt),
    /// Cut to the face, or coped where the one that runs on is round.
    Trim(Gap),
    /// Fitted into the outline of the one that runs on, flanges and web each to their own face.
    Cope(Gap),
    /// A round member passes through a bore of the other; neither is cut.
    Pass(Gap),
}

/// A mitre.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MitreJoint {
    /// Groups or members that are mitred with each other; the others are cut to them. Where left out: two ends alone, all
    /// ends where they are of one group, or the ends of the one group that has several there.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub between: Vec<MemberName>,
    /// For weld or paint; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
}

/// Room left between members.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Gap {
    /// For weld or paint; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
}

/// A butt joint.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Butt {
    /// Groups or members in the order in which they run through; the others follow in the order of the work.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub through: Vec<MemberName>,
    /// For weld or paint; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap: Option<Expr>,
    /// The one that runs through ends at the node instead of flush with the far face of the others.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub to_node: bool,
}
