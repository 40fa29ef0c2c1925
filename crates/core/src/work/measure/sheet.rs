//! What may be measured on a sheet or plate, and on any piece.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{BendName, Dimension, EdgeName, FeatureName, HoleName, PanelName};
use crate::work::sheet::LegTo;

use super::{Along, Axis, Distance, FrameMeasure};

/// Something that can be measured on the built part.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Measure {
    /// Distance between two named edges, faces, mould lines or hole axes.
    Distance(Distance),
    /// Overall folded size.
    Size(Along),
    /// A flange's leg.
    Leg(LegOf),
    /// The included angle between two panels: 90 deg for a square corner, 180 deg for parallel faces.
    Angle(BetweenPanels),
    /// How far a bend is turned from flat.
    BendAngle(OfBend),
    /// A bend's inside radius.
    InsideRadius(OfBend),
    /// A round hole's diameter.
    Diameter(OfHole),
    /// Size of a hole on the blank, along its x or y.
    HoleSize(HoleAlong),
    /// How many holes an operation made.
    HoleCount(OfHole),
    /// Metal left under a blind hole, its point counted.
    Floor(OfHole),
    /// How deep the countersink or counterbore of a hole is.
    HeadDepth(OfHole),
    /// How high a pressed form stands over the face that it stands out of.
    FormHeight(OfForm),
    /// Length of a panel's edge on the blank; of all that is left of it.
    EdgeLength(OfEdge),
    /// Radius of a round edge on the blank.
    EdgeRadius(OfEdge),
    /// Sheet thickness.
    Thickness,
    /// Size of the blank, along x or y.
    BlankSize(Along),
    /// Length of every cut of the blank.
    CutLength,
    /// How many times the cutter pierces.
    Pierces,
    /// Net area of the blank.
    NetArea,
    /// Mass of the part.
    Mass,
    /// Mass of the blank as it is cut, before heads and blind holes.
    UndrilledMass,
    /// A coordinate of the centre of gravity, folded.
    CentreOfGravity(Along),
    /// Volume of the folded solid.
    FoldedVolume,
    /// Something of a frame.
    Frame(FrameMeasure),
}

impl Measure {
    /// What the measure yields.
    pub fn dimension(&self) -> Dimension {
        match self {
            Measure::Frame(one) => one.dimension(),
            Measure::Angle(_) | Measure::BendAngle(_) => Dimension::ANGLE,
            Measure::HoleCount(_) | Measure::Pierces => Dimension::NUMBER,
            Measure::NetArea => Dimension::AREA,
            Measure::Mass | Measure::UndrilledMass => Dimension::MASS,
            Measure::FoldedVolume => Dimension::VOLUME,
            _ => Dimension::LENGTH,
        }
    }

    /// The measure in words.
    pub fn words(&self) -> String {
        match self {
            Measure::Frame(one) => one.words(),
            Measure::Distance(one) => match one.along {
                Some(axis) => format!("{} to {} along {}", one.from, one.to, axis.letter()),
                None => format!("{} to {}", one.from, one.to),
            },
            Measure::Size(one) => format!("overall size along {}", one.along.letter()),
            Measure::Leg(one) => {
                let to = match one.to {
                    LegTo::Outside => "outside",
                    LegTo::Inside => "inside",
                    LegTo::Mould => "to the mould line",
                    LegTo::Tangent => "to the tangent",
                };
                format!("leg of {}, {to}", one.bend)
            }
            Measure::Angle(one) => format!("angle between {} and {}", one.from, one.to),
            Measure::BendAngle(one) => format!("bend angle of {}", one.bend),
            Measure::InsideRadius(one) => format!("inside radius of {}", one.bend),
            Measure::Diameter(one) => format!("diameter of {}", one.hole),
            Measure::HoleSize(one) => format!("size of {} along {}", one.hole, one.along.letter()),
            Measure::HoleCount(one) => format!("number of {}", one.hole),
            Measure::Floor(one) => format!("metal under {}", one.hole),
            Measure::HeadDepth(one) => format!("depth of the head of {}", one.hole),
            Measure::FormHeight(one) => format!("height of {}", one.form),
            Measure::EdgeLength(one) => format!("length of {}", one.edge),
            Measure::EdgeRadius(one) => format!("radius of {}", one.edge),
            Measure::Thickness => "thickness".into(),
            Measure::BlankSize(one) => format!("blank along {}", one.along.letter()),
            Measure::CutLength => "cut length".into(),
            Measure::Pierces => "pierces".into(),
            Measure::NetArea => "net area".into(),
            Measure::Mass => "mass".into(),
            Measure::UndrilledMass => "mass before drilling".into(),
            Measure::CentreOfGravity(one) => format!("centre of gravity, {}", one.along.letter()),
            Measure::FoldedVolume => "folded volume".into(),
        }
    }

    /// The names of panels, bends, edges and holes it looks at.
    pub fn features(&self) -> Vec<String> {
        match self {
            Measure::Frame(one) => one.features(),
            Measure::Distance(one) => vec![one.from.to_string(), one.to.to_string()],
            Measure::Angle(one) => vec![one.from.to_string(), one.to.to_string()],
            Measure::Leg(one) => vec![one.bend.to_string()],
            Measure::BendAngle(one) | Measure::InsideRadius(one) => vec![one.bend.to_string()],
            Measure::Diameter(one) | Measure::HoleCount(one) | Measure::Floor(one) | Measure::HeadDepth(one) => {
                vec![one.hole.to_string()]
            }
            Measure::FormHeight(one) => vec![one.form.to_string()],
            Measure::HoleSize(one) => vec![one.hole.to_string()],
            Measure::EdgeLength(one) | Measure::EdgeRadius(one) => vec![one.edge.to_string()],
            _ => Vec::new(),
        }
    }
}

/// A leg of a bend's flange.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct LegOf {
    pub bend: BendName,
    #[serde(default)]
    pub to: LegTo,
}

/// Two panels.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BetweenPanels {
    pub from: PanelName,
    pub to: PanelName,
}

/// A bend.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfBend {
    pub bend: BendName,
}

/// A hole (or, for a count, the operation that made several).
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfHole {
    pub hole: HoleName,
}

/// A pressed form, or the first of an operation.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfForm {
    pub form: FeatureName,
}

/// An edge, such as `base.crown`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfEdge {
    pub edge: EdgeName,
}

/// A hole's size along the blank's x or y.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct HoleAlong {
    pub hole: HoleName,
    pub along: Axis,
}
