//! Cuts that are not holes within one panel: in the flat across bends, straight through the folded part, notches on an
//! edge, tabs and their slots.

mod across;
mod edge;
mod tab;
mod through;

pub(super) use across::{cut_flat, cut_open};
pub use edge::{NotchNumbers, NotchSize};
pub(super) use edge::{notch, read_notch};
pub use tab::{SlotsNumbers, TabNumbers};
pub(super) use tab::{lay_tabs, read_slots, read_tab, slots};
pub(super) use through::cut_through;
