//! What a piece comes to, one variant a trade.

use crate::audit::{Audit, BOUNDED, full_frame, full_sheet, full_welds};
use crate::frame::{FrameMade, MemberClash, PlateClash, Weld};
use crate::nest::BarProblem;
use crate::sheet::Sheets;

/// The geometry of a piece.
#[derive(Clone, Debug)]
pub enum Made {
    /// A plate or bent sheet: its blanks.
    Sheet(Sheets),
    /// A frame, with nothing on it while it is begun.
    Frame(FrameOutcome),
}

impl Made {
    /// Whether there is nothing on it yet that could be given out: a frame of bare lines.
    pub fn is_empty(&self) -> bool {
        match self {
            Made::Sheet(sheets) => sheets.blanks().is_empty(),
            Made::Frame(frame) => frame.made.list.lines.is_empty(),
        }
    }

    /// Adds the checks that a file waits for.
    pub(super) fn audit_fully(&self, audit: &mut Audit) {
        match self {
            Made::Sheet(sheets) => {
                // Those are made again without a bound on how much is looked at.
                audit.pairs.retain(|pair| !BOUNDED.contains(&pair.check.as_str()));
                for blank in sheets.blanks() {
                    audit.extend(full_sheet(&blank.part, &blank.figures));
                }
            }
            Made::Frame(frame) => {
                audit.extend(full_frame(&frame.made));
                audit.extend(full_welds(&frame.made, &frame.welds, frame.weld_gap));
            }
        }
    }
}

/// Everything of a frame.
#[derive(Clone, Debug, Default)]
pub struct FrameOutcome {
    /// The frame with its cut list.
    pub made: FrameMade,
    /// Members that share space.
    pub clashes: Vec<MemberClash>,
    /// Plates that run into members or other plates.
    pub plate_clashes: Vec<PlateClash>,
    /// Welds.
    pub welds: Vec<Weld>,
    /// Pieces of two metals that lie on each other and are not welded.
    pub unlike: Vec<[String; 2]>,
    /// What is to be cut from bars, by section and material.
    pub bars: Vec<BarGroup>,
    /// What the saw's angle is set to, radians.
    pub saw_step: f64,
    /// Pieces further apart than this are not welded, mm.
    pub weld_gap: f64,
}

/// Pieces of one section and material.
#[derive(Clone, Debug, PartialEq)]
pub struct BarGroup {
    /// Section.
    pub section: String,
    /// Material.
    pub material: String,
    /// Mass of a metre, kg/m.
    pub mass_per_metre: f64,
    /// What is to be cut from what.
    pub problem: BarProblem,
}

impl BarGroup {
    /// The group for as many frames as are made.
    pub fn for_frames(&self, quantity: u32) -> BarGroup {
        let mut group = self.clone();
        for piece in &mut group.problem.pieces {
            // Beyond what there can be it is refused as too many, and not taken for few.
            piece.quantity = piece.quantity.saturating_mul(quantity as usize);
        }
        group
    }
}
