//! The shop's rules: a list for each trade, a file for each rule.

mod frame;
mod rule;
mod sheet;

pub use frame::{FRAME_RULES, FrameContext, FrameRule, OfFrame};
pub use rule::{About, Accepted, Breach, By, Level, Looked, Rule, RuleOutcome, RuleTold, WhenBroken};
pub use sheet::{Context, OfSheet, SHEET_RULES, SheetRule};

use rule::check_all;

/// Checks every rule of plates and bent sheet.
pub fn check_rules(context: &Context<'_>) -> (Vec<RuleOutcome>, Vec<Breach>) {
    check_all(&SHEET_RULES, context)
}

/// Checks every rule of frames.
pub fn check_frame_rules(context: &FrameContext<'_>) -> (Vec<RuleOutcome>, Vec<Breach>) {
    check_all(&FRAME_RULES, context)
}

/// What comes of the rule of a key when it is broken; told where no rule has it.
pub fn when_broken(key: &str) -> WhenBroken {
    let sheet = SHEET_RULES.iter().map(|rule| (rule.key, rule.broken));
    let frame = FRAME_RULES.iter().map(|rule| (rule.key, rule.broken));
    sheet.chain(frame).find(|(own, _)| *own == key).map_or(WhenBroken::Told, |(_, broken)| broken)
}

/// Every rule, plates and bent sheet first.
pub fn all_rules() -> Vec<RuleTold> {
    SHEET_RULES.iter().map(|rule| rule.told()).chain(FRAME_RULES.iter().map(|rule| rule.told())).collect()
}
