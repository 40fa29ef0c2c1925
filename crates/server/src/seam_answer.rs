//! Seams of a piece of several blanks, as the screen lists them.

use serde::Serialize;
use steelk_core::frame::seam_welds;
use steelk_core::piece::{Outcome, Piece, blanks_of};
use steelk_core::quantity::{Dimension, LengthUnit, Quantity, angle_text, quantity_text};
use steelk_core::sheet::{Seam, Sheets};
use steelk_core::work::sheet::{SeamLay, SeamWeld};
use utoipa::ToSchema;

use crate::answer::Figure;

/// A joint between two edges.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SeamView {
    pub name: String,
    /// The operation that made it.
    pub operation: String,
    /// The two walls, as they are cited.
    pub walls: [String; 2],
    /// The marks of their blanks.
    pub marks: [String; 2],
    /// With their units.
    pub length: String,
    pub angle: String,
    pub gap: String,
    /// How far apart the edges are where the groove between them is widest.
    pub open: String,
    /// How the two lie together and are welded.
    pub words: String,
    /// Its welds in words, with their working.
    pub welds: Vec<Figure>,
}

/// Every seam with its welds.
pub(crate) fn seam_views(piece: &Piece, outcome: &Outcome, sheets: &Sheets, show: LengthUnit) -> Vec<SeamView> {
    let blanks = blanks_of(piece, sheets);
    let marks: Vec<String> =
        (0..sheets.blanks().len()).map(|which| blanks[sheets.line_of(which)].mark.clone()).collect();
    let resolved = &outcome.resolved;
    let (Some(material), Some(thickness)) = (resolved.material, resolved.thickness) else { return Vec::new() };
    let welds = seam_welds(sheets, &marks, material, thickness, show);
    let length = |value: f64| quantity_text(Quantity::new(value, Dimension::LENGTH), show);
    let view = |seam: &Seam| SeamView {
        name: seam.name.clone(),
        operation: seam.name.split('.').next().unwrap_or_default().to_string(),
        walls: seam.walls.clone(),
        marks: seam.blanks.map(|which| marks[which].clone()),
        length: length(seam.length),
        angle: angle_text(seam.angle),
        gap: length(seam.gap),
        open: length(seam.open),
        words: seam_words(seam),
        welds: welds
            .iter()
            .filter(|weld| weld.parts == seam.walls)
            .map(|weld| Figure {
                key: weld.mark.clone(),
                label: weld.mark.clone(),
                text: weld.symbol.clone(),
                why: Some(weld.why.clone()),
            })
            .collect(),
    };
    sheets.seams().iter().map(view).collect()
}

fn seam_words(seam: &Seam) -> String {
    let lay = match seam.lay {
        SeamLay::EdgeToEdge => "edge to edge".to_string(),
        SeamLay::FirstCovers => format!("{} covers {}", seam.walls[0], seam.walls[1]),
        SeamLay::SecondCovers => format!("{} covers {}", seam.walls[1], seam.walls[0]),
    };
    let weld = match seam.weld {
        SeamWeld::Outside => "welded outside",
        SeamWeld::Inside => "welded inside",
        SeamWeld::Both => "welded outside and inside",
        SeamWeld::Not => "not welded",
    };
    format!("{lay}, {weld}{}", if seam.flush { ", ground flush" } else { "" })
}
