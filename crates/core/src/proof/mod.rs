//! Proof: every call-out measured back from the built geometry, and the shop's rules.

mod callout;
mod class;
pub mod frame_rules;
mod iso13920;
mod iso2768;
pub mod rules;

pub use crate::proof::rules::{Breach, Rule, RuleOutcome};
pub use callout::{CallOutProof, Limits, Subject, Tolerance, Verdict, prove};
pub use class::ToleranceClass;
pub use frame_rules::{FRAME_RULES, FrameContext, check_frame_rules};
pub use iso2768::{angular, linear};
pub use iso13920::welded_linear;
pub use rules::{RULES, check_rules};
