//! The shop's rules: one list, a file for each.

mod blind_wall;
mod closed_box;
mod cut_across;
mod flat_overlap;
mod folded_clash;
mod grain;
mod hem;
mod hole_to_bend;
mod hole_to_edge;
mod inside_radius;
mod least_leg;
mod lip_traps;
mod opposite_holes;
mod part_on_brake;
mod relief_missing;
mod rule;
mod sharp_corner;
mod stock_sheet;

pub use rule::{Breach, Context, Rule, RuleOutcome};

use crate::patience;

/// Every rule of the shop.
pub const RULES: [Rule; 17] = [
    inside_radius::RULE,
    hole_to_bend::RULE,
    hole_to_edge::RULE,
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
];

/// Checks every rule.
pub fn check_rules(context: &Context<'_>) -> (Vec<RuleOutcome>, Vec<Breach>) {
    let mut outcomes = Vec::new();
    let mut all = Vec::new();
    for rule in &RULES {
        patience::check();
        let breaches = (rule.check)(context);
        outcomes.push(RuleOutcome {
            rule: rule.key.into(),
            title: rule.title.into(),
            source: rule.source.into(),
            broken: breaches.len(),
        });
        all.extend(breaches.into_iter().map(Breach::of_operations));
    }
    (outcomes, all)
}
