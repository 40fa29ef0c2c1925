//! The press brake: what a bend is set up with.

mod bends;

pub use bends::{BendRow, bend_rows, usual_die};
