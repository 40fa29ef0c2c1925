//! The shop's rules for plates and bent sheet: one list, a file for each.

mod blind_wall;
mod closed_box;
mod context;
mod cut_across;
mod flat_overlap;
mod folded_clash;
mod grain;
mod head_room;
mod hem;
mod hole_to_bend;
mod hole_to_edge;
mod inside_radius;
mod knife_edge;
mod least_hole;
mod least_leg;
mod lip_traps;
mod metal;
mod one_side;
mod opposite_holes;
mod part_on_brake;
mod relief_missing;
mod sharp_corner;
mod short_row;
mod stock_sheet;
mod thread_holds;
mod tool_radius;
mod web_between;

pub use context::{Context, OfSheet, SheetRule};

/// Every rule of plates and bent sheet.
pub const SHEET_RULES: [SheetRule; 25] = [
    inside_radius::RULE,
    hole_to_bend::RULE,
    hole_to_edge::RULE,
    web_between::RULE,
    least_hole::RULE,
    head_room::RULE,
    knife_edge::RULE,
    thread_holds::RULE,
    least_leg::RULE,
    cut_across::RULE,
    hem::RULE,
    grain::RULE,
    relief_missing::RULE,
    sharp_corner::RULE,
    blind_wall::RULE,
    opposite_holes::RULE,
    flat_overlap::RULE,
    folded_clash::RULE,
    lip_traps::RULE,
    closed_box::RULE,
    part_on_brake::RULE,
    stock_sheet::RULE,
    tool_radius::RULE,
    one_side::RULE,
    short_row::RULE,
];
