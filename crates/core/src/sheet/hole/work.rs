//! What drilling takes away besides a plain hole through, and whether the sheet is thick enough for it.

use std::f64::consts::PI;

use crate::finding::Finding;
use crate::quantity::tolerance::ROUNDING;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::stock::Thread;
use crate::work::sheet::{Face, Make};

use super::numbers::WorkNumbers;
use super::profile::{self, HolePart, Stretch};

/// What is done at a hole besides its outline.
#[derive(Clone, Debug, PartialEq)]
pub struct HoleWork {
    /// In the words of a drawing: "M10 x 20 deep"; empty for a plain hole through.
    pub words: String,
    /// Where the size comes from; empty where it is the designer's own.
    pub source: String,
    /// Whether the outline goes through the sheet.
    pub through: bool,
    /// The face it is worked from.
    pub face: Face,
    /// What the cutter does of it.
    pub make: Make,
    /// Volume taken away besides the outline through the sheet, mm3.
    pub removed: f64,
    /// How deep under that face the centroid of that volume lies, mm.
    pub removed_depth: f64,
    /// Largest diameter at that face, mm; 0 where it is the outline's own.
    pub head: f64,
    /// How deep it goes, drill point included, mm; the thickness where it is through.
    pub bottom: f64,
    /// Its thread, with how long it is at full depth, mm.
    pub thread: Option<(&'static Thread, f64)>,
    /// What is round about its axis from that face down, where it has a head or is blind; of a plain hole through nothing.
    pub profile: Vec<Stretch>,
}

impl HoleWork {
    /// A plain hole through that the cutter cuts.
    pub fn plain() -> HoleWork {
        HoleWork {
            words: String::new(),
            source: String::new(),
            through: true,
            face: Face::Top,
            make: Make::Cut,
            removed: 0.0,
            removed_depth: 0.0,
            head: 0.0,
            bottom: f64::INFINITY,
            thread: None,
            profile: Vec::new(),
        }
    }
}

impl WorkNumbers {
    /// " for M5," where its head is said by a screw.
    fn for_screw(&self) -> String {
        self.screw.map_or(String::new(), |screw| format!(" for {},", screw.size))
    }

    /// What it comes to in a sheet of this thickness, mm.
    ///
    /// # Errors
    /// A countersink or counterbore that is no larger than the hole or goes through the sheet; a blind depth that
    /// reaches the other face; a thread deeper than its drill.
    pub(super) fn work(&self, thickness: f64, unit: LengthUnit) -> Result<HoleWork, Finding> {
        let show = |value: f64| length_text(value, unit);
        let drill = self.drill;
        let mut all: Vec<Stretch> = Vec::new();
        let half = drill / 2.0;
        let mut words = self.designation.clone();
        let mut say = |text: String| words = if words.is_empty() { text } else { format!("{words}, {text}") };
        let mut head = 0.0f64;
        let mut under_head = 0.0f64;
        for (field, sink) in [
            ("countersink", self.countersink.map(|(head, angle)| (head, (head - drill) / (2.0 * (angle / 2.0).tan())))),
            ("counterbore", self.counterbore),
        ] {
            let Some((diameter, deep)) = sink else { continue };
            if diameter <= drill + ROUNDING {
                return Err(Finding::error(
                    format!("a {field} of {} is no larger than its hole of {}", show(diameter), show(drill)),
                    "Make it larger than the hole.",
                )
                .at_field(format!("{field}.diameter")));
            }
            if deep >= thickness - ROUNDING {
                return Err(Finding::error(
                    format!("a {field} {} deep goes through a sheet of {}", show(deep), show(thickness)),
                    "Make it smaller, or the sheet thicker.",
                )
                .at_field(field));
            }
            head = head.max(diameter);
            under_head = under_head.max(deep);
        }
        if let Some((diameter, angle)) = self.countersink {
            let deep = (diameter - drill) / (2.0 * (angle / 2.0).tan());
            all.push(Stretch { from: 0.0, to: deep, near: diameter / 2.0, far: half, part: HolePart::Countersink });
            say(format!("countersunk{} {} to {}", self.for_screw(), angle_text(angle), show(diameter)));
        }
        if let Some((diameter, deep)) = self.counterbore {
            let wide = diameter / 2.0;
            all.push(Stretch { from: 0.0, to: deep, near: wide, far: wide, part: HolePart::Counterbore });
            say(format!("counterbored{} {} by {} deep", self.for_screw(), show(diameter), show(deep)));
        }
        let mut bottom = thickness;
        if let Some(depth) = self.depth {
            if depth >= thickness - ROUNDING {
                return Err(Finding::error(
                    format!("{} deep reaches through a sheet of {}", show(depth), show(thickness)),
                    "Leave the depth out for a hole through, or make it shallower.",
                )
                .at_field("depth"));
            }
            if depth < under_head {
                return Err(Finding::error(
                    format!("{} deep ends within its head, which is {} deep", show(depth), show(under_head)),
                    "Drill deeper, or make the head smaller.",
                )
                .at_field("depth"));
            }
            let cone = drill / 2.0 / (self.point / 2.0).tan();
            bottom = depth + cone;
            all.push(Stretch { from: 0.0, to: depth, near: half, far: half, part: HolePart::Drill });
            // A point that breaks out of the back takes away no more than there is.
            let left = (thickness - depth).min(cone);
            if left > ROUNDING {
                let tip = half * (1.0 - left / cone);
                all.push(Stretch { from: depth, to: depth + left, near: half, far: tip, part: HolePart::Point });
            }
            say(format!("{} deep", show(depth)));
        }
        if let Some(thread) = self.thread_depth {
            let drilled = self.depth.unwrap_or(thickness);
            if thread > drilled + ROUNDING {
                return Err(Finding::error(
                    format!("{} of thread do not fit a hole drilled {} deep", show(thread), show(drilled)),
                    "Drill deeper than the thread: the tap's lead needs room.",
                )
                .at_field("tapped.depth"));
            }
            say(format!("thread {} deep", show(thread)));
        }
        if self.face == Face::Bottom {
            say("from below".into());
        }
        match self.make {
            Make::Cut => {}
            Make::Mark => say("marked only".into()),
            Make::Leave => say("left to the drill press".into()),
            Make::Punch => say("punched".into()),
        }
        let has_more = !all.is_empty();
        if self.depth.is_none() && has_more {
            all.push(Stretch { from: 0.0, to: thickness, near: half, far: half, part: HolePart::Drill });
        }
        let profile = profile::one_under_another(&all);
        let (mut removed, mut moment) = (0.0, 0.0);
        for (volume, depth) in profile.iter().map(Stretch::volume) {
            removed += volume;
            moment += volume * depth;
        }
        // What goes through is gone from the blank.
        if self.depth.is_none() && has_more {
            let through = PI * half * half * thickness;
            removed -= through;
            moment -= through * thickness / 2.0;
        }
        Ok(HoleWork {
            words,
            source: self.source.clone(),
            through: self.depth.is_none(),
            face: self.face,
            make: if self.depth.is_some() && self.make == Make::Cut { Make::Mark } else { self.make },
            removed,
            removed_depth: if removed > 0.0 { moment / removed } else { 0.0 },
            head,
            bottom,
            thread: self.thread.map(|thread| {
                let tapped = self.thread_depth.unwrap_or(self.depth.unwrap_or(thickness));
                (thread, tapped - under_head)
            }),
            profile,
        })
    }
}
