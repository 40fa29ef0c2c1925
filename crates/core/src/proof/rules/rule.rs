//! What a rule is, what it looks at and what it says.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::quantity::LengthUnit;
use crate::sheet::Part;
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
    pub(super) fn show(&self, millimetres: f64) -> String {
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

impl Breach {
    /// Its operations as a piece names them: what an operation makes is called `OPERATION.part`.
    pub(super) fn of_operations(mut self) -> Breach {
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
    pub(super) fn why(&self, formula: impl Into<String>, working: impl Into<String>) -> Why {
        Why { title: self.title.into(), formula: formula.into(), working: working.into(), source: self.source.into() }
    }
}
