//! The shop's rules: one list, a file for each.

mod blind_wall;
mod flat_overlap;
mod folded_clash;
mod hole_to_bend;
mod hole_to_edge;
mod inside_radius;
mod least_leg;
mod opposite_holes;
mod relief_missing;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::measure::Part;
use crate::quantity::LengthUnit;
use crate::space::Prism;
use crate::stock::Material;

/// What a rule may look at.
pub struct Context<'a> {
    /// The part as built.
    pub part: &'a Part,
    /// Its material.
    pub material: &'a Material,
    /// Prisms of every node, folded, for clashes.
    pub prisms: &'a [Vec<Prism>],
    /// What messages speak in.
    pub unit: LengthUnit,
}

impl Context<'_> {
    fn show(&self, millimetres: f64) -> String {
        crate::quantity::length_text(millimetres, self.unit)
    }
}

/// A rule that is broken, at one place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Breach {
    /// The rule's key.
    pub rule: String,
    /// What is wrong, with the values.
    pub message: String,
    /// What to do.
    pub way_out: String,
    /// The operations it belongs to, the likeliest culprit first.
    pub operations: Vec<String>,
    /// Names of what is involved.
    pub features: Vec<String>,
    /// The working, with the rule's source.
    pub why: Why,
}

/// One rule of the list.
pub struct Rule {
    /// Its key.
    pub key: &'static str,
    /// Its title.
    pub title: &'static str,
    /// Where it comes from.
    pub source: &'static str,
    /// Finds every breach.
    pub check: fn(&Context<'_>) -> Vec<Breach>,
}

/// How a rule stands for a part.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RuleOutcome {
    /// The rule's key.
    pub rule: String,
    /// Its title.
    pub title: String,
    /// Where it comes from.
    pub source: String,
    /// How many times it is broken.
    pub broken: usize,
}

/// Every rule of the shop.
pub const RULES: [Rule; 9] = [
    inside_radius::RULE,
    hole_to_bend::RULE,
    hole_to_edge::RULE,
    least_leg::RULE,
    relief_missing::RULE,
    blind_wall::RULE,
    opposite_holes::RULE,
    flat_overlap::RULE,
    folded_clash::RULE,
];

/// Checks every rule.
pub fn check_rules(context: &Context<'_>) -> (Vec<RuleOutcome>, Vec<Breach>) {
    let mut outcomes = Vec::new();
    let mut all = Vec::new();
    for rule in &RULES {
        let breaches = (rule.check)(context);
        outcomes.push(RuleOutcome {
            rule: rule.key.into(),
            title: rule.title.into(),
            source: rule.source.into(),
            broken: breaches.len(),
        });
        all.extend(breaches);
    }
    (outcomes, all)
}

impl Rule {
    fn why(&self, formula: impl Into<String>, working: impl Into<String>) -> Why {
        Why { title: self.title.into(), formula: formula.into(), working: working.into(), source: self.source.into() }
    }
}
