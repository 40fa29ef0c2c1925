//! The flat sheet as a PDF of one page.

use steelk_core::drawing::{FlatSheetWords, flat_sheet};
use steelk_core::sheet::Part;

use crate::pdf;

/// The page as the bytes of a PDF file.
pub fn write(part: &Part, words: &FlatSheetWords, title: &str) -> Vec<u8> {
    pdf::write(&[flat_sheet(part, words)], title)
}
