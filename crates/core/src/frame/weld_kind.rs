//! What kinds of weld are suggested, and which way round a joint they run.

use serde::Serialize;
use utoipa::ToSchema;

/// A kind of weld.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WeldKind {
    /// In the corner where one piece stands on another.
    Fillet,
    /// Through the thinner wall where both stop.
    Butt,
    /// A butt between two ends that are mitred on each other.
    ButtOnMitre,
    /// Along the groove that a round corner leaves.
    Flare,
}

impl WeldKind {
    /// As the cut list calls it.
    pub fn words(self) -> &'static str {
        match self {
            WeldKind::Fillet => "fillet",
            WeldKind::Butt => "butt",
            WeldKind::ButtOnMitre => "butt on the mitre",
            WeldKind::Flare => "flare along the corner",
        }
    }

    /// It goes through the wall, instead of lying on it.
    pub fn is_butt(self) -> bool {
        matches!(self, WeldKind::Butt | WeldKind::ButtOnMitre)
    }
}

/// Where a weld runs round its joint.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WeldSides {
    /// All round: the circle of the symbol.
    AllRound,
    /// On both sides of a plate.
    BothSides,
    /// Wherever the pieces touch and it can be reached.
    WhatTouches,
    /// Outside of the corner that two sheets make.
    Outside,
    /// Inside of it.
    Inside,
}

impl WeldSides {
    /// As the cut list calls it.
    pub fn words(self) -> &'static str {
        match self {
            WeldSides::AllRound => "all round",
            WeldSides::BothSides => "both sides",
            WeldSides::WhatTouches => "round what touches",
            WeldSides::Outside => "outside",
            WeldSides::Inside => "inside",
        }
    }
}
