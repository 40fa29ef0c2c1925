//! The trade's rules and computation: from a piece document to its blank, folded shape, weights and proofs.
//!
//! No I/O, no clock, no randomness: the same input gives the same output.
//!
//! ```
//! use steelk_core::piece::{Piece, evaluate};
//!
//! let text = r#"{"steelk": 1, "kind": "plate", "mark": "P-1", "title": "Base plate", "quantity": 1, "unit": "mm",
//!     "stock": {"material": "S275", "thickness": "10 mm"},
//!     "callouts": [{"name": "W", "value": "200 mm", "measure": {"distance": {"from": "base.left", "to": "base.right"}}}],
//!     "operations": [{"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "W", "depth": "W/2"}}}}}]}"#;
//! let outcome = evaluate(&Piece::read(text.as_bytes())?, Default::default());
//! // 0.2 m x 0.1 m x 0.01 m of steel at 7850 kg/m3.
//! assert!((outcome.figures().expect("it is built").mass - 1.57).abs() < 1e-9);
//! // The call-out is measured on what was built.
//! assert!((outcome.callouts[0].measured.expect("it is placed") - 200.0).abs() < 1e-9);
//! # Ok::<(), steelk_core::piece::DocumentError>(())
//! ```

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod audit;
pub mod beside;
pub mod brake;
pub mod cutlist;
pub mod drawing;
pub mod finding;
pub mod frame;
pub mod measure;
pub mod nest;
pub mod offer;
pub mod patience;
pub mod piece;
pub mod plane;
pub mod proof;
pub mod quantity;
pub mod release;
pub mod section;
pub mod sheet;
pub mod space;
pub mod stock;
pub mod table;
pub mod toolpath;
pub mod work;
