//! Open formats, written from core's types: DXF, SVG, CSV, and the JSON report.

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod cutlist_csv;
pub mod dxf_file;
pub mod report;
pub mod svg;

/// Why a file could not be written.
#[derive(Debug, thiserror::Error)]
pub enum WriteError {
    /// The DXF library refused.
    #[error("the DXF file could not be written: {0}")]
    Dxf(String),
    /// The CSV library refused.
    #[error("the cut list could not be written: {0}")]
    Csv(String),
}
