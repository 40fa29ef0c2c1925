//! The one list of verbs of sheet work, a row and a file a verb.

mod again;
mod bend;
mod corner;
mod crease;
mod cut;
mod drill;
mod form;
mod hem;
mod joggle;
mod lay_down;
mod notch;
mod offers;
mod profile;
mod rib;
mod roll;
mod seam;
mod slots;
mod split;
mod tab;
mod transition;
mod verb;

pub(in crate::sheet) use verb::{Around, check_new};
pub use verb::{Bends, OperationNumbers, SheetVerb, SheetWork};

use crate::work::Action;

/// Every verb of sheet.
pub static SHEET_VERBS: [SheetVerb; 19] = [
    lay_down::LAY_DOWN,
    bend::BEND,
    drill::DRILL,
    cut::CUT,
    form::FORM,
    rib::RIB,
    corner::CORNER,
    profile::PROFILE,
    roll::ROLL,
    transition::TRANSITION,
    hem::HEM,
    joggle::JOGGLE,
    crease::CREASE,
    notch::NOTCH,
    tab::TAB,
    slots::SLOTS,
    again::AGAIN,
    split::SPLIT,
    seam::SEAM,
];

/// The row of an action; `None` for work of another trade.
pub fn sheet_verb(action: &Action) -> Option<&'static SheetVerb> {
    let key = action.key();
    SHEET_VERBS.iter().find(|verb| verb.key == key)
}
