//! The shop's rules for frames: one list, a file for each.

mod bar_long_enough;
mod bend_radius;
mod context;
mod joint_settled;
mod member_clash;
mod member_long_enough;
mod vented;

pub use context::{FrameContext, FrameRule, OfFrame};

/// Every rule of frames.
pub const FRAME_RULES: [FrameRule; 6] = [
    member_clash::RULE,
    joint_settled::RULE,
    member_long_enough::RULE,
    bend_radius::RULE,
    bar_long_enough::RULE,
    vented::RULE,
];
