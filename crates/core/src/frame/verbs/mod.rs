//! The one list of verbs of frame work, a row and a file a verb.

mod bore;
mod copy;
mod divide;
mod end;
mod end_notch;
mod joint;
mod lines;
mod member;
mod node;
mod offers;
mod on_line;
mod path;
mod plate;
mod ready;
mod round;
mod verb;

pub use verb::FrameVerb;
pub(in crate::frame) use verb::{Given, Site, Step};

use crate::work::Action;

/// Every verb of frames.
pub static FRAME_VERBS: [FrameVerb; 13] = [
    node::NODE,
    path::PATH,
    divide::DIVIDE,
    round::ROUND,
    lines::LINES,
    ready::READY,
    copy::COPY,
    member::MEMBER,
    joint::JOINT,
    end::END,
    bore::BORE,
    end_notch::END_NOTCH,
    plate::PLATE,
];

/// The row of an action; `None` for work of another trade.
pub fn frame_verb(action: &Action) -> Option<&'static FrameVerb> {
    let key = action.key();
    FRAME_VERBS.iter().find(|verb| verb.key == key)
}
