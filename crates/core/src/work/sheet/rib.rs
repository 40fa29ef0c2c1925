//! Words of ribs across a bend.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{BendName, Expr};

/// Press ribs across a bend, so that it does not spring: each a ridge from leg to leg inside the bend, said by its section square to the
/// bend line.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RibAction {
    /// The bend, by its flange.
    pub bend: BendName,
    /// On the panel, from the bend's outside mould line to where the ridge leaves the inner face (above 90 deg from the outermost tangent).
    pub panel_leg: Expr,
    /// The same on the flange; or `angle`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub flange_leg: Option<Expr>,
    /// The ridge's angle to the panel, in place of the leg on the flange.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Expr>,
    /// Across the ridge: of a flat one its width, of a round one its diameter.
    pub width: Expr,
    /// Its ridge.
    #[serde(default, skip_serializing_if = "RibRidge::is_flat")]
    pub ridge: RibRidge,
    /// How far its sides lean from square to the ridge; 15 deg where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub draft: Option<Expr>,
    /// Radius of its edges, on paper: they are sharp in the body.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Expr>,
    /// The end of the bend that places count from, as a set-in calls it (`left`); the bend's own start where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from: Option<String>,
    /// From that end to the first; the middle of the bend where nothing is said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Expr>,
    /// From the other end to the last.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub last: Option<Expr>,
    /// What end distances go to.
    #[serde(default, skip_serializing_if = "RibPlace::is_middle")]
    pub at_is: RibPlace,
    /// How many; between the end distances, or at the pitch.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Expr>,
    /// From middle to middle; without a count the most that there may be between the end distances.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pitch: Option<Expr>,
    /// Single places left out, by number; the others keep their names.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub skip: Vec<usize>,
}

/// The ridge of a rib.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RibRidge {
    /// A plane between drafted sides.
    #[default]
    Flat,
    /// A cylinder along the straight, which its sides touch.
    Round,
}

impl RibRidge {
    fn is_flat(&self) -> bool {
        *self == RibRidge::Flat
    }
}

/// What the end distances of ribs go to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RibPlace {
    /// The middle of the rib.
    #[default]
    Middle,
    /// Its edge: half of its width before the middle.
    Edge,
}

impl RibPlace {
    fn is_middle(&self) -> bool {
        *self == RibPlace::Middle
    }
}
