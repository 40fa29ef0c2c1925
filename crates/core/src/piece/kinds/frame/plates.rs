//! The plates of a frame as pieces of their own.

use crate::piece::Piece;
use crate::piece::document::{CallOut, Kind, StockChoice};
use crate::piece::outcome::Outcome;

impl Piece {
    /// The plates of a frame as plate pieces of their own, one for each line of the cut list, with how many.
    pub fn frame_plates(&self, outcome: &Outcome) -> Vec<Piece> {
        let Some(frame) = outcome.frame() else { return Vec::new() };
        let list = &frame.made.list;
        let mut all = Vec::new();
        for (index, line) in list.lines.iter().enumerate() {
            let Some(plate) = frame.made.plate_of_line(index) else { continue };
            all.push(Piece {
                // Bent work on it makes it a sheet part.
                kind: if plate.part.flat.bends.is_empty() { Kind::Plate } else { Kind::Sheet },
                mark: format!("{}-{}", self.mark, line.mark).chars().take(40).collect(),
                title: format!("{} of {}", line.kind.word(), self.mark),
                quantity: u32::try_from(line.quantity).unwrap_or(u32::MAX).saturating_mul(self.quantity),
                spares: u32::try_from(line.quantity).unwrap_or(u32::MAX).saturating_mul(self.spares),
                stock: StockChoice {
                    material: plate.material.name.clone(),
                    thickness: format!("{} mm", plate.thickness).into(),
                    confirmed: self.stock.confirmed,
                },
                variants: Vec::new(),
                frame: None,
                callouts: self
                    .callouts
                    .iter()
                    .map(|callout| CallOut { measure: None, place: None, ..callout.clone() })
                    .collect(),
                operations: plate.work.clone(),
                ..self.clone()
            });
        }
        all
    }
}
