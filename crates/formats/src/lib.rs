//! Open formats: DXF, SVG, CSV and the JSON report written from core's types; DXF read into its strokes.
//!
//! ```
//! use steelk_core::drawing::blank_drawing;
//! use steelk_core::piece::{Made, Piece, evaluate};
//! use steelk_core::release::ready;
//! use steelk_core::quantity::LengthUnit;
//! use steelk_formats::dxf_file::{self, Style};
//! use steelk_formats::dxf_read;
//!
//! let text = r#"{"steelk": 1, "kind": "plate", "mark": "P-1", "title": "", "quantity": 1, "unit": "mm",
//!     "stock": {"material": "S275", "thickness": "10 mm"},
//!     "operations": [{"name": "base", "do": {"lay_down": {"shape": {"ring": {"outside": "90 mm", "inside": "30 mm"}}}}}]}"#;
//! let piece = Piece::read(text.as_bytes())?;
//! let outcome = evaluate(&piece, Default::default());
//! // Nothing is written that the gate withholds.
//! let Made::Sheet(sheets) = ready(&piece, &outcome)? else { panic!("a plate is of sheet") };
//! let blank = sheets.only().expect("of one blank");
//! let file = dxf_file::write(&blank_drawing(&blank.part, &piece.mark, LengthUnit::Mm), &Style::default())?;
//! // The file has what is cut of it: the rim and the bore.
//! let strokes = dxf_read::read(&file, &Default::default())?;
//! assert_eq!(strokes.layers.iter().filter(|layer| layer.taken).map(|layer| layer.strokes).sum::<usize>(), 2);
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod audit;
pub mod centre_lines;
pub mod cutlist_csv;
pub mod dxf_file;
pub mod dxf_read;
pub mod gcode;
pub mod glb;
pub mod nc1;
pub mod output;
pub mod pdf;
pub mod program;
pub mod report;
pub mod step;
pub mod step_read;
pub mod strokes;
pub mod svg;
pub mod svg_read;
pub mod table_csv;
pub mod table_xlsx;

/// Why a file could not be written.
#[derive(Debug, thiserror::Error)]
pub enum WriteError {
    /// The DXF library refused.
    #[error("the DXF file could not be written: {0}")]
    Dxf(String),
    /// The CSV library refused.
    #[error("the cut list could not be written: {0}")]
    Csv(String),
    /// The workbook library refused.
    #[error("the workbook could not be written: {0}")]
    Xlsx(String),
    /// The archive library refused.
    #[error("the archive could not be written: {0}")]
    Zip(String),
}
