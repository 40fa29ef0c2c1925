//! What the verbs of sheet offer where somebody points: whole steps with sizes that fit what is pointed at.

mod again;
mod bends;
mod edges;
mod forms;
mod holes;
mod ribs;
mod split;
mod start;

pub(super) use again::again;
pub(super) use bends::{bend, crease, hem, joggle};
pub(super) use edges::{corner, notch, slots, tab};
pub(super) use forms::form;
pub(super) use holes::{cut, drill};
pub(super) use ribs::rib;
pub(super) use split::{seam, split};
pub(super) use start::{lay_down, profile, roll, transition};
