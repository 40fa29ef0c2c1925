//! What a rule is, what it says when it is broken, and the one way in which a list of them is checked.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::patience;

/// What it means where a rule does not hold.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Level {
    /// A fault: the papers say so.
    Broken,
    /// It may be meant: it is asked.
    Doubtful,
    /// Worth knowing; never a fault.
    Hint,
}

/// A rule that does not hold, at one place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Breach {
    /// The rule's key.
    pub rule: String,
    /// What that means.
    pub level: Level,
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

/// What a rule is about: rules are told by it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum About {
    /// Bends: radii, legs, reliefs.
    Bends,
    /// Holes and cut-outs.
    Holes,
    /// How it folds, and whether the tools come out again.
    Folding,
    /// Sheet, bar, and the machines that take them.
    Stock,
    /// Members, their joints and their ends.
    Members,
}

/// Whose rules, by what they may look at.
pub trait Looked {
    /// What a rule may look at.
    type Context<'a>;
}

/// What comes of a broken rule.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum WhenBroken {
    /// It is told, and stands on the papers.
    Told,
    /// Nothing is given out: a shop would cut what is left.
    Withholds,
}

/// One rule of a list.
pub struct Rule<L: Looked> {
    /// Its key.
    pub key: &'static str,
    /// Its title.
    pub title: &'static str,
    /// Where it comes from.
    pub source: &'static str,
    /// What it is about.
    pub about: About,
    /// What comes of it when it is broken.
    pub broken: WhenBroken,
    /// Finds every breach.
    pub check: for<'a, 'b> fn(&'b L::Context<'a>) -> Vec<Breach>,
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
    /// What it is about.
    pub about: About,
    /// How many times it is broken.
    pub broken: usize,
    /// In how many places it is doubtful.
    pub doubtful: usize,
    /// How many hints it gives.
    pub hints: usize,
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

impl<L: Looked> Rule<L> {
    pub(in crate::proof) fn why(&self, formula: impl Into<String>, working: impl Into<String>) -> Why {
        Why { title: self.title.into(), formula: formula.into(), working: working.into(), source: self.source.into() }
    }
}

/// The most places of one rule that are told one by one; all are counted. A perforation that stands wrong has tens of thousands.
pub(super) const MOST: usize = 200;

/// Checks every rule of a list.
pub(super) fn check_all<L: Looked>(rules: &[Rule<L>], context: &L::Context<'_>) -> (Vec<RuleOutcome>, Vec<Breach>) {
    let (mut outcomes, mut all) = (Vec::new(), Vec::new());
    for rule in rules {
        patience::check();
        let breaches = (rule.check)(context);
        let count = |level: Level| breaches.iter().filter(|one| one.level == level).count();
        outcomes.push(RuleOutcome {
            rule: rule.key.into(),
            title: rule.title.into(),
            source: rule.source.into(),
            about: rule.about,
            broken: count(Level::Broken),
            doubtful: count(Level::Doubtful),
            hints: count(Level::Hint),
        });
        all.extend(breaches.into_iter().take(MOST).map(Breach::of_operations));
    }
    (outcomes, all)
}
