//! Welds of seams between sheets, by the rules that frames are welded by.

use crate::finding::Why;
use crate::quantity::LengthUnit;
use crate::sheet::{Seam, Sheets};
use crate::stock::Material;
use crate::work::frame::WeldSymbols;
use crate::work::sheet::{SeamLay, SeamWeld};

use super::weld::{Weld, weld_of};
use super::weld_kind::{WeldKind, WeldSides};

/// Flatter than this two sheets are welded through, radians: a fillet needs a corner to lie in.
const NO_CORNER: f64 = 150.0 * std::f64::consts::PI / 180.0;

/// The welds of a piece's seams, in the order said. `marks` are what its blanks are called, by their place in the set.
pub fn seam_welds(
    sheets: &Sheets,
    marks: &[String],
    material: &Material,
    thickness: f64,
    unit: LengthUnit,
) -> Vec<Weld> {
    let mut all: Vec<Weld> = Vec::new();
    for seam in sheets.seams() {
        for side in sides(seam) {
            let corner = seam.lay == SeamLay::EdgeToEdge && side == WeldSides::Outside;
            let kind = if corner
                || seam.angle > NO_CORNER
                || (seam.lay != SeamLay::EdgeToEdge && side == WeldSides::Outside)
            {
                WeldKind::Butt
            } else {
                WeldKind::Fillet
            };
            let length = (seam.length - seam.kept_out).max(0.0);
            let mut weld = weld_of(
                kind,
                seam.walls.clone(),
                seam.blanks.map(|which| marks[which].clone()),
                seam.middle,
                length,
                (thickness, thickness),
                seam.gap,
                side,
                material.density,
                (WeldSymbols::Iso2553, unit),
            );
            weld.mark = format!("W{}", all.len() + 1);
            if seam.flush {
                weld.symbol.push_str(", ground flush");
            }
            weld.why = told(seam, weld.why);
            all.push(weld);
        }
    }
    all
}

fn sides(seam: &Seam) -> Vec<WeldSides> {
    match seam.weld {
        SeamWeld::Outside => vec![WeldSides::Outside],
        SeamWeld::Inside => vec![WeldSides::Inside],
        SeamWeld::Both => vec![WeldSides::Outside, WeldSides::Inside],
        SeamWeld::Not => Vec::new(),
    }
}

/// The working with what the bead keeps out of.
fn told(seam: &Seam, mut why: Why) -> Why {
    if seam.kept_out > 0.0 {
        why.working.push_str("; what holes and bolts near the edge need is left out");
    }
    why
}
