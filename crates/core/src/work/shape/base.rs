//! Closed shapes for panels, holes and plates.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::Expr;

use super::{Circle, Drawn, Eared, Gusset, Lug, Obround, Polygon, Rectangle, Ring, Run, Triangle};

/// A closed shape: of a base panel, of a hole, or one part of a combined shape.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BaseShape {
    /// A rectangle with edges `front`, `right`, `back`, `left`; x runs along the front.
    Rectangle(Rectangle),
    /// A disc with the edge `rim`.
    Circle(Circle),
    /// A disc with a hole in its middle: edge `rim`, hole `bore`.
    Ring(Ring),
    /// A strip with round ends: edges `front`, `right-end`, `back`, `left-end`.
    Obround(Obround),
    /// A regular polygon, `side-1` along the front.
    Polygon(Polygon),
    /// A triangle on its base: edges `base`, `right`, `left`.
    Triangle(Triangle),
    /// A gusset: two legs square to each other, `foot` and `upright`, a `slope` between them, its inner corner and its
    /// tips clipped where asked.
    Gusset(Gusset),
    /// A lug: a straight `foot`, a round `crown` about the hole, sides that touch the crown.
    Lug(Lug),
    /// A round body with ears about it, joined by lines that touch both circles.
    Eared(Eared),
    /// A chain of legs as the drawing gives them.
    Run(Run),
    /// A rough shape brought onto the drawing's numbers.
    Drawn(Drawn),
    /// Shapes put together, taken away, or what they share.
    Combined(Combined),
    /// An outline brought in from a file.
    Profile(Profile),
}

/// Shapes put together in order.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Combined {
    pub parts: Vec<CombinedPart>,
}

/// One part of a combined shape.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CombinedPart {
    /// What it does to the parts before it; the first is always laid.
    #[serde(default)]
    pub act: CombineAct,
    /// Its name, before the names of its edges: `body` makes `body-rim`.
    pub name: String,
    /// Its shape.
    #[schema(no_recursion)]
    pub shape: Box<BaseShape>,
    /// Where its corner or centre goes, across; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x: Option<Expr>,
    /// Where its corner or centre goes, up; 0 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y: Option<Expr>,
    /// Which point of it is placed.
    #[serde(default)]
    pub by: PlacedBy,
    /// Turned about that point, left positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
}

/// What a part does to those before it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CombineAct {
    /// Joined on.
    #[default]
    Add,
    /// Taken away.
    Take,
    /// Only what both have is kept.
    Keep,
}

/// Which point of a shape is placed.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlacedBy {
    /// The lower left corner of its box.
    Corner,
    /// The middle of its box.
    #[default]
    Centre,
}

/// An outline from a file, as paths of `M x y`, `L x y`, `A bulge x y` and `Z` in the stated unit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Profile {
    /// Unit of the paths' numbers: `mm`, `in`.
    pub unit: crate::quantity::LengthUnit,
    /// The outside.
    pub outer: String,
    /// The holes.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub holes: Vec<String>,
    /// Where it came from, in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub source: String,
}
