//! Proof: every call-out measured back from the built geometry, and the shop's rules.

mod callout;
pub mod frame_rules;
mod iso13920;
mod iso2768;
pub mod rules;

pub use callout::{CallOutProof, Limits, Subject, Tolerance, ToleranceClass, Verdict, prove};
pub use frame_rules::{FRAME_RULES, FrameContext, check_frame_rules};
pub use iso2768::{angular, linear};
pub use iso13920::welded_linear;
pub use rules::{Breach, RULES, Rule, RuleOutcome, check_rules};
