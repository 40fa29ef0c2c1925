//! Measures of a piece of several blanks: names are of the whole piece, sums are of all blanks, and what is of one blank is asked of that.

use crate::sheet::{Seam, Sheets};
use crate::work::measure::Measure;
use crate::work::sheet::SeamWeld;

use super::measured::{MeasureError, Measured, Witness};
use super::probe::measure;
use super::witness::centre_witness;

/// Measures a piece of sheet.
///
/// # Errors
/// As [`measure`]; the size of the blank of a piece that has several.
pub fn measure_sheets(sheets: &Sheets, what: &Measure) -> Result<Measured, MeasureError> {
    if let Measure::SeamLength(one) | Measure::WeldLength(one) = what {
        return seam(sheets, &one.seam, what);
    }
    if let Some(only) = sheets.only() {
        return measure(&only.part, what);
    }
    let whole = sheets.whole();
    let value = match what {
        Measure::BlankSize(_) => {
            return Err(MeasureError::new(
                format!("the {} is of one blank, and this piece comes to {}", what.words(), whole.sheets),
                "Measure an edge of the blank that is meant.",
            ));
        }
        Measure::CutLength => whole.cut_length,
        Measure::Pierces => whole.pierces as f64,
        Measure::NetArea => whole.net_area,
        Measure::Mass => whole.mass,
        Measure::FoldedVolume => whole.folded_volume,
        Measure::CentreOfGravity(one) => {
            let centre = whole.centre_of_gravity;
            let value = one.along.of(centre.from_origin());
            return Ok(Measured {
                value,
                dimension: what.dimension(),
                witnesses: vec![centre_witness(centre, one.along)],
            });
        }
        _ => return measure(sheets.laid_out(), what),
    };
    Ok(Measured { value, dimension: what.dimension(), witnesses: Vec::new() })
}

/// Length of a seam, or of its welds: of all stretches that one step made.
fn seam(sheets: &Sheets, name: &str, what: &Measure) -> Result<Measured, MeasureError> {
    let of = |one: &&Seam| one.name == name || one.name.split('.').next() == Some(name);
    let own: Vec<&Seam> = sheets.seams().iter().filter(of).collect();
    if own.is_empty() {
        let mut known: Vec<&str> = sheets.seams().iter().map(|one| one.name.as_str()).collect();
        known.dedup();
        let way_out = match known.is_empty() {
            true => "There are no seams yet.".to_string(),
            false => format!("The seams are {}.", known.join(", ")),
        };
        return Err(MeasureError::new(format!("there is no seam called {name}"), way_out));
    }
    let welded = |one: &&Seam| {
        let sides = match one.weld {
            SeamWeld::Not => 0.0,
            SeamWeld::Outside | SeamWeld::Inside => 1.0,
            SeamWeld::Both => 2.0,
        };
        sides * (one.length - one.kept_out)
    };
    let is_weld = matches!(what, Measure::WeldLength(_));
    let value = own.iter().map(|one| if is_weld { welded(one) } else { one.length }).sum();
    let ends = |one: &&Seam| {
        let half = one.along * (one.length / 2.0);
        Witness::made(one.middle + -half, one.middle + half, one.along)
    };
    Ok(Measured { value, dimension: what.dimension(), witnesses: own.iter().map(ends).collect() })
}
