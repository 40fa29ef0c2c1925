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
mod sharp_corner;
mod stock_sheet;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::measure::Part;
use crate::patience;
use crate::quantity::LengthUnit;
use crate::space::Prism;
use crate::stock::{Grain, Material};

/// What a rule may look at.
pub struct Context<'a> {
    /// The part as built.
    pub part: &'a Part,
    /// Its material.
    pub material: &'a Material,
    /// Prisms of every node, folded, for clashes.
    pub prisms: &'a [Vec<Prism>],
    /// How the sheet's grain lies on the blank, where it is minded.
    pub grain: Option<Grain>,
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

impl Breach {
    /// Its operations as a piece names them: what an operation makes is called `OPERATION.part`.
    fn of_operations(mut self) -> Breach {
        for name in &mut self.operations {
            if let Some((stem, _)) = name.split_once('.') {
                *name = stem.to_string();
            }
        }
        let mut seen = Vec::new();
        self.operations.retain(|name| {
            let fresh = !seen.contains(name);
            seen.push(name.clone());
            fresh
        });
        self
    }
}

impl Rule {
    fn why(&self, formula: impl Into<String>, working: impl Into<String>) -> Why {
        Why { title: self.title.into(), formula: formula.into(), working: working.into(), source: self.source.into() }
    }
}
