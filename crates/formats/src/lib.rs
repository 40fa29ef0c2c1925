//! Open formats: DXF, SVG, CSV and the JSON report written from core's types; DXF read into its strokes.

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod audit;
pub mod bends_csv;
pub mod centre_lines;
pub mod cutlist_csv;
pub mod dxf_file;
pub mod dxf_read;
pub mod edges_csv;
pub mod flat_sheet;
pub mod gcode;
pub mod glb;
pub mod holes_csv;
pub mod nc1;
pub mod pdf;
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
}
