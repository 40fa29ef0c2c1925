//! Pressed forms: metal that a tool displaces out of a panel. The blank and its mass stay as they are, but for what is cut first.

mod metal;
mod model;
mod numbers;
mod offset;
mod press;
mod read;

pub use metal::FormMass;
pub(in crate::sheet) use metal::rings;
pub use model::{Form, Pressed};
pub(in crate::sheet) use numbers::FormNumbers;
pub(in crate::sheet) use press::{press, put};
pub(in crate::sheet) use read::read_form;
