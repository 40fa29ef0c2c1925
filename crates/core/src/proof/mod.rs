//! Proof: every call-out measured back from the built geometry, and the shop's rules.

mod acceptance;
mod callout;
mod class;
mod iso13920;
mod iso2768;
pub mod rules;

pub use acceptance::{Acceptance, accept};
pub use callout::{CallOutProof, Limits, Subject, Tolerance, Verdict, prove};
pub use class::ToleranceClass;
pub use iso2768::{angular, linear};
pub use iso13920::welded_linear;
pub use rules::{
    About, Accepted, Breach, By, FRAME_RULES, FrameContext, Level, Rule, RuleOutcome, RuleTold, SHEET_RULES,
    WhenBroken, all_rules, check_frame_rules, check_rules, when_broken,
};
