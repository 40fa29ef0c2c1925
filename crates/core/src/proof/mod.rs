//! Proof: every call-out measured back from the built geometry, and the shop's rules.

mod callout;
mod iso2768;
pub mod rules;

pub use callout::{CallOutProof, Limits, Tolerance, ToleranceClass, Verdict, prove};
pub use iso2768::{angular, linear};
pub use rules::{Breach, RULES, Rule, RuleOutcome, check_rules};
