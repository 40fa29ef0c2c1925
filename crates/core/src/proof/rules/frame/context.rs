//! What a rule of frames may look at, and how it tells what breaks it.

use std::collections::BTreeMap;

use crate::finding::Why;
use crate::frame::{FrameMade, MemberClash, PlateClash, Weld};
use crate::quantity::{LengthUnit, length_text};
use crate::stock::{Material, ShopRules};

pub(super) use super::super::rule::MOST;
use super::super::rule::{Breach, Level, Looked, Rule};

/// Rules of frames.
pub struct OfFrame;

impl Looked for OfFrame {
    type Context<'a> = FrameContext<'a>;
}

/// A rule of frames.
pub type FrameRule = Rule<OfFrame>;

/// What a rule of frames may look at.
pub struct FrameContext<'a> {
    /// The frame as built.
    pub made: &'a FrameMade,
    /// Members that share space.
    pub clashes: &'a [MemberClash],
    /// Plates that run into members or other plates.
    pub plate_clashes: &'a [PlateClash],
    /// Welds that are suggested.
    pub welds: &'a [Weld],
    /// Pieces of two metals that lie on each other and are not welded.
    pub unlike: &'a [[String; 2]],
    /// The longest bar of each section, mm, by section name.
    pub longest_bar: &'a dyn Fn(&str) -> f64,
    /// What the shop's rules go by.
    pub shop: &'a ShopRules,
    /// What messages speak in.
    pub unit: LengthUnit,
}

impl FrameContext<'_> {
    pub(super) fn show(&self, millimetres: f64) -> String {
        length_text(millimetres, self.unit)
    }

    /// Every member and plate by name: its material, and the operation that made it.
    pub(super) fn pieces(&self) -> BTreeMap<&str, (&'static Material, &str)> {
        let frame = &self.made.frame;
        let members =
            frame.members.iter().map(|member| (member.name.as_str(), (member.material, member.group.as_str())));
        let plates = frame.plates.iter().map(|plate| (plate.name.as_str(), (plate.material, plate.operation.as_str())));
        members.chain(plates).collect()
    }
}

impl FrameRule {
    pub(super) fn breach(
        &self,
        message: String,
        way_out: &str,
        groups: &[&str],
        names: &[&str],
        formula: &str,
        working: String,
    ) -> Breach {
        let mut operations: Vec<String> = Vec::new();
        for group in groups {
            if !operations.iter().any(|known| known == group) {
                operations.push((*group).to_string());
            }
        }
        Breach {
            rule: self.key.into(),
            said: None,
            accepted: None,
            level: Level::Broken,
            message,
            way_out: way_out.into(),
            operations,
            features: names.iter().map(|name| (*name).to_string()).collect(),
            why: Why { title: self.title.into(), formula: formula.into(), working, source: self.source.into() },
        }
    }
}
