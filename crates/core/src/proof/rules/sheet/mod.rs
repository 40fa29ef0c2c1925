//! The shop's rules for plates and bent sheet: one list, a file for each.

mod blind_wall;
mod breaks_out;
mod closed_box;
mod context;
mod cut_across;
mod fits_no_screw;
mod flat_overlap;
mod folded_clash;
mod form_height;
mod form_room;
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
mod notch_to_bend;
mod one_side;
mod opposite_holes;
mod part_on_brake;
mod relief_missing;
mod row_without_ends;
mod rows;
mod sharp_corner;
mod short_row;
mod stock_sheet;
mod thread_holds;
mod tool_radius;
mod uneven_row;
mod web_between;

pub use context::{Context, OfSheet, SheetRule};

/// Every rule of plates and bent sheet.
pub const SHEET_RULES: [SheetRule; 32] = [
    inside_radius::RULE,
    hole_to_bend::RULE,
    hole_to_edge::RULE,
    web_between::RULE,
    least_hole::RULE,
    head_room::RULE,
    knife_edge::RULE,
    thread_holds::RULE,
    form_room::RULE,
    form_height::RULE,
    breaks_out::RULE,
    least_leg::RULE,
    cut_across::RULE,
    notch_to_bend::RULE,
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
    uneven_row::RULE,
    row_without_ends::RULE,
    fits_no_screw::RULE,
];
