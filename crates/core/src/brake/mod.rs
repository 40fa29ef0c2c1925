//! The press brake: what a bend is set up with.

mod bends;
mod reports;

pub use bends::{BendRow, bend_rows, usual_die};
pub use reports::{BendReport, bend_reports};
