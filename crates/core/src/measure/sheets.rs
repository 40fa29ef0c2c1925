//! Measures of a piece of several blanks: names are of the whole piece, sums are of all blanks, and what is of one blank is asked of that.

use crate::sheet::Sheets;
use crate::work::measure::Measure;

use super::measured::{MeasureError, Measured};
use super::probe::measure;
use super::witness::centre_witness;

/// Measures a piece of sheet.
///
/// # Errors
/// As [`measure`]; the size of the blank of a piece that has several.
pub fn measure_sheets(sheets: &Sheets, what: &Measure) -> Result<Measured, MeasureError> {
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
