//! What a rule is, what it says when it is broken, and the one way in which a list of them is checked.

use serde::{Deserialize, Serialize};
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
    /// What is wrong in the piece's own unit, where `message` speaks another: what an acceptance is held against.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub said: Option<String>,
    /// Who accepted it for this piece, and why; `None` where nobody did.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub accepted: Option<Accepted>,
}

/// Who accepted a rule that does not hold, and why.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Accepted {
    /// Why it may stay so.
    pub reason: String,
    /// Who says so.
    pub by: String,
    /// On which day: `2026-11-28`.
    pub on: String,
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

/// By what metal is parted: a rule may ask more of one than of another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum By {
    Laser,
    Plasma,
    Waterjet,
    OxyFuel,
    Punch,
    Drill,
    Saw,
}

/// By what a hole is made.
pub(super) const BY_HOLE: &[By] = &[By::Laser, By::Plasma, By::Waterjet, By::OxyFuel, By::Punch, By::Drill];

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
    /// What it may say of a place.
    pub levels: &'static [Level],
    /// By what metal is parted, where its answer depends on that.
    pub by: &'static [By],
    /// What of the shop's settings ([`ShopRules`](crate::stock::ShopRules)) it goes by, as paths.
    pub settings: &'static [&'static str],
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
    /// How many places are accepted; they count as neither broken nor doubtful.
    pub accepted: usize,
}

/// A rule as a list tells it, without its check.
#[derive(Clone, Debug, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct RuleTold {
    pub rule: &'static str,
    pub title: &'static str,
    /// Where it comes from.
    pub source: &'static str,
    pub about: About,
    /// What it may say of a place.
    pub levels: &'static [Level],
    /// Whether nothing is given out while it is broken.
    pub withholds: bool,
    /// By what metal is parted, where its answer depends on that.
    pub by: &'static [By],
    /// What of the shop's settings it goes by, as paths.
    pub settings: &'static [&'static str],
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
    /// As a list tells it.
    pub(super) fn told(&self) -> RuleTold {
        RuleTold {
            rule: self.key,
            title: self.title,
            source: self.source,
            about: self.about,
            levels: self.levels,
            withholds: self.broken == WhenBroken::Withholds,
            by: self.by,
            settings: self.settings,
        }
    }

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
            accepted: 0,
        });
        all.extend(breaches.into_iter().take(MOST).map(Breach::of_operations));
    }
    (outcomes, all)
}
