//! What the screen gets of the audit: how many figures agree, which differ, and the blank as the cutter reads it.

use serde::Serialize;
use steelk_core::audit::{ASK, Audit};
use steelk_core::piece::{Outcome, Piece};
use steelk_core::quantity::{LengthUnit, angle_text, length_text};
use steelk_formats::audit::AsRead;
use utoipa::ToSchema;

/// Figures found twice.
#[derive(Serialize, ToSchema)]
pub struct AuditAnswer {
    /// How many agree.
    pub agreed: usize,
    /// Which differ or cannot be, in words with both figures; any of them keeps files back.
    pub faults: Vec<String>,
    /// What to do about them.
    pub ask: String,
    /// Checks that could not be made, with why.
    pub left_out: Vec<String>,
    /// Whether the checks before a file were made as well.
    pub full: bool,
    /// The blank as it is read back from its file; nothing until it was read, and for frames.
    pub as_read: Option<AsReadView>,
}

/// The blank as the cutter reads it.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct AsReadView {
    /// The unit that the file names, in words.
    pub unit: String,
    pub width: String,
    pub height: String,
    pub thickness: String,
    pub material: String,
    pub holes: usize,
    /// Each bend with its mark, direction, angle, radius and length.
    pub bends: Vec<String>,
}

impl AuditAnswer {
    /// Of an audit, with what was read back where it was.
    pub fn new(piece: &Piece, outcome: &Outcome, as_read: Option<&AsRead>, show: LengthUnit) -> Self {
        let audit: &Audit = &outcome.audit;
        let faults = audit.faults();
        AuditAnswer {
            agreed: audit.pairs.iter().filter(|pair| pair.agrees()).count(),
            ask: if faults.is_empty() { String::new() } else { ASK.into() },
            faults,
            left_out: audit.left_out.clone(),
            full: audit.full,
            as_read: as_read.map(|read| AsReadView {
                unit: read.unit.clone(),
                width: length_text(read.width, show),
                height: length_text(read.height, show),
                thickness: outcome.resolved.thickness.map_or_else(String::new, |value| length_text(value, show)),
                material: piece.stock.material.clone(),
                holes: read.holes,
                bends: read
                    .bends
                    .iter()
                    .map(|bend| {
                        let length = bend.lines.iter().map(|line| line.length()).sum();
                        format!(
                            "{} {} {}, inside radius {}, {} long",
                            bend.mark,
                            bend.direction.word(),
                            angle_text(bend.angle.to_radians()),
                            length_text(bend.radius, show),
                            length_text(length, show)
                        )
                    })
                    .collect(),
            }),
        }
    }
}
