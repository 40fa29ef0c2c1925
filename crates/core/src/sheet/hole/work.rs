//! What drilling takes away besides a plain hole through, and whether the sheet is thick enough for it.

use std::f64::consts::PI;

use crate::finding::Finding;
use crate::quantity::tolerance::ROUNDING;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::stock::Thread;
use crate::work::sheet::{Face, Make};

use super::numbers::WorkNumbers;

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
    /// What is round about the hole's axis besides a drill through: from and to under the face, and the radius at each, mm.
    pub rounds: Vec<[f64; 4]>,
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
            rounds: Vec::new(),
        }
    }
}

/// Volume of a frustum of a cone from diameter `a` to `b` over a height, mm3, and its centroid's distance from `a`.
/// V = pi h (a2 + ab + b2) / 12; centroid h (a2 + 2ab + 3b2) / (4 (a2 + ab + b2)) (standard solid geometry).
fn frustum(a: f64, b: f64, height: f64) -> (f64, f64) {
    let sum = a * a + a * b + b * b;
    (PI * height * sum / 12.0, height * (a * a + 2.0 * a * b + 3.0 * b * b) / (4.0 * sum))
}

/// Solids added and taken, with the depths of their centroids.
#[derive(Default)]
struct Solids {
    volume: f64,
    moment: f64,
}

impl Solids {
    fn add(&mut self, sign: f64, from: f64, (volume, centroid): (f64, f64)) {
        self.volume += sign * volume;
        self.moment += sign * volume * (from + centroid);
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
        let mut solids = Solids::default();
        let mut rounds: Vec<[f64; 4]> = Vec::new();
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
            solids.add(1.0, 0.0, frustum(diameter, drill, deep));
            rounds.push([0.0, deep, diameter / 2.0, drill / 2.0]);
            solids.add(-1.0, 0.0, frustum(drill, drill, deep));
            say(format!("countersunk{} {} to {}", self.for_screw(), angle_text(angle), show(diameter)));
        }
        if let Some((diameter, deep)) = self.counterbore {
            solids.add(1.0, 0.0, frustum(diameter, diameter, deep));
            rounds.push([0.0, deep, diameter / 2.0, diameter / 2.0]);
            solids.add(-1.0, 0.0, frustum(drill, drill, deep));
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
            solids.add(1.0, 0.0, frustum(drill, drill, depth));
            // A point that breaks out of the back takes away no more than there is.
            let left = (thickness - depth).min(cone);
            let tip = drill * (1.0 - if cone > 0.0 { left / cone } else { 0.0 });
            solids.add(1.0, depth, frustum(drill, tip, left));
            rounds.push([0.0, depth, drill / 2.0, drill / 2.0]);
            rounds.push([depth, depth + left, drill / 2.0, tip / 2.0]);
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
        Ok(HoleWork {
            words,
            source: self.source.clone(),
            through: self.depth.is_none(),
            face: self.face,
            make: if self.depth.is_some() && self.make == Make::Cut { Make::Mark } else { self.make },
            removed: solids.volume,
            removed_depth: if solids.volume > 0.0 { solids.moment / solids.volume } else { 0.0 },
            head,
            bottom,
            thread: self.thread.map(|thread| {
                let tapped = self.thread_depth.unwrap_or(self.depth.unwrap_or(thickness));
                (thread, tapped - under_head)
            }),
            rounds,
        })
    }
}
