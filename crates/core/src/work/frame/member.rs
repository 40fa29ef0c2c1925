//! A section along lines, and which end or face of it is meant.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, LineName};
use crate::work::shape::BaseShape;

/// A section on lines: a group.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MemberAction {
    /// Lines by name; `*` stands for any letters; an operation's name for all of its lines.
    pub lines: Vec<LineName>,
    /// Section by name; `own` where `outline` gives it.
    pub section: String,
    /// An outline of your own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outline: Option<BaseShape>,
    /// Material; the piece's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Turned about the line, left-handed seen from its start.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub roll: Option<Expr>,
    /// Which point of the section lies on the line.
    #[serde(default, skip_serializing_if = "Align::is_centre")]
    pub align: Align,
    /// Further across, to the section's right.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Expr>,
    /// Further up.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Expr>,
    /// First letters of their marks; the group's name in capitals where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mark: Option<String>,
    /// Straight length at each end of a bent member for the bender's grip, cut off afterwards or left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grip: Option<Expr>,
    /// Sub-weldment that they belong to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weldment: Option<String>,
    /// Your own columns of the cut list: part number, finish.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub columns: BTreeMap<String, String>,
}

/// Which point of a section lies on its line, seen with its up upward.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Align {
    #[default]
    Centre,
    Centroid,
    Top,
    Bottom,
    Left,
    Right,
    TopLeft,
    TopRight,
    BottomLeft,
    BottomRight,
}

impl Align {
    fn is_centre(&self) -> bool {
        *self == Align::Centre
    }
}

/// Which end of a member.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum WhichEnd {
    Start,
    Finish,
    #[default]
    Both,
}

/// One end of a member.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs)]
pub enum OneEnd {
    Start,
    Finish,
}

impl OneEnd {
    /// The start first.
    pub const BOTH: [OneEnd; 2] = [OneEnd::Start, OneEnd::Finish];

    /// The finish, or the start.
    pub fn finish(is_finish: bool) -> OneEnd {
        if is_finish { OneEnd::Finish } else { OneEnd::Start }
    }

    /// Whether it is the finish.
    pub fn is_finish(self) -> bool {
        self == OneEnd::Finish
    }

    /// Its place where both ends stand side by side.
    pub fn at(self) -> usize {
        self as usize
    }

    /// The way out of the metal along the member: 1 at the finish, -1 at the start.
    pub fn way(self) -> f64 {
        match self {
            OneEnd::Start => -1.0,
            OneEnd::Finish => 1.0,
        }
    }

    /// As the cut list calls it.
    pub fn word(self) -> &'static str {
        match self {
            OneEnd::Start => "start",
            OneEnd::Finish => "finish",
        }
    }

    /// The other one.
    pub fn other(self) -> OneEnd {
        OneEnd::finish(self == OneEnd::Start)
    }
}

/// A face of a section, seen with its up upward.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum MemberFace {
    Top,
    Bottom,
    Left,
    Right,
}
