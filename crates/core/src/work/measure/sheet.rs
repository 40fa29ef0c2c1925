//! What may be measured on a sheet or plate, and on any piece.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{BendName, Dimension, EdgeName, FeatureName, HoleName, OperationName, PanelName};
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
    /// The least metal between a hole's rim and an edge, a bend's tangent line or another hole's rim of the same panel.
    Rim(RimTo),
    /// Area of one hole.
    HoleArea(OfHole),
    /// Length of the cut of one hole.
    HoleCutLength(OfHole),
    /// Net area of a panel, without its bends.
    PanelArea(OfPanel),
    /// Length of every cut of a panel, holes with it.
    PanelCutLength(OfPanel),
    /// The angle between two straight edges in the flat: of a corner the metal's own.
    EdgeAngle(BetweenEdges),
    /// A bend's setback: from a tangent line to where outside sizes are taken.
    Setback(OfBend),
    /// How far the two edges of a seam run beside each other.
    SeamLength(OfSeam),
    /// How much of a seam is welded, each side that is.
    WeldLength(OfSeam),
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
            Measure::Angle(_) | Measure::BendAngle(_) | Measure::EdgeAngle(_) => Dimension::ANGLE,
            Measure::HoleCount(_) | Measure::Pierces => Dimension::NUMBER,
            Measure::NetArea | Measure::HoleArea(_) | Measure::PanelArea(_) => Dimension::AREA,
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
            Measure::Rim(one) => format!("rim of {} to {}", one.hole, one.to),
            Measure::HoleArea(one) => format!("area of {}", one.hole),
            Measure::HoleCutLength(one) => format!("length of the cut of {}", one.hole),
            Measure::PanelArea(one) => format!("area of {}", one.panel),
            Measure::PanelCutLength(one) => format!("cut length of {}", one.panel),
            Measure::EdgeAngle(one) => format!("angle between {} and {}", one.from, one.to),
            Measure::Setback(one) => format!("setback of {}", one.bend),
            Measure::SeamLength(one) => format!("length of {}", one.seam),
            Measure::WeldLength(one) => format!("length of the weld of {}", one.seam),
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
            Measure::Setback(one) => vec![one.bend.to_string()],
            Measure::Diameter(one)
            | Measure::HoleCount(one)
            | Measure::Floor(one)
            | Measure::HeadDepth(one)
            | Measure::HoleArea(one)
            | Measure::HoleCutLength(one) => vec![one.hole.to_string()],
            Measure::Rim(one) => vec![one.hole.to_string(), one.to.to_string()],
            Measure::PanelArea(one) | Measure::PanelCutLength(one) => vec![one.panel.to_string()],
            Measure::EdgeAngle(one) => vec![one.from.to_string(), one.to.to_string()],
            Measure::SeamLength(one) | Measure::WeldLength(one) => vec![one.seam.to_string()],
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

/// From a hole's rim to something in its panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RimTo {
    /// The hole; of several the first.
    pub hole: HoleName,
    /// An edge, a bend (its tangent line) or another hole (its rim).
    pub to: FeatureName,
}

/// A panel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfPanel {
    pub panel: PanelName,
}

/// Two straight edges.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BetweenEdges {
    pub from: EdgeName,
    pub to: EdgeName,
}

/// A seam, by the operation that made it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfSeam {
    pub seam: OperationName,
}
