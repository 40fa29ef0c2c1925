//! The shop's rules for frames: one list, a file for each.

mod bar_long_enough;
mod bend_radius;
mod bore_room;
mod context;
mod filler;
mod joint_settled;
mod lug_load;
mod member_clash;
mod member_long_enough;
mod saw_angle;
mod short_point;
mod unlike_metals;
mod vented;

pub use context::{FrameContext, FrameRule, OfFrame};

/// Every rule of frames.
pub const FRAME_RULES: [FrameRule; 12] = [
    member_clash::RULE,
    joint_settled::RULE,
    member_long_enough::RULE,
    short_point::RULE,
    saw_angle::RULE,
    bore_room::RULE,
    bend_radius::RULE,
    bar_long_enough::RULE,
    filler::RULE,
    unlike_metals::RULE,
    lug_load::RULE,
    vented::RULE,
];
