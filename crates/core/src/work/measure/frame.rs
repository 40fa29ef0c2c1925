//! What may be measured on a frame.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Dimension, MemberName, NodeName};
use crate::work::frame::OneEnd;

use super::{Along, Axis};

/// Something that can be measured on a frame.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FrameMeasure {
    /// Overall size of the metal along an axis; a height along z.
    Overall(Along),
    /// Between two nodes, or from a node to a node along an axis.
    Nodes(BetweenNodes),
    /// How much two diagonals differ.
    Diagonals(TwoDiagonals),
    /// The clear opening between two members that run the same way.
    Opening(BetweenMembers),
    /// The distance of two faces by their names, such as `rail.top`: parallel planes, or the axes of round ones.
    Faces(BetweenMembers),
    /// The least distance of two pieces, members or plates.
    Clearance(BetweenMembers),
    /// The angle between two members, 0 to 90 deg.
    Between(BetweenMembers),
    /// Length of a member, long point to long point.
    MemberLength(OfMember),
    /// Length of a member, short point to short point.
    ShortLength(OfMember),
    /// The angle of a member's end from square.
    EndAngle(OfEnd),
    /// Mass of the frame or of a sub-weldment.
    FrameMass(OfWeldment),
    /// A coordinate of its centre of gravity.
    FrameCentre(Along),
    /// How many members have lines of this name or pattern.
    MemberCount(OfMember),
}

impl FrameMeasure {
    /// What kind of number it gives.
    pub fn dimension(&self) -> Dimension {
        match self {
            FrameMeasure::Between(_) | FrameMeasure::EndAngle(_) => Dimension::ANGLE,
            FrameMeasure::FrameMass(_) => Dimension::MASS,
            FrameMeasure::MemberCount(_) => Dimension::NUMBER,
            _ => Dimension::LENGTH,
        }
    }

    /// What is measured, in words.
    pub fn words(&self) -> String {
        match self {
            FrameMeasure::Overall(one) => format!("overall size along {}", one.along.letter()),
            FrameMeasure::Nodes(one) => match one.along {
                Some(axis) => format!("{} to {} along {}", one.from, one.to, axis.letter()),
                None => format!("{} to {}", one.from, one.to),
            },
            FrameMeasure::Diagonals(two) => {
                format!(
                    "difference of the diagonals {} to {} and {} to {}",
                    two.one[0], two.one[1], two.two[0], two.two[1]
                )
            }
            FrameMeasure::Opening(two) => format!("clear opening between {} and {}", two.from, two.to),
            FrameMeasure::Faces(two) => format!("distance from {} to {}", two.from, two.to),
            FrameMeasure::Clearance(two) => format!("clearance between {} and {}", two.from, two.to),
            FrameMeasure::Between(two) => format!("angle between {} and {}", two.from, two.to),
            FrameMeasure::MemberLength(one) => format!("length of {}, long point to long point", one.member),
            FrameMeasure::ShortLength(one) => format!("length of {}, short point to short point", one.member),
            FrameMeasure::EndAngle(one) => {
                format!("cut of {} at its {}, from square", one.member, one.which().word())
            }
            FrameMeasure::FrameMass(of) => match &of.weldment {
                Some(name) => format!("mass of {name}"),
                None => "mass".into(),
            },
            FrameMeasure::FrameCentre(one) => format!("centre of gravity along {}", one.along.letter()),
            FrameMeasure::MemberCount(one) => format!("number of members {}", one.member),
        }
    }

    /// Names of what is measured.
    pub fn features(&self) -> Vec<String> {
        match self {
            FrameMeasure::Nodes(one) => vec![one.from.to_string(), one.to.to_string()],
            FrameMeasure::Opening(two)
            | FrameMeasure::Between(two)
            | FrameMeasure::Faces(two)
            | FrameMeasure::Clearance(two) => vec![two.from.to_string(), two.to.to_string()],
            FrameMeasure::MemberLength(one) | FrameMeasure::ShortLength(one) | FrameMeasure::MemberCount(one) => {
                vec![one.member.to_string()]
            }
            FrameMeasure::EndAngle(one) => vec![one.member.to_string()],
            _ => Vec::new(),
        }
    }
}

/// Two nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BetweenNodes {
    pub from: NodeName,
    pub to: NodeName,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<Axis>,
}

/// Two diagonals, each between two nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct TwoDiagonals {
    pub one: [NodeName; 2],
    pub two: [NodeName; 2],
}

/// Two members.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BetweenMembers {
    pub from: MemberName,
    pub to: MemberName,
}

/// A member.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfMember {
    pub member: MemberName,
}

/// An end of a member.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfEnd {
    pub member: MemberName,
    #[serde(default)]
    pub finish: bool,
}

impl OfEnd {
    /// Which end it is.
    pub fn which(&self) -> OneEnd {
        OneEnd::finish(self.finish)
    }
}

/// The whole frame, or a sub-weldment of it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfWeldment {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weldment: Option<String>,
}
