//! Rules that do not hold and are accepted for one piece, with a reason.
//!
//! An acceptance is of what was said of one place, with its values: once another value breaks the rule there it is asked again.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::finding::Finding;

use super::rules::{Accepted, Breach, Level, RuleOutcome, WhenBroken, when_broken};

/// The most letters of a reason, and of a name.
const MOST_REASON: usize = 300;
const MOST_NAME: usize = 80;

/// One rule at one place, accepted.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Acceptance {
    /// The rule's key.
    pub rule: String,
    /// What was said, in the piece's own unit.
    pub said: String,
    /// Names of what was involved.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub features: Vec<String>,
    /// Why it may stay so.
    pub reason: String,
    /// Who says so.
    pub by: String,
    /// On which day: `2026-11-28`.
    pub on: String,
}

impl Acceptance {
    /// Whether it can be one.
    ///
    /// # Errors
    /// The field that is wrong, and why in words.
    pub fn check(&self) -> Result<(), (&'static str, String)> {
        if when_broken(&self.rule) == WhenBroken::Withholds {
            let why = format!("{} cannot be accepted: a shop would cut what is left", self.rule);
            return Err(("rule", why));
        }
        let line = |text: &str, most: usize| {
            !text.trim().is_empty() && text.chars().count() <= most && !text.chars().any(char::is_control)
        };
        if !line(&self.reason, MOST_REASON) {
            return Err(("reason", format!("a reason has 1 to {MOST_REASON} characters on one line")));
        }
        if !line(&self.by, MOST_NAME) {
            return Err(("by", format!("who accepts it is named in 1 to {MOST_NAME} characters")));
        }
        if !is_day(&self.on) {
            return Err(("on", format!("\"{}\" is no day, such as 2026-11-28", self.on)));
        }
        Ok(())
    }

    fn is_of(&self, breach: &Breach) -> bool {
        self.rule == breach.rule
            && self.said == *breach.said.as_ref().unwrap_or(&breach.message)
            && self.features == breach.features
    }
}

/// Year, month and day of our calendar.
fn is_day(text: &str) -> bool {
    let mut parts = text.split('-');
    let mut next = |digits: usize| {
        let part = parts.next()?;
        (part.len() == digits && part.chars().all(|sign| sign.is_ascii_digit())).then(|| part.parse::<u32>().ok())?
    };
    let (year, month, day) = (next(4), next(2), next(2));
    let (Some(year), Some(month), Some(day)) = (year, month, day) else { return false };
    let leap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);
    let days = match month {
        4 | 6 | 9 | 11 => 30,
        2 => 28 + u32::from(leap),
        _ => 31,
    };
    parts.next().is_none() && (1..=12).contains(&month) && (1..=days).contains(&day)
}

/// Marks what is accepted, and takes it off the counts. A hint is never a fault, so there is nothing of it to accept. Acceptances of
/// what is not so any more are told.
pub fn accept(acceptances: &[Acceptance], rules: &mut [RuleOutcome], breaches: &mut [Breach]) -> Vec<Finding> {
    if acceptances.is_empty() {
        return Vec::new();
    }
    let mut used = vec![false; acceptances.len()];
    for breach in breaches.iter_mut().filter(|breach| breach.level != Level::Hint) {
        if when_broken(&breach.rule) == WhenBroken::Withholds {
            continue;
        }
        let Some(at) = acceptances.iter().position(|one| one.is_of(breach)) else { continue };
        used[at] = true;
        let Acceptance { reason, by, on, .. } = acceptances[at].clone();
        breach.accepted = Some(Accepted { reason, by, on });
        if let Some(rule) = rules.iter_mut().find(|rule| rule.rule == breach.rule) {
            let count = if breach.level == Level::Broken { &mut rule.broken } else { &mut rule.doubtful };
            *count = count.saturating_sub(1);
            rule.accepted += 1;
        }
    }
    let idle = acceptances.iter().zip(used).enumerate().filter(|(_, (_, used))| !used);
    idle.map(|(at, (one, _))| {
        Finding::hint(
            format!("{} accepted on {} that \"{}\", and it is not so any more", one.by, one.on, one.said),
            "Take the acceptance out; what breaks the rule now is asked again.",
        )
        .at_field(format!("accepted[{at}]"))
    })
    .collect()
}
