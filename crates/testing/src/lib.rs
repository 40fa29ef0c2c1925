//! What tests of every crate stand on: ready documents, random ones from a number, figures that are near each other, the
//! reference libraries of another language, a running server.
//!
//! ```
//! use serde_json::json;
//! use steelk_testing::{base, bend, near, part, piece, sound};
//!
//! let outcome = sound(&piece("3 mm", "3 mm", "0.42", json!([base("80 mm", "60 mm"), bend("up", "base.back", "90 deg", "40 mm", json!({}))])));
//! // Outside lengths less the deduction of the bend: twice R + T, less the arc at K (DIN 6935's way of counting).
//! near(part(&outcome).blank.extents().height(), 60.0 + 40.0 - 12.0 + (3.0 + 0.42 * 3.0) * std::f64::consts::FRAC_PI_2, 1e-9);
//! ```

#![forbid(unsafe_code)]

pub mod bars;
mod documents;
pub mod law;
pub mod python;
pub mod server;
pub mod trials;

use std::path::{Path, PathBuf};

use steelk_core::piece::{Kind, Options, Outcome, Piece, alone, blanks_of, evaluate};

pub use documents::*;

/// The folder of the repository.
pub fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

/// A piece of the demo by the name of its file: `01-winch-bracket`.
#[track_caller]
pub fn demo(name: &str) -> Piece {
    let path = root().join(format!("demo/{name}.json"));
    let bytes = std::fs::read(&path).unwrap_or_else(|fault| panic!("{}: {fault}", path.display()));
    Piece::read(&bytes).unwrap_or_else(|fault| panic!("{name}: {fault}"))
}

/// Every piece of the demo, in the order of their files.
pub fn demo_pieces() -> Vec<Piece> {
    let files = std::fs::read_dir(root().join("demo")).expect("the demo's folder");
    let mut names: Vec<String> = files
        .map(|entry| entry.expect("an entry").path())
        .filter(|path| path.extension().is_some_and(|end| end == "json"))
        .filter_map(|path| Some(path.file_stem()?.to_str()?.to_string()))
        .collect();
    names.sort();
    names.iter().map(|name| demo(name)).collect()
}

/// Insists that two figures agree to a tolerance.
#[track_caller]
pub fn near(found: f64, expected: f64, tolerance: f64) {
    assert!((found - expected).abs() <= tolerance, "found {found}, expected {expected} within {tolerance}");
}

/// A piece with what was made of it, or each of its blanks as a piece of its own where it comes to several.
pub fn blank_by_blank(piece: Piece) -> Vec<(Piece, Outcome)> {
    let outcome = evaluate(&piece, Options::default());
    match outcome.sheets().map(|sheets| sheets.blanks().len() > 1 && piece.kind != Kind::Frame) {
        Some(true) => {
            let sheets = outcome.sheets().into_iter();
            let blanks = sheets.flat_map(|sheets| blanks_of(&piece, sheets)).collect::<Vec<_>>();
            blanks.iter().filter_map(|blank| alone(&piece, &outcome, blank)).collect()
        }
        _ => vec![(piece, outcome)],
    }
}
